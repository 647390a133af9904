package joiner.format;

import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.Table;

/**
 * How the rows of a table stand in their file: the Table Dialect and encoding of its resource and
 * the spelling of each field's values (Data Package standard, version 2). It is derived from the
 * properties kept with the table, so that what is read so is written so again.
 *
 * @param dialect separators, quotes, header
 * @param cells the spelling of each field, in the table's order
 */
record RowsForm(Dialect dialect, List<CellForm> cells) {
  /** Kept properties of a table that say how its rows stand in a file. */
  private static final List<String> PROPERTIES =
      List.of("dialect", "encoding", "schema/missingValues", "format", "mediatype");

  RowsForm {
    cells = List.copyOf(cells);
  }

  /**
   * Separators, quotes, header and encoding.
   *
   * @param quote none: nothing is quoted
   * @param headerRows numbers of the lines that hold the header, from 1; empty: no header
   * @param commentRows numbers of lines to pass over, from 1
   */
  record Dialect(
      String delimiter,
      Optional<Character> quote,
      boolean doubleQuote,
      Optional<Character> escape,
      Optional<Character> comment,
      boolean skipInitialSpace,
      List<Integer> headerRows,
      String headerJoin,
      List<Integer> commentRows,
      Optional<String> lineTerminator,
      Charset charset) {
    /** As Joiner writes: commas, double quotes, one header line, UTF-8. */
    static final Dialect OWN =
        new Dialect(
            ",",
            Optional.of('"'),
            true,
            Optional.empty(),
            Optional.empty(),
            false,
            List.of(1),
            " ",
            List.of(),
            Optional.empty(),
            StandardCharsets.UTF_8);

    /** Whether rows can be written so that nothing but rows and header was in the file. */
    boolean isWritable() {
      return commentRows.isEmpty() && (headerRows.isEmpty() || headerRows.equals(List.of(1)));
    }

    /** Whether nothing but separators, quotes and ends of lines of ASCII says anything in UTF-8. */
    boolean isPlain() {
      return isUsual()
          && delimiter.charAt(0) < 128
          && quote.orElseThrow() < 128
          && quote.orElseThrow() != delimiter.charAt(0)
          && comment.isEmpty()
          && commentRows.isEmpty()
          && (headerRows.isEmpty() || headerRows.equals(List.of(1)))
          && charset.equals(StandardCharsets.UTF_8);
    }

    /** Whether quotes and separators are the usual ones, of whatever character. */
    boolean isUsual() {
      return delimiter.length() == 1
          && quote.isPresent()
          && doubleQuote
          && escape.isEmpty()
          && !skipInitialSpace;
    }
  }

  /** As Joiner writes by itself. */
  static RowsForm own(Table table) {
    return new RowsForm(Dialect.OWN, table.fields().stream().map(field -> CellForm.OWN).toList());
  }

  /**
   * The form kept with a table.
   *
   * @param path where the rows stand; a name ending in .tsv means tabs where nothing else is said
   * @param file the descriptor, named in errors
   */
  static RowsForm of(Table table, String path, Path file) throws UnreadableFileException {
    Map<String, String> kept = table.extras().byProperty();
    List<String> missing = List.of("");
    if (kept.containsKey("schema/missingValues")) {
      Json values = ExtrasJson.parse(kept.get("schema/missingValues"));
      missing =
          CellForm.missingValues(
              new Members(new Json.Obj(Map.of("missingValues", values), 0), file, "schema"));
    }
    var cells = new ArrayList<CellForm>();
    for (Field field : table.fields()) {
      cells.add(CellForm.of(field, missing, file));
    }
    return new RowsForm(dialect(kept, path, file), cells);
  }

  private static Dialect dialect(Map<String, String> kept, String path, Path file)
      throws UnreadableFileException {
    boolean tabs = path.endsWith(".tsv") || "\"tsv\"".equals(kept.get("format"));
    String json = kept.get("dialect");
    if (json == null || !(ExtrasJson.parse(json) instanceof Json.Obj object)) {
      Dialect own = Dialect.OWN;
      return new Dialect(
          tabs ? "\t" : ",",
          own.quote,
          true,
          own.escape,
          own.comment,
          false,
          own.headerRows,
          own.headerJoin,
          List.of(),
          Optional.empty(),
          charset(kept, file));
    }
    var members = new Members(object, file, "dialect");
    return new Dialect(
        members.optionalText("delimiter").filter(d -> !d.isEmpty()).orElse(tabs ? "\t" : ","),
        object.get("quoteChar").filter(Json.Null.class::isInstance).isPresent()
            ? Optional.empty()
            : Optional.of(character(members, "quoteChar").orElse('"')),
        isTrue(members, "doubleQuote", true),
        character(members, "escapeChar"),
        character(members, "commentChar"),
        isTrue(members, "skipInitialSpace", false),
        headerRows(members),
        members.optionalText("headerJoin").orElse(" "),
        numbers(members, "commentRows"),
        members.optionalText("lineTerminator").filter(t -> t.equals("\n") || t.equals("\r\n")),
        charset(kept, file));
  }

  private static List<Integer> headerRows(Members members) throws UnreadableFileException {
    if (!isTrue(members, "header", true)) {
      return List.of();
    }
    return members.any("headerRows").isPresent() ? numbers(members, "headerRows") : List.of(1);
  }

  private static List<Integer> numbers(Members members, String name)
      throws UnreadableFileException {
    var numbers = new ArrayList<Integer>();
    for (Json item : members.list(name)) {
      if (!(item instanceof Json.Num number) || !number.text().matches("[1-9]\\d{0,6}")) {
        throw members.wrong(name, item, "a list of line numbers");
      }
      numbers.add(Integer.valueOf(number.text()));
    }
    return List.copyOf(numbers);
  }

  private static boolean isTrue(Members members, String name, boolean usual)
      throws UnreadableFileException {
    return members.any(name).isPresent() ? members.flag(name) : usual;
  }

  private static Optional<Character> character(Members members, String name)
      throws UnreadableFileException {
    Optional<String> text = members.optionalText(name).filter(t -> !t.isEmpty());
    if (text.isPresent() && text.get().length() > 1) {
      throw members.problem(
          "“" + name + "” is one character, not “" + text.get() + "”; mend the dialect.");
    }
    return text.map(t -> t.charAt(0));
  }

  private static Charset charset(Map<String, String> kept, Path file)
      throws UnreadableFileException {
    String json = kept.get("encoding");
    String name =
        json != null && ExtrasJson.parse(json) instanceof Json.Text text ? text.text() : "utf-8";
    try {
      return Charset.forName(name);
    } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
      throw new UnreadableFileException(
          file, 0, "the encoding “" + name + "” is not known; use utf-8.");
    }
  }

  /** The table without everything that says its rows stand otherwise than Joiner writes them. */
  static Table withoutForm(Table table) {
    Map<String, String> kept = new LinkedHashMap<>(table.extras().byProperty());
    PROPERTIES.forEach(kept::remove);
    return table
        .withExtras(new Extras(kept))
        .withFields(
            table.fields().stream()
                .map(field -> field.withExtras(CellForm.withoutForms(field.extras())))
                .toList());
  }
}
