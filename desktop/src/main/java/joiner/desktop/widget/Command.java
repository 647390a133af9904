package joiner.desktop.widget;

/**
 * Something a user can do, as the finder lists it.
 *
 * @param name as people read it
 * @param shortcut its keys; may be empty
 * @param sort what it does to the design
 */
public record Command(String name, String shortcut, Sort sort, Runnable run) {
  /** What a command does; nearer kinds are offered first. */
  public enum Sort {
    /** Goes to a table. */
    TABLE,
    /** Goes to a field. */
    FIELD,
    /** Does something else. */
    DEED,
    /** Takes something away; it asks first. */
    REMOVAL
  }

  /** A deed without keys of its own. */
  public static Command of(String name, Runnable run) {
    return new Command(name, "", Sort.DEED, run);
  }
}
