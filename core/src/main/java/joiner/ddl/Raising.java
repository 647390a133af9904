package joiner.ddl;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogTable;
import joiner.catalog.ForeignKey;
import joiner.catalog.Sequence;
import joiner.model.Area;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;

/** Makes a design of a schema. */
final class Raising {
  private final List<CatalogTable> found;
  private final String title;
  private final Map<String, Table> tables = new LinkedHashMap<>();
  private final List<Relationship> relationships = new ArrayList<>();
  private final Set<String> taken = new HashSet<>();
  private final List<String> unread = new ArrayList<>();

  Raising(Catalog catalog, String title) {
    // Where numbers are counted is no matter of a design.
    this.found = catalog.tables().stream().filter(table -> !Sequence.keeps(table)).toList();
    this.title = title;
  }

  Raised raise() {
    for (CatalogTable table : found) {
      var raising = new TableRaising(table);
      tables.put(table.name(), raising.raise());
      unread.addAll(raising.unread());
    }
    found.forEach(table -> table.foreignKeys().forEach(key -> relate(table, key)));
    List<Table> all = tables.values().stream().map(this::withKind).toList();
    String name = NamingPolicy.nameFor(title).replace('_', '-');
    List<Area> areas = List.of();
    return new Raised(Design.of(name, title, "", areas, all, relationships, Extras.NONE), unread);
  }

  private void relate(CatalogTable of, ForeignKey key) {
    Table child = tables.get(of.name());
    Optional<Table> parent = Optional.ofNullable(tables.get(key.parent()));
    Optional<List<FieldId>> own = ids(child, key.columns());
    Optional<List<FieldId>> referred = parent.flatMap(p -> ids(p, key.parentColumns()));
    if (own.isEmpty() || referred.isEmpty()) {
      unread.add(
          "A foreign key of "
              + of.name()
              + " refers to "
              + key.parent()
              + " ("
              + String.join(", ", key.parentColumns())
              + "), which is not there.");
      return;
    }
    String wanted =
        key.name().isEmpty() ? ConstraintNaming.reference(of.name(), key.columns()) : key.name();
    String name = NamingPolicy.free(wanted, taken);
    taken.add(name);
    relationships.add(
        Relationship.of(name, child.id(), own.get(), parent.get().id(), referred.get())
            .withId(new RelationshipId(name))
            .withActions(key.onDelete(), key.onUpdate()));
  }

  private static Optional<List<FieldId>> ids(Table table, List<String> names) {
    var ids = new ArrayList<FieldId>();
    for (String name : names) {
      table.fieldNamed(name).map(Field::id).ifPresent(ids::add);
    }
    return ids.size() == names.size() && !ids.isEmpty() ? Optional.of(ids) : Optional.empty();
  }

  /** A table whose primary key is exactly two foreign keys to two tables joins them. */
  private Table withKind(Table table) {
    TableId id = table.id();
    List<Relationship> sides =
        relationships.stream()
            .filter(r -> r.child().equals(id) && table.primaryKey().containsAll(r.childFields()))
            .toList();
    var covered = new ArrayList<FieldId>();
    sides.forEach(side -> covered.addAll(side.childFields()));
    boolean joins =
        sides.size() == 2
            && covered.size() == table.primaryKey().size()
            && new HashSet<>(covered).size() == covered.size();
    return joins ? table.withKind(new TableKind.Join(sides.get(0).id(), sides.get(1).id())) : table;
  }
}
