package joiner.finding;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Table;
import joiner.rows.Rows;

/** No numbered copies of one field (first normal form). */
final class RepeatedNumberedFields implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("repeated-numbered-fields", Severity.WARNING, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    Map<String, List<Field>> groups = new LinkedHashMap<>();
    for (Field field : table.fields()) {
      Matcher numbered = NUMBERED.matcher(field.name());
      if (numbered.matches()) {
        groups.computeIfAbsent(numbered.group(1), stem -> new ArrayList<>()).add(field);
      }
    }
    groups.values().stream()
        .filter(group -> group.size() > 1)
        .forEach(group -> report(table, group, found));
  }

  private static final Pattern NUMBERED = Pattern.compile("(.*?[^0-9_])_?[0-9]{1,2}");

  private static void report(Table table, List<Field> group, Consumer<Finding> found) {
    String labels = String.join(", ", group.stream().map(Field::label).toList());
    found.accept(
        FINDING.about(
            table,
            group.getFirst(),
            table.label() + " repeats one thing in numbered fields: " + labels + ".",
            "A list has no fixed number of places: the next one will not fit, and searching means searching every copy. Its rows belong in a table of their own."));
  }
}
