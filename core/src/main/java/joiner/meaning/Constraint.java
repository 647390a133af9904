package joiner.meaning;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Expression.Comparison;
import joiner.expression.Problem;
import joiner.expression.Value;
import joiner.model.ByteSize;
import joiner.model.Demand;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.MediaType;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.naming.WordList;
import joiner.shape.TextPattern;

/**
 * Something that holds of all rows of a table, whoever keeps it. The audit looks whether rows keep
 * it, scripts have engines keep it, checks and screens say it in words.
 */
public sealed interface Constraint {
  /** What a database is to call it, before an engine makes the name shorter or different. */
  String name();

  /** The fields it is about, in order. */
  List<FieldId> fields();

  /** A constraint that each value of one field keeps or breaks by itself; NULL keeps it. */
  sealed interface OfField extends Constraint {
    Field field();

    /** What is demanded of a value, as it goes on after "must": "be at least 5". */
    String demand();

    /** Short for what it is about: "minimum". */
    String about();

    @Override
    default List<FieldId> fields() {
      return List.of(field().id());
    }
  }

  /** A constraint that can be looked up in a value that has the type of its field. */
  sealed interface OfValue extends OfField {
    /** Code points of a value's text. */
    static int lengthOf(Value value) {
      String text = value instanceof Value.Text t ? t.text() : Evaluator.show(value);
      return text.codePointCount(0, text.length());
    }

    /** Whether a value, which is not NULL, keeps it. */
    boolean isKeptBy(Value value);

    /** What must be true of the field, where an SQL condition can say it. */
    Optional<Expression> condition();
  }

  /** Texts are values of the field's type; what its form is, {@code joiner.rows} knows. */
  record OfType(String name, Field field) implements OfField {
    /** What engines that know no such type have to be told of its form, where it has one. */
    public Optional<Expression> form() {
      return field.type() instanceof FieldType.Email
          ? Optional.of(Conditions.address(field))
          : Optional.empty();
    }

    @Override
    public String demand() {
      return "fit its type";
    }

    @Override
    public String about() {
      return "type";
    }
  }

  /** There is a value. */
  record Required(String name, Field field) implements OfField {
    @Override
    public String demand() {
      return "have a value";
    }

    @Override
    public String about() {
      return "required";
    }
  }

  /** A text has at most so many code points. */
  record Longest(String name, Field field, int most) implements OfValue {
    @Override
    public String demand() {
      return "have at most " + most + " characters";
    }

    @Override
    public String about() {
      return "length";
    }

    @Override
    public boolean isKeptBy(Value value) {
      return OfValue.lengthOf(value) <= most;
    }

    @Override
    public Optional<Expression> condition() {
      return Optional.of(Conditions.length(field, Comparison.AT_MOST, most));
    }
  }

  /** A text has at least so many code points. */
  record Shortest(String name, Field field, int least) implements OfValue {
    @Override
    public String demand() {
      return "be at least " + least + " long";
    }

    @Override
    public String about() {
      return "minLength";
    }

    @Override
    public boolean isKeptBy(Value value) {
      return OfValue.lengthOf(value) >= least;
    }

    @Override
    public Optional<Expression> condition() {
      return Optional.of(Conditions.length(field, Comparison.AT_LEAST, least));
    }
  }

  /**
   * A value is one of a list.
   *
   * @param texts as they are written in the design
   * @param values what the texts mean
   */
  record Listed(String name, Field field, List<String> texts, Set<Value> values)
      implements OfValue {
    public Listed {
      texts = List.copyOf(texts);
      values = Set.copyOf(values);
    }

    @Override
    public String demand() {
      return "be one of " + String.join(", ", texts);
    }

    @Override
    public String about() {
      return "choices";
    }

    @Override
    public boolean isKeptBy(Value value) {
      return values.contains(value);
    }

    @Override
    public Optional<Expression> condition() {
      return Optional.of(Conditions.in(field, texts));
    }
  }

  /**
   * A value is on one side of a bound.
   *
   * @param side how values compare with the bound
   * @param text the bound as it is written in the design
   * @param bound what it means; empty where the text is no value of the field's type
   */
  record Bounded(String name, Field field, Comparison side, String text, Optional<Value> bound)
      implements OfValue {
    @Override
    public String demand() {
      return switch (side) {
        case AT_LEAST -> "be at least " + text;
        case AT_MOST -> "be at most " + text;
        case GREATER -> "be greater than " + text;
        case LESS -> "be less than " + text;
        case EQUAL -> "be " + text;
        case NOT_EQUAL -> "not be " + text;
      };
    }

    @Override
    public String about() {
      return Conditions.bound(side);
    }

    @Override
    public boolean isKeptBy(Value value) {
      return bound.map(b -> side.holds(Evaluator.order(value, b))).orElse(true);
    }

    @Override
    public Optional<Expression> condition() {
      return Optional.of(Conditions.compare(field, side, text));
    }
  }

  /**
   * A text matches a pattern as a whole.
   *
   * @param text the pattern as it is written in the design
   * @param read what was understood of it
   */
  record Matching(String name, Field field, String text, TextPattern.Read read) implements OfValue {
    @Override
    public String demand() {
      return "match the pattern " + text;
    }

