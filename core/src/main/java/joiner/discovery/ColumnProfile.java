package joiner.discovery;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.naming.NamingPolicy;

/**
 * What the values of one column show.
 *
 * @param header as in the file
 * @param type proposed type
 * @param rows how many cells there are
 * @param blank how many of them are empty
 * @param distinct how many different values there are
 * @param longest code points of the longest value
 * @param numberLike whether values look like numbers but are kept as text for their leading zeros
 */
public record ColumnProfile(
    String header,
    FieldType type,
    int rows,
    int blank,
    int distinct,
    int longest,
    boolean numberLike) {

  /** Looks at all values of a column; linear in them. */
  public static ColumnProfile of(String header, List<Optional<String>> cells) {
    var evidence = new TypeEvidence();
    Set<String> distinct = new HashSet<>();
    int blank = 0;
    for (Optional<String> cell : cells) {
      if (cell.isPresent()) {
        evidence.see(cell.get());
        distinct.add(cell.get());
      } else {
        blank++;
      }
    }
    return new ColumnProfile(
        header,
        evidence.type(),
        cells.size(),
        blank,
        distinct.size(),
        evidence.longest(),
        evidence.numberLike());
  }

  /** Whether every row has a value. */
  public boolean complete() {
    return rows > 0 && blank == 0;
  }

  /** Whether no value occurs twice. */
  public boolean unique() {
    return complete() && distinct == rows;
  }

  /** The field this column proposes, under a name that is not taken. */
  public Field field(Set<String> taken) {
    String label = header.isBlank() ? "Field" : header.strip();
    String name = NamingPolicy.free(NamingPolicy.nameFor(label), taken);
    return Field.of(name, label, type).withRequired(complete());
  }
}
