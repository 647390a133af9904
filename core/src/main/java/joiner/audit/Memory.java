package joiner.audit;

/** How much memory the keys of one audit may take together; what goes beyond goes to files. */
final class Memory {
  private final long most;
  private long taken;

  Memory(long most) {
    this.most = most;
  }

  /** Takes so many bytes more, if there is room for them. */
  boolean take(long bytes) {
    if (taken + bytes > most) {
      return false;
    }
    taken += bytes;
    return true;
  }

  void giveBack(long bytes) {
    taken -= bytes;
  }
}
