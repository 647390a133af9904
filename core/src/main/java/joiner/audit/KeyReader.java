package joiner.audit;

import java.util.List;
import java.util.Optional;
import joiner.expression.Value;

/**
 * The key of a row in some fields: a number where all who compare such keys have them as numbers,
 * bytes otherwise.
 */
final class KeyReader {
  private final List<TypedCells> cells;
  private final KeyForm bytes;
  private final Optional<LongForm> form;
  private final TypedCells first;
  private boolean isNumber;
  private long number;

  /**
   * Reads keys.
   *
   * @param form of the numbers, where keys of one field are compared as such
   */
  KeyReader(List<TypedCells> cells, Optional<LongForm> form) {
    this.cells = List.copyOf(cells);
    this.first = cells.getFirst();
    this.bytes = new KeyForm(cells);
    this.form = form;
  }

  /** Reads the key of a row; false where a part of it is NULL. */
  boolean read(int row) {
    isNumber = form.isPresent() && first.state(row) == TypedCells.PLAIN;
    if (isNumber) {
      number = first.number(row);
      return true;
    }
    return bytes.read(row);
  }

  boolean isNumber() {
    return isNumber;
  }

  long number() {
    return number;
  }

  /** The key as bytes, whatever it is read as. */
  KeyForm asBytes() {
    if (isNumber) {
      bytes.set(form.orElseThrow(), number);
    }
    return bytes;
  }

  /** The values of a row. */
  List<Value> values(int row) {
    return cells.stream().map(field -> field.value(row)).toList();
  }
}
