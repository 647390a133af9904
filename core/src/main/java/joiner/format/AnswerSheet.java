package joiner.format;

import java.io.IOException;
import java.io.OutputStream;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.joining.Answer;
import joiner.joining.Bound;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/**
 * The lines of an answer as a sheet of a workbook (ECMA-376) below a heading. Numbers, dates and
 * truth are what they are; texts are texts and never formulas.
 */
public final class AnswerSheet {
  /** The first day such a workbook counts from. */
  private static final LocalDate FIRST_DAY = LocalDate.of(1900, 3, 1); // It has a 29 February 1900.

  /** Digits beyond these are lost in a number of such a workbook. */
  private static final int DIGITS = 15;

  private AnswerSheet() {}

  /**
   * Writes the workbook; the stream stays open.
   *
   * @throws IOException if it cannot be written
   */
  public static void write(Answer answer, OutputStream out) throws IOException {
    var book = new Workbook(out, "Joiner", null);
    Worksheet sheet = book.newWorksheet("Answer");
    List<Bound.Column> columns = answer.bound().columns();
    for (int i = 0; i < columns.size(); i++) {
      sheet.value(0, i, columns.get(i).label());
      sheet.style(0, i).bold().set();
    }
    for (int row = 0; row < answer.lines().size(); row++) {
      for (int i = 0; i < columns.size(); i++) {
        put(sheet, row + 1, i, answer.lines().get(row).get(i));
      }
    }
    sheet.freezePane(0, 1);
    book.finish();
  }

  private static void put(Worksheet sheet, int row, int column, Value value) {
    switch (value) {
      case Value.Null none -> {}
      case Value.Num(var number, var whole) when number.precision() <= DIGITS ->
          sheet.value(row, column, number);
      case Value.Bool(boolean truth) -> sheet.value(row, column, truth);
      case Value.Date(LocalDate date) when !date.isBefore(FIRST_DAY) -> {
        sheet.value(row, column, date);
        sheet.style(row, column).format("yyyy-mm-dd").set();
      }
      case Value.DateTime(LocalDateTime moment) when !moment.toLocalDate().isBefore(FIRST_DAY) -> {
        sheet.value(row, column, moment);
        sheet.style(row, column).format("yyyy-mm-dd hh:mm:ss").set();
      }
      default -> sheet.value(row, column, Evaluator.show(value));
    }
  }
}
