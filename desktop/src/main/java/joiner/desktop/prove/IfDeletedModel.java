package joiner.desktop.prove;

import java.time.Clock;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyObjectProperty;
import joiner.database.LiveReach;
import joiner.database.TargetRefusedException;
import joiner.deletion.Chain;
import joiner.deletion.Deletions;
import joiner.deletion.Outcome;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Progress;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeRelationship;
import joiner.edit.ChangeRows;
import joiner.edit.DeleteRows;
import joiner.edit.Edit;
import joiner.edit.HandOver;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.meaning.RowLabels;
import joiner.model.FieldId;
import joiner.model.Noun;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.Counts;
import joiner.naming.WordList;
import joiner.rows.RowId;
import joiner.rows.Rows;

/** What the face If deleted is about, without a window: what a delete of some rows would do. */
final class IfDeletedModel {
  /** Of so many rows the worst is looked for. */
  private static final int MOST_LOOKED = 2_000;

  /** So many rows are offered by their labels. */
  private static final int MOST_OFFERED = 20_000;

  private static final int MOST_EXAMPLES = 4;

  private final Workbench bench;
  private final Texts texts;
  private final Computed<Input, Told> told;
  private Optional<TableId> table = Optional.empty();
  private Set<RowId> chosen = Set.of();

  /** Which rows of a draft; none chosen stands for the one that does most. */
  private record Input(Draft draft, TableId table, Set<RowId> chosen, RowsOf of) {
    boolean isAs(Input other) {
      return draft == other.draft
          && table.equals(other.table)
          && chosen.equals(other.chosen)
          && of.equals(other.of);
    }
  }

  /** The rows among which it is worked out; of a database only what can be reached. */
  private record Among(Draft draft, int first, boolean all) {}

  /** What was last read of a database, so that another choice among the same rows is quick. */
  private record Read(Draft draft, TableId table, RowsOf.Live of, Among among) {
    boolean isFor(Input input) {
      return draft == input.draft && table.equals(input.table) && of.equals(input.of);
    }
  }

