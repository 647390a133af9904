package joiner.desktop.shape;

import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import joiner.audit.AuditReport;
import joiner.audit.TableAudit;
import joiner.audit.Violation;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.RowOrder;
import joiner.desktop.work.Verdict;
import joiner.desktop.work.Workbench;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.meaning.ParentRows;
import joiner.meaning.WorkedOut;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Hue;
import joiner.model.Listing.By;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.HeldValues;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;
import joiner.rows.SeenText;
import joiner.source.LinkedFile;

/**
 * The sample rows of a table as they are shown and typed, without a window. Of rows that stay in a
 * file the first are shown, and some that break the design; they cannot be typed in.
 */
final class SampleModel {
  private final Workbench bench;
  private final Texts texts;
  private Optional<TableId> table = Optional.empty();
  private List<Field> fields = List.of();

  /** Those of them that refer to rows, each by itself. */
  private List<FieldId> references = List.of();

  /** How people see the texts of those whose cells they see otherwise. */
  private Map<FieldId, UnaryOperator<String>> seen = Map.of();

  /** What those hold that are worked out. */
  private Optional<WorkedOut> worked = Optional.empty();

  private Rows rows = Rows.NONE;

  /** Of rows in a file, which of them each is, from 1; of others nothing. */
  private List<Integer> numbers = List.of();

  private Optional<LinkedRows> link = Optional.empty();
  private Optional<Integer> revealed = Optional.empty();
  private Optional<Wanted> wanted = Optional.empty();
  private final Computed<Wanted, LinkedFile.Examples> examples;
  private Map<FieldId, Set<Integer>> bad = Map.of();
  private RowOrder order = RowOrder.AS_ENTERED;
  private final Computed<Question, List<Integer>> ordering;
  private final ByField<HeldValues> held;
  private final ByField<ParentRows> parents;
  private final ReadOnlyObjectWrapper<List<Integer>> places =
      new ReadOnlyObjectWrapper<>(List.of());

  /** What to order anew for. */
  private record Question(
      Rows rows,
      List<Field> fields,
      RowOrder order,
      Map<FieldId, ParentRows> parents,
      Optional<WorkedOut> worked) {
    boolean asksTheSame(Question other) {
      return rows == other.rows
          && worked.isEmpty()
          && other.worked.isEmpty()
          && order.equals(other.order)
          && parents.keySet().equals(other.parents.keySet())
          && parents.keySet().stream().allMatch(id -> parents.get(id) == other.parents.get(id));
    }
  }

  /** So many of the first rows of a file are shown. */
  private static final int FIRST = 1_000;

  /** So many rows for each thing that is wrong, and so many in all. */
  private static final int EXAMPLES_EACH = 20;

  private static final int EXAMPLES = 500;

  /**
   * Rows of a file to be shown.
   *
   * @param others rows beside the first, from 1
   * @param audited the audit that named them; a file may be another by the next
   */
  private record Wanted(Table table, LinkedRows link, Set<Integer> others, AuditReport audited) {
    /** Whether it is the very same audit: what it says of another state may be equal. */
    boolean isSame(Wanted other) {
      return table.equals(other.table)
          && link.equals(other.link)
          && others.equals(other.others)
          && audited == other.audited;
    }
  }

  /** How much of what was shown is another now. */
  enum News {
    COLUMNS,
    ROWS,
    CELLS
  }

  SampleModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    this.ordering =
        new Computed<>(
            bench.runner(),
            texts.get("rows.ordering"),
            Lane.WORKING,
            Question::asksTheSame,
            (asked, progress) ->
                asked.order.of(
                    asked.worked.map(by -> by.in(asked.rows)).orElse(asked.rows),
                    asked.fields,
                    asked.parents,
                    () -> !progress.stopped()));
    ordering.answerProperty().subscribe(this::ordered);
    this.held = heldBy(bench, texts);
    held.look(false); // Until somebody wants it.
    this.parents = parentsBy(bench, texts);
    parents.whenKnown(
        () -> {
          if (isOrdered()) {
            order();
          }
        });
    this.examples =
        new Computed<>(
            bench.runner(),
            texts.get("rows.examples"),
            Lane.WORKING,
            Wanted::isSame,
            (wanted, progress) ->
                LinkedFile.of(wanted.table, wanted.link, progress::stopped)
                    .examples(FIRST, wanted.others));
  }

  private static ByField<HeldValues> heldBy(Workbench bench, Texts texts) {
    return new ByField<>(
        bench,
        texts.get("rows.looking"),
        (draft, of, field) ->
            Optional.of(
                field.isComputed()
                    ? List.of(field, new ByField.Same(draft.rows()), ByField.workedOutIn(draft, of))
                    : List.of(field.type(), draft.rows().of(of.id()).identity(field.id()))),
        (input, progress) ->
            HeldValues.of(held(input, bench), input.field(), () -> !progress.stopped()));
  }

  /** The rows a field is looked at in, worked out where it is. */
  private static Rows held(ByField.Input input, Workbench bench) {
    Rows held = input.draft().rows().of(input.table().id());
    return input.field().isComputed()
        ? WorkedOut.of(input.draft(), input.table(), bench.clock()).in(held, input.field().id())
        : held;
  }

  private static ByField<ParentRows> parentsBy(Workbench bench, Texts texts) {
    return new ByField<>(
        bench,
        texts.get("rows.parents"),
        SampleModel::parentsHangOn,
        (input, progress) ->
            ParentRows.of(
                input.draft(),
                reference(input.draft(), input.table(), input.field().id()).orElseThrow(),
                bench.clock()));
  }

  /** The rows that are held and that a field stands for; those in a file are not gone through. */
  private static Optional<Relationship> reference(Draft draft, Table table, FieldId field) {
    return ParentRows.readIn(draft, table.id(), field)
        .filter(up -> draft.rows().link(up.parent()).isEmpty());
  }

  private static Optional<Object> parentsHangOn(Draft draft, Table table, Field field) {
    return reference(draft, table, field.id())
        .map(
            reference -> {
              Table parent = draft.design().table(reference.parent());
              boolean farther =
                  Stream.of(parent.rowLabel(), reference.picking().only())
                      .flatMap(Optional::stream)
                      .anyMatch(Formula::reachesOut);
              Object rows = farther ? draft.rows() : draft.rows().of(parent.id());
              return List.of(
                  reference.childFields(),
                  reference.parentFields(),
                  reference.picking(),
                  new ByField.Same(parent),
                  new ByField.Same(rows));
            });
  }

  /** What fields hold is wanted, or not; told when it is known. */
  void wantHeld(boolean wanted) {
    held.look(wanted);
  }

  /** Told when it is known what rows hold, or what they refer to. */
  void whenKnown(Runnable then) {
    held.whenKnown(then);
    parents.whenKnown(then);
  }

  /** What the cells of a field hold, once that is known; nothing of rows in a file. */
  Optional<HeldValues> held(FieldId field) {
    return link.isPresent() ? Optional.empty() : held.of(field);
  }

  /** The rows a field refers to, once they are known, if it alone refers to a table. */
  Optional<ParentRows> parents(FieldId field) {
    return parents.of(field);
  }

  /** In how many rows a field has something to mend, of those that are named. */
  long badRows(FieldId field) {
    return bad.getOrDefault(field, Set.of()).size();
  }

  /** Told when rows of a file were read. */
  void whenRead(Runnable then) {
    examples.answerProperty().subscribe(answer -> then.run());
  }

  /** The file the rows stay in, if they do. */
  Optional<LinkedRows> link() {
    return link;
  }

  /** How many rows the file has. */
  long countInFile() {
    boolean current = bench.verdict().isCurrent();
    return bench.verdict().audit().tables().stream()
        .filter(audit -> current && table.equals(Optional.of(audit.table())))
        .mapToLong(TableAudit::rows)
        .findFirst()
        .orElseGet(() -> link.map(LinkedRows::count).orElse(0));
  }

  /** Why rows of the file cannot be shown, if so. */
  Optional<String> unread() {
    return link.isPresent() && examples.answer() instanceof Answer.Failed<?>(var failure, var l)
        ? Optional.of(failure.message())
        : Optional.empty();
  }

  /** The number of a row that is shown, from 1. */
  int number(int place) {
    return numbers.isEmpty() ? place + 1 : numbers.get(place);
  }

  /** Where the row of a number, from 0, is shown; one of a file that is not shown is read. */
  OptionalInt placeOf(int row) {
    if (link.isEmpty()) {
      return row < rows.count() ? OptionalInt.of(row) : OptionalInt.empty();
    }
    int place = Collections.binarySearch(numbers, row + 1);
    if (place < 0) {
      revealed = Optional.of(row + 1);
      askForExamples();
      return OptionalInt.empty();
    }
    return OptionalInt.of(place);
  }

  private void askForExamples() {
    Optional<Table> of = shown();
    if (link.isEmpty() || of.isEmpty()) {
      return;
    }
    boolean current = bench.verdict().isCurrent();
    Set<Integer> others = new TreeSet<>();
    if (current) {
      bench
          .verdict()
          .audit()
          .violations()
          .filter(violation -> table.equals(Optional.of(violation.table())))
          .flatMap(violation -> violation.rows().stream().limit(EXAMPLES_EACH))
          .limit(EXAMPLES)
          .forEach(others::add);
    }
    revealed.ifPresent(others::add);
    var now =
        new Wanted(
            of.get(), link.get(), others, current ? bench.verdict().audit() : Verdict.NONE.audit());
    if (wanted.filter(now::isSame).isEmpty()) { // What failed is not tried again by itself.
      wanted = Optional.of(now);
      examples.ask(now);
    }
  }

  /** Places of the rows that are shown, from 0, in their order. */
  ReadOnlyObjectProperty<List<Integer>> placesProperty() {
    return places.getReadOnlyProperty();
  }

  /** Whether some rows are not shown, or not in the order in which they were entered. */
  boolean isOrdered() {
    return !order.equals(RowOrder.AS_ENTERED);
  }

  /** Shows the rows that hold all words of a text. */
  void filter(String text) {
    order(order.withFilter(text));
  }

  /** Shows the rows in the order of fields. */
  void sort(List<By> sorts) {
    order(order.withSorts(sorts));
  }

  private void order(RowOrder other) {
    if (!other.equals(order)) {
      order = other;
      order();
    }
  }

  /** Cells that are typed in move no row: one looks for it where it was. */
  private void order() {
    if (isOrdered()) {
      ordering.ask(new Question(rows, fields, order, knownParents(), workedApart()));
    } else {
      places.set(IntStream.range(0, rows.count()).boxed().toList());
    }
  }

  /** The same for another thread. */
  private Optional<WorkedOut> workedApart() {
    return worked.isEmpty()
        ? worked
        : shown().map(of -> WorkedOut.of(bench.draft(), of, bench.clock()));
  }

  private Map<FieldId, ParentRows> knownParents() {
    Map<FieldId, ParentRows> known = new HashMap<>();
    fields.forEach(field -> parents(field.id()).ifPresent(of -> known.put(field.id(), of)));
    return known;
  }

  private void ordered(Answer<List<Integer>> answer) {
    if (isOrdered() && answer instanceof Answer.Current<List<Integer>>(var found)) {
      places.set(found.stream().filter(place -> place < rows.count()).toList());
    }
  }

  /** Turns to the rows of a table as they are now; says what is to be shown anew at least. */
  News turnTo(Table shown) {
    boolean sameTable = table.equals(Optional.of(shown.id()));
    if (!sameTable) {
      revealed = Optional.empty();
    }
    Rows next = next(shown, sameTable);
    bad = badCells(shown.id());
    List<FieldId> refer = referring(shown);
    boolean sameColumns = sameTable && shown.fields().equals(fields) && refer.equals(references);
    references = refer;
    boolean sameRows = sameTable && next.count() == rows.count();
    if (!sameTable) {
      order = RowOrder.AS_ENTERED;
    }
    table = Optional.of(shown.id());
    fields = shown.fields();
    seen = SeenText.of(fields);
    worked =
        fields.stream().anyMatch(Field::isComputed)
            ? Optional.of(WorkedOut.of(bench.draft(), shown, bench.clock()))
            : Optional.empty();
    rows = next;
    if (!sameRows) {
      order();
    }
    held.turnTo(shown);
    parents.turnTo(shown);
    if (!sameColumns) {
      return News.COLUMNS;
    }
    return sameRows ? News.CELLS : News.ROWS;
  }

  /** The rows to show now; of a file those that were read, while others are. */
  private Rows next(Table shown, boolean sameTable) {
    Optional<LinkedRows> before = link;
    link = bench.draft().rows().link(shown.id());
    if (link.isEmpty()) {
      numbers = List.of();
      wanted = Optional.empty();
      return bench.draft().rows().of(shown.id());
    }
    table = Optional.of(shown.id());
    askForExamples();
    if (examples.answer() instanceof Answer.Current<LinkedFile.Examples>(var read)) {
      numbers = read.numbers();
      return read.rows();
    }
    boolean sameFile = sameTable && before.map(LinkedRows::file).equals(link.map(LinkedRows::file));
    if (sameFile && examples.answer() instanceof Answer.Underway) {
      return rows;
    }
    numbers = List.of();
    return Rows.NONE;
  }

  private Map<FieldId, Set<Integer>> badCells(TableId shown) {
    Map<FieldId, Set<Integer>> cells = new HashMap<>();
    bench
        .verdict()
        .audit()
        .violations()
        .filter(violation -> violation.table().equals(shown))
        .forEach(violation -> add(violation, cells));
    return cells;
  }

  private static void add(Violation violation, Map<FieldId, Set<Integer>> cells) {
    for (FieldId field : violation.fields()) {
      Set<Integer> numbers = cells.computeIfAbsent(field, id -> new HashSet<>());
      violation.rows().forEach(row -> numbers.add(row - 1));
    }
  }

  /** Whether it is turned to that table already. */
  boolean isOf(Table other) {
    return table.equals(Optional.of(other.id()));
  }

  List<Field> fields() {
    return fields;
  }

  int count() {
    return rows.count();
  }

  private List<FieldId> referring(Table shown) {
    return shown.fieldIds().stream()
        .filter(id -> reference(bench.draft(), shown, id).isPresent())
        .toList();
  }

  /** Whether a field refers to rows that can be picked. */
  boolean isReference(FieldId field) {
    return references.contains(field);
  }

  /** Whether there is a row at that place, from 0. */
  boolean has(int row) {
    return row < rows.count();
  }

  /** A cell as people read it: of a row that is referred to its label; rows from 0. */
  String shown(int row, FieldId field) {
    String text = cell(row, field);
    return text.isEmpty()
        ? text
        : parents(field)
            .flatMap(p -> p.find(rows, row))
            .map(ParentRows.Parent::label)
            .orElseGet(() -> typed(row, field));
  }

  /** The key of the row that a row refers to by a field, or what the cell holds. */
  String key(int row, FieldId field) {
    return parents(field)
        .flatMap(p -> p.find(rows, row))
        .map(ParentRows.Parent::key)
        .orElseGet(() -> cell(row, field));
  }

  /** A cell as people type it; rows from 0. */
  String typed(int row, FieldId field) {
    String text = cell(row, field);
    return text.isEmpty() || !seen.containsKey(field) ? text : seen.get(field).apply(text);
  }

  /** The text of a cell, rows from 0; empty for NULL. */
  String cell(int row, FieldId field) {
    return isComputed(field)
        ? worked.flatMap(of -> of.cell(rows, row, field)).orElse("")
        : rows.cell(row, field).orElse("");
  }

  /** Whether a field is worked out, so that nobody types it. */
  boolean isComputed(FieldId field) {
    return worked.isPresent()
        && fields.stream().anyMatch(f -> f.id().equals(field) && f.isComputed());
  }

  /** What marks the choice that a cell holds for the eye. */
  Optional<Hue> hue(int row, Field field) {
    return field.type() instanceof FieldType.Choice choice
        ? choice.find(cell(row, field.id())).flatMap(FieldType.Choice.Entry::hue)
        : Optional.empty();
  }

  /** Whether a cell breaks the design. */
  boolean isBad(int row, FieldId field) {
    return bad.getOrDefault(field, Set.of()).contains(number(row) - 1);
  }

  /** The first row, from 0, with something to mend in a field. */
  OptionalInt firstBad(FieldId field) {
    return bad.getOrDefault(field, Set.of()).stream().mapToInt(row -> row).min();
  }

  /** How many cells break the design, of those that are named. */
  int badCells() {
    return bad.values().stream().mapToInt(Set::size).sum();
  }

  /** How many rows break the design, those that are not named too. */
  long offending() {
    return bench
        .verdict()
        .audit()
        .violations()
        .filter(violation -> table.equals(Optional.of(violation.table())))
        .mapToLong(Violation::count)
        .sum();
  }

  /** What is done with the rows. */
  RowEdits edits() {
    return new RowEdits(bench, this, texts);
  }

  /** What is done with cells that hold whole files. */
  FileCells files() {
    return new FileCells(bench, this, texts);
  }

  /** The rows as they are seen. */
  Rows rows() {
    return rows;
  }

  /** The table whose rows are seen. */
  Optional<Table> shown() {
    return table.flatMap(bench.design()::find);
  }
}
