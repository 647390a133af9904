package joiner.model;

import joiner.shape.CodedNumber;
import joiner.shape.RandomCode;

/** What makes a value for a new row that no other row has. A closed set; counters are a type. */
public sealed interface Generator {
  /**
   * A UUID, as RFC 9562 has it.
   *
   * @param timed of version 7, which begins with the moment, so that later ones sort behind earlier
   *     ones; if not, of version 4, drawn by chance
   */
  record Uuid(boolean timed) implements Generator {}

  /** A coded number. */
  record Coded(CodedNumber number) implements Generator {}

  /** A code drawn by chance. */
  record Drawn(RandomCode code) implements Generator {}
}
