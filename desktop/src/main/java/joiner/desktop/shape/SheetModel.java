package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import javafx.beans.property.ReadOnlyObjectProperty;
import joiner.ddl.TableSpace;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.edit.FoldBack;
import joiner.edit.LookupToChoices;
import joiner.edit.MoveToArea;
import joiner.edit.RenameArea;
import joiner.edit.SetUnique;
import joiner.edit.StoreMarks;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.expression.Formula;
import joiner.finding.Finding;
import joiner.finding.Topic;
import joiner.meaning.Draft;
import joiner.meaning.WorkedOut;
import joiner.model.Area;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.Limits;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.model.UniqueKey;
import joiner.rows.HeldValues;
import joiner.rows.Rows;
import joiner.shape.Marks;
import joiner.shape.PatternExamples;
import joiner.shape.PatternWords;

/** What the side sheet of Shape is about and does, without a window. */
final class SheetModel {
  /** So many values show what they have in common. */
  private static final int EXAMPLES = 20_000;

  private final Workbench bench;
  private final FieldsModel fields;
  private final Texts texts;
  private final Computed<Question, HeldValues> seen;
  private final ChoicesModel choices;
  private final PickingModel picking;

  /** What the sheet is about. */
  sealed interface About {
    /** Nothing is chosen. */
    record Nothing() implements About {}

    /** A table. */
    record OfTable(Table table, Optional<Area> area) implements About {}

    /**
     * A field of a table.
     *
     * @param references the relationships it stands in as a reference
     */
    record OfField(Table table, Field field, List<Relationship> references) implements About {
      public OfField {
        references = List.copyOf(references);
      }

      /** A field that refers to nothing. */
      OfField(Table table, Field field) {
        this(table, field, List.of());
      }
    }

    /**
     * Several fields of a table.
     *
     * @param references all relationships of the table to others
     */
    record OfFields(Table table, List<Field> fields, List<Relationship> references)
        implements About {
      public OfFields {
        fields = List.copyOf(fields);
        references = List.copyOf(references);
      }
    }
  }

  /** A column to count; equal cells are known by their identity. */
  private record Question(Supplier<Rows> rows, Field field, Object cells) {}

  /**
   * About nothing yet.
   *
   * @param fields knows which are chosen together
   */
  SheetModel(Workbench bench, FieldsModel fields, Texts texts) {
    this.bench = bench;
    this.fields = fields;
    this.texts = texts;
    this.choices = new ChoicesModel(bench, texts);
    this.picking = new PickingModel(bench, texts);
    this.seen =
        new Computed<>(
            bench.runner(),
            texts.get("side.seen.counting"),
            Lane.WORKING,
            (left, right) -> left.cells.equals(right.cells) && left.field.equals(right.field),
            (question, progress) ->
                HeldValues.of(question.rows.get(), question.field, () -> !progress.stopped()));
  }

  /** What is done with fixed choices. */
  ChoicesModel choices() {
    return choices;
  }

  /** How rows that are referred to are picked. */
  PickingModel picking() {
    return picking;
  }

  /** Says whether somebody looks at the sheet. */
  void look(boolean now) {
    seen.look(now);
  }

  /** What the sheet is about now; the cells of a field begin to be counted. */
  About about() {
    About about = bench.table().map(this::about).orElseGet(About.Nothing::new);
    if (about instanceof About.OfField(Table table, Field field, var references)) {
      Draft draft = bench.draft();
      Rows rows = draft.rows().of(table.id());
      seen.ask(
          field.isComputed()
              ? new Question(
                  () -> worked(draft, table, field),
                  field,
                  List.of(new ByField.Same(draft.rows()), ByField.workedOutIn(draft, table)))
              : new Question(() -> rows, field, rows.identity(field.id())));
    }
    return about;
  }

  /** The rows of a table with one computed field worked out. */
  private Rows worked(Draft draft, Table table, Field field) {
    return WorkedOut.of(draft, table, bench.clock()).in(draft.rows().of(table.id()), field.id());
  }

  private About about(Table table) {
    List<Field> together =
        fields.chosenProperty().get().stream().filter(table::hasField).map(table::field).toList();
    if (together.size() > 1) {
      return new About.OfFields(table, together, bench.design().parentsOf(table.id()));
    }
    return bench
        .selectionProperty()
        .get()
        .field()
        .filter(table::hasField)
        .<About>map(
            field -> new About.OfField(table, table.field(field), referencesOf(table, field)))
        .orElseGet(() -> new About.OfTable(table, bench.design().areaOf(table)));
  }

