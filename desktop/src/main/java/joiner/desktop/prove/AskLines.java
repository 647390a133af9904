package joiner.desktop.prove;

import java.util.List;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Parts;
import joiner.expression.Evaluator;
import joiner.expression.Kind;
import joiner.expression.Value;
import joiner.joining.Bound;

/** The lines of an answer as a table. */
final class AskLines {
  private static final PseudoClass STALE = PseudoClass.getPseudoClass("stale");
  private static final double LEAST_HEIGHT = 190;

  private final TableView<List<Value>> table = new TableView<>();
  private final Label empty = Parts.prose("", "muted");
  private List<Bound.Column> shown = List.of();

  /**
   * No lines yet.
   *
   * @param name what it is called by whoever does not see it
   */
  AskLines(String name) {
    table.setId("answer");
    table.setMinHeight(LEAST_HEIGHT);
    table.setPlaceholder(empty);
    table.setAccessibleText(name);
    VBox.setVgrow(table, Priority.ALWAYS);
  }

  Node node() {
    return table;
  }

  /** Says whether what is shown is of another question than the one that is asked. */
  void stale(boolean is) {
    table.pseudoClassStateChanged(STALE, is);
  }

  /** What stands there where there are no lines. */
  void empty(String words) {
    empty.setText(words);
  }

  /** Shows no lines, under the columns there are. */
  void none() {
    table.getItems().clear();
  }

  /** Shows nothing. */
  void clear() {
    none();
    table.getColumns().clear();
    shown = List.of();
  }

  void show(List<Bound.Column> columns, List<List<Value>> lines) {
    columns(columns);
    table.getItems().setAll(lines);
  }

  private void columns(List<Bound.Column> columns) {
    if (columns.equals(shown)) {
      return;
    }
    shown = columns;
    table.getColumns().clear();
    for (int i = 0; i < columns.size(); i++) {
      table.getColumns().add(column(columns.get(i), i));
    }
  }

  private static TableColumn<List<Value>, Value> column(Bound.Column of, int place) {
    var column = new TableColumn<List<Value>, Value>(of.label());
    column.setSortable(false);
    column.setReorderable(false);
    column.setPrefWidth(Math.clamp(40 + 7.5 * of.label().length(), 90, 260));
    column.setCellValueFactory(line -> new ReadOnlyObjectWrapper<>(line.getValue().get(place)));
    boolean number = of.type().kind() == Kind.WHOLE || of.type().kind() == Kind.NUMBER;
    column.setCellFactory(
        view ->
            new TableCell<>() {
              {
                getStyleClass().add(number ? "number" : "plain");
              }

              @Override
              protected void updateItem(Value value, boolean empty) {
                super.updateItem(value, empty);
                setText(empty || value == null ? null : text(value));
              }
            });
    return column;
  }

  private static String text(Value value) {
    return value == Value.NULL ? "–" : Evaluator.show(value);
  }
}
