package joiner.source;

import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.Enumeration;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import joiner.format.UnreadableFileException;

/** Refuses archives that unpack to far more than they are, before anything else opens them. */
final class ZipGuard {
  /** What an entry may always unpack to, in bytes. */
  private static final long ALWAYS = 64L << 20;

  /** How many times its packed size an entry may unpack to; real sheets stay below 60 (seen). */
  private static final long RATIO = 200;

  private ZipGuard() {}

  static void check(Path file, ReadingOptions options) throws IOException, UnreadableFileException {
    try (var zip = new ZipFile(file.toFile())) {
      Enumeration<? extends ZipEntry> entries = zip.entries();
      while (entries.hasMoreElements()) {
        ZipEntry entry = entries.nextElement();
        long most = Math.max(ALWAYS, RATIO * Math.max(0, entry.getCompressedSize()));
        var reach = new CellReach();
        try (InputStream in = zip.getInputStream(entry)) {
          if (longerThan(in, most, reach, options)) {
            throw new UnreadableFileException(
                file,
                0,
                "the part “"
                    + entry.getName()
                    + "” unpacks to more than "
                    + (most >> 20)
                    + " MB from "
                    + entry.getCompressedSize()
                    + " bytes; such a file is not opened. Save the workbook anew.");
          }
        }
        if (reach.beyond().isPresent() && entry.getName().startsWith("xl/worksheets/")) {
          throw new UnreadableFileException(
              file,
              0,
              "a cell stands in column "
                  + reach.beyond().get()
                  + "…, beyond the last one of a sheet, XFD; save the workbook anew.");
        }
      }
    } catch (EOFException | ZipException e) {
      throw new UnreadableFileException(
          file, 0, "this is no workbook (" + Said.by(e) + "); save it as xlsx, ods or CSV.");
    }
  }

  private static boolean longerThan(
      InputStream in, long most, CellReach reach, ReadingOptions options) throws IOException {
    byte[] chunk = new byte[1 << 16];
    long total = 0;
    for (int read = in.read(chunk); read >= 0; read = in.read(chunk)) {
      options.checkStopped();
      total += read;
      reach.see(chunk, read);
      if (total > most) {
        return true;
      }
    }
    return false;
  }
}
