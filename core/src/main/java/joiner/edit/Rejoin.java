package joiner.edit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.TableId;
import joiner.rows.Draft;
import joiner.rows.Rows;

/**
 * Joins the tables of a split again, by their relationships and rows alone, as a query would. Knows
 * nothing of how they were made but where each value is to be found.
 */
final class Rejoin {
  private final Draft draft;
  private final TableId main;
  private final Map<FieldId, SplitOrigin> origins;

  /** For each relationship the parent's rows by key. */
  private final Map<RelationshipId, Map<List<Optional<String>>, Integer>> parents = new HashMap<>();

  /** For each relationship of a detail table its rows by key, in the order of their numbers. */
  private final Map<RelationshipId, Map<List<Optional<String>>, TreeMap<Integer, Integer>>>
      details = new HashMap<>();

  Rejoin(Draft draft, TableId main, Map<FieldId, SplitOrigin> origins) {
    this.draft = draft;
    this.main = main;
    this.origins = origins;
  }

  /** How many cells come back other than they were. */
  int differing(Rows before) {
    int differing = 0;
    for (var entry : origins.entrySet()) {
      for (int row = 0; row < before.count(); row++) {
        differing += before.cell(row, entry.getKey()).equals(cell(row, entry.getValue())) ? 0 : 1;
      }
    }
    return differing;
  }

  private Optional<String> cell(int row, SplitOrigin origin) {
    TableId table = main;
    int at = row;
    for (RelationshipId step : origin.path()) {
      at = follow(step, at);
      table = relationship(step).parent();
      if (at < 0) {
        return Optional.empty();
      }
    }
    return switch (origin) {
      case SplitOrigin.Stored stored -> rows(table).cell(at, stored.field());
      case SplitOrigin.Numbered numbered ->
          Optional.ofNullable(
                  details(numbered.detail(), numbered.number(), table, at).get(numbered.place()))
              .flatMap(detail -> value(detail, numbered.value()));
      case SplitOrigin.Listed listed -> {
        var parts = new ArrayList<String>();
        for (int detail : details(listed.detail(), listed.number(), table, at).values()) {
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

  private Optional<String> value(int row, SplitOrigin.Value value) {
    if (value.lookup().isEmpty()) {
      return rows(value.table()).cell(row, value.field());
    }
    RelationshipId lookup = value.lookup().getFirst();
    int found = follow(lookup, row);
    return found < 0
        ? Optional.empty()
        : rows(relationship(lookup).parent()).cell(found, value.field());
  }

  /** The row of the parent that a row of the child refers to; −1 if it refers to none. */
  private int follow(RelationshipId step, int row) {
    Relationship relationship = relationship(step);
    Map<List<Optional<String>>, Integer> byKey =
        parents.computeIfAbsent(step, s -> index(relationship));
    List<Optional<String>> key = rows(relationship.child()).row(row, relationship.childFields());
    return byKey.getOrDefault(key, -1);
  }

  private Map<List<Optional<String>>, Integer> index(Relationship relationship) {
    Map<List<Optional<String>>, Integer> byKey = new HashMap<>();
    Rows rows = rows(relationship.parent());
    for (int row = 0; row < rows.count(); row++) {
      byKey.put(rows.row(row, relationship.parentFields()), row);
    }
    return byKey;
  }

  private TreeMap<Integer, Integer> details(
      RelationshipId detail, FieldId number, TableId owner, int row) {
    Relationship relationship = relationship(detail);
    var byKey =
        details.computeIfAbsent(
            detail,
            d -> {
              Map<List<Optional<String>>, TreeMap<Integer, Integer>> rowsOf = new HashMap<>();
              Rows rows = rows(relationship.child());
              for (int i = 0; i < rows.count(); i++) {
                rowsOf
                    .computeIfAbsent(rows.row(i, relationship.childFields()), k -> new TreeMap<>())
                    .put(Integer.parseInt(rows.cell(i, number).orElseThrow()), i);
              }
              return rowsOf;
            });
    return byKey.getOrDefault(rows(owner).row(row, relationship.parentFields()), new TreeMap<>());
  }

  private Relationship relationship(RelationshipId id) {
    return draft.design().relationship(id);
  }

  private Rows rows(TableId table) {
    return draft.rows().of(table);
  }
}
