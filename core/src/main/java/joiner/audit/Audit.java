package joiner.audit;

import java.io.IOException;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Reference;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.Summed;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.FiledRows;
import joiner.rows.RowSource;
import joiner.rows.Rows;
import joiner.rows.SampleRows;

/**
 * Checks rows against their design, in one pass over each table, parents first. Keys and references
 * follow ISO/IEC 9075-2: a unique key ignores rows with an empty part, references are MATCH SIMPLE
 * (a row with an empty part of the foreign key passes), a rule is broken only when it is false. A
 * row that must have a child is asked for one when all children went by. Expected time is linear in
 * the cells of the constraints that are not known to hold as before.
 */
public final class Audit {
  /** Beyond so many bytes the keys of rows in memory go to files too. */
  private static final long KEYS_IN_MEMORY = 1L << 30;

  private final Draft draft;
  private final Design design;
  private final Clock clock;
  private final KnownAudit known;
  private final AuditRows rows;
  private final FormulaRows typed;
  private final Memory memory;
  private final Map<TableId, TablePass> passes = new LinkedHashMap<>();
  private final Map<KeyOf, Keys> keys = new HashMap<>();
  private final List<Keys> allKeys = new ArrayList<>();
  private final Map<TableId, List<Part>> parts = new HashMap<>();
  private final Map<TableId, List<Relationship>> byChild;
  private final Map<TableId, List<Relationship>> byParent;

  /** Why rows of tables could not be read. */
  private final Map<TableId, IOException> unread = new LinkedHashMap<>();

  /** What was found in tables that are through. */
  private final Map<TableId, TableAudit> through = new HashMap<>();

  /** Which constraint of a table something is known about. */
  private record Which(TableId table, String sort, Object what) {}

  /** Some fields of a table, whose keys are put together. */
  private record KeyOf(TableId table, List<FieldId> fields) {}

  /** A constraint with what it gives, once all rows went by. */
  private record Part(Which which, List<Object> inputs, Supplier<KnownAudit.Found> found) {}

  private Audit(Draft draft, Clock clock, KnownAudit known, AuditRows rows, Memory memory) {
    this.draft = draft;
    this.design = draft.design();
    this.clock = clock;
    this.known = known;
    this.rows = rows;
    this.memory = memory;
    this.typed = new FormulaRows(draft, clock);
    this.byChild =
        design.relationships().stream().collect(Collectors.groupingBy(Relationship::child));
    this.byParent =
        design.relationships().stream().collect(Collectors.groupingBy(Relationship::parent));
  }

  /** Audits all tables; rules that read the clock use that one. */
  public static AuditReport of(Draft draft, Clock clock) {
    return of(draft, clock, () -> false);
  }

  /**
   * Audits all tables until {@code cancelled} says stop; then the report covers the tables done.
   */
  public static AuditReport of(Draft draft, Clock clock, BooleanSupplier cancelled) {
    return of(draft, clock, new KnownAudit(), cancelled);
  }

  /**
   * The same, taking over what is known of constraints that nothing has changed for since; so the
   * time after a change depends only on what it touches.
   */
  public static AuditReport of(
      Draft draft, Clock clock, KnownAudit known, BooleanSupplier cancelled) {
    return of(draft, Map.of(), clock, known, (table, rows) -> !cancelled.getAsBoolean());
  }

  /**
   * The same for a draft some of whose rows stay in files. A file that cannot be read keeps nothing
   * else from being looked at.
   *
   * @param files the rows of each table that stay in one
   * @param watch is told how far it is, and may end it
   */
  public static AuditReport of(
      Draft draft,
      Map<TableId, ? extends FiledRows> files,
      Clock clock,
      KnownAudit known,
      Watch watch) {
    Map<TableId, IOException> unread = new LinkedHashMap<>();
    draft
        .rows()
        .linked()
        .forEach(
            (table, link) -> {
              if (!files.containsKey(table)) {
                unread.put(
                    table,
                    new IOException(
                        "Its rows stay in " + link.fileName() + "; they were not read."));
              }
            });
    Draft read;
    try {
      read = holding(draft, files, unread, watch);
    } catch (CancellationException stopped) {
      return new AuditReport(List.of());
    }
    var held = new AuditRows.InMemory(read, watch);
    AuditRows rows = files.isEmpty() ? held : new AuditRows.Mixed(held, files, known, watch);
    var audit = new Audit(read, clock, known, rows, new Memory(KEYS_IN_MEMORY));
    audit.unread.putAll(unread);
    return audit.run();
  }

