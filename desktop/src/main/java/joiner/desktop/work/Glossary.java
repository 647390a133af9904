package joiner.desktop.work;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.model.Design;
import joiner.model.Table;

/** The trade's words and Joiner's own, explained in two sentences each. */
public final class Glossary {
  private static final Glossary SHIPPED = read();

  private final List<Entry> entries;

  /** A word with what it means. */
  public record Entry(String word, String meaning) {}

  private Glossary(List<Entry> entries) {
    this.entries = List.copyOf(entries);
  }

  /** The glossary that comes with Joiner. */
  public static Glossary shipped() {
    return SHIPPED;
  }

  private static Glossary read() {
    try (InputStream in = Glossary.class.getResourceAsStream("/joiner/glossary.md")) {
      if (in == null) {
        throw new IllegalStateException("glossary.md is missing from the application");
      }
      return of(new String(in.readAllBytes(), StandardCharsets.UTF_8));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Reads a text whose second-level headings are words. */
  static Glossary of(String text) {
    var entries = new ArrayList<Entry>();
    for (String part : text.split("(?m)^## ")) {
      int end = part.indexOf('\n');
      if (end > 0 && !part.startsWith("# ")) {
        String meaning = part.substring(end).replaceAll("\\s+", " ").strip();
        entries.add(new Entry(part.substring(0, end).strip(), meaning));
      }
    }
    return new Glossary(entries);
  }

  /** All words, in the order of the alphabet. */
  public List<Entry> entries() {
    return entries;
  }

  /** The entry of a word, whatever its capitals. */
  public Optional<Entry> find(String word) {
    return entries.stream().filter(entry -> entry.word().equalsIgnoreCase(word)).findFirst();
  }

  /** What a word means; asking for one that is not explained is a caller's mistake. */
  public static String meaning(String word) {
    return SHIPPED
        .find(word)
        .map(Entry::meaning)
        .orElseThrow(() -> new IllegalArgumentException("no word " + word));
  }

  /** An example of a word from a design, beginning with the chosen table; empty: there is none. */
  public static Optional<String> example(String word, Design design, Optional<Table> chosen) {
    return new GlossaryExample(design, chosen).of(word);
  }
}
