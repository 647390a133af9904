package joiner.rows;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.model.FieldId;

/**
 * Rows of a table that stay in a file of delimited text because they are many. The file is read
 * whenever its rows are wanted and never written. In a field that no column fills every row is
 * NULL.
 *
 * @param file its absolute path
 * @param separator between cells, one character
 * @param charset name of its encoding
 * @param headerLine the line of the column names, from 1; 0: there are none
 * @param columns the columns that fill fields
 * @param numbered the field that numbers the rows, if one does
 * @param count how many rows there were when the file was linked
 */
public record LinkedRows(
    String file,
    String separator,
    String charset,
    int headerLine,
    List<Column> columns,
    Optional<Numbered> numbered,
    int count) {

  public LinkedRows {
    columns = List.copyOf(columns);
  }

  /**
   * A column of the file.
   *
   * @param field the field it fills
   * @param place where it stands among the columns of the file, from 0
   * @param header its name in the file
   * @param form how its values are written there; others are taken as they are
   * @param replaced texts that stand for others than themselves, as choices that are called
   *     otherwise now
   */
  public record Column(
      FieldId field, int place, String header, ValueForm form, Map<String, String> replaced) {
    public Column {
      replaced = Map.copyOf(replaced);
    }

    /** A column whose texts stand for themselves. */
    public static Column of(FieldId field, int place, String header, ValueForm form) {
      return new Column(field, place, header, form, Map.of());
    }

    private Column replacing(String before, String after) {
      Map<String, String> all = new LinkedHashMap<>(replaced);
      all.replaceAll((text, now) -> now.equals(before) ? after : now);
      all.putIfAbsent(before, after);
      all.entrySet().removeIf(entry -> entry.getKey().equals(entry.getValue()));
      return new Column(field, place, header, form, all);
    }

    private Column under(UnaryOperator<FieldId> other) {
      return new Column(other.apply(field), place, header, form, replaced);
    }
  }

  /** The rows are numbered in that field, the first by that number. */
  public record Numbered(FieldId field, long first) {}

  /** The fields that have values. */
  public Set<FieldId> fields() {
    return Stream.concat(
            columns.stream().map(Column::field), numbered.stream().map(Numbered::field))
        .collect(Collectors.toUnmodifiableSet());
  }

  /** The column that fills a field. */
  public Optional<Column> column(FieldId field) {
    return columns.stream().filter(column -> column.field().equals(field)).findFirst();
  }

  /** The file's name without its folder. */
  public String fileName() {
    return file.substring(Math.max(file.lastIndexOf('/'), file.lastIndexOf('\\')) + 1);
  }

  /** The same rows, which stand in another file or are so many now. */
  public LinkedRows in(String otherFile, int otherCount) {
    return new LinkedRows(otherFile, separator, charset, headerLine, columns, numbered, otherCount);
  }

  /** The same rows without values in a field. */
  public LinkedRows without(FieldId field) {
    return with(
        columns.stream().filter(column -> !column.field().equals(field)).toList(),
        numbered.filter(counter -> !counter.field().equals(field)));
  }

  /** The same rows, numbered from 1 in a field. */
  public LinkedRows numberedIn(FieldId field) {
    return with(without(field).columns, Optional.of(new Numbered(field, 1)));
  }

  /** The same rows where a field holds another text instead of one. */
  public LinkedRows replaced(FieldId field, String before, String after) {
    var changed = new ArrayList<>(columns);
    changed.replaceAll(
        column -> column.field().equals(field) ? column.replacing(before, after) : column);
    return with(changed, numbered);
  }

  /** The same rows with other ids for their fields. */
  public LinkedRows under(UnaryOperator<FieldId> other) {
    return with(
        columns.stream().map(column -> column.under(other)).toList(),
        numbered.map(counter -> new Numbered(other.apply(counter.field()), counter.first())));
  }

  private LinkedRows with(List<Column> otherColumns, Optional<Numbered> otherNumbered) {
    return new LinkedRows(file, separator, charset, headerLine, otherColumns, otherNumbered, count);
  }
}
