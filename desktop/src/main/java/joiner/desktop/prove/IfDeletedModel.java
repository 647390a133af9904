package joiner.desktop.prove;

import java.time.Clock;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyObjectProperty;
import joiner.database.LiveReach;
import joiner.database.TargetRefusedException;
import joiner.deletion.Chain;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Progress;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeRelationship;
import joiner.edit.Edit;
import joiner.edit.HandOver;
import joiner.expression.Formula;
import joiner.meaning.Completions;
import joiner.meaning.Draft;
import joiner.model.Noun;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.rows.RowId;
import joiner.rows.Rows;

/** What the face If deleted is about, without a window: what a delete of some rows would do. */
final class IfDeletedModel {
  /** Of so many rows the worst is looked for. */
  static final int MOST_LOOKED = 2_000;

  private final Workbench bench;
  private final Texts texts;
  private final Computed<Input, Told> told;
  private Optional<TableId> table = Optional.empty();
  private Set<RowId> chosen = Set.of();

  /**
   * Which rows of a draft; none chosen stands for the one that does most.
   *
   * @param where a condition on the rows that are read of a database; blank: the first ones
   */
  record Input(Draft draft, TableId table, Set<RowId> chosen, RowsOf of, String where) {
    boolean isAs(Input other) {
      return reads(other) && chosen.equals(other.chosen);
    }

    /** Whether it is worked out among the same rows. */
    private boolean reads(Input other) {
      return draft == other.draft
          && table.equals(other.table)
          && of.equals(other.of)
          && where.equals(other.where);
    }
  }

  /** The rows among which it is worked out; of a database only what can be reached. */
  record Among(Draft draft, int first, boolean all) {}

  /** What was last read of a database, so that another choice among the same rows is quick. */
  private record Read(Input input, Among among) {}

  private final AtomicReference<Optional<Read>> read = new AtomicReference<>(Optional.empty());
  private final OnBench onBench;
  private RowsOf of = RowsOf.SAMPLES;
  private String where = "";

  /**
   * What comes of it.
   *
   * @param draft the design with the rows it was worked out among
   * @param of whose rows these are
   * @param part whether the table has rows beyond those that can be chosen
   * @param suppose the rows that would be deleted, by their places
   * @param any whether they were not chosen but found to do most
   * @param rows the rows of the table that can be chosen, by what people call them
   * @param deletion the edit that deletes them; empty where every engine refuses
   */
  record Told(
      Draft draft,
      RowsOf of,
      boolean part,
      Table table,
      BitSet suppose,
      boolean any,
      Chain chain,
      List<Line> lines,
      List<Row> rows,
      Optional<Edit> deletion,
      List<Instead> instead) {
    /** What the rows are called together. */
    String what() {
      return lines.isEmpty() ? "" : lines.getFirst().example();
    }
  }

  /** A row by what people call it. */
  record Row(RowId id, String label) {}

  /**
   * A step as people read it.
   *
   * @param happens what becomes of the rows
   * @param because why
   */
  record Line(
      int depth,
      String table,
      Noun noun,
      int rows,
      Chain.Fate fate,
      String happens,
      String because,
      String example,
      Optional<Relationship> by) {}

  /** Another way, as an edit; rows that are handed over need somebody who takes them. */
  sealed interface Instead {
    String words();

    /** Something that is done at once. */
    record Now(String words, Edit edit) implements Instead {}

    /** Rows that go to another row of the table. */
    record To(String words, Relationship over, Set<RowId> rows) implements Instead {}
  }

  IfDeletedModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    this.onBench = new OnBench(bench);
    Clock clock = bench.clock();
    this.told =
        new Computed<>(
            bench.runner(),
            texts.get("deleted.working"),
            Lane.WORKING,
            Input::isAs,
            (input, progress) ->
                new IfDeletedTelling(input, among(input, clock, progress), clock, texts).told());
  }

  private Among among(Input input, Clock clock, Progress progress) throws TargetRefusedException {
    if (!(input.of instanceof RowsOf.Live live)) {
      return new Among(input.draft, input.draft.rows().of(input.table).count(), true);
    }
    Optional<Read> known = read.get().filter(r -> r.input.reads(input));
    if (known.isPresent()) {
      return known.get().among;
    }
    LiveReach reach =
        LiveReach.of(
            input.draft,
            live.at(),
            input.table,
            Formula.unlessBlank(input.where),
            MOST_LOOKED,
            clock,
            (done, total, doing) -> {
              progress.doing(doing);
              return !progress.stopped();
            });
    var among = new Among(reach.draft(), reach.first(), reach.all());
    read.set(Optional.of(new Read(input, among)));
    return among;
  }

  /** Looks at the rows of that from now on; a database is read anew. */
  void from(RowsOf other) {
    of = other;
    chosen = Set.of();
    read.set(Optional.empty());
    refresh();
  }

  /** Reads only rows of the table there that meet a condition; a blank one is met by all. */
  void where(String condition) {
    if (!condition.strip().equals(where)) {
      where = condition.strip();
      chosen = Set.of();
      refresh();
    }
  }

  /** Whether rows of a database are looked at. */
  boolean isLive() {
    return of instanceof RowsOf.Live;
  }

  List<Completions.Completion> completions(String text, int caret) {
    return table()
        .map(t -> Completions.of(bench.draft().meaning().of(t).scope(), text, caret))
        .orElse(List.of());
  }

  ReadOnlyObjectProperty<Answer<Told>> toldProperty() {
    return told.answerProperty();
  }

  /** What is known, true now. */
  Optional<Told> told() {
    return told.answer()
        .current()
        .filter(t -> t.draft.design() == bench.design() && t.of.equals(of))
        .filter(t -> t.of instanceof RowsOf.Live || t.draft == bench.draft());
  }

  void look(boolean now) {
    told.look(now);
  }

  /** Works it out for the table that is chosen everywhere, or the one looked at before. */
  void refresh() {
    if (onBench.isOther()) {
      of = RowsOf.SAMPLES;
      where = "";
      chosen = Set.of();
      read.set(Optional.empty());
    }
    Optional<TableId> now = bench.table().map(Table::id);
    if (now.isPresent() && !now.equals(table)) {
      table = now;
      chosen = Set.of();
      where = ""; // It was on fields of the other table.
    }
    table = table.filter(t -> bench.design().find(t).isPresent());
    if (table.isEmpty()) {
      table = bench.design().tables().stream().findFirst().map(Table::id);
      chosen = Set.of();
    }
    if (table.isPresent()) {
      if (of instanceof RowsOf.Samples) {
        Rows rows = bench.draft().rows().of(table.get());
        chosen =
            chosen.stream()
                .filter(id -> rows.place(id).isPresent())
                .collect(Collectors.toCollection(LinkedHashSet::new));
      }
      told.ask(new Input(bench.draft(), table.get(), Set.copyOf(chosen), of, where));
    }
  }

  /** Whose rows are looked at. */
  RowsOf rowsOf() {
    return of;
  }

  /** What rows of a database must meet to be read. */
  String where() {
    return where;
  }

  /** The table whose rows would be deleted. */
  Optional<Table> table() {
    return table.flatMap(bench.design()::find);
  }

  List<Table> tables() {
    return List.copyOf(bench.design().tables());
  }

  /** Looks at another table. */
  void choose(Table other) {
    bench.selectionProperty().set(Selection.of(other.id()));
  }

  /** Supposes that one row more would be deleted. */
  void add(Row row) {
    chosen =
        Stream.concat(chosen.stream(), Stream.of(row.id()))
            .collect(Collectors.toCollection(LinkedHashSet::new));
    refresh();
  }

  /** Supposes that one row alone would be deleted. */
  void only(Row row) {
    refresh();
    chosen = Set.of(row.id());
    refresh();
  }

  /** Supposes that one row less would be deleted. */
  void remove(RowId row) {
    chosen = chosen.stream().filter(id -> !id.equals(row)).collect(Collectors.toSet());
    refresh();
  }

  /** The rows that were chosen, by what people call them. */
  List<Row> chosen() {
    return told().stream()
        .flatMap(t -> t.rows.stream())
        .filter(row -> chosen.contains(row.id()))
        .toList();
  }

  /** The rows that can be chosen. */
  Offers<Row> rows() {
    List<Row> all = told().map(Told::rows).orElse(List.of());
    return Offers.among(
        all.stream().filter(row -> !chosen.contains(row.id())).toList(), Row::label);
  }

  /** Rows of the table that would take others over. */
  Offers<Row> takers(Told of) {
    return Offers.among(
        of.rows.stream()
            .filter(
                row ->
                    of.draft.rows().of(of.table.id()).place(row.id()).stream()
                        .noneMatch(of.suppose::get))
            .toList(),
        Row::label);
  }

  /** Says on the map and in Connect what a delete does from then on. */
  void act(Relationship r, ReferentialAction action) {
    bench.apply(ChangeRelationship.onDelete(r, action));
  }

  /** Does something instead, once it was seen what follows. */
  void make(Instead.Now instead) {
    bench.propose(instead::edit, () -> {});
  }

  /** Hands rows over to another. */
  void hand(Instead.To instead, Row to) {
    bench.propose(
        () ->
            new HandOver(
                texts.get(
                    "deleted.hand.name",
                    Counts.of(instead.rows().size(), "row", "rows"),
                    to.label()),
                instead.over().id(),
                instead.rows(),
                to.id()),
        () -> {});
  }

  void delete(Edit deletion) {
    bench.propose(() -> deletion, () -> {});
  }

  /** The relationships that decide, in the order they are reached. */
  static List<Relationship> deciding(Told of) {
    Map<Object, Relationship> all = new LinkedHashMap<>();
    of.lines.forEach(line -> line.by.ifPresent(r -> all.putIfAbsent(r.id(), r)));
    return List.copyOf(all.values());
  }
}
