package joiner.ddl;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import joiner.catalog.ForeignKey;
import joiner.catalog.Sequence;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Generator;
import joiner.model.Index;
import joiner.model.Noun;
import joiner.model.Origin;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.UniqueKey;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import joiner.shape.CodedNumber;
import org.junit.jupiter.api.Test;

/** What engines do in ways of their own, and what is told of it. */
class OtherEnginesTest {
  private static final Field ID =
      Field.of("kiln_id", "Number", new FieldType.Counter(Width.BITS_32)).withRequired(true);
  private static final Field SPARE =
      Field.of("spare_id", "Spare", new FieldType.WholeNumber(Width.BITS_32));
  private static final Field NAME = Field.of("name", "Name", new FieldType.Text(40));
  private static final Field NOTE = Field.of("note", "Note", new FieldType.LongText());

  private static Table table(String name, Field... more) {
    var fields = new java.util.ArrayList<Field>(List.of(ID, SPARE, NAME, NOTE));
    fields.addAll(List.of(more));
    return Table.of(name, name, new Noun(name, name + "s"))
        .withFields(fields)
        .withPrimaryKey(List.of(ID.id()));
  }

  private static Relationship refers(String name, Table child, Table parent) {
    return Relationship.of(name, child.id(), List.of(SPARE.id()), parent.id(), List.of(ID.id()))
        .withId(new RelationshipId(name));
  }

  private static Draft draft(Table table, Relationship... own) {
    return new Draft(Design.empty("d", "D").withTableAdded(table, own), SampleRows.NONE);
  }

  private static Draft withRows(Draft draft, Table table, String... idAndSpare) {
    var rows = new Rows.Builder(table.fieldIds());
    for (String row : idAndSpare) {
      String[] cells = row.split(">");
      rows.cell(0, cells[0]);
      rows.cell(1, cells.length > 1 ? cells[1] : null);
      rows.endRow();
    }
    return new Draft(draft.design(), new SampleRows(java.util.Map.of(table.id(), rows.build())));
  }

  private static SchemaScript script(Draft draft, Dialect dialect) {
    return SchemaScript.of(draft, dialect, RowsChoice.ALL);
  }

  private static List<String> told(SchemaScript script) {
    return script.shortfalls().stream().map(s -> s.subject() + ": " + s.reason()).toList();
  }

  private static String create(SchemaScript script) {
    return script.statements().stream()
        .map(Statement::sql)
        .filter(sql -> sql.startsWith("CREATE TABLE"))
        .findFirst()
        .orElseThrow();
  }

  private static List<ForeignKey> references(SchemaScript script) {
    return script.promise().tables().getFirst().foreignKeys();
  }

  @Test
  void duckDbCountsBySequencesThatBeginBehindTheRows() {
    Table kiln = table("kiln");
    SchemaScript empty = script(draft(kiln), Dialects.DUCKDB);
    assertThat(empty.promise().sequences()).containsExactly(new Sequence("seq_kiln_kiln_id", 1));
    assertThat(empty.statements().getFirst().sql())
        .isEqualTo("CREATE SEQUENCE seq_kiln_kiln_id START WITH 1");
    assertThat(create(empty)).contains("kiln_id integer DEFAULT nextval('seq_kiln_kiln_id')");
    SchemaScript filled = script(withRows(draft(kiln), kiln, "3", "9"), Dialects.DUCKDB);
    assertThat(filled.promise().sequences()).containsExactly(new Sequence("seq_kiln_kiln_id", 10));
  }

  @Test
  void duckDbTakesParentsOfTheSameTableFirst() {
    Table kiln = table("kiln");
    Draft draft = draft(kiln, refers("fk_spare", kiln, kiln));
    SchemaScript script = script(withRows(draft, kiln, "1>2", "2>3", "3", "4>3"), Dialects.DUCKDB);
    assertThat(references(script)).hasSize(1);
    assertThat(script.section(Statement.Section.ROWS))
        .extracting(statement -> statement.sql().replaceAll("(?s).*VALUES\\s+|, NULL|\\s", ""))
        .containsExactly("(3)", "(2,3),(4,3)", "(1,2)");
  }

