package joiner.audit;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Keys with their rows, set aside in files when they are many: equal keys are in one part, in the
 * order in which they were written, so that each part can be looked at by itself (a hash partition,
 * as in Graefe, Query Evaluation Techniques for Large Databases, 1993, section 3.2; from memory).
 * The files go when it is closed.
 */
final class Spilled implements AutoCloseable {
  /** How many parts there are. */
  static final int PARTS = 64;

  private static final int BUFFER = 1 << 14;

  /** Up to so many bytes no file is made. */
  private static final long IN_MEMORY = 1 << 20;

  /** A row and a length stand before each key. */
  private static final int HEAD = 8;

  private final @Nullable DataOutputStream[] parts = new DataOutputStream[PARTS];
  private final @Nullable ByteArrayOutputStream[] buffers = new ByteArrayOutputStream[PARTS];
  private @Nullable Path folder;
  private long size;
  private long bytes;

  private static int part(byte[] key, int length) {
    return ByteKeys.hash(key, length) >>> 26;
  }

  void write(byte[] key, int length, int row) {
    try {
      int part = part(key, length);
      DataOutputStream out = parts[part];
      if (out == null) {
        out = open(part, new byte[0]);
      }
      out.writeInt(row);
      out.writeInt(length);
      out.write(key, 0, length);
      size++;
      bytes += HEAD + length;
      if (folder == null && bytes > IN_MEMORY) {
        intoFiles();
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private DataOutputStream open(int part, byte[] begun) throws IOException {
    OutputStream out;
    if (folder == null) {
      out = new ByteArrayOutputStream();
      buffers[part] = (ByteArrayOutputStream) out;
    } else {
      out = new BufferedOutputStream(Files.newOutputStream(file(folder, part)), BUFFER);
    }
    out.write(begun);
    var opened = new DataOutputStream(out);
    parts[part] = opened;
    return opened;
  }

  private void intoFiles() throws IOException {
    folder = Files.createTempDirectory("joiner-audit");
    for (int part = 0; part < PARTS; part++) {
      ByteArrayOutputStream begun = buffers[part];
      if (begun != null) {
        open(part, begun.toByteArray());
        buffers[part] = null;
      }
    }
  }

  private static Path file(Path folder, int part) {
    return folder.resolve("part-" + part);
  }

  /** How many keys were written. */
  long size() {
    return size;
  }

  /** Shows the keys of a part, as they were written; nothing is written any more. */
  void forEach(int part, ByteKeys.Each each) {
    DataOutputStream written = parts[part];
    if (written == null) {
      return;
    }
    try {
      written.flush();
      try (var in = new DataInputStream(new BufferedInputStream(read(part), 1 << 16))) {
        for (int row = next(in); row != END; row = next(in)) {
          byte[] key = new byte[in.readInt()];
          in.readFully(key);
          each.key(key, row);
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private InputStream read(int part) throws IOException {
    ByteArrayOutputStream buffer = buffers[part];
    return folder == null
        ? new ByteArrayInputStream(buffer == null ? new byte[0] : buffer.toByteArray())
        : Files.newInputStream(file(folder, part));
  }

  private static final int END = -1;

  /** The next row; {@link #END} at the end. */
  private static int next(DataInputStream in) throws IOException {
    in.mark(1);
    if (in.read() < 0) {
      return END;
    }
    in.reset();
    return in.readInt();
  }

  @Override
  public void close() {
    try {
      for (DataOutputStream part : parts) {
        if (part != null) {
          part.close();
        }
      }
      if (folder != null) {
        try (Stream<Path> files = Files.list(folder)) {
          for (Path file : files.toList()) {
            Files.deleteIfExists(file);
          }
        }
        Files.deleteIfExists(folder);
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
