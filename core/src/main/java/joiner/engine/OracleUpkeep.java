package joiner.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.catalog.Trigger;
import joiner.catalog.Trigger.Event;

/** Oracle's triggers that keep values, from its documentation; numbers it does not give. */
final class OracleUpkeep extends Upkeep {
  OracleUpkeep(Dialect dialect) {
    super(dialect);
  }

  private Trigger trigger(Event event, String name, String table, List<String> lines) {
    String sql =
        "CREATE TRIGGER "
            + name(name)
            + " BEFORE "
            + event
            + " ON "
            + name(table)
            + " FOR EACH ROW\nBEGIN\n"
            + lines(lines)
            + "END;";
    return before(event, name, table, sql, Optional.empty());
  }

  @Override
  public List<Trigger> keeping(String name, Kept kept) {
    var lines = new ArrayList<String>();
    for (String column : kept.stays()) {
      String is = ":NEW." + name(column);
      String was = ":OLD." + name(column);
      lines.add(
          "IF " + was + " IS NOT NULL AND (" + is + " IS NULL OR " + is + " <> " + was + ") THEN");
      lines.add("  RAISE_APPLICATION_ERROR(-20000, " + stayed(kept, column) + ");");
      lines.add("END IF;");
    }
    kept.followed().forEach(f -> lines.add(":NEW." + name(f.column()) + " := " + f.value() + ";"));
    return List.of(trigger(Event.UPDATE, name, kept.table(), lines));
  }

  @Override
  public List<Trigger> copying(String name, String table, List<Copied> copied, List<String> key) {
    List<String> lines =
        filling(
            copied,
            ":NEW",
            (column, query) -> "SELECT MAX(made) INTO " + column + " FROM (" + query + ")");
    return List.of(trigger(Event.INSERT, name, table, lines));
  }
}
