package joiner.edit;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import joiner.model.FieldType;

/**
 * What a field of some name usually is; the names stand in {@code usual-types.txt} beside this
 * class, each with its reason.
 *
 * @param words of the name that say so, as they stand in it
 * @param type with its usual size
 * @param unit of its numbers; may be empty
 * @param pattern of its texts, where its kind has one
 * @param reason half a sentence
 */
public record UsualType(
    String words, FieldType type, String unit, Optional<String> pattern, String reason) {
  private static final String ANY = "…";

  /** The lines of the file, read when first asked for. */
  private static final class Lines {
    static final List<Line> ALL = read();
  }

  /**
   * A line of the file.
   *
   * @param begins whether the words begin the name
   * @param ends whether they end it
   */
  private record Line(
      List<String> words,
      boolean begins,
      boolean ends,
      FieldType type,
      String unit,
      Optional<String> pattern,
      String reason) {

    /** Behind which word of a name these words stand last; 0: they do not. */
    int lastIn(List<String> name) {
      for (int from = name.size() - words.size(); from >= 0; from--) {
        int end = from + words.size();
        boolean placed = (!begins || from == 0) && (!ends || end == name.size());
        if (placed && name.subList(from, end).equals(words)) {
          return end;
        }
      }
      return 0;
    }
  }

  /** What a field of that label usually is; empty where the label tells nothing. */
  public static Optional<UsualType> of(String label) {
    List<String> name = words(label);
    return Lines.ALL.stream()
        .filter(line -> line.lastIn(name) > 0)
        .max(
            Comparator.comparingInt((Line line) -> line.words.size())
                .thenComparingInt(line -> line.lastIn(name))) // Of equals the first.
        .map(
            line ->
                new UsualType(
                    String.join(" ", line.words), line.type, line.unit, line.pattern, line.reason));
  }

  /** Whether a label says that something is measured, so that a unit belongs to it. */
  public static boolean isMeasured(String label) {
    return of(label).filter(usual -> usual.reason.startsWith("what is measured")).isPresent();
  }

  /** How many kinds of names are known. */
  static int known() {
    return Lines.ALL.size();
  }

  private static List<String> words(String text) {
    return Arrays.stream(text.toLowerCase(Locale.ROOT).split("[^\\p{L}\\p{N}]+"))
        .filter(word -> !word.isEmpty())
        .toList();
  }

  private static List<Line> read() {
    var lines = new ArrayList<Line>();
    try (var in =
        new BufferedReader(
            new InputStreamReader(
                Objects.requireNonNull(UsualType.class.getResourceAsStream("usual-types.txt")),
                StandardCharsets.UTF_8))) {
      for (String line = in.readLine(); line != null; line = in.readLine()) {
        if (!line.isBlank() && !line.startsWith("#")) {
          lines.add(line(line.split("\\|", 4)));
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return List.copyOf(lines);
  }

  private static Line line(String[] parts) {
    String words = parts[0].strip();
    var choice = TypeChoice.valueOf(parts[1].strip());
    String[] size = parts[2].strip().split(" ", 2); // A unit may stand behind it.
    String unit = size.length > 1 ? size[1].strip() : choice.unit(size[0]).orElse("");
    return new Line(
        words(words),
        words.endsWith(ANY),
        words.startsWith(ANY),
        choice.sized(size[0]).orElseThrow(),
        unit,
        choice.pattern(),
        parts[3].strip());
  }
}
