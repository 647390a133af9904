package joiner.audit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Predicate;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Limits;
import joiner.model.Table;
import joiner.rows.ReadValue;
import joiner.rows.ValueReader;
import joiner.shape.TextPattern;

/** Checks each cell of one field by itself: type, length, presence, list and bounds. */
final class CellAudit {
  private final Table table;
  private final Field field;
  private final TypedTable rows;

  CellAudit(Table table, Field field, TypedTable rows) {
    this.table = table;
    this.field = field;
    this.rows = rows;
  }

  void addTo(List<Violation> violations, List<Hint> hints) {
    types(violations);
    lengths(violations);
    presence(violations);
    list(violations, hints);
    bounds(violations);
  }

  private Optional<String> cell(int row) {
    return rows.rows().cell(row, field.id());
  }

  private void add(
      List<Violation> violations,
      Violation.Kind kind,
      String constraint,
      List<Integer> bad,
      String says) {
    if (!bad.isEmpty()) {
      violations.add(
          new Violation(
              kind, table.id(), List.of(field.id()), constraint, bad, Sentences.rows(bad) + says));
    }
  }

  private void types(List<Violation> violations) {
    var bad = new ArrayList<Integer>();
    String expected = "";
    String example = "";
    for (int row = 0; row < rows.count(); row++) {
      Optional<String> cell = cell(row);
      if (cell.isPresent()
          && ValueReader.read(cell.get(), field.type()) instanceof ReadValue.Unfit unfit) {
        example = bad.isEmpty() ? cell.get() : example;
        expected = unfit.expected();
        bad.add(row + 1);
      }
    }
    add(
        violations,
        Violation.Kind.WRONG_TYPE,
        "type of " + field.name(),
        bad,
        ": " + field.label() + " holds “" + example + "” where " + expected + " was expected.");
  }

  private void lengths(List<Violation> violations) {
    OptionalInt most =
        field.type() instanceof FieldType.Choice ? OptionalInt.empty() : field.type().length();
    if (most.isEmpty()) {
      return;
    }
    var bad = new ArrayList<Integer>();
    int longest = 0;
    List<Value> values = rows.column(field);
    for (int row = 0; row < rows.count(); row++) {
      int length =
          values.get(row) instanceof Value.Text text
              ? text.text().codePointCount(0, text.text().length())
              : 0;
      if (length > most.getAsInt()) {
        bad.add(row + 1);
        longest = Math.max(longest, length);
      }
    }
    add(
        violations,
        Violation.Kind.TOO_LONG,
        "length of " + field.name(),
        bad,
        ": "
            + field.label()
            + " allows "
            + most.getAsInt()
            + " characters; the longest here has "
            + longest
            + ".");
  }

  private void presence(List<Violation> violations) {
    if (!table.isRequired(field.id())) {
      return;
    }
    var bad = new ArrayList<Integer>();
    for (int row = 0; row < rows.count(); row++) {
      if (cell(row).isEmpty()) {
        bad.add(row + 1);
      }
    }
    String lacks = bad.size() == 1 ? " lacks " : " lack ";
    add(
        violations,
        Violation.Kind.MISSING_REQUIRED,
        "required " + field.name(),
        bad,
        lacks + field.label() + ", which is required.");
  }

  private void list(List<Violation> violations, List<Hint> hints) {
    List<String> allowed =
        field.type() instanceof FieldType.Choice choice
            ? choice.values()
            : field.limits().allowed();
    if (allowed.isEmpty()) {
      return;
    }
    Set<Value> values = new HashSet<>();
    allowed.forEach(text -> values.add(ValueReader.valueOrNull(Optional.of(text), field.type())));
    var bad = new ArrayList<Integer>();
    List<Value> column = rows.column(field);
    for (int row = 0; row < rows.count(); row++) {
      if (!(column.get(row) instanceof Value.Null) && !values.contains(column.get(row))) {
        bad.add(row + 1);
        hintAtSlip(row, column.get(row), allowed, hints);
      }
    }
    add(
        violations,
        Violation.Kind.NOT_IN_LIST,
        "choices of " + field.name(),
        bad,
        ": “"
            + (bad.isEmpty() ? "" : Evaluator.show(column.get(bad.getFirst() - 1)))
            + "” is not one of the choices of "
            + field.label()
            + " ("
            + String.join(", ", allowed)
            + ").");
  }

  private void hintAtSlip(int row, Value value, List<String> allowed, List<Hint> hints) {
    String shown = Evaluator.show(value);
    String folded = shown.strip().toLowerCase(Locale.ROOT);
    allowed.stream()
        .filter(choice -> choice.toLowerCase(Locale.ROOT).equals(folded))
        .findFirst()
        .ifPresent(
            near ->
                hints.add(
                    new Hint(
                        table.id(),
                        field.id(),
                        List.of(row + 1),
                        "“"
                            + shown
                            + "” differs from the choice “"
                            + near
                            + "” only in blanks or case.")));
  }

  private void bounds(List<Violation> violations) {
    Limits limits = field.limits();
    limits
        .minimum()
        .ifPresent(
            text ->
                bound(violations, "minimum", text, order -> order < 0, "must be at least " + text));
    limits
        .maximum()
        .ifPresent(
            text ->
                bound(violations, "maximum", text, order -> order > 0, "must be at most " + text));
    limits
        .above()
        .ifPresent(
            text ->
                bound(
                    violations,
                    "above",
                    text,
                    order -> order <= 0,
                    "must be greater than " + text));
    limits
        .below()
        .ifPresent(
            text ->
                bound(violations, "below", text, order -> order >= 0, "must be less than " + text));
    limits.pattern().ifPresent(pattern -> pattern(violations, pattern));
    limits.minLength().ifPresent(least -> minLength(violations, least));
  }

  private void bound(
      List<Violation> violations,
      String name,
      String text,
      Predicate<Integer> breaks,
      String says) {
    if (ValueReader.bound(text, field.type()) instanceof ReadValue.Fits bound) {
      broken(violations, name, says, value -> breaks.test(Evaluator.order(value, bound.value())));
    }
  }

  private void pattern(List<Violation> violations, String pattern) {
    switch (TextPattern.of(pattern)) {
      case TextPattern.Read.Refused refused -> {} // That is a finding of the design.
      case TextPattern.Read.Understood understood ->
          broken(
              violations,
              "pattern",
              "must match the pattern " + pattern,
              value -> !understood.pattern().matches(Evaluator.show(value)));
    }
  }

  private void minLength(List<Violation> violations, int least) {
    broken(
        violations,
        "minLength",
        "must be at least " + least + " long",
        value -> Evaluator.show(value).codePoints().count() < least);
  }

  private void broken(
      List<Violation> violations, String name, String says, Predicate<Value> breaks) {
    var bad = new ArrayList<Integer>();
    List<Value> column = rows.column(field);
    for (int row = 0; row < rows.count(); row++) {
      if (!(column.get(row) instanceof Value.Null) && breaks.test(column.get(row))) {
        bad.add(row + 1);
      }
    }
    String example = bad.isEmpty() ? "" : Evaluator.show(column.get(bad.getFirst() - 1));
    add(
        violations,
        Violation.Kind.RULE,
        name + " of " + field.name(),
        bad,
        ": " + field.label() + " " + says + "; found “" + example + "”.");
  }
}
