package joiner.desktop.ship;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.ddl.Lowered;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.ddl.Shortfall;
import joiner.ddl.Statement;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.meaning.Draft;

/**
 * A script as Ship shows it.
 *
 * @param text its beginning, as far as a window can show it
 * @param lines how many lines the whole has
 * @param statements how many statements the whole has
 * @param sections those that hold something
 * @param shortfalls what the target cannot keep
 * @param left rows that are not written out
 * @param lost for each target how many things it cannot keep
 */
record WrittenScript(
    String text,
    long lines,
    int statements,
    List<Statement.Section> sections,
    List<Shortfall> shortfalls,
    List<String> left,
    Map<Dialect, Integer> lost) {
  /** More is not read on a screen, and takes long to draw. */
  private static final int MOST_LINES = 3000;

  /** What is to be written. */
  record Wanted(
      Draft draft,
      Dialect dialect,
      RowsChoice rows,
      Optional<Statement.Section> section,
      String title) {
    /** Whether another gives the same script; looks at no row. */
    boolean isSame(Wanted other) {
      return draft.design() == other.draft.design()
          && draft.rows() == other.draft.rows()
          && dialect == other.dialect
          && rows == other.rows
          && section.equals(other.section);
    }
  }

  static WrittenScript of(Wanted wanted) {
    SchemaScript script = SchemaScript.of(wanted.draft(), wanted.dialect(), wanted.rows());
    String whole =
        wanted
            .section()
            .map(one -> SchemaScript.text(script.section(one), script.dialect()).stripLeading())
            .orElseGet(() -> script.text(wanted.title()));
    Map<Dialect, Integer> lost = new LinkedHashMap<>();
    for (Dialect dialect : Dialects.ALL) {
      List<Shortfall> own =
          dialect == wanted.dialect()
              ? script.shortfalls()
              : Lowered.of(wanted.draft(), dialect, RowsChoice.NONE).shortfalls();
      lost.put(dialect, (int) own.stream().filter(s -> !s.elsewhere()).count());
    }
    return new WrittenScript(
        whole.lines().limit(MOST_LINES).collect(Collectors.joining("\n", "", "\n")),
        whole.lines().count(),
        script.statements().size(),
        Stream.of(Statement.Section.values()).filter(s -> !script.section(s).isEmpty()).toList(),
        script.shortfalls(),
        script.left(),
        lost);
  }

  /** Whether the text is the whole script. */
  boolean isWhole() {
    return lines <= MOST_LINES;
  }
}
