package joiner.catalog;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What leads from one schema to another.
 *
 * @param before the one
 * @param after the other
 * @param kept tables that stay, in their order after, whether anything of them differs or not
 * @param dropped tables that go
 * @param made tables that come
 */
public record CatalogChanges(
    Catalog before,
    Catalog after,
    List<TableChange> kept,
    List<CatalogTable> dropped,
    List<CatalogTable> made) {
  public CatalogChanges {
    kept = List.copyOf(kept);
    dropped = List.copyOf(dropped);
    made = List.copyOf(made);
  }

  /**
   * Compares two schemas; linear in their parts.
   *
   * @param same which parts are the same ones; a table of which no column stays is another one
   */
  public static CatalogChanges between(Catalog before, Catalog after, SameParts same) {
    Map<String, CatalogTable> comes = new HashMap<>();
    after.tables().forEach(table -> comes.put(table.name(), table));
    Map<String, TableChange> byAfter = new HashMap<>();
    var dropped = new ArrayList<CatalogTable>();
    for (CatalogTable table : before.tables()) {
      Map<String, String> columns = same.columnsOf(table.name());
      Optional<CatalogTable> now =
          Optional.ofNullable(same.tables().get(table.name())).map(comes::get);
      if (now.isPresent() && !columns.isEmpty()) {
        byAfter.put(
            now.get().name(), new TableChange(table, same.renamed(table), now.get(), columns));
      } else {
        dropped.add(table);
      }
    }
    var kept = new ArrayList<TableChange>();
    var made = new ArrayList<CatalogTable>();
    for (CatalogTable table : after.tables()) {
      Optional.ofNullable(byAfter.get(table.name()))
          .ifPresentOrElse(kept::add, () -> made.add(table));
    }
    return new CatalogChanges(before, after, kept, dropped, made);
  }

  /** Sequences that come. */
  public List<Sequence> sequencesMade() {
    return without(after.sequences(), before.sequences());
  }

  /** Sequences that go. */
  public List<Sequence> sequencesDropped() {
    return without(before.sequences(), after.sequences());
  }

  private static List<Sequence> without(List<Sequence> some, List<Sequence> others) {
    var names = new HashSet<String>();
    others.forEach(sequence -> names.add(sequence.name()));
    return some.stream().filter(sequence -> !names.contains(sequence.name())).toList();
  }
}
