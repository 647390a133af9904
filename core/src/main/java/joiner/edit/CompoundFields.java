package joiner.edit;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import joiner.model.FieldType;
import joiner.naming.NamingPolicy;

/**
 * Fields that come together because they are one thing; they stand in {@code compound-fields.txt}
 * beside this class.
 *
 * @param kind what sort of thing it is: "address"
 * @param parts one or more
 * @param worked what is worked out from them
 */
public record CompoundFields(
    String kind, List<Part> parts, List<Worked> worked, List<Together> rules) {
  public CompoundFields {
    parts = List.copyOf(parts);
    worked = List.copyOf(worked);
    rules = List.copyOf(rules);
  }

  /**
   * One of the fields.
   *
   * @param unit of its numbers; may be empty
   * @param note may be empty
   */
  public record Part(
      String label,
      FieldType type,
      String unit,
      boolean required,
      String note,
      Optional<String> pattern) {}

  /**
   * A field that is worked out from the others.
   *
   * @param formula names fields by their labels in braces
   * @param note may be empty
   */
  public record Worked(String label, String formula, String note) {}

  /**
   * A rule that ties the fields.
   *
   * @param condition names fields by their labels in braces
   */
  public record Together(String name, String condition, String message) {}

  private static final String WORKED = "worked ";

  /** The lines of the file, read when first asked for. */
  private static final class Kinds {
    static final List<CompoundFields> ALL = read();
  }

  /** All kinds there are. */
  public static List<CompoundFields> all() {
    return Kinds.ALL;
  }

  /** What people read: "Person name". */
  public String label() {
    return NamingPolicy.labelFor(kind);
  }

  private static List<CompoundFields> read() {
    var all = new ArrayList<CompoundFields>();
    try (var in =
        new BufferedReader(
            new InputStreamReader(
                Objects.requireNonNull(
                    CompoundFields.class.getResourceAsStream("compound-fields.txt")),
                StandardCharsets.UTF_8))) {
      for (String line : in.lines().filter(l -> !l.isBlank() && !l.startsWith("#")).toList()) {
        if (!line.startsWith(" ")) {
          all.add(new CompoundFields(line.strip(), List.of(), List.of(), List.of()));
        } else {
          all.add(all.removeLast().with(line.strip()));
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return List.copyOf(all);
  }

  private CompoundFields with(String line) {
    List<String> cells = cells(line);
    if (line.startsWith("rule ")) {
      var rule = new Together(cells.get(0).substring(5), cells.get(1), cells.get(2));
      return new CompoundFields(kind, parts, worked, more(rules, rule));
    }
    if (line.startsWith(WORKED)) {
      String label = cells.get(0).substring(WORKED.length());
      var field = new Worked(label, cells.get(1), cells.get(2));
      return new CompoundFields(kind, parts, more(worked, field), rules);
    }
    return new CompoundFields(kind, more(parts, part(cells)), worked, rules);
  }

  /** Cells are told apart by bars with blanks around; the last may hold some of its own. */
  private static List<String> cells(String line) {
    boolean formula = line.startsWith("rule ") || line.startsWith(WORKED);
    var cells = new ArrayList<String>();
    for (String cell : line.split("(?<= )\\|(?= |$)", formula ? 3 : 6)) {
      cells.add(cell.strip());
    }
    return cells;
  }

  private static Part part(List<String> cells) {
    var choice = TypeChoice.valueOf(cells.get(1));
    String[] size = cells.get(2).split(" ", 2);
    return new Part(
        cells.get(0),
        choice.sized(size[0]).orElseThrow(),
        size.length > 1 ? size[1] : choice.unit(size[0]).orElse(""),
        cells.size() > 3 && cells.get(3).equals("required"),
        cells.size() > 4 ? cells.get(4) : "",
        Optional.of(cells).filter(all -> all.size() > 5).map(all -> all.get(5)));
  }

  private static <T> List<T> more(List<T> things, T last) {
    var all = new ArrayList<>(things);
    all.add(last);
    return all;
  }
}