  /** The same with so much memory for keys. */
  static AuditReport of(Draft draft, Clock clock, long keysInMemory) {
    AuditRows rows = new AuditRows.InMemory(draft, (table, row) -> true);
    return new Audit(draft, clock, new KnownAudit(), rows, new Memory(keysInMemory)).run();
  }

  /**
   * Audits rows wherever they are, gone through once, with memory that does not grow with them but
   * for those that rules of other tables read ({@link #readByOthers(Draft)}).
   *
   * @param draft the design; its own rows are not looked at
   * @param sources the rows of each table; tables without one have none
   * @param keysInMemory bytes that keys may take; what goes beyond goes to files while it lasts
   * @param watch is told how far it is, and may end it
   * @throws IOException if rows cannot be read
   */
  public static AuditReport of(
      Draft draft, Map<TableId, RowSource> sources, Clock clock, long keysInMemory, Watch watch)
      throws IOException {
    AuditRows rows = new AuditRows.Streamed(sources, watch);
    Map<TableId, IOException> unread = new LinkedHashMap<>();
    Draft read;
    try {
      read = holding(draft.withRows(SampleRows.NONE), sources, unread, watch);
    } catch (CancellationException stopped) {
      return new AuditReport(List.of());
    }
    throwFirst(unread);
    var audit = new Audit(read, clock, new KnownAudit(), rows, new Memory(keysInMemory));
    AuditReport report = audit.run();
    throwFirst(audit.unread);
    return report;
  }

  /** The tables that rules of other tables read; their rows are held while an audit lasts. */
  public static Set<TableId> readByOthers(Draft draft) {
    Set<TableId> read = new LinkedHashSet<>();
    for (Table table : draft.design().tables()) {
      formulas(draft.meaning().of(table))
          .forEach(formula -> read.addAll(reached(draft.design(), formula)));
    }
    return read;
  }

  /**
   * A draft that holds the rows which rules of other tables read.
   *
   * @param unread gets why rows could not be read
   * @throws CancellationException if the watch ends it meanwhile
   */
  private static Draft holding(
      Draft draft,
      Map<TableId, ? extends RowSource> sources,
      Map<TableId, IOException> unread,
      Watch watch) {
    SampleRows rows = draft.rows();
    for (TableId table : readByOthers(draft)) {
      if (sources.containsKey(table)) {
        try {
          var source = new WatchedRows(sources.get(table), table, watch);
          Rows read = Rows.of(draft.design().table(table).fieldIds(), source);
          rows = rows.without(table).with(table, none -> read);
        } catch (IOException e) {
          unread.put(table, e);
        }
      }
    }
    return draft.withRows(rows);
  }

  private static void throwFirst(Map<TableId, IOException> unread) throws IOException {
    for (IOException failure : unread.values()) {
      throw failure;
    }
  }

  /** What the rows of a table are asked that may read others. */
  private static Stream<Checked> formulas(TableMeaning meaning) {
    return Stream.concat(
        meaning.ruled().stream().flatMap(ruled -> ruled.formula().stream()),
        meaning.table().fields().stream().flatMap(f -> meaning.computed(f.id()).stream()));
  }

  private static List<TableId> reached(Design design, Checked formula) {
    return formula instanceof Checked.Sound sound
        ? sound.reads().stream().flatMap(read -> reached(design, read)).toList()
        : List.of();
  }

  private static Stream<TableId> reached(Design design, Reference read) {
    return switch (read) {
      case FarField far -> far.over().stream().map(over -> design.relationship(over).parent());
      case Summed summed ->
          Stream.concat(
              Stream.concat(
                  summed.over().stream().map(over -> design.relationship(over).parent()),
                  Stream.of(design.relationship(summed.children()).child())),
              summed.parts().stream()
                  .flatMap(part -> part.reads().stream())
                  .flatMap(part -> reached(design, part)));
      default -> Stream.empty();
    };
  }

