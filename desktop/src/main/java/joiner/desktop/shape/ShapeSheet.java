package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;
import joiner.desktop.finding.FindingCards;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.finding.Topic;
import joiner.finding.TypeWords;
import joiner.model.Field;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.rows.Rows;

/** The side sheet of Shape: the chosen field, or the table itself. */
final class ShapeSheet {
  private final Workbench bench;
  private final Texts texts;
  private final VBox node = new VBox();

  ShapeSheet(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    node.getStyleClass().add("side-content");
    bench.historyProperty().subscribe(value -> show());
    bench.selectionProperty().subscribe(value -> show());
    bench.verdictProperty().subscribe(value -> show());
  }

  Node node() {
    return node;
  }

  private void show() {
    Optional<Table> table = bench.table();
    Optional<Field> field =
        table.flatMap(
            t -> bench.selectionProperty().get().field().filter(t::hasField).map(t::field));
    if (field.isPresent()) {
      node.getChildren().setAll(field(table.get(), field.get()));
    } else {
      node.getChildren().setAll(table.map(this::table).orElse(List.of()));
    }
  }

  private List<Node> field(Table table, Field field) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(field.label(), "title"));
    nodes.add(Parts.prose(texts.get("side.field.of", table.label()), "muted"));
    nodes.add(Parts.fact(texts.get("side.field.name"), field.name(), "mono"));
    nodes.add(Parts.fact(texts.get("side.field.type"), TypeWords.of(field.type())));
    nodes.add(range(table, field));
    nodes.add(
        labelled(
            "side.field.pattern",
            field.limits().pattern().orElse(""),
            text ->
                bench.apply(
                    ChangeField.limits(table, field, field.limits().withPattern(present(text))))));
    nodes.addAll(seen(table, field));
    nodes.addAll(
        FindingCards.of(
            bench,
            texts.get("findings"),
            f -> f.table().equals(table.id()) && f.field().equals(Optional.of(field.id()))));
    return nodes;
  }

  private static Optional<String> present(String text) {
    return Optional.of(text.strip()).filter(t -> !t.isEmpty());
  }

  private Node range(Table table, Field field) {
    var limits = field.limits();
    var least =
        TypedText.of(
            limits.minimum().orElse(""),
            text ->
                bench.apply(
                    ChangeField.limits(
                        table, field, limits.withRange(present(text), limits.maximum()))));
    var greatest =
        TypedText.of(
            limits.maximum().orElse(""),
            text ->
                bench.apply(
                    ChangeField.limits(
                        table, field, limits.withRange(limits.minimum(), present(text)))));
    least.setPrefColumnCount(7);
    greatest.setPrefColumnCount(7);
    return Parts.row(
        8,
        Parts.label(texts.get("side.field.range"), "muted"),
        Parts.spring(),
        least,
        Parts.label("…", "muted"),
        greatest);
  }

  private List<Node> seen(Table table, Field field) {
    Rows rows = bench.draft().rows().of(table.id());
    if (rows.count() == 0) {
      return List.of();
    }
    int blank = 0;
    int longest = 0;
    Set<String> different = new HashSet<>();
    for (int row = 0; row < rows.count(); row++) {
      Optional<String> cell = rows.cell(row, field.id());
      blank += cell.isPresent() ? 0 : 1;
      longest =
          Math.max(longest, cell.map(text -> text.codePointCount(0, text.length())).orElse(0));
      cell.ifPresent(different::add);
    }
    return List.of(
        Parts.label(texts.get("side.seen"), "heading"),
        Parts.fact(texts.get("side.seen.blank"), String.valueOf(blank)),
        Parts.fact(texts.get("side.seen.different"), String.valueOf(different.size())),
        Parts.fact(texts.get("side.seen.longest"), String.valueOf(longest)));
  }

  private List<Node> table(Table table) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(table.label(), "title"));
    nodes.add(
        labelled(
            "side.table.label",
            table.label(),
            text -> rename(table, table.name(), text, table.noun())));
    nodes.add(
        labelled(
            "side.table.name",
            table.name(),
            text -> rename(table, text, table.label(), table.noun())));
    nodes.add(
        labelled(
            "side.table.singular",
            table.noun().singular(),
            text ->
                rename(table, table.name(), table.label(), new Noun(text, table.noun().plural()))));
    nodes.add(
        labelled(
            "side.table.plural",
            table.noun().plural(),
            text ->
                rename(
                    table, table.name(), table.label(), new Noun(table.noun().singular(), text))));
    nodes.add(
        labelled(
            "side.table.area",
            table.area(),
            text -> bench.apply(ChangeTable.area(table, text.strip()))));
    nodes.add(
        labelled(
            "side.table.rowLabel",
            table.rowLabel().orElse(""),
            text -> bench.apply(ChangeTable.rowLabel(table, present(text)))));
    nodes.add(
        labelled(
            "side.table.note",
            table.description(),
            text ->
                bench.apply(
                    new ChangeTable(
                        "change the description of " + table.label(),
                        table.id(),
                        t -> t.withDescription(text)))));
    nodes.addAll(
        FindingCards.of(
            bench,
            texts.get("findings"),
            f -> f.table().equals(table.id()) && f.topic() == Topic.SHAPE));
    return nodes;
  }

  private void rename(Table table, String name, String label, Noun noun) {
    if (!name.isBlank() && !label.isBlank()) {
      bench.apply(ChangeTable.rename(table, name.strip(), label.strip(), noun));
    }
  }

  private Node labelled(String key, String value, Consumer<String> change) {
    TextField field = TypedText.of(value, change);
    field.setAccessibleText(texts.get(key));
    return new VBox(2, Parts.label(texts.get(key), "muted", "small"), field);
  }
}
