package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.expression.Formula;
import joiner.model.Area;
import joiner.model.Noun;
import joiner.model.Table;

/** All that is said of a table itself, as a form. */
final class TableForm {
  private final SheetModel model;
  private final Texts texts;
  private final Runnable typeFields;

  /**
   * A form.
   *
   * @param typeFields goes to where the fields of the table are typed
   */
  TableForm(SheetModel model, Texts texts, Runnable typeFields) {
    this.model = model;
    this.texts = texts;
    this.typeFields = typeFields;
  }

  List<Node> of(Table table, Optional<Area> area) {
    Noun noun = table.noun();
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(table.label(), "title"));
    nodes.add(Parts.prose(texts.get("side.table"), "muted"));
    nodes.add(label(table));
    nodes.add(typed("name", table.name(), text -> model.rename(table, text)));
    nodes.add(typed("singular", noun.singular(), text -> model.singular(table, text)));
    nodes.add(typed("plural", noun.plural(), text -> model.plural(table, text)));
    nodes.add(typed("area", area.map(Area::name).orElse(""), text -> model.area(table, text)));
    area.ifPresent(
        in -> nodes.add(typed("areaName", in.name(), text -> model.renameArea(in, text))));
    nodes.add(
        area(
            "rowLabel",
            table.rowLabel().map(Formula::text).orElse(""),
            text -> model.rowLabel(table, text.replace('\n', ' '))));
    nodes.add(area("note", table.description(), text -> model.describe(table, text)));
    return nodes;
  }

  /** The table's label; Enter goes on to its fields. */
  private Node label(Table table) {
    TextField field = TypedText.of(table.label(), text -> model.relabel(table, text));
    var taken = field.getOnAction();
    field.setOnAction(
        event -> {
          taken.handle(event);
          typeFields.run();
        });
    return beside("label", field);
  }

  private Node typed(String key, String value, Consumer<String> change) {
    return beside(key, TypedText.of(value, change));
  }

  private Node beside(String key, TextField field) {
    field.setId("table-" + key);
    return Parts.beside(texts.get("side.table." + key), field);
  }

  private Node area(String key, String value, Consumer<String> change) {
    var area = new TextArea(value);
    area.setWrapText(true);
    area.setPrefRowCount(2);
    area.setId("table-" + key);
    TypedText.settle(area, () -> value, change);
    TypedText.leaveWithTab(area);
    return Parts.labelled(texts.get("side.table." + key), area);
  }
}