  /** Watches an audit. */
  public interface Watch {
    /**
     * Told every few thousand rows.
     *
     * @return whether it is to go on
     */
    boolean goesOn(TableId table, long rows);

    /** Told what was found in a table as soon as its rows and those of its parents went by. */
    default void found(TableAudit table) {}
  }

  private AuditReport run() {
    boolean whole = false;
    try {
      boolean toTheEnd = goThrough();
      whole = toTheEnd && unread.isEmpty();
      return report(toTheEnd);
    } finally {
      passes.values().forEach(TablePass::close);
      allKeys.forEach(Keys::close);
      known.end(whole);
    }
  }

  /** Lets all rows go by that there is something to look at for; false if it was ended before. */
  private boolean goThrough() {
    try {
      List<Table> order = new ParentsFirst(design, byChild).tables();
      order.forEach(table -> passes.put(table.id(), begun(table)));
      order.forEach(this::lookAt);
      for (Map.Entry<TableId, TablePass> pass : passes.entrySet()) {
        go(pass.getKey(), pass.getValue());
        tell(pass.getKey());
      }
      return true;
    } catch (CancellationException stopped) {
      return false;
    }
  }

  /** Whether each parent row of a relationship must have a child row. */
  private List<Relationship> mustHaveChild(TableId parent) {
    return byParent.getOrDefault(parent, List.of()).stream()
        .filter(Relationship::parentNeedsChild)
        .toList();
  }

  private TablePass pass(TableId table) {
    return Objects.requireNonNull(passes.get(table));
  }

  /** Tells the pass over a table what there is to look at that is not known. */
  private void lookAt(Table table) {
    TableMeaning meaning = draft.meaning().of(table);
    TablePass pass = pass(table.id());
    var all = new ArrayList<Part>();
    table.fields().forEach(field -> all.add(cells(pass, table, field)));
    meaning.keys().forEach(key -> all.add(key(pass, table, key)));
    for (Relationship relationship : byChild.getOrDefault(table.id(), List.of())) {
      all.add(reference(pass, table, relationship));
    }
    mustHaveChild(table.id()).forEach(r -> all.add(children(pass, table, r)));
    meaning.ruled().forEach(rule -> all.add(rule(pass, table, rule)));
    parts.put(table.id(), all);
  }

  private TablePass begun(Table table) {
    return new TablePass(
        draft.meaning().of(table),
        typed,
        clock,
        rows.mostNamed(table.id()),
        rows.batchRows(table.id()));
  }

  private Part part(Which which, List<Object> inputs, Supplier<Supplier<KnownAudit.Found>> work) {
    return known
        .find(which, inputs)
        .map(found -> new Part(which, inputs, () -> found))
        .orElseGet(() -> new Part(which, inputs, work.get()));
  }

  private Part cells(TablePass pass, Table table, Field field) {
    var which = new Which(table.id(), "cells", field.id());
    if (draft.meaning().of(table).computed(field.id()).stream()
        .anyMatch(Checked.Faulty.class::isInstance)) {
      return new Part(which, List.of(field), () -> KnownAudit.Found.NOTHING); // It is a finding.
    }
    List<Object> inputs = columns(table, List.of(field.id()));
    inputs.add(table.isRequired(field.id()));
    inputs.add(table.id());
    return part(
        which,
        inputs,
        () -> {
          List<CellCheck> checks = pass.checkCells(field);
          return () ->
              new KnownAudit.Found(
                  Stream.concat(
                          pass.foundWorked(field.id()).stream(),
                          checks.stream().flatMap(check -> check.violation().stream()))
                      .toList(),
                  checks.stream().flatMap(check -> check.hints().stream()).toList());
        });
  }

  private Part key(TablePass pass, Table table, Constraint.Unique key) {
    List<Object> inputs = columns(table, key.fields());
    inputs.add(key);
    return part(
        new Which(table.id(), "key", key.name()),
        inputs,
        () -> {
          Keys own = keysOf(table, key.fields());
          keys.put(new KeyOf(table.id(), key.fields()), own);
          return pass.putKeys(key.fields(), own, Optional.of(key))::found;
        });
  }

