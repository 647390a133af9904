package joiner.desktop.guard;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyObjectProperty;
import joiner.ddl.Lowered;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeTable;
import joiner.engine.Dialects;
import joiner.expression.Evaluator;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.OwnField;
import joiner.model.Rule;
import joiner.model.RuleId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.NamingPolicy;
import joiner.reasoning.Understood;
import joiner.reasoning.Witness;

/** What the stage Guard is about and does, without a window: the rules of the chosen table. */
final class GuardModel {
  private final Workbench bench;
  private final Texts texts;
  private final Map<RuleId, RuleModel> byRule = new LinkedHashMap<>();
  private Optional<TableId> shown = Optional.empty();
  private boolean looking;
  private final Computed<TableMeaning, List<Understood>> understood;

  /**
   * How many of the rules an engine keeps.
   *
   * @param all how many there are
   */
  record Keeping(String engine, long kept, long all) {
    boolean isAll() {
      return kept == all;
    }
  }

  /** What a field demands beside its type, in words. */
  record Demand(String field, String words) {}

  GuardModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    var solver = new Solver(bench.clock());
    this.understood =
        new Computed<>(
            bench.runner(),
            texts.get("understanding"),
            Lane.WORKING,
            (one, other) -> one.table().equals(other.table()),
            (meaning, progress) -> solver.rules(meaning));
  }

  /** What the rules of the chosen table mean together. */
  ReadOnlyObjectProperty<Answer<List<Understood>>> understoodProperty() {
    return understood.answerProperty();
  }

  /** Has it found out what the rules of a table mean. */
  void understand(Table table) {
    if (!table.rules().isEmpty()) {
      understood.ask(bench.draft().meaning().of(table));
    }
  }

  /** What is known of a rule as it stands; empty while that is not found out. */
  Optional<Understood> understood(Rule rule) {
    return understood.answer() instanceof Answer.Current<List<Understood>>(List<Understood> all)
        ? all.stream().filter(one -> one.rule().equals(rule)).findFirst()
        : Optional.empty();
  }

  /** A row in a few words, its fields by their labels. */
  String words(Table table, Witness row) {
    return row.values().entrySet().stream()
        .map(
            entry ->
                label(table, entry.getKey())
                    + " "
                    + (entry.getValue() instanceof Value.Null
                        ? texts.get("empty.value")
                        : Evaluator.show(entry.getValue())))
        .collect(Collectors.joining(" · "));
  }

  private static String label(Table table, Reference read) {
    return read instanceof OwnField own && table.hasField(own.field())
        ? table.field(own.field()).label()
        : read.name();
  }

  /** Says whether somebody looks at the stage. */
  void look(boolean now) {
    looking = now;
    byRule.values().forEach(rule -> rule.look(now));
    understood.look(now);
  }

  /** The chosen table. */
  Optional<Table> table() {
    return bench.table();
  }

  /**
   * The rules of the chosen table, in their order; a rule that is still there is the very same
   * model as before.
   */
  List<RuleModel> rules() {
    Optional<Table> table = table();
    if (!table.map(Table::id).equals(shown)) {
      forget(List.copyOf(byRule.keySet()));
      shown = table.map(Table::id);
    }
    List<Rule> rules = table.map(Table::rules).orElse(List.of());
    List<RuleId> there = rules.stream().map(Rule::id).toList();
    forget(byRule.keySet().stream().filter(rule -> !there.contains(rule)).toList());
    var models = new ArrayList<RuleModel>();
    for (Rule rule : rules) {
      models.add(model(table.orElseThrow(), rule));
    }
    return models;
  }

  private RuleModel model(Table table, Rule rule) {
    RuleModel known = byRule.get(rule.id());
    if (known == null) {
      known = new RuleModel(bench, texts, table, rule);
      known.look(looking);
      byRule.put(rule.id(), known);
    }
    return known;
  }

  private void forget(List<RuleId> rules) {
    for (RuleId rule : rules) {
      byRule.remove(rule).look(false);
    }
  }

  /** Adds a rule that says nothing yet. */
  RuleId add(Table table) {
    String label = texts.get("new.label", table.rules().size() + 1);
    List<String> names =
        bench.design().tables().stream().flatMap(t -> t.rules().stream()).map(Rule::name).toList();
    String name = NamingPolicy.free(NamingPolicy.nameFor(table.name() + " " + label), names);
    bench.apply(ChangeTable.addRule(table, new Rule(name, label, "", "")));
    return bench.design().table(table.id()).rules().getLast().id();
  }

  /** How many of a table's rules each engine keeps. */
  List<Keeping> keeping(Table table) {
    return Dialects.ALL.stream()
        .map(
            dialect ->
                new Keeping(
                    dialect.engine(),
                    bench.draft().meaning().of(table).ruled().stream()
                        .filter(
                            rule ->
                                Lowered.keeping(bench.draft(), table.id(), rule, dialect).isKept())
                        .count(),
                    table.rules().size()))
        .toList();
  }

  /**
   * What the fields of a table demand beside their types; those that demand nothing are left out.
   */
  List<Demand> demands(Table table) {
    var demands = new ArrayList<Demand>();
    for (Field field : table.fields()) {
      String words =
          bench.draft().meaning().of(table).constraintsOf(field.id()).stream()
              .filter(GuardModel::isSaid)
              .map(Constraint.OfField::demand)
              .collect(Collectors.joining(", "));
      if (!words.isEmpty()) {
        demands.add(new Demand(field.label(), words));
      }
    }
    return demands;
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
      case Constraint.MostBytes c -> false;
      case Constraint.OfMedia c -> false;
    };
  }
}
