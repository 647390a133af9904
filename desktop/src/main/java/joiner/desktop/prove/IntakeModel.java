package joiner.desktop.prove;

import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.UnaryOperator;
import javafx.beans.property.ReadOnlyObjectProperty;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Workbench;
import joiner.edit.Named;
import joiner.entry.Intake;
import joiner.entry.KnownTrials;
import joiner.entry.TakingIn;
import joiner.entry.TakingIn.Missing;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.Counts;
import joiner.rows.EncodedTable;
import joiner.source.ReadingOptions;
import joiner.source.Source;
import joiner.source.SourceFile;

/**
 * Rows of a file or a pasted block on their way into a table, without a window: which column is
 * which field, which rows are the same, and what becomes of all, before anything happens.
 */
final class IntakeModel {
  private final Workbench bench;
  private final Texts texts;
  private final Computed<Reading, Source> read;
  private final Computed<Input, Told> told;
  private final long seed = System.nanoTime();
  private final Runnable changed;
  private Optional<TableId> table = Optional.empty();
  private Optional<Came> came = Optional.empty();
  private int number;

  /** Something to read. */
  private record Reading(int number, String name, SourceOf source) {}

  private interface SourceOf {
    Source read(ReadingOptions options) throws Exception;
  }

  /**
   * Rows that came, and how they are to be taken.
   *
   * @param fields for each column the field it is; empty: it is left out
   */
  record Came(
      String name,
      EncodedTable cells,
      List<String> problems,
      List<Optional<FieldId>> fields,
      Intake.How how) {
    Came withFields(List<Optional<FieldId>> other) {
      return new Came(name, cells, problems, other, how);
    }

    Came withHow(Intake.How other) {
      return new Came(name, cells, problems, fields, other);
    }
  }

  private record Input(Draft draft, TableId table, Came came) {
    boolean isAs(Input other) {
      return draft == other.draft && table.equals(other.table) && came.equals(other.came);
    }
  }

  /** What becomes of them. */
  record Told(Draft draft, Came came, Intake intake) {}

  /**
   * No rows yet.
   *
   * @param changed is run when something else is known
   */
  IntakeModel(Workbench bench, Texts texts, Runnable changed) {
    this.bench = bench;
    this.texts = texts;
    this.changed = changed;
    Clock clock = bench.clock();
    this.read =
        new Computed<>(
            bench.runner(),
            texts.get("intake.reading"),
            Lane.WORKING,
            (one, other) -> one.number == other.number,
            (reading, progress) ->
                reading.source.read(
                    ReadingOptions.DETECT.stoppedBy(progress::stopped).telling(progress::share)));
    var known = new KnownTrials();
    this.told =
        new Computed<>(
            bench.runner(),
            texts.get("intake.trying"),
            Lane.WORKING,
            Input::isAs,
            (input, progress) -> told(input, known, clock));
    read.answerProperty().subscribe(answer -> arrived());
    told.answerProperty().subscribe(answer -> changed.run());
  }

  private Told told(Input input, KnownTrials known, Clock clock) {
    Came came = input.came;
    List<Map<FieldId, String>> rows = Intake.rows(came.cells, came.fields);
    Table into = input.draft.design().table(input.table);
    return new Told(
        input.draft,
        came,
        Intake.of(input.draft, into, rows, came.how, known, clock, new Random(seed)));
  }

  /** Reads a file. */
  void open(Path file) {
    read(String.valueOf(file.getFileName()), options -> SourceFile.read(file, options));
  }

  /** Reads a block as it is copied from a spreadsheet. */
  void paste(String block) {
    if (block.isBlank()) {
      bench.tell(Notice.Sort.REFUSED, texts.get("intake.nothing"));
      return;
    }
    String name = texts.get("intake.pasted");
    read(name, options -> SourceFile.pasted(name, block, options));
  }

  private void read(String name, SourceOf source) {
    came = Optional.empty();
    read.ask(new Reading(++number, name, source));
    changed.run();
  }

  private void arrived() {
    Optional<Source> now = read.answer().current();
    if (now.isPresent() && came.isEmpty() && table.isPresent()) {
      Source source = now.get();
      List<EncodedTable> tables =
          source.tables().stream().map(t -> t.cells()).filter(cells -> cells.rows() > 0).toList();
      if (tables.isEmpty()) {
        bench.tell(Notice.Sort.REFUSED, texts.get("intake.nothing"));
      } else {
        Table into = bench.design().table(table.get());
        EncodedTable cells =
            tables.stream()
                .filter(t -> t.name().equalsIgnoreCase(into.name()))
                .findFirst()
                .orElse(tables.getFirst());
        List<Optional<FieldId>> fields = fields(into, cells.headers());
        var problems = new ArrayList<>(source.problems().stream().map(p -> p.message()).toList());
        if (tables.size() > 1) {
          problems.add(texts.get("intake.several", tables.size(), cells.name()));
        }
        came =
            Optional.of(
                new Came(
                    source.name(),
                    cells,
                    problems,
                    fields,
                    new Intake.How(
                        keys(into, fields).stream().findFirst().orElse(List.of()),
                        Missing.LEAVE,
                        false)));
        refresh();
      }
    }
    changed.run();
  }

