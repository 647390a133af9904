package joiner.ddl;

import java.util.ArrayList;
import java.util.List;
import joiner.catalog.CatalogTable;
import joiner.catalog.Sequence;
import joiner.engine.Dialect;
import joiner.meaning.Draft;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.LinkedRows;

/** Writes one script: tables, rows, late relationships, indexes, descriptions. */
final class ScriptWriter {
  private final Draft draft;
  private final Dialect dialect;
  private final RowsChoice choice;
  private final boolean written;
  private final List<Statement> statements = new ArrayList<>();
  private final List<Shortfall> shortfalls = new ArrayList<>();
  private final List<String> left = new ArrayList<>();

  /**
   * A script to write.
   *
   * @param written whether rows are written out, rather than told by their places
   */
  ScriptWriter(Draft draft, Dialect dialect, RowsChoice choice, boolean written) {
    this.draft = draft;
    this.dialect = dialect;
    this.choice = choice;
    this.written = written;
  }

  SchemaScript write() {
    Lowered lowered = Lowered.of(draft, dialect, choice);
    shortfalls.addAll(lowered.shortfalls());
    for (Sequence sequence : lowered.catalog().sequences()) {
      statements.add(Definitions.create(sequence, dialect));
    }
    for (int i = 0; i < lowered.tables().size(); i++) {
      Table table = lowered.tables().get(i);
      String note = table.description().isBlank() ? "" : ": " + table.description();
      CatalogTable made = lowered.catalog().tables().get(i);
      statements.addAll(Definitions.all(made, dialect, table.label() + note));
    }
    lowered.tables().stream().filter(choice::includes).forEach(this::rows);
    if (lowered.tables().stream().anyMatch(this::bringsRows)) {
      lowered.catalog().sequences().stream()
          .flatMap(sequence -> Definitions.soFar(sequence).stream())
          .forEach(statements::add);
    }
    statements.addAll(Definitions.all(lowered.catalog().around(), dialect));
    return new SchemaScript(
        dialect,
        dialect.opening(),
        inOrder(),
        dialect.closing(),
        shortfalls,
        left,
        lowered.catalog());
  }

  private boolean bringsRows(Table table) {
    return choice.includes(table) && draft.rows().of(table.id()).count() > 0;
  }

  private void rows(Table table) {
    var rows = new RowStatements(draft, table, dialect, written);
    statements.addAll(rows.write());
    shortfalls.addAll(rows.shortfalls());
    draft.rows().link(table.id()).ifPresent(link -> left.add(left(table, link)));
  }

  /** Rows that stay in a file are too many to be written out. */
  private static String left(Table table, LinkedRows link) {
    return Counts.of(link.count(), "row", "rows")
        + " of "
        + table.label()
        + (link.count() == 1 ? ", which stays in " : ", which stay in ")
        + link.fileName()
        + "; a shipment reads them from there.";
  }

  private List<Statement> inOrder() {
    var ordered = new ArrayList<Statement>();
    for (Statement.Section section : Statement.Section.values()) {
      statements.stream().filter(s -> s.section() == section).forEach(ordered::add);
    }
    return ordered;
  }
}
