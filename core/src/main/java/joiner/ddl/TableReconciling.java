package joiner.ddl;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import joiner.catalog.CatalogIndex;
import joiner.catalog.CatalogTable;
import joiner.catalog.Check;
import joiner.catalog.Column;
import joiner.catalog.ForeignKey;
import joiner.catalog.Key;
import joiner.engine.Answers;
import joiner.engine.Dialect;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Expression.Comparison;
import joiner.expression.Formula;
import joiner.expression.Kernel;
import joiner.expression.Reference;
import joiner.expression.Scope;
import joiner.meaning.Constraint;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Limits;
import joiner.model.Origin;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableKind;
import joiner.model.UniqueKey;
import joiner.naming.IdentifierRules;
import joiner.naming.NamingPolicy;

/** Puts what a database holds of one table into the words of the design's. */
final class TableReconciling {
  private final TableMeaning meaning;
  private final Table known;
  private final CatalogTable promised;
  private final CatalogTable found;
  private final Table raised;
  private final Dialect dialect;
  private final IdentifierRules rules;
  private final Answers answers;

  /** Names of checks that were promised and are not there. */
  private final Set<String> missing;

  private final List<String> notices = new ArrayList<>();

  /** Fields by the name the engine stores. */
  private final Map<String, Field> fields = new HashMap<>();

  /**
   * A table to reconcile.
   *
   * @param raised what was found, as a table of a design, with the checks nobody promised
   */
  TableReconciling(
      TableMeaning meaning,
      CatalogTable promised,
      CatalogTable found,
      Table raised,
      Dialect dialect,
      Answers answers) {
    this.meaning = meaning;
    this.known = meaning.table();
    this.promised = promised;
    this.found = found;
    this.raised = raised;
    this.dialect = dialect;
    this.rules = dialect.identifiers();
    this.answers = answers;
    this.missing =
        promised.checks().stream()
            .map(check -> rules.stored(check.name()))
            .collect(Collectors.toCollection(HashSet::new));
    found.checks().stream().map(Check::name).forEach(missing::remove);
  }

  List<String> notices() {
    return notices;
  }

  Table reconcile() {
    var all = new ArrayList<Field>();
    var present = new HashSet<FieldId>();
    Map<String, Field> byStored = new HashMap<>();
    known.fields().stream()
        .filter(this::isPromised)
        .forEach(k -> byStored.putIfAbsent(rules.stored(k.name()), k));
    for (Field field : raised.fields()) {
      Field same = byStored.get(field.name());
      Field now = same != null ? field(same, field) : unused(field, present);
      all.add(now);
      present.add(now.id());
      fields.put(field.name(), now);
    }
    addLeftOut(all);
    List<Rule> kept =
        known.rules().stream().filter(rule -> !missing.remove(rules.stored(rule.name()))).toList();
    missing.forEach(
        name -> notices.add("The check " + name + " of " + known.name() + " is not there."));
    TableKind kind = known.kind();
    for (FieldId id : known.fieldIds()) {
      kind = present.contains(id) ? kind : kind.without(id);
    }
    boolean noted = dialect.showsComments();
    Table same =
        new Table(
            known.id(),
            known.name(),
            known.label(),
            known.noun(),
            known.icon(),
            noted ? found.comment() : known.description(),
            known.area(),
            kind,
            all,
            primaryKey(),
            staying(known.uniqueKeys(), UniqueKey::fields, foundKeys(), wantedKeys()),
            staying(known.indexes(), Index::fields, foundKeysAndIndexes(), wantedIndexes()),
            known.rowLabel(),
            kept,
            known.groups(),
            known.listing(),
            known.facts(),
            known.extras());
    return withFound(same);
  }

  /** A computed field that the engine does not compute is no column there. */
  private boolean isPromised(Field field) {
    return promised.column(field.name()).isPresent();
  }

  /** What is only worked out here stays, where it was. */
  private void addLeftOut(List<Field> all) {
    for (int i = 0; i < known.fields().size(); i++) {
      Field field = known.fields().get(i);
      boolean taken =
          all.stream().anyMatch(f -> f.id().equals(field.id()) || f.name().equals(field.name()));
      if (!isPromised(field) && !taken) {
        all.add(Math.min(i, all.size()), field);
      }
    }
  }

