package joiner.ddl;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Draft;
import joiner.rows.Rows;

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
      var writer = new TableWriter(design, table, own, r -> isLate(r, order), dialect, names);
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
      statements.add(new Statement(Statement.Section.INDEXES, "", sql));
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
    statements.add(new Statement(Statement.Section.DESCRIPTIONS, "", sql));
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
      statements.add(new Statement(Statement.Section.ROWS, comment, head + values));
    }
    table.fields().stream()
        .filter(f -> f.type() instanceof FieldType.Counter)
        .forEach(f -> restart(table, rows, f.id()));
  }

  private void restart(Table table, Rows rows, FieldId counter) {
    Optional<Long> highest = Optional.empty();
    for (int row = 0; row < rows.count(); row++) {
      Optional<Long> number =
          rows.cell(row, counter).filter(text -> text.matches("\\d{1,18}")).map(Long::valueOf);
      if (number.isPresent() && (highest.isEmpty() || number.get() > highest.get())) {
        highest = number;
      }
    }
    highest
        .flatMap(number -> dialect.restart(table.name(), table.field(counter).name(), number + 1))
        .ifPresent(sql -> statements.add(new Statement(Statement.Section.ROWS, "", sql)));
  }
}
