package joiner.ddl;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogTable;
import joiner.catalog.Column;
import joiner.catalog.Exclusion;
import joiner.catalog.ForeignKey;
import joiner.catalog.Sequence;
import joiner.catalog.Trigger;
import joiner.compare.PromisedNames;
import joiner.engine.Answers;
import joiner.engine.Dialect;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.IdentifierRules;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import org.jspecify.annotations.Nullable;

/** Puts what a database holds into the words of a design that is known. */
final class Reconciling {
  private final Draft known;
  private final Design design;
  private final Dialect dialect;
  private final IdentifierRules rules;
  private final Answers answers;
  private final Map<String, CatalogTable> found = new LinkedHashMap<>();

  /** The promised table and the one of the design, by the name the engine stores. */
  private final Map<String, Pair> pairs = new LinkedHashMap<>();

  /**
   * What is promised where all rows go along, by the design's names, if that may be less: rows in a
   * circle keep some engines from declaring what they refer by.
   */
  private final Map<String, CatalogTable> withRows = new HashMap<>();

  private final Map<String, Table> tables = new LinkedHashMap<>();
  private final Map<TableId, List<Relationship>> byChild;
  private final Set<RelationshipId> taken = new HashSet<>();
  private final List<String> notices = new ArrayList<>();

  private record Pair(CatalogTable promised, Table table) {}

  Reconciling(Draft known, Catalog found, Dialect dialect, Answers answers) {
    this.known = known;
    this.design = known.design();
    this.dialect = dialect;
    this.rules = dialect.identifiers();
    this.answers = answers;
    this.byChild =
        design.relationships().stream().collect(Collectors.groupingBy(Relationship::child));
    Lowered lowered = Lowered.of(known, dialect, RowsChoice.NONE);
    PromisedNames.in(found, lowered.catalog(), dialect, answers).tables().stream()
        .filter(table -> !Sequence.keeps(table))
        .forEach(table -> this.found.put(table.name(), table));
    tellMissing(lowered.catalog(), found);
    for (int i = 0; i < lowered.tables().size(); i++) {
      CatalogTable promised = lowered.catalog().tables().get(i);
      pairs.put(rules.stored(promised.name()), new Pair(promised, lowered.tables().get(i)));
    }
    if (!dialect.addsReferences()) {
      Lowered.of(known, dialect, RowsChoice.ALL)
          .catalog()
          .tables()
          .forEach(table -> withRows.put(table.name(), table));
    }
  }

  private void tellMissing(Catalog promised, Catalog is) {
    Set<String> there =
        is.around().triggers().stream().map(Trigger::name).collect(Collectors.toSet());
    for (Trigger trigger : promised.around().triggers()) {
      if (!there.contains(rules.stored(trigger.name()))) {
        notices.add("The trigger " + trigger.name() + " of " + trigger.table() + " is not there.");
      }
    }
    Set<String> exclusions =
        is.around().exclusions().stream().map(Exclusion::name).collect(Collectors.toSet());
    for (Exclusion exclusion : promised.around().exclusions()) {
      if (!exclusions.contains(rules.stored(exclusion.name()))) {
        notices.add(
            exclusion.name() + ", which keeps a rule of " + exclusion.table() + ", is not there.");
      }
    }
  }

  Reconciled reconcile() {
    Raised raised =
        Raised.of(new Catalog(found.values().stream().map(this::news).toList()), design.title());
    notices.addAll(raised.unread());
    for (Table table : raised.design().tables()) {
      tables.put(table.name(), reconciled(table));
    }
    var relationships = new ArrayList<Relationship>();
    raised.design().relationships().forEach(r -> relationships.add(reconciled(raised.design(), r)));
    design.relationships().stream().filter(this::isOnlyOurs).forEach(relationships::add);
    List<RelationshipId> order = design.relationships().stream().map(Relationship::id).toList();
    Map<RelationshipId, Integer> places = new HashMap<>();
    order.forEach(id -> places.put(id, places.size()));
    relationships.sort(Comparator.comparing(r -> places.getOrDefault(r.id(), order.size())));
    Design now =
        Design.of(
                design.name(),
                design.title(),
                design.description(),
                design.areas(),
                Design.plainWithoutSides(inOrder(), relationships),
                relationships,
                design.extras())
            .withKits(design.kits())
            .withPins(design.pins())
            .withQuestions(design.questions());
    return new Reconciled(new Draft(now, rows(now)), notices);
  }

