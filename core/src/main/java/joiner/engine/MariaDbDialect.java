package joiner.engine;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import joiner.catalog.SqlExpression;
import joiner.catalog.SqlType;
import joiner.expression.SqlText;
import joiner.expression.Value;
import joiner.model.ReferentialAction;
import joiner.naming.IdentifierRules;
import joiner.shape.TextPattern;

/**
 * MariaDB, seen with 11.4. Texts are told apart by code point, as the audit does, through the
 * collation every table gets; its usual one takes no notice of case and accents.
 */
final class MariaDbDialect extends Dialect {
  private static final IdentifierRules NAMES =
      new IdentifierRules(
          "MariaDB",
          64,
          IdentifierRules.Measure.CHARACTERS,
          false,
          Pattern.compile("[^\\x{0}-\\x{FFFF}]"),
          IdentifierRules.Folding.KEPT,
          ReservedWords.of("mariadb"));
  static final String COLLATION = "utf8mb4_nopad_bin";

  /** An index takes 3,072 bytes, a character up to four. */
  private static final int LONGEST_INDEXED = 768;

  private final SqlText text = new MariaDbText(this::name);

  MariaDbDialect() {
    super(Profile.onServers("mariadb", NAMES, 3306));
  }

  @Override
  public Optional<Storage> storage() {
    return Optional.of(new InnoDbStorage());
  }

  /** Names in quotes, texts without escapes, numbers as they are given, nothing cut to fit. */
  @Override
  public List<String> transactionStart() {
    return List.of(
        "SET SESSION sql_mode = 'ANSI_QUOTES,NO_BACKSLASH_ESCAPES,NO_AUTO_VALUE_ON_ZERO,"
            + "STRICT_ALL_TABLES,ERROR_FOR_DIVISION_BY_ZERO'",
        "SET NAMES utf8mb4 COLLATE " + COLLATION);
  }

  @Override
  public List<String> opening() {
    return transactionStart();
  }

  @Override
  public Loading loading() {
    return Loading.PARAMETERS;
  }

  /** Moments are kept in UTC. */
  @Override
  public Object parameter(Value value) {
    return value instanceof Value.Zoned moment
        ? moment.at().withOffsetSameInstant(ZoneOffset.UTC).toLocalDateTime()
        : super.parameter(value);
  }

  @Override
  public List<String> caveats() {
    return List.of("Whole numbers are computed with 64 bits, whatever their width.");
  }

  @Override
  public String lockingRead() {
    return " LOCK IN SHARE MODE";
  }

  @Override
  public AroundQueries around() {
    return new AroundQueries(
        Optional.of(
            "SELECT table_name, 'false', CONCAT('CREATE VIEW `', REPLACE(table_name, '`', '``'),"
                + " '` AS ', view_definition) FROM information_schema.views"
                + " WHERE table_schema = DATABASE()"),
        Optional.of(
            "SELECT trigger_name, event_object_table, action_timing, event_manipulation,"
                + " CONCAT('CREATE TRIGGER `', REPLACE(trigger_name, '`', '``'), '` ',"
                + " action_timing, ' ', event_manipulation, ' ON `',"
                + " REPLACE(event_object_table, '`', '``'), '` FOR EACH ROW ', action_statement)"
                + " FROM information_schema.triggers WHERE trigger_schema = DATABASE()"
                + " ORDER BY event_object_table, action_order"),
        Optional.empty(),
        Optional.of(
            "SELECT table_name, column_name, generation_expression, extra LIKE '%STORED%'"
                + " FROM information_schema.columns"
                + " WHERE table_schema = DATABASE() AND is_generated = 'ALWAYS'"),
        Optional.of(
            "SELECT grantee, privilege_type, table_name, is_grantable"
                + " FROM information_schema.table_privileges WHERE table_schema = DATABASE()"),
        false);
  }

  @Override
  public boolean followsRows() {
    return true;
  }

  @Override
  public Alter alter() {
    return new MariaDbAlter(this);
  }

