package joiner.edit;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import joiner.expression.Width;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableKind;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;

/** Counters that identify rows. */
public final class Counters {
  private Counters() {}

  /**
   * The change that gives a table a counter as its primary key; its rows are numbered from 1. What
   * referred to the key before refers to the counter, and that key stays unique.
   */
  public static Edit identify(Table table) {
    Field counter = table.unused(fieldFor(table));
    Table grown = table.withFieldAdded(counter);
    return new Several(
        "identify " + table.label() + " by a counter",
        List.of(
            new AddField(table.id(), counter),
            ChangeTable.move(grown, counter, 0),
            ChangeRows.numbered(table, counter.id()),
            ChangeKey.of(grown, List.of(counter.id()))));
  }

  /**
   * The change that makes a table for itself of a join table: a counter identifies its rows, and
   * the pair stays unique.
   */
  public static Edit identifyPairs(Table join) {
    return new Several(
        "give " + join.label() + " a key of its own",
        List.of(ChangeTable.kind(join, new TableKind.Plain()), identify(join)));
  }

  static Field fieldFor(Table table) {
    Field counter = field(table.name(), table.label(), table.fieldsByName().keySet());
    boolean labelTaken =
        table.fields().stream().anyMatch(f -> f.label().equalsIgnoreCase(counter.label()));
    return labelTaken ? counter.withLabel(table.label() + " key") : counter;
  }

  /** A counter for a table of that name and label, under a name that is not taken. */
  public static Field field(String table, String label, Collection<String> takenNames) {
    String name = NamingPolicy.free(table + "_id", takenNames);
    return Field.of(name, label + " number", new FieldType.Counter(Width.BITS_32))
        .withRequired(true);
  }

  static Rows number(Rows rows, FieldId counter) {
    return rows.withColumn(
        counter,
        IntStream.rangeClosed(1, rows.count())
            .mapToObj(n -> Optional.of(String.valueOf(n)))
            .toList());
  }
}
