package joiner.ddl;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import joiner.Pottery;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogTable;
import joiner.catalog.Check;
import joiner.catalog.Column;
import joiner.catalog.Key;
import joiner.catalog.SqlType;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Noun;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.UniqueKey;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** What an engine is to keep of a design, and what is told not to be kept. */
class LoweredTest {
  private static final Field KILN_ID =
      Field.of("kiln_id", "Number", new FieldType.Counter(Width.BITS_64));
  private static final Field FIRED = Field.of("fired", "Fired", new FieldType.Date());
  private static final Field NAME = Field.of("name", "Name", new FieldType.Text(40));
  private static final Field SPARE =
      Field.of("spare_id", "Spare", new FieldType.WholeNumber(Width.BITS_64));

  private static Table kiln(Rule... rules) {
    return Table.of("kiln", "Kiln", new Noun("kiln", "kilns"))
        .withFields(List.of(KILN_ID, FIRED, NAME, SPARE))
        .withPrimaryKey(List.of(KILN_ID.id()))
        .withRules(List.of(rules));
  }

  private static Draft draft(Table table, Relationship... own) {
    return new Draft(Design.empty("d", "D").withTableAdded(table, own), SampleRows.NONE);
  }

  private static Relationship spare(ReferentialAction onDelete, ReferentialAction onUpdate) {
    return Relationship.of(
            "fk_spare", kiln().id(), List.of(SPARE.id()), kiln().id(), List.of(KILN_ID.id()))
        .withActions(onDelete, onUpdate);
  }

  private static Lowered lowered(Draft draft, Dialect dialect) {
    return Lowered.of(draft, dialect, RowsChoice.NONE);
  }

  private static List<String> told(Lowered lowered) {
    return lowered.shortfalls().stream().map(s -> s.subject() + ": " + s.reason()).toList();
  }

  private static List<Dialect> engines() {
    return Dialects.ALL;
  }