  @Override
  public CatalogQueries queries() {
    return CatalogQueries.ofChecks(
        "SELECT CONSTRAINT_NAME, CHECK_CLAUSE FROM INFORMATION_SCHEMA.CHECK_CONSTRAINTS"
            + " WHERE CONSTRAINT_SCHEMA = DATABASE() AND TABLE_NAME = ?");
  }

  @Override
  public boolean escapesWithBackslash() {
    return true;
  }

  /** Its number for an unknown database is from its documentation. */
  @Override
  public boolean isMissing(String sqlState, int code) {
    return super.isMissing(sqlState, code) || code == 1049;
  }

  @Override
  String wholeSum(String value) {
    return "CAST(SUM(" + value + ") AS SIGNED)";
  }

  @Override
  public String joinedTexts(String text, List<String> order, String between) {
    return "GROUP_CONCAT("
        + text
        + " ORDER BY "
        + String.join(", ", order)
        + " SEPARATOR "
        + quoted(between)
        + ")";
  }

  @Override
  public SqlText text() {
    return text;
  }

  @Override
  public SqlType keptAs(SqlType type) {
    return switch (type) {
      case SqlType.Timestamp t -> new SqlType.Timestamp(false);
      case SqlType.AnyNumber t -> new SqlType.Decimal(65, 30);
      case SqlType.Varchar t -> t;
      case SqlType.LongText t -> t;
      case SqlType.Whole t -> t;
      case SqlType.Decimal t -> t;
      case SqlType.TrueFalse t -> t;
      case SqlType.Date t -> t;
      case SqlType.Time t -> t;
      case SqlType.Uuid t -> t;
      case SqlType.Bytes t -> t;
      case SqlType.Other t -> t;
    };
  }

  @Override
  public Optional<String> typeLoss(SqlType type) {
    return switch (type) {
      case SqlType.Timestamp t when t.zoned() ->
          Optional.of("MariaDB keeps no offsets; moments are kept in UTC.");
      case SqlType.AnyNumber t ->
          Optional.of("MariaDB keeps 35 digits before the point and 30 after it.");
      default -> Optional.empty();
    };
  }

  @Override
  public Computing computing() {
    return Computing.VIRTUAL;
  }

  @Override
  public String spell(SqlType type) {
    return switch (type) {
      case SqlType.Varchar t -> "varchar(" + t.length() + ")";
      case SqlType.LongText t -> "longtext";
      case SqlType.Whole t -> IsoDialect.whole(t.width());
      case SqlType.Decimal t -> "decimal(" + t.precision() + ", " + t.scale() + ")";
      case SqlType.AnyNumber t -> "decimal(65, 30)";
      case SqlType.TrueFalse t -> "boolean";
      case SqlType.Date t -> "date";
      case SqlType.Time t -> "time(6)";
      case SqlType.Timestamp t -> "datetime(6)";
      case SqlType.Uuid t -> "uuid";
      case SqlType.Bytes t -> "longblob";
      case SqlType.Other t -> t.spelled();
    };
  }

  @Override
  public SqlType understand(String name, List<Integer> numbers) {
    return switch (name) {
      case "longblob" -> new SqlType.Bytes();
      case "longtext" -> new SqlType.LongText();
      case "datetime", "timestamp" -> new SqlType.Timestamp(false);
      default -> super.understand(name, numbers);
    };
  }

  /** A column that counts must be a key by itself. */
  @Override
  public Optional<String> counter(SqlType type, boolean wholeKey) {
    return wholeKey ? Optional.of(spell(type) + " AUTO_INCREMENT") : Optional.empty();
  }

  @Override
  public int decimalsOfSeconds(SqlType type) {
    return 6;
  }

  /** Truth is a small number here, and a time of day a length of time. */
  @Override
  public Optional<String> typeCheck(String column, SqlType type) {
    String c = name(column);
    return switch (type) {
      case SqlType.TrueFalse t -> Optional.of(c + " IN (0, 1)");
      case SqlType.Time t -> Optional.of(c + " BETWEEN TIME '00:00:00' AND TIME '23:59:59.999999'");
      default -> Optional.empty();
    };
  }

  @Override
  String matches(String column, TextPattern pattern) {
    String perl = PatternText.whole(pattern.tree(), PatternText.Flavour.PERL, "\\A", "\\z");
    return name(column) + " REGEXP " + quoted(perl);
  }

