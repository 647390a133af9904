package joiner.edit;

import java.util.List;
import joiner.meaning.Draft;

/**
 * A change of a design and its rows, as data: two that do the same are equal. What it did is found
 * by comparing ({@link joiner.change.Changes}).
 */
public interface Edit {

  /** What it does, as "make Email unique"; shown after "Undo:". */
  String name();

  /**
   * The design and rows after the change.
   *
   * @throws EditRefusedException if the change would lose something or makes no sense here
   */
  Draft apply(Draft draft);

  /**
   * Whether it changes tables that nobody has in sight, so that people are told what it does before
   * it is done.
   */
  default boolean reachesFar() {
    return false;
  }

  /** Several changes as one. */
  static Edit all(String name, List<Edit> edits) {
    return new Several(name, edits);
  }
}