  /** With the rules, keys and indexes that nobody promised. */
  private Table withFound(Table table) {
    Table more = table;
    for (Rule rule : raised.rules()) {
      String free = NamingPolicy.free(rule.name(), more.rules().stream().map(Rule::name).toList());
      more = more.withRuleAdded(rule.withName(free));
    }
    for (UniqueKey key : raised.uniqueKeys()) {
      List<String> columns = raised.namesOf(key.fields());
      if (!wantedKeys().contains(columns)) {
        more = more.withUniqueKeyAdded(key.withFields(ids(columns)));
      }
    }
    // An index of the very columns of a foreign key may be one the engine makes by itself.
    Set<List<String>> references =
        found.foreignKeys().stream().map(ForeignKey::columns).collect(Collectors.toSet());
    for (Index index : raised.indexes()) {
      List<String> columns = raised.namesOf(index.fields());
      if (!wantedIndexes().contains(columns) && !references.contains(columns)) {
        List<String> down = raised.namesOf(List.copyOf(index.descending()));
        more =
            more.withIndexAdded(
                new Index(index.id(), index.name(), ids(columns), Set.copyOf(ids(down))));
      }
    }
    return more;
  }

  /** A new field; where its id is that of a field that is not there, it is that one renamed. */
  private Field unused(Field field, Set<FieldId> taken) {
    boolean there =
        known.hasField(field.id())
            && raised.fieldNamed(rules.stored(known.field(field.id()).name())).isPresent();
    return there || taken.contains(field.id()) ? known.unused(field) : field;
  }

  private Field field(Field k, Field raisedField) {
    Column wanted = promised.column(k.name()).orElseThrow();
    Column is = found.column(raisedField.name()).orElseThrow();
    Field now = withoutMissing(k);
    boolean sameType = wanted.type().equals(is.type()) && wanted.counts() == is.counts();
    boolean listed = raisedField.type() instanceof FieldType.Choice;
    if (!sameType || listed) {
      now = now.withType(FieldType.Choice.after(now.type(), raisedField.type()));
    }
    boolean inKey = known.primaryKey().contains(k.id());
    if (wanted.required() != is.required() && !wanted.counts() && !inKey) {
      now = now.withRequired(is.required());
    }
    if (!wanted.counts() && !sameDefault(wanted, is, answers)) {
      now = now.withDefault(raisedField.defaultValue());
    }
    now = now.withOrigin(originNow(k, raisedField, is));
    if (dialect.showsComments() && !is.comment().equals(k.remark())) {
      now = now.withDescription(is.comment()).withUnit(""); // Of which it may be a part.
    }
    return now.withLimits(withNews(now.limits(), raisedField.limits()));
  }

  /** Where the values of a column come from, as far as what the engine says can be read. */
  private Origin originNow(Field k, Field raisedField, Column is) {
    Optional<Checked> by = meaning.computed(k.id());
    if (by.isEmpty() && is.generated().isPresent()) {
      return raisedField.origin();
    }
    if (by.isEmpty() || is.generated().isEmpty()) {
      return k.isComputed() ? raisedField.origin() : k.origin();
    }
    Scope scope = TableMeaning.of(raised).scope();
    Optional<Formula> found =
        FoundSql.read(
            is.generated().get().sql(), formula -> formula.value(scope) instanceof Checked.Sound);
    boolean other =
        found.isPresent()
            && by.get() instanceof Checked.Sound wanted
            && found.get().value(scope) instanceof Checked.Sound sound
            && !Kernel.same(plain(wanted.tree()), plain(sound.tree()));
    return other ? new Origin.Computed(found.get()) : k.origin();
  }

  /** An expression by the names the engine stores, without what typing it wrote out. */
  private Expression plain(Expression tree) {
    return switch (tree) {
      case Expression.FieldRef(Reference to, var place) ->
          new Expression.Name(List.of(rules.stored(to.name())), place);
      case Expression.Fitting fitting -> plain(fitting.operand());
      case Expression.CodePoints points -> plain(points.operand());
      default -> tree.withParts(this::plain);
    };
  }