  private List<Relationship> referencesOf(Table table, FieldId field) {
    return bench.design().parentsOf(table.id()).stream()
        .filter(up -> up.childFields().contains(field))
        .toList();
  }

  /** What the cells of the field hold. */
  ReadOnlyObjectProperty<Answer<HeldValues>> seenProperty() {
    return seen.answerProperty();
  }

  /** Whether a finding belongs to what the sheet is about. */
  static boolean concerns(About about, Finding finding) {
    return switch (about) {
      case About.Nothing nothing -> false;
      case About.OfTable(Table table, var area) ->
          finding.table().equals(table.id()) && finding.topic() == Topic.SHAPE;
      case About.OfField(Table table, Field field, var references) ->
          finding.table().equals(table.id()) && finding.field().equals(Optional.of(field.id()));
      case About.OfFields(Table table, List<Field> fields, var references) ->
          finding.table().equals(table.id())
              && fields.stream().anyMatch(f -> finding.field().equals(Optional.of(f.id())));
    };
  }

  private static final int EXAMPLE_ROWS = 50;
  private static final int EXAMPLES_SHOWN = 4;

  private static Optional<String> present(String text) {
    return Optional.of(text.strip()).filter(t -> !t.isEmpty());
  }

  /** What a computed field is in the first rows that have something there, as people read them. */
  String examples(About.OfField of) {
    Rows rows = bench.draft().rows().of(of.table().id());
    WorkedOut worked = WorkedOut.of(bench.draft(), of.table(), bench.clock());
    List<String> some =
        IntStream.range(0, Math.min(rows.count(), EXAMPLE_ROWS))
            .mapToObj(row -> worked.cell(rows, row, of.field().id()))
            .flatMap(Optional::stream)
            .distinct()
            .limit(EXAMPLES_SHOWN)
            .toList();
    return some.isEmpty() ? "" : texts.get("worked.examples", String.join(" · ", some));
  }

  void pattern(About.OfField of, String text) {
    Limits now = of.field().limits();
    Optional<String> seen = present(text);
    Optional<Marks> kept = now.shown().isPresent() ? seen.flatMap(Marks::parted) : Optional.empty();
    limits(
        of,
        kept.map(marks -> now.withMarks(marks.bareExpression(), seen.orElseThrow()))
            .orElseGet(() -> now.withPattern(seen)));
    if (now.shown().isPresent() && kept.isEmpty()) {
      bench.tell(Notice.Sort.HINT, texts.get("pattern.marksGone", of.field().label()));
    }
  }

  /** Keeps the texts of a field with the marks of its pattern, or without. */
  void storeMarks(About.OfField of, boolean stored) {
    Field field = of.field();
    if (bench.apply(() -> new StoreMarks(of.table().id(), field.id(), field.label(), stored))) {
      bench.tellDone(
          texts.get(stored ? "pattern.marksKept" : "pattern.marksOut", field.label()),
          texts.get("undo"));
    }
  }

  /** Takes the pattern that most values in the rows have; tells where there is none. */
  void patternFromRows(About.OfField of) {
    Rows rows = bench.draft().rows().of(of.table().id());
    List<String> values =
        IntStream.range(0, Math.min(rows.count(), EXAMPLES))
            .mapToObj(row -> rows.cell(row, of.field().id()))
            .flatMap(Optional::stream)
            .toList();
    Optional<PatternExamples> found = PatternExamples.of(values);
    if (found.isEmpty()) {
      bench.tell(Notice.Sort.REFUSED, texts.get("pattern.none", of.field().label()));
      return;
    }
    pattern(of, found.get().expression());
    List<String> unfit = found.get().unfit().stream().distinct().limit(5).toList();
    bench.tellDone(
        texts.get(
            "pattern.found",
            PatternWords.of(found.get().expression()).orElse(found.get().expression()),
            unfit.size(),
            String.join(", ", unfit)),
        texts.get("undo"));
  }

  void least(About.OfField of, String text) {
    limits(of, of.field().limits().withRange(present(text), of.field().limits().maximum()));
  }

