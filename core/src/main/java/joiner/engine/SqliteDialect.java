package joiner.engine;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.catalog.SqlType;
import joiner.expression.Kind;
import joiner.expression.SqlText;
import joiner.expression.Value;
import joiner.expression.ValueType;
import joiner.expression.Width;
import joiner.naming.IdentifierRules;
import joiner.shape.TextPattern;

/**
 * SQLite. It keeps no types by itself, so each column gets a condition that does. Dates are ISO
 * texts, moments with a zone are kept in UTC.
 */
final class SqliteDialect extends Dialect {
  private static final IdentifierRules NAMES =
      new IdentifierRules(
          "SQLite",
          Integer.MAX_VALUE,
          IdentifierRules.Measure.BYTES,
          false,
          IdentifierRules.NONE,
          IdentifierRules.Folding.KEPT,
          ReservedWords.of("sqlite"));

  private final SqlText text = new SqliteText(this::name);

  SqliteDialect() {
    super(Profile.inFiles("sqlite", NAMES, ".sqlite").undoingDefinitions());
  }

  @Override
  public String first(int rows) {
    return "LIMIT " + rows;
  }

  @Override
  public Optional<Storage> storage() {
    return Optional.of(new SqliteStorage());
  }

  @Override
  public boolean isFileOf(String head) {
    return head.startsWith("SQLite format 3");
  }

  @Override
  public Map<String, String> connectionProperties() {
    return Map.of("foreign_keys", "true");
  }

  /** Mode 1 is reading only (SQLITE_OPEN_READONLY). */
  @Override
  public Map<String, String> readingProperties() {
    return Map.of("open_mode", "1");
  }

  @Override
  public List<String> transactionStart() {
    return List.of("PRAGMA defer_foreign_keys = ON");
  }

  /** Written out is a little quicker, but a statement has at most a million bytes. */
  @Override
  public Loading loading() {
    return Loading.PARAMETERS;
  }

  /** As its expressions write them out. */
  @Override
  public Object parameter(Value value) {
    return switch (value) {
      case Value.Num v -> v.whole() ? (Object) v.number().longValue() : v.number().doubleValue();
      case Value.Bool v -> v.truth() ? 1 : 0;
      case Value.Date v -> SqliteText.plain(v);
      case Value.Time v -> SqliteText.plain(v);
      case Value.DateTime v -> SqliteText.plain(v);
      case Value.Zoned v -> SqliteText.plain(v);
      case Value.Text v -> v.text();
      case Value.Bytes v -> v.content();
      case Value.Interval v -> super.parameter(v);
      case Value.Null v -> super.parameter(v);
    };
  }

  @Override
  public List<String> caveats() {
    return List.of(
        "Whole numbers are computed with 64 bits, whatever their width.",
        "UPPER and LOWER change the letters A to Z only.");
  }

  @Override
  public AroundQueries around() {
    return new AroundQueries(
        Optional.of("SELECT name, 'false', sql FROM sqlite_master WHERE type = 'view'"),
        Optional.of(
            "SELECT name, tbl_name, CASE WHEN sql LIKE '%INSTEAD%OF%' THEN 'INSTEAD OF'"
                + " WHEN sql LIKE '%AFTER%' THEN 'AFTER' ELSE 'BEFORE' END,"
                + " substr(sql, 1, instr(lower(sql), ' on ')), sql"
                + " FROM sqlite_master WHERE type = 'trigger'"),
        Optional.of(
            "SELECT name, tbl_name, 'true', sql FROM sqlite_master"
                + " WHERE type = 'index' AND sql LIKE 'CREATE UNIQUE INDEX% WHERE %'"),
        Optional.of("SELECT sql FROM sqlite_master WHERE type = 'table' AND sql LIKE '% AS (%'"),
        Optional.empty(),
        true);
  }

  @Override
  public boolean hasPartialIndexes() {
    return true;
  }

  @Override
  public boolean followsRows() {
    return true;
  }

  @Override
  public Alter alter() {
    return new SqliteAlter(this);
  }

  @Override
  public CatalogQueries queries() {
    return new CatalogQueries(
        Optional.of("SELECT name, type FROM pragma_table_xinfo(?)"),
        Optional.of("SELECT name FROM pragma_table_info(?) WHERE pk > 0 ORDER BY pk"),
        Optional.of(
            "SELECT id, \"from\", \"table\", \"to\", on_delete, on_update"
                + " FROM pragma_foreign_key_list(?) ORDER BY id, seq"),
        Optional.empty(),
        "SELECT sql FROM sqlite_master WHERE type = 'table' AND name = ?",
        true);
  }

  @Override
  public String givenName(String found) {
    return found.startsWith("sqlite_") ? "" : found;
  }

  @Override
  public String joinedTexts(String text, List<String> order, String between) {
    return joinedTexts("group_concat", text, order, between);
  }

  /** Its numbers with decimals are binary ones, whose sums have decimals that nobody entered. */
  @Override
  public String sum(String value, ValueType type) {
    return type.kind() == Kind.WHOLE
        ? "SUM(" + value + ")"
        : "round(SUM(" + value + "), " + type.scale() + ")";
  }

