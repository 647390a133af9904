package joiner.source;

import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import joiner.format.UnreadableFileException;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;

/**
 * Workbooks in Office Open XML (ECMA-376), sheet by sheet as a stream. Dates become ISO 8601,
 * formulas their stored results.
 */
final class ExcelWorkbook implements SourceReader {
  /** Quoted text, colours and locales of a number format, which hold letters that mean nothing. */
  private static final Pattern DECORATION = Pattern.compile("\"[^\"]*\"|\\[[^\\]]*]|\\\\.|_.");

  private static final Pattern DAY = Pattern.compile("[yd]", Pattern.CASE_INSENSITIVE);
  private static final Pattern CLOCK = Pattern.compile("[hs]", Pattern.CASE_INSENSITIVE);

  @Override
  public Understood read(Path file, ReadingOptions options, TableSinks sinks, ProblemLog problems)
      throws IOException, UnreadableFileException {
    ZipGuard.check(file, options);
    int read = 0;
    try (var workbook =
        new ReadableWorkbook(
            file.toFile(), new org.dhatim.fastexcel.reader.ReadingOptions(true, true))) {
      List<Sheet> sheets = workbook.getSheets().toList();
      for (Sheet sheet : sheets) {
        String name =
            sheets.size() == 1 ? Source.stem(String.valueOf(file.getFileName())) : sheet.getName();
        read += sheet(file, sheet, name, options, sinks, problems) ? 1 : 0;
      }
    } catch (CancellationException e) {
      throw e;
    } catch (IOException | RuntimeException e) {
      // On a damaged workbook the library fails in whatever way the damage leads to.
      throw new UnreadableFileException(
          file, 0, "the workbook is damaged (" + Said.by(e) + "); save it anew.");
    }
    if (read == 0) {
      throw new UnreadableFileException(file, 0, "every sheet of the workbook is empty.");
    }
    return new Understood(SheetRows.words(read), -1);
  }

  private static boolean sheet(
      Path file,
      Sheet sheet,
      String name,
      ReadingOptions options,
      TableSinks sinks,
      ProblemLog problems)
      throws IOException {
    var rows = new SheetRows(sinks, name, options);
    try (Stream<Row> stream = sheet.openStream()) {
      for (Iterator<Row> all = stream.iterator(); all.hasNext(); ) {
        Row row = all.next();
        var cells = new ArrayList<String>();
        for (Cell cell : row) {
          cells.add(cell == null ? "" : text(cell, file, sheet.getName(), row, problems));
        }
        rows.take(row.getRowNum(), cells);
      }
    }
    return rows.end();
  }

  private static String text(Cell cell, Path file, String sheet, Row row, ProblemLog problems) {
    switch (cell.getType()) {
      case EMPTY:
        return "";
      case ERROR:
        problems.add(
            SourceProblem.inSheet(
                file,
                sheet,
                row.getRowNum(),
                "the cell "
                    + cell.getAddress()
                    + " holds an error ("
                    + cell.getRawValue()
                    + "); it was taken as empty. Mend the formula."));
        return "";
      default:
        break;
    }
    String raw = cell.getRawValue();
    if (cell.getType() == CellType.FORMULA && (raw == null || raw.isEmpty())) {
      problems.add(SheetRows.unsolved(file, sheet, row.getRowNum()));
      return "";
    }
    if (cell.getType() == CellType.BOOLEAN) {
      return String.valueOf(cell.asBoolean());
    }
    if (cell.getType() == CellType.NUMBER) {
      return number(cell);
    }
    return cell.getType() == CellType.STRING ? cell.asString() : String.valueOf(raw);
  }

  private static String number(Cell cell) {
    String format = cell.getDataFormatString();
    String letters = format == null ? "" : DECORATION.matcher(format).replaceAll("");
    boolean day = DAY.matcher(letters).find();
    boolean clock = CLOCK.matcher(letters).find();
    if (!day && !clock) {
      return plain(cell.asNumber());
    }
    LocalDateTime date = cell.asDate();
    if (!day && cell.asNumber().signum() >= 0 && cell.asNumber().intValue() == 0) {
      return time(date.toLocalTime());
    }
    boolean midnight = date.toLocalTime().equals(LocalTime.MIDNIGHT);
    return midnight && !clock
        ? date.toLocalDate().toString()
        : date.toLocalDate() + " " + time(date.toLocalTime());
  }

  private static String time(LocalTime time) {
    return time.format(java.time.format.DateTimeFormatter.ofPattern("HH:mm:ss"));
  }

  /** Numbers are stored as binary doubles; fifteen digits are what was typed (ECMA-376). */
  private static String plain(java.math.BigDecimal number) {
    var rounded = number.round(new java.math.MathContext(15));
    return rounded.signum() == 0 ? "0" : rounded.stripTrailingZeros().toPlainString();
  }
}
