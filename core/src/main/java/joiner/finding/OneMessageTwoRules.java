package joiner.finding;

import java.util.HashMap;
import java.util.Map;
import java.util.function.Consumer;
import joiner.meaning.TableMeaning;
import joiner.model.Rule;
import joiner.rows.Rows;

/** A person whose row is refused can tell by the message which rule it breaks. */
final class OneMessageTwoRules implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("one-message-two-rules", Severity.ADVICE, Topic.GUARD);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Map<String, Rule> first = new HashMap<>();
    for (Rule rule : meaning.table().rules()) {
      Rule before =
          rule.message().isBlank() ? null : first.putIfAbsent(rule.message().strip(), rule);
      if (before != null) {
        found.accept(
            FINDING.about(
                meaning.table(),
                "The rules "
                    + before.label()
                    + " and "
                    + rule.label()
                    + " of "
                    + meaning.table().label()
                    + " have one message.",
                "Whoever reads it cannot tell which of them a row breaks; say in each what is wrong."));
      }
    }
  }
}
