package joiner.source;

import java.io.FilterReader;
import java.io.IOException;
import java.io.Reader;

/**
 * Watches text on its way to the reader of cells for quotation marks that somebody forgot to close:
 * a cell that runs over lines and then goes on behind the mark that seems to close it, or that the
 * end of the text closes. In text as it should be neither happens (RFC 4180).
 */
final class QuoteWatch extends FilterReader {
  private enum State {
    CELL_BEGINS,
    PLAIN,
    QUOTED,
    BEHIND_QUOTE
  }

  private final char separator;
  private final char quote;
  private State state = State.CELL_BEGINS;
  private long line = 1;
  private long opened;
  private long doubtful;
  private boolean wasReturn;

  QuoteWatch(Reader text, char separator, char quote) {
    super(text);
    this.separator = separator;
    this.quote = quote;
  }

  /** The line, from 1, in which the first such mark stands in what was read; 0: none so far. */
  long doubtful() {
    return doubtful;
  }

  @Override
  public int read() throws IOException {
    int read = super.read();
    if (read >= 0) {
      see((char) read);
    } else {
      end();
    }
    return read;
  }

  @Override
  public int read(char[] into, int offset, int length) throws IOException {
    int read = super.read(into, offset, length);
    for (int i = offset; i < offset + read && doubtful == 0; i++) {
      see(into[i]);
    }
    if (read < 0) {
      end();
    }
    return read;
  }

  private void end() {
    if (doubtful == 0 && state == State.QUOTED) {
      doubtful = opened;
    }
  }

  private void see(char c) {
    boolean breaks = c == '\r' || (c == '\n' && !wasReturn);
    wasReturn = c == '\r';
    line += breaks ? 1 : 0;
    boolean ends = c == separator || c == '\n' || c == '\r';
    switch (state) {
      case CELL_BEGINS -> {
        if (c == quote) {
          state = State.QUOTED;
          opened = line;
        } else if (!ends) {
          state = State.PLAIN;
        }
      }
      case PLAIN -> state = ends ? State.CELL_BEGINS : State.PLAIN;
      case QUOTED -> state = c == quote ? State.BEHIND_QUOTE : State.QUOTED;
      case BEHIND_QUOTE -> behindQuote(c, ends);
    }
  }

  private void behindQuote(char c, boolean ends) {
    if (c == quote) {
      state = State.QUOTED; // Twice, it means itself.
    } else if (ends) {
      state = State.CELL_BEGINS;
    } else if (c != ' ') {
      state = State.PLAIN;
      doubtful = line > opened ? opened : 0;
    }
  }
}
