package joiner.desktop.connect;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import joiner.desktop.finding.FindingCards;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Terms;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Glossary;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeRelationship;
import joiner.edit.ProposedReference;
import joiner.edit.Reading;
import joiner.edit.RemoveRelationship;
import joiner.finding.Topic;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;

/** The side sheet of Connect: the readings of the chosen relationship, or all of a table's. */
final class RelationshipSheet {
  private static final int MOST_PROPOSALS = 6;

  private final Workbench bench;
  private final Texts texts;
  private final VBox node = new VBox();
  private final VBox proposals = new VBox(6);
  private final Computed<Asked, List<ProposedReference>> proposed;
  private final WhenSeen seen = new WhenSeen(this::show);

  /** A table whose rows are compared with all others. */
  private record Asked(Draft draft, TableId table) {
    boolean isSame(Asked other) {
      return table.equals(other.table)
          && draft.rows() == other.draft.rows()
          && draft.design() == other.draft.design();
    }
  }

  RelationshipSheet(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    this.proposed =
        new Computed<>(
            bench.runner(),
            texts.get("rows.looking"),
            Lane.WORKING,
            Asked::isSame,
            (asked, progress) ->
                ProposedReference.of(asked.draft(), asked.table(), progress::stopped));
    proposed.answerProperty().subscribe(this::showProposals);
    node.getStyleClass().add("side-content");
    bench.selectionProperty().subscribe(value -> seen.changed());
    bench.verdictProperty().subscribe(value -> seen.changed());
    bench.historyProperty().subscribe(value -> seen.changed());
  }

  void look(boolean visible) {
    proposed.look(visible);
    seen.look(visible);
  }

  Node node() {
    return node;
  }

  private void show() {
    Selection selection = bench.selectionProperty().get();
    Optional<Relationship> chosen = selection.relationship().flatMap(bench.design()::find);
    if (chosen.isPresent()) {
      node.getChildren().setAll(relationship(chosen.get()));
    } else {
      node.getChildren().setAll(bench.table().map(this::table).orElseGet(this::nothing));
    }
  }

  private List<Node> nothing() {
    return List.of(
        Parts.prose(texts.get("side.pick"), "title"),
        Parts.prose(texts.get("side.pick.why"), "muted"));
  }

