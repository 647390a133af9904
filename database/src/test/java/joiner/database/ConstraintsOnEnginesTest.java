package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Properties;
import java.util.function.UnaryOperator;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.engine.Dialect;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Limits;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.UniqueKey;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * What a constraint means, put to the engines themselves: values at its very edge that have to be
 * taken, and those just beyond that have to be refused. The values follow from the meaning, never
 * from the script.
 */
class ConstraintsOnEnginesTest {
  @TempDir private Path folder;

  /** A constraint on the field {@code x} of a table, with SQL literals on both of its sides. */
  private record Case(
      String table, UnaryOperator<Table> constraint, List<String> taken, List<String> refused) {}

  private static Case type(String name, FieldType type, List<String> taken, List<String> refused) {
    return new Case(name, t -> t.withField(x(), f -> f.withType(type)), taken, refused);
  }

  private static Case limits(String name, Limits limits, List<String> taken, List<String> refused) {
    return new Case(
        name,
        t ->
            t.withField(
                x(), f -> f.withType(new FieldType.WholeNumber(Width.BITS_32)).withLimits(limits)),
        taken,
        refused);
  }

  private static FieldId x() {
    return new FieldId("x");
  }

  private static Limits bounds(String least, String most, String above, String below) {
    return new Limits(
        Optional.ofNullable(least),
        Optional.ofNullable(most),
        Optional.ofNullable(above),
        Optional.ofNullable(below),
        Optional.empty(),
        OptionalInt.empty(),
        List.of());
  }

  private static List<Case> cases() {
    return List.of(
        type("text", new FieldType.Text(5), List.of("'abcde'", "'ééééé'"), List.of("'abcdef'")),
        type(
            "small",
            new FieldType.WholeNumber(Width.BITS_16),
            List.of("-32768", "32767"),
            List.of("32768", "-32769", "'kiln'")),
        type(
            "whole",
            new FieldType.WholeNumber(Width.BITS_32),
            List.of("2147483647", "-2147483648"),
            List.of("2147483648", "'kiln'")),
        type(
            "price",
            new FieldType.Decimal(5, 2),
            List.of("999.99", "-999.99", "0"),
            List.of("1000", "-1000", "'kiln'")),
        type("truth", new FieldType.TrueFalse(), List.of("TRUE", "FALSE"), List.of("'maybe'")),
        type(
            "fired_on",
            new FieldType.Date(),
            List.of("'2026-03-14'", "'2024-02-29'"),
            List.of("'2026-13-01'", "'2026-02-30'", "'soon'")),
        type("fired_at", new FieldType.Time(), List.of("'18:05:00'"), List.of("'25:00:00'", "'x'")),
        type(
            "mark",
            new FieldType.Uuid(),
            List.of("'6f9619ff-8b86-4011-b42d-00c04fc964ff'"),
            List.of("'6f9619ff'", "'kiln'")),
        type(
            "heat",
            FieldType.Choice.of(List.of("low", "it's")),
            List.of("'low'", "'it''s'"),
            List.of("'mid'", "'LOW'")),
        limits("inclusive", bounds("1", "5", null, null), List.of("1", "5"), List.of("0", "6")),
        limits("exclusive", bounds(null, null, "1", "5"), List.of("2", "4"), List.of("1", "5")),
        new Case(
            "share",
            t ->
                t.withField(
                    x(),
                    f ->
                        f.withType(new FieldType.Decimal(2, 2))
                            .withLimits(bounds("0", "7.5", null, null))),
            List.of("0", "0.99"),
            List.of("-0.25", "1")),
        new Case(
            "short",
            t ->
                t.withField(
                    x(),
                    f ->
                        f.withLimits(
                            new Limits(
                                Optional.empty(),
                                Optional.empty(),
                                Optional.empty(),
                                Optional.empty(),
                                Optional.empty(),
                                OptionalInt.of(3),
                                List.of()))),
            List.of("'abc'", "NULL"),
            List.of("'ab'", "''")),
        new Case(
            "patterned",
            t ->
                t.withField(
                    x(), f -> f.withLimits(Limits.NONE.withPattern(Optional.of("[A-Z]{2}[0-9]+")))),
            List.of("'KL7'", "'KL77'"),
            List.of("'kl7'", "'KL7x'", "'xKL7'")),
        new Case(
            "needed",
            t -> t.withField(x(), f -> f.withRequired(true)),
            List.of("'a'"),
            List.of("NULL")),
        new Case(
            "once",
            t -> t.withUniqueKeys(List.of(new UniqueKey("uq_once", List.of(x())))),
            List.of("'a'", "'b'", "NULL", "NULL"),
            List.of("'a'")),
        new Case(
            "ruled",
            t -> t.withRules(List.of(new Rule("ck_ruled", "R", "CHAR_LENGTH(x) <> 2", ""))),
            List.of("'a'", "'abc'", "NULL"),
            List.of("'ab'")));
  }

