package joiner.finding;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Predicate;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Table;
import joiner.naming.IdentifierRules;
import joiner.rows.Rows;

/** Every engine keeps a name as it is: it is short enough and has no characters an engine lacks. */
final class NameNotKept implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("name-not-kept", Severity.WARNING, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    says(table.name(), says -> found.accept(FINDING.about(table, says, WHY)));
    for (Field field : table.fields()) {
      says(field.name(), says -> found.accept(FINDING.about(table, field, says, WHY)));
    }
  }

  private static final String WHY =
      "The same script, query or program then works on one engine and not on another.";

  private static void says(String name, Consumer<String> found) {
    String cutting = engines(rules -> rules.cuts() && rules.isTooLong(name));
    String refusing = engines(rules -> !rules.cuts() && rules.isTooLong(name));
    String lacking = engines(rules -> rules.hasStrangeCharacters(name));
    int bytes = name.getBytes(StandardCharsets.UTF_8).length;
    if (!cutting.isEmpty()) {
      found.accept(cutting + " cuts the name " + name + " of " + bytes + " bytes off.");
    }
    if (!refusing.isEmpty()) {
      found.accept("The name " + name + " is too long for " + refusing + ".");
    }
    if (!lacking.isEmpty()) {
      found.accept(lacking + " takes no name with a character as in " + name + ".");
    }
  }

  private static String engines(Predicate<IdentifierRules> which) {
    List<String> engines =
        Dialects.ALL.stream()
            .map(Dialect::identifiers)
            .filter(which)
            .map(IdentifierRules::engine)
            .toList();
    return String.join(", ", engines);
  }
}
