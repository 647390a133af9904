package joiner.ddl;

import java.util.List;
import java.util.Optional;
import joiner.expression.SqlText;
import joiner.expression.Width;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.naming.Engines;
import joiner.naming.IdentifierRules;

/**
 * SQLite. It keeps no types by itself, so each column gets a condition that does. Dates are ISO
 * texts, moments with a zone are kept in UTC.
 */
final class SqliteDialect extends Dialect {
  private final SqlText text = new SqliteText(this::name);

  @Override
  public String id() {
    return "sqlite";
  }

  @Override
  public IdentifierRules identifiers() {
    return Engines.SQLITE;
  }

  @Override
  SqlText text() {
    return text;
  }

  @Override
  String type(FieldType type) {
    return switch (type) {
      case FieldType.Sized t -> "varchar(" + t.maxLength() + ")";
      case FieldType.Choice t -> "varchar(" + t.longest() + ")";
      case FieldType.LongText t -> "text";
      case FieldType.Kept t -> "text";
      case FieldType.WholeNumber t -> IsoDialect.whole(t.width());
      case FieldType.Counter t -> "integer";
      case FieldType.Decimal t -> "numeric(" + t.precision() + ", " + t.scale() + ")";
      case FieldType.Money t -> "numeric(" + t.precision() + ", " + t.scale() + ")";
      case FieldType.AnyNumber t -> "numeric";
      case FieldType.TrueFalse t -> "boolean";
      case FieldType.Date t -> "date_text";
      case FieldType.Time t -> "time_text";
      case FieldType.DateTime t -> t.zoned() ? "utc_timestamp_text" : "timestamp_text";
      case FieldType.Uuid t -> "uuid_text";
    };
  }

  @Override
  boolean refersAhead() {
    return true;
  }

  @Override
  List<String> opening() {
    return List.of("PRAGMA foreign_keys = ON", "BEGIN", "PRAGMA defer_foreign_keys = ON");
  }

  @Override
  List<String> closing() {
    return List.of("COMMIT");
  }

  @Override
  Optional<String> counter(Table table, Field field, FieldType.Counter type) {
    return table.primaryKey().equals(List.of(field.id()))
        ? Optional.of("integer PRIMARY KEY AUTOINCREMENT")
        : Optional.empty();
  }

  @Override
  boolean countsAsKey() {
    return true;
  }

  @Override
  int decimalsOfSeconds(FieldType type) {
    return 0;
  }

  @Override
  Optional<String> restart(String table, String column, long next) {
    return Optional.empty();
  }

  @Override
  Optional<String> typeCheck(String column, FieldType type) {
    String c = name(column);
    return switch (type) {
      case FieldType.Sized t -> Optional.of("length(" + c + ") <= " + t.maxLength());
      case FieldType.Choice t -> Optional.empty();
      case FieldType.LongText t -> Optional.empty();
      case FieldType.Kept t -> Optional.empty();
      case FieldType.WholeNumber t -> Optional.of(whole(c, t.width()));
      case FieldType.Counter t -> Optional.empty();
      case FieldType.Decimal t -> Optional.of(decimal(c, t.precision(), t.scale()));
      case FieldType.Money t -> Optional.of(decimal(c, t.precision(), t.scale()));
      case FieldType.AnyNumber t -> Optional.of("typeof(" + c + ") IN ('integer', 'real', 'null')");
      case FieldType.TrueFalse t -> Optional.of(c + " IN (0, 1)");
      case FieldType.Date t -> Optional.of("date(" + c + ") IS " + c);
      case FieldType.Time t ->
          Optional.of("strftime('%H:%M:%S', " + c + ") IS substr(" + c + ", 1, 8)");
      case FieldType.DateTime t ->
          Optional.of("strftime('%Y-%m-%d %H:%M:%S', " + c + ") IS substr(" + c + ", 1, 19)");
      case FieldType.Uuid t -> Optional.of("length(" + c + ") = 36");
    };
  }

  private static String whole(String column, Width width) {
    String whole = "typeof(" + column + ") IN ('integer', 'null')";
    return width == Width.BITS_64
        ? whole
        : whole + " AND " + column + " BETWEEN " + width.min() + " AND " + width.max();
  }

  private static String decimal(String column, int precision, int scale) {
    return "typeof("
        + column
        + ") IN ('integer', 'real', 'null') AND abs("
        + column
        + ") < 1e"
        + (precision - scale)
        + " AND round("
        + column
        + ", "
        + scale
        + ") = "
        + column;
  }

  @Override
  String matches(String column, String pattern) {
    throw new InexpressibleException("SQLite has no regular expressions");
  }

  @Override
  Optional<String> tableComment(String table, String comment) {
    return Optional.empty();
  }

  @Override
  Optional<String> columnComment(String table, String column, String comment) {
    return Optional.empty();
  }

  @Override
  String defaultClause(String expression, boolean literal) {
    return literal ? " DEFAULT " + expression : " DEFAULT (" + expression + ")";
  }

  @Override
  Optional<String> typeLoss(FieldType type) {
    boolean exact = type instanceof FieldType.Decimal || type instanceof FieldType.Money;
    return exact
        ? Optional.of(
            "SQLite keeps decimals as floating-point numbers: 15 digits are exact, sums may be off in the last one.")
        : Optional.empty();
  }
}
