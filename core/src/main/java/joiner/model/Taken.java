package joiner.model;

import java.util.Collection;

/** Ids that are taken already. */
final class Taken {
  private Taken() {}

  /** The id itself, or with the first free number behind it if it is taken. */
  static String free(String id, Collection<String> taken) {
    String candidate = id;
    for (int number = 2; taken.contains(candidate); number++) {
      candidate = id + "_" + number;
    }
    return candidate;
  }
}
