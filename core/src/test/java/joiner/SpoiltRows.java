package joiner;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.Predicate;
import joiner.audit.AuditReport;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.rows.ReadValue;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import joiner.rows.ValueReader;

/** Rows that break their design in many places, and a design that keeps none of them out. */
public final class SpoiltRows {
  private SpoiltRows() {}

  /** The design with nothing that would keep bad rows out. */
  public static Design open(Design design) {
    List<Table> tables =
        design.tables().stream()
            .map(
                t ->
                    t.withFields(t.fields().stream().map(SpoiltRows::open).toList())
                        .withPrimaryKey(List.of())
                        .withUniqueKeys(List.of())
                        .withIndexes(List.of())
                        .withRules(List.of())
                        .withRowLabel(Optional.empty())
                        .withKind(new TableKind.Plain()))
            .toList();
    return Design.of(
        design.name(), design.title(), "", List.of(), tables, List.of(), design.extras());
  }

  private static Field open(Field field) {
    FieldType type =
        switch (field.type()) {
          case FieldType.Counter t -> new FieldType.WholeNumber(t.width());
          case FieldType.Sized t -> new FieldType.Text(200);
          case FieldType.Choice t -> new FieldType.Text(200);
          default -> field.type();
        };
    return Field.of(field.name(), field.label(), type).withId(field.id());
  }

  /** The rows without what no column of their types can hold, some of them spoilt. */
  public static Draft in(Draft draft, Random random) {
    Map<TableId, Rows> rows = new HashMap<>();
    for (Table table : draft.design().tables()) {
      var all = new ArrayList<List<Optional<String>>>();
      Rows given = draft.rows().of(table.id());
      Optional<Predicate<Integer>> ofOne = ofOne(draft, table, random);
      for (int row = 0; row < given.count(); row++) {
        if (ofOne.isPresent() && ofOne.get().test(row)) {
          continue;
        }
        var cells = new ArrayList<Optional<String>>();
        for (Field field : table.fields()) {
          int from = random.nextInt(12) == 0 ? random.nextInt(given.count()) : row;
          Optional<String> cell = given.cell(from, field.id());
          boolean gone = random.nextInt(60) == 0;
          cells.add(cell.filter(text -> !gone && fits(text, field)));
        }
        all.add(cells);
      }
      rows.put(table.id(), Rows.of(table.fieldIds(), all));
    }
    return draft.withRows(new SampleRows(rows));
  }

  /** All children of one parent, where each must have one. */
  private static Optional<Predicate<Integer>> ofOne(Draft draft, Table child, Random random) {
    return draft.design().parentsOf(child.id()).stream()
        .filter(r -> r.parentNeedsChild() && draft.rows().of(r.parent()).count() > 0)
        .findFirst()
        .map(
            r -> {
              Rows parents = draft.rows().of(r.parent());
              var key = parents.cell(random.nextInt(parents.count()), r.parentFields().getFirst());
              Rows rows = draft.rows().of(child.id());
              return row -> rows.cell(row, r.childFields().getFirst()).equals(key);
            });
  }

  private static boolean fits(String text, Field field) {
    return ValueReader.read(text, field.type()) instanceof ReadValue.Fits;
  }

  /** What was found, without the words and rows that a database does not give. */
  public static List<String> counts(AuditReport report) {
    return report
        .violations()
        .map(v -> v.kind() + " " + v.table() + " " + v.constraint() + " " + v.count())
        .sorted()
        .toList();
  }
}
