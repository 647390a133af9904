package joiner.source;

import java.nio.charset.Charset;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleConsumer;

/**
 * What the reader is told rather than left to find out.
 *
 * @param separator between the columns of delimited text
 * @param charset encoding of text
 * @param headerLine which line holds the column names, from 1; 0: none does
 * @param stop asked often; once true the reading ends with a {@link
 *     java.util.concurrent.CancellationException}
 * @param progress told the share of the file read, 0 to 1
 */
public record ReadingOptions(
    Optional<Character> separator,
    Optional<Charset> charset,
    OptionalInt headerLine,
    BooleanSupplier stop,
    DoubleConsumer progress) {
  /** Everything is found by looking, nothing stops it. */
  public static final ReadingOptions DETECT =
      new ReadingOptions(
          Optional.empty(), Optional.empty(), OptionalInt.empty(), () -> false, share -> {});

  /** The same with another way to be stopped. */
  public ReadingOptions stoppedBy(BooleanSupplier other) {
    return new ReadingOptions(separator, charset, headerLine, other, progress);
  }

  /** The same telling its progress. */
  public ReadingOptions telling(DoubleConsumer other) {
    return new ReadingOptions(separator, charset, headerLine, stop, other);
  }

  /** The same with the column names in another line, from 1; 0: in none. */
  public ReadingOptions withHeaderLine(int line) {
    return new ReadingOptions(separator, charset, OptionalInt.of(line), stop, progress);
  }

  /** The same with another separator. */
  public ReadingOptions withSeparator(char other) {
    return new ReadingOptions(Optional.of(other), charset, headerLine, stop, progress);
  }

  /** The same with another encoding. */
  public ReadingOptions withCharset(Charset other) {
    return new ReadingOptions(separator, Optional.of(other), headerLine, stop, progress);
  }

  void checkStopped() {
    if (stop.getAsBoolean()) {
      throw new java.util.concurrent.CancellationException("reading was stopped");
    }
  }
}
