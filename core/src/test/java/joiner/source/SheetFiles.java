package joiner.source;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Collections;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.dhatim.fastexcel.Workbook;

/** Workbooks whose insides are written out. */
final class SheetFiles {
  private SheetFiles() {}

  /** An archive of those entries: name, content, name, content, … */
  static Path zip(Path file, String... entries) throws IOException {
    try (var zip = new ZipOutputStream(Files.newOutputStream(file))) {
      for (int i = 0; i < entries.length; i += 2) {
        zip.putNextEntry(new ZipEntry(entries[i]));
        zip.write(entries[i + 1].getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
      }
    }
    return file;
  }

  /** A workbook in OpenDocument: name of a sheet, its rows, name, rows, … */
  static Path ods(Path file, String... sheets) throws IOException {
    var tables = new StringBuilder();
    for (int i = 0; i < sheets.length; i += 2) {
      tables
          .append("<table:table table:name='")
          .append(sheets[i])
          .append("'>")
          .append(sheets[i + 1])
          .append("</table:table>");
    }
    return zip(
        file,
        "mimetype",
        "application/vnd.oasis.opendocument.spreadsheet",
        "content.xml",
        "<office:document-content xmlns:office='o' xmlns:table='t' xmlns:text='x'><office:body>"
            + "<office:spreadsheet>"
            + tables
            + "</office:spreadsheet></office:body></office:document-content>");
  }

  /** A workbook in Office Open XML of the usual parts, whose one sheet holds just those rows. */
  static Path xlsx(Path file, String rows) throws IOException {
    var bytes = new ByteArrayOutputStream();
    try (var workbook = new Workbook(bytes, "Joiner", "1.0")) {
      workbook.newWorksheet("S").value(0, 0, "x");
    }
    Path usual = Files.write(file.resolveSibling("usual.xlsx"), bytes.toByteArray());
    try (var in = new ZipFile(usual.toFile());
        var out = new ZipOutputStream(Files.newOutputStream(file))) {
      for (ZipEntry entry : Collections.list(in.entries())) {
        byte[] content = in.getInputStream(entry).readAllBytes();
        if (entry.getName().equals("xl/worksheets/sheet1.xml")) {
          content =
              new String(content, StandardCharsets.UTF_8)
                  .replaceAll(
                      "(?s)<sheetData>.*</sheetData>", "<sheetData>" + rows + "</sheetData>")
                  .getBytes(StandardCharsets.UTF_8);
        }
        out.putNextEntry(new ZipEntry(entry.getName()));
        out.write(content);
        out.closeEntry();
      }
    }
    return file;
  }
}
