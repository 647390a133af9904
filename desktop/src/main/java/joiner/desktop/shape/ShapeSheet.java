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
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.expression.Formula;
import joiner.finding.Topic;
import joiner.finding.TypeWords;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.Rows;

/** The side sheet of Shape: the chosen field, or the table itself. */
final class ShapeSheet {
  private final Workbench bench;
  private final Texts texts;
  private final Runnable typeFields;
  private final VBox node = new VBox(8);
  private final VBox form = new VBox(8);
  private final VBox evidence = new VBox(4);
  private final VBox findings = new VBox(8);
  private final WhenSeen formSeen = new WhenSeen(this::showForm);
  private final WhenSeen findingsSeen = new WhenSeen(this::showFindings);
  private final Computed<Question, Seen> seen;
  private Object shown = this;

  /**
   * The sheet.
   *
   * @param typeFields goes to where the fields of the table are typed
   */
  ShapeSheet(Workbench bench, Texts texts, Runnable typeFields) {
    this.bench = bench;
    this.texts = texts;
    this.typeFields = typeFields;
    node.getStyleClass().add("side-content");
    node.getChildren().setAll(form, evidence, findings);
    seen =
        new Computed<>(
            bench.runner(),
            texts.get("side.seen.counting"),
            Lane.WORKING,
            (left, right) -> left.cells.equals(right.cells),
            (question, progress) -> question.count());
    seen.answerProperty().subscribe(this::showSeen);
    bench.historyProperty().subscribe(value -> formSeen.changed());
    bench.selectionProperty().subscribe(value -> formSeen.changed());
    bench.verdictProperty().subscribe(value -> findingsSeen.changed());
  }

  Node node() {
    return node;
  }

  void look(boolean visible) {
    seen.look(visible);
    formSeen.look(visible);
    findingsSeen.look(visible);
  }

  private Optional<Field> chosenField(Table table) {
    return bench.selectionProperty().get().field().filter(table::hasField).map(table::field);
  }

  /** Builds the form anew only for another thing, so that nobody who types in it is disturbed. */
  private void showForm() {
    Optional<Table> table = bench.table();
    Optional<Field> field = table.flatMap(this::chosenField);
    Object about = field.<Object>map(f -> List.of(table.get(), f)).or(() -> table).orElse(node);
    if (!about.equals(shown)) {
      shown = about;
      form.getChildren()
          .setAll(
              field
                  .map(f -> field(table.get(), f))
                  .or(() -> table.map(this::table))
                  .orElse(List.of()));
    }
    if (field.isPresent()) {
      Rows rows = bench.draft().rows().of(table.get().id());
      seen.ask(new Question(rows, field.get().id(), rows.identity(field.get().id())));
    } else {
      evidence.getChildren().clear();
    }
    showFindings();
  }

  private void showFindings() {
    findings
        .getChildren()
        .setAll(
            bench
                .table()
                .map(
                    table ->
                        chosenField(table)
                            .map(field -> findings(table, field))
                            .orElseGet(() -> findings(table)))
                .orElse(List.of()));
  }

  private List<Node> findings(Table table, Field field) {
    return FindingCards.of(
        bench,
        texts.get("findings"),
        f -> f.table().equals(table.id()) && f.field().equals(Optional.of(field.id())));
  }

  private List<Node> findings(Table table) {
    return FindingCards.of(
        bench,
        texts.get("findings"),
        f -> f.table().equals(table.id()) && f.topic() == Topic.SHAPE);
  }

  /** What the cells of a field hold, counted. */
  private record Seen(int rows, int blank, int different, int longest) {}

  /** A column to count. */
  private record Question(Rows rows, FieldId field, Object cells) {
    Seen count() {
      int blank = 0;
      int longest = 0;
      Set<String> different = new HashSet<>();
      for (int row = 0; row < rows.count(); row++) {
        Optional<String> cell = rows.cell(row, field);
        blank += cell.isPresent() ? 0 : 1;
        longest =
            Math.max(longest, cell.map(text -> text.codePointCount(0, text.length())).orElse(0));
        cell.ifPresent(different::add);
      }
      return new Seen(rows.count(), blank, different.size(), longest);
    }
  }

  private void showSeen(Answer<Seen> answer) {
    evidence
        .getChildren()
        .setAll(
            switch (answer) {
              case Answer.Current<Seen>(Seen found) -> facts(found);
              case Answer.Underway<Seen> u ->
                  List.of(Parts.label(texts.get("side.seen.counting"), "muted", "small"));
              case Answer.Failed<Seen> f ->
                  List.of(Parts.prose(f.failure().message(), "brick", "small"));
              case Answer.Stopped<Seen> s -> List.<Node>of();
              case Answer.Unasked<Seen> u -> List.<Node>of();
            });
  }

  private List<Node> facts(Seen found) {
    if (found.rows() == 0) {
      return List.of();
    }
    return List.of(
        Parts.label(texts.get("side.seen"), "heading"),
        Parts.fact(texts.get("side.seen.blank"), Counts.of(found.blank())),
        Parts.fact(texts.get("side.seen.different"), Counts.of(found.different())),
        Parts.fact(texts.get("side.seen.longest"), Counts.of(found.longest())));
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

  private List<Node> table(Table table) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(table.label(), "title"));
    nodes.add(label(table));
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
            table.rowLabel().map(Formula::text).orElse(""),
            text -> bench.apply(ChangeTable.rowLabel(table, Formula.unlessBlank(text)))));
    nodes.add(
        labelled(
            "side.table.note",
            table.description(),
            text -> bench.apply(ChangeTable.description(table, text))));
    return nodes;
  }

  /** The table's label; Enter goes on to its fields. */
  private Node label(Table table) {
    var field =
        TypedText.of(
            table.label(),
            text -> {
              if (!text.isBlank()) {
                bench.apply(ChangeTable.relabel(bench.design(), table, text.strip()));
              }
            });
    field.setId("table-label");
    var taken = field.getOnAction();
    field.setOnAction(
        event -> {
          taken.handle(event);
          typeFields.run();
        });
    return labelled("side.table.label", field);
  }

  private void rename(Table table, String name, String label, Noun noun) {
    if (!name.isBlank() && !label.isBlank()) {
      bench.apply(ChangeTable.rename(table, name.strip(), label.strip(), noun));
    }
  }

  private Node labelled(String key, String value, Consumer<String> change) {
    return labelled(key, TypedText.of(value, change));
  }

  private Node labelled(String key, TextField field) {
    return Parts.labelled(texts.get(key), field);
  }
}
