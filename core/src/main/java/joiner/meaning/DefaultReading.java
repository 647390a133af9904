package joiner.meaning;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.SqlText;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.rows.ReadValue;
import joiner.rows.ValueReader;

/**
 * What somebody may mean who types the default of a field: a value as people write it, the day or
 * the moment a row is made, who makes it, or a formula.
 *
 * @param sort what kind of default it is
 * @param words as people say it
 * @param value what the field gets; empty for none
 */
public record DefaultReading(Sort sort, String words, Optional<Formula> value) {
  /** The kinds of defaults. */
  public enum Sort {
    NOTHING,
    TODAY,
    NOW,
    PERSON,
    CONSTANT,
    FORMULA
  }

  private static final String TODAY = "today";
  private static final String NOW = "now";
  private static final String PERSON = "the person entering";

  /** What may be meant, the likeliest first; never empty. */
  public static List<DefaultReading> of(Field field, String typed) {
    String text = typed.strip();
    List<DefaultReading> usual = usual(field);
    if (text.isEmpty()) {
      return usual;
    }
    var readings = new ArrayList<DefaultReading>();
    Optional<DefaultReading> formula = formula(field, text);
    formula.ifPresent(readings::add);
    usual.stream().filter(one -> one.isMeantBy(text)).forEach(readings::add);
    usual.stream().filter(one -> one.words.equalsIgnoreCase(text)).forEach(readings::addFirst);
    constant(field.type(), text)
        .filter(one -> !(field.type() instanceof FieldType.Choice))
        .ifPresent(readings::add);
    if (formula.isEmpty()) {
      readings.add(new DefaultReading(Sort.FORMULA, text, Optional.of(new Formula(text))));
    }
    Map<Optional<Formula>, DefaultReading> firstOfItsValue = new LinkedHashMap<>();
    readings.forEach(reading -> firstOfItsValue.putIfAbsent(reading.value, reading));
    return List.copyOf(firstOfItsValue.values());
  }

  /** Whether a text begins its words; of the clock whatever a clock tells is meant. */
  private boolean isMeantBy(String typed) {
    List<String> names =
        switch (sort) {
          case TODAY, NOW -> List.of(TODAY, NOW);
          case PERSON -> List.of(PERSON, "person", "me", "user");
          case NOTHING, CONSTANT, FORMULA -> List.of(words);
        };
    String begun = typed.toLowerCase(Locale.ROOT);
    return names.stream().anyMatch(name -> name.toLowerCase(Locale.ROOT).startsWith(begun));
  }

  /** What fields of its type usually have. */
  private static List<DefaultReading> usual(Field field) {
    var nothing = new DefaultReading(Sort.NOTHING, "", Optional.empty());
    Stream<DefaultReading> others =
        switch (field.type().kind()) {
          case DATE -> Stream.of(clock(Sort.TODAY, TODAY, Kind.DATE));
          case DATE_TIME -> Stream.of(clock(Sort.NOW, NOW, Kind.DATE_TIME));
          case ZONED -> Stream.of(clock(Sort.NOW, NOW, Kind.ZONED));
          case BOOLEAN -> constants(field.type(), List.of("true", "false"));
          case TEXT -> Stream.concat(constants(field.type(), listed(field)), person(field));
          case WHOLE, NUMBER -> constants(field.type(), List.of("0"));
          case TIME, UUID, INTERVAL, BYTES, NULL -> Stream.of();
        };
    return Stream.concat(Stream.of(nothing), others).toList();
  }

  /** Who enters a row, for texts that are no choices. */
  private static Stream<DefaultReading> person(Field field) {
    return field.type() instanceof FieldType.Text
        ? Stream.of(clock(Sort.PERSON, PERSON, Kind.TEXT))
        : Stream.of();
  }

  private static List<String> listed(Field field) {
    return field.type() instanceof FieldType.Choice choice
        ? choice.values()
        : field.limits().allowed();
  }

  private static DefaultReading clock(Sort sort, String words, Kind kind) {
    String sql = SqlText.iso().write(new Expression.Now(kind, Place.NOWHERE));
    return new DefaultReading(sort, words, Optional.of(new Formula(sql)));
  }

  private static Stream<DefaultReading> constants(FieldType type, List<String> texts) {
    return texts.stream().flatMap(text -> constant(type, text).stream());
  }

  /** The text as a value of the type. */
  private static Optional<DefaultReading> constant(FieldType type, String text) {
    return ValueReader.read(text, type) instanceof ReadValue.Fits(Value value)
        ? Optional.of(
            new DefaultReading(
                Sort.CONSTANT, Evaluator.show(value), Optional.of(literal(value, type))))
        : Optional.empty();
  }

  private static Formula literal(Value value, FieldType type) {
    boolean asText = type.kind() == Kind.UUID;
    Expression written =
        asText
            ? new Expression.Literal(
                new Value.Text(Evaluator.show(value)), Kind.TEXT, Place.NOWHERE)
            : new Expression.Literal(value, type.kind(), Place.NOWHERE);
    return new Formula(SqlText.iso().write(written));
  }

  /** The text as a formula that gives a value of the field's kind. */
  private static Optional<DefaultReading> formula(Field field, String text) {
    var formula = new Formula(text);
    return formula.constant() instanceof Checked.Sound sound && suits(sound.kind(), field.type())
        ? Optional.of(reading(formula, sound.tree(), field.type()))
        : Optional.empty();
  }

  /** The default a field has; empty if it has none. */
  public static Optional<DefaultReading> of(Field field) {
    return field
        .defaultValue()
        .map(
            given ->
                given.constant() instanceof Checked.Sound sound
                    ? reading(given, sound.tree(), field.type())
                    : new DefaultReading(Sort.FORMULA, given.text(), Optional.of(given)));
  }

  private static DefaultReading reading(Formula formula, Expression tree, FieldType type) {
    return switch (tree) {
      case Expression.Now now -> {
        yield switch (now.kind()) {
          case DATE -> clock(Sort.TODAY, TODAY, Kind.DATE);
          case TEXT -> clock(Sort.PERSON, PERSON, Kind.TEXT);
          default -> clock(Sort.NOW, NOW, now.kind());
        };
      }
      case Expression.Literal literal ->
          new DefaultReading(
              Sort.CONSTANT,
              Evaluator.show(literal.value()),
              Optional.of(literal(literal.value(), type)));
      default -> new DefaultReading(Sort.FORMULA, formula.text(), Optional.of(formula));
    };
  }

  private static boolean suits(Kind given, FieldType type) {
    Kind wanted = type.kind();
    return given == wanted
        || given == Kind.WHOLE && wanted == Kind.NUMBER
        || given == Kind.TEXT && wanted == Kind.UUID;
  }
}
