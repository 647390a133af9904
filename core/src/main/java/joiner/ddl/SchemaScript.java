package joiner.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogChanges;
import joiner.catalog.Surroundings;
import joiner.engine.Dialect;
import joiner.meaning.Draft;

/**
 * The script that makes a design real on one engine.
 *
 * @param opening statements that begin it, such as the start of a transaction
 * @param statements in the order they must run
 * @param closing statements that end it
 * @param shortfalls what the engine cannot express
 * @param left rows that were to go along and are not written out, as sentences
 * @param promise what the database holds after the script has run
 */
public record SchemaScript(
    Dialect dialect,
    List<String> opening,
    List<Statement> statements,
    List<String> closing,
    List<Shortfall> shortfalls,
    List<String> left,
    Catalog promise) {

  public SchemaScript {
    opening = List.copyOf(opening);
    statements = List.copyOf(statements);
    closing = List.copyOf(closing);
    shortfalls = List.copyOf(shortfalls);
    left = List.copyOf(left);
  }

  /** Writes the script of a design. The same input gives the same script. */
  public static SchemaScript of(Draft draft, Dialect dialect, RowsChoice rows) {
    return new ScriptWriter(draft, dialect, rows, true).write();
  }

  /**
   * The script as it is sent: rows stand in it by their places, where the engine takes them in a
   * quicker way than written out.
   */
  public static SchemaScript toSend(Draft draft, Dialect dialect, RowsChoice rows) {
    boolean written = dialect.loading() == Dialect.Loading.STATEMENTS;
    return new ScriptWriter(draft, dialect, rows, written).write();
  }

  /**
   * Writes the script that changes a database that was made from one design into one of another.
   * Its rows stay; those that do not fit are refused by the engine. Tables and fields of one id are
   * the same ones. Whether rows refer to each other in a circle is told by those of the designs.
   *
   * @param before the design the database was made from
   * @param after the one it shall be of
   * @param there what stands around the tables of the database; where it is not known, views may
   *     hinder changes, and triggers and grants go with tables that are made anew
   */
  public static SchemaScript changing(
      Draft before, Draft after, Surroundings there, Dialect dialect) {
    Lowered one = Lowered.of(before, dialect, RowsChoice.ALL);
    Lowered other = Lowered.of(after, dialect, RowsChoice.ALL);
    var changes =
        CatalogChanges.between(
            asThere(one.catalog(), dialect),
            asThere(other.catalog(), dialect),
            Lowered.same(one, other));
    var own = new OwnSurroundings(one.catalog(), other.catalog(), there, changes, dialect);
    var writer = new ChangeWriter(changes, own.others(), dialect);
    List<Statement> statements = own.around(writer.write());
    var shortfalls = new ArrayList<>(other.shortfalls());
    writer
        .lost()
        .forEach(
            (trigger, table) ->
                shortfalls.add(
                    new Shortfall(
                        after.design().tableNamed(table).orElseThrow().id(),
                        "the trigger " + trigger.name() + " of " + trigger.table(),
                        "it goes with its table, which is made anew under another name.")));
    return new SchemaScript(
        dialect,
        dialect.alter().opening(),
        statements,
        dialect.alter().closing(),
        shortfalls,
        List.of(),
        other.catalog());
  }

  /** When a foreign key is declared makes no difference here, nor does a name that is not kept. */
  private static Catalog asThere(Catalog catalog, Dialect dialect) {
    return new Catalog(
        catalog.tables().stream()
            .map(table -> table.withReferences(false))
            .map(table -> table.withPrimaryKeyNamed(dialect.alter()::primaryKey))
            .toList(),
        catalog.sequences());
  }

  private void say(StringBuilder out, Predicate<Shortfall> which) {
    shortfalls.stream()
        .filter(which)
        .forEach(
            s ->
                out.append("--   ")
                    .append(oneLine(s.subject()))
                    .append(": ")
                    .append(oneLine(s.reason()))
                    .append('\n'));
  }

  /** The statements of one section. */
  public List<Statement> section(Statement.Section section) {
    return statements.stream().filter(statement -> statement.section() == section).toList();
  }

  /** The whole script with its comments; what the engine cannot express stands at the top. */
  public String text(String title) {
    return text(title, List.of());
  }

  /**
   * The whole script with its comments.
   *
   * @param does what it does to data that is there, a sentence each
   */
  public String text(String title, List<String> does) {
    var out = new StringBuilder();
    out.append("-- ").append(oneLine(title)).append(" for ").append(dialect.engine()).append('\n');
    if (!does.isEmpty()) {
      out.append("-- What it does to what is there:\n");
      does.forEach(sentence -> out.append("--   ").append(oneLine(sentence)).append('\n'));
    }
    if (shortfalls.stream().allMatch(Shortfall::elsewhere)) {
      out.append("-- Everything in the design is kept by the database.\n");
    } else {
      out.append("-- Not kept by the database, only seen by an audit:\n");
      say(out, s -> !s.elsewhere());
    }
    if (shortfalls.stream().anyMatch(Shortfall::elsewhere)) {
      out.append("-- Kept in another place:\n");
      say(out, Shortfall::elsewhere);
    }
    if (!left.isEmpty()) {
      out.append("-- Not in this script:\n");
      left.forEach(sentence -> out.append("--   ").append(oneLine(sentence)).append('\n'));
    }
    if (!dialect.caveats().isEmpty()) {
      out.append("-- On ").append(dialect.engine()).append(":\n");
      dialect.caveats().forEach(c -> out.append("--   ").append(c).append('\n'));
    }
    opening.forEach(sql -> out.append('\n').append(dialect.ended(sql)));
    out.append(opening.isEmpty() ? "" : "\n");
    for (Statement.Section section : Statement.Section.values()) {
      append(section, out);
    }
    closing.forEach(sql -> out.append('\n').append(dialect.ended(sql)).append('\n'));
    return out.toString();
  }

  private void append(Statement.Section section, StringBuilder out) {
    List<Statement> own = section(section);
    if (!own.isEmpty()) {
      out.append("\n-- ").append(section.title()).append('\n').append(text(own, dialect));
    }
  }

  /** Statements as text, a comment above each that has one. */
  public static String text(List<Statement> statements, Dialect dialect) {
    var lines = new ArrayList<String>();
    for (Statement statement : statements) {
      String comment =
          statement.comment().isEmpty() ? "" : "\n-- " + oneLine(statement.comment()) + "\n";
      lines.add(comment + dialect.ended(statement.sql()) + "\n");
    }
    return lines.stream().collect(Collectors.joining());
  }

  private static String oneLine(String text) {
    return text.replaceAll("\\R", " ");
  }
}
