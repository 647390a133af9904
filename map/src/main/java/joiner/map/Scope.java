package joiner.map;

import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * What of a design a map shows.
 *
 * @param tables the tables
 * @param areas how areas are told apart; where all tables are of one, nothing is
 * @param folded areas that are one board each
 */
public record Scope(Set<TableId> tables, Areas areas, Set<AreaId> folded) {
  public Scope {
    tables = Set.copyOf(tables);
    folded = Set.copyOf(folded);
  }

  /** How areas are told apart. */
  public enum Areas {
    /** By nothing but the colour of their boards. */
    MIXED,
    /** As regions that no board of another lies in. */
    REGIONS,
    /** As regions, with stand-ins for what their tables refer to elsewhere. */
    STAND_INS
  }

  /** Those tables, whatever their areas. */
  public static Scope of(Set<TableId> tables) {
    return new Scope(tables, Areas.MIXED, Set.of());
  }

  /** All tables of a design, whatever their areas. */
  public static Scope all(Design design) {
    return of(design.tables().stream().map(Table::id).collect(Collectors.toSet()));
  }

  /** The same with areas told apart in another way. */
  public Scope with(Areas other) {
    return new Scope(tables, other, folded);
  }

  /** The same with those areas folded. */
  public Scope withFolded(Set<AreaId> other) {
    return new Scope(tables, areas, other);
  }

  /** The same for a design whose tables are of several areas, else without regions. */
  Scope in(Design design) {
    long different =
        tables.stream().flatMap(id -> design.find(id).stream()).map(Table::area).distinct().count();
    return different > 1 ? this : with(Areas.MIXED);
  }

  boolean isFolded(Table table) {
    return table.area().filter(folded::contains).isPresent();
  }

  /** The area a table is drawn in the region of. */
  Optional<AreaId> regionOf(Table table) {
    return areas == Areas.MIXED ? Optional.empty() : table.area().filter(a -> !folded.contains(a));
  }
}
