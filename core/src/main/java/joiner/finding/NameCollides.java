package joiner.finding;

import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Stream;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.model.Field;
import joiner.model.Table;
import joiner.naming.IdentifierRules;

/** Names stay different after an engine has shortened or folded them. */
final class NameCollides implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("name-collides", Severity.ERROR, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    Map<String, Table> tables = new HashMap<>();
    for (Table table : design.design().tables()) {
      Table other = tables.putIfAbsent(asStored(table.name()), table);
      if (other != null) {
        found.accept(FINDING.about(table, collision(table.name(), other.name()), WHY));
      }
      fields(table, found);
    }
  }

  private static final String WHY =
      "The second one would be refused, or would silently be taken for the first.";

  private static void fields(Table table, Consumer<Finding> found) {
    Map<String, Field> fields = HashMap.newHashMap(table.fields().size());
    for (Field field : table.fields()) {
      Field other = fields.putIfAbsent(asStored(field.name()), field);
      if (other != null) {
        found.accept(FINDING.about(table, field, collision(field.name(), other.name()), WHY));
      }
    }
  }

  private static String collision(String name, String other) {
    return isCut(name)
        ? name + " and " + other + " become one name when " + shortener(name) + " shortens them."
        : name + " and " + other + " differ only in case, which engines do not tell apart.";
  }

  private static Stream<IdentifierRules> engines() {
    return Dialects.ALL.stream().map(Dialect::identifiers);
  }

  private static boolean isCut(String name) {
    return engines().anyMatch(engine -> engine.isTooLong(name));
  }

  private static String shortener(String name) {
    return engines()
        .filter(engine -> engine.isTooLong(name))
        .map(IdentifierRules::engine)
        .findFirst()
        .orElse("");
  }

  /** The name in lower case, cut as the strictest engine cuts it. */
  private static String asStored(String name) {
    String lower = name.toLowerCase(Locale.ROOT);
    int limit = engines().mapToInt(IdentifierRules::longest).min().orElseThrow();
    if (lower.length() <= limit / 4) {
      return lower; // No UTF-8 character takes more than four bytes.
    }
    byte[] bytes = lower.getBytes(StandardCharsets.UTF_8);
    return bytes.length <= limit ? lower : new String(bytes, 0, limit, StandardCharsets.UTF_8);
  }
}
