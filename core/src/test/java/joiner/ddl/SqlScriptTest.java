package joiner.ddl;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import joiner.catalog.Catalog;
import joiner.catalog.Generated;
import joiner.catalog.SqlType;
import joiner.catalog.Trigger;
import joiner.catalog.View;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Origin;
import joiner.model.ReferentialAction;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import org.junit.jupiter.api.Test;

/** Scripts in the style of each engine's own dumps; the forms are from memory of their manuals. */
class SqlScriptTest {
  private static SqlScript read(String sql) {
    return SqlScript.of(sql, Optional.empty());
  }

  private static Draft draft(SqlScript script, List<String> notices) {
    return script.draft("Studio", notices);
  }

  @Test
  void aDumpOfPostgreSqlIsRead() {
    var notices = new ArrayList<String>();
    SqlScript script =
        read(
            """
            SET statement_timeout = 0;
            SELECT pg_catalog.set_config('search_path', '', false);
            CREATE TABLE public.kiln (
                kiln_id integer NOT NULL,
                name character varying(40) NOT NULL,
                fuel text DEFAULT 'gas'::text,
                litres smallint,
                bought timestamp with time zone DEFAULT now(),
                CONSTRAINT kiln_fuel CHECK ((fuel = ANY (ARRAY['gas'::text, 'wood'::text]))),
                CONSTRAINT kiln_litres CHECK (((litres >= 5) AND (litres <= 900)))
            );
            ALTER TABLE public.kiln OWNER TO ada;
            COMMENT ON TABLE public.kiln IS 'An oven for clay; it''s hot.';
            COMMENT ON COLUMN public.kiln.name IS 'Painted on the door';
            CREATE SEQUENCE public.kiln_kiln_id_seq START WITH 1 INCREMENT BY 1;
            ALTER TABLE ONLY public.kiln ALTER COLUMN kiln_id SET DEFAULT nextval('public.kiln_kiln_id_seq'::regclass);
            CREATE TABLE public.firing (
                firing_id integer NOT NULL,
                kiln_id integer
            );
            COPY public.kiln (kiln_id, name, fuel, litres, bought) FROM stdin;
            1\tBig\\tAnn\tgas\t200\t2026-03-14 09:30:00+01
            2\t\\N\twood\t\\N\t\\N
            \\.
            ALTER TABLE ONLY public.kiln
                ADD CONSTRAINT kiln_pkey PRIMARY KEY (kiln_id);
            ALTER TABLE ONLY public.kiln
                ADD CONSTRAINT kiln_name_key UNIQUE (name);
            CREATE INDEX kiln_lower ON public.kiln USING btree (lower(name));
            CREATE INDEX kiln_litres_ix ON public.kiln USING btree (litres);
            ALTER TABLE ONLY public.firing
                ADD CONSTRAINT firing_kiln_fk FOREIGN KEY (kiln_id) REFERENCES public.kiln(kiln_id) ON DELETE SET NULL;
            GRANT SELECT ON public.kiln TO visitors;
            """);
    Draft draft = draft(script, notices);
    Table kiln = draft.design().tableNamed("kiln").orElseThrow();
    assertThat(kiln.description()).isEqualTo("An oven for clay; it's hot.");
    assertThat(kiln.fieldNamed("kiln_id").orElseThrow().type())
        .isEqualTo(new FieldType.Counter(Width.BITS_32));
    Field fuel = kiln.fieldNamed("fuel").orElseThrow();
    assertThat(fuel.limits().allowed()).containsExactly("gas", "wood");
    assertThat(fuel.defaultValue())
        .hasValueSatisfying(d -> assertThat(d.text()).isEqualTo("'gas'"));
    assertThat(kiln.fieldNamed("litres").orElseThrow().limits().maximum()).contains("900");
    assertThat(kiln.fieldNamed("name").orElseThrow().description())
        .isEqualTo("Painted on the door");
    assertThat(kiln.uniqueKeys()).hasSize(1);
    assertThat(kiln.indexes()).hasSize(1);
    assertThat(draft.rows().of(kiln.id()).cell(0, kiln.fieldNamed("name").orElseThrow().id()))
        .contains("Big\tAnn");
    assertThat(draft.rows().of(kiln.id()).cell(0, kiln.fieldNamed("bought").orElseThrow().id()))
        .contains("2026-03-14T09:30:00+01:00");
    assertThat(draft.rows().of(kiln.id()).cell(1, kiln.fieldNamed("litres").orElseThrow().id()))
        .isEmpty();
    assertThat(draft.design().relationships())
        .singleElement()
        .satisfies(r -> assertThat(r.onDelete()).isEqualTo(ReferentialAction.SET_NULL))
        .satisfies(r -> assertThat(r.name()).isEqualTo("firing_kiln_fk"));
    assertThat(notices)
        .hasSize(2)
        .anyMatch(n -> n.startsWith("Line 29, ") && n.contains("kiln_lower"))
        .anyMatch(n -> n.contains("GRANT SELECT"));
  }

