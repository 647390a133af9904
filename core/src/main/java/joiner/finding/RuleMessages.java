package joiner.finding;

import java.util.function.Consumer;
import joiner.meaning.Messages;
import joiner.meaning.TableMeaning;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.naming.WordList;
import joiner.rows.Rows;

/** Whoever is refused by a rule reads why, and what the message names is there. */
final class RuleMessages implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("rule-message", Severity.ADVICE, Topic.GUARD);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    for (Rule rule : table.rules()) {
      String named = "The rule " + rule.label() + " of " + table.label();
      if (rule.message().isBlank()) {
        found.accept(
            FINDING.about(
                table,
                named + " has no message.",
                "Who is refused does not read why; say what is wrong and what to do."));
      } else if (!Messages.unknown(rule.message(), table).isEmpty()) {
        found.accept(
            FINDING.about(
                table,
                named
                    + " names "
                    + WordList.and(Messages.unknown(rule.message(), table))
                    + " in its message, which is no field.",
                "In braces stand names of fields; people would read the braces."));
      }
    }
  }
}