  @Test
  void duckDbKeepsNoCircles() {
    Table kiln = table("kiln");
    Draft circle = withRows(draft(kiln, refers("fk_spare", kiln, kiln)), kiln, "1>2", "2>1");
    assertThat(references(script(circle, Dialects.DUCKDB))).isEmpty();
    assertThat(told(script(circle, Dialects.DUCKDB)))
        .anyMatch(t -> t.startsWith("the relationship fk_spare") && t.contains("circle"));
    Draft own = withRows(draft(kiln, refers("fk_spare", kiln, kiln)), kiln, "1>1");
    assertThat(references(script(own, Dialects.DUCKDB))).isEmpty();
    assertThat(references(script(own, Dialects.POSTGRESQL))).hasSize(1);

    Table shelf = table("shelf");
    Draft both =
        new Draft(
            Design.empty("d", "D")
                .withTableAdded(kiln)
                .withTableAdded(shelf, refers("fk_kiln", shelf, kiln))
                .withRelationshipAdded(refers("fk_shelf", kiln, shelf)),
            SampleRows.NONE);
    SchemaScript script = script(both, Dialects.DUCKDB);
    assertThat(script.promise().tables()).flatExtracting(t -> t.foreignKeys()).hasSize(1);
    assertThat(told(script)).anyMatch(t -> t.contains("closes a circle"));
    assertThat(script.section(Statement.Section.RELATIONSHIPS)).isEmpty();
  }

  @Test
  void actionsThatAnEngineHasNotAreTold() {
    Table kiln = table("kiln");
    Relationship acting =
        refers("fk_spare", kiln, kiln)
            .withActions(ReferentialAction.SET_NULL, ReferentialAction.CASCADE);
    for (Dialect dialect : List.of(Dialects.DUCKDB, Dialects.ORACLE, Dialects.SQL_SERVER)) {
      SchemaScript script = script(draft(kiln, acting), dialect);
      assertThat(references(script).getFirst().onUpdate())
          .as(dialect.engine())
          .isEqualTo(ReferentialAction.NO_ACTION);
      assertThat(told(script))
          .as(dialect.engine())
          .anyMatch(t -> t.startsWith("ON UPDATE CASCADE"));
      boolean oracle = dialect == Dialects.ORACLE;
      assertThat(references(script).getFirst().onDelete() == ReferentialAction.SET_NULL)
          .isEqualTo(oracle);
      assertThat(told(script).stream().anyMatch(t -> t.startsWith("ON DELETE SET NULL")))
          .isEqualTo(!oracle);
    }
    Relationship refusing =
        refers("fk_spare", kiln, kiln)
            .withActions(ReferentialAction.RESTRICT, ReferentialAction.NO_ACTION);
    assertThat(told(script(draft(kiln, refusing), Dialects.ORACLE))).isEmpty();
    assertThat(create(script(draft(kiln, refusing), Dialects.ORACLE))).doesNotContain("RESTRICT");
  }

  @Test
  void sqlServerLetsActionsReachATableByOneWay() {
    Table kiln = table("kiln");
    Table shelf = table("shelf");
    Table piece =
        table("piece", Field.of("more_id", "More", new FieldType.WholeNumber(Width.BITS_32)));
    Relationship first = cascading(refers("fk_1", shelf, kiln));
    Relationship second = cascading(refers("fk_2", piece, shelf));
    Relationship across =
        cascading(
            Relationship.of(
                    "fk_3",
                    piece.id(),
                    List.of(new FieldId("more_id")),
                    kiln.id(),
                    kiln.primaryKey())
                .withId(new RelationshipId("fk_3")));
    Design design =
        Design.empty("d", "D")
            .withTableAdded(kiln)
            .withTableAdded(shelf, first)
            .withTableAdded(piece, second, across);
    assertThat(OneWay.stopped(design, Dialects.SQL_SERVER)).containsExactly(across.id());
    Relationship plain =
        across.withActions(ReferentialAction.NO_ACTION, ReferentialAction.NO_ACTION);
    assertThat(OneWay.stopped(design.withRelationship(plain.id(), r -> plain), Dialects.SQL_SERVER))
        .isEmpty();
    Relationship back = cascading(refers("fk_4", kiln, piece));
    assertThat(OneWay.stopped(design.withRelationshipAdded(back), Dialects.SQL_SERVER))
        .as("the way back closes a circle")
        .hasSize(2)
        .contains(across.id());
  }

  private static Relationship cascading(Relationship r) {
    return r.withActions(ReferentialAction.CASCADE, ReferentialAction.NO_ACTION);
  }

  @Test
  void keysThatMayBeEmptyAreKeptByAnIndexWhereTheEngineNeedsOne() {
    Table kiln = table("kiln").withUniqueKeys(List.of(new UniqueKey("uq_a", List.of(NAME.id()))));
    assertThat(create(script(draft(kiln), Dialects.SQL_SERVER))).doesNotContain("UNIQUE");
    assertThat(script(draft(kiln), Dialects.SQL_SERVER).section(Statement.Section.INDEXES))
        .extracting(Statement::sql)
        .containsExactly("CREATE UNIQUE INDEX uq_a ON kiln (name) WHERE name IS NOT NULL");
    assertThat(create(script(draft(kiln), Dialects.ORACLE))).contains("UNIQUE (name)");
    Table pair =
        table("kiln").withUniqueKeys(List.of(new UniqueKey("uq_a", List.of(NAME.id(), ID.id()))));
    assertThat(script(draft(pair), Dialects.ORACLE).section(Statement.Section.INDEXES))
        .extracting(Statement::sql)
        .containsExactly(
            "CREATE UNIQUE INDEX uq_a ON kiln (CASE WHEN name IS NOT NULL THEN name END,"
                + " CASE WHEN name IS NOT NULL THEN kiln_id END)");
    Table filled = kiln.withField(NAME.id(), f -> f.withRequired(true));
    assertThat(create(script(draft(filled), Dialects.SQL_SERVER))).contains("UNIQUE (name)");
  }

