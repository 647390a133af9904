package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import joiner.ddl.TableSpace;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.TableIcon;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.model.Area;
import joiner.model.Index;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.model.UniqueKey;
import joiner.naming.WordList;
import org.kordamp.ikonli.feather.Feather;

/** All that is said of a table itself, as a form. */
final class TableForm {
  /** So many rows are reckoned with. */
  private static final int MANY = 100_000;

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
    nodes.add(icon(table));
    nodes.add(typed("area", area.map(Area::name).orElse(""), text -> model.area(table, text)));
    area.ifPresent(
        in -> nodes.add(typed("areaName", in.name(), text -> model.renameArea(in, text))));
    nodes.addAll(
        new RowLabelForm(model.rowLabels(), texts).of(table, text -> model.rowLabel(table, text)));
    nodes.add(area("note", table.description(), text -> model.describe(table, text)));
    nodes.addAll(keys(table));
    nodes.addAll(space(table));
    if (model.isList(table)) {
      Button choices = Parts.button(texts.get("side.toChoices"), () -> model.toChoices(table));
      choices.setId("to-choices");
      nodes.add(choices);
      nodes.add(Parts.prose(texts.get("side.toChoices.why"), "muted", "small"));
    }
    model
        .foldable(table)
        .ifPresent(
            tie -> {
              String into = model.labelOf(tie.parent());
              Button fold = Parts.button(texts.get("side.fold", into), () -> model.fold(tie));
              fold.setId("fold-back");
              nodes.add(fold);
              nodes.add(
                  Parts.prose(
                      texts.get("side.fold.why", table.noun().indefinite(), into),
                      "muted",
                      "small"));
            });
    return nodes;
  }

  /** By what rows are told apart and found. */
  private List<Node> keys(Table table) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.label(texts.get("side.keys"), "heading"));
    String primary = WordList.and(table.labelsOf(table.primaryKey()));
    nodes.add(
        Parts.fact(
            texts.get("side.keys.primary"),
            primary.isEmpty() ? texts.get("head.nothing") : primary));
    for (UniqueKey key : table.uniqueKeys()) {
      nodes.add(
          removable(
              texts.get("side.keys.unique"),
              WordList.and(table.labelsOf(key.fields())),
              () -> model.removeUnique(table, key)));
    }
    for (Index index : table.indexes()) {
      nodes.add(new IndexForm(model, texts).of(table, index));
    }
    nodes.add(Parts.prose(texts.get("side.keys.how"), "muted", "small"));
    return nodes;
  }

  /** What one row takes, and how much a hundred thousand do with all indexes. */
  private List<Node> space(Table table) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.label(texts.get("side.space"), "heading"));
    for (SheetModel.Room room : model.room(table)) {
      TableSpace space = room.space();
      nodes.add(
          Parts.fact(
              room.engine(),
              texts.get(
                  "side.space.of",
                  Math.round(space.row()),
                  space.row() * MANY / 1e6,
                  space.indexes() * MANY / 1e6)));
    }
    nodes.add(Parts.prose(texts.get("side.space.how", MANY), "muted", "small"));
    return nodes;
  }

  private Node removable(String name, String fields, Runnable remove) {
    var called = Parts.prose(name, "muted");
    called.setMinWidth(78);
    called.setPrefWidth(78);
    var row =
        Parts.row(
            8,
            called,
            Parts.prose(fields),
            Parts.spring(),
            Parts.iconButton(Feather.X, texts.get("side.keys.remove", name, fields), remove));
    row.getStyleClass().add("fact");
    return row;
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

  /** The picture, picked by its name. */
  private Node icon(Table table) {
    Button button =
        Parts.button(
            table.icon().isEmpty() ? texts.get("side.icon.none") : table.icon(),
            () -> {},
            "picked");
    TableIcon.of(table.icon()).ifPresent(button::setGraphic);
    button.setId("table-icon");
    List<String> names = Stream.concat(Stream.of(""), TableIcon.all().stream()).toList();
    button.setOnAction(
        event ->
            new Picker<>(
                    texts.get("side.icon.pick"),
                    Offers.among(
                        names, name -> name.isEmpty() ? texts.get("side.icon.none") : name))
                .at(Optional.of(table.icon()))
                .marked(TableIcon::of)
                .open(button, name -> model.picture(table, name)));
    return Parts.beside(texts.get("side.table.icon"), button);
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
