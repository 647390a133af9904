package joiner.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import joiner.Pottery;
import joiner.Tries;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Limits;
import joiner.model.Noun;
import joiner.model.OwnField;
import joiner.model.Table;
import joiner.model.UniqueKey;
import joiner.rows.ValueReader;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What fields and tables demand, in words, by value and as SQL conditions. */
class ConstraintsTest {
  private static final Limits ALL =
      new Limits(
          Optional.of("5"),
          Optional.of("50"),
          Optional.of("4"),
          Optional.of("51"),
          Optional.of("[0-9]+"),
          OptionalInt.of(2),
          List.of("5", "17", "50"));

  private static Table kiln(Field... fields) {
    return Table.of("kiln", "Kiln", new Noun("kiln", "kilns")).withFields(List.of(fields));
  }

  private static List<Constraint.OfField> of(Field field) {
    return TableMeaning.of(kiln(field)).constraintsOf(field.id());
  }

  @Test
  void everyLimitIsAConstraintWithItsNameAndItsWords() {
    Field field =
        Field.of("mark", "Mark", new FieldType.Text(3)).withRequired(true).withLimits(ALL);
    assertThat(of(field).stream().map(c -> c.name() + " must " + c.demand()))
        .containsExactly(
            "ck_kiln_mark_type must fit its type",
            "ck_kiln_mark_most_length must have at most 3 characters",
            "ck_kiln_mark_required must have a value",
            "ck_kiln_mark_choices must be one of 5, 17, 50",
            "ck_kiln_mark_minimum must be at least 5",
            "ck_kiln_mark_maximum must be at most 50",
            "ck_kiln_mark_above must be greater than 4",
            "ck_kiln_mark_below must be less than 51",
            "ck_kiln_mark_pattern must match the pattern [0-9]+",
            "ck_kiln_mark_length must be at least 2 long");
    assertThat(of(field)).allSatisfy(c -> assertThat(c.fields()).containsExactly(field.id()));
    assertThat(of(field).stream().map(Constraint.OfField::about))
        .containsExactly(
            "type",
            "length",
            "required",
            "choices",
            "minimum",
            "maximum",
            "above",
            "below",
            "pattern",
            "minLength");
  }

  @Test
  void aChoiceDemandsOneOfItsValuesAndAFieldOfThePrimaryKeyAValue() {
    Field glaze = Field.of("glaze", "Glaze", FieldType.Choice.of(List.of("moss", "ash")));
    Table table = kiln(glaze).withPrimaryKey(List.of(glaze.id()));
    assertThat(TableMeaning.of(table).constraintsOf(glaze.id()))
        .extracting(Constraint.OfField::demand)
        .containsExactly("fit its type", "have a value", "be one of moss, ash");
  }

  @ParameterizedTest
  @CsvSource({
    "5, 5, 4, 51, true",
    "4, 5, 4, 51, false",
    "50, 5, 4, 51, true",
    "51, 5, 4, 60, false",
    "4, 0, 4, 51, false",
    "51, 0, 4, 51, false"
  })
  void boundsTakeTheirEndsInOrLeaveThemOut(
      String value, String minimum, String above, String below, boolean kept) {
    var limits =
        new Limits(
            Optional.of(minimum),
            Optional.of("50"),
            Optional.of(above),
            Optional.of(below),
            Optional.empty(),
            OptionalInt.empty(),
            List.of());
    Field field = Field.of("n", "N", new FieldType.Decimal(6, 2)).withLimits(limits);
    Value read = ValueReader.valueOrNull(Optional.of(value), field.type());
    assertThat(
            of(field).stream()
                .allMatch(c -> !(c instanceof Constraint.OfValue v) || v.isKeptBy(read)))
        .isEqualTo(kept);
  }