  @Test
  void nothingRefersToAKeyThatIsKeptByAnIndex() {
    Table kiln =
        table("kiln").withUniqueKeys(List.of(new UniqueKey("uq_spare", List.of(SPARE.id()))));
    Relationship toIt =
        Relationship.of("fk_1", kiln.id(), List.of(SPARE.id()), kiln.id(), List.of(SPARE.id()))
            .withId(new RelationshipId("fk_1"));
    SchemaScript script = script(draft(kiln, toIt), Dialects.SQL_SERVER);
    assertThat(references(script)).isEmpty();
    assertThat(told(script)).anyMatch(t -> t.startsWith("the relationship fk_1"));
  }

  @Test
  void oracleTakesNoSecondKeyOfTheSameFields() {
    Table kiln =
        table("kiln")
            .withUniqueKeys(
                List.of(
                    new UniqueKey("uq_id", List.of(ID.id())),
                    new UniqueKey("uq_name", List.of(NAME.id()))))
            .withIndexes(
                List.of(
                    new Index("ix_name", List.of(NAME.id())),
                    new Index("ix_spare", List.of(SPARE.id()))));
    SchemaScript script = script(draft(kiln), Dialects.ORACLE);
    assertThat(script.promise().tables().getFirst().uniqueKeys())
        .extracting(key -> key.name())
        .containsExactly("uq_name");
    assertThat(script.promise().tables().getFirst().indexes())
        .extracting(index -> index.name())
        .containsExactly("ix_spare");
    assertThat(told(script))
        .anyMatch(t -> t.startsWith("the key uq_id"))
        .anyMatch(t -> t.startsWith("the index ix_name"));
    assertThat(told(script(draft(kiln), Dialects.POSTGRESQL))).isEmpty();
  }

  @Test
  void oracleLooksAtLongTextsInFewWays() {
    assertThat(kept("note IS NULL OR CHAR_LENGTH(note) > 3 OR note LIKE 'a%'")).isTrue();
    assertThat(kept("note = 'raw'")).isFalse();
    assertThat(kept("note LIKE name")).isTrue();
    assertThat(kept("name LIKE note")).isFalse();
    assertThat(kept("UPPER(note) IS NULL")).isFalse();
    assertThat(kept("name = 'raw'")).isTrue();
  }

  private static boolean kept(String condition) {
    Table kiln =
        table("kiln").withRules(List.of(new Rule("ck_r", "R", new Formula(condition), "")));
    return script(draft(kiln), Dialects.ORACLE).promise().tables().getFirst().checks().stream()
        .anyMatch(check -> check.name().equals("ck_r"));
  }

  /**
   * What a trigger fills only once the row is there may be empty until then, else no row could be.
   */
  @Test
  void whatIsFilledLaterMayBeEmptyUntilThen() {
    Field copied =
        Field.of("spare_name", "Spare name", new FieldType.Text(40))
            .withRequired(true)
            .withOrigin(new Origin.Copied(new Formula("spare_id.name")));
    Field coded =
        Field.of("code", "Code", new FieldType.Text(6))
            .withRequired(true)
            .withOrigin(
                new Origin.Generated(
                    new Generator.Coded(
                        CodedNumber.read(
                            "'K-'0001", CodedNumber.Restart.NEVER, Optional.empty()))));
    Table kiln = table("kiln", copied, coded);
    Draft draft = draft(kiln, refers("fk", kiln, kiln));
    for (Dialect dialect : Dialects.ALL) {
      var columns = Lowered.of(draft, dialect, RowsChoice.NONE).catalog().tables().getFirst();
      boolean later = dialect == Dialects.SQLITE || dialect == Dialects.SQL_SERVER;
      assertThat(columns.column("spare_name").orElseThrow().required())
          .as(dialect.engine())
          .isEqualTo(!later);
      assertThat(columns.column("code").orElseThrow().required())
          .as("nothing numbers rows on SQL Server: " + dialect.engine())
          .isEqualTo(dialect != Dialects.SQLITE);
    }
  }

