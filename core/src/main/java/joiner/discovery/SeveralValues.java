package joiner.discovery;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import joiner.rows.EncodedColumn;
import joiner.rows.EncodedTable;
import joiner.rows.ValueForm;

/**
 * Finds columns whose cells hold lists. A separator is believed when it cuts a fair share of the
 * cells, the pieces come again elsewhere, and pieces at the first place occur at later places too:
 * that tells “bowls; jugs” from “Vell, Mara”.
 */
final class SeveralValues {
  private static final List<String> SEPARATORS =
      List.of("; ", ";", " | ", "|", " / ", "\n", ", ", " + ", " & ", "/", ",");

  private static final Pattern COUNTED = Pattern.compile("([1-9]\\d{0,8}) (\\S.*)");

  private SeveralValues() {}

  static List<Fact.HoldsSeveral> find(
      EncodedTable table, List<ColumnProfile> profiles, FactNames names) {
    var facts = new ArrayList<Fact.HoldsSeveral>();
    for (int column = 0; column < table.columns().size(); column++) {
      if (profiles.get(column).form() == ValueForm.TEXT) {
        look(table.columns().get(column), column, names).ifPresent(facts::add);
      }
    }
    return facts;
  }

  private static Optional<Fact.HoldsSeveral> look(
      EncodedColumn column, int place, FactNames names) {
    for (String separator : SEPARATORS) {
      var pieces = new Pieces();
      int[] counts = column.counts();
      for (int code = 1; code < counts.length; code++) {
        if (counts[code] > 0) {
          pieces.see(column.textOf(code), counts[code], separator);
        }
      }
      if (pieces.isList()) {
        return Optional.of(pieces.fact(names, place, separator));
      }
    }
    return Optional.empty();
  }

  /** What a separator makes of a column. */
  private static final class Pieces {
    private final Map<String, Integer> things = new LinkedHashMap<>();
    private final Set<String> first = new HashSet<>();
    private final Set<String> later = new HashSet<>();
    private long cells;
    private long cut;
    private long pieces;
    private long counted;
    private boolean clean = true;

    void see(String cell, int rows, String separator) {
      String[] parts = cell.split(Pattern.quote(separator), -1);
      cells += rows;
      cut += parts.length > 1 ? rows : 0;
      for (int i = 0; i < parts.length; i++) {
        Matcher matcher = COUNTED.matcher(parts[i]);
        boolean isCounted = matcher.matches();
        String thing = isCounted ? matcher.group(2) : parts[i];
        clean &= !parts[i].isBlank() && parts[i].equals(parts[i].strip()) && thing.length() <= 60;
        counted += isCounted ? rows : 0;
        pieces += rows;
        things.merge(thing, rows, Integer::sum);
        (i == 0 ? first : later).add(thing);
      }
    }

    boolean isList() {
      long again = things.values().stream().filter(rows -> rows > 1).count();
      long both = first.stream().filter(later::contains).count();
      return clean
          && cut >= 2
          && cut >= 0.1 * cells
          && again >= 0.5 * things.size()
          && both >= 0.25 * Math.min(first.size(), later.size());
    }

    Fact.HoldsSeveral fact(FactNames names, int place, String separator) {
      boolean all = counted == pieces;
      var reasons = new ArrayList<String>();
      reasons.add(cut + " of " + cells + " cells hold several values, " + pieces + " in all");
      reasons.add(
          things.size()
              + " different "
              + (all ? "things, each with a count in front" : "values")
              + " come again and again");
      double score = 0.6 + 0.2 * Math.min(1, 2.0 * cut / cells) + (all ? 0.15 : 0.05);
      return new Fact.HoldsSeveral(
          names.of(place) + ".list", Math.min(0.95, score), reasons, place, separator, all);
    }
  }
}
