package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
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
import joiner.desktop.work.Workbench;
import joiner.edit.UsualType;
import joiner.expression.Formula;
import joiner.finding.TypeWords;
import joiner.model.Area;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Limits;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.naming.Counts;

/** The side sheet of Shape: the chosen field, or the table itself. */
final class ShapeSheet {
  private final Workbench bench;
  private final SheetModel model;
  private final Texts texts;
  private final Runnable typeFields;
  private final VBox node = new VBox(8);
  private final VBox form = new VBox(8);
  private final VBox evidence = new VBox(4);
  private final VBox findings = new VBox(8);
  private final WhenSeen formSeen = new WhenSeen(this::showForm);
  private final WhenSeen findingsSeen = new WhenSeen(this::showFindings);
  private SheetModel.About about = new SheetModel.About.Nothing();

  /**
   * The sheet.
   *
   * @param typeFields goes to where the fields of the table are typed
   */
  ShapeSheet(Workbench bench, Texts texts, Runnable typeFields) {
    this.bench = bench;
    this.model = new SheetModel(bench, texts);
    this.texts = texts;
    this.typeFields = typeFields;
    node.getStyleClass().add("side-content");
    node.getChildren().setAll(form, evidence, findings);
    model.seenProperty().subscribe(this::showSeen);
    bench.historyProperty().subscribe(value -> formSeen.changed());
    bench.selectionProperty().subscribe(value -> formSeen.changed());
    bench.verdictProperty().subscribe(value -> findingsSeen.changed());
  }

  Node node() {
    return node;
  }

  void look(boolean visible) {
    model.look(visible);
    formSeen.look(visible);
    findingsSeen.look(visible);
  }

  /** Builds the form anew only for another thing, so that nobody who types in it is disturbed. */
  private void showForm() {
    SheetModel.About now = model.about();
    if (!now.equals(about)) {
      about = now;
      form.getChildren()
          .setAll(
              switch (now) {
                case SheetModel.About.Nothing nothing -> List.of();
                case SheetModel.About.OfTable of -> table(of.table(), of.area());
                case SheetModel.About.OfField of -> field(of);
              });
    }
    boolean counted = now instanceof SheetModel.About.OfField;
    evidence.setVisible(counted);
    evidence.setManaged(counted);
    showFindings();
  }

  private void showFindings() {
    SheetModel.About now = about;
    findings
        .getChildren()
        .setAll(
            FindingCards.of(
                bench, texts.get("findings"), finding -> SheetModel.concerns(now, finding)));
  }

  private void showSeen(Answer<SheetModel.Seen> answer) {
    evidence
        .getChildren()
        .setAll(
            switch (answer) {
              case Answer.Current<SheetModel.Seen>(SheetModel.Seen found) -> facts(found);
              case Answer.Underway<SheetModel.Seen> u ->
                  List.of(Parts.label(texts.get("side.seen.counting"), "muted", "small"));
              case Answer.Failed<SheetModel.Seen> f ->
                  List.of(Parts.prose(f.failure().message(), "brick", "small"));
              case Answer.Stopped<SheetModel.Seen> s -> List.<Node>of();
              case Answer.Unasked<SheetModel.Seen> u -> List.<Node>of();
            });
  }

  private List<Node> facts(SheetModel.Seen found) {
    if (found.rows() == 0) {
      return List.of();
    }
    return List.of(
        Parts.label(texts.get("side.seen"), "heading"),
        Parts.fact(texts.get("side.seen.blank"), Counts.of(found.blank())),
        Parts.fact(texts.get("side.seen.different"), Counts.of(found.different())),
        Parts.fact(texts.get("side.seen.longest"), Counts.of(found.longest())));
  }

  private List<Node> field(SheetModel.About.OfField of) {
    Field field = of.field();
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(field.label(), "title"));
    nodes.add(Parts.prose(texts.get("side.field.of", of.table().label()), "muted"));
    nodes.add(Parts.fact(texts.get("side.field.name"), field.name(), "mono"));
    nodes.add(Parts.fact(texts.get("side.field.type"), TypeWords.of(field.type())));
    UsualType.of(field.label())
        .filter(usual -> usual.type().equals(field.type()))
        .ifPresent(
            usual ->
                nodes.add(
                    Parts.prose(
                        texts.get("side.field.usual", usual.words(), usual.reason()),
                        "muted",
                        "small")));
    if (field.type() instanceof FieldType.Choice choice) {
      nodes.add(Parts.prose(texts.get("side.field.choices"), "muted"));
      for (FieldType.Choice.Entry entry : choice.entries()) {
        var text = TypedText.of(entry.text(), typed -> model.renameChoice(of, entry, typed));
        text.setAccessibleText(texts.get("side.field.choice", entry.text()));
        nodes.add(text);
      }
    }
    nodes.add(range(of));
    nodes.add(
        labelled(
            "side.field.pattern",
            field.limits().pattern().orElse(""),
            text -> model.pattern(of, text)));
    return nodes;
  }

  private Node range(SheetModel.About.OfField of) {
    Limits limits = of.field().limits();
    var least = TypedText.of(limits.minimum().orElse(""), text -> model.least(of, text));
    var greatest = TypedText.of(limits.maximum().orElse(""), text -> model.greatest(of, text));
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

  private List<Node> table(Table table, Optional<Area> area) {
    Noun noun = table.noun();
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(table.label(), "title"));
    nodes.add(label(table));
    nodes.add(labelled("side.table.name", table.name(), text -> model.rename(table, text)));
    nodes.add(
        labelled("side.table.singular", noun.singular(), text -> model.singular(table, text)));
    nodes.add(labelled("side.table.plural", noun.plural(), text -> model.plural(table, text)));
    nodes.add(
        labelled(
            "side.table.area", area.map(Area::name).orElse(""), text -> model.area(table, text)));
    area.ifPresent(
        in ->
            nodes.add(
                labelled("side.table.areaName", in.name(), text -> model.renameArea(in, text))));
    nodes.add(
        labelled(
            "side.table.rowLabel",
            table.rowLabel().map(Formula::text).orElse(""),
            text -> model.rowLabel(table, text)));
    nodes.add(
        labelled("side.table.note", table.description(), text -> model.describe(table, text)));
    return nodes;
  }

  /** The table's label; Enter goes on to its fields. */
  private Node label(Table table) {
    var field = TypedText.of(table.label(), text -> model.relabel(table, text));
    field.setId("table-label");
    var taken = field.getOnAction();
    field.setOnAction(
        event -> {
          taken.handle(event);
          typeFields.run();
        });
    return labelled("side.table.label", field);
  }

  private Node labelled(String key, String value, Consumer<String> change) {
    return labelled(key, TypedText.of(value, change));
  }

  private Node labelled(String key, TextField field) {
    return Parts.labelled(texts.get(key), field);
  }
}
