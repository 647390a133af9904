package joiner.ddl;

import joiner.model.Table;
import joiner.model.TableKind;

/** Which sample rows go into a script. */
public enum RowsChoice {
  NONE,
  LOOKUPS,
  ALL;

  /** Whether the rows of that table go. */
  public boolean includes(Table table) {
    return switch (this) {
      case NONE -> false;
      case LOOKUPS -> table.kind() instanceof TableKind.Lookup;
      case ALL -> true;
    };
  }
}
