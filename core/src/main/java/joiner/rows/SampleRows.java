package joiner.rows;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.UnaryOperator;
import joiner.model.FieldId;
import joiner.model.TableId;

/**
 * The rows of all tables of a design: held here, or staying in a file. Tables that are not named
 * have none. Immutable.
 *
 * @param byTable the rows that are held
 * @param linked the rows that stay in files; of such a table none are held
 */
public record SampleRows(Map<TableId, Rows> byTable, Map<TableId, LinkedRows> linked) {
  /** No rows at all. */
  public static final SampleRows NONE = new SampleRows(Map.of());

  public SampleRows {
    Map<TableId, Rows> some = new LinkedHashMap<>(byTable);
    some.values().removeIf(rows -> rows.count() == 0); // None is none, named or not.
    byTable = Map.copyOf(some);
    linked = Map.copyOf(linked);
    for (TableId table : linked.keySet()) {
      if (byTable.containsKey(table)) {
        throw new IllegalArgumentException(
            "the rows of table " + table + " stay in a file; none can be held beside them");
      }
    }
  }

  /** Rows of which none stay in files. */
  public SampleRows(Map<TableId, Rows> byTable) {
    this(byTable, Map.of());
  }

  /** The rows of one table that are held. */
  public Rows of(TableId table) {
    return byTable.getOrDefault(table, Rows.NONE);
  }

  /** The rows of one table that stay in a file. */
  public Optional<LinkedRows> link(TableId table) {
    return Optional.ofNullable(linked.get(table));
  }

  /** The same rows with those of one table changed that are held. */
  public SampleRows with(TableId table, UnaryOperator<Rows> change) {
    Map<TableId, Rows> changed = new LinkedHashMap<>(byTable);
    changed.put(table, change.apply(of(table)));
    return new SampleRows(changed, linked);
  }

  /** Whether a field of a table has a value in any row, as far as that is known. */
  public boolean has(TableId table, FieldId field) {
    return link(table).filter(link -> link.fields().contains(field)).isPresent()
        || of(table).has(field);
  }

  /** The same rows of one table without values in a field, wherever they are. */
  public SampleRows withoutField(TableId table, FieldId field) {
    return changed(table, link -> link.without(field), rows -> rows.withoutColumn(field));
  }

  /**
   * The same rows of one table where a field holds another text instead of one; a file that has
   * them stays as it is.
   */
  public SampleRows replaced(TableId table, FieldId field, String before, String after) {
    return changed(
        table,
        link -> link.replaced(field, before, after),
        rows -> rows.replaced(field, before, after));
  }

  private SampleRows changed(
      TableId table, UnaryOperator<LinkedRows> inFile, UnaryOperator<Rows> held) {
    return link(table)
        .map(link -> withLink(table, inFile.apply(link)))
        .orElseGet(() -> with(table, held));
  }

  /** The same rows with those of one table in a file, instead of any that were held. */
  public SampleRows withLink(TableId table, LinkedRows link) {
    Map<TableId, Rows> held = new LinkedHashMap<>(byTable);
    held.remove(table);
    Map<TableId, LinkedRows> files = new LinkedHashMap<>(linked);
    files.put(table, link);
    return new SampleRows(held, files);
  }

  /**
   * The same rows with other ids for tables and fields.
   *
   * @param field the id of a field of a table, both as they are now → its other one
   */
  public SampleRows under(
      UnaryOperator<TableId> table, BiFunction<TableId, FieldId, FieldId> field) {
    Map<TableId, Rows> held = new LinkedHashMap<>();
    byTable.forEach((id, rows) -> held.put(table.apply(id), rows.under(f -> field.apply(id, f))));
    Map<TableId, LinkedRows> files = new LinkedHashMap<>();
    linked.forEach((id, link) -> files.put(table.apply(id), link.under(f -> field.apply(id, f))));
    return new SampleRows(held, files);
  }

  /** The same rows without one table's. */
  public SampleRows without(TableId table) {
    Map<TableId, Rows> held = new LinkedHashMap<>(byTable);
    held.remove(table);
    Map<TableId, LinkedRows> files = new LinkedHashMap<>(linked);
    files.remove(table);
    return new SampleRows(held, files);
  }

  /** Number of rows of one table; of those in a file as many as there were when it was linked. */
  public int count(TableId table) {
    return link(table).map(LinkedRows::count).orElseGet(() -> of(table).count());
  }

  /** Number of rows in all tables that are held. */
  public int count() {
    return byTable.values().stream().mapToInt(Rows::count).sum();
  }

  /** Whether no table has rows. */
  public boolean isEmpty() {
    return byTable.isEmpty() && linked.isEmpty();
  }
}
