package joiner.format;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.List;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.joining.Answer;
import joiner.joining.Bound;

/** The lines of an answer as CSV with a heading (RFC 4180). */
public final class AnswerCsv {
  /** What makes a spreadsheet take a text for a formula (OWASP, "CSV Injection"). */
  private static final String FORMULA_STARTS = "=+-@\t\r";

  private AnswerCsv() {}

  /**
   * The whole text.
   *
   * @param forSheets whether texts that a spreadsheet would compute get an apostrophe before them
   */
  public static String of(Answer answer, boolean forSheets) {
    var out = new StringWriter();
    try (CsvWriter csv = CsvWriter.builder().build(out)) {
      csv.writeRecord(
          answer.bound().columns().stream()
              .map(Bound.Column::label)
              .map(label -> text(label, forSheets))
              .toList());
      for (List<Value> line : answer.lines()) {
        csv.writeRecord(line.stream().map(value -> cell(value, forSheets)).toList());
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return out.toString();
  }

  private static String cell(Value value, boolean forSheets) {
    return switch (value) {
      case Value.Null none -> "";
      case Value.Text(String text) -> text(text, forSheets);
      default -> Evaluator.show(value);
    };
  }

  private static String text(String text, boolean forSheets) {
    boolean starts = !text.isEmpty() && FORMULA_STARTS.indexOf(text.charAt(0)) >= 0;
    return forSheets && starts ? "'" + text : text;
  }
}