  /** Which columns are which fields, as far as their headings say it; each field once. */
  private static List<Optional<FieldId>> fields(Table into, List<String> headings) {
    var fields = new ArrayList<Optional<FieldId>>();
    for (String heading : headings) {
      Optional<FieldId> field =
          TakingIn.called(into, heading)
              .filter(f -> !f.isComputed())
              .map(Field::id)
              .filter(id -> !fields.contains(Optional.of(id)));
      fields.add(field);
    }
    return fields;
  }

  /** Keys whose fields all come along. */
  private static List<List<FieldId>> keys(Table into, List<Optional<FieldId>> fields) {
    return into.keys().stream()
        .filter(key -> key.stream().allMatch(field -> fields.contains(Optional.of(field))))
        .toList();
  }

  void look(boolean now) {
    read.look(now);
    told.look(now);
  }

  ReadOnlyObjectProperty<Answer<Source>> readProperty() {
    return read.answerProperty();
  }

  ReadOnlyObjectProperty<Answer<Told>> toldProperty() {
    return told.answerProperty();
  }

  /** Into that table from now on; what came for another is given up. */
  void into(Table other) {
    if (!table.equals(Optional.of(other.id()))) {
      table = Optional.of(other.id());
      came = Optional.empty();
    }
    refresh();
  }

  private void refresh() {
    Optional<Table> into = table.flatMap(bench.design()::find);
    if (into.isPresent() && came.isPresent()) {
      Table now = into.get();
      came = came.map(c -> standing(c, now));
      told.ask(new Input(bench.draft(), now.id(), came.get()));
    }
  }

  /** Without fields that are gone since. */
  private static Came standing(Came came, Table into) {
    List<Optional<FieldId>> fields =
        came.fields.stream().map(field -> field.filter(into::hasField)).toList();
    boolean same = came.how.match().isEmpty() || keys(into, fields).contains(came.how.match());
    Intake.How how =
        same ? came.how : new Intake.How(List.of(), came.how.missing(), came.how.partly());
    return came.withFields(fields).withHow(how);
  }

  Optional<Came> came() {
    return came;
  }

  /** What is known of what came, as it is to be taken now. */
  Optional<Told> told() {
    return told.answer()
        .current()
        .filter(t -> t.draft == bench.draft() && came.equals(Optional.of(t.came)));
  }

  /** Fields a column can be. */
  List<Field> fields() {
    return table.flatMap(bench.design()::find).stream()
        .flatMap(of -> of.fields().stream())
        .filter(field -> !field.isComputed())
        .toList();
  }

  /** Lets a column be a field, or be left out; another column that was it is left out then. */
  void column(int place, Optional<FieldId> field) {
    came.ifPresent(
        c -> {
          var fields = new ArrayList<>(c.fields);
          if (field.isPresent()) {
            Collections.replaceAll(fields, field, Optional.empty());
          }
          fields.set(place, field);
          set(c.withFields(List.copyOf(fields)));
        });
  }

  /** By which fields rows can be told to be the same; the first says that all are new. */
  List<List<FieldId>> matches() {
    var all = new ArrayList<List<FieldId>>();
    all.add(List.of());
    table
        .flatMap(bench.design()::find)
        .ifPresent(into -> came.ifPresent(c -> all.addAll(keys(into, c.fields))));
    return all;
  }

  void match(List<FieldId> fields) {
    how(h -> new Intake.How(fields, h.missing(), h.partly()));
  }

  /** What can become of rows that none matches. */
  List<Missing> missing() {
    boolean retires =
        table
            .flatMap(bench.design()::find)
            .filter(
                t ->
                    t.kind() instanceof TableKind.Lookup(var s, var retired) && retired.isPresent())
            .isPresent();
    return retires
        ? List.of(Missing.LEAVE, Missing.RETIRE, Missing.DELETE)
        : List.of(Missing.LEAVE, Missing.DELETE);
  }

  void missing(Missing other) {
    how(h -> new Intake.How(h.match(), other, h.partly()));
  }

  void partly(boolean is) {
    how(h -> new Intake.How(h.match(), h.missing(), is));
  }

  private void how(UnaryOperator<Intake.How> change) {
    came.ifPresent(c -> set(c.withHow(change.apply(c.how))));
  }

  private void set(Came other) {
    came = Optional.of(other);
    refresh();
    changed.run();
  }

  /** Whether rows can be taken now. */
  boolean canTake() {
    return told()
        .filter(t -> !t.intake.trial().isRefused())
        .filter(
            t ->
                !t.intake.planned().edit().rows().isEmpty()
                    || !t.intake.planned().edit().gone().isEmpty())
        .isPresent();
  }

  /** Takes them in as one change; whether they are in. */
  boolean take() {
    if (!canTake()) {
      return false;
    }
    Told now = told().orElseThrow();
    Table into = bench.design().table(table.orElseThrow());
    int rows = now.intake.planned().added() + now.intake.planned().updated();
    String many = Counts.of(rows, into.noun().singular(), into.noun().plural());
    String name = texts.get("intake.name", many, now.came.name);
    boolean done = bench.apply(() -> new Named(name, now.intake.planned().edit(), true));
    if (done) {
      came = Optional.empty();
      bench.tellDone(texts.get("intake.done", many, now.came.name), texts.get("intake.undo"));
      changed.run();
    }
    return done;
  }
}