  /** A table without the checks and defaults that were promised, since they say nothing new. */
  private CatalogTable news(CatalogTable table) {
    Pair pair = pairs.get(table.name());
    if (pair == null) {
      return table;
    }
    Set<String> promised =
        pair.promised().checks().stream()
            .map(check -> rules.stored(check.name()))
            .collect(Collectors.toSet());
    Map<String, Column> columns = new HashMap<>();
    pair.promised().columns().forEach(column -> columns.put(rules.stored(column.name()), column));
    return new CatalogTable(
        table.name(),
        table.columns().stream()
            .map(is -> isPromised(columns.get(is.name()), is) ? withoutDefault(is) : is)
            .map(is -> isComputed(columns.get(is.name()), is) ? filledIn(is) : is)
            .toList(),
        table.primaryKey(),
        table.uniqueKeys(),
        table.foreignKeys(),
        table.checks().stream().filter(check -> !promised.contains(check.name())).toList(),
        table.indexes(),
        table.comment());
  }

  private boolean isPromised(@Nullable Column promised, Column is) {
    return promised != null && TableReconciling.sameDefault(promised, is, answers);
  }

  /** Whether a column is computed as one was promised to be; how, is looked at by itself. */
  private static boolean isComputed(@Nullable Column promised, Column is) {
    return promised != null && promised.generated().isPresent() && is.generated().isPresent();
  }

  private static Column filledIn(Column column) {
    return new Column(
        column.name(),
        column.type(),
        column.required(),
        column.defaultValue(),
        column.counts(),
        column.comment());
  }

  private static Column withoutDefault(Column column) {
    return new Column(
        column.name(),
        column.type(),
        column.required(),
        Optional.empty(),
        column.counts(),
        column.generated(),
        column.comment());
  }

  private Table reconciled(Table raised) {
    Pair pair = pairs.get(raised.name());
    if (pair == null) {
      return design.find(raised.id()).isPresent() ? design.unused(raised) : raised;
    }
    var reconciling =
        new TableReconciling(
            known.meaning().of(pair.table()),
            pair.promised(),
            Objects.requireNonNull(found.get(raised.name())),
            raised,
            dialect,
            answers);
    Table table = reconciling.reconcile();
    notices.addAll(reconciling.notices());
    return table;
  }

  /** Tables of the design in its order, then the others. */
  private List<Table> inOrder() {
    var order = new ArrayList<Table>();
    for (Table table : design.tables()) {
      Optional.ofNullable(tables.get(rules.stored(table.name())))
          .filter(now -> now.id().equals(table.id()))
          .ifPresent(order::add);
    }
    var known = new HashSet<>(order);
    tables.values().stream().filter(table -> !known.contains(table)).forEach(order::add);
    return order;
  }

  private record Ends(TableId child, Map<FieldId, FieldId> fields, TableId parent) {}

  private static Ends ends(Relationship r) {
    Map<FieldId, FieldId> fields = new HashMap<>();
    for (int i = 0; i < r.childFields().size(); i++) {
      fields.put(r.childFields().get(i), r.parentFields().get(i));
    }
    return new Ends(r.child(), fields, r.parent());
  }

