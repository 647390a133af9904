package joiner.meaning;

import java.util.Map;
import java.util.Optional;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import org.jspecify.annotations.Nullable;

/**
 * A design together with its sample rows: what is open, what an edit changes, what is saved. Only
 * tables of the design have rows, and a table without fields has none. Secrets are never held:
 * whatever rows come with, a field for secrets has no values here.
 *
 * <p>It also knows what the design means. That is worked out when first asked for, and goes along
 * to the drafts made from this one.
 */
public final class Draft {
  private final Design design;
  private final SampleRows rows;
  private final @Nullable Meaning earlier;
  private volatile @Nullable Meaning meaning;

  public Draft(Design design, SampleRows rows) {
    this(design, rows, null);
  }

  private Draft(Design design, SampleRows rows, @Nullable Meaning earlier) {
    this.design = design;
    this.earlier = earlier;
    for (Map.Entry<TableId, Rows> entry : rows.byTable().entrySet()) {
      if (design.find(entry.getKey()).isEmpty()) {
        throw new IllegalArgumentException("there are rows of unknown table " + entry.getKey());
      }
      if (entry.getValue().count() > 0 && design.table(entry.getKey()).fields().isEmpty()) {
        throw new IllegalArgumentException(
            "there are rows of table " + entry.getKey() + ", which has no fields");
      }
    }
    for (Map.Entry<TableId, LinkedRows> entry : rows.linked().entrySet()) {
      Optional<Table> table = design.find(entry.getKey());
      if (table.isEmpty() || !table.get().fieldIds().containsAll(entry.getValue().fields())) {
        throw new IllegalArgumentException(
            "a file has rows of table " + entry.getKey() + " or of fields that are not there");
      }
    }
    this.rows = withoutSecrets(design, rows);
  }

  /** The one gate through which rows come. */
  private static SampleRows withoutSecrets(Design design, SampleRows rows) {
    SampleRows kept = rows;
    for (Table table : design.tables()) {
      for (Field field : table.fields()) {
        if (field.type() instanceof FieldType.Secret && kept.has(table.id(), field.id())) {
          kept = kept.withoutField(table.id(), field.id());
        }
      }
    }
    return kept;
  }

  public Design design() {
    return design;
  }

  public SampleRows rows() {
    return rows;
  }

  /** What the design means. */
  public Meaning meaning() {
    Meaning known = meaning;
    if (known == null) { // Two threads may both begin it; they work out the same.
      known = earlier == null ? Meaning.of(design) : earlier.takenOverBy(design);
      meaning = known;
    }
    return known;
  }

  /** Another design with other rows, of which much may be as here. */
  public Draft with(Design other, SampleRows otherRows) {
    return new Draft(other, otherRows, newestMeaning());
  }

  /** The same rows under another design. */
  public Draft withDesign(Design other) {
    return with(other, rows);
  }

  /** The same design with other rows. */
  public Draft withRows(SampleRows other) {
    return with(design, other);
  }

  /** Never a chain: a draft nobody asked for its meaning hands on the one it was given. */
  private @Nullable Meaning newestMeaning() {
    Meaning known = meaning;
    return known == null ? earlier : known;
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof Draft that && design.equals(that.design) && rows.equals(that.rows);
  }

  @Override
  public int hashCode() {
    return 31 * design.hashCode() + rows.hashCode();
  }

  @Override
  public String toString() {
    return design.toString();
  }
}
