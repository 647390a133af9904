package joiner.meaning;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Expression.Comparison;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.expression.Reference;
import joiner.expression.SqlText;
import joiner.expression.Value;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.OwnField;
import joiner.model.Table;

/**
 * A common sort of rule on one row, as a form with a few slots that writes its condition in SQL and
 * is read back from it.
 *
 * @param sort which form
 * @param values what stands in its slots, as it is typed; fields by their names
 */
public record RuleForm(Sort sort, List<String> values) {
  private static final Pattern MARGIN =
      Pattern.compile("CURRENT_DATE ([+-]) INTERVAL '(\\d+)' (YEAR|MONTH|DAY)");

  public RuleForm {
    values = List.copyOf(values);
    if (values.size() != sort.slots.size()) {
      throw new IllegalArgumentException(sort + " has " + sort.slots.size() + " slots");
    }
  }

  /** What can stand in a slot. */
  public enum Slot {
    FIELD,
    /** A value of the first field, as text. */
    VALUE,
    /** Several values of the first field with commas between. */
    VALUES,
    COMPARISON,
    WHOLE_NUMBER,
    UNIT,
    CONDITION,
    /** A field of a row that the row leads to. */
    PATH
  }

  /** The sorts of rules there are forms for. */
  public enum Sort {
    RANGE(Slot.FIELD, Slot.VALUE, Slot.VALUE),
    LIST(Slot.FIELD, Slot.VALUES),
    LIKE(Slot.FIELD, Slot.VALUE),
    TODAY(Slot.FIELD, Slot.COMPARISON, Slot.WHOLE_NUMBER, Slot.UNIT),
    COMPARED(Slot.FIELD, Slot.COMPARISON, Slot.FIELD),
    REQUIRED_WHEN(Slot.FIELD, Slot.CONDITION),
    TOGETHER(Slot.FIELD, Slot.FIELD),
    AS_ITS_PARENT(Slot.FIELD, Slot.COMPARISON, Slot.PATH);

    private final List<Slot> slots;

    Sort(Slot... slots) {
      this.slots = List.of(slots);
    }

    public List<Slot> slots() {
      return slots;
    }

    /** The form with nothing in its slots but what there is nothing to choose of. */
    public RuleForm empty() {
      return new RuleForm(
          this,
          slots.stream()
              .map(
                  slot ->
                      switch (slot) {
                        case COMPARISON -> this == AS_ITS_PARENT ? "=" : "<=";
                        case WHOLE_NUMBER -> "0";
                        case UNIT -> "DAY";
                        case FIELD, VALUE, VALUES, CONDITION, PATH -> "";
                      })
              .toList());
    }
  }

  /** The same with another value in a slot. */
  public RuleForm with(int slot, String value) {
    var other = new ArrayList<>(values);
    other.set(slot, value);
    return new RuleForm(sort, other);
  }

  /** Whether every slot that must have a value has one. */
  public boolean isWhole() {
    return switch (sort) {
      case RANGE -> !at(0).isEmpty() && !(at(1).isEmpty() && at(2).isEmpty());
      default -> values.stream().noneMatch(String::isBlank);
    };
  }

  private String at(int slot) {
    return values.get(slot).strip();
  }

  /** The condition; of a form that is not whole one that cannot be used yet. */
  public Formula written(Table table) {
    String first = name(at(0));
    return new Formula(
        switch (sort) {
          case RANGE -> range(table, first);
          case LIST ->
              first
                  + " IN ("
                  + Stream.of(at(1).split(",", -1))
                      .map(value -> literal(table, value.strip()))
                      .collect(Collectors.joining(", "))
                  + ")";
          case LIKE -> first + " LIKE " + text(at(1));
          case TODAY -> first + " " + at(1) + " CURRENT_DATE" + margin();
          case COMPARED -> first + " " + at(1) + " " + name(at(2));
          case REQUIRED_WHEN -> "(" + at(1) + ") IS NOT TRUE OR " + first + " IS NOT NULL";
          case TOGETHER -> {
            String second = name(at(1));
            yield first
                + " IS NULL AND "
                + second
                + " IS NULL OR "
                + first
                + " IS NOT NULL AND "
                + second
                + " IS NOT NULL";
          }
          case AS_ITS_PARENT -> first + " " + at(1) + " " + at(2);
        });
  }

  private static String name(String field) {
    return field.isEmpty() ? "" : Formula.naming(field).text();
  }

  private String range(Table table, String field) {
    if (at(2).isEmpty()) {
      return field + " >= " + literal(table, at(1));
    }
    if (at(1).isEmpty()) {
      return field + " <= " + literal(table, at(2));
    }
    return field + " BETWEEN " + literal(table, at(1)) + " AND " + literal(table, at(2));
  }

  private String margin() {
    String number = at(2);
    if (number.isEmpty() || number.equals("0")) {
      return "";
    }
    boolean before = number.startsWith("-");
    return (before ? " - " : " + ")
        + "INTERVAL "
        + text(before ? number.substring(1) : number)
        + " "
        + at(3);
  }

  private static String text(String text) {
    return "'" + text.replace("'", "''") + "'";
  }

  /**
   * A value of the first field as SQL has it; what is none is a text, which is told where it
   * stands.
   */
  private String literal(Table table, String value) {
    Optional<Field> field = table.fieldNamed(at(0));
    if (value.isEmpty() || field.isEmpty()) {
      return value;
    }
    return switch (field.get().type().kind()) {
      case TEXT, UUID -> text(value);
      case DATE -> "DATE " + text(value);
      case TIME -> "TIME " + text(value);
      case DATE_TIME, ZONED -> "TIMESTAMP " + text(value.replace('T', ' '));
      case WHOLE, NUMBER -> value.matches("[+-]?\\d+(\\.\\d+)?") ? value : text(value);
      case BOOLEAN -> value.matches("(?i)true|false") ? value : text(value);
      case BYTES, INTERVAL, NULL -> text(value);
    };
  }