  @Override
  public SqlText text() {
    return text;
  }

  @Override
  public String spell(SqlType type) {
    return switch (type) {
      case SqlType.Varchar t -> "varchar(" + t.length() + ")";
      case SqlType.LongText t -> "text";
      case SqlType.Whole t -> IsoDialect.whole(t.width());
      case SqlType.Decimal t -> "numeric(" + t.precision() + ", " + t.scale() + ")";
      case SqlType.AnyNumber t -> "numeric";
      case SqlType.TrueFalse t -> "boolean";
      case SqlType.Date t -> "date_text";
      case SqlType.Time t -> "time_text";
      case SqlType.Timestamp t -> t.zoned() ? "utc_timestamp_text" : "timestamp_text";
      case SqlType.Uuid t -> "uuid_text";
      case SqlType.Bytes t -> "blob";
      case SqlType.Other t -> t.spelled();
    };
  }

  @Override
  public SqlType understand(String name, List<Integer> numbers) {
    return switch (name) {
      case "date_text" -> new SqlType.Date();
      case "time_text" -> new SqlType.Time();
      case "timestamp_text", "datetime" -> new SqlType.Timestamp(false);
      case "utc_timestamp_text" -> new SqlType.Timestamp(true);
      case "uuid_text" -> new SqlType.Uuid();
      default -> super.understand(name, numbers);
    };
  }

  @Override
  public boolean refersAhead() {
    return true;
  }

  @Override
  public List<String> opening() {
    return List.of("PRAGMA foreign_keys = ON", "BEGIN", "PRAGMA defer_foreign_keys = ON");
  }

  @Override
  public List<String> closing() {
    return List.of("COMMIT");
  }

  @Override
  public Computing computing() {
    return Computing.VIRTUAL;
  }

  @Override
  public Optional<String> counter(SqlType type, boolean wholeKey) {
    return wholeKey ? Optional.of("integer PRIMARY KEY AUTOINCREMENT") : Optional.empty();
  }

  /** Only a column of that very type counts; it holds 64 bits all the same. */
  @Override
  public SqlType counterType(Width width) {
    return new SqlType.Whole(Width.BITS_32);
  }

  @Override
  public boolean countsAsKey() {
    return true;
  }

  @Override
  public int decimalsOfSeconds(SqlType type) {
    return 0;
  }

  @Override
  public Optional<String> typeCheck(String column, SqlType type) {
    String c = name(column);
    return switch (type) {
      case SqlType.Varchar t -> Optional.of("length(" + c + ") <= " + t.length());
      case SqlType.LongText t -> Optional.empty();
      case SqlType.Whole t -> Optional.of(whole(c, t.width()));
      case SqlType.Decimal t -> Optional.of(decimal(c, t.precision(), t.scale()));
      case SqlType.AnyNumber t -> Optional.of("typeof(" + c + ") IN ('integer', 'real', 'null')");
      case SqlType.TrueFalse t -> Optional.of(c + " IN (0, 1)");
      case SqlType.Date t -> Optional.of("date(" + c + ") IS " + c);
      case SqlType.Time t ->
          Optional.of("strftime('%H:%M:%S', " + c + ") IS substr(" + c + ", 1, 8)");
      case SqlType.Timestamp t ->
          Optional.of("strftime('%Y-%m-%d %H:%M:%S', " + c + ") IS substr(" + c + ", 1, 19)");
      case SqlType.Uuid t -> Optional.of("length(" + c + ") = 36");
      case SqlType.Bytes t -> Optional.of("typeof(" + c + ") IN ('blob', 'null')");
      case SqlType.Other t -> Optional.empty();
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
  String matches(String column, TextPattern pattern) {
    throw new InexpressibleException("SQLite has no regular expressions");
  }

  @Override
  public boolean keepsComments() {
    return false;
  }

  @Override
  public Optional<String> typeLoss(SqlType type) {
    boolean exact = type instanceof SqlType.Decimal;
    return exact
        ? Optional.of(
            "SQLite keeps decimals as floating-point numbers: 15 digits are exact, sums may be off in the last one.")
        : Optional.empty();
  }

  @Override
  public boolean fillsLater() {
    return true;
  }

  @Override
  public Optional<Upkeep> upkeep() {
    return Optional.of(new SqliteUpkeep(this));
  }

  @Override
  Optional<String> uuid() {
    return Optional.of(uuid("substr(hex(randomblob(4)), 1, 8) || '-' || hex(randomblob(2))", "4"));
  }

  @Override
  Optional<String> timedUuid() {
    String millis = "printf('%012X', CAST((julianday('now') - 2440587.5) * 86400000 AS integer))";
    return Optional.of(
        uuid("substr(" + millis + ", 1, 8) || '-' || substr(" + millis + ", 9)", "7"));
  }

  private static String uuid(String first, String version) {
    return "lower("
        + first
        + " || '-"
        + version
        + "' || substr(hex(randomblob(2)), 2) || '-' || substr('89AB', 1 + (random() & 3), 1)"
        + " || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6)))";
  }

  @Override
  Optional<String> chance(int characters) {
    return Optional.of("1 + (random() & 9223372036854775807) % " + characters);
  }
}