  void greatest(About.OfField of, String text) {
    limits(of, of.field().limits().withRange(of.field().limits().minimum(), present(text)));
  }

  private void limits(About.OfField of, Limits limits) {
    bench.apply(ChangeField.limits(of.table(), of.field(), limits));
  }

  void relabel(Table table, String text) {
    if (!text.isBlank()) {
      bench.apply(ChangeTable.relabel(bench.design(), table, text.strip()));
    }
  }

  void rename(Table table, String text) {
    rename(table, text, table.noun());
  }

  void singular(Table table, String text) {
    rename(table, table.name(), new Noun(text, table.noun().plural()));
  }

  void plural(Table table, String text) {
    rename(table, table.name(), new Noun(table.noun().singular(), text));
  }

  private void rename(Table table, String name, Noun noun) {
    if (!name.isBlank()) {
      bench.apply(ChangeTable.rename(table, name.strip(), table.label(), noun));
    }
  }

  /** Lets the fields of a unique key repeat. */
  void removeUnique(Table table, UniqueKey key) {
    bench.apply(SetUnique.of(table, key.fields(), false));
  }

  void removeIndex(Table table, Index index) {
    bench.apply(ChangeTable.removeIndex(table, index));
  }

  /** Lets an index have its fields in another order or direction. */
  void changeIndex(Table table, Index index) {
    bench.apply(ChangeTable.index(table, index));
  }

  /** Gives a table another picture; none where it is empty. */
  void picture(Table table, String icon) {
    bench.apply(ChangeTable.icon(table, icon));
  }

  /** The relationship by which a table could be folded into the one it belongs to. */
  Optional<Relationship> foldable(Table table) {
    boolean referred = !bench.design().childrenOf(table.id()).isEmpty();
    return bench.design().parentsOf(table.id()).stream()
        .filter(up -> !referred && !up.isSelfReference() && table.isUnique(up.childFields()))
        .filter(up -> table.kind() instanceof TableKind.Plain)
        .findFirst();
  }

  String labelOf(TableId table) {
    return bench.design().table(table).label();
  }

  /** Folds a table into the one it belongs to, and goes there. */
  void fold(Relationship tie) {
    if (bench.apply(() -> FoldBack.of(bench.design(), tie))) {
      bench.selectionProperty().set(Selection.of(tie.parent()));
      bench.tellDone(texts.get("side.folded", labelOf(tie.parent())), texts.get("undo"));
    }
  }

  /** Whether a table is a list that could as well be fixed choices. */
  boolean isList(Table table) {
    return table.kind() instanceof TableKind.Lookup
        && !bench.design().childrenOf(table.id()).isEmpty();
  }

  /** Turns a list that others pick from into fixed choices of theirs. */
  void toChoices(Table table) {
    if (bench.apply(() -> new LookupToChoices(table.id(), table.label()))) {
      bench.selectionProperty().set(Selection.NONE);
      bench.tellDone(texts.get("side.toChoices.done", table.label()), texts.get("undo"));
    }
  }

  /** What the rows of a table take in an engine that says so. */
  record Room(String engine, TableSpace space) {}

  /** How much room the rows of a table take, engine by engine. */
  List<Room> room(Table table) {
    var room = new ArrayList<Room>();
    for (Dialect dialect : Dialects.ALL) {
      TableSpace.of(bench.draft(), table.id(), dialect)
          .ifPresent(space -> room.add(new Room(dialect.engine(), space)));
    }
    return room;
  }

  /** Whether an index serves a relationship of the table. */
  boolean serves(Table table, Index index) {
    return bench.design().parentsOf(table.id()).stream()
        .anyMatch(r -> index.fields().equals(r.childFields()));
  }

  void area(Table table, String text) {
    bench.apply(MoveToArea.of(table, text.strip()));
  }

  /** Of the area itself; its tables stay in it. */
  void renameArea(Area area, String text) {
    bench.apply(new RenameArea(area.id(), area.name(), text.strip()));
  }

  /** The text by which people recognise rows. */
  RowLabelModel rowLabels() {
    return new RowLabelModel(bench, texts);
  }

  void rowLabel(Table table, String text) {
    bench.apply(ChangeTable.rowLabel(table, Formula.unlessBlank(text)));
  }

  void describe(Table table, String text) {
    bench.apply(ChangeTable.description(table, text));
  }
}
