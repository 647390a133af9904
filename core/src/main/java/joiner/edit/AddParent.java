package joiner.edit;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import joiner.expression.Checked;
import joiner.expression.Evaluator;
import joiner.expression.Kind;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.rows.ReadValue;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/**
 * Adds a parent that is missing, by the text people will recognise it by, and has a cell refer to
 * it. A key that is a whole number is the next one. Refused where a text alone makes no row.
 *
 * @param rows the child's rows as they are seen
 * @param row place of the child among them, from 0
 */
public record AddParent(RelationshipId over, Rows rows, int row, String text) implements Edit {
  @Override
  public String name() {
    return "add " + text;
  }

  /** Whether a text alone makes a row of the parent. */
  public static boolean isPossible(Draft draft, Relationship r) {
    return r.childFields().size() == 1
        && draft.rows().link(r.parent()).isEmpty()
        && called(draft, r).isPresent();
  }

  /** The text field that says what a row of the parent is called. */
  private static Optional<Field> called(Draft draft, Relationship r) {
    Table parent = draft.design().table(r.parent());
    Field key = parent.field(r.parentFields().getFirst());
    boolean counted = key.type().kind() == Kind.WHOLE;
    List<FieldId> shown =
        draft.meaning().of(parent).rowLabel().orElse(null) instanceof Checked.Sound label
            ? TableMeaning.fieldsOf(label)
            : List.of();
    return shown.stream()
        .map(parent::field)
        .filter(field -> field.type().kind() == Kind.TEXT)
        .filter(field -> counted || field.equals(key))
        .findFirst()
        .or(() -> Optional.of(key).filter(field -> field.type().kind() == Kind.TEXT));
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    Relationship r = design.relationship(over);
    Table parent = design.table(r.parent());
    Field called =
        called(draft, r)
            .orElseThrow(
                () ->
                    new EditRefusedException(
                        "A text alone does not say all that identifies "
                            + parent.noun().indefinite()
                            + "; add the row in its own table."));
    InFile.requireHeld(draft, parent.id());
    Field key = parent.field(r.parentFields().getFirst());
    Rows there = draft.rows().of(parent.id());
    Map<FieldId, String> cells = new HashMap<>();
    cells.put(key.id(), key.type().kind() == Kind.WHOLE ? next(there, key) : text);
    cells.put(called.id(), text);
    String made = cells.getOrDefault(key.id(), text);
    Table child = design.table(r.child());
    Draft with = draft.withRows(draft.rows().with(parent.id(), all -> all.withRow(cells)));
    return ChangeRows.cell(
            child, rows, row, child.field(r.childFields().getFirst()), Optional.of(made))
        .apply(with);
  }

  private static String next(Rows rows, Field key) {
    return String.valueOf(
        IntStream.range(0, rows.count())
                .mapToObj(row -> ValueReader.read(rows.cell(row, key.id()).orElse(""), key.type()))
                .filter(ReadValue.Fits.class::isInstance)
                .map(fits -> ((ReadValue.Fits) fits).value())
                .filter(value -> !(value instanceof Value.Null))
                .mapToLong(value -> Long.parseLong(Evaluator.show(value)))
                .max()
                .orElse(0)
            + 1);
  }
}
