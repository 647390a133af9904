package joiner.desktop.gather;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.IntConsumer;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.scene.Node;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.discovery.ColumnProfile;
import joiner.discovery.ColumnProfile.Disagreeing;
import joiner.meaning.TypeWords;
import joiner.rows.EncodedTable;

/** The rows of a source under a strip that says what was found in each column. */
final class SourceGrid {
  /** Columns and rows shown; the rest is read all the same. */
  static final int MOST_COLUMNS = 150;

  static final int MOST_ROWS = 5_000;

  private final Texts texts;
  private final EncodedTable cells;
  private final List<ColumnProfile> profiles;
  private final TableView<Integer> grid = new TableView<>();
  private final Map<Integer, VBox> heads = new TreeMap<>();

  SourceGrid(Texts texts, EncodedTable cells, List<ColumnProfile> profiles, IntConsumer picked) {
    this.texts = texts;
    this.cells = cells;
    this.profiles = profiles;
    grid.setId("source-grid");
    for (int i = 0; i < Math.min(MOST_COLUMNS, cells.columns().size()); i++) {
      grid.getColumns().add(column(i, picked));
    }
    IntStream.range(0, Math.min(MOST_ROWS, cells.rows())).forEach(grid.getItems()::add);
    grid.getSelectionModel().setCellSelectionEnabled(true);
    grid.getFocusModel()
        .focusedCellProperty()
        .subscribe(
            cell -> {
              if (cell != null && cell.getColumn() >= 0) {
                picked.accept(cell.getColumn());
              }
            });
  }

  TableView<Integer> node() {
    return grid;
  }

  private TableColumn<Integer, String> column(int index, IntConsumer picked) {
    var column = new TableColumn<Integer, String>();
    var head = head(profiles.get(index));
    heads.put(index, head);
    head.setOnMouseClicked(event -> picked.accept(index));
    column.setGraphic(head);
    column.setSortable(false);
    column.setReorderable(false);
    ColumnProfile profile = profiles.get(index);
    double header = Math.max(profile.header().length(), 12) * 7.2 + 26;
    column.setPrefWidth(Math.clamp(profile.longest() * 7.2 + 24, Math.min(header, 150), 210));
    column.setCellValueFactory(row -> new ReadOnlyStringWrapper(cells.text(row.getValue(), index)));
    Set<Long> bad =
        profile.disagreeing().stream().map(Disagreeing::row).collect(Collectors.toSet());
    if (!bad.isEmpty()) {
      column.setCellFactory(c -> new Marked(bad));
    }
    return column;
  }

  /** A cell that shows when it has not the form of its column. */
  private static final class Marked extends TableCell<Integer, String> {
    private final Set<Long> bad;

    Marked(Set<Long> bad) {
      this.bad = bad;
    }

    @Override
    protected void updateItem(String text, boolean empty) {
      super.updateItem(text, empty);
      setText(empty ? null : text);
      boolean marked = !empty && bad.contains(getIndex() + 1L);
      getStyleClass().remove("bad-cell");
      if (marked) {
        getStyleClass().add("bad-cell");
      }
    }
  }

  private VBox head(ColumnProfile column) {
    var lines = new ArrayList<Node>();
    lines.add(Parts.shortened(column.header(), "strong"));
    lines.add(Parts.shortened(what(column), "muted", "small"));
    lines.add(Parts.shortened(how(column), oak(column) ? "oak" : "muted", "small"));
    lines.add(Parts.shortened("", "spruce", "small"));
    var head = new VBox();
    head.getChildren().addAll(lines);
    head.getStyleClass().add("profile-head");
    head.setPadding(new javafx.geometry.Insets(5, 4, 5, 0));
    return head;
  }

  private String what(ColumnProfile column) {
    String kind = TypeWords.kind(column.type());
    String shown = Character.toUpperCase(kind.charAt(0)) + kind.substring(1);
    return column.blank() == 0
        ? texts.get("head.type", shown)
        : texts.get("head.blank", shown, column.blank());
  }

  private static boolean oak(ColumnProfile column) {
    return column.agreeing() + column.blank() < column.rows()
        || column.notes().contains(ColumnProfile.Note.LEADING_ZEROS)
        || column.notes().contains(ColumnProfile.Note.DAY_FIRST_UNDECIDED);
  }

  private String how(ColumnProfile column) {
    long disagree = column.rows() - column.blank() - column.agreeing();
    if (disagree > 0) {
      return texts.get("head.disagree", disagree);
    }
    if (column.notes().contains(ColumnProfile.Note.LEADING_ZEROS)) {
      return texts.get("head.zeros");
    }
    if (column.notes().contains(ColumnProfile.Note.DAY_FIRST_UNDECIDED)) {
      return texts.get("head.undecided");
    }
    if (column.unique()) {
      return texts.get("head.unique");
    }
    return column.distinct() <= 1 ? texts.get("head.constant") : different(texts, column);
  }

  /** How many different values a column has, or about how many. */
  static String different(Texts texts, ColumnProfile column) {
    return texts.get(column.exact() ? "head.different" : "head.about", column.distinct());
  }

  /** Says below each header where its values would go. */
  void show(Map<Integer, String> destinations) {
    heads.forEach(
        (column, head) -> {
          var line = (javafx.scene.control.Label) head.getChildren().getLast();
          line.setText(destinations.getOrDefault(column, ""));
        });
  }
}
