package joiner.format;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.List;
import joiner.Pottery;
import joiner.expression.Value;
import joiner.joining.Answer;
import joiner.joining.Answering;
import joiner.joining.Asking;
import joiner.joining.Binding;
import joiner.meaning.Draft;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.Row;
import org.junit.jupiter.api.Test;

/** A workbook of an answer holds what the lines do, each value as what it is. */
class AnswerSheetTest {
  private final Draft demo = Pottery.demo();

  private Answer answer(String... columns) {
    var made =
        (Asking.Made.Question)
            new Asking(demo.design(), demo.meaning()).of(List.of(columns), List.of());
    var sound = (Binding.Result.Sound) Binding.of(demo.design(), demo.meaning(), made.question());
    return new Answering(demo, Pottery.CLOCK).answer(sound.bound());
  }

  private static List<Row> read(Answer answer) throws Exception {
    var out = new ByteArrayOutputStream();
    AnswerSheet.write(answer, out);
    try (var book = new ReadableWorkbook(new ByteArrayInputStream(out.toByteArray()))) {
      return book.getFirstSheet().read();
    }
  }

  @Test
  void numbersDatesAndTextsAreWhatTheyAre() throws Exception {
    Answer answer =
        answer("firing.firing_id", "firing.started_at", "kiln.name", "kiln.name || '=1+1'");
    List<Row> rows = read(answer);
    assertThat(rows).hasSize(answer.lines().size() + 1);
    assertThat(rows.getFirst().getCellText(0)).isEqualTo("Firing number");
    for (int i = 0; i < answer.lines().size(); i++) {
      List<Value> line = answer.lines().get(i);
      Row row = rows.get(i + 1);
      assertThat(row.getCellAsNumber(0).orElseThrow())
          .isEqualByComparingTo(((Value.Num) line.getFirst()).number());
      LocalDateTime begun = ((Value.DateTime) line.get(1)).at();
      assertThat(row.getCellAsDate(1).orElseThrow()).isEqualTo(begun);
      assertThat(row.getCellText(2)).isEqualTo(((Value.Text) line.get(2)).text());
      assertThat(row.getCell(3).getType()).isEqualTo(CellType.STRING);
    }
  }

  @Test
  void whatASheetWouldLoseStaysAText() throws Exception {
    Answer answer = answer("firing.firing_id");
    var long17 = new Value.Num(new BigDecimal("12345678901234567"), true);
    var odd =
        new Answer(
            answer.bound(),
            List.of(List.of(long17), List.of(Value.NULL)),
            false,
            List.of(),
            List.of());
    List<Row> rows = read(odd);
    assertThat(rows.get(1).getCell(0).getType()).isEqualTo(CellType.STRING);
    assertThat(rows.get(1).getCellText(0)).isEqualTo("12345678901234567");
  }
}