  @Test
  void aDumpOfMariaDbIsRead() {
    var notices = new ArrayList<String>();
    SqlScript script =
        read(
            """
            /*!40101 SET NAMES utf8mb4 */;
            DROP TABLE IF EXISTS `piece`;
            CREATE TABLE `piece` (
              `piece_id` int(11) NOT NULL AUTO_INCREMENT,
              `mark` varchar(6) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL COMMENT 'scratched in',
              `fired` tinyint(1) NOT NULL DEFAULT 0,
              `price` decimal(8,2) DEFAULT NULL,
              `kiln_id` int(11) DEFAULT NULL,
              `changed` timestamp NOT NULL DEFAULT current_timestamp() ON UPDATE current_timestamp(),
              PRIMARY KEY (`piece_id`),
              UNIQUE KEY `mark` (`mark`),
              KEY `kiln` (`kiln_id`),
              CONSTRAINT `fk_kiln` FOREIGN KEY (`kiln_id`) REFERENCES `kiln` (`kiln_id`) ON DELETE CASCADE,
              CONSTRAINT `dear` CHECK (`price` > 0)
            ) ENGINE=InnoDB AUTO_INCREMENT=3 DEFAULT CHARSET=utf8mb4 COMMENT='Made of clay';
            CREATE TABLE `kiln` (`kiln_id` int(11) NOT NULL, PRIMARY KEY (`kiln_id`));
            LOCK TABLES `piece` WRITE;
            INSERT INTO `piece` VALUES (1,'it\\'s',1,12.50,NULL,'2026-03-14 09:30:00'),(2,'a;b',0,-1,4,'2026-03-15 00:00:00');
            UNLOCK TABLES;
            """);
    Draft draft = draft(script, notices);
    Table piece = draft.design().tableNamed("piece").orElseThrow();
    assertThat(piece.description()).isEqualTo("Made of clay");
    assertThat(piece.fieldNamed("piece_id").orElseThrow().type())
        .isEqualTo(new FieldType.Counter(Width.BITS_32));
    assertThat(piece.fieldNamed("fired").orElseThrow().type()).isEqualTo(new FieldType.TrueFalse());
    assertThat(piece.fieldNamed("price").orElseThrow().limits().above()).contains("0");
    assertThat(piece.fieldNamed("mark").orElseThrow().description()).isEqualTo("scratched in");
    assertThat(piece.fieldNamed("mark").orElseThrow().type()).isEqualTo(new FieldType.Text(6));
    assertThat(draft.rows().of(piece.id()).cell(0, piece.fieldNamed("mark").orElseThrow().id()))
        .contains("it's");
    assertThat(draft.rows().of(piece.id()).cell(1, piece.fieldNamed("price").orElseThrow().id()))
        .contains("-1");
    assertThat(draft.rows().of(piece.id()).cell(1, piece.fieldNamed("fired").orElseThrow().id()))
        .contains("false");
    assertThat(draft.design().relationships()).hasSize(1);
    assertThat(notices).singleElement().asString().contains("ON UPDATE of changed");
  }

