package joiner.desktop.guard;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.desktop.finding.FindingCards;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Terms;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenLaidOut;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Glossary;
import joiner.desktop.work.Workbench;
import joiner.finding.Topic;
import joiner.meaning.RuleForm;
import joiner.model.Rule;
import joiner.model.RuleId;
import joiner.model.Table;
import joiner.naming.WordList;
import joiner.reasoning.Together;

/**
 * The stage Guard: the rules of a table as cards, each with the rows that pass and those refused.
 */
public final class GuardView implements StageView {
  private final Workbench bench;
  private final Texts texts = Texts.beside(GuardView.class);
  private final GuardModel model;
  private final VBox main = new VBox();
  private final VBox side = new VBox();
  private final WhenSeen seen = new WhenSeen(this::show);
  private final WhenSeen sideSeen = new WhenSeen(this::showSide);
  private final VBox cards = new VBox(10);
  private final ScrollPane scroll = Parts.scroll(cards);
  private final VBox headLine = new VBox();
  private Map<RuleModel, RuleCard> byRule = new HashMap<>();

  /** Builds the stage. */
  public GuardView(Workbench bench) {
    this.bench = bench;
    this.model = new GuardModel(bench, texts);
    main.getStyleClass().add("stage-area");
    side.getStyleClass().add("side-content");
    VBox.setVgrow(scroll, Priority.ALWAYS);
    bench.historyProperty().subscribe(value -> seen.changed());
    bench.selectionProperty().subscribe(value -> seen.changed());
    bench.verdictProperty().subscribe(value -> sideSeen.changed());
    model.understoodProperty().subscribe(value -> showUnderstood());
    model.togetherProperty().subscribe(value -> sideSeen.changed());
  }

  /**
   * Says on each card what its rule means, once that is found out; where somebody types stays where
   * it was, though cards above become higher.
   */
  private void showUnderstood() {
    Optional<Node> typed =
        byRule.values().stream().anyMatch(card -> card.node().isFocusWithin())
            ? Optional.of(scroll.getScene().getFocusOwner()).filter(this::isInSight)
            : Optional.empty();
    double before = typed.map(GuardView::top).orElse(0.0);
    sayUnderstood();
    typed.ifPresent(
        node ->
            WhenLaidOut.run(
                scroll,
                () -> {
                  double hidden = cards.getHeight() - scroll.getViewportBounds().getHeight();
                  double moved = top(node) - before;
                  if (hidden > 0 && moved != 0) {
                    scroll.setVvalue(Math.clamp(scroll.getVvalue() + moved / hidden, 0, 1));
                  }
                }));
  }

  private boolean isInSight(Node node) {
    return top(node) >= top(scroll)
        && top(node) <= top(scroll) + scroll.getViewportBounds().getHeight();
  }

  private static double top(Node node) {
    return node.localToScene(node.getBoundsInLocal()).getMinY();
  }

  private void sayUnderstood() {
    model
        .table()
        .ifPresent(
            table ->
                byRule.forEach(
                    (rule, card) ->
                        card.understood(
                            model.understood(rule.rule()), row -> model.words(table, row))));
  }

  @Override
  public Node main() {
    return main;
  }

  @Override
  public Node side() {
    return side;
  }

  @Override
  public void shown(boolean visible) {
    seen.look(visible);
    sideSeen.look(visible);
    model.look(visible);
  }

  @Override
  public List<Command> commands() {
    return model.table().stream()
        .map(table -> Command.of(texts.get("new.in", table.label()), () -> add(table)))
        .toList();
  }

  private void show() {
    Optional<Table> table = model.table();
    showCards();
    if (table.isEmpty()) {
      main.getChildren()
          .setAll(
              Parts.label(texts.get("empty.title"), "title"),
              Parts.prose(texts.get("empty.why"), "muted"));
    } else {
      headLine.getChildren().setAll(head(table.get()));
      model.understand(table.get());
      showUnderstood();
      main.getChildren().setAll(headLine, scroll);
    }
    showSide();
  }

  /** Cards of rules that are still there stay, so that nobody who types in one is disturbed. */
  private void showCards() {
    Map<RuleModel, RuleCard> before = byRule;
    byRule = new HashMap<>();
    var nodes = new ArrayList<Node>();
    for (RuleModel rule : model.rules()) {
      RuleCard known = before.get(rule);
      if (known == null) {
        known = new RuleCard(rule, texts);
      } else {
        known.update();
      }
      byRule.put(rule, known);
      nodes.add(known.node());
    }
    if (nodes.isEmpty()) {
      nodes.add(Parts.prose(texts.get("none"), "muted"));
    }
    if (!cards.getChildren().equals(nodes)) {
      cards.getChildren().setAll(nodes);
    }
  }

