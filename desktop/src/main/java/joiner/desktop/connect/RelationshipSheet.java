package joiner.desktop.connect;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import joiner.desktop.finding.FindingCards;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Terms;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Glossary;
import joiner.desktop.work.Workbench;
import joiner.edit.NamedReference;
import joiner.edit.ProposedReference;
import joiner.edit.Reading;
import joiner.finding.Topic;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;

/** The side sheet of Connect: the readings of the chosen relationship, or all of a table's. */
final class RelationshipSheet {
  private static final int MOST_PROPOSALS = 6;

  private final Workbench bench;
  private final RelationshipModel model;
  private final Texts texts;
  private final VBox node = new VBox();
  private final VBox proposals = new VBox(6);
  private final VBox today = new VBox(4);

  /** The choices of what a delete does, of the relationship that is shown. */
  private final Map<ReferentialAction, MenuItem> actions = new EnumMap<>(ReferentialAction.class);

  private final RelateModel relating;
  private final RelateForm form;
  private final WhenSeen seen = new WhenSeen(this::show);

  RelationshipSheet(Workbench bench, Texts texts, RelateModel relating) {
    this.bench = bench;
    this.texts = texts;
    this.relating = relating;
    this.form = new RelateForm(relating, texts);
    this.model = new RelationshipModel(bench, texts);
    relating.wishProperty().subscribe(wish -> seen.changed());
    today.setId("today-deletes");
    model.deletesProperty().subscribe(this::showDeletes);
    model.proposalsProperty().subscribe(this::showProposals);
    node.getStyleClass().add("side-content");
    bench.selectionProperty().subscribe(value -> seen.changed());
    bench.verdictProperty().subscribe(value -> seen.changed());
    bench.historyProperty().subscribe(value -> seen.changed());
  }

  void look(boolean visible) {
    model.look(visible);
    seen.look(visible);
  }

  Node node() {
    return node;
  }

  /** What a delete of the parent's rows would do, told in the words that matter. */
  private void showDeletes(Answer<RelationshipModel.Deletes> answer) {
    today.getChildren().clear();
    switch (answer) {
      case Answer.Current<RelationshipModel.Deletes>(RelationshipModel.Deletes deletes) ->
          actions.forEach((action, item) -> tell(deletes, action, item));
      case Answer.Underway<RelationshipModel.Deletes> u ->
          today.getChildren().setAll(Parts.label(texts.get("today.looking"), "muted", "small"));
      default -> {}
    }
  }

  /**
   * What a delete would do by an action: below it if it is the one that is chosen, and in its menu.
   */
  private void tell(RelationshipModel.Deletes deletes, ReferentialAction action, MenuItem item) {
    List<String> lines = model.says(deletes, action, texts);
    if (item.getUserData() == Boolean.TRUE) {
      lines.forEach(line -> today.getChildren().add(Parts.prose(line, "muted", "small")));
    }
    if (!lines.isEmpty()) {
      item.setText(texts.get("delete." + action) + "  ·  " + lines.getFirst());
    }
  }

  private void show() {
    Optional<RelateModel.Wish> wish = relating.wishProperty().get();
    if (wish.isPresent()) {
      node.getChildren().setAll(form.of(wish.get()));
      return;
    }
    form.closed();
    node.getChildren()
        .setAll(
            switch (model.about()) {
              case RelationshipModel.About.Nothing n -> nothing();
              case RelationshipModel.About.OfTable table -> table(table);
              case RelationshipModel.About.OfRelationship r -> relationship(r);
            });
  }

  private List<Node> nothing() {
    return List.of(
        Parts.prose(texts.get("side.pick"), "title"),
        Parts.prose(texts.get("side.pick.why"), "muted"));
  }

