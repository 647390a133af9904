package joiner.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Runner;
import joiner.desktop.work.SaveState;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeField;
import joiner.edit.ChangeRows;
import joiner.expression.Width;
import joiner.format.DesignFolder;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;
import joiner.rows.SampleRows;

/**
 * What somebody waits for who edits a design with many rows: until its findings are of the new
 * state, until its audit is, until it is saved. The bench's own thread plays the window's.
 */
final class Editing {
  private static final int ROWS = 100_000;
  private static final int RUNS = 15;

  private final LinkedBlockingQueue<Runnable> window = new LinkedBlockingQueue<>();
  private final Runner runner = new Runner(window::add);
  private final Workbench bench;

  private Editing(Path folder) throws Exception {
    bench =
        new Workbench(
            OpenDesign.in(folder),
            runner,
            new Recovery(folder.resolveSibling("recovery")),
            Clock.systemDefaultZone());
  }

  public static void main(String[] arguments) throws Exception {
    Path folder = Files.createTempDirectory("joiner-editing").resolve("design");
    DesignFolder.save(threeTables(), folder);
    long start = System.nanoTime();
    var editing = new Editing(folder);
    editing.until(() -> editing.bench.verdict().isCurrent());
    System.out.printf(
        "| 3 × %,d rows: open to the first whole verdict | %d |%n", ROWS, millis(start));
    editing.measure("a cell changed", editing::changeCell);
    editing.measure("a field made required or optional", editing::changeRequired);
    editing.measure("a field renamed", editing::rename);
  }

  private interface Change {
    void make(int number);
  }

  private void measure(String what, Change change) {
    var verdicts = new ArrayList<Long>();
    var saves = new ArrayList<Long>();
    for (int run = 0; run < RUNS; run++) {
      long start = System.nanoTime();
      change.make(run);
      until(() -> bench.verdict().isCurrent());
      verdicts.add(millis(start));
      until(() -> bench.keeper().stateProperty().get() == SaveState.SAVED);
      saves.add(millis(start));
    }
    System.out.printf(
        "| %s: whole verdict, median and worst of %d | %s |%n", what, RUNS, spread(verdicts));
    System.out.printf("| %s: saved | %s |%n", what, spread(saves));
  }

  private static String spread(List<Long> times) {
    List<Long> sorted = times.stream().sorted().toList();
    return sorted.get(sorted.size() / 2) + " · " + sorted.getLast();
  }

  private Table piece() {
    return bench.design().tableNamed("piece").orElseThrow();
  }

  private void changeCell(int number) {
    bench.apply(
        ChangeRows.cell(
            piece(),
            bench.draft().rows().of(piece().id()),
            number,
            piece().fields().get(1),
            Optional.of("changed " + number)));
  }

  private void changeRequired(int number) {
    bench.apply(ChangeField.required(piece(), piece().fields().get(1), number % 2 == 0));
  }

  private void rename(int number) {
    bench.apply(
        ChangeField.rename(piece(), piece().fields().get(2), "Amount " + number, "a" + number));
  }

  private void until(BooleanSupplier holds) {
    try {
      while (!holds.getAsBoolean()) {
        Optional.ofNullable(window.poll(1, TimeUnit.MILLISECONDS)).ifPresent(Runnable::run);
      }
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  private static long millis(long start) {
    return (System.nanoTime() - start) / 1_000_000;
  }

  static Draft threeTables() {
    Design design = Design.empty("big", "Big");
    SampleRows rows = SampleRows.NONE;
    String parent = "";
    for (String name : List.of("member", "piece", "firing")) {
      var fields = new ArrayList<Field>();
      fields.add(Field.of(name + "_id", "Number", new FieldType.Counter(Width.BITS_32)));
      fields.add(Field.of("note", "Note", new FieldType.Text(60)));
      fields.add(Field.of("amount", "Amount", new FieldType.WholeNumber(Width.BITS_32)));
      fields.add(Field.of("made_on", "Made on", new FieldType.Date()));
      fields.add(Field.of("mail", "E-mail", new FieldType.Email(100)));
      Table table =
          Table.of(name, NamingPolicy.labelFor(name), Noun.ofLabel(name))
              .withFields(fields)
              .withPrimaryKey(List.of(fields.getFirst().id()));
      if (!parent.isEmpty()) {
        Field link = Field.of(parent + "_id", "Parent", new FieldType.WholeNumber(Width.BITS_32));
        table =
            table.withFieldAdded(link).withIndexAdded(new Index("ix_" + name, List.of(link.id())));
        Table to = design.tableNamed(parent).orElseThrow();
        Relationship tie =
            Relationship.of("fk_" + name, table.id(), List.of(link.id()), to.id(), to.primaryKey());
        design = design.withTableAdded(table, tie);
      } else {
        design = design.withTableAdded(table);
      }
      Rows own = rows(table);
      rows = rows.with(table.id(), none -> own);
      parent = name;
    }
    return new Draft(design, rows);
  }

  private static Rows rows(Table table) {
    var builder = new Rows.Builder(table.fieldIds());
    for (int row = 1; row <= ROWS; row++) {
      List<String> cells =
          List.of(
              String.valueOf(row),
              "note " + row % 5000,
              String.valueOf(row % 9999),
              "2026-0" + (1 + row % 9) + "-1" + row % 10,
              "m" + row + "@example.org",
              String.valueOf(1 + (row * 7919L) % ROWS));
      for (int i = 0; i < table.fields().size(); i++) {
        builder.cell(i, cells.get(i));
      }
      builder.endRow();
    }
    return builder.build();
  }
}
