package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import joiner.Pottery;
import joiner.ddl.RowsChoice;
import joiner.engine.Dialect;
import joiner.engine.Support;
import joiner.expression.Checked;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.expression.Width;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.OwnField;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.reasoning.Reasoner;
import joiner.reasoning.Understood;
import joiner.reasoning.Witness;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A row that is shown of a rule passes or fails in every engine as it is said. */
class WitnessesOnEnginesTest {
  @TempDir private Path folder;
  private int compared;

  /** A row with what is said of it. */
  private record Shown(Checked.Sound rule, Witness row, boolean passes) {}

  private static List<Shown> shown(TableMeaning meaning, Reasoner reasoner) {
    var all = new ArrayList<Shown>();
    Map<Rule, Constraint.Holds> ofRows =
        meaning.rules().stream().collect(Collectors.toMap(Constraint.Holds::rule, h -> h));
    for (Understood understood : reasoner.rules(meaning)) {
      Constraint.Holds holds = ofRows.get(understood.rule());
      if (holds == null) {
        continue; // What several rows keep has no row that shows it.
      }
      var sound = (Checked.Sound) holds.condition();
      boolean here = sound.reads().stream().allMatch(OwnField.class::isInstance);
      if (here && !sound.readsClock()) {
        understood.passes().forEach(row -> all.add(new Shown(sound, row, true)));
        understood.fails().forEach(row -> all.add(new Shown(sound, row, false)));
      }
    }
    return all;
  }

  /** The fields of a table and nothing that would keep a row out. */
  private static Draft bare(Table table, List<Shown> shown) {
    var fields = new ArrayList<Field>();
    fields.add(Field.of("row_no", "Row", new FieldType.WholeNumber(Width.BITS_32)));
    table.fields().stream()
        .filter(field -> !field.isComputed())
        .map(f -> Field.of(f.name(), f.label(), plain(f.type())).withId(f.id()))
        .forEach(fields::add);
    Table bare = Table.of(table.name(), table.label(), table.noun()).withFields(fields);
    var rows = new ArrayList<List<Optional<String>>>();
    for (Shown one : shown) {
      int number = rows.size();
      rows.add(
          fields.stream()
              .map(
                  field ->
                      field.name().equals("row_no")
                          ? Optional.of(String.valueOf(number))
                          : Optional.ofNullable(
                                  one.row.values().get(OwnField.of(own(table, field))))
                              .filter(value -> !(value instanceof Value.Null))
                              .map(Evaluator::show))
              .toList());
    }
    return new Draft(
        Design.empty("shown", "Shown").withTableAdded(bare),
        new SampleRows(Map.of(bare.id(), Rows.of(bare.fieldIds(), rows))));
  }

  private static Field own(Table table, Field field) {
    return table.hasField(field.id()) ? table.field(field.id()) : field;
  }

  private static FieldType plain(FieldType type) {
    return switch (type) {
      case FieldType.Choice choice -> new FieldType.Text(80);
      case FieldType.Counter counter -> new FieldType.WholeNumber(counter.width());
      default -> type;
    };
  }

  private void compare(Table table, List<Shown> shown) throws Exception {
    if (shown.isEmpty()) {
      return;
    }
    for (String url : Databases.fresh(folder)) {
      Dialect dialect = Shipment.dialectOf(url);
      Shipment.ship(bare(table, shown), Target.of(url), RowsChoice.ALL, Progress.NONE);
      try (Connection connection = DriverManager.getConnection(url)) {
        for (int i = 0; i < shown.size(); i++) {
          Shown one = shown.get(i);
          if (dialect.sayCondition(one.rule.tree()) instanceof Support.Kept kept) {
            String sql =
                "SELECT CASE WHEN NOT ("
                    + kept.sql()
                    + ") THEN 0 ELSE 1 END FROM "
                    + dialect.name(table.name())
                    + " WHERE row_no = "
                    + i;
            assertThat(passes(connection, sql))
                .as("%s on %s: %s", one.row.texts(), dialect.engine(), sql)
                .isEqualTo(one.passes);
            compared++;
          }
        }
      }
      Databases.drop(url);
    }
  }

  /** An engine that cannot work a condition out refuses the row. */
  private static boolean passes(Connection connection, String sql) {
    try (Statement statement = connection.createStatement();
        ResultSet result = statement.executeQuery(sql)) {
      return result.next() && result.getInt(1) == 1;
    } catch (SQLException refused) {
      return false;
    }
  }

  @Test
  void everyEngineSeesTheRowsOfTheDemoAndOfOtherRulesAsTheyAreShown() throws Exception {
    try (var reasoner = new Reasoner(Pottery.CLOCK, Duration.ofMillis(400))) {
      Draft demo = Pottery.demo();
      for (Table table : demo.design().tables()) {
        compare(table, shown(demo.meaning().of(table), reasoner));
      }
      for (String condition :
          List.of(
              "peak_c > 1000 AND remark LIKE 'a%'",
              "peak_c / 100 = 9 OR remark IS NULL",
              "MOD(peak_c, 100) = 50 AND peak_c >= 1000",
              "CHAR_LENGTH(remark) = 3 OR peak_c < 600",
              "SUBSTRING(remark FROM 2 FOR 2) = 'xy'",
              "POSITION('z' IN remark) = 4",
              "EXTRACT(HOUR FROM started_at) >= 22 OR EXTRACT(MINUTE FROM started_at) = 30",
              "EXTRACT(ISODOW FROM started_at) IN (6, 7)",
              "COALESCE(peak_c, 0) > 1100",
              "CASE WHEN peak_c > 1200 THEN remark IS NOT NULL ELSE ended_at > started_at END")) {
        Table firing =
            demo.design()
                .table(new TableId("firing"))
                .withRules(List.of(new Rule("r", "R", condition, "")));
        Draft ruled = demo.withDesign(demo.design().withTable(firing.id(), t -> firing));
        List<Shown> rows = shown(ruled.meaning().of(firing), reasoner);
        compare(firing, rows);
      }
    }
    System.out.println("rows of rules compared: " + compared);
    assertThat(compared).isGreaterThan(100);
  }
}