  /** The form that a condition of a table looks like, if it looks like one that writes the same. */
  public static Optional<RuleForm> of(TableMeaning meaning, Formula condition) {
    return condition.condition(meaning.scope()) instanceof Checked.Sound sound
        ? read(sound.tree())
            .filter(
                form ->
                    form.written(meaning.table()).condition(meaning.scope())
                            instanceof Checked.Sound again
                        && isSame(again.tree(), sound.tree()))
        : Optional.empty();
  }

  /** Places in the text do not count. */
  private static boolean isSame(Expression one, Expression other) {
    return SqlText.iso().write(one).equals(SqlText.iso().write(other));
  }

  private static Optional<RuleForm> read(Expression tree) {
    return switch (tree) {
      case Expression.Between(var operand, var low, var high, var negated, var place) ->
          negated ? Optional.empty() : form(Sort.RANGE, own(operand), value(low), value(high));
      case Expression.In(var operand, var options, var negated, var place) ->
          negated ? Optional.empty() : form(Sort.LIST, own(operand), all(options));
      case Expression.Like(var operand, var pattern, var escape, var negated, var place) ->
          negated || escape.isPresent()
              ? Optional.empty()
              : form(Sort.LIKE, own(operand), value(pattern));
      case Expression.Compare compare -> compared(compare);
      case Expression.Or(List<Expression> all, var place) when all.size() == 2 -> either(all);
      default -> Optional.empty();
    };
  }

  @SafeVarargs
  private static Optional<RuleForm> form(Sort sort, Optional<String>... values) {
    return Stream.of(values).allMatch(Optional::isPresent)
        ? Optional.of(new RuleForm(sort, Stream.of(values).flatMap(Optional::stream).toList()))
        : Optional.empty();
  }

  private static Optional<String> read(Expression of, Function<Reference, Optional<String>> name) {
    return of instanceof Expression.FieldRef(Reference to, var place)
        ? name.apply(to)
        : Optional.empty();
  }

  /** Texts are compared by code points, which is said of them behind the scenes. */
  private static Optional<String> own(Expression of) {
    return of instanceof Expression.CodePoints(var operand, var place)
        ? own(operand)
        : read(of, to -> to instanceof OwnField own ? Optional.of(own.name()) : Optional.empty());
  }

  private static Optional<String> far(Expression of) {
    return read(
        of, to -> to instanceof FarField ? Optional.of(SqlText.iso().write(of)) : Optional.empty());
  }

  private static Optional<String> value(Expression of) {
    return of instanceof Expression.Literal(Value value, Kind kind, var place)
            && !(value instanceof Value.Null)
        ? Optional.of(Evaluator.show(value))
        : Optional.empty();
  }

  private static Optional<String> all(List<Expression> options) {
    List<Optional<String>> values = options.stream().map(RuleForm::value).toList();
    return values.stream().allMatch(v -> v.filter(text -> !text.contains(",")).isPresent())
        ? Optional.of(values.stream().flatMap(Optional::stream).collect(Collectors.joining(", ")))
        : Optional.empty();
  }

  private static Optional<RuleForm> compared(Expression.Compare compare) {
    Optional<String> left = own(compare.left());
    Optional<String> side = Optional.of(compare.operator().sql());
    if (own(compare.right()).isPresent()) {
      return form(Sort.COMPARED, left, side, own(compare.right()));
    }
    if (far(compare.right()).isPresent()) {
      return form(Sort.AS_ITS_PARENT, left, side, far(compare.right()));
    }
    if (value(compare.right()).isPresent()) {
      return switch (compare.operator()) {
        case Comparison.AT_LEAST -> form(Sort.RANGE, left, value(compare.right()), Optional.of(""));
        case Comparison.AT_MOST -> form(Sort.RANGE, left, Optional.of(""), value(compare.right()));
        default -> Optional.empty();
      };
    }
    return today(left, side, compare.right());
  }

  /** Today with a margin, read from how it is written. */
  private static Optional<RuleForm> today(
      Optional<String> field, Optional<String> side, Expression moment) {
    String sql = SqlText.iso().write(moment);
    if (sql.equals("CURRENT_DATE")) {
      return form(Sort.TODAY, field, side, Optional.of("0"), Optional.of("DAY"));
    }
    Matcher margin = MARGIN.matcher(sql);
    return margin.matches()
        ? form(
            Sort.TODAY,
            field,
            side,
            Optional.of((margin.group(1).equals("-") ? "-" : "") + new BigDecimal(margin.group(2))),
            Optional.of(margin.group(3)))
        : Optional.empty();
  }

  private static Optional<RuleForm> either(List<Expression> both) {
    if (both.getFirst() instanceof Expression.IsTruth truth
        && truth.negated()
        && truth.truth().equals(Optional.of(true))
        && both.getLast() instanceof Expression.IsNull(var field, var filled, var place)
        && filled) {
      return form(
          Sort.REQUIRED_WHEN, own(field), Optional.of(SqlText.iso().write(truth.operand())));
    }
    if (both.getFirst() instanceof Expression.And(List<Expression> none, var place)
        && none.size() == 2
        && none.getFirst() instanceof Expression.IsNull one
        && none.getLast() instanceof Expression.IsNull other) {
      return form(Sort.TOGETHER, own(one.operand()), own(other.operand()));
    }
    return Optional.empty();
  }
}
