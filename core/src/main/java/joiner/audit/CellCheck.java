package joiner.audit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import joiner.expression.Evaluator;
import joiner.expression.Expression.Comparison;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.model.Field;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.rows.ReadValue;
import joiner.rows.StoredFile;
import joiner.rows.ValueReader;

/**
 * Looks at the cells of one field for one constraint that each of them keeps or breaks by itself.
 */
final class CellCheck {
  /** How many slips of a field are told. */
  private static final int MOST_HINTS = 1_000;

  private final TableId table;
  private final Constraint.OfField constraint;
  private final TypedCells cells;
  private final Broken broken;
  private final List<Hint> hints = new ArrayList<>();
  private final Optional<Range> range;
  private final String[] choices;
  private int longest;

  /** The numbers of a form that keep a bound. */
  private record Range(long least, long greatest) {}

  CellCheck(TableId table, Constraint.OfField constraint, TypedCells cells, int mostRows) {
    this.table = table;
    this.constraint = constraint;
    this.cells = cells;
    this.broken = new Broken(mostRows);
    this.choices =
        constraint instanceof Constraint.Listed listed
            ? listed.texts().toArray(new String[0])
            : new String[0];
    this.range =
        constraint instanceof Constraint.Bounded bounded && bounded.bound().isPresent()
            ? cells.form().flatMap(form -> range(form, bounded.side(), bounded.bound().get()))
            : Optional.empty();
  }

  private static Optional<Range> range(LongForm form, Comparison side, Value bound) {
    var number = form.of(bound);
    if (number.isEmpty()) {
      return Optional.empty();
    }
    long n = number.getAsLong();
    return switch (side) {
      case AT_LEAST -> Optional.of(new Range(n, Long.MAX_VALUE));
      case AT_MOST -> Optional.of(new Range(Long.MIN_VALUE, n));
      case GREATER -> Optional.of(new Range(n + 1, Long.MAX_VALUE));
      case LESS -> Optional.of(new Range(Long.MIN_VALUE, n - 1));
      case EQUAL, NOT_EQUAL -> Optional.empty();
    };
  }

  /** Looks at so many rows that were read, the first of which has that number, from 0. */
  void check(int rows, int first) {
    switch (constraint) {
      case Constraint.OfType c -> {
        for (int i = 0; i < rows; i++) {
          if (cells.state(i) == TypedCells.UNFIT) {
            int row = i;
            broken.add(first + i, () -> cells.text(row));
          }
        }
      }
      case Constraint.Required c -> {
        for (int i = 0; i < rows; i++) {
          if (!cells.isFilled(i)) {
            broken.add(first + i);
          }
        }
      }
      case Constraint.OfValue c -> {
        for (int i = 0; i < rows; i++) {
          if (cells.hasValue(i) && !isKept(c, i)) {
            add(c, i, first + i);
          }
        }
      }
    }
  }

  /** Asks the constraint itself only where the quick way does not tell. */
  private boolean isKept(Constraint.OfValue c, int i) {
    boolean plain = cells.state(i) == TypedCells.PLAIN;
    if (plain && range.isPresent()) {
      return cells.number(i) >= range.get().least && cells.number(i) <= range.get().greatest;
    }
    if (plain && cells.isText()) {
      int length = cells.length(i);
      switch (c) {
        case Constraint.Longest most -> {
          return length <= most.most()
              || Slices.codePoints(cells.chars(), cells.start(i), length) <= most.most();
        }
        case Constraint.Listed listed -> {
          for (String text : choices) {
            if (Slices.equal(cells.chars(), cells.start(i), length, text)) {
              return true;
            }
          }
        }
        case Constraint.Shortest s -> {}
        case Constraint.Bounded s -> {}
        case Constraint.Matching s -> {}
        case Constraint.MostBytes s -> {}
        case Constraint.OfMedia s -> {}
      }
    }
    return c.isKeptBy(cells.value(i));
  }

  private void add(Constraint.OfValue c, int i, int row) {
    broken.add(row, () -> cells.value(i));
    if (c instanceof Constraint.Longest) {
      longest = Math.max(longest, Constraint.OfValue.lengthOf(cells.value(i)));
    }
    if (c instanceof Constraint.Listed listed && hints.size() < MOST_HINTS) {
      slip(listed, Evaluator.show(cells.value(i)), row + 1);
    }
  }

  private void slip(Constraint.Listed listed, String shown, int row) {
    String folded = Sentences.folded(shown);
    listed.texts().stream()
        .filter(choice -> choice.toLowerCase(Locale.ROOT).equals(folded))
        .findFirst()
        .ifPresent(
            near ->
                hints.add(
                    new Hint(
                        table,
                        cells.field().id(),
                        List.of(row),
                        "“"
                            + shown
                            + "” differs from the choice “"
                            + near
                            + "” only in blanks or case.")));
  }

  /** Values that are probably slips. */
  List<Hint> hints() {
    return hints;
  }

  /** What was found, if anything. */
  Optional<Violation> violation() {
    if (broken.isEmpty()) {
      return Optional.empty();
    }
    List<Integer> rows = broken.numbers();
    return Optional.of(
        new Violation(
            kind(),
            table,
            List.of(cells.field().id()),
            nameOf(constraint),
            broken.count(),
            rows,
            Sentences.rows(rows, broken.count()) + says()));
  }

  /** What a constraint of a field is called in a report. */
  static String nameOf(Constraint.OfField constraint) {
    boolean missing = constraint instanceof Constraint.Required;
    return constraint.about() + (missing ? " " : " of ") + constraint.field().name();
  }

  private Violation.Kind kind() {
    return switch (constraint) {
      case Constraint.OfType c -> Violation.Kind.WRONG_TYPE;
      case Constraint.Required c -> Violation.Kind.MISSING_REQUIRED;
      case Constraint.Longest c -> Violation.Kind.TOO_LONG;
      case Constraint.Listed c -> Violation.Kind.NOT_IN_LIST;
      case Constraint.Shortest c -> Violation.Kind.RULE;
      case Constraint.Bounded c -> Violation.Kind.RULE;
      case Constraint.Matching c -> Violation.Kind.RULE;
      case Constraint.MostBytes c -> Violation.Kind.TOO_LONG;
      case Constraint.OfMedia c -> Violation.Kind.WRONG_TYPE;
    };
  }

  private String says() {
    Field field = cells.field();
    return switch (constraint) {
      case Constraint.OfType c ->
          ": "
              + field.label()
              + " holds “"
              + broken.example()
              + "” where "
              + expected((String) broken.example())
              + " was expected.";
      case Constraint.Required c ->
          (broken.count() == 1 ? " lacks " : " lack ") + field.label() + ", which is required.";
      case Constraint.Longest c ->
          ": "
              + field.label()
              + " allows "
              + Counts.of(c.most())
              + " characters; the longest here has "
              + Counts.of(longest)
              + ".";
      case Constraint.Listed c ->
          ": “"
              + example()
              + "” is not one of the choices of "
              + field.label()
              + " ("
              + String.join(", ", c.texts())
              + ").";
      case Constraint.OfValue c ->
          ": " + field.label() + " must " + c.demand() + "; found “" + example() + "”.";
    };
  }

  private String example() {
    return broken.example() instanceof Value.Bytes(String file)
        ? StoredFile.words(file)
        : Evaluator.show((Value) broken.example());
  }

  private String expected(String text) {
    return ValueReader.read(text, cells.field().type()) instanceof ReadValue.Unfit unfit
        ? unfit.expected()
        : "another value";
  }
}
