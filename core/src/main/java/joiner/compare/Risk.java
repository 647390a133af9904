package joiner.compare;

import java.util.Locale;

/** What a change may do to data that a database holds already; the worse, the later. */
public enum Risk {
  /** Nothing: words, order, or less demanded than before. */
  NONE,
  /** Something comes and all that is there stays as it is. */
  ADDS,
  /** What is there stays and is written anew, or under another name. */
  REWRITES,
  /** More is demanded: what is there may be refused. */
  REFUSES,
  /** What is there goes. */
  LOSES;

  /** As the command line spells it. */
  public String id() {
    return name().toLowerCase(Locale.ROOT);
  }
}
