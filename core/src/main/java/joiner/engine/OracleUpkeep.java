package joiner.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.catalog.Trigger;
import joiner.catalog.Trigger.Event;
import joiner.shape.CodedNumber.Part;

/** Oracle's triggers that keep values, from its documentation; numbers it does not give. */
final class OracleUpkeep extends Upkeep {
  OracleUpkeep(Dialect dialect) {
    super(dialect);
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
    String sql =
        "CREATE TRIGGER "
            + name(name)
            + " BEFORE UPDATE ON "
            + name(kept.table())
            + " FOR EACH ROW\nBEGIN\n"
            + lines(lines)
            + "END;";
    return List.of(before(Event.UPDATE, name, kept.table(), sql, Optional.empty()));
  }

  @Override
  public List<Trigger> numbering(String name, Numbered numbered) {
    return List.of();
  }

  @Override
  String padded(String number, int digits) {
    return "LPAD(" + number + ", " + digits + ", '0')";
  }

  @Override
  String today(Part part) {
    throw new IllegalArgumentException("Oracle numbers nothing");
  }

  @Override
  String areFormed(Numbered numbered) {
    throw new IllegalArgumentException("Oracle numbers nothing");
  }

  @Override
  public List<Trigger> copying(String name, String table, List<Copied> copied, List<String> key) {
    var lines = new ArrayList<String>();
    for (Copied one : copied) {
      String column = ":NEW." + name(one.column());
      lines.add("IF " + column + " IS NULL THEN");
      lines.add("  SELECT MAX(made) INTO " + column + " FROM (" + query(one, ":NEW") + ");");
      lines.add("END IF;");
    }
    String sql =
        "CREATE TRIGGER "
            + name(name)
            + " BEFORE INSERT ON "
            + name(table)
            + " FOR EACH ROW\nBEGIN\n"
            + lines(lines)
            + "END;";
    return List.of(before(Event.INSERT, name, table, sql, Optional.empty()));
  }
}
