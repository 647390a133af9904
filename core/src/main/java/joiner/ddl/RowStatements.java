package joiner.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import joiner.catalog.SqlType;
import joiner.engine.Dialect;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.model.ByteSize;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/** The statements that put the rows of a table into it, and what of them is lost. */
final class RowStatements {
  /** Characters of a statement; SQLite takes a million bytes. */
  private static final int LONGEST = 300_000;

  private static final int[] POWERS_OF_TEN = {
    1, 10, 100, 1_000, 10_000, 100_000, 1_000_000, 10_000_000, 100_000_000, 1_000_000_000
  };

  private final Draft draft;
  private final Table table;
  private final List<Field> fields;
  private final Rows rows;
  private final Dialect dialect;
  private final boolean written;
  private final RowLiterals literals;
  private final List<Shortfall> shortfalls = new ArrayList<>();

  /** Whether a comment says whose rows these are. */
  private boolean told;

  RowStatements(Draft draft, Table table, Dialect dialect, boolean written) {
    this.draft = draft;
    this.table = table;
    this.fields = ShippedRows.fields(table);
    this.rows = ShippedRows.of(draft, table);
    this.dialect = dialect;
    this.written = written;
    this.literals = new RowLiterals(table, rows, dialect);
  }

  List<Shortfall> shortfalls() {
    return shortfalls;
  }

  /** None where there are no rows. */
  List<Statement> write() {
    var statements = new ArrayList<Statement>();
    List<Field> counters =
        table.fields().stream().filter(f -> f.type() instanceof FieldType.Counter).toList();
    if (rows.count() == 0) {
      return statements;
    }
    if (!counters.isEmpty()) {
      dialect.beforeRows(table.name()).forEach(sql -> statements.add(ofRows("", sql)));
    }
    for (List<Integer> wave : waves()) {
      if (written) {
        writtenOut(wave, statements);
      } else {
        String parameters = " (" + "?, ".repeat(fields.size() - 1) + "?)";
        statements.add(Statement.loading(insertInto() + parameters, new RowLoad(table.id(), wave)));
      }
    }
    if (!counters.isEmpty()) {
      dialect.afterRows(table.name()).forEach(sql -> statements.add(ofRows("", sql)));
    }
    for (Field counter : counters) {
      Counted.next(rows, counter).stream()
          .boxed()
          .flatMap(next -> dialect.restart(table.name(), counter.name(), next).stream())
          .forEach(sql -> statements.add(ofRows("", sql)));
    }
    fields.forEach(this::secondsLost);
    if (written) {
      fields.forEach(this::filesLeftOut);
    }
    table.fields().stream()
        .filter(field -> ShippedRows.isLocked(table, field))
        .forEach(this::locked);
    return statements;
  }

  private static Statement ofRows(String comment, String sql) {
    return Statement.of(Statement.Section.ROWS, comment, sql);
  }

  /** Rows that may go in together; parents first where the engine looks at each row at once. */
  private List<List<Integer>> waves() {
    List<Integer> all = IntStream.range(0, rows.count()).boxed().toList();
    if (dialect.addsReferences() || dialect.refersAhead()) {
      return List.of(all);
    }
    return RowWaves.of(draft, table).orElse(List.of(all));
  }

  /** As many rows in a statement as the engine takes, but no statement of a great length. */
  private void writtenOut(List<Integer> wave, List<Statement> statements) {
    var values = new ArrayList<String>();
    int length = 0;
    for (int row : wave) {
      String written = "  (" + literals.of(row) + ")";
      if (values.size() == dialect.rowsPerInsert() || length + written.length() > LONGEST) {
        insert(values, statements);
        length = 0;
      }
      values.add(written);
      length += written.length();
    }
    insert(values, statements);
  }

  private void insert(List<String> values, List<Statement> statements) {
    if (values.isEmpty()) {
      return;
    }
    String comment = told ? "" : table.label() + ": " + Counts.of(rows.count(), "row", "rows");
    told = true;
    statements.add(ofRows(comment, insertInto() + "\n" + String.join(",\n", values)));
    values.clear();
  }

  private String insertInto() {
    return "INSERT INTO "
        + dialect.name(table.name())
        + " ("
        + dialect.names(fields.stream().map(Field::name).toList())
        + ") VALUES";
  }

  /** Says where an engine keeps fewer decimals of a second than the rows have. */
  private void secondsLost(Field field) {
    if (!(field.type() instanceof FieldType.Time || field.type() instanceof FieldType.DateTime)) {
      return;
    }
    int kept = dialect.decimalsOfSeconds(SqlType.of(field.type()));
    int lost = 0;
    for (int row = 0; row < rows.count(); row++) {
      Optional<String> fraction = rows.cell(row, field.id()).filter(t -> t.indexOf('.') >= 0);
      Value value = ValueReader.valueOrNull(fraction, field.type());
      lost += nanos(value) % POWERS_OF_TEN[9 - kept] != 0 ? 1 : 0;
    }
    if (lost > 0) {
      shortfalls.add(
          new Shortfall(
              table.id(),
              Counts.of(lost, "value", "values") + " of " + field.label() + " of " + table.label(),
              dialect.engine()
                  + (kept == 0
                      ? " keeps whole seconds; what is beyond them is dropped."
                      : " keeps "
                          + kept
                          + " decimals of a second; what is beyond them is dropped.")));
    }
  }

  /** Says where a file is too great to be written out. */
  private void filesLeftOut(Field field) {
    if (!(field.type() instanceof FieldType.Content)) {
      return;
    }
    int most = dialect.mostBytesWritten();
    long lost =
        IntStream.range(0, rows.count())
            .mapToObj(row -> ValueReader.valueOrNull(rows.cell(row, field.id()), field.type()))
            .filter(value -> value instanceof Value.Bytes file && file.count() > most)
            .count();
    if (lost > 0) {
      shortfalls.add(
          new Shortfall(
              table.id(),
              Counts.of((int) lost, "file", "files")
                  + " in "
                  + field.label()
                  + " of "
                  + table.label(),
              dialect.engine()
                  + " takes at most "
                  + ByteSize.of(most)
                  + " written out; they are left empty."));
    }
  }

  private void locked(Field field) {
    shortfalls.add(
        new Shortfall(
            table.id(),
            "the secrets in " + field.label() + " of " + table.label(),
            "Joiner holds none; its rows have the mark “"
                + ShippedRows.LOCKED
                + "” there, which no secret opens, until one is set."));
  }

  private static int nanos(Value value) {
    return switch (value) {
      case Value.Time t -> t.time().getNano();
      case Value.DateTime d -> d.at().getNano();
      case Value.Zoned z -> z.at().getNano();
      default -> 0;
    };
  }
}
