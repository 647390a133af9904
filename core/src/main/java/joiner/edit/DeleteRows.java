package joiner.edit;

import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.RelationshipId;
import joiner.model.TableId;
import joiner.rows.RowId;
import joiner.rows.Rows;
import joiner.rows.SampleRows;

/**
 * Deletes rows as a database would: others go along, and links are emptied or get their default.
 *
 * @param what of which rows it is, as people call them
 * @param gone the rows that go, by table
 * @param freed for each relationship the rows whose reference changes
 */
public record DeleteRows(
    String what, Map<TableId, Set<RowId>> gone, Map<RelationshipId, Freed> freed) implements Edit {
  public DeleteRows {
    gone = Map.copyOf(gone);
    freed = Map.copyOf(freed);
  }

  /**
   * Rows whose reference changes.
   *
   * @param values what its fields hold then, in their order
   */
  public record Freed(Set<RowId> rows, List<Optional<String>> values) {
    public Freed {
      rows = Set.copyOf(rows);
      values = List.copyOf(values);
    }
  }

  /** The ids of rows at some places. */
  public static Set<RowId> ids(Rows rows, BitSet places) {
    return places.stream().mapToObj(rows::id).collect(Collectors.toSet());
  }

  @Override
  public String name() {
    return "delete " + what;
  }

  @Override
  public boolean reachesFar() {
    return gone.size() > 1 || !freed.isEmpty();
  }

  @Override
  public Draft apply(Draft draft) {
    gone.keySet().forEach(table -> InFile.requireHeld(draft, table));
    SampleRows changed = draft.rows();
    for (var entry : freed.entrySet()) {
      var by = draft.design().find(entry.getKey());
      if (by.isPresent()) {
        InFile.requireHeld(draft, by.get().child());
        List<FieldId> fields = by.get().childFields();
        Freed free = entry.getValue();
        changed =
            changed.with(
                by.get().child(), r -> HandOver.referring(r, free.rows, fields, free.values));
      }
    }
    for (var entry : gone.entrySet()) {
      changed = changed.with(entry.getKey(), r -> r.without(entry.getValue()));
    }
    return draft.withRows(changed);
  }
}
