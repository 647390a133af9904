package joiner.edit;

import joiner.meaning.Draft;

/**
 * An edit under another name.
 *
 * @param reachesFar whether it is shown before it is done
 */
public record Named(String name, Edit edit, boolean reachesFar) implements Edit {
  @Override
  public Draft apply(Draft draft) {
    return edit.apply(draft);
  }
}