  @Test
  void batchesEndWhereToolsNeedIt() {
    Table kiln = table("kiln").withDescription("It's hot");
    Draft draft = withRows(draft(kiln), kiln, "1", "2");
    String text = script(draft, Dialects.SQL_SERVER).text("Studio");
    assertThat(text)
        .contains("SET IDENTITY_INSERT kiln ON;\nGO\n")
        .contains("SET IDENTITY_INSERT kiln OFF;\nGO\n")
        .contains("N'MS_Description', N'It''s hot', N'SCHEMA', @schema, N'TABLE', N'kiln';\nGO\n")
        .contains("-- On SQL Server:\n");
    assertThat(script(draft, Dialects.ORACLE).section(Statement.Section.ROWS))
        .extracting(Statement::sql)
        .containsExactly(
            "INSERT INTO kiln (kiln_id, spare_id, name, note) VALUES\n  (1, NULL, NULL, NULL)",
            "INSERT INTO kiln (kiln_id, spare_id, name, note) VALUES\n  (2, NULL, NULL, NULL)",
            "ALTER TABLE kiln MODIFY (kiln_id GENERATED BY DEFAULT AS IDENTITY (START WITH 3))");
  }

  /** Each description of SQL Server's tools, with named arguments, is read too. */
  @Test
  void descriptionsAreReadHoweverTheyAreGiven() {
    SqlScript script =
        SqlScript.of(
            """
            CREATE TABLE [dbo].[kiln] ([kiln_id] int IDENTITY(1,1) PRIMARY KEY, [name] nvarchar(max))
            GO
            EXEC sys.sp_addextendedproperty @name=N'MS_Description', @value=N'How hot' ,
              @level0type=N'SCHEMA',@level0name=N'dbo', @level1type=N'TABLE',@level1name=N'kiln',
              @level2type=N'COLUMN',@level2name=N'name'
            GO
            DECLARE @s sysname = SCHEMA_NAME(), @t nvarchar(max) = N'a' + NCHAR(10) + N'b';
            EXEC sp_addextendedproperty N'MS_Description', @t, N'SCHEMA', @s, N'TABLE', N'kiln'
            GO
            EXEC sp_addextendedproperty N'Other', N'x', N'SCHEMA', N'dbo', N'TABLE', N'kiln'
            GO
            EXEC sp_rename 'a', 'b'
            """,
            Optional.of(Dialects.SQL_SERVER));
    var kiln = script.catalog().find("kiln").orElseThrow();
    assertThat(kiln.comment()).isEqualTo("a\nb");
    assertThat(kiln.column("name").orElseThrow().comment()).isEqualTo("How hot");
    assertThat(kiln.column("kiln_id").orElseThrow().counts()).isTrue();
    assertThat(script.unread())
        .hasSize(2)
        .anyMatch(line -> line.contains("Other"))
        .anyMatch(line -> line.contains("sp_rename"));
  }

  @Test
  void lengthsThatChecksKeepAreLengths() {
    Draft draft =
        SqlScript.of(
                """
                CREATE TABLE kiln (name varchar, note varchar CHECK (length(note) >= 3),
                  mark varchar(6) CHECK (length(mark) <= 4), CHECK (length(name) <= 40));
                """,
                Optional.of(Dialects.DUCKDB))
            .draft("Studio", new java.util.ArrayList<>());
    Table kiln = draft.design().tableNamed("kiln").orElseThrow();
    assertThat(kiln.fieldNamed("name").orElseThrow().type()).isEqualTo(new FieldType.Text(40));
    assertThat(kiln.fieldNamed("note").orElseThrow().limits().minLength()).hasValue(3);
    assertThat(kiln.rules()).as("a length within a length is a rule").hasSize(1);
  }

  @Test
  void keysKeptByAnIndexAreReadAsKeys() {
    SqlScript script =
        SqlScript.of(
            """
            CREATE TABLE kiln (a int, b int, c int);
            CREATE UNIQUE INDEX u1 ON kiln (a, b) WHERE ([a] IS NOT NULL AND [b] IS NOT NULL);
            CREATE UNIQUE INDEX u2 ON kiln (CASE WHEN a IS NOT NULL THEN a END, c);
            CREATE UNIQUE INDEX u3 ON kiln (a) WHERE c IS NOT NULL;
            CREATE UNIQUE INDEX u4 ON kiln (a) WHERE a > 3;
            ALTER TABLE kiln MODIFY (c NOT NULL, b DEFAULT 3);
            """,
            Optional.empty());
    var kiln = script.catalog().find("kiln").orElseThrow();
    assertThat(kiln.uniqueKeys())
        .extracting(key -> key.name() + key.columns())
        .containsExactly("u1[a, b]", "u2[a, c]");
    assertThat(script.unread()).hasSize(2).allMatch(line -> line.matches(".*u[34].*"));
    assertThat(kiln.column("c").orElseThrow().required()).isTrue();
    assertThat(kiln.column("b").orElseThrow().defaultValue().orElseThrow().sql()).isEqualTo("3");
  }
}
