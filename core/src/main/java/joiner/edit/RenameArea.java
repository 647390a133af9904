package joiner.edit;

import joiner.meaning.Draft;
import joiner.model.AreaId;
import joiner.model.Design;

/** Gives an area another name; its tables stay in it. */
public record RenameArea(AreaId area, String before, String after) implements Edit {
  @Override
  public String name() {
    return "rename the area " + before + " to " + after;
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    if (after.isBlank()) {
      throw new EditRefusedException("An area needs a name.");
    }
    if (design.areaNamed(after).filter(other -> !other.id().equals(area)).isPresent()) {
      throw new EditRefusedException("There is an area " + after + " already.");
    }
    return draft.withDesign(
        design.withAreas(
            design.areas().stream()
                .map(one -> one.id().equals(area) ? one.withName(after) : one)
                .toList()));
  }
}
