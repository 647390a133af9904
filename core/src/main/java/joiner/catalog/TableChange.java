package joiner.catalog;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;

/**
 * A table that stays, as it was and as it comes.
 *
 * @param before as it was
 * @param renamed as it was, under the names that all comes to have
 * @param after as it comes
 * @param columns name before → name after, of the columns that stay
 */
public record TableChange(
    CatalogTable before, CatalogTable renamed, CatalogTable after, Map<String, String> columns) {
  public TableChange {
    columns = Map.copyOf(columns);
  }

  /** A column that stays, under its new name. */
  public record ColumnChange(Column before, Column after) {
    /** Whether its values become others. */
    public boolean ofType() {
      return !before.type().equals(after.type());
    }

    /** Whether it begins or ceases to count. */
    public boolean ofCounting() {
      return before.counts() != after.counts();
    }

    /** Whether it may be empty before and not after, or the other way round. */
    public boolean ofRequired() {
      return before.required() != after.required();
    }

    /** Whether rows that leave it out get something else. */
    public boolean ofDefault() {
      return !sql(before).equals(sql(after));
    }

    private static Optional<String> sql(Column column) {
      return column.defaultValue().map(SqlExpression::sql);
    }
  }

  /** Whether anything but its name differs, and the note on it. */
  public boolean isOfSubstance() {
    return !bare(before).equals(bare(after));
  }

  private static CatalogTable bare(CatalogTable table) {
    return new CatalogTable(
        "",
        table.columns().stream().map(column -> column.commented("")).toList(),
        table.primaryKey(),
        table.uniqueKeys(),
        table.foreignKeys(),
        table.checks(),
        table.indexes(),
        "");
  }

  /**
   * Whether columns change beside or under one that is computed from others, which engines refuse
   * in many ways.
   */
  public boolean meetsGenerated() {
    boolean any =
        Stream.concat(before.columns().stream(), after.columns().stream())
            .anyMatch(column -> column.generated().isPresent());
    return any && !bare(before).columns().equals(bare(after).columns());
  }

  /** Columns that come, in their order. */
  public List<Column> added() {
    var old = new HashSet<>(columns.values());
    return after.columns().stream().filter(column -> !old.contains(column.name())).toList();
  }

  /** Columns that go, in their order. */
  public List<Column> dropped() {
    return before.columns().stream().filter(column -> !columns.containsKey(column.name())).toList();
  }

  /** Columns that get another name: before → after. */
  public Map<String, String> columnsRenamed() {
    Map<String, String> others = new LinkedHashMap<>();
    for (Column column : before.columns()) {
      String now = columns.getOrDefault(column.name(), column.name());
      if (!now.equals(column.name())) {
        others.put(column.name(), now);
      }
    }
    return others;
  }

  /** Columns that stay and say something else. */
  public List<ColumnChange> changed() {
    var changed = new ArrayList<ColumnChange>();
    for (ColumnChange column : staying()) {
      if (!column.before().equals(column.after())) {
        changed.add(column);
      }
    }
    return changed;
  }

  /** Columns that stay, in their order after. */
  public List<ColumnChange> staying() {
    Map<String, Column> old = new LinkedHashMap<>();
    renamed.columns().forEach(column -> old.put(column.name(), column));
    var kept = new HashSet<>(columns.values());
    return after.columns().stream()
        .filter(column -> kept.contains(column.name()))
        .map(column -> new ColumnChange(old.get(column.name()), column))
        .toList();
  }

  /** Whether its name differs. */
  public boolean isRenamed() {
    return !before.name().equals(after.name());
  }

  /** The parts of one sort that go: the table's own before, for those that are not there after. */
  public <T> List<T> gone(Function<CatalogTable, List<T>> parts) {
    Set<T> stay = new HashSet<>(parts.apply(after));
    var gone = new ArrayList<T>();
    for (int i = 0; i < parts.apply(before).size(); i++) {
      if (!stay.contains(parts.apply(renamed).get(i))) {
        gone.add(parts.apply(before).get(i));
      }
    }
    return gone;
  }

  /** The parts of one sort that come. */
  public <T> List<T> come(Function<CatalogTable, List<T>> parts) {
    Set<T> old = new HashSet<>(parts.apply(renamed));
    return parts.apply(after).stream().filter(part -> !old.contains(part)).toList();
  }
}