  private static Draft design(List<Case> cases) {
    Design design = Design.empty("edges", "Edges");
    for (Case one : cases) {
      Table table =
          Table.of(one.table(), one.table(), new Noun("row", "rows"))
              .withFields(
                  List.of(
                      Field.of("id", "Id", new FieldType.Counter(Width.BITS_32)).withRequired(true),
                      Field.of("x", "X", new FieldType.Text(40))))
              .withPrimaryKey(List.of(new FieldId("id")));
      design = design.withTableAdded(one.constraint().apply(table));
    }
    Table parent = design.tableNamed("needed").orElseThrow();
    Table child =
        Table.of("tied", "tied", new Noun("row", "rows"))
            .withFields(
                List.of(
                    Field.of("id", "Id", new FieldType.Counter(Width.BITS_32)).withRequired(true),
                    Field.of("x", "X", new FieldType.WholeNumber(Width.BITS_32))))
            .withPrimaryKey(List.of(new FieldId("id")));
    return new Draft(
        design.withTableAdded(
            child,
            Relationship.of("fk_tied", child.id(), List.of(x()), parent.id(), parent.primaryKey())),
        SampleRows.NONE);
  }

  /** In a statement of its own, for some drivers close one that fails. */
  private static boolean takes(Connection connection, String table, String literal) {
    try (Statement statement = connection.createStatement()) {
      statement.execute("INSERT INTO " + table + " (x) VALUES (" + literal + ")");
      return true;
    } catch (SQLException refused) {
      return false;
    }
  }

  @Test
  void everyEngineDrawsTheLineWhereTheConstraintDoes() throws Exception {
    List<Case> cases = new ArrayList<>(cases());
    Draft draft = design(cases);
    cases.add(new Case("tied", t -> t, List.of("1", "NULL"), List.of("77")));
    List<String> urls = Databases.fresh(folder);
    for (String url : urls) {
      Dialect dialect = Shipment.dialectOf(url);
      Shipment.ship(draft, Target.of(url), RowsChoice.NONE, Progress.NONE);
      List<String> announced =
          SchemaScript.of(draft, dialect, RowsChoice.NONE).shortfalls().stream()
              .map(shortfall -> shortfall.table().value())
              .toList();
      var properties = new Properties();
      properties.putAll(dialect.connectionProperties());
      try (Connection connection = DriverManager.getConnection(url, properties)) {
        for (Case one : cases) {
          check(connection, one, dialect.engine(), announced.contains(one.table()));
        }
      }
    }
  }

  private static void check(Connection connection, Case one, String engine, boolean announced) {
    for (String literal : one.taken()) {
      assertThat(takes(connection, one.table(), literal))
          .as(engine + " takes " + literal + " in " + one.table())
          .isTrue();
    }
    for (String literal : one.refused()) {
      assertThat(announced || !takes(connection, one.table(), literal))
          .as(engine + " refuses " + literal + " in " + one.table())
          .isTrue();
    }
  }
}