  private Node head(Table table) {
    var add = Parts.button(texts.get("new"), () -> add(table));
    add.setId("new-rule");
    var title = Parts.shortened(texts.get("title", table.noun().indefinite()), "title");
    String counts = texts.get("counts", table.rules().size(), model.demands(table).size());
    var words =
        new VBox(
            2,
            Terms.explain(title, "Rule", Glossary.meaning("Rule")),
            Parts.shortened(counts, "muted"));
    words.setMinWidth(0);
    HBox.setHgrow(words, Priority.ALWAYS);
    var forms = Parts.button(texts.get("new.form"), () -> {});
    forms.setId("rule-sorts");
    forms.setOnAction(
        event ->
            new Picker<>(texts.get("new.form.pick"), sorts(table))
                .open(forms, sort -> add(table, sort)));
    return Parts.row(10, words, forms, add);
  }

  /** The sorts of rules, those on each row first. */
  private Offers<GuardModel.Sort> sorts(Table table) {
    List<Offers.Offer<GuardModel.Sort>> all =
        model.sorts(table).stream().map(sort -> offer(table, sort)).toList();
    return typed -> Offers.narrowed(all, typed);
  }

  private Offers.Offer<GuardModel.Sort> offer(Table table, GuardModel.Sort sort) {
    String key =
        switch (sort) {
          case GuardModel.Sort.Own own -> "OWN";
          case GuardModel.Sort.Form(RuleForm.Sort form) -> form.name();
          case GuardModel.Sort.Over over -> over.key();
        };
    String group = sort instanceof GuardModel.Sort.Over ? "sort.over" : "sort.row";
    return new Offers.Offer<>(
        sort, texts.get("sort." + key), texts.get("sort.why." + key), texts.get(group));
  }

  private void add(Table table) {
    add(table, new GuardModel.Sort.Own());
  }

  private void add(Table table, GuardModel.Sort sort) {
    RuleId added = model.add(table, sort);
    byRule.forEach((rule, card) -> card.update());
    // The new one is the last, and may be below what is seen.
    WhenLaidOut.run(scroll, () -> scroll.setVvalue(scroll.getVmax()));
    byRule.forEach(
        (rule, card) -> {
          if (rule.rule().id().equals(added)) {
            card.type();
          }
        });
  }

  private void showSide() {
    if (model.table().isEmpty()) {
      side.getChildren().clear();
      return;
    }
    Table table = model.table().get();
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(texts.get("side.title", table.label()), "title"));
    nodes.add(Parts.prose(texts.get("side.pick"), "muted"));
    nodes.add(Parts.label(texts.get("side.enforce"), "heading"));
    model.keeping(table).forEach(keeping -> nodes.add(fact(keeping)));
    nodes.addAll(
        FindingCards.of(
            bench,
            texts.get("findings"),
            f -> f.topic() == Topic.GUARD && f.table().equals(table.id())));
    model.together(table).ifPresent(known -> nodes.addAll(together(table, known)));
    List<GuardModel.OfField> demands = model.demands(table);
    if (!demands.isEmpty()) {
      nodes.add(Parts.label(texts.get("side.fields"), "heading"));
      demands.forEach(d -> nodes.add(Parts.fact(d.field(), texts.get("field.must", d.words()))));
    }
    side.getChildren().setAll(nodes);
  }

  private List<Node> together(Table table, Together known) {
    if (!known.clashing().isEmpty()) {
      String rules = WordList.and(known.clashing().stream().map(Rule::label).toList());
      return List.of(Parts.prose(texts.get("side.clash", rules), "brick", "small"));
    }
    return known
        .row()
        .map(
            row ->
                List.<Node>of(
                    Parts.label(texts.get("side.together"), "heading"),
                    Parts.prose(model.words(table, row), "small")))
        .orElse(List.of());
  }

  private Node fact(GuardModel.Keeping keeping) {
    return Parts.fact(
        keeping.engine(),
        keeping.isAll() ? texts.get("kept") : texts.get("kept.some", keeping.kept(), keeping.all()),
        keeping.isAll() ? "spruce" : "oak");
  }
}
