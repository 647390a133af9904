package joiner.ddl;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/** Writes one script: tables, rows, late relationships, indexes, descriptions. */
final class ScriptWriter {
  private static final int ROWS_PER_INSERT = 200;

  private final Draft draft;
  private final Design design;
  private final Dialect dialect;
  private final RowsChoice choice;
  private final ConstraintNames names;
  private final Map<TableId, List<Relationship>> byChild;
  private final List<Statement> statements = new ArrayList<>();
  private final List<Shortfall> shortfalls = new ArrayList<>();
  private final Map<String, Catalog.CatalogTable> promised = new LinkedHashMap<>();

  ScriptWriter(Draft draft, Dialect dialect, RowsChoice choice) {
    this.draft = draft;
    this.design = draft.design();
    this.dialect = dialect;
    this.choice = choice;
    this.names = new ConstraintNames(dialect.identifiers());
    this.byChild =
        design.relationships().stream().collect(Collectors.groupingBy(Relationship::child));
  }

  SchemaScript write() {
    TableOrder order = TableOrder.of(design);
    for (Table table : order.tables()) {
      List<Relationship> own = byChild.getOrDefault(table.id(), List.of());
      var writer =
          new TableWriter(
              design, draft.meaning().of(table), own, r -> isLate(r, order), dialect, names);
      statements.add(writer.create());
      writer.late().forEach(statements::add);
      shortfalls.addAll(writer.shortfalls());
      indexes(table);
      promised.put(dialect.identifiers().stored(table.name()), writer.promise());
      descriptions(table);
    }
    order.tables().stream().filter(choice::includes).forEach(this::rows);
    return new SchemaScript(
        dialect,
        dialect.opening(),
        inOrder(),
        dialect.closing(),
        shortfalls,
        new Catalog(promised));
  }

  /** Rows that refer to each other in a circle go in before the reference is declared. */
  private boolean isLate(Relationship r, TableOrder order) {
    boolean withRows = r.isSelfReference() && choice.includes(design.table(r.child()));
    return !dialect.refersAhead() && (withRows || order.late().contains(r.id()));
  }

  private List<Statement> inOrder() {
    var ordered = new ArrayList<Statement>();
    for (Statement.Section section : Statement.Section.values()) {
      statements.stream().filter(s -> s.section() == section).forEach(ordered::add);
    }
    return ordered;
  }

  private void indexes(Table table) {
    for (Index index : table.indexes()) {
      String sql =
          "CREATE INDEX "
              + dialect.name(names.take(index.name()))
              + " ON "
              + dialect.name(table.name())
              + " ("
              + dialect.names(table.namesOf(index.fields()))
              + ")";
      statements.add(Statement.of(Statement.Section.INDEXES, "", sql));
    }
  }

  private void descriptions(Table table) {
    if (!table.description().isBlank()) {
      dialect.tableComment(table.name(), table.description()).ifPresent(this::description);
    }
    for (Field field : table.fields()) {
      if (!field.description().isBlank()) {
        dialect
            .columnComment(table.name(), field.name(), field.description())
            .ifPresent(this::description);
      }
    }
  }

  private void description(String sql) {
    statements.add(Statement.of(Statement.Section.DESCRIPTIONS, "", sql));
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
    int kept = dialect.decimalsOfSeconds(field.type());
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
