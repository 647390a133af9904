package joiner.discovery;

import java.util.List;
import java.util.SequencedMap;
import java.util.Set;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.naming.NamingPolicy;
import joiner.rows.EncodedColumn;
import joiner.rows.ValueForm;

/**
 * What the values of one column show.
 *
 * @param header as in the source
 * @param type proposed type, with what was seen and some head-room as its size
 * @param form how most values are written
 * @param rows how many cells there are
 * @param blank how many of them are empty
 * @param agreeing how many have that form
 * @param disagreeing the first values that do not, with their rows
 * @param distinct how many different values there are
 * @param exact whether {@code distinct} was counted; otherwise it is estimated
 * @param shortest code points of the shortest value
 * @param longest code points of the longest value
 * @param min least value, as numbers and dates are ordered, or by code points; empty if there is
 *     none
 * @param max greatest value
 * @param notes what else the values show, as {@link Note}s
 * @param frequent values with their counts, most frequent first, where there are few different ones
 */
public record ColumnProfile(
    String header,
    FieldType type,
    ValueForm form,
    long rows,
    long blank,
    long agreeing,
    List<Disagreeing> disagreeing,
    long distinct,
    boolean exact,
    int shortest,
    int longest,
    String min,
    String max,
    Set<Note> notes,
    SequencedMap<String, Long> frequent) {
  /** Different values of a column that still looks like a list of choices. */
  private static final int CHOICES = 12;

  private static final int LOOKUP = 200;

  public ColumnProfile {
    disagreeing = List.copyOf(disagreeing);
    notes = Set.copyOf(notes);
  }

  /**
   * A value that has not the form of the others.
   *
   * @param row from 1
   */
  public record Disagreeing(String text, long row) {}

  /** Something the values show beside their form. */
  public enum Note {
    /** They look like numbers, but zeros in front keep them text. */
    LEADING_ZEROS,
    /** Thousands are grouped. */
    GROUPED,
    /** Day or month first: no value decides, day first was taken. */
    DAY_FIRST_UNDECIDED,
    /** Day or month first: values decide. */
    DAY_ORDER_PROVED,
    /** Decimal or grouping: no value decides. */
    DECIMAL_UNDECIDED,
    /** Years have two digits. */
    SHORT_YEARS,
    /** Values begin or end with blanks. */
    OUTER_BLANKS,
    /** Values hold a formula as text. */
    FORMULAS
  }

  /** The profile of a column that is in memory; linear in its rows. */
  public static ColumnProfile of(EncodedColumn column) {
    var profiler = new ColumnProfiler(column.header());
    for (int row = 0; row < column.rows(); row++) {
      profiler.see(column.text(row), row);
    }
    return profiler.profile(column.rows());
  }

  /** Whether every row has a value. */
  public boolean complete() {
    return rows > 0 && blank == 0;
  }

  /** Whether every row has a value and none occurs twice. */
  public boolean unique() {
    return complete() && exact && distinct == rows;
  }

  /** Whether a short fixed list may stand behind it. */
  public boolean choices() {
    return isText() && distinct >= 2 && distinct <= CHOICES && rows - blank >= 4 * distinct;
  }

  /** Whether its values may be rows of a table of their own. */
  public boolean lookup() {
    return isText() && distinct >= 2 && distinct <= LOOKUP && rows - blank >= 3 * distinct;
  }

  private boolean isText() {
    return type instanceof FieldType.Text;
  }

  /** A text of the column as Joiner writes values of its type. */
  public String canonical(String text) {
    return canonical(text, form);
  }

  /** A text of a column whose values have a form as Joiner writes them; another stays as it is. */
  public static String canonical(String text, ValueForm form) {
    return (FormReader.forms(text) & form.bit()) != 0 ? FormReader.canonical(text, form) : text;
  }

  /** The header as a label; a path into nested records is read out. */
  private String label() {
    if (header.isBlank()) {
      return "Field";
    }
    String stripped = header.strip().replaceAll("\\s+", " ");
    return stripped.matches("[\\p{L}_][\\p{L}\\d_-]*(\\.[\\p{L}_][\\p{L}\\d_-]*)+")
        ? NamingPolicy.labelFor(stripped.replace('.', ' '))
        : stripped;
  }

  /** The field this column proposes, under a name that is not taken. */
  public Field field(Set<String> taken) {
    String label = label();
    String name = NamingPolicy.free(NamingPolicy.nameFor(label), taken);
    return Field.of(name, label, type).withRequired(complete());
  }
}
