package joiner.ddl;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import joiner.catalog.Grant;
import joiner.catalog.Surroundings;
import joiner.catalog.Trigger;
import joiner.catalog.View;
import joiner.edit.AddField;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.edit.Edit;
import joiner.edit.RemoveTable;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;

/** What a script says that changes a database; that it works is a law over engines. */
class ChangingTest {
  private static final Field ID =
      Field.of("kiln_id", "Number", new FieldType.Counter(Width.BITS_32));
  private static final Field NAME = Field.of("name", "Name", new FieldType.Text(20));
  private static final Table KILN =
      Table.of("kiln", "Kiln", new Noun("kiln", "kilns"))
          .withFields(List.of(ID, NAME))
          .withPrimaryKey(List.of(ID.id()));
  private static final Field FIRED =
      Field.of("kiln_id", "Kiln", new FieldType.WholeNumber(Width.BITS_32));
  private static final Field NO = Field.of("no", "No", new FieldType.Text(6));
  private static final Table FIRING =
      Table.of("set_aside_1", "Firing", new Noun("firing", "firings"))
          .withFields(List.of(NO, FIRED))
          .withPrimaryKey(List.of(NO.id()));
  private static final Draft STUDIO =
      new Draft(
          Design.empty("s", "Studio")
              .withTableAdded(KILN)
              .withTableAdded(FIRING)
              .withRelationshipAdded(
                  Relationship.of(
                      "fk_fired", FIRING.id(), List.of(FIRED.id()), KILN.id(), List.of(ID.id()))),
          SampleRows.NONE);

  private static SchemaScript changed(Dialect dialect, Surroundings there, Edit... edits) {
    Draft after = Edit.all("change", List.of(edits)).apply(STUDIO);
    return SchemaScript.changing(STUDIO, after, there, dialect);
  }

  private static List<String> statements(SchemaScript script) {
    return script.statements().stream().map(Statement::sql).toList();
  }

  private static List<String> changed(Dialect dialect, Edit... edits) {
    return statements(changed(dialect, Surroundings.NONE, edits));
  }

  @Test
  void nothingIsSaidOfWhatStays() {
    for (Dialect dialect : Dialects.ALL) {
      assertThat(changed(dialect)).as(dialect.engine()).isEmpty();
    }
  }

  @Test
  void whatDependsOnAColumnLetsGoFirstAndComesBackInTheEnd() {
    Edit[] wider = {
      ChangeField.type(KILN, ID, new FieldType.WholeNumber(Width.BITS_64)),
      ChangeField.type(FIRING, NO, new FieldType.Text(9))
    };
    assertThat(changed(Dialects.POSTGRESQL, wider[1]))
        .containsExactly(
            "ALTER TABLE set_aside_1 DROP CONSTRAINT IF EXISTS pk_set_aside_1",
            "ALTER TABLE set_aside_1 ALTER COLUMN no TYPE varchar(9) USING CAST(no AS varchar(9))",
            "ALTER TABLE set_aside_1 ADD CONSTRAINT pk_set_aside_1 PRIMARY KEY (no)");
    assertThat(changed(Dialects.POSTGRESQL, wider[0]))
        .as("a counter that ends")
        .startsWith(
            "ALTER TABLE set_aside_1 DROP CONSTRAINT fk_fired",
            "CREATE TABLE set_aside_2 AS SELECT * FROM kiln",
            "DROP TABLE kiln")
        .endsWith(
            "ALTER TABLE set_aside_1 ADD CONSTRAINT fk_fired FOREIGN KEY (kiln_id) REFERENCES kiln"
                + " (kiln_id)",
            "DROP TABLE set_aside_2");
  }

  @Test
  void anEngineThatChangesNothingMakesTheTableAnewAndOneThatIsParticularItsFamilyToo() {
    Edit wider = ChangeField.type(KILN, NAME, new FieldType.Text(30));
    assertThat(changed(Dialects.SQLITE, wider))
        .filteredOn(sql -> sql.startsWith("DROP TABLE"))
        .containsExactly("DROP TABLE kiln", "DROP TABLE set_aside_2");
    assertThat(changed(Dialects.DUCKDB, wider))
        .filteredOn(sql -> sql.startsWith("DROP TABLE"))
        .containsExactly(
            "DROP TABLE set_aside_1",
            "DROP TABLE kiln",
            "DROP TABLE set_aside_2",
            "DROP TABLE set_aside_3");
    assertThat(changed(Dialects.SQLITE, Surroundings.NONE, wider).closing())
        .contains(
            "INSERT INTO rows_that_refer_to_none SELECT count(*) FROM pragma_foreign_key_check");
  }

