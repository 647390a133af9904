package joiner.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.catalog.SqlType;
import joiner.engine.Dialect;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/** Writes one script: tables, rows, late relationships, indexes, descriptions. */
final class ScriptWriter {
  private static final int ROWS_PER_INSERT = 200;

  private final Draft draft;
  private final Dialect dialect;
  private final RowsChoice choice;
  private final List<Statement> statements = new ArrayList<>();
  private final List<Shortfall> shortfalls = new ArrayList<>();

  ScriptWriter(Draft draft, Dialect dialect, RowsChoice choice) {
    this.draft = draft;
    this.dialect = dialect;
    this.choice = choice;
  }

  SchemaScript write() {
    Lowered lowered = Lowered.of(draft, dialect, choice);
    shortfalls.addAll(lowered.shortfalls());
    for (int i = 0; i < lowered.tables().size(); i++) {
      Table table = lowered.tables().get(i);
      var definitions = new Definitions(dialect, lowered.catalog().tables().get(i));
      String note = table.description().isBlank() ? "" : ": " + table.description();
      statements.add(definitions.create(table.label() + note));
      statements.addAll(definitions.lateReferences());
      statements.addAll(definitions.indexes());
      statements.addAll(definitions.comments());
    }
    lowered.tables().stream().filter(choice::includes).forEach(this::rows);
    return new SchemaScript(
        dialect, dialect.opening(), inOrder(), dialect.closing(), shortfalls, lowered.catalog());
  }

  private List<Statement> inOrder() {
    var ordered = new ArrayList<Statement>();
    for (Statement.Section section : Statement.Section.values()) {
      statements.stream().filter(s -> s.section() == section).forEach(ordered::add);
    }
    return ordered;
  }

  private void rows(Table table) {
    Rows rows = draft.rows().of(table.id());
    if (rows.count() == 0) {
      return;
    }
    String head =
        "INSERT INTO "
            + dialect.name(table.name())
            + " ("
            + dialect.names(table.fields().stream().map(Field::name).toList())
            + ") VALUES\n";
    var literals = new RowLiterals(table, rows, dialect);
    for (int start = 0; start < rows.count(); start += ROWS_PER_INSERT) {
      String values =
          IntStream.range(start, Math.min(start + ROWS_PER_INSERT, rows.count()))
              .mapToObj(row -> "  (" + literals.of(row) + ")")
              .collect(Collectors.joining(",\n"));
      String comment = start == 0 ? table.label() + ": " + rows.count() + " rows" : "";
      statements.add(Statement.of(Statement.Section.ROWS, comment, head + values));
    }
    for (Field field : table.fields()) {
      if (field.type() instanceof FieldType.Counter) {
        restart(table, rows, field);
      }
      secondsLost(table, rows, field);
    }
  }

  /** Says where an engine keeps fewer decimals of a second than the rows have. */
  private void secondsLost(Table table, Rows rows, Field field) {
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

  private static final int[] POWERS_OF_TEN = {
    1, 10, 100, 1_000, 10_000, 100_000, 1_000_000, 10_000_000, 100_000_000, 1_000_000_000
  };

  private static int nanos(Value value) {
    return switch (value) {
      case Value.Time t -> t.time().getNano();
      case Value.DateTime d -> d.at().getNano();
      case Value.Zoned z -> z.at().getNano();
      default -> 0;
    };
  }

  private void restart(Table table, Rows rows, Field counter) {
    long highest = 0;
    for (int row = 0; row < rows.count(); row++) {
      if (ValueReader.valueOrNull(rows.cell(row, counter.id()), counter.type())
          instanceof Value.Num number) {
        highest = Math.max(highest, number.number().longValue());
      }
    }
    if (highest > 0 && highest < Long.MAX_VALUE) {
      dialect
          .restart(table.name(), counter.name(), highest + 1)
          .ifPresent(sql -> statements.add(Statement.of(Statement.Section.ROWS, "", sql)));
    }
  }
}