  private Relationship reconciled(Design raised, Relationship r) {
    Table child = tableOf(raised, r.child());
    Table parent = tableOf(raised, r.parent());
    Relationship now =
        r.withEnds(
            child.id(),
            ids(raised.table(r.child()), r.childFields(), child),
            parent.id(),
            ids(raised.table(r.parent()), r.parentFields(), parent));
    Ends ends = ends(now);
    Optional<Relationship> same =
        byChild.getOrDefault(child.id(), List.of()).stream()
            .filter(k -> ends(k).equals(ends) && !taken.contains(k.id()))
            .findFirst();
    Relationship result = same.map(k -> withActions(k, now)).orElseGet(() -> design.unused(now));
    taken.add(result.id());
    return result;
  }

  private Table tableOf(Design raised, TableId id) {
    return Objects.requireNonNull(tables.get(raised.table(id).name()));
  }

  private List<FieldId> ids(Table raised, List<FieldId> fields, Table now) {
    return fields.stream()
        .map(field -> rules.stored(raised.field(field).name()))
        .map(
            name ->
                now.fields().stream()
                    .filter(f -> rules.stored(f.name()).equals(name))
                    .map(Field::id)
                    .findFirst()
                    .orElseThrow())
        .toList();
  }

  /**
   * Whether a relationship was not promised, as the engine cannot keep it; its fields are there.
   */
  private boolean isOnlyOurs(Relationship r) {
    Pair child = pairs.get(rules.stored(design.table(r.child()).name()));
    boolean there =
        hasFields(r.child(), r.childFields()) && hasFields(r.parent(), r.parentFields());
    CatalogTable least = withRows.getOrDefault(child.promised().name(), child.promised());
    return there && !taken.contains(r.id()) && promisedOf(r, least).isEmpty();
  }

  private boolean hasFields(TableId id, List<FieldId> fields) {
    Table now = tables.get(rules.stored(design.table(id).name()));
    return now != null && now.id().equals(id) && fields.stream().allMatch(now::hasField);
  }

  /** Foreign keys between the same fields that the engine was promised. */
  private List<ForeignKey> promisedOf(Relationship r, CatalogTable child) {
    List<String> columns = design.table(r.child()).namesOf(r.childFields());
    Table parent = design.table(r.parent());
    return child.foreignKeys().stream()
        .filter(key -> key.columns().equals(columns) && key.parent().equals(parent.name()))
        .filter(key -> key.parentColumns().equals(parent.namesOf(r.parentFields())))
        .toList();
  }

  /** The actions the engine was promised may be others than the design's. */
  private Relationship withActions(Relationship k, Relationship now) {
    CatalogTable promised = pairs.get(rules.stored(design.table(k.child()).name())).promised();
    boolean asPromised =
        promisedOf(k, promised).stream()
            .anyMatch(key -> key.onDelete() == now.onDelete() && key.onUpdate() == now.onUpdate());
    return asPromised ? k : k.withActions(now.onDelete(), now.onUpdate());
  }

  private SampleRows rows(Design now) {
    SampleRows rows = known.rows();
    return new SampleRows(
        kept(rows.byTable(), now, Reconciling::kept), kept(rows.linked(), now, Reconciling::kept));
  }

  /** What is kept of the rows of tables that are still there. */
  private static <T> Map<TableId, T> kept(
      Map<TableId, T> all, Design now, BiFunction<T, Table, T> kept) {
    Map<TableId, T> still = new LinkedHashMap<>();
    all.forEach(
        (id, old) ->
            now.find(id)
                .filter(table -> !table.fields().isEmpty())
                .ifPresent(table -> still.put(id, kept.apply(old, table))));
    return still;
  }

  private static LinkedRows kept(LinkedRows old, Table table) {
    LinkedRows kept = old;
    for (FieldId field : old.fields()) {
      kept = table.hasField(field) ? kept : kept.without(field);
    }
    return kept;
  }

  private static Rows kept(Rows old, Table table) {
    Rows kept = old;
    for (FieldId field : old.fields()) {
      kept = table.hasField(field) ? kept : kept.withoutColumn(field);
    }
    return kept;
  }
}
