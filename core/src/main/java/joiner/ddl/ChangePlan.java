package joiner.ddl;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import joiner.catalog.CatalogChanges;
import joiner.catalog.CatalogTable;
import joiner.catalog.ForeignKey;
import joiner.catalog.TableChange;
import joiner.engine.Alter;
import joiner.engine.Dialect;

/** Which tables of a change an engine changes where they are, and which it has to make anew. */
final class ChangePlan {
  private final Dialect dialect;
  private final Alter alter;
  private final CatalogChanges changes;

  /** Names before of tables that are made anew → names of the tables where their rows wait. */
  private final Map<String, String> aside = new LinkedHashMap<>();

  /** Tables that stay, by their names before. */
  private final Map<String, TableChange> kept = new LinkedHashMap<>();

  ChangePlan(CatalogChanges changes, Dialect dialect) {
    this.dialect = dialect;
    this.alter = dialect.alter();
    this.changes = changes;
    changes.kept().forEach(change -> kept.put(change.before().name(), change));
    name(anew());
  }

  Dialect dialect() {
    return dialect;
  }

  Alter alter() {
    return alter;
  }

  CatalogChanges changes() {
    return changes;
  }

  /** Tables that are changed where they are, or not at all. */
  List<TableChange> inPlace() {
    return changes.kept().stream().filter(change -> !isAnew(change)).toList();
  }

  /** Whether a table that stays is made anew. */
  boolean isAnew(TableChange change) {
    return aside.containsKey(change.before().name());
  }

  /** Whether a table of before is there all the time. */
  boolean stays(String table) {
    return kept.containsKey(table) && !aside.containsKey(table);
  }

  /** Where the rows of tables that are made anew wait, by the names of those tables before. */
  Map<String, String> aside() {
    return aside;
  }

  /** Whether foreign keys are declared by themselves; otherwise they come with their table. */
  boolean declaresLater() {
    return dialect.addsReferences() && !dialect.refersAhead();
  }

  /** Tables that the engine cannot change where they are, and what has to go with them. */
  private Set<String> anew() {
    var anew = new LinkedHashSet<String>();
    for (TableChange change : changes.kept()) {
      if (!alter.inPlace(change) || change.meetsGenerated()) {
        anew.add(change.before().name());
      }
    }
    if (alter.takesFamily()) {
      addFamily(anew);
    }
    return anew;
  }

  private void addFamily(Set<String> anew) {
    Map<String, List<String>> children = new HashMap<>();
    for (CatalogTable table : changes.before().tables()) {
      for (ForeignKey key : table.foreignKeys()) {
        children.computeIfAbsent(key.parent(), name -> new ArrayList<>()).add(table.name());
      }
    }
    var open = new ArrayList<>(anew);
    changes.dropped().forEach(table -> open.add(table.name()));
    while (!open.isEmpty()) {
      for (String child : children.getOrDefault(open.removeLast(), List.of())) {
        if (kept.containsKey(child) && anew.add(child)) {
          open.add(child);
        }
      }
    }
  }

  /** Names that no table has, before or after. */
  private void name(Set<String> anew) {
    var taken = new HashSet<String>();
    changes.before().tables().forEach(t -> taken.add(t.name().toLowerCase(Locale.ROOT)));
    changes.after().tables().forEach(t -> taken.add(t.name().toLowerCase(Locale.ROOT)));
    int place = 1;
    for (String table : anew) {
      while (!taken.add("set_aside_" + place)) {
        place++;
      }
      aside.put(table, "set_aside_" + place);
    }
  }
}
