package joiner.ddl;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.catalog.SqlType;
import joiner.engine.Dialect;
import joiner.engine.Storage;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.ReadValue;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/**
 * How much room the rows of a table take in a database, as its sample rows let expect.
 *
 * @param row bytes of a row
 * @param indexes bytes a row takes in all indexes and keys together
 */
public record TableSpace(double row, double indexes) {
  /** So many rows tell how long values are. */
  private static final int LOOKED_AT = 500;

  /**
   * What an engine needs for a table; empty where it is not known. Without rows texts are taken to
   * be half as long as they may be.
   */
  public static Optional<TableSpace> of(Draft draft, TableId id, Dialect dialect) {
    Table table = draft.design().table(id);
    return dialect.storage().map(storage -> of(draft.rows().of(id), table, dialect, storage));
  }

  private static TableSpace of(Rows rows, Table table, Dialect dialect, Storage storage) {
    List<Storage.Stored> columns =
        table.fields().stream().map(field -> stored(rows, field, dialect)).toList();
    List<Integer> key = places(table, table.primaryKey());
    var indexes = new ArrayList<List<Integer>>();
    if (!key.isEmpty()) {
      indexes.add(key);
    }
    table.uniqueKeys().forEach(unique -> indexes.add(places(table, unique.fields())));
    table.indexes().forEach(index -> indexes.add(places(table, index.fields())));
    return new TableSpace(
        storage.row(columns, key),
        indexes.stream().mapToDouble(index -> storage.entry(columns, index, key)).sum());
  }

  private static List<Integer> places(Table table, List<FieldId> fields) {
    return fields.stream().map(table.fieldIds()::indexOf).toList();
  }

  private static Storage.Stored stored(Rows rows, Field field, Dialect dialect) {
    SqlType type = dialect.keptAs(SqlType.of(field.type()));
    long bytes = 0;
    int filled = 0;
    int seen = Math.min(rows.count(), LOOKED_AT);
    for (int row = 0; row < seen; row++) {
      Optional<String> cell = rows.cell(row, field.id());
      filled += cell.isPresent() ? 1 : 0;
      bytes += cell.map(text -> bytes(text, field)).orElse(0);
    }
    return new Storage.Stored(
        type,
        seen == 0 ? 1 : (double) filled / seen,
        filled == 0 ? most(field.type()) / 2.0 : (double) bytes / filled);
  }

  private static int bytes(String text, Field field) {
    return field.type() instanceof FieldType.Content
            && ValueReader.read(text, field.type()) instanceof ReadValue.Fits fits
            && fits.value() instanceof Value.Bytes content
        ? content.count()
        : text.getBytes(StandardCharsets.UTF_8).length;
  }

  private static int most(FieldType type) {
    return type instanceof FieldType.Content content
        ? content.mostBytes()
        : type.length().orElse(8);
  }

  /** Bytes of so many rows, with their indexes. */
  public double of(long rows) {
    return rows * (row + indexes);
  }
}
