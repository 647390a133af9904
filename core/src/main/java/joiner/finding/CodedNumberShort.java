package joiner.finding;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.IntStream;
import joiner.edit.SetOrigin;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Generator;
import joiner.model.Origin;
import joiner.naming.Counts;
import joiner.rows.Rows;
import joiner.shape.CodedNumber;
import joiner.shape.CodedNumber.Part;

/**
 * A coded number has room for the rows to come, and those that are there have the check digit that
 * follows from the rest.
 */
final class CodedNumberShort extends FieldCheck {
  /** The tenth of its numbers that should be left. */
  private static final int LEFT = 10;

  private static final int MORE_DIGITS = 2;
  private static final int MOST_DIGITS = 18;

  CodedNumberShort() {
    super("coded-number-short", Severity.WARNING, Topic.SHAPE);
  }

  @Override
  void run(TableMeaning meaning, Field field, Rows rows, Report report) {
    if (!(field.origin() instanceof Origin.Generated(Generator.Coded(CodedNumber number)))) {
      return;
    }
    List<String> texts =
        IntStream.range(0, rows.count())
            .mapToObj(row -> rows.cell(row, field.id()))
            .flatMap(Optional::stream)
            .filter(number.formed())
            .toList();
    OptionalLong last = texts.stream().mapToLong(number::number).max();
    if (last.isPresent() && last.getAsLong() >= number.greatest() - number.greatest() / LEFT) {
      report.found(
          named(meaning.table(), field)
              + " has room for "
              + Counts.of(number.greatest())
              + " numbers, and "
              + Counts.of(last.getAsLong())
              + " is given.",
          "Where no number is left, no row can be added.",
          remedies(meaning, field, number));
    }
    List<String> wrong = texts.stream().filter(text -> !number.isChecked(text)).toList();
    if (!wrong.isEmpty()) {
      report.found(
          Counts.of(wrong.size(), "number", "numbers")
              + " of "
              + named(meaning.table(), field)
              + " end in another check digit than follows, as “"
              + wrong.getFirst()
              + "”.",
          "Either a digit was mistyped, or the numbers were given without one.");
    }
  }

  private static Remedy[] remedies(TableMeaning meaning, Field field, CodedNumber number) {
    int digits = number.counter().digits();
    if (digits + MORE_DIGITS > MOST_DIGITS) {
      return new Remedy[0];
    }
    List<Part> parts =
        number.parts().stream()
            .<Part>map(
                part ->
                    part instanceof Part.Counter ? new Part.Counter(digits + MORE_DIGITS) : part)
            .toList();
    var wider = new CodedNumber(parts, number.restart());
    return new Remedy[] {
      new Remedy(
          "Count with " + (digits + MORE_DIGITS) + " digits",
          SetOrigin.by(meaning.table(), field, new Origin.Generated(new Generator.Coded(wider))))
    };
  }
}