  private final AtomicReference<Optional<Read>> read = new AtomicReference<>(Optional.empty());
  private RowsOf of = RowsOf.SAMPLES;

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
    Clock clock = bench.clock();
    this.told =
        new Computed<>(
            bench.runner(),
            texts.get("deleted.working"),
            Lane.WORKING,
            Input::isAs,
            (input, progress) ->
                new Telling(input, among(input, clock, progress), clock, texts).told());
  }

  private Among among(Input input, Clock clock, Progress progress) throws TargetRefusedException {
    if (!(input.of instanceof RowsOf.Live live)) {
      return new Among(input.draft, input.draft.rows().of(input.table).count(), true);
    }
    Optional<Read> known = read.get().filter(r -> r.isFor(input));
    if (known.isPresent()) {
      return known.get().among;
    }
    LiveReach reach =
        LiveReach.of(
            input.draft,
            live.at(),
            input.table,
            MOST_LOOKED,
            clock,
            (done, total, doing) -> {
              progress.doing(doing);
              return !progress.stopped();
            });
    var among = new Among(reach.draft(), reach.first(), reach.all());
    read.set(Optional.of(new Read(input.draft, input.table, live, among)));
    return among;
  }

  /** Looks at the rows of that from now on; a database is read anew. */
  void from(RowsOf other) {
    of = other;
    chosen = Set.of();
    read.set(Optional.empty());
    refresh();
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
    Optional<TableId> now = bench.table().map(Table::id);
    if (now.isPresent() && !now.equals(table)) {
      table = now;
      chosen = Set.of();
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
      told.ask(new Input(bench.draft(), table.get(), Set.copyOf(chosen), of));
    }
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

  /** Works it out, off the window's thread. */
  private static final class Telling {
    private final Input input;
    private final Among among;
    private final Draft draft;
    private final Table table;
    private final Texts texts;
    private final Clock clock;
    private final Deletions deletions;
    private final FormulaRows values;
    private final Map<TableId, RowLabels> labels = new HashMap<>();

    Telling(Input input, Among among, Clock clock, Texts texts) {
      this.input = input;
      this.among = among;
      this.draft = among.draft;
      this.table = draft.design().table(input.table);
      this.texts = texts;
      this.clock = clock;
      this.deletions = new Deletions(draft, clock);
      this.values = new FormulaRows(draft, clock);
    }

    Told told() {
      boolean any = input.chosen.isEmpty();
      BitSet suppose = any ? worst() : places();
      Chain chain = Chain.of(draft, deletions, table.id(), suppose);
      List<Line> lines =
          suppose.isEmpty() ? List.of() : chain.steps().stream().map(this::line).toList();
      boolean refused = chain.outcome().verdict() == Outcome.Verdict.REFUSED || suppose.isEmpty();
      boolean live = input.of instanceof RowsOf.Live; // Nothing is changed there.
      Optional<Edit> deletion =
          refused || live
              ? Optional.empty()
              : Optional.of(deletions.edit(lines.getFirst().example(), chain.outcome()));
      return new Told(
          draft,
          input.of,
          !among.all,
          table,
          suppose,
          any,
          chain,
          lines,
          rows(),
          deletion,
          live ? List.of() : instead(suppose, chain));
    }

    private BitSet worst() {
      var rows = new BitSet();
      deletions.worst(table.id(), Math.min(MOST_LOOKED, among.first)).ifPresent(rows::set);
      return rows;
    }

    private BitSet places() {
      var places = new BitSet();
      Rows rows = draft.rows().of(table.id());
      for (RowId id : input.chosen) {
        OptionalInt place = rows.place(id);
        place.ifPresent(places::set);
      }
      return places;
    }

    private String label(TableId of, int row) {
      return labels
          .computeIfAbsent(of, id -> new RowLabels(draft.meaning().of(id), values, clock))
          .of(row);
    }

    private List<Row> rows() {
      Rows rows = draft.rows().of(table.id());
      IntFunction<Row> named = row -> new Row(rows.id(row), label(table.id(), row));
      return IntStream.range(0, Math.min(MOST_OFFERED, among.first)).mapToObj(named).toList();
    }

    private Line line(Chain.Step step) {
      Table of = draft.design().table(step.table());
      return new Line(
          step.depth(),
          of.label(),
          of.noun(),
          step.rows().cardinality(),
          step.fate(),
          happens(step),
          because(step),
          examples(step),
          step.by());
    }

    private String happens(Chain.Step step) {
      if (step.by().isEmpty()) {
        return texts.get("deleted.fate.first");
      }
      String key = "deleted.fate." + step.fate();
      return texts.get(key, draft.design().table(step.by().get().parent()).noun().singular());
    }

    private String because(Chain.Step step) {
      if (step.by().isEmpty()) {
        return texts.get("deleted.because.first");
      }
      Relationship by = step.by().get();
      Table child = draft.design().table(by.child());
      String fields = WordList.and(child.labelsOf(by.childFields()));
      boolean required = by.childFields().stream().allMatch(child::isRequired);
      String sort =
          by.onDelete() == ReferentialAction.SET_NULL && required
              ? "forbidden"
              : by.onDelete().name();
      return texts.get("deleted.because." + sort, fields);
    }

    private String examples(Chain.Step step) {
      List<String> some =
          step.rows().stream()
              .limit(MOST_EXAMPLES)
              .mapToObj(row -> label(step.table(), row))
              .toList();
      return String.join(", ", some) + (step.rows().cardinality() > MOST_EXAMPLES ? " …" : "");
    }

    private List<Instead> instead(BitSet suppose, Chain chain) {
      var all = new ArrayList<Instead>();
      retire(suppose).ifPresent(all::add);
      for (Chain.Step step : chain.steps()) {
        boolean refers = step.depth() == 1 && step.by().isPresent();
        if (refers && draft.rows().of(table.id()).count() > suppose.cardinality()) {
          all.add(handOver(step));
        }
        if (step.fate() == Chain.Fate.REFUSE) {
          first(step).ifPresent(all::add);
        }
      }
      return all;
    }

    /** Rows that are no longer offered stay as they are. */
    private Optional<Instead> retire(BitSet suppose) {
      if (suppose.isEmpty()
          || !(table.kind() instanceof TableKind.Lookup(var sort, Optional<FieldId> retired))
          || retired.isEmpty()) {
        return Optional.empty();
      }
      Rows rows = draft.rows().of(table.id());
      List<Edit> edits =
          suppose.stream()
              .<Edit>mapToObj(
                  row ->
                      ChangeRows.cell(
                          table, rows, row, table.field(retired.get()), Optional.of("true")))
              .toList();
      String name = texts.get("deleted.retire.name", suppose.cardinality(), table.label());
      return Optional.of(
          new Instead.Now(
              texts.get("deleted.retire", table.field(retired.get()).label()),
              Edit.all(name, edits)));
    }

    private Instead handOver(Chain.Step step) {
      Relationship over = step.by().orElseThrow();
      Table child = draft.design().table(over.child());
      return new Instead.To(
          texts.get(
              "deleted.hand",
              Counts.of(step.rows().cardinality(), child.noun().singular(), child.noun().plural()),
              WordList.and(child.labelsOf(over.childFields())),
              table.noun().singular()),
          over,
          DeleteRows.ids(draft.rows().of(over.child()), step.rows()));
    }

    /** Those that stand against it are deleted first, where that can be done. */
    private Optional<Instead> first(Chain.Step step) {
      var outcome = deletions.of(step.table(), step.rows());
      if (outcome.verdict() == Outcome.Verdict.REFUSED) {
        return Optional.empty();
      }
      Table child = draft.design().table(step.table());
      String rows =
          Counts.of(step.rows().cardinality(), child.noun().singular(), child.noun().plural());
      return Optional.of(
          new Instead.Now(
              texts.get("deleted.before", rows, outcome.count()), deletions.edit(rows, outcome)));
    }
  }
}