  /** Whether a column has the default that was promised. */
  static boolean sameDefault(Column wanted, Column is, Answers answers) {
    if (wanted.defaultValue().isEmpty() || is.defaultValue().isEmpty()) {
      return wanted.defaultValue().isEmpty() && is.defaultValue().isEmpty();
    }
    // Of two draws nobody can tell whether they are made the same way.
    return wanted.defaultValue().get().varies()
        || answers.haveOneValue(wanted.defaultValue().get(), is.defaultValue().get());
  }

  private static Limits withNews(Limits limits, Limits news) {
    Limits now = limits;
    for (Comparison side : Limits.SIDES) {
      now = news.bound(side).isPresent() ? now.withBound(side, news.bound(side)) : now;
    }
    now = news.minLength().isPresent() ? now.withMinLength(news.minLength()) : now;
    return news.allowed().isEmpty() ? now : now.withAllowed(news.allowed());
  }

  /** The field without what its missing checks would have kept. */
  private Field withoutMissing(Field k) {
    Field now = k;
    for (Constraint.OfField constraint : meaning.constraintsOf(k.id())) {
      if (missing.remove(rules.stored(constraint.name()))) {
        now = without(now, constraint);
      }
    }
    return now;
  }

  private Field without(Field field, Constraint.OfField constraint) {
    Limits limits = field.limits();
    return switch (constraint) {
      case Constraint.Bounded c -> field.withLimits(limits.withBound(c.side(), Optional.empty()));
      case Constraint.Shortest c -> field.withLimits(limits.withMinLength(OptionalInt.empty()));
      case Constraint.Matching c -> field.withLimits(limits.withPattern(Optional.empty()));
      case Constraint.Listed c ->
          field.type() instanceof FieldType.Choice choice
              ? field.withType(new FieldType.Text(choice.longest()))
              : field.withLimits(limits.withAllowed(List.of()));
      case Constraint.OfType c -> notKept(field, c);
      case Constraint.Required c -> notKept(field, c);
      case Constraint.Longest c -> notKept(field, c);
      case Constraint.MostBytes c ->
          field.type() instanceof FieldType.Content content
              ? field.withType(new FieldType.Content(content.media(), Integer.MAX_VALUE))
              : field;
      case Constraint.OfMedia c -> field; // No engine keeps it.
    };
  }

  private Field notKept(Field field, Constraint constraint) {
    notices.add(
        "The check " + constraint.name() + " of " + known.name() + " is not there any more.");
    return field;
  }

  private List<FieldId> ids(List<String> stored) {
    return stored.stream().map(name -> Objects.requireNonNull(fields.get(name)).id()).toList();
  }

  private List<String> stored(List<FieldId> some) {
    return known.namesOf(some).stream().map(rules::stored).toList();
  }

  /** Columns of the keys that are there, the primary one among them. */
  private Set<List<String>> foundKeys() {
    var keys = new HashSet<>(found.uniqueKeys().stream().map(Key::columns).toList());
    found.primaryKey().map(Key::columns).ifPresent(keys::add);
    return keys;
  }

  /** What is there, and what was not promised of fields that are there: that is the design's. */
  private <T> List<T> staying(
      List<T> all, Function<T, List<FieldId>> of, Set<List<String>> is, Set<List<String>> wanted) {
    var staying = new ArrayList<T>();
    for (T thing : all) {
      List<String> columns = stored(of.apply(thing));
      boolean ours = fields.keySet().containsAll(columns) && !wanted.contains(columns);
      if (is.contains(columns) || ours) {
        staying.add(thing);
      }
    }
    return staying;
  }

  private List<FieldId> primaryKey() {
    List<String> is = found.primaryKey().map(Key::columns).orElse(List.of());
    return stored(known.primaryKey()).equals(is) ? known.primaryKey() : ids(is);
  }

  private Set<List<String>> promised(List<List<String>> columns) {
    return columns.stream()
        .map(names -> names.stream().map(rules::stored).toList())
        .collect(Collectors.toSet());
  }

  private Set<List<String>> wantedKeys() {
    return promised(promised.uniqueKeys().stream().map(Key::columns).toList());
  }

  private Set<List<String>> wantedIndexes() {
    return promised(promised.indexes().stream().map(CatalogIndex::columns).toList());
  }

  private Set<List<String>> foundKeysAndIndexes() {
    Set<List<String>> is = foundKeys();
    found.indexes().forEach(index -> is.add(index.columns()));
    return is;
  }
}