  /** Keys are numbers where all who compare them have them as such numbers. */
  private Keys keysOf(Table table, List<FieldId> fields) {
    Optional<LongForm> form = form(table, fields);
    Stream<Optional<LongForm>> others =
        Stream.concat(
            byParent.getOrDefault(table.id(), List.of()).stream()
                .filter(r -> r.parentFields().equals(fields))
                .map(r -> form(design.table(r.child()), r.childFields())),
            byChild.getOrDefault(table.id(), List.of()).stream()
                .filter(r -> r.parentNeedsChild() && r.childFields().equals(fields))
                .map(r -> form(design.table(r.parent()), r.parentFields())));
    boolean isNumber =
        form.isPresent()
            && others.allMatch(other -> other.filter(form.get()::isComparable).isPresent());
    var made = new Keys(memory, isNumber ? form : Optional.empty());
    allKeys.add(made);
    return made;
  }

  private static Optional<LongForm> form(Table table, List<FieldId> fields) {
    return fields.size() == 1
        ? LongForm.of(table.field(fields.getFirst()).type())
        : Optional.empty();
  }

  private Part reference(TablePass pass, Table child, Relationship relationship) {
    Table parent = design.table(relationship.parent());
    List<Object> inputs = linked(relationship.id());
    inputs.add(parent.noun());
    return part(
        new Which(child.id(), "reference", relationship.id()),
        inputs,
        () -> {
          Keys parents = keysPut(parent, relationship.parentFields());
          return pass.checkReference(relationship, parent, parents)::found;
        });
  }

  private Part children(TablePass pass, Table parent, Relationship relationship) {
    Table child = design.table(relationship.child());
    List<Object> inputs = linked(relationship.id());
    inputs.add(child.noun());
    inputs.add(parent.noun());
    inputs.add(child.isUnique(relationship.childFields()));
    return part(
        new Which(parent.id(), "children", relationship.id()),
        inputs,
        () -> {
          Keys children = keysPut(child, relationship.childFields());
          return pass.checkChildren(relationship, child, children)::found;
        });
  }

  /** The keys of a table in some fields, which are put when its rows go by. */
  private Keys keysPut(Table table, List<FieldId> fields) {
    return keys.computeIfAbsent(
        new KeyOf(table.id(), fields),
        of -> {
          Keys made = keysOf(table, fields);
          pass(table.id()).putKeys(fields, made, Optional.empty());
          return made;
        });
  }

  private Part rule(TablePass pass, Table table, Constraint.Ruled ruled) {
    Rule rule = ruled.rule();
    var which = new Which(table.id(), "rule", rule.id());
    if (ruled.fault().isPresent() || ruled instanceof Constraint.Stays) {
      // What cannot be read is a finding of the design, what is about changes no row breaks.
      return new Part(which, List.of(rule), () -> KnownAudit.Found.NOTHING);
    }
    List<Object> inputs = columns(table, ruled.fields());
    inputs.add(rule);
    inputs.add(rows.count(table.id()));
    ruled.formula().ifPresent(formula -> inputs.addAll(read(table, formula)));
    if (ruled instanceof Constraint.Tree tree) {
      inputs.addAll(linked(tree.over().id()));
    }
    return part(which, inputs, () -> looking(pass, ruled));
  }

  private static Supplier<KnownAudit.Found> looking(TablePass pass, Constraint.Ruled ruled) {
    return ruled instanceof Constraint.Holds holds
            && holds.condition() instanceof Checked.Sound sound
        ? pass.checkRule(holds, sound)::found
        : pass.checkTogether(ruled).orElseThrow()::found;
  }

  /** Fields and the identity of their columns. */
  private List<Object> columns(Table table, List<FieldId> fields) {
    var inputs = new ArrayList<Object>();
    for (FieldId field : fields) {
      inputs.add(table.field(field));
      inputs.add(rows.identity(table.id(), field));
      draft.meaning().of(table).computed(field).ifPresent(by -> inputs.addAll(read(table, by)));
    }
    return inputs;
  }

  /** What the values of a computed field hang on. */
  private List<Object> read(Table table, Checked by) {
    var inputs = new ArrayList<Object>();
    if (by instanceof Checked.Sound sound) {
      inputs.add(sound.tree());
      inputs.addAll(columns(table, TableMeaning.fieldsOf(sound)));
      sound.reads().forEach(reference -> inputs.addAll(far(reference)));
      inputs.add(rows.count(table.id()));
      inputs.add(sound.readsClock() ? LocalDate.now(clock) : "no clock");
    }
    return inputs;
  }

