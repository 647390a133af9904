package joiner.ddl;

import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.Locale;
import java.util.Set;
import joiner.naming.IdentifierRules;

/** Gives constraints and indexes names that are short enough and different in one schema. */
final class ConstraintNames {
  private final IdentifierRules rules;
  private final Set<String> taken = new HashSet<>();

  ConstraintNames(IdentifierRules rules) {
    this.rules = rules;
  }

  /** Keeps the name of a table free: in some engines indexes and tables share their names. */
  void reserve(String table) {
    taken.add(table.toLowerCase(Locale.ROOT));
  }

  /** The name itself where it can be, otherwise a shorter or numbered one; deterministic. */
  String take(String wanted) {
    String base = rules.isTooLong(wanted) ? shortened(wanted) : wanted;
    String name = base;
    for (int number = 2; !taken.add(name.toLowerCase(Locale.ROOT)); number++) {
      name = base + "_" + number;
    }
    return name;
  }

  private String shortened(String name) {
    String mark = "_" + Integer.toHexString(name.hashCode());
    int room = rules.longest() - mark.length() - 3;
    var kept = new StringBuilder();
    int bytes = 0;
    for (int point : name.codePoints().toArray()) {
      bytes += Character.toString(point).getBytes(StandardCharsets.UTF_8).length;
      if (bytes > room) {
        break;
      }
      kept.appendCodePoint(point);
    }
    return kept + mark;
  }
}
