package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.scene.Node;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.desktop.prove.EnterFound.Row;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.model.FieldId;
import joiner.model.Listing.By;
import joiner.model.Table;

/** The rows that are found, with the columns and in the order the design keeps. */
final class EnterColumns {
  private static final double LEAST_LABEL = 126;
  private static final double LEAST = 60;
  private static final double MOST = 210;
  private static final double SCROLL_BAR = 18;
  private static final double LETTER = 6.9;
  private static final int LOOKED_AT = 60;

  private final EnterModel model;
  private final EnterFound found;
  private final TableView<Row> rows = new TableView<>();
  private final Map<TableColumn<Row, ?>, Double> widths = new HashMap<>();
  private List<FieldId> columns = List.of();
  private List<Row> shown = List.of();
  private boolean filling;

  EnterColumns(EnterModel model, Texts texts) {
    this.model = model;
    this.found = model.found();
    rows.setId("enter-rows");
    rows.setAccessibleText(texts.get("enter.rows"));
    rows.setFixedCellSize(28);
    rows.widthProperty().subscribe(width -> share());
    rows.setPlaceholder(Parts.prose("", "muted"));
    rows.setSortPolicy(
        view -> {
          if (!filling) {
            found.order(order(view));
          }
          return true; // The rows come in that order.
        });
    rows.getSelectionModel()
        .selectedItemProperty()
        .subscribe(
            row -> {
              if (!filling && row != null) {
                model.open(Optional.of(row.id()));
              }
            });
    VBox.setVgrow(rows, Priority.ALWAYS);
  }

  /** What rows are recognised by is sorted by the fields it reads. */
  private List<By> order(TableView<Row> view) {
    var order = new LinkedHashMap<FieldId, By>();
    for (TableColumn<Row, ?> column : view.getSortOrder()) {
      boolean descending = column.getSortType() == TableColumn.SortType.DESCENDING;
      fields(column).forEach(field -> order.putIfAbsent(field, new By(field, descending)));
    }
    return List.copyOf(order.values());
  }

  private List<FieldId> fields(TableColumn<Row, ?> column) {
    return column.getUserData() instanceof FieldId field ? List.of(field) : found.recognisedBy();
  }

  Node node() {
    return rows;
  }

  /** Shows what is found of a table now. */
  void show(Table table) {
    filling = true;
    columns(table);
    List<Row> now = found.rows();
    if (now != shown) {
      shown = now;
      rows.getItems().setAll(now);
    }
    Optional<Row> open = open();
    if (open.isPresent()) {
      rows.getSelectionModel().select(open.get());
    } else {
      rows.getSelectionModel().clearSelection();
    }
    rows.refresh();
    filling = false;
  }

  /** The row that is open, if it is among those that are found. */
  Optional<Row> open() {
    return rows.getItems().stream()
        .filter(row -> model.opened().equals(Optional.of(row.id())))
        .findFirst();
  }

  /**
   * Columns take what room there is; where there is too little they stay whole and are scrolled.
   */
  private void share() {
    boolean room = columns.isEmpty() || columnsWanted() <= rows.getWidth();
    rows.setColumnResizePolicy(TableView.UNCONSTRAINED_RESIZE_POLICY); // It is shared out anew.
    if (room) {
      rows.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
    }
  }

  private double columnsWanted() {
    return widths.values().stream().mapToDouble(w -> w).sum();
  }

  /** How wide it would be with everything in sight. */
  double wanted() {
    return columnsWanted() + SCROLL_BAR;
  }

  private void columns(Table table) {
    List<FieldId> wanted = found.listing().columns();
    if (rows.getColumns().isEmpty() || !wanted.equals(columns)) {
      columns = wanted;
      var all = new ArrayList<TableColumn<Row, ?>>();
      all.add(labels());
      wanted.forEach(field -> all.add(column(field)));
      rows.getColumns().setAll(all);
    }
    rows.getColumns().getFirst().setText(table.label());
    for (TableColumn<Row, ?> column : rows.getColumns()) {
      if (column.getUserData() instanceof FieldId field && table.hasField(field)) {
        column.setText(table.field(field).label());
      }
    }
    if (found.rows() != shown) {
      fit(table);
    }
    if (!order(rows).equals(found.order())) {
      rows.getSortOrder().setAll(sorted(found.order()));
    }
  }

  /** The columns that stand for an order, as far as there are some. */
  private List<TableColumn<Row, ?>> sorted(List<By> order) {
    var sorted = new ArrayList<TableColumn<Row, ?>>();
    for (int i = 0; i < order.size(); i++) {
      By by = order.get(i);
      List<By> label = found.recognisedBy().stream().map(f -> new By(f, by.descending())).toList();
      int end = i + label.size();
      boolean all = !label.isEmpty() && end <= order.size() && order.subList(i, end).equals(label);
      Optional<TableColumn<Row, ?>> column =
          all ? Optional.of(rows.getColumns().getFirst()) : columnOf(by.field());
      column.ifPresent(
          c -> {
            c.setSortType(
                by.descending() ? TableColumn.SortType.DESCENDING : TableColumn.SortType.ASCENDING);
            sorted.add(c);
          });
      i = all ? end - 1 : i;
    }
    return sorted;
  }

  /** As wide as what the first rows say there. */
  private void fit(Table table) {
    List<Row> first = found.rows().stream().limit(LOOKED_AT).toList();
    widths.clear();
    for (TableColumn<Row, ?> column : rows.getColumns()) {
      boolean beside = column.getUserData() instanceof FieldId;
      int longest = beside ? column.getText().length() + 3 : table.label().length();
      for (Row row : first) {
        String text =
            column.getUserData() instanceof FieldId field ? found.text(row, field) : row.label();
        longest = Math.max(longest, text.length());
      }
      widths.put(column, Math.clamp(22 + LETTER * longest, beside ? LEAST : LEAST_LABEL, MOST));
    }
    rows.getColumns().forEach(column -> column.setPrefWidth(widths.get(column)));
    share();
  }

  private Optional<TableColumn<Row, ?>> columnOf(FieldId field) {
    return rows.getColumns().stream().filter(c -> field.equals(c.getUserData())).findFirst();
  }

  private TableColumn<Row, Row> labels() {
    TableColumn<Row, Row> column = plain();
    column.setCellFactory(
        view ->
            new TableCell<>() {
              @Override
              protected void updateItem(Row row, boolean empty) {
                super.updateItem(row, empty);
                setText(
                    empty || row == null
                        ? null
                        : row.label() + (model.isUnsaved(Optional.of(row.id())) ? "  •" : ""));
              }
            });
    return column;
  }

  private TableColumn<Row, Row> column(FieldId field) {
    TableColumn<Row, Row> column = plain();
    column.setUserData(field);
    column.setCellFactory(
        view ->
            new TableCell<>() {
              {
                getStyleClass().add("muted");
              }

              @Override
              protected void updateItem(Row row, boolean empty) {
                super.updateItem(row, empty);
                setText(empty || row == null ? null : found.text(row, field));
              }
            });
    return column;
  }

  private static TableColumn<Row, Row> plain() {
    var column = new TableColumn<Row, Row>();
    column.setReorderable(false);
    column.setCellValueFactory(row -> new ReadOnlyObjectWrapper<>(row.getValue()));
    return column;
  }
}
