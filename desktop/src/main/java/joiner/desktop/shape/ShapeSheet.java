package joiner.desktop.shape;

import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.layout.VBox;
import joiner.desktop.finding.FindingCards;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Workbench;
import joiner.naming.Counts;
import joiner.rows.HeldValues;

/** The side sheet of Shape: the chosen field, or the table itself. */
final class ShapeSheet {
  private final Workbench bench;
  private final SheetModel model;
  private final Texts texts;
  private final FieldForm fieldForm;
  private final TableForm tableForm;
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
  ShapeSheet(Workbench bench, FieldsModel fields, Texts texts, Runnable typeFields) {
    this.bench = bench;
    this.model = new SheetModel(bench, fields, texts);
    this.texts = texts;
    this.fieldForm = new FieldForm(fields, model, texts);
    this.tableForm = new TableForm(model, texts, typeFields);
    node.getStyleClass().add("side-content");
    node.getChildren().setAll(form, evidence, findings);
    model.seenProperty().subscribe(this::showSeen);
    bench.historyProperty().subscribe(value -> formSeen.changed());
    bench.selectionProperty().subscribe(value -> formSeen.changed());
    fields.chosenProperty().subscribe(value -> formSeen.changed());
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
      Optional<String> typing = typing();
      about = now;
      form.getChildren()
          .setAll(
              switch (now) {
                case SheetModel.About.Nothing nothing -> List.of();
                case SheetModel.About.OfTable of -> tableForm.of(of.table(), of.area());
                case SheetModel.About.OfField of -> fieldForm.of(of);
                case SheetModel.About.OfFields of -> fieldForm.of(of);
              });
      typing.map(form::lookup).ifPresent(Node::requestFocus);
    }
    boolean counted = now instanceof SheetModel.About.OfField;
    evidence.setVisible(counted);
    evidence.setManaged(counted);
    showFindings();
  }

  /** Who goes on with Tab from what was changed stands in the same place of the form made anew. */
  private Optional<String> typing() {
    return Optional.ofNullable(form.getScene())
        .map(Scene::getFocusOwner)
        .filter(owner -> isIn(owner, form))
        .map(Node::getId)
        .map(id -> "#" + id);
  }

  private static boolean isIn(Node node, Node ancestor) {
    return node == ancestor || node.getParent() != null && isIn(node.getParent(), ancestor);
  }

  private void showFindings() {
    SheetModel.About now = about;
    findings
        .getChildren()
        .setAll(
            FindingCards.of(
                bench, texts.get("findings"), finding -> SheetModel.concerns(now, finding)));
  }

  private void showSeen(Answer<HeldValues> answer) {
    evidence
        .getChildren()
        .setAll(
            switch (answer) {
              case Answer.Current<HeldValues>(HeldValues found) -> facts(found);
              case Answer.Underway<HeldValues> u ->
                  List.of(Parts.label(texts.get("side.seen.counting"), "muted", "small"));
              case Answer.Failed<HeldValues> f ->
                  List.of(Parts.prose(f.failure().message(), "brick", "small"));
              case Answer.Stopped<HeldValues> s -> List.<Node>of();
              case Answer.Unasked<HeldValues> u -> List.<Node>of();
            });
  }

  private List<Node> facts(HeldValues found) {
    if (found.rows() == 0) {
      return List.of();
    }
    return List.of(
        Parts.label(texts.get("side.seen"), "heading"),
        Parts.fact(texts.get("side.seen.blank"), Counts.of(found.blank())),
        Parts.fact(texts.get("side.seen.different"), Counts.of(found.different())),
        Parts.fact(texts.get("side.seen.longest"), Counts.of(found.longest())));
  }
}
