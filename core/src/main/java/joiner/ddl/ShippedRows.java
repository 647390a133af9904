package joiner.ddl;

import java.util.Collections;
import java.util.List;
import java.util.Optional;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.rows.Rows;

/**
 * The rows of a table as they are put into a database. Joiner holds no secrets; where one is
 * required, a mark stands that is the hash of nothing, so that it opens nothing until the program
 * that keeps the secret sets one.
 */
public final class ShippedRows {
  /** As the locked accounts of an operating system have it. */
  public static final String LOCKED = "!";

  private ShippedRows() {}

  /** The rows of a table of a draft that are held. */
  public static Rows of(Draft draft, Table table) {
    Rows rows = draft.rows().of(table.id());
    for (Field field : table.fields()) {
      if (isLocked(table, field) && rows.count() > 0) {
        rows = rows.withColumn(field.id(), Collections.nCopies(rows.count(), Optional.of(LOCKED)));
      }
    }
    return rows;
  }

  /** The fields that rows come with: an engine, or nobody, works out the others. */
  public static List<Field> fields(Table table) {
    return table.fields().stream().filter(field -> !field.isComputed()).toList();
  }

  /** Whether a mark stands in a field. */
  static boolean isLocked(Table table, Field field) {
    return field.type() instanceof FieldType.Secret && table.isRequired(field.id());
  }
}