  @Test
  void scriptsOfServersWithBracketsAndSeparatorsAreRead() {
    var notices = new ArrayList<String>();
    SqlScript script =
        read(
            """
            USE [studio]
            GO
            CREATE TABLE [dbo].[Glaze Recipe](
              [Id] [int] IDENTITY(1,1) NOT NULL,
              [Title] [nvarchar](80) NOT NULL,
              [Notes] [nvarchar](max) NULL,
              [Safe] [bit] NOT NULL DEFAULT ((1)),
              [Key] uniqueidentifier NOT NULL,
              CONSTRAINT [PK_Glaze] PRIMARY KEY CLUSTERED ([Id] ASC)
            ) ON [PRIMARY]
            GO
            INSERT INTO [dbo].[Glaze Recipe] ([Title], [Safe]) VALUES (N'Celadon', 1)
            GO
            """);
    Draft draft = draft(script, notices);
    Table glaze = draft.design().tableNamed("Glaze Recipe").orElseThrow();
    assertThat(glaze.fields())
        .extracting(Field::type)
        .containsExactly(
            new FieldType.Counter(Width.BITS_32),
            new FieldType.Text(80),
            new FieldType.LongText(),
            new FieldType.TrueFalse(),
            new FieldType.Uuid());
    assertThat(glaze.namesOf(glaze.primaryKey())).containsExactly("Id");
    assertThat(draft.rows().of(glaze.id()).count()).isEqualTo(1);
    assertThat(notices).isEmpty();
  }

  @Test
  void scriptsOfOracleAreRead() {
    SqlScript script =
        read(
            """
            CREATE TABLE GLAZE (
              GLAZE_ID NUMBER(10) GENERATED BY DEFAULT AS IDENTITY,
              NAME VARCHAR2(40 CHAR) NOT NULL ENABLE,
              PERCENT NUMBER(5,2),
              SHELF NUMBER,
              NOTE CLOB,
              CONSTRAINT GLAZE_PK PRIMARY KEY (GLAZE_ID)
            )
            /
            CREATE TABLE PIECE_GLAZE (
              PIECE NUMBER(10) REFERENCES PIECE,
              GLAZE NUMBER(10) REFERENCES GLAZE ON DELETE CASCADE,
              PRIMARY KEY (PIECE, GLAZE)
            );
            CREATE TABLE PIECE (PIECE NUMBER(10) PRIMARY KEY);
            CREATE OR REPLACE TRIGGER T BEFORE INSERT ON GLAZE FOR EACH ROW
            BEGIN
              :NEW.NAME := UPPER(:NEW.NAME);
            END;
            """);
    assertThat(script.catalog().find("GLAZE").orElseThrow().columns())
        .extracting(c -> c.type())
        .containsExactly(
            new SqlType.Whole(Width.BITS_64),
            new SqlType.Varchar(40),
            new SqlType.Decimal(5, 2),
            new SqlType.AnyNumber(),
            new SqlType.LongText());
    Draft draft = draft(script, new ArrayList<>());
    assertThat(draft.design().tableNamed("PIECE_GLAZE").orElseThrow().kind())
        .isInstanceOf(TableKind.Join.class);
    assertThat(script.unread()).hasSizeBetween(1, 2).first().asString().contains("TRIGGER");
  }