  /** What a formula's value hangs on beyond the table's own columns. */
  private List<Object> far(Reference reference) {
    var inputs = new ArrayList<Object>();
    switch (reference) {
      case FarField far -> {
        far.over().forEach(id -> inputs.addAll(linked(id)));
        inputs.addAll(columns(far.table(design), List.of(far.field())));
      }
      case Summed summed -> {
        summed.over().forEach(id -> inputs.addAll(linked(id)));
        inputs.addAll(linked(summed.children()));
        Table child = design.table(design.relationship(summed.children()).child());
        inputs.add(rows.count(child.id()));
        for (Expression part : summed.parts()) {
          inputs.addAll(read(child, new Checked.Sound(part, summed.type())));
        }
      }
      default -> {}
    }
    return inputs;
  }

  /** A relationship with the fields by which its rows find each other. */
  private List<Object> linked(RelationshipId id) {
    Relationship relationship = design.relationship(id);
    var inputs = new ArrayList<Object>(List.of(relationship));
    inputs.addAll(columns(design.table(relationship.child()), relationship.childFields()));
    inputs.addAll(columns(design.table(relationship.parent()), relationship.parentFields()));
    return inputs;
  }

  private void go(TableId table, TablePass pass) {
    if (pass.isWanted() || !rows.isCounted(table)) {
      try {
        rows.go(design.table(table), pass);
      } catch (IOException e) {
        unread.put(table, e);
      }
    }
    pass.end();
  }

  /** Tells of tables of which all is known now that one more went by: itself and its kin. */
  private void tell(TableId wentBy) {
    var now = new LinkedHashSet<TableId>(List.of(wentBy));
    byParent.getOrDefault(wentBy, List.of()).forEach(r -> now.add(r.child()));
    byChild.getOrDefault(wentBy, List.of()).forEach(r -> now.add(r.parent()));
    for (TableId id : now) {
      if (isThrough(design.table(id))) {
        through(design.table(id));
      }
    }
  }

  private boolean isThrough(Table table) {
    return !hangsOnUnread(table)
        && rows.wentBy(table.id())
        && parts.containsKey(table.id())
        && asked(table).allMatch(rows::wentBy);
  }

  /** The other tables whose keys a table's rows are compared with. */
  private Stream<TableId> asked(Table table) {
    return Stream.concat(
        byChild.getOrDefault(table.id(), List.of()).stream().map(Relationship::parent),
        mustHaveChild(table.id()).stream().map(Relationship::child));
  }

  /** Whether rows of a table were not read, or of one it is compared with or reads. */
  private boolean hangsOnUnread(Table table) {
    return !unread.isEmpty()
        && (unread.containsKey(table.id())
            || asked(table).anyMatch(unread::containsKey)
            || formulas(draft.meaning().of(table))
                .flatMap(formula -> reached(design, formula).stream())
                .anyMatch(unread::containsKey));
  }

  /** What was found in a table, told once. */
  private TableAudit through(Table table) {
    return through.computeIfAbsent(
        table.id(),
        id -> {
          TableAudit found = report(table);
          rows.found(found);
          return found;
        });
  }

  /** Of an audit that was ended, what is told for sure: tables whose rows and parents went by. */
  private AuditReport report(boolean whole) {
    return new AuditReport(
        design.tables().stream()
            .filter(table -> whole ? !hangsOnUnread(table) : isThrough(table))
            .map(this::through)
            .toList(),
        unread.entrySet().stream()
            .map(e -> new AuditReport.Unread(e.getKey(), message(e.getValue())))
            .toList());
  }

  private static String message(IOException e) {
    return Objects.requireNonNullElse(e.getMessage(), e.toString());
  }

  private TableAudit report(Table table) {
    int count = rows.count(table.id());
    var violations = new ArrayList<Violation>();
    var hints = new ArrayList<Hint>();
    for (Part part : parts.getOrDefault(table.id(), List.of())) {
      KnownAudit.Found found = part.found.get();
      known.keep(part.which, part.inputs, found);
      violations.addAll(found.violations());
      hints.addAll(found.hints());
    }
    return new TableAudit(table.id(), count, violations, hints);
  }
}
