package joiner.outline;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Tables and fields as somebody wrote them down: a list of names, a line a field with its type, a
 * block of a spreadsheet, or tables with their fields behind a colon or indented below.
 *
 * @param tables in their order; one without a label where fields were listed alone
 * @param remarks what was not understood, a sentence each; nothing is dropped silently
 */
public record Outline(List<OutlinedTable> tables, List<String> remarks) {
  private static final Pattern BULLET = Pattern.compile("^\\s*(?:[-*•–]|\\d+[.)])\\s+");
  private static final Pattern HEAD = Pattern.compile("^(\\S[^:\\t]*):(?:\\s+(.*))?$");

  public Outline {
    tables = List.copyOf(tables);
    remarks = List.copyOf(remarks);
  }

  /** A line as it was written. */
  private record Line(String text, boolean indented) {}

  /** A table's label and the lines of its fields. */
  private record Block(Optional<String> label, List<String> lines) {}

  /** Reads a text; an empty one gives no table. Linear in its length. */
  public static Outline read(String text) {
    List<Line> lines =
        text.lines()
            .filter(line -> !line.isBlank())
            .map(
                line ->
                    new Line(
                        line,
                        Character.isWhitespace(line.charAt(0)) && line.charAt(0) != '\t'
                            || line.startsWith("\t") && line.strip().indexOf('\t') < 0
                            || BULLET.matcher(line).find()))
            .toList();
    var remarks = new ArrayList<String>();
    var tables = new ArrayList<OutlinedTable>();
    for (Block block : blocks(lines)) {
      List<OutlinedField> fields = fields(block.lines(), remarks);
      if (block.label().isPresent() || !fields.isEmpty()) {
        tables.add(new OutlinedTable(block.label(), fields));
      }
    }
    return new Outline(tables, remarks);
  }

  private static List<Block> blocks(List<Line> lines) {
    boolean tabbed = lines.stream().anyMatch(line -> line.text().strip().indexOf('\t') >= 0);
    boolean headed =
        !tabbed && lines.stream().anyMatch(l -> !l.indented() && HEAD.matcher(l.text()).matches());
    boolean stepped = // In a block of cells nothing is indented.
        !tabbed && lines.stream().anyMatch(Line::indented) && !lines.getFirst().indented();
    var blocks = new ArrayList<Block>();
    for (Line line : lines) {
      Matcher head = HEAD.matcher(line.text());
      boolean begins = !line.indented() && (headed ? head.matches() : stepped);
      if (begins) {
        boolean colon = head.matches();
        String label = colon ? head.group(1).strip() : line.text().strip();
        var of = new ArrayList<String>();
        if (colon && head.group(2) != null && !head.group(2).isBlank()) {
          of.add(head.group(2));
        }
        blocks.add(new Block(Optional.of(label), of));
      } else {
        if (blocks.isEmpty()) {
          blocks.add(new Block(Optional.empty(), new ArrayList<>()));
        }
        String text = tabbed ? line.text() : BULLET.matcher(line.text()).replaceFirst("").strip();
        blocks.getLast().lines().add(text);
      }
    }
    return blocks;
  }

  private static List<OutlinedField> fields(List<String> lines, List<String> remarks) {
    if (lines.isEmpty()) {
      return List.of();
    }
    for (String separator : List.of("\t", "|", ";", ",")) {
      List<List<String>> cells = lines.stream().map(line -> split(line, separator)).toList();
      if (areColumns(cells, separator)) {
        return ListedColumns.read(cells, remarks);
      }
    }
    return lines.stream()
        .flatMap(line -> items(line).stream())
        .map(WrittenField::read)
        .filter(field -> !field.label().isBlank())
        .toList();
  }

  private static List<String> split(String line, String separator) {
    List<String> cells =
        separator.equals(",")
            ? items(line)
            : Arrays.stream(line.split(Pattern.quote(separator), -1)).toList();
    boolean framed = separator.equals("|") && cells.size() > 2 && cells.getFirst().isBlank();
    return framed ? cells.subList(1, cells.size() - 1) : cells;
  }

  /**
   * Whether lines split so are columns: always at tabs and bars, else where a heading or types in
   * most lines say so; names that only stand in a row do not.
   */
  private static boolean areColumns(List<List<String>> cells, String separator) {
    boolean split = cells.stream().anyMatch(line -> line.size() > 1);
    boolean sure = separator.equals("\t") || separator.equals("|");
    if (!split || sure) {
      return split;
    }
    long typed =
        cells.stream()
            .filter(line -> line.size() > 1)
            .filter(line -> line.stream().anyMatch(cell -> TypeText.read(cell).isPresent()))
            .count();
    return ListedColumns.isHeading(cells.getFirst())
        || cells.size() > 1 && typed * 2 > cells.size();
  }

  /** The parts of a line between commas and semicolons that stand in no brackets or quotes. */
  private static List<String> items(String line) {
    var items = new ArrayList<String>();
    var item = new StringBuilder();
    int depth = 0;
    boolean quoted = false;
    for (int i = 0; i < line.length(); i++) {
      char c = line.charAt(i);
      boolean within = !quoted && i > 0 && Character.isLetter(line.charAt(i - 1));
      quoted ^= c == '\'' && !within; // As in "potter's".
      depth += c == '(' ? 1 : c == ')' ? -1 : 0;
      if ((c == ',' || c == ';') && depth <= 0 && !quoted) {
        items.add(item.toString().strip());
        item.setLength(0);
      } else {
        item.append(c);
      }
    }
    items.add(item.toString().strip());
    items.removeIf(String::isEmpty);
    return items;
  }
}
