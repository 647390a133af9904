package joiner.source;

import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import joiner.format.UnreadableFileException;

/**
 * Workbooks in OpenDocument (ISO/IEC 26300, chapters 9 and 19), sheet by sheet as a stream. Read
 * here rather than by a library because those on offer hold the whole workbook in memory.
 */
final class OpenDocumentSheets implements SourceReader {
  /** Filled cells one repeated row or cell may stand for. */
  private static final int MOST_REPEATED = 20_000;

  /** Blanks one element may stand for; more are a mistake or an attack. */
  private static final int MOST_SPACES = 1_000;

  @Override
  public Understood read(Path file, ReadingOptions options, TableSinks sinks, ProblemLog problems)
      throws IOException, UnreadableFileException {
    ZipGuard.check(file, options);
    try (var zip = new ZipFile(file.toFile())) {
      ZipEntry content = zip.getEntry("content.xml");
      if (content == null) {
        throw new UnreadableFileException(file, 0, "this is no workbook; content.xml is missing.");
      }
      int sheets = count(zip, content);
      try (InputStream in = zip.getInputStream(content)) {
        int read = new Sheets(open(in), file, sheets, options, sinks, problems).read();
        if (read == 0) {
          throw new UnreadableFileException(file, 0, "every sheet of the workbook is empty.");
        }
        return new Understood(SheetRows.words(read), -1);
      }
    } catch (EOFException | ZipException | XMLStreamException e) {
      throw new UnreadableFileException(
          file, 0, "the workbook is damaged (" + Said.by(e) + "); save it anew.");
    }
  }

  private static XMLStreamReader open(InputStream in) throws XMLStreamException {
    return ClosedXml.factory().createXMLStreamReader(in);
  }

  private static int count(ZipFile zip, ZipEntry content) throws IOException, XMLStreamException {
    int sheets = 0;
    try (InputStream in = zip.getInputStream(content)) {
      XMLStreamReader xml = open(in);
      while (xml.hasNext()) {
        if (xml.next() == XMLStreamConstants.START_ELEMENT && xml.getLocalName().equals("table")) {
          sheets++;
        }
      }
    }
    return sheets;
  }

  /** Walks through the content. */
  private static final class Sheets {
    private final XMLStreamReader xml;
    private final Path file;
    private final int sheets;
    private final ReadingOptions options;
    private final TableSinks sinks;
    private final ProblemLog problems;

    Sheets(
        XMLStreamReader xml,
        Path file,
        int sheets,
        ReadingOptions options,
        TableSinks sinks,
        ProblemLog problems) {
      this.xml = xml;
      this.file = file;
      this.sheets = sheets;
      this.options = options;
      this.sinks = sinks;
      this.problems = problems;
    }

    int read() throws XMLStreamException {
      int read = 0;
      while (xml.hasNext()) {
        if (xml.next() == XMLStreamConstants.START_ELEMENT && xml.getLocalName().equals("table")) {
          read += sheet() ? 1 : 0;
        }
      }
      return read;
    }

    private boolean sheet() throws XMLStreamException {
      String name = attribute("name", "sheet");
      var rows =
          new SheetRows(
              sinks, sheets == 1 ? Source.stem(String.valueOf(file.getFileName())) : name, options);
      long number = 0;
      while (!ends("table")) {
        if (xml.getEventType() == XMLStreamConstants.START_ELEMENT
            && xml.getLocalName().equals("table-row")) {
          int repeated = repeated("number-rows-repeated");
          List<String> cells = row(name, number + 1);
          int filled = cells.isEmpty() ? 0 : repeated;
          if (filled > MOST_REPEATED) {
            problems.add(
                SourceProblem.inSheet(
                    file,
                    name,
                    number + 1,
                    "one row is repeated "
                        + repeated
                        + " times; it was read once. Delete the"
                        + " repetition."));
            filled = 1;
          }
          for (int i = 0; i < filled; i++) {
            rows.take(number + 1 + i, cells);
          }
          number += repeated;
        }
      }
      return rows.end();
    }

    private boolean ends(String element) throws XMLStreamException {
      return xml.next() == XMLStreamConstants.END_ELEMENT && xml.getLocalName().equals(element);
    }

    /** The cells up to the last that is filled. */
    private List<String> row(String sheet, long number) throws XMLStreamException {
      var cells = new ArrayList<String>();
      int empty = 0;
      while (!ends("table-row")) {
        if (xml.getEventType() == XMLStreamConstants.START_ELEMENT
            && (xml.getLocalName().equals("table-cell")
                || xml.getLocalName().equals("covered-table-cell"))) {
          int repeated = repeated("number-columns-repeated");
          String text = cell(sheet, number);
          if (text.isEmpty()) {
            empty += repeated;
          } else {
            for (; empty > 0 && cells.size() < MOST_REPEATED; empty--) {
              cells.add("");
            }
            for (int i = 0; i < repeated && cells.size() < MOST_REPEATED; i++) {
              cells.add(text);
            }
          }
        }
      }
      return cells;
    }

    private String cell(String sheet, long row) throws XMLStreamException {
      String element = xml.getLocalName();
      String type = attribute("value-type", "");
      String stored =
          switch (type) {
            case "float", "percentage", "currency" -> attribute("value", "");
            case "date" -> attribute("date-value", "").replace('T', ' ');
            case "time" -> time(attribute("time-value", ""));
            case "boolean" -> attribute("boolean-value", "");
            default -> "";
          };
      boolean formula = !attribute("formula", "").isEmpty();
      var shown = new StringBuilder();
      int notes = 0;
      while (!ends(element)) {
        if (xml.getEventType() == XMLStreamConstants.START_ELEMENT) {
          switch (xml.getLocalName()) {
            case "annotation" -> notes++;
            case "p" -> shown.append(shown.isEmpty() || notes > 0 ? "" : "\n");
            case "s" ->
                shown.append(" ".repeat(notes > 0 ? 0 : Math.min(repeated("c"), MOST_SPACES)));
            case "line-break" -> shown.append(notes > 0 ? "" : "\n");
            default -> {}
          }
        } else if (xml.getEventType() == XMLStreamConstants.END_ELEMENT) {
          notes -= xml.getLocalName().equals("annotation") ? 1 : 0;
        } else if (notes == 0 && xml.isCharacters()) {
          shown.append(xml.getText());
        }
      }
      if (formula && type.isEmpty() && shown.isEmpty()) {
        problems.add(SheetRows.unsolved(file, sheet, row));
      }
      return stored.isEmpty() ? shown.toString() : stored;
    }

    /** A duration as the time of day it stands for, where it is one. */
    private static String time(String duration) {
      try {
        java.time.Duration time = java.time.Duration.parse(duration);
        return time.isNegative() || time.toHours() > 23
            ? duration
            : java.time.LocalTime.MIDNIGHT.plus(time).toString();
      } catch (java.time.format.DateTimeParseException e) {
        return duration;
      }
    }

    private int repeated(String name) {
      String text = attribute(name, "1");
      try {
        return Math.clamp(Long.parseLong(text), 1, Integer.MAX_VALUE);
      } catch (NumberFormatException e) {
        return 1;
      }
    }

    private String attribute(String name, String otherwise) {
      for (int i = 0; i < xml.getAttributeCount(); i++) {
        if (xml.getAttributeLocalName(i).equals(name)) {
          return xml.getAttributeValue(i);
        }
      }
      return otherwise;
    }
  }
}
