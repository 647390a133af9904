package joiner.desktop.guard;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.ddl.Lowered;
import joiner.desktop.finding.FindingCards;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Terms;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Glossary;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeTable;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.engine.Support;
import joiner.expression.Checked;
import joiner.finding.Topic;
import joiner.meaning.Constraint;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Rule;
import joiner.model.RuleId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;

/**
 * The stage Guard: the rules of a table as cards, each with the rows that pass and those refused.
 */
public final class GuardView implements StageView {
  private final Workbench bench;
  private final Texts texts = Texts.beside(GuardView.class);
  private final VBox main = new VBox();
  private final VBox side = new VBox();
  private final WhenSeen seen = new WhenSeen(this::show);
  private final WhenSeen sideSeen = new WhenSeen(this::showSide);
  private final VBox cards = new VBox(10);
  private final ScrollPane scroll = Parts.scroll(cards);
  private final VBox headLine = new VBox();
  private final Map<RuleId, RuleCard> byRule = new LinkedHashMap<>();
  private Optional<TableId> shown = Optional.empty();

  /** Builds the stage. */
  public GuardView(Workbench bench) {
    this.bench = bench;
    main.getStyleClass().add("stage-area");
    side.getStyleClass().add("side-content");
    VBox.setVgrow(scroll, Priority.ALWAYS);
    bench.historyProperty().subscribe(value -> seen.changed());
    bench.selectionProperty().subscribe(value -> seen.changed());
    bench.verdictProperty().subscribe(value -> sideSeen.changed());
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
    byRule.values().forEach(card -> card.look(visible));
  }

  @Override
  public List<Command> commands() {
    return bench.table().stream()
        .map(table -> Command.of(texts.get("new.in", table.label()), () -> add(table)))
        .toList();
  }

  private void show() {
    Optional<Table> table = bench.table();
    if (table.isEmpty()) {
      main.getChildren()
          .setAll(
              Parts.label(texts.get("empty.title"), "title"),
              Parts.prose(texts.get("empty.why"), "muted"));
      shown = Optional.empty();
    } else {
      headLine.getChildren().setAll(head(table.get()));
      showCards(table.get());
      main.getChildren().setAll(headLine, scroll);
    }
    showSide();
  }

  /** Cards of rules that are still there stay, so that nobody who types in one is disturbed. */
  private void showCards(Table table) {
    Rows rows = bench.draft().rows().of(table.id());
    if (!shown.equals(Optional.of(table.id()))) {
      byRule.values().forEach(card -> card.look(false));
      byRule.clear();
      shown = Optional.of(table.id());
    }
    byRule.keySet().retainAll(table.rules().stream().map(Rule::id).toList());
    var nodes = new ArrayList<Node>();
    for (Rule rule : table.rules()) {
      RuleCard known = byRule.get(rule.id());
      if (known == null) {
        known = new RuleCard(bench, texts, table, rule, rows);
        byRule.put(rule.id(), known);
      } else {
        known.update(table, rule, rows);
      }
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
    return Parts.row(
        10,
        Terms.explain(
            Parts.shortened(texts.get("title", table.noun().indefinite()), "title"),
            "Rule",
            Glossary.meaning("Rule")),
        Parts.label(texts.get("counts", table.rules().size(), fieldRules(table).size()), "muted"),
        Parts.spring(),
        add);
  }

  private void add(Table table) {
    String label = texts.get("new.label", table.rules().size() + 1);
    var names =
        bench.design().tables().stream().flatMap(t -> t.rules().stream()).map(Rule::name).toList();
    String name = NamingPolicy.free(NamingPolicy.nameFor(table.name() + " " + label), names);
    bench.apply(ChangeTable.addRule(table, new Rule(name, label, "", "")));
    bench.design().table(table.id()).rules().stream()
        .filter(rule -> rule.name().equals(name))
        .findFirst()
        .map(rule -> byRule.get(rule.id()))
        .ifPresent(RuleCard::type);
  }

  private void showSide() {
    if (bench.table().isEmpty()) {
      side.getChildren().clear();
      return;
    }
    Table table = bench.table().get();
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(texts.get("side.title", table.label()), "title"));
    nodes.add(Parts.prose(texts.get("side.pick"), "muted"));
    nodes.add(Parts.label(texts.get("side.enforce"), "heading"));
    Dialects.ALL.forEach(dialect -> nodes.add(kept(dialect, table)));
    nodes.addAll(
        FindingCards.of(
            bench,
            texts.get("findings"),
            f -> f.topic() == Topic.GUARD && f.table().equals(table.id())));
    List<Node> fields = fieldRules(table);
    if (!fields.isEmpty()) {
      nodes.add(Parts.label(texts.get("side.fields"), "heading"));
      nodes.addAll(fields);
    }
    side.getChildren().setAll(nodes);
  }

  private Node kept(Dialect dialect, Table table) {
    long all = table.rules().size();
    long kept =
        bench.draft().meaning().of(table).rules().stream()
            .filter(rule -> keeps(dialect, table, rule))
            .count();
    return Parts.fact(
        dialect.engine(),
        kept == all ? texts.get("kept") : texts.get("kept.some", kept, all),
        kept == all ? "spruce" : "oak");
  }

  private boolean keeps(Dialect dialect, Table table, Constraint.Holds rule) {
    return rule.condition() instanceof Checked.Sound sound
        && Lowered.support(bench.draft(), table.id(), sound, dialect) instanceof Support.Kept;
  }

  /** What each field demands beside its type, in words. */
  private List<Node> fieldRules(Table table) {
    TableMeaning meaning = bench.draft().meaning().of(table);
    var rules = new ArrayList<Node>();
    for (Field field : table.fields()) {
      String demands =
          meaning.constraintsOf(field.id()).stream()
              .filter(GuardView::isSaid)
              .map(Constraint.OfField::demand)
              .collect(Collectors.joining(", "));
      if (!demands.isEmpty()) {
        rules.add(Parts.fact(field.label(), texts.get("field.must", demands)));
      }
    }
    return rules;
  }

  /** What the type says is seen in Shape. */
  private static boolean isSaid(Constraint.OfField constraint) {
    return switch (constraint) {
      case Constraint.OfType c -> false;
      case Constraint.Longest c -> false;
      case Constraint.Required c -> true;
      case Constraint.Shortest c -> true;
      case Constraint.Listed c -> true;
      case Constraint.Bounded c -> true;
      case Constraint.Matching c -> true;
    };
  }
}