    @Override
    public String about() {
      return "pattern";
    }

    @Override
    public boolean isKeptBy(Value value) {
      return switch (read) {
        case TextPattern.Read.Refused refused -> true; // That is a finding of the design.
        case TextPattern.Read.Understood understood ->
            understood.pattern().matches(Evaluator.show(value));
      };
    }

    @Override
    public Optional<Expression> condition() {
      return Optional.empty();
    }
  }

  /** A file has at most so many bytes. */
  record MostBytes(String name, Field field, int most) implements OfValue {
    @Override
    public String demand() {
      return "have at most " + ByteSize.of(most);
    }

    @Override
    public String about() {
      return "size";
    }

    @Override
    public boolean isKeptBy(Value value) {
      return !(value instanceof Value.Bytes bytes) || bytes.count() <= most;
    }

    @Override
    public Optional<Expression> condition() {
      return Optional.of(Conditions.bytes(field, most));
    }
  }

  /** A file is of one of some kinds, as far as its first bytes tell. */
  record OfMedia(String name, Field field, List<MediaType> media) implements OfValue {
    public OfMedia {
      media = List.copyOf(media);
    }

    @Override
    public String demand() {
      return "be " + WordList.or(media.stream().map(Enum::name).toList());
    }

    @Override
    public String about() {
      return "kind of file";
    }

    @Override
    public boolean isKeptBy(Value value) {
      return !(value instanceof Value.Bytes bytes)
          || media.stream().anyMatch(type -> type.fits(bytes.content()));
    }

    @Override
    public Optional<Expression> condition() {
      return Optional.empty();
    }
  }

  /**
   * No two rows have the same values in those fields; rows with an empty part do not count (ISO/IEC
   * 9075-2, unique constraint).
   *
   * @param primary whether it is the table's primary key
   */
  record Unique(String name, List<FieldId> fields, boolean primary) implements Constraint {
    public Unique {
      fields = List.copyOf(fields);
    }
  }

  /** A row's parent is there, unless a part of the foreign key is empty (MATCH SIMPLE). */
  record References(Relationship relationship) implements Constraint {
    @Override
    public String name() {
      return relationship.name();
    }

    @Override
    public List<FieldId> fields() {
      return relationship.childFields();
    }
  }

  /** What a rule demands. */
  sealed interface Ruled extends Constraint {
    Rule rule();

    @Override
    default String name() {
      return rule().name();
    }

    /** Why nobody can keep it, a sentence; empty: it can be read. */
    default Optional<String> fault() {
      return Optional.empty();
    }

    /** The condition by which it looks at rows, sound or not; empty: it has none. */
    default Optional<Checked> formula() {
      return Optional.empty();
    }
  }

  /**
   * A rule on each row, and what each row sums up of others, is not false.
   *
   * @param condition what the rule's formula means, sound or not
   */
  record Holds(Rule rule, Checked condition) implements Ruled {
    @Override
    public Optional<String> fault() {
      return condition instanceof Checked.Faulty(List<Problem> problems)
          ? Optional.of(problems.getFirst().message())
          : Optional.empty();
    }

    @Override
    public Optional<Checked> formula() {
      return Optional.of(condition);
    }

    @Override
    public List<FieldId> fields() {
      return switch (condition) {
        case Checked.Sound sound -> TableMeaning.fieldsOf(sound);
        case Checked.Faulty faulty -> List.of();
      };
    }
  }

  /**
   * Of the rows that a condition is true of no two have the same values in some fields.
   *
   * @param per those fields; none: there is one such row
   */
  record Alone(Rule rule, List<FieldId> per, Checked.Sound where) implements Ruled {
    public Alone {
      per = List.copyOf(per);
    }

    @Override
    public Optional<Checked> formula() {
      return Optional.of(where);
    }

    @Override
    public List<FieldId> fields() {
      return Stream.concat(per.stream(), TableMeaning.fieldsOf(where).stream()).distinct().toList();
    }
  }

  /** Periods do not overlap, and perhaps follow each other without a gap. */
  record Apart(Rule rule, Demand.Apart periods) implements Ruled {
    @Override
    public List<FieldId> fields() {
      return Stream.concat(periods.per().stream(), Stream.of(periods.from(), periods.until()))
          .toList();
    }
  }

  /** No row leads back to itself. */
  record Tree(Rule rule, Relationship over) implements Ruled {
    @Override
    public List<FieldId> fields() {
      return over.childFields();
    }
  }

  /**
   * Some values of a row stay as they are where a condition was true of it.
   *
   * @param values the fields that stay
   */
  record Stays(Rule rule, List<FieldId> values, Checked.Sound when) implements Ruled {
    public Stays {
      values = List.copyOf(values);
    }

    @Override
    public Optional<Checked> formula() {
      return Optional.of(when);
    }

    @Override
    public List<FieldId> fields() {
      return Stream.concat(values.stream(), TableMeaning.fieldsOf(when).stream())
          .distinct()
          .toList();
    }
  }

  /** What a rule speaks of is not there, or not as it would have to be. */
  record Lost(Rule rule, String why) implements Ruled {
    @Override
    public Optional<String> fault() {
      return Optional.of(why);
    }

    @Override
    public List<FieldId> fields() {
      return List.of();
    }
  }
}
