package joiner.finding;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import joiner.edit.ChoicesToLookup;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;

/**
 * One list that several fields choose from stands in one place (common practice, no source). Yes
 * and no, and others of two words, are too short to be one list by more than chance.
 */
final class ChoicesTwice implements WholeCheck {
  private static final int LEAST = 3;

  private static final TableFinding FINDING =
      new TableFinding("choices-twice", Severity.ADVICE, Topic.GUARD);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    Map<Set<String>, String> seen = new HashMap<>();
    for (Table table : design.design().tables()) {
      for (Field field : table.fields()) {
        if (field.type() instanceof FieldType.Choice choice && choice.entries().size() >= LEAST) {
          String here = FieldCheck.named(table, field);
          String before = seen.putIfAbsent(new HashSet<>(choice.values()), here);
          if (before != null) {
            found.accept(finding(table, field, before));
          }
        }
      }
    }
  }

  private static Finding finding(Table table, Field field, String before) {
    return FINDING.about(
        table,
        field,
        FieldCheck.named(table, field) + " has the very choices of " + before + ".",
        "A list kept twice is changed once; as a lookup table both pick from one.",
        new Remedy(
            "Turn it into a lookup table",
            new ChoicesToLookup(table.id(), field.id(), field.label())));
  }
}