  @Override
  public Set<InCheck> refusedInChecks() {
    return Set.of(InCheck.CLOCK, InCheck.COUNTER, InCheck.MOVED_BY_REFERENCE);
  }

  @Override
  Optional<String> widthLoss(List<SqlType> types) {
    int length = 0;
    for (SqlType type : types) {
      if (type instanceof SqlType.LongText) {
        return Optional.of("MariaDB has no key on texts without a limit");
      }
      length += type instanceof SqlType.Varchar text ? text.length() : 8;
    }
    return length > LONGEST_INDEXED
        ? Optional.of("MariaDB has no key on more than " + LONGEST_INDEXED + " characters")
        : Optional.empty();
  }

  /** What is not said counts as RESTRICT. */
  @Override
  public String action(Event event, ReferentialAction action) {
    return " " + event.sql() + " " + action.sql();
  }

  /** It takes the words and keeps RESTRICT. */
  @Override
  public Optional<String> actionLoss(Event event, ReferentialAction action) {
    return action == ReferentialAction.SET_DEFAULT
        ? Optional.of("MariaDB cannot set a default then; the change is refused instead.")
        : Optional.empty();
  }

  /** Notes stand in the definitions themselves. */
  @Override
  public Optional<String> tableComment(String table, String text) {
    return Optional.empty();
  }

  @Override
  public Optional<String> columnComment(String table, String column, String text) {
    return Optional.empty();
  }

  @Override
  public String columnTail(String comment) {
    return comment.isBlank() ? "" : " COMMENT " + quoted(comment);
  }

  @Override
  public String tableTail(String comment) {
    return " DEFAULT CHARACTER SET utf8mb4 COLLATE "
        + COLLATION
        + (comment.isBlank() ? "" : " COMMENT = " + quoted(comment));
  }

  @Override
  public String defaultClause(String expression, boolean literal) {
    return " DEFAULT (" + expression + ")";
  }

  @Override
  public Optional<SqlExpression> foundDefault(String sql) {
    return sql.equals("NULL")
        ? Optional.empty()
        : Optional.of(SqlExpression.found(MariaDbText.unescaped(sql)));
  }

  /** It is kept whole, but its catalog shows no characters beyond U+FFFF. */
  @Override
  public String shown(String sql) {
    return sql.replaceAll("[^\\x{0}-\\x{FFFF}]", "?");
  }

  @Override
  public List<String> dropTable(String quoted) {
    var statements = new ArrayList<String>();
    statements.add("SET FOREIGN_KEY_CHECKS = 0");
    statements.add("DROP TABLE " + quoted);
    statements.add("SET FOREIGN_KEY_CHECKS = 1");
    return statements;
  }

  @Override
  public Optional<Upkeep> upkeep() {
    return Optional.of(new MariaDbUpkeep(this));
  }

  @Override
  Optional<String> uuid() {
    return Optional.of(uuid("HEX(RANDOM_BYTES(6))", "4"));
  }

  @Override
  Optional<String> timedUuid() {
    return Optional.of(uuid("LPAD(HEX(FLOOR(UNIX_TIMESTAMP(NOW(3)) * 1000)), 12, '0')", "7"));
  }

  private static String uuid(String first, String version) {
    return "CAST(CONCAT("
        + first
        + ", '"
        + version
        + "', SUBSTR(HEX(RANDOM_BYTES(2)), 2), SUBSTR('89AB', FLOOR(RAND() * 4) + 1, 1),"
        + " SUBSTR(HEX(RANDOM_BYTES(8)), 2)) AS uuid)";
  }

  @Override
  Optional<String> chance(int characters) {
    return Optional.of("FLOOR(RAND() * " + characters + ") + 1");
  }

  @Override
  String joinedDraws(List<String> draws) {
    return "CONCAT(" + String.join(", ", draws) + ")";
  }

  /** Its client sends what stands before a semicolon, unless it is told of another sign. */
  @Override
  public String ended(String statement) {
    return makesTrigger(statement)
        ? "DELIMITER //\n" + statement + " //\nDELIMITER ;"
        : super.ended(statement);
  }
}
