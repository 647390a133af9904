package joiner.split;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.TableId;
import joiner.rows.Rows;

/**
 * Joins the tables of a split again, by their relationships and rows alone, as a query would. Knows
 * nothing of how they were made but where each value is to be found.
 */
final class Rejoin {
  private static final TreeMap<Integer, Integer> NONE = new TreeMap<>();

  private final Draft draft;
  private final TableId main;
  private final Map<FieldId, SplitOrigin> origins;

  /** For each path the row it leads to from each row of the split table; −1: none. */
  private final Map<List<RelationshipId>, int[]> reached = new HashMap<>();

  /** For each lookup of a detail table the row each of its rows refers to; −1: none. */
  private final Map<RelationshipId, int[]> lookedUp = new HashMap<>();

  /** For each relationship of a detail table its rows for each row of the owner, by number. */
  private final Map<RelationshipId, Map<Integer, TreeMap<Integer, Integer>>> details =
      new HashMap<>();

  Rejoin(Draft draft, TableId main, Map<FieldId, SplitOrigin> origins) {
    this.draft = draft;
    this.main = main;
    this.origins = origins;
  }

  /** How many cells come back other than they were; linear in the cells. */
  int differing(Rows before) {
    int differing = 0;
    for (var entry : origins.entrySet()) {
      SplitOrigin origin = entry.getValue();
      int[] at = reached(origin.path());
      for (int row = 0; row < before.count(); row++) {
        Optional<String> joined = at[row] < 0 ? Optional.empty() : cell(at[row], origin);
        differing += before.cell(row, entry.getKey()).equals(joined) ? 0 : 1;
      }
    }
    return differing;
  }

  private int[] reached(List<RelationshipId> path) {
    int[] known = reached.get(path);
    if (known != null) {
      return known;
    }
    int[] rows;
    if (path.isEmpty()) {
      rows = IntStream.range(0, rows(main).count()).toArray();
    } else {
      int[] before = reached(path.subList(0, path.size() - 1));
      int[] next = references(relationship(path.getLast()));
      rows = IntStream.of(before).map(row -> row < 0 ? -1 : next[row]).toArray();
    }
    reached.put(List.copyOf(path), rows);
    return rows;
  }

  /** For each row of the child the row of the parent it refers to; −1: none. */
  private int[] references(Relationship relationship) {
    Map<List<Optional<String>>, Integer> byKey = new HashMap<>();
    Rows parents = rows(relationship.parent());
    for (int row = 0; row < parents.count(); row++) {
      byKey.put(parents.row(row, relationship.parentFields()), row);
    }
    Rows children = rows(relationship.child());
    return IntStream.range(0, children.count())
        .map(row -> byKey.getOrDefault(children.row(row, relationship.childFields()), -1))
        .toArray();
  }

  private Optional<String> cell(int row, SplitOrigin origin) {
    return switch (origin) {
      case SplitOrigin.Stored stored -> rows(home(stored)).cell(row, stored.field());
      case SplitOrigin.Numbered numbered ->
          Optional.ofNullable(
                  details(numbered.detail(), numbered.number(), row).get(numbered.place()))
              .flatMap(detail -> value(detail, numbered.value()));
      case SplitOrigin.Listed listed -> {
        var parts = new ArrayList<String>();
        for (int detail : details(listed.detail(), listed.number(), row).values()) {
          parts.add(
              listed.values().stream()
                  .map(value -> value(detail, value).orElse(""))
                  .collect(Collectors.joining(" ")));
        }
        yield parts.isEmpty()
            ? Optional.empty()
            : Optional.of(String.join(listed.separator(), parts));
      }
    };
  }

  private TableId home(SplitOrigin.Stored stored) {
    return stored.home(draft.design(), main);
  }

  private Optional<String> value(int row, SplitOrigin.Value value) {
    if (value.lookup().isEmpty()) {
      return rows(value.table()).cell(row, value.field());
    }
    RelationshipId lookup = value.lookup().getFirst();
    int found = lookedUp.computeIfAbsent(lookup, l -> references(relationship(l)))[row];
    return found < 0
        ? Optional.empty()
        : rows(relationship(lookup).parent()).cell(found, value.field());
  }

  private TreeMap<Integer, Integer> details(RelationshipId detail, FieldId number, int owner) {
    Relationship relationship = relationship(detail);
    return details
        .computeIfAbsent(
            detail,
            d -> {
              Map<Integer, TreeMap<Integer, Integer>> rowsOf = new HashMap<>();
              Rows rows = rows(relationship.child());
              int[] owners = references(relationship);
              for (int row = 0; row < owners.length; row++) {
                rowsOf
                    .computeIfAbsent(owners[row], o -> new TreeMap<>())
                    .put(Integer.parseInt(rows.cell(row, number).orElseThrow()), row);
              }
              return rowsOf;
            })
        .getOrDefault(owner, NONE);
  }

  private Relationship relationship(RelationshipId id) {
    return draft.design().relationship(id);
  }

  private Rows rows(TableId table) {
    return draft.rows().of(table);
  }
}
