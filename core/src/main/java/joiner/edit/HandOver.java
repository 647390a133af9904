package joiner.edit;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.rows.RowId;
import joiner.rows.Rows;

/**
 * Lets rows refer to another row than before.
 *
 * @param what which rows are handed over to which, as people call them
 * @param over the relationship by which they refer
 * @param rows those that are handed over
 * @param to the row they refer to from then on
 */
public record HandOver(String what, RelationshipId over, Set<RowId> rows, RowId to)
    implements Edit {
  public HandOver {
    rows = Set.copyOf(rows);
  }

  @Override
  public String name() {
    return "hand over " + what;
  }

  @Override
  public boolean reachesFar() {
    return true;
  }

  @Override
  public Draft apply(Draft draft) {
    Relationship r =
        draft
            .design()
            .find(over)
            .orElseThrow(() -> new EditRefusedException("That relationship is gone."));
    InFile.requireHeld(draft, r.child());
    Rows parents = draft.rows().of(r.parent());
    OptionalInt place = parents.place(to);
    if (place.isEmpty()) {
      throw new EditRefusedException("The row that should take them over is gone.");
    }
    List<Optional<String>> key =
        r.parentFields().stream().map(field -> parents.cell(place.getAsInt(), field)).toList();
    return draft.withRows(
        draft.rows().with(r.child(), all -> referring(all, rows, r.childFields(), key)));
  }

  /** Rows of which some refer to something else, by the fields of their reference. */
  static Rows referring(
      Rows all, Set<RowId> some, List<FieldId> fields, List<Optional<String>> key) {
    Collection<Integer> places = all.places(some).values();
    Rows changed = all;
    for (int i = 0; i < fields.size(); i++) {
      Optional<String> text = key.get(i);
      changed =
          changed.withCells(
              fields.get(i), places.stream().collect(Collectors.toMap(place -> place, p -> text)));
    }
    return changed;
  }
}
