package joiner.edit;

import java.util.List;
import joiner.meaning.Draft;

/** Changes made one after the other and undone together. */
public record Several(String name, List<Edit> edits) implements Edit {
  public Several {
    edits = List.copyOf(edits);
  }

  @Override
  public boolean reachesFar() {
    return edits.stream().anyMatch(Edit::reachesFar);
  }

  @Override
  public Draft apply(Draft draft) {
    Draft changed = draft;
    for (Edit edit : edits) {
      changed = edit.apply(changed);
    }
    return changed;
  }
}
