package joiner.finding;

import java.util.List;
import java.util.function.Consumer;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.edit.Edit;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Table;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;

/** Names are no reserved words of an engine. */
final class ReservedWord implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("reserved-word", Severity.ADVICE, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    List<String> engines = reservedBy(table.name());
    if (!engines.isEmpty()) {
      String free = table.name() + "_row";
      Edit rename = ChangeTable.rename(table, free, table.label(), table.noun());
      found.accept(
          FINDING.about(
              table, says(table.name(), engines), WHY, new Remedy("Rename to " + free, rename)));
    }
    for (Field field : table.fields()) {
      fields(table, field, found);
    }
  }

  private static final String WHY =
      "It works only in quotes, in every query anyone will ever write.";

  private static void fields(Table table, Field field, Consumer<Finding> found) {
    List<String> engines = reservedBy(field.name());
    if (!engines.isEmpty()) {
      String free =
          NamingPolicy.free(table.name() + "_" + field.name(), table.fieldsByName().keySet());
      Edit rename = ChangeField.rename(table, field, field.label(), free);
      found.accept(
          FINDING.about(
              table,
              field,
              says(field.name(), engines),
              WHY,
              new Remedy("Rename to " + free, rename)));
    }
  }

  private static List<String> reservedBy(String name) {
    List<Dialect> reserving =
        Dialects.ALL.stream().filter(d -> d.identifiers().isReserved(name)).toList();
    // Some engines reserve so common words, as date and size, that their scripts just quote them.
    boolean nearby = reserving.stream().anyMatch(dialect -> dialect.driver().isEmpty());
    return nearby ? reserving.stream().map(Dialect::engine).toList() : List.of();
  }

  private static String says(String name, List<String> engines) {
    String of = engines.size() == Dialects.ALL.size() ? "every engine" : String.join(", ", engines);
    return "“" + name + "” is a reserved word of " + of + ".";
  }
}