  /** What the screens say of a rule is what the script does. */
  @ParameterizedTest
  @MethodSource("engines")
  void aRuleIsSaidToBeKeptExactlyWhereTheSchemaHasIt(Dialect dialect) {
    Draft demo = Pottery.demo();
    Catalog catalog = lowered(demo, dialect).catalog();
    for (Table table : demo.design().tables()) {
      Set<String> checks =
          catalog.find(table.name()).orElseThrow().checks().stream()
              .map(Check::name)
              .collect(Collectors.toSet());
      for (Constraint.Ruled rule : demo.meaning().of(table).ruled()) {
        Keeping keeping = Lowered.keeping(demo, table.id(), rule, dialect);
        assertThat(keeping.by() == Keeping.Means.CHECK)
            .as(rule.name())
            .isEqualTo(checks.contains(rule.name()));
        assertThat(keeping.isKept()).isEqualTo(keeping.loss().isEmpty());
      }
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      value = {
        "fired <= CURRENT_DATE ! TRIGGER ! ",
        "kiln_id > 5 ! TRIGGER ! ",
        "spare_id <> 7 ! AUDIT ! a column that a change of its parent changes",
        "name <> 'x' ! CHECK ! "
      })
  void mariaDbTakesOnlyChecksOfPlainColumnsAndTriggersWhereTheyAreCalled(
      String condition, Keeping.Means by, String reads) {
    Draft draft =
        draft(
            kiln(new Rule("r", "Tried", condition, "")),
            spare(ReferentialAction.SET_NULL, ReferentialAction.NO_ACTION));
    Lowered maria = lowered(draft, Dialects.MARIADB);
    List<Check> checks = maria.catalog().tables().getFirst().checks();
    assertThat(checks).extracting(Check::name).hasSize(by == Keeping.Means.CHECK ? 1 : 0);
    assertThat(maria.catalog().around().triggers()).hasSize(by == Keeping.Means.TRIGGER ? 2 : 0);
    assertThat(told(maria))
        .isEqualTo(
            reads == null
                ? List.of()
                : List.of(
                    "the rule Tried of Kiln: MariaDB takes no check that reads " + reads + "."));
    assertThat(lowered(draft, Dialects.POSTGRESQL).catalog().tables().getFirst().checks())
        .hasSize(1);
  }

  @ParameterizedTest
  @CsvSource({
    "SET_NULL, NO_ACTION, false",
    "NO_ACTION, SET_NULL, false",
    "NO_ACTION, CASCADE, false",
    "CASCADE, NO_ACTION, true",
    "RESTRICT, RESTRICT, true"
  })
  void onlyActionsThatChangeTheChildMoveIt(
      ReferentialAction onDelete, ReferentialAction onUpdate, boolean kept) {
    Draft draft =
        draft(kiln(new Rule("r", "Tried", "spare_id <> 7", "")), spare(onDelete, onUpdate));
    assertThat(lowered(draft, Dialects.MARIADB).catalog().tables().getFirst().checks())
        .hasSize(kept ? 1 : 0);
  }

  @Test
  void anActionThatAnEngineDoesNotHaveBecomesARefusalAndIsTold() {
    Draft draft =
        draft(kiln(), spare(ReferentialAction.SET_DEFAULT, ReferentialAction.SET_DEFAULT));
    Lowered maria = lowered(draft, Dialects.MARIADB);
    var key = maria.catalog().tables().getFirst().foreignKeys().getFirst();
    assertThat(List.of(key.onDelete(), key.onUpdate()))
        .containsExactly(ReferentialAction.RESTRICT, ReferentialAction.RESTRICT);
    assertThat(told(maria))
        .containsExactly(
            "ON DELETE SET DEFAULT of fk_spare of Kiln: MariaDB cannot set a default then; the"
                + " change is refused instead.",
            "ON UPDATE SET DEFAULT of fk_spare of Kiln: MariaDB cannot set a default then;"
                + " the change is refused instead.");
    assertThat(
            lowered(draft, Dialects.H2)
                .catalog()
                .tables()
                .getFirst()
                .foreignKeys()
                .getFirst()
                .onDelete())
        .isEqualTo(ReferentialAction.SET_DEFAULT);
  }

  @Test
  void keysThatAnEngineCannotHaveAreLeftOutAndTold() {
    Field note = Field.of("note", "Note", new FieldType.LongText());
    Table table =
        kiln()
            .withFieldAdded(note)
            .withUniqueKeys(List.of(new UniqueKey("uq_note", List.of(note.id()))))
            .withIndexes(List.of(new Index("ix_note", List.of(note.id()))));
    CatalogTable maria = lowered(draft(table), Dialects.MARIADB).catalog().tables().getFirst();
    assertThat(maria.uniqueKeys()).isEmpty();
    assertThat(maria.indexes()).isEmpty();
    assertThat(told(lowered(draft(table), Dialects.MARIADB)))
        .containsExactly(
            "the key uq_note of Kiln: MariaDB has no key on texts without a limit.",
            "the index ix_note of Kiln: MariaDB has no key on texts without a limit.");
    assertThat(lowered(draft(table), Dialects.SQLITE).catalog().tables().getFirst().uniqueKeys())
        .hasSize(1);
  }

  @Test
  void anIndexNeverTakesTheNameOfATable() {
    Table table = kiln().withIndexes(List.of(new Index("Kiln", List.of(NAME.id()))));
    for (Dialect dialect : Dialects.ALL) {
      assertThat(
              lowered(draft(table), dialect)
                  .catalog()
                  .tables()
                  .getFirst()
                  .indexes()
                  .getFirst()
                  .name())
          .as(dialect.engine())
          .isEqualTo("Kiln_2");
    }
  }

  @Test
  void aColumnIsKeptAsTheEngineCan() {
    Field sent = Field.of("sent", "Sent", new FieldType.DateTime(true));
    Field due =
        Field.of("due", "Due", new FieldType.Date())
            .withDefault(Optional.of(new Formula("CURRENT_DATE + INTERVAL '7' DAY")))
            .withRequired(true)
            .withDescription("When it is due.");
    Table table = kiln().withFieldAdded(sent).withFieldAdded(due);
    CatalogTable postgres =
        lowered(draft(table), Dialects.POSTGRESQL).catalog().tables().getFirst();
    assertThat(postgres.column("sent").orElseThrow().type()).isEqualTo(new SqlType.Timestamp(true));
    Column promised = postgres.column("due").orElseThrow();
    assertThat(promised.required()).isTrue();
    assertThat(promised.comment()).isEqualTo("When it is due.");
    assertThat(promised.defaultValue().orElseThrow().isLiteral()).isFalse();
    assertThat(postgres.column("kiln_id").orElseThrow().counts()).isTrue();
    assertThat(postgres.primaryKey()).contains(new Key("pk_kiln", List.of("kiln_id")));
    Lowered maria = lowered(draft(table), Dialects.MARIADB);
    assertThat(maria.catalog().tables().getFirst().column("sent").orElseThrow().type())
        .isEqualTo(new SqlType.Timestamp(false));
    assertThat(told(maria))
        .containsExactly("Sent of Kiln: MariaDB keeps no offsets; moments are kept in UTC.");
  }
}