  @Test
  void aNewFieldThatMustBeFilledIsRefusedByTheEngineWhereThereAreRows() {
    Field litres =
        Field.of("litres", "Litres", new FieldType.WholeNumber(Width.BITS_32)).withRequired(true);
    assertThat(changed(Dialects.MARIADB, new AddField(KILN.id(), litres)))
        .containsExactly(
            "ALTER TABLE kiln ADD COLUMN litres integer NULL",
            "ALTER TABLE kiln MODIFY COLUMN litres integer NOT NULL");
    assertThat(changed(Dialects.H2, new AddField(KILN.id(), litres)))
        .containsExactly("ALTER TABLE kiln ADD COLUMN litres integer NOT NULL");
  }

  @Test
  void aTableThatGoesLeavesNothingThatRefersToIt() {
    assertThat(changed(Dialects.POSTGRESQL, new RemoveTable(KILN.id(), "Kiln")))
        .containsExactly("ALTER TABLE set_aside_1 DROP CONSTRAINT fk_fired", "DROP TABLE kiln");
  }

  @Test
  void namesAreGivenAsEachEngineDoes() {
    Edit oven = ChangeTable.rename(KILN, "oven", "Oven", new Noun("oven", "ovens"));
    assertThat(changed(Dialects.H2, oven)).contains("ALTER TABLE kiln RENAME TO oven");
    assertThat(changed(Dialects.SQL_SERVER, oven))
        .contains("EXEC sp_rename N'kiln', N'oven', N'OBJECT'");
    Edit called = ChangeField.rename(KILN, NAME, "Called", "called");
    assertThat(changed(Dialects.H2, called))
        .containsExactly("ALTER TABLE kiln ALTER COLUMN name RENAME TO called");
    assertThat(changed(Dialects.ORACLE, called))
        .containsExactly("ALTER TABLE kiln RENAME COLUMN name TO called");
  }

  @Test
  void descriptionsComeGoAndChange() {
    Edit noted = ChangeTable.description(KILN, "Hot");
    assertThat(changed(Dialects.POSTGRESQL, noted))
        .containsExactly("COMMENT ON TABLE kiln IS 'Hot'");
    assertThat(changed(Dialects.MARIADB, noted))
        .containsExactly("ALTER TABLE kiln COMMENT = 'Hot'");
    assertThat(changed(Dialects.SQL_SERVER, noted))
        .singleElement()
        .asString()
        .contains("sp_addextendedproperty N'MS_Description', N'Hot'");
    Draft after = noted.apply(STUDIO);
    SchemaScript back =
        SchemaScript.changing(after, STUDIO, Surroundings.NONE, Dialects.SQL_SERVER);
    assertThat(statements(back))
        .singleElement()
        .asString()
        .contains("sp_dropextendedproperty N'MS_Description', N'SCHEMA'");
  }

  @Test
  void whatStandsAroundATableMadeAnewComesBackUnlessItCallsItByAFormerName() {
    var warm =
        new Trigger(
            "warm",
            "kiln",
            Trigger.Timing.AFTER,
            Set.of(Trigger.Event.INSERT),
            "CREATE TRIGGER warm AFTER INSERT ON kiln BEGIN SELECT 1; END");
    var there =
        new Surroundings(
            List.of(new View("v", false, "CREATE VIEW v AS SELECT name FROM kiln")),
            List.of(warm),
            List.of(),
            List.of(new Grant("PUBLIC", "SELECT", "kiln", true)));
    Edit wider = ChangeField.type(KILN, NAME, new FieldType.Text(30));
    assertThat(statements(changed(Dialects.SQLITE, there, wider)))
        .contains(warm.definition(), "GRANT SELECT ON kiln TO PUBLIC WITH GRANT OPTION")
        .doesNotContain("DROP VIEW v");
    assertThat(statements(changed(Dialects.POSTGRESQL, there, wider)))
        .as("where it is changed where it is, nothing else goes with it")
        .startsWith("DROP VIEW v")
        .endsWith("CREATE VIEW v AS SELECT name FROM kiln")
        .doesNotContain(warm.definition());
    Edit oven = ChangeTable.rename(KILN, "oven", "Oven", new Noun("oven", "ovens"));
    SchemaScript renamed = changed(Dialects.SQLITE, there, oven, wider);
    assertThat(statements(renamed))
        .contains("GRANT SELECT ON oven TO PUBLIC WITH GRANT OPTION")
        .doesNotContain(warm.definition());
    assertThat(renamed.shortfalls())
        .extracting(Shortfall::subject)
        .contains("the trigger warm of kiln");
  }

  @Test
  void whatItDoesStandsOnTop() {
    SchemaScript script =
        changed(Dialects.H2, Surroundings.NONE, new RemoveTable(KILN.id(), "Kiln"));
    assertThat(script.text("Changes", List.of("loses: a\nkiln")))
        .startsWith("-- Changes for H2\n-- What it does to what is there:\n--   loses: a kiln\n");
    assertThat(Optional.of(script.promise().tables().size())).contains(1);
  }
}
