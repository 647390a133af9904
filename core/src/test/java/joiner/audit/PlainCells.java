package joiner.audit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.TableId;
import joiner.rows.ReadValue;
import joiner.rows.RowValues;
import joiner.rows.StoredFile;
import joiner.rows.ValueReader;

/** Checks each cell of one field by itself: type, length, presence, list and bounds. */
final class PlainCells {
  private final TableId table;
  private final Field field;
  private final List<Constraint.OfField> constraints;
  private final RowValues rows;

  PlainCells(TableMeaning meaning, Field field, RowValues rows) {
    this.table = meaning.table().id();
    this.field = field;
    this.constraints = meaning.constraintsOf(field.id());
    this.rows = rows;
  }

  void addTo(List<Violation> violations, List<Hint> hints) {
    for (Constraint.OfField constraint : constraints) {
      switch (constraint) {
        case Constraint.OfType c -> type(c, violations);
        case Constraint.Required c -> presence(c, violations);
        case Constraint.OfValue c -> values(c, violations, hints);
      }
    }
  }

  private void add(
      List<Violation> violations,
      Violation.Kind kind,
      Constraint.OfField constraint,
      List<Integer> bad,
      String says) {
    String name = constraint.about() + (kind == Violation.Kind.MISSING_REQUIRED ? " " : " of ");
    violations.add(
        new Violation(
            kind,
            table,
            List.of(field.id()),
            name + field.name(),
            bad.size(),
            bad,
            Sentences.rows(bad, bad.size()) + says));
  }

  private void type(Constraint.OfType type, List<Violation> violations) {
    var bad = new ArrayList<Integer>();
    String expected = "";
    String example = "";
    for (int row = 0; row < rows.count(); row++) {
      Optional<String> cell = rows.rows().cell(row, field.id());
      if (cell.isPresent()
          && ValueReader.read(cell.get(), field.type()) instanceof ReadValue.Unfit unfit) {
        example = bad.isEmpty() ? cell.get() : example;
        expected = bad.isEmpty() ? unfit.expected() : expected;
        bad.add(row + 1);
      }
    }
    if (!bad.isEmpty()) {
      String says =
          ": " + field.label() + " holds “" + example + "” where " + expected + " was expected.";
      add(violations, Violation.Kind.WRONG_TYPE, type, bad, says);
    }
  }

  private void presence(Constraint.Required required, List<Violation> violations) {
    var bad = new ArrayList<Integer>();
    for (int row = 0; row < rows.count(); row++) {
      if (rows.rows().cell(row, field.id()).isEmpty()) {
        bad.add(row + 1);
      }
    }
    if (!bad.isEmpty()) {
      String says =
          (bad.size() == 1 ? " lacks " : " lack ") + field.label() + ", which is required.";
      add(violations, Violation.Kind.MISSING_REQUIRED, required, bad, says);
    }
  }

  private void values(Constraint.OfValue constraint, List<Violation> violations, List<Hint> hints) {
    List<Value> column = rows.values(field.id());
    var bad = new ArrayList<Integer>();
    for (int row = 0; row < rows.count(); row++) {
      Value value = column.get(row);
      if (!(value instanceof Value.Null) && !constraint.isKeptBy(value)) {
        bad.add(row + 1);
      }
    }
    if (bad.isEmpty()) {
      return;
    }
    switch (constraint) {
      case Constraint.Longest c ->
          add(violations, Violation.Kind.TOO_LONG, c, bad, tooLong(c, bad, column));
      case Constraint.Listed c -> {
        add(violations, Violation.Kind.NOT_IN_LIST, c, bad, notListed(c, first(bad, column)));
        bad.forEach(row -> hintAtSlip(row, column.get(row - 1), c.texts(), hints));
      }
      case Constraint.Shortest c -> broken(Violation.Kind.RULE, c, bad, column, violations);
      case Constraint.Bounded c -> broken(Violation.Kind.RULE, c, bad, column, violations);
      case Constraint.Matching c -> broken(Violation.Kind.RULE, c, bad, column, violations);
      case Constraint.MostBytes c -> broken(Violation.Kind.TOO_LONG, c, bad, column, violations);
      case Constraint.OfMedia c -> broken(Violation.Kind.WRONG_TYPE, c, bad, column, violations);
    }
  }

  private static String first(List<Integer> bad, List<Value> column) {
    return column.get(bad.getFirst() - 1) instanceof Value.Bytes(String file)
        ? StoredFile.words(file)
        : Evaluator.show(column.get(bad.getFirst() - 1));
  }

  private String tooLong(Constraint.Longest most, List<Integer> bad, List<Value> column) {
    int longest =
        bad.stream()
            .mapToInt(row -> Constraint.OfValue.lengthOf(column.get(row - 1)))
            .max()
            .orElse(0);
    return ": "
        + field.label()
        + " allows "
        + joiner.naming.Counts.of(most.most())
        + " characters; the longest here has "
        + joiner.naming.Counts.of(longest)
        + ".";
  }

  private String notListed(Constraint.Listed list, String example) {
    return ": “"
        + example
        + "” is not one of the choices of "
        + field.label()
        + " ("
        + String.join(", ", list.texts())
        + ").";
  }

  private void broken(
      Violation.Kind kind,
      Constraint.OfValue constraint,
      List<Integer> bad,
      List<Value> column,
      List<Violation> violations) {
    String says =
        ": "
            + field.label()
            + " must "
            + constraint.demand()
            + "; found “"
            + first(bad, column)
            + "”.";
    add(violations, kind, constraint, bad, says);
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
                        table,
                        field.id(),
                        List.of(row),
                        "“"
                            + shown
                            + "” differs from the choice “"
                            + near
                            + "” only in blanks or case.")));
  }
}
