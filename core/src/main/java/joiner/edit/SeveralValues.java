package joiner.edit;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;

/**
 * Lets each row have several values of a field: they become rows of a table of their own, a row and
 * a value each once. A cell that lists several choices becomes as many rows. Refused where {@link
 * ToOwnTable} is.
 *
 * @param label of the new table
 */
public record SeveralValues(TableId table, FieldId field, String label) implements Edit {
  private static final Pattern BETWEEN = Pattern.compile("[,;/|]");

  @Override
  public String name() {
    return "let rows have several values: " + label;
  }

  @Override
  public Draft apply(Draft draft) {
    Draft apart = new ToOwnTable(table, List.of(field), label).apply(draft);
    Table own =
        apart.design().tables().stream()
            .filter(t -> draft.design().find(t.id()).isEmpty())
            .findFirst()
            .orElseThrow();
    List<FieldId> key = Stream.concat(own.primaryKey().stream(), Stream.of(field)).toList();
    return apart.with(
        apart
            .design()
            .withTable(
                own.id(), t -> t.withField(field, f -> f.withRequired(true)).withPrimaryKey(key)),
        apart.rows().with(own.id(), rows -> each(own, rows)));
  }

  private Rows each(Table own, Rows rows) {
    Field of = own.field(field);
    int at = own.fieldIds().indexOf(field);
    List<List<Optional<String>>> each =
        IntStream.range(0, rows.count())
            .mapToObj(row -> rows.row(row, own.fieldIds()))
            .flatMap(
                row ->
                    values(of, row.get(at).orElse(""))
                        .map(
                            value ->
                                IntStream.range(0, row.size())
                                    .mapToObj(i -> i == at ? Optional.of(value) : row.get(i))
                                    .toList()))
            .toList();
    return Rows.of(own.fieldIds(), each);
  }

  /** The choices that a cell lists; the cell as it is where it lists none, or anything else. */
  private static Stream<String> values(Field of, String cell) {
    if (!(of.type() instanceof FieldType.Choice choice) || choice.find(cell).isPresent()) {
      return Stream.of(cell);
    }
    List<String> parts = Arrays.stream(BETWEEN.split(cell)).map(String::strip).distinct().toList();
    boolean listed = parts.stream().allMatch(part -> choice.find(part).isPresent());
    return listed ? parts.stream() : Stream.of(cell);
  }
}
