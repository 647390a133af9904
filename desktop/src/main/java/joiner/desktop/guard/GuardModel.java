package joiner.desktop.guard;

import java.util.ArrayList;
import java.util.Arrays;
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
import joiner.expression.Formula;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.meaning.RuleForm;
import joiner.meaning.TableMeaning;
import joiner.model.Demand;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.RuleId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.NamingPolicy;
import joiner.reasoning.Together;
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
  private final Computed<TableMeaning, Together> together;

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
  record OfField(String field, String words) {}

  GuardModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    this.understood =
        new Computed<>(
            bench.runner(),
            texts.get("understanding"),
            Lane.WORKING,
            (one, other) -> one.table().equals(other.table()),
            (meaning, progress) -> bench.solver().rules(meaning));
    this.together =
        new Computed<>(
            bench.runner(),
            texts.get("together"),
            Lane.WORKING,
            (one, other) -> one.table().equals(other.table()),
            (meaning, progress) -> bench.solver().together(meaning));
  }

  /** What the rules of the chosen table mean together. */
  ReadOnlyObjectProperty<Answer<List<Understood>>> understoodProperty() {
    return understood.answerProperty();
  }

  /** Has it found out what the rules of a table mean. */
  void understand(Table table) {
    if (!table.rules().isEmpty()) {
      TableMeaning meaning = bench.draft().meaning().of(table);
      understood.ask(meaning);
      if (meaning.rules().size() > 1) {
        together.ask(meaning);
      }
    }
  }

  /** What the conditions on each row are like together, once that is found out. */
  ReadOnlyObjectProperty<Answer<Together>> togetherProperty() {
    return together.answerProperty();
  }

  /** The same of a table as it stands, where it has several conditions. */
  Optional<Together> together(Table table) {
    boolean several = bench.draft().meaning().of(table).rules().size() > 1;
    return several && together.answer() instanceof Answer.Current<Together>(Together known)
        ? Optional.of(known)
        : Optional.empty();
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
                        : shown(entry.getValue())))
        .collect(Collectors.joining(" · "));
  }

  /** A value as people write it: moments without a T, and without seconds that are none. */
  static String shown(Value value) {
    String text = Evaluator.show(value);
    return value instanceof Value.DateTime || value instanceof Value.Zoned
        ? text.replace('T', ' ').replaceFirst("(:\\d\\d):00", "$1")
        : text;
  }

  private String label(Table table, Reference read) {
    return switch (read) {
      case OwnField own when table.hasField(own.field()) -> table.field(own.field()).label();
      case FarField far ->
          texts.get(
              "of.parent", far.table(bench.design()).label(), far.end(bench.design()).label());
      default -> read.name();
    };
  }

  /** Says whether somebody looks at the stage. */
  void look(boolean now) {
    looking = now;
    byRule.values().forEach(rule -> rule.look(now));
    understood.look(now);
    together.look(now);
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

  /** A sort of rule that can be added. */
  sealed interface Sort {
    /** A condition of one's own on each row. */
    record Own() implements Sort {}

    /** A common condition on each row, written by a form. */
    record Form(RuleForm.Sort form) implements Sort {}

    /**
     * Something that several rows keep together.
     *
     * @param key of its words
     */
    record Over(String key, Demand demand) implements Sort {}
  }

  /** The sorts of rules that a table can have. */
  List<Sort> sorts(Table table) {
    var sorts = new ArrayList<Sort>();
    sorts.add(new Sort.Own());
    Arrays.stream(RuleForm.Sort.values()).map(Sort.Form::new).forEach(sorts::add);
    bench.design().childrenOf(table.id()).stream()
        .findFirst()
        .ifPresent(
            r ->
                sorts.add(
                    new Sort.Over(
                        "children",
                        new Demand.OfChildren(
                            r.id(),
                            Optional.empty(),
                            Optional.empty(),
                            Optional.empty(),
                            Optional.empty()))));
    sorts.add(new Sort.Over("alone", new Demand.Alone(List.of(), new Formula(""))));
    sorts.add(new Sort.Over("stays", new Demand.Stays(List.of(), new Formula(""))));
    periods(table).ifPresent(apart -> sorts.add(new Sort.Over("apart", apart)));
    bench.design().parentsOf(table.id()).stream()
        .filter(Relationship::isSelfReference)
        .findFirst()
        .ifPresent(r -> sorts.add(new Sort.Over("tree", new Demand.Tree(r.id()))));
    return sorts;
  }

  /** The first two fields that could be beginning and end, told apart by the first parent. */
  private Optional<Demand> periods(Table table) {
    List<Field> moments =
        table.fields().stream()
            .filter(field -> !field.isComputed())
            .filter(field -> field.type().kind().isMoment())
            .toList();
    for (Field from : moments) {
      Optional<Field> until =
          moments.stream()
              .dropWhile(field -> !field.id().equals(from.id()))
              .skip(1)
              .filter(field -> field.type().kind() == from.type().kind())
              .findFirst();
      if (until.isPresent()) {
        List<FieldId> per =
            bench.design().parentsOf(table.id()).stream()
                .findFirst()
                .map(Relationship::childFields)
                .orElse(List.of());
        return Optional.of(new Demand.Apart(per, from.id(), until.get().id(), false, false));
      }
    }
    return Optional.empty();
  }

  /** Adds a rule that says nothing yet. */
  RuleId add(Table table, Sort sort) {
    String label = texts.get("new.label", table.rules().size() + 1);
    List<String> names =
        bench.design().tables().stream().flatMap(t -> t.rules().stream()).map(Rule::name).toList();
    String name = NamingPolicy.free(NamingPolicy.nameFor(table.name() + " " + label), names);
    Demand demand =
        switch (sort) {
          case Sort.Own own -> new Demand.OfRow(new Formula(""));
          case Sort.Form form -> new Demand.OfRow(new Formula(""));
          case Sort.Over over -> over.demand();
        };
    bench.apply(ChangeTable.addRule(table, new Rule(name, label, demand, "")));
    RuleId added = bench.design().table(table.id()).rules().getLast().id();
    if (sort instanceof Sort.Form(RuleForm.Sort form)) {
      rules().stream()
          .filter(model -> model.rule().id().equals(added))
          .forEach(model -> model.begin(form.empty()));
    }
    return added;
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
  List<OfField> demands(Table table) {
    var demands = new ArrayList<OfField>();
    for (Field field : table.fields()) {
      String words =
          bench.draft().meaning().of(table).constraintsOf(field.id()).stream()
              .filter(GuardModel::isSaid)
              .map(Constraint.OfField::demand)
              .collect(Collectors.joining(", "));
      if (!words.isEmpty()) {
        demands.add(new OfField(field.label(), words));
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