  @Test
  void whatIsNotUnderstoodIsToldWithItsLineAndTheRestIsRead() {
    SqlScript script =
        read(
            """
            -- a comment; with a semicolon
            CREATE TABLE shelf (
              shelf_id integer PRIMARY KEY, /* ; */
              place point,
              big integer GENERATED ALWAYS AS (shelf_id * 2) STORED,
              odd integer GENERATED ALWAYS AS (hashtext(big)) STORED,
              EXCLUDE USING gist (place WITH =)
            );
            INSERT INTO shelf (shelf_id) VALUES (1), (2 + 3);
            INSERT INTO nowhere VALUES (1);
            CREATE VIEW v AS SELECT 1;
            ALTER TABLE shelf ADD COLUMN note text DEFAULT 'a;b';
            """);
    assertThat(script.unread())
        .hasSize(4)
        .anyMatch(s -> s.startsWith("Line 7, ") && s.contains("EXCLUDE"))
        .anyMatch(s -> s.startsWith("Line 9, ") && s.contains("2 + 3"))
        .anyMatch(s -> s.startsWith("Line 10, "))
        .anyMatch(s -> s.startsWith("Line 11, ") && s.contains("CREATE VIEW"));
    assertThat(script.catalog().find("shelf").orElseThrow().columns())
        .extracting(c -> c.name())
        .containsExactly("shelf_id", "place", "big", "odd", "note");
    assertThat(script.rows()).isEqualTo(Map.of());
    var notices = new ArrayList<String>();
    Draft shelves = script.draft("Shelves", notices);
    assertThat(shelves.design().table(new TableId("shelf")).field(new FieldId("big")).origin())
        .isEqualTo(new Origin.Computed(new Formula("shelf_id * 2")));
    assertThat(notices)
        .anyMatch(s -> s.startsWith("shelf.odd is computed by the database (hashtext(big)), "))
        .noneMatch(s -> s.contains("shelf.big"));
  }

  @Test
  void viewsTriggersAndComputedColumnsAreKnownForWhatTheyAre() {
    Catalog read =
        read("""
                CREATE TABLE t (a int, b int AS (a + 1) PERSISTED, c int GENERATED ALWAYS AS (2));
                CREATE OR REPLACE VIEW v AS SELECT a -- all of them
                  FROM t;
                CREATE MATERIALIZED VIEW IF NOT EXISTS m AS SELECT 1;
                CREATE TRIGGER x INSTEAD OF UPDATE OF a OR DELETE ON t FOR EACH ROW BEGIN SELECT 1; END;
                CREATE TRIGGER y INSERT ON t BEGIN SELECT 1; END;
                """)
            .catalog();
    assertThat(read.tables().getFirst().columns())
        .extracting(column -> column.generated())
        .containsExactly(
            Optional.empty(),
            Optional.of(new Generated("a + 1", true)),
            Optional.of(new Generated("2", false)));
    assertThat(read.around().views())
        .containsExactly(
            new View("v", false, "CREATE OR REPLACE VIEW v AS SELECT a -- all of them\n  FROM t"),
            new View("m", true, "CREATE MATERIALIZED VIEW IF NOT EXISTS m AS SELECT 1"));
    assertThat(read.around().triggers())
        .extracting(Trigger::name, Trigger::table, Trigger::timing, Trigger::events)
        .containsExactly(
            tuple(
                "x",
                "t",
                Trigger.Timing.INSTEAD_OF,
                Set.of(Trigger.Event.UPDATE, Trigger.Event.DELETE)),
            tuple("y", "t", Trigger.Timing.BEFORE, Set.of(Trigger.Event.INSERT)));
  }

  @Test
  void aColumnMayBeCalledKey() {
    SqlScript script = read("CREATE TABLE t (key varchar(10), index int, KEY k (key));");
    assertThat(script.unread()).isEmpty();
    assertThat(script.catalog().find("t").orElseThrow().columns())
        .extracting(c -> c.name())
        .containsExactly("key", "index");
    assertThat(script.catalog().find("t").orElseThrow().indexes()).hasSize(1);
  }

  @Test
  void anythingAtAllIsReadWithoutFailing() {
    String sound = "CREATE TABLE t (a int DEFAULT (1), b text CHECK (b <> ';'), PRIMARY KEY (a));";
    for (int cut = 0; cut < sound.length(); cut++) {
      assertThat(read(sound.substring(0, cut) + sound.substring(Math.min(sound.length(), cut + 3))))
          .isNotNull();
      assertThat(read(sound.substring(0, cut) + "'\"`[($$" + sound.substring(cut))).isNotNull();
    }
    assertThat(read("").catalog().tables()).isEmpty();
  }
}