  private List<Node> table(Table table) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(table.label(), "title"));
    if (!table.description().isEmpty()) {
      nodes.add(Parts.prose(table.description(), "muted"));
    }
    List<Relationship> own =
        bench.design().relationships().stream()
            .filter(r -> r.child().equals(table.id()) || r.parent().equals(table.id()))
            .toList();
    nodes.add(
        Parts.label(texts.get(own.isEmpty() ? "table.none" : "table.relationships"), "heading"));
    for (Relationship r : own) {
      Reading reading =
          Reading.of(bench.design(), r).get(r.child().equals(table.id()) && !isJoin(r) ? 1 : 0);
      var card =
          Parts.button(
              reading.sentence(),
              () -> bench.selectionProperty().set(Selection.of(r.child(), r.id())),
              "sentence");
      card.setMinWidth(0);
      card.setMaxWidth(Double.MAX_VALUE);
      nodes.add(card);
    }
    nodes.addAll(
        FindingCards.of(
            bench,
            texts.get("findings"),
            f -> f.topic() == Topic.CONNECT && f.table().equals(table.id())));
    proposed.ask(new Asked(bench.draft(), table.id()));
    nodes.add(proposals);
    return nodes;
  }

  private void showProposals(Answer<List<ProposedReference>> answer) {
    proposals.getChildren().clear();
    switch (answer) {
      case Answer.Current<List<ProposedReference>>(List<ProposedReference> found) -> show(found);
      case Answer.Underway<List<ProposedReference>> u ->
          proposals
              .getChildren()
              .setAll(
                  Parts.label(texts.get("rows.looking"), "muted", "small"),
                  Parts.button(texts.get("rows.stop"), proposed::stop, "plain"));
      case Answer.Failed<List<ProposedReference>> f ->
          proposals
              .getChildren()
              .setAll(
                  Parts.prose(texts.get("rows.failed", f.failure().message()), "brick", "small"));
      case Answer.Stopped<List<ProposedReference>> s ->
          proposals.getChildren().setAll(Parts.label(texts.get("rows.stopped"), "muted", "small"));
      case Answer.Unasked<List<ProposedReference>> u -> {}
    }
  }

  private void show(List<ProposedReference> found) {
    if (found.stream().anyMatch(p -> bench.design().find(p.child()).isEmpty())) {
      return; // They speak of what is not there any more; newer ones are underway.
    }
    if (!found.isEmpty()) {
      proposals.getChildren().add(Parts.label(texts.get("rows.show"), "heading"));
    }
    for (ProposedReference proposal : found.stream().limit(MOST_PROPOSALS).toList()) {
      Table child = bench.design().table(proposal.child());
      Table parent = bench.design().table(proposal.parent());
      long rows = proposal.found().rows();
      String said =
          texts.get(
              "rows." + proposal.found().as().name().toLowerCase(Locale.ROOT),
              String.join(", ", child.labelsOf(proposal.childFields())),
              parent.label(),
              String.join(", ", parent.labelsOf(proposal.parentFields())),
              rows - proposal.found().missing(),
              rows);
      var nodes = new ArrayList<Node>();
      nodes.add(Parts.prose(said, "small"));
      if (proposal.found().missing() > 0) {
        nodes.add(
            Parts.prose(
                texts.get("rows.orphans", String.join(", ", proposal.found().orphans())),
                "oak",
                "small"));
      }
      nodes.add(
          Parts.button(
              texts.get("rows.relate"), () -> bench.apply(() -> proposal.edit(bench.draft()))));
      proposals.getChildren().add(Parts.card(nodes));
    }
  }

  private boolean isJoin(Relationship r) {
    return bench.design().table(r.child()).kind() instanceof TableKind.Join;
  }

  private List<Node> relationship(Relationship r) {
    Design design = bench.design();
    Table child = design.table(r.child());
    Table parent = design.table(r.parent());
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(parent.label() + " → " + child.label(), "title"));
    nodes.add(Parts.prose(r.name(), "muted", "mono"));
    nodes.add(explained(Parts.label(texts.get("reads"), "heading"), "Reading"));
    var sentences = new VBox(6);
    for (Reading reading : Reading.of(design, r)) {
      sentences.getChildren().add(sentence(reading));
    }
    nodes.add(Parts.card(List.of(sentences)));
    nodes.add(Parts.prose(texts.get("reads.hint"), "muted", "small"));
    if (child.kind() instanceof TableKind.Join) {
      nodes.addAll(pair(child));
    }
    nodes.add(
        explained(
            Parts.label(texts.get("actions", parent.noun().indefinite()), "heading"), "Cascade"));
    nodes.add(
        Parts.row(
            8,
            Parts.label(texts.get("actions.children", child.noun().plural()), "muted"),
            Parts.spring(),
            onDelete(r)));
    nodes.addAll(
        FindingCards.of(
            bench, texts.get("findings"), f -> f.relationship().equals(Optional.of(r.id()))));
    nodes.add(Parts.button(texts.get("remove"), () -> remove(r)));
    return nodes;
  }

  private static Node explained(Label label, String word) {
    return Terms.explain(label, word, Glossary.meaning(word));
  }

  private void remove(Relationship r) {
    bench.apply(new RemoveRelationship(r.id(), r.name()));
    bench.selectionProperty().set(Selection.of(r.child()));
  }

  /** The sentence as a flow of words, with its number word as a menu. */
  private Node sentence(Reading reading) {
    var flow = new FlowPane(4, 2);
    for (String word :
        (texts.get("each") + " " + reading.subject() + " " + reading.verb()).split(" ")) {
      flow.getChildren().add(new Label(word));
    }
    var choice = new MenuButton(reading.quantity().words());
    choice.getStyleClass().add("word-choice");
    choice.setAccessibleText(reading.sentence());
    choice.setId("quantity");
    for (Reading.Option option : reading.options()) {
      if (option.quantity() != reading.quantity()) {
        var item = new MenuItem(option.quantity().words());
        item.setOnAction(event -> change(option));
        choice.getItems().add(item);
      }
    }
    flow.getChildren().add(choice);
    String noun =
        reading.quantity().isPlural() ? reading.object().plural() : reading.object().singular();
    for (String word : (noun + ".").split(" ")) {
      flow.getChildren().add(new Label(word));
    }
    return flow;
  }

  private void change(Reading.Option option) {
    Selection before = bench.selectionProperty().get();
    var known = List.copyOf(bench.design().relationships());
    bench.apply(option.edit());
    boolean gone = before.relationship().flatMap(bench.design()::find).isEmpty();
    if (gone) {
      bench.design().relationships().stream()
          .filter(r -> !known.contains(r))
          .findFirst()
          .ifPresent(r -> bench.selectionProperty().set(Selection.of(r.child(), r.id())));
    }
  }

  private List<Node> pair(Table join) {
    boolean unique = join.isUnique(join.primaryKey());
    List<String> more =
        join.fields().stream()
            .filter(f -> !join.primaryKey().contains(f.id()))
            .map(Field::label)
            .toList();
    var nodes = new ArrayList<Node>();
    nodes.add(explained(Parts.label(texts.get("pair"), "heading"), "Join table"));
    nodes.add(
        Parts.fact(texts.get("pair.key"), String.join(", ", join.labelsOf(join.primaryKey()))));
    nodes.add(
        Parts.fact(texts.get("pair.twice"), texts.get(unique ? "pair.refused" : "pair.accepted")));
    if (!more.isEmpty()) {
      nodes.add(Parts.fact(texts.get("pair.more"), String.join(", ", more)));
    }
    return nodes;
  }

  private MenuButton onDelete(Relationship r) {
    var choice = new MenuButton(texts.get("delete." + r.onDelete()));
    choice.setId("on-delete");
    for (ReferentialAction action : ReferentialAction.values()) {
      var item = new MenuItem(texts.get("delete." + action));
      item.setOnAction(event -> bench.apply(ChangeRelationship.onDelete(r, action)));
      choice.getItems().add(item);
    }
    return choice;
  }
}
