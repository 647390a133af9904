package joiner.desktop.prove;

import java.time.Clock;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyObjectProperty;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.edit.EnterRows;
import joiner.edit.Named;
import joiner.entry.Entered;
import joiner.entry.Entry;
import joiner.entry.EntryTrial;
import joiner.entry.KnownTrials;
import joiner.entry.Refusal;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.meaning.ParentRows;
import joiner.meaning.RowLabels;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Origin;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.naming.SameName;
import joiner.naming.WordList;
import joiner.rows.EnteredText;
import joiner.rows.RowId;
import joiner.rows.Rows;

/**
 * What the face Enter is about, without a window: the rows of a table, one of them as it is typed
 * with those that refer to it, and what of it would be refused. What was typed stays until it is
 * saved or given up, wherever one goes meanwhile.
 */
final class EnterModel {
  private final Workbench bench;
  private final Texts texts;
  private final EnterFound found;
  private final Computed<Typed, Tried> tried;
  private final EnterPicks picks;
  private final EnterBelow below;
  private final EnterSame same;
  private final EnterTrips trips;
  private final TypedStore store;
  private final long seed = System.nanoTime();
  private Runnable returned = () -> {};
  private Optional<TableId> table = Optional.empty();

  /** What was typed and not saved, by table and row; a new row has none. */
  private final Map<Place, Entered> unsaved = new HashMap<>();

  /** Which row of each table is open; empty: a new one. */
  private final Map<TableId, Optional<RowId>> open = new HashMap<>();

  private record Place(TableId table, Optional<RowId> row) {}

  private record Typed(Draft draft, Entered entered) {
    boolean isAs(Typed other) {
      return draft == other.draft && entered.equals(other.entered);
    }
  }

  /**
   * What comes of what is typed.
   *
   * @param shown what the cells of the row hold then, those that nobody types among them
   */
  record Tried(Draft draft, Entered entered, EntryTrial trial, Map<FieldId, String> shown) {}

  EnterModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    this.found = new EnterFound(bench, texts);
    this.picks = new EnterPicks(bench, texts, this::parents);
    this.below = new EnterBelow(this, bench, texts);
    this.same = new EnterSame(this, bench);
    this.trips = new EnterTrips(this, bench);
    this.store = new TypedStore(bench, texts, this::returned);
    Clock clock = bench.clock();
    var known = new KnownTrials();
    this.tried =
        new Computed<>(
            bench.runner(),
            texts.get("enter.trying"),
            Lane.WORKING,
            Typed::isAs,
            (typed, progress) -> tried(typed, known, clock));
  }

  private Tried tried(Typed typed, KnownTrials known, Clock clock) {
    Draft draft = typed.draft;
    Entered entered = typed.entered;
    EnterRows edit =
        new Entry(draft, clock, new Random(seed)).of(name(draft, entered, clock), entered);
    EntryTrial trial = EntryTrial.of(draft, edit, known, clock);
    return new Tried(draft, entered, trial, trial.shown(entered, clock));
  }

  private static String name(Draft draft, Entered entered, Clock clock) {
    Table table = draft.design().table(entered.table());
    Rows rows = draft.rows().of(table.id());
    var place = entered.row().map(rows::place);
    return place.isPresent() && place.get().isPresent()
        ? new RowLabels(draft.meaning().of(table), new FormulaRows(draft, clock), clock)
            .of(place.get().getAsInt())
        : table.noun().indefinite();
  }

  /** What a row can refer to. */
  EnterPicks picks() {
    return picks;
  }

  /** The ways to other rows, and back. */
  EnterTrips trips() {
    return trips;
  }

  /** The rows that refer to the open one. */
  EnterBelow below() {
    return below;
  }

  /** Rows that are there already and that people would call the same as the open one. */
  EnterSame same() {
    return same;
  }

  /** The parts of a table's row. */
  List<EnterPart> parts(Table of) {
    return EnterPart.of(bench.draft(), of);
  }

  /** The rows a reference can lead to, once they are known. */
  private Optional<ParentRows> parents(RelationshipId over) {
    return found.listed().map(l -> l.parents().get(over));
  }

  /** The rows as they are listed. */
  EnterFound found() {
    return found;
  }

  ReadOnlyObjectProperty<Answer<Tried>> triedProperty() {
    return tried.answerProperty();
  }

  /** What is run when something typed before is there again. */
  void whenReturned(Runnable other) {
    returned = other;
  }

  private void returned(List<Entered> typed) {
    typed.forEach(
        row ->
            unsaved.merge(
                new Place(row.table(), row.row()), row, (there, back) -> together(back, there)));
    if (!typed.isEmpty()) {
      List<String> tables =
          typed.stream().map(row -> bench.design().table(row.table()).label()).distinct().toList();
      bench.tell(Notice.Sort.HINT, texts.get("typed.again", typed.size(), WordList.and(tables)));
      refresh();
      returned.run();
    }
  }

  /** What was typed last into one row stays; what was typed before fills the rest. */
  private static Entered together(Entered before, Entered last) {
    Map<FieldId, String> cells = new LinkedHashMap<>(before.cells());
    cells.putAll(last.cells());
    Map<RelationshipId, List<Entered>> details = new HashMap<>(before.details());
    last.details()
        .forEach(
            (over, rows) ->
                details.merge(
                    over,
                    rows,
                    (one, other) -> Stream.concat(one.stream(), other.stream()).toList()));
    return new Entered(last.table(), last.row(), cells, details);
  }

  /** Keeps what is typed for the next start. */
  private void keepTyped() {
    store.keep(List.copyOf(unsaved.values()));
  }

  void look(boolean now) {
    found.look(now);
    tried.look(now);
  }

  /** Follows the table that is chosen everywhere, and the design that is open. */
  void refresh() {
    if (store.isOther()) {
      unsaved.clear();
      open.clear();
      trips.clear();
      found.clear();
    }
    table =
        bench
            .table()
            .or(() -> table.flatMap(bench.design()::find))
            .or(() -> bench.design().tables().stream().findFirst())
            .map(Table::id);
    if (table.isPresent()) {
      TableId of = table.get();
      Rows rows = bench.draft().rows().of(of);
      open.computeIfPresent(of, (t, row) -> row.filter(id -> rows.place(id).isPresent()));
      unsaved
          .keySet()
          .removeIf(
              place ->
                  place.table.equals(of)
                      && place.row.filter(id -> rows.place(id).isEmpty()).isPresent());
      found.refresh(of);
      tried.ask(new Typed(bench.draft(), entered()));
    }
  }

  Optional<Table> table() {
    return table.flatMap(bench.design()::find);
  }

  void choose(Table other) {
    bench.selectionProperty().set(Selection.of(other.id()));
  }

  /** Whether the rows are held here and can be entered. */
  boolean canEnter() {
    return table.filter(t -> bench.draft().rows().link(t).isEmpty()).isPresent();
  }

  int count() {
    return table.map(t -> bench.draft().rows().of(t).count()).orElse(0);
  }

  /** Which row is open; empty: a new one. */
  Optional<RowId> opened() {
    return table.flatMap(t -> open.getOrDefault(t, Optional.empty()));
  }

  /** Opens a row, or begins a new one. */
  void open(Optional<RowId> row) {
    table.ifPresent(
        t -> {
          open.put(t, row);
          refresh();
        });
  }

  /** Whether something was typed in a row that is not saved. */
  boolean isUnsaved(Optional<RowId> row) {
    return table.filter(t -> unsaved.containsKey(new Place(t, row))).isPresent();
  }

  private Place place() {
    return new Place(table.orElseThrow(), opened());
  }

  /** The row that is open with what was typed in it. */
  Entered entered() {
    Place place = place();
    return unsaved.getOrDefault(place, new Entered(place.table, place.row, Map.of(), Map.of()));
  }

  /** Types into the open row and those below it. */
  void entered(Entered typed) {
    boolean nothing = typed.cells().isEmpty() && typed.details().isEmpty();
    if (nothing) {
      unsaved.remove(place());
    } else {
      unsaved.put(place(), typed);
    }
    keepTyped();
    tried.ask(new Typed(bench.draft(), typed));
  }

  /** What is known of what is typed, as it stands. */
  Optional<Tried> tried() {
    return table.isEmpty()
        ? Optional.empty()
        : tried
            .answer()
            .current()
            .filter(t -> t.draft == bench.draft() && t.entered.equals(entered()));
  }

  /** What a cell of the open row holds as it is typed. */
  String text(FieldId field) {
    Entered row = entered();
    String typed = row.cells().get(field);
    if (typed != null) {
      return typed;
    }
    return row.row().isPresent()
        ? kept(row, field)
        : latest().map(t -> t.shown.getOrDefault(field, "")).orElse("");
  }

  /** What was last known of the row that is open, while what was typed since is being tried. */
  private Optional<Tried> latest() {
    return tried
        .answer()
        .latest()
        .filter(
            t -> Optional.of(t.entered.table()).equals(table) && t.entered.row().equals(opened()));
  }

  /** What a cell holds that is there already. */
  String kept(Entered row, FieldId field) {
    Rows rows = bench.draft().rows().of(row.table());
    var place = row.row().map(rows::place);
    return place.isPresent() && place.get().isPresent()
        ? rows.cell(place.get().getAsInt(), field).orElse("")
        : "";
  }

  /** Types into cells of the open row. */
  void type(Map<FieldId, String> cells) {
    Entered now = entered();
    entered(typed(now, cells));
  }

  /** A row with cells typed; what is as it was is not typed. */
  Entered typed(Entered row, Map<FieldId, String> cells) {
    Map<FieldId, String> all = new LinkedHashMap<>(row.cells());
    cells.forEach(
        (field, text) -> {
          if (row.row().isPresent() && kept(row, field).equals(text)
              || row.row().isEmpty() && text.isEmpty() && !isFilledIn(row.table(), field)) {
            all.remove(field);
          } else {
            all.put(field, text);
          }
        });
    return new Entered(row.table(), row.row(), all, row.details());
  }

  /** Whether a new row holds something here before anybody types. */
  private boolean isFilledIn(TableId of, FieldId field) {
    return bench.draft().meaning().of(of).defaultOf(field).isPresent()
        || bench.design().table(of).field(field).origin() instanceof Origin.Copied;
  }

  /** Goes to a row of a table, or to a new one. */
  void go(TableId to, Optional<RowId> row) {
    open.put(to, row);
    bench.design().find(to).ifPresent(this::choose);
    refresh();
  }

  /** The refusals of the open row itself that are about a field. */
  List<String> refusals(List<FieldId> fields) {
    return tried().stream()
        .flatMap(t -> t.trial.refusals().stream())
        .filter(this::isOfOpenRow)
        .filter(r -> r.field().filter(fields::contains).isPresent())
        .map(Refusal::message)
        .distinct()
        .toList();
  }

  boolean isOfOpenRow(Refusal refusal) {
    return refusal.table().equals(table.orElseThrow())
        && refusal.entered().isPresent()
        && tried()
            .filter(
                t -> {
                  EnterRows.One one = t.trial.edit().rows().get(refusal.entered().getAsInt());
                  return one.row().equals(opened()) && one.table().equals(refusal.table());
                })
            .isPresent();
  }

  /** All that is refused, as people read it. */
  List<Refusal> refusals() {
    return tried().map(t -> t.trial.refusals()).orElse(List.of());
  }

  /** Opens the row that is there already, with what was typed put over what it holds. */
  void overwrite(RowId existing) {
    Map<FieldId, String> typed = new LinkedHashMap<>();
    Entered there = Entered.changed(entered().table(), existing);
    entered()
        .cells()
        .forEach(
            (field, text) -> {
              if (!SameName.folded(kept(there, field)).equals(SameName.folded(text))) {
                typed.put(field, text);
              }
            });
    unsaved.remove(place());
    open(Optional.of(existing));
    type(typed);
  }

  /**
   * Saves what is typed as one change, whether the design lets it or not; the row stays open. What
   * it breaks then stands in the audit.
   */
  void save() {
    Optional<Tried> now = tried();
    if (now.isEmpty() || now.get().trial.edit().rows().isEmpty()) {
      return;
    }
    TableId of = table.orElseThrow();
    boolean isNew = opened().isEmpty();
    int before = bench.draft().rows().of(of).count();
    Place saved = place();
    Entered typed = entered();
    unsaved.remove(saved);
    keepTyped();
    if (bench.apply(() -> now.get().trial.edit())) {
      Rows rows = bench.draft().rows().of(of);
      if (isNew && rows.count() > before) {
        open.put(of, Optional.of(rows.id(before)));
        if (trips.waitingFor().isPresent()) {
          trips.backWith(rows.id(before));
          return;
        }
      }
      refresh();
    } else {
      unsaved.put(saved, typed);
      keepTyped();
    }
  }

  /** Begins a new row that holds what the open one does, but for what tells it apart. */
  void copy() {
    Optional<Table> of = table();
    if (of.isEmpty() || opened().isEmpty()) {
      return;
    }
    Map<FieldId, String> cells = new LinkedHashMap<>();
    for (Field field : of.get().fields()) {
      boolean own = of.get().keys().stream().anyMatch(key -> key.equals(List.of(field.id())));
      if (EnterPart.isTyped(field) && !own && !text(field.id()).isEmpty()) {
        cells.put(field.id(), text(field.id()));
      }
    }
    open(Optional.empty());
    type(cells);
  }

  /** The fields of the table that can be changed in many rows at once. */
  List<Field> changeable() {
    return table().stream().flatMap(of -> of.fields().stream()).filter(EnterPart::isTyped).toList();
  }

  /** Lets a field hold the same in all rows that were found, once it was seen what follows. */
  void changeAll(List<EnterFound.Row> rows, Field field, String text) {
    Table of = table().orElseThrow();
    Optional<String> value = Optional.of(EnteredText.of(field, text)).filter(t -> !t.isBlank());
    List<EnterRows.One> ones =
        rows.stream()
            .map(
                row -> new EnterRows.One(of.id(), Optional.of(row.id()), Map.of(field.id(), value)))
            .toList();
    String name =
        texts.get(
            "enter.all.name",
            field.label(),
            Counts.of(ones.size(), of.noun().singular(), of.noun().plural()));
    bench.propose(() -> new Named(name, new EnterRows(name, ones, Map.of()), true), () -> {});
  }

  /** Gives up what was typed in the open row. */
  void forget() {
    unsaved.remove(place());
    keepTyped();
    refresh();
  }
}
