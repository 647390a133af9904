package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.catalog.View;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.edit.SetOrigin;
import joiner.engine.Dialect;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.meaning.WorkedOut;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What no column can hold stands in the view of its table, as Joiner works it out. */
class TableViewsTest {
  private static final TableId FIRING = new TableId("firing");
  private static final TableId PIECE = new TableId("piece");

  @TempDir private Path folder;

  private static Draft with(Draft draft, TableId table, String name, String formula) {
    Field field = Field.of(name, name, new FieldType.Text(1));
    Table added = draft.design().table(table).withFieldAdded(field);
    return SetOrigin.by(added, field, new Formula(formula))
        .apply(draft.withDesign(draft.design().withTable(table, t -> added)));
  }

  /** Values of parents, of their parents, of a parent's computed field, and of the row itself. */
  private static Draft carried() {
    Draft draft = with(Pottery.demo(), FIRING, "kiln_name", "kiln_id.name");
    draft = with(draft, FIRING, "too_hot", "peak_c > cone_no.end_c + 50");
    draft = with(draft, FIRING, "loader", "UPPER(loaded_by.family_name)");
    draft = with(draft, PIECE, "fired_in", "firing_id.kiln_id.name");
    draft = with(draft, PIECE, "fired_by", "COALESCE(firing_id.loader, 'nobody yet')");
    return with(draft, PIECE, "long_mark", "mark || ' of ' || maker_id.given_name");
  }

  private static List<String> views(Draft draft, Dialect dialect) {
    return SchemaScript.of(draft, dialect, RowsChoice.NONE).promise().around().views().stream()
        .map(View::name)
        .toList();
  }

  @Test
  void everyEngineShowsWhatIsWorkedOut() throws Exception {
    Draft draft = carried();
    for (String url : Databases.fresh(folder)) {
      var shipped = Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
      assertThat(shipped.verification().differences()).as(url).isEmpty();
      for (TableId table : List.of(FIRING, PIECE)) {
        for (Field field : draft.design().table(table).fields()) {
          if (field.isComputed()) {
            assertThat(column(url, table + "_view", table + "_id", field))
                .as("%s of %s in %s", field.name(), table, url)
                .isEqualTo(worked(draft, table, field.id()));
          }
        }
      }
    }
  }

  private static List<Optional<String>> worked(Draft draft, TableId id, FieldId field) {
    Table table = draft.design().table(id);
    Rows rows = WorkedOut.of(draft, table, Pottery.CLOCK).in(draft.rows().of(id), field);
    var cells = new ArrayList<Optional<String>>();
    for (int row = 0; row < rows.count(); row++) {
      cells.add(rows.cell(row, field));
    }
    return cells;
  }

  private static List<Optional<String>> column(String url, String view, String key, Field field)
      throws SQLException {
    try (Connection connection = DriverManager.getConnection(url);
        var statement = connection.createStatement();
        ResultSet rows =
            statement.executeQuery(
                "SELECT " + field.name() + " FROM " + view + " ORDER BY " + key)) {
      var found = new ArrayList<Optional<String>>();
      while (rows.next()) {
        boolean truth = field.type() instanceof FieldType.TrueFalse;
        Object value = truth ? (Object) rows.getBoolean(1) : rows.getString(1);
        found.add(rows.wasNull() ? Optional.empty() : Optional.of(String.valueOf(value)));
      }
      return found;
    }
  }

  /** A name of a parent changes, and so does what the view reads. */
  @Test
  void aViewGoesWithTheTablesItReads() throws Exception {
    Draft before = carried();
    Draft after =
        new joiner.edit.RemoveField(PIECE, new FieldId("fired_in"), "fired_in")
            .apply(
                joiner.edit.ChangeField.type(
                        before.design().table(new TableId("kiln")),
                        before.design().table(new TableId("kiln")).field(new FieldId("name")),
                        new FieldType.Text(60))
                    .apply(before));
    for (String url : Databases.fresh(folder)) {
      Dialect dialect = Shipment.dialectOf(url);
      Shipment.ship(before, Target.of(url), RowsChoice.ALL, Progress.NONE);
      LiveDesign live = LiveDesign.of(before, Target.of(url));
      SchemaScript change = SchemaScript.changing(before, after, live.around(), dialect);
      try (Connection connection = DriverManager.getConnection(url);
          var statement = connection.createStatement()) {
        for (String sql : change.opening()) {
          statement.execute(sql);
        }
        for (var step : change.statements()) {
          statement.execute(step.sql());
        }
        for (String sql : change.closing()) {
          statement.execute(sql);
        }
      }
      assertThat(views(after, dialect)).as(url).contains("firing_view", "piece_view");
      Field name = after.design().table(FIRING).field(new FieldId("kiln_name"));
      assertThat(column(url, "firing_view", "firing_id", name))
          .as(url)
          .isEqualTo(worked(after, FIRING, name.id()));
    }
  }
}
