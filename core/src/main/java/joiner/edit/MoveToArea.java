package joiner.edit;

import java.util.ArrayList;
import java.util.Optional;
import joiner.meaning.Draft;
import joiner.model.Area;
import joiner.model.Design;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * Moves a table to the area of a name, which is made if there is none.
 *
 * @param area its name; empty: to none
 */
public record MoveToArea(TableId table, String label, String area) implements Edit {
  /** Moves a table. */
  public static MoveToArea of(Table table, String area) {
    return new MoveToArea(table.id(), table.label(), area);
  }

  @Override
  public String name() {
    return "move " + label + " to " + (area.isEmpty() ? "no area" : area);
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    if (area.isEmpty()) {
      return draft.withDesign(design.withTable(table, t -> t.withArea(Optional.empty())));
    }
    Area there = Area.named(design.areas(), area);
    var areas = new ArrayList<>(design.areas());
    if (!areas.contains(there)) {
      areas.add(there);
    }
    return draft.withDesign(
        design.withAreas(areas).withTable(table, t -> t.withArea(Optional.of(there.id()))));
  }
}