  private List<Node> table(RelationshipModel.About.OfTable about) {
    Table table = about.table();
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(table.label(), "title"));
    if (!table.description().isEmpty()) {
      nodes.add(Parts.prose(table.description(), "muted"));
    }
    String heading = about.sentences().isEmpty() ? "table.none" : "table.relationships";
    nodes.add(Parts.label(texts.get(heading), "heading"));
    for (RelationshipModel.Sentence sentence : about.sentences()) {
      var card =
          Parts.button(
              sentence.reading().sentence(),
              () -> model.choose(sentence.relationship()),
              "sentence");
      card.setMinWidth(0);
      card.setMaxWidth(Double.MAX_VALUE);
      nodes.add(card);
    }
    if (table.fields().size() > 1) {
      Button pull = Parts.button(texts.get("pull"), model::pullOut, "plain");
      pull.setId("pull-out");
      nodes.add(pull);
    }
    nodes.addAll(
        FindingCards.of(
            bench,
            texts.get("findings"),
            f -> f.topic() == Topic.CONNECT && f.table().equals(table.id())));
    List<NamedReference> named = model.named(table);
    if (!named.isEmpty()) {
      nodes.add(Parts.label(texts.get("names.show"), "heading"));
      named.stream().limit(MOST_PROPOSALS).map(this::card).forEach(nodes::add);
    }
    model.propose(table);
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
                  Parts.button(texts.get("rows.stop"), model::stopProposing, "plain"));
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
    if (found.isEmpty() || !model.areOfNow(found)) {
      return;
    }
    proposals.getChildren().add(Parts.label(texts.get("rows.show"), "heading"));
    found.stream().limit(MOST_PROPOSALS).map(this::card).forEach(proposals.getChildren()::add);
  }

  private Node card(NamedReference named) {
    Table child = model.table(named.child());
    String says =
        texts.get(
            "names.says",
            child.field(named.field()).label(),
            model.table(named.parent()).label(),
            named.reason());
    return Parts.card(
        List.of(
            Parts.prose(says, "small"),
            Parts.button(texts.get("rows.relate"), () -> model.take(named))));
  }

  private Node card(ProposedReference proposal) {
    Table child = model.table(proposal.child());
    Table parent = model.table(proposal.parent());
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
    nodes.add(Parts.button(texts.get("rows.relate"), () -> model.take(proposal)));
    return Parts.card(nodes);
  }

  private List<Node> relationship(RelationshipModel.About.OfRelationship about) {
    Relationship r = about.relationship();
    Table child = about.child();
    Table parent = about.parent();
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(parent.label() + " → " + child.label(), "title"));
    nodes.add(Parts.prose(r.name(), "muted", "mono"));
    nodes.add(explained(Parts.label(texts.get("reads"), "heading"), "Reading"));
    var sentences = new VBox(6);
    for (Reading reading : about.readings()) {
      sentences.getChildren().add(sentence(reading));
    }
    nodes.add(Parts.card(List.of(sentences)));
    nodes.add(Parts.prose(texts.get("reads.hint"), "muted", "small"));
    about.pair().ifPresent(pair -> nodes.addAll(pair(pair)));
    nodes.add(
        explained(
            Parts.label(texts.get("actions", parent.noun().indefinite()), "heading"), "Cascade"));
    nodes.add(
        Parts.row(
            8,
            Parts.label(texts.get("actions.children", child.noun().plural()), "muted"),
            Parts.spring(),
            onDelete(r)));
    model.lookAtDeletes(r);
    showDeletes(model.deletesProperty().get()); // It may be known already.
    nodes.add(today);
    nodes.addAll(
        FindingCards.of(
            bench, texts.get("findings"), f -> f.relationship().equals(Optional.of(r.id()))));
    nodes.add(changes(r));
    nodes.addAll(others(about));
    return nodes;
  }

  private Node changes(Relationship r) {
    Button turn = Parts.button(texts.get("turn"), () -> model.turnRound(r));
    turn.setId("turn-round");
    turn.setTooltip(new Tooltip(texts.get("turn.why")));
    Button remove = Parts.button(texts.get("remove"), () -> model.remove(r));
    remove.setId("remove-relationship");
    return new FlowPane(8, 8, turn, remove);
  }

  /** What else it can be made, each with what that means. */
  private List<Node> others(RelationshipModel.About.OfRelationship about) {
    Table child = about.child();
    Table parent = about.parent();
    var nodes = new ArrayList<Node>();
    for (RelationshipModel.Other other : model.others(about)) {
      String key = "other." + other.what();
      Button button =
          Parts.button(texts.get(key, child.label(), parent.label()), () -> model.make(other));
      button.setId("other-" + other.what().name().toLowerCase(Locale.ROOT));
      String why = texts.get(key + ".why", child.noun().singular(), parent.noun().singular());
      nodes.addAll(List.of(button, Parts.prose(why, "muted", "small")));
    }
    if (!nodes.isEmpty()) {
      nodes.addFirst(Parts.label(texts.get("others"), "heading"));
    }
    return nodes;
  }

  private static Node explained(Label label, String word) {
    return Terms.explain(label, word, Glossary.meaning(word));
  }

  /** The sentence as a flow of words, with its number word as a menu. */
  private Node sentence(Reading reading) {
    var flow = new FlowPane(4, 2);
    for (String word : (texts.get("each") + " " + reading.subject()).split(" ")) {
      flow.getChildren().add(new Label(word));
    }
    var flowVerb = Parts.button(reading.verb(), () -> {}, "word-choice");
    flowVerb.setId("verb");
    flowVerb.setOnAction(
        event -> Verbs.pick(texts, flowVerb, reading.verb(), verb -> model.reword(reading, verb)));
    flow.getChildren().add(flowVerb);
    var choice = new MenuButton(reading.quantity().words());
    choice.getStyleClass().add("word-choice");
    choice.setAccessibleText(reading.sentence());
    choice.setId("quantity");
    for (Reading.Option option : reading.options()) {
      if (option.quantity() != reading.quantity()) {
        var item = new MenuItem(option.quantity().words());
        item.setOnAction(event -> model.read(option));
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

  private List<Node> pair(RelationshipModel.Pair pair) {
    var nodes = new ArrayList<Node>();
    nodes.add(explained(Parts.label(texts.get("pair"), "heading"), "Join table"));
    nodes.add(Parts.fact(texts.get("pair.key"), String.join(", ", pair.key())));
    nodes.add(
        Parts.fact(
            texts.get("pair.twice"),
            texts.get(pair.onceOnly() ? "pair.refused" : "pair.accepted")));
    if (!pair.more().isEmpty()) {
      nodes.add(Parts.fact(texts.get("pair.more"), String.join(", ", pair.more())));
    }
    return nodes;
  }

  private MenuButton onDelete(Relationship r) {
    var choice = new MenuButton(texts.get("delete." + r.onDelete()));
    choice.setId("on-delete");
    for (ReferentialAction action : ReferentialAction.values()) {
      var item = new MenuItem(texts.get("delete." + action));
      item.setMnemonicParsing(false);
      item.setUserData(action == r.onDelete());
      item.setOnAction(event -> model.onDelete(r, action));
      choice.getItems().add(item);
      actions.put(action, item);
    }
    return choice;
  }
}