  @Test
  void aBoundOrAPatternThatCannotBeReadKeepsNothingOut() {
    var limits =
        new Limits(
            Optional.of("five"),
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            Optional.of("(["),
            OptionalInt.empty(),
            List.of());
    Field field = Field.of("n", "N", new FieldType.Decimal(6, 2)).withLimits(limits);
    assertThat(of(field))
        .filteredOn(Constraint.OfValue.class::isInstance)
        .hasSize(2)
        .allSatisfy(c -> assertThat(((Constraint.OfValue) c).isKeptBy(Value.whole(1))).isTrue());
  }

  /** A law: what the condition says of a row is what the constraint says of the value. */
  @Test
  void theConditionOfAConstraintIsWhatItDemands() {
    List<FieldType> types =
        List.of(
            new FieldType.Text(3),
            new FieldType.Decimal(6, 2),
            new FieldType.Date(),
            new FieldType.Time());
    Tries.of(400)
        .forEach(
            seed -> {
              RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(seed);
              FieldType type = types.get(random.nextInt(types.size()));
              var limits =
                  new Limits(
                      Optional.of(text(type, random)),
                      Optional.of(text(type, random)),
                      Optional.of(text(type, random)),
                      Optional.of(text(type, random)),
                      Optional.empty(),
                      type instanceof FieldType.Text
                          ? OptionalInt.of(random.nextInt(1, 3))
                          : OptionalInt.empty(),
                      List.of(text(type, random), text(type, random)).stream().distinct().toList());
              Field field = Field.of("f", "F", type).withLimits(limits);
              Value value = ValueReader.valueOrNull(Optional.of(text(type, random)), type);
              for (Constraint.OfField constraint : of(field)) {
                if (constraint instanceof Constraint.OfValue demanded) {
                  Expression condition = demanded.condition().orElseThrow();
                  Value said = new Evaluator(Pottery.CLOCK).evaluate(condition, reference -> value);
                  assertThat(said)
                      .as("%s of %s", demanded.demand(), value)
                      .isEqualTo(Value.of(demanded.isKeptBy(value)));
                }
              }
            });
  }

  private static String text(FieldType type, RandomGenerator random) {
    int n = random.nextInt(1, 10);
    return switch (type) {
      case FieldType.Text t -> "ab🏺cé".substring(0, 1).repeat(n % 3 + 1) + (n > 5 ? "🏺" : "");
      case FieldType.Decimal t -> n + (n % 2 == 0 ? ".5" : "");
      case FieldType.Date t -> "2026-03-0" + n;
      default -> "0" + n + ":30";
    };
  }

  @Test
  void keysAreToldThePrimaryOneFirst() {
    Field id = Field.of("kiln_id", "No", new FieldType.Date());
    Field name = Field.of("name", "Name", new FieldType.Text(20));
    Table table =
        kiln(id, name)
            .withPrimaryKey(List.of(id.id()))
            .withUniqueKeys(List.of(new UniqueKey("uq_kiln_name", List.of(name.id(), id.id()))));
    assertThat(TableMeaning.of(table).keys())
        .containsExactly(
            new Constraint.Unique("pk_kiln", List.of(id.id()), true),
            new Constraint.Unique("uq_kiln_name", List.of(name.id(), id.id()), false));
    assertThat(TableMeaning.of(kiln(id)).keys()).isEmpty();
  }

  @Test
  void aRuleIsAboutTheFieldsItReads() {
    Field heat = Field.of("heat", "Heat", new FieldType.Decimal(6, 2));
    Field peak = Field.of("peak", "Peak", new FieldType.Decimal(6, 2));
    Table table =
        kiln(heat, peak)
            .withRules(
                List.of(
                    new joiner.model.Rule("r", "R", "peak >= heat AND peak > 0", ""),
                    new joiner.model.Rule("wrong", "W", "peak >", "")));
    List<Constraint.Holds> rules = TableMeaning.of(table).rules();
    assertThat(rules).extracting(Constraint.Holds::name).containsExactly("r", "wrong");
    assertThat(rules.getFirst().fields()).containsExactly(peak.id(), heat.id());
    assertThat(rules.getLast().fields()).isEmpty();
    assertThat(OwnField.of(peak).name()).isEqualTo("peak");
  }
}
