package joiner.engine;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import joiner.catalog.Generated;
import joiner.catalog.SqlType;
import joiner.expression.Expression;
import joiner.expression.SqlText;
import joiner.expression.Width;
import joiner.model.ReferentialAction;
import joiner.naming.IdentifierRules;
import joiner.shape.TextPattern;

/**
 * Oracle Database from 12.2 on, as its documentation describes it; no such server was at hand.
 * Truth is a number, a time of day a length of time, and an empty text no value.
 */
final class OracleDialect extends Dialect {
  /** From this length on, a text is kept as a large object. */
  private static final int LONGEST = 4_000;

  /** An index takes 6,398 bytes with the usual size of a block. */
  private static final int INDEXED_BYTES = 6_398;

  private static final IdentifierRules NAMES =
      new IdentifierRules(
          "Oracle",
          128,
          IdentifierRules.Measure.BYTES,
          false,
          Pattern.compile("[\"\\x00]"),
          IdentifierRules.Folding.UPPER,
          ReservedWords.of("oracle"));

  private final SqlText text = new OracleText(this::name);

  OracleDialect() {
    super(Profile.onServers("oracle", NAMES, 1521).withDriver("ojdbc17"));
  }

  @Override
  String behindPrefix(String place) {
    return "thin:@//" + place;
  }

  /** For the tools that run scripts: an ampersand is a character like any other. */
  @Override
  public List<String> opening() {
    return List.of("SET DEFINE OFF");
  }

  @Override
  public List<String> caveats() {
    return List.of(
        "An empty text is no value, also one that is computed.",
        "Whole numbers are computed with 38 digits, whatever their width.",
        "The database has to keep texts in Unicode (AL32UTF8) and compare them by code point.");
  }

  @Override
  public String fromNothing() {
    return " FROM dual";
  }

  /** A text written out has at most 4,000 bytes, two for each of the file. */
  @Override
  public int mostBytesWritten() {
    return 2_000;
  }

  @Override
  public int rowsPerInsert() {
    return 1;
  }

  @Override
  public Alter alter() {
    return new OracleAlter(this);
  }

  @Override
  public CatalogQueries queries() {
    return CatalogQueries.ofChecks(
        "SELECT constraint_name, search_condition_vc FROM user_constraints"
            + " WHERE constraint_type = 'C' AND generated = 'USER NAME' AND table_name = ?");
  }

  /** The listener does not know the service or the database. */
  @Override
  public boolean isMissing(String sqlState, int code) {
    return super.isMissing(sqlState, code) || code == 12505 || code == 12514;
  }

  @Override
  public SqlText text() {
    return text;
  }

  @Override
  Expression asValue(Expression tree) {
    return Truths.value(tree);
  }

  @Override
  Expression asCondition(Expression tree) {
    return Truths.condition(tree);
  }

  @Override
  public SqlType keptAs(SqlType type) {
    return switch (type) {
      case SqlType.Varchar t -> t.length() > LONGEST ? new SqlType.LongText() : t;
      case SqlType.Whole t -> new SqlType.Decimal(digits(t.width()), 0);
      case SqlType.TrueFalse t -> new SqlType.Decimal(1, 0);
      case SqlType.Uuid t -> new SqlType.Varchar(36);
      default -> type;
    };
  }

  private static int digits(Width width) {
    return switch (width) {
      case BITS_16 -> 5;
      case BITS_32 -> 10;
      case BITS_64 -> 19;
    };
  }

  @Override
  public Optional<String> typeLoss(SqlType type) {
    return switch (type) {
      case SqlType.AnyNumber t -> Optional.of("Oracle keeps 38 digits of a number.");
      case SqlType.Varchar t when t.length() > 1_000 && t.length() <= LONGEST ->
          Optional.of("Oracle keeps 4,000 bytes of such a text: fewer characters if not ASCII.");
      default -> Optional.empty();
    };
  }

  @Override
  public String spell(SqlType type) {
    return switch (type) {
      case SqlType.Varchar t when t.length() > LONGEST -> "clob";
      case SqlType.Varchar t -> "varchar2(" + t.length() + " char)";
      case SqlType.LongText t -> "clob";
      case SqlType.Whole t -> "number(" + digits(t.width()) + ", 0)";
      case SqlType.Decimal t -> "number(" + t.precision() + ", " + t.scale() + ")";
      case SqlType.AnyNumber t -> "number";
      case SqlType.TrueFalse t -> "number(1, 0)";
      case SqlType.Date t -> "date";
      case SqlType.Time t -> "interval day(0) to second(6)";
      case SqlType.Timestamp t -> t.zoned() ? "timestamp(6) with time zone" : "timestamp(6)";
      case SqlType.Uuid t -> "varchar2(36 char)";
      case SqlType.Bytes t -> "blob";
      case SqlType.Other t -> t.spelled();
    };
  }

  @Override
  public SqlType understand(String name, List<Integer> numbers) {
    return switch (name) {
      case "varchar2" -> new SqlType.Varchar(numbers.isEmpty() ? 1 : numbers.getFirst());
      case "number" ->
          numbers.isEmpty()
              ? new SqlType.AnyNumber()
              : new SqlType.Decimal(numbers.get(0), numbers.size() > 1 ? numbers.get(1) : 0);
      case "interval day to second" -> new SqlType.Time();
      default -> super.understand(name, numbers);
    };
  }

  @Override
  public Optional<String> typeCheck(String column, SqlType type) {
    String c = name(column);
    return switch (type) {
      case SqlType.Varchar t when t.length() > LONGEST ->
          Optional.of("LENGTH(" + c + ") <= " + t.length());
      case SqlType.Whole t ->
          Optional.of(c + " BETWEEN " + t.width().min() + " AND " + t.width().max());
      case SqlType.TrueFalse t -> Optional.of(c + " IN (0, 1)");
      case SqlType.Date t -> Optional.of(c + " = TRUNC(" + c + ")");
      case SqlType.Time t ->
          Optional.of(c + " >= INTERVAL '0' HOUR AND " + c + " < INTERVAL '24' HOUR");
      case SqlType.Uuid t ->
          Optional.of("REGEXP_LIKE(" + c + ", '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$')");
      default -> Optional.empty();
    };
  }

  @Override
  public boolean refusesDoubledKeys() {
    return true;
  }

  @Override
  public Computing computing() {
    return Computing.VIRTUAL;
  }

  @Override
  public Optional<String> counter(SqlType type, boolean wholeKey) {
    return Optional.of(spell(type) + " GENERATED BY DEFAULT AS IDENTITY");
  }

  @Override
  public Optional<String> restart(String table, String column, long next) {
    return Optional.of(
        "ALTER TABLE "
            + name(table)
            + " MODIFY ("
            + name(column)
            + " GENERATED BY DEFAULT AS IDENTITY (START WITH "
            + next
            + "))");
  }

  @Override
  public int decimalsOfSeconds(SqlType type) {
    return 6;
  }

  @Override
  String matches(String column, TextPattern pattern) {
    String posix = PatternText.whole(pattern.tree(), PatternText.Flavour.POSIX, "^", "$");
    return "REGEXP_LIKE(" + name(column) + ", " + quoted(posix) + ")";
  }

  @Override
  public Set<InCheck> refusedInChecks() {
    return Set.of(InCheck.CLOCK, InCheck.LONG_TEXT);
  }

  @Override
  Optional<String> widthLoss(List<SqlType> types) {
    int bytes = 0;
    for (SqlType type : types) {
      if (keptAs(type) instanceof SqlType.LongText) {
        return Optional.of("Oracle has no key on texts without a limit");
      }
      bytes += type instanceof SqlType.Varchar text ? Math.min(LONGEST, 4 * text.length()) : 22;
    }
    return bytes > INDEXED_BYTES
        ? Optional.of("Oracle has no key on more than " + INDEXED_BYTES + " bytes")
        : Optional.empty();
  }

  /** Rows with one value empty and the others the same would be taken for the same. */
  @Override
  public Optional<String> uniqueWhereFilled(
      String key, String table, List<String> columns, Set<String> nullable) {
    if (columns.size() == 1) {
      return Optional.empty();
    }
    String filled = filled(columns, nullable);
    String parts =
        columns.stream()
            .map(column -> "CASE WHEN " + filled + " THEN " + name(column) + " END")
            .collect(Collectors.joining(", "));
    return Optional.of(
        "CREATE UNIQUE INDEX " + name(key) + " ON " + name(table) + " (" + parts + ")");
  }

  @Override
  public ReferentialAction keptAs(Event event, ReferentialAction action) {
    return actionLoss(event, action).isPresent() || action == ReferentialAction.RESTRICT
        ? ReferentialAction.NO_ACTION
        : action;
  }

  @Override
  public Optional<String> actionLoss(Event event, ReferentialAction action) {
    return switch (action) {
      case NO_ACTION, RESTRICT -> Optional.empty();
      case SET_DEFAULT ->
          Optional.of("Oracle sets no default then; the change is refused instead.");
      case CASCADE, SET_NULL ->
          event == Event.DELETE
              ? Optional.empty()
              : Optional.of("Oracle has no actions on update; the change is refused instead.");
    };
  }

  /** It stores none. */
  @Override
  String generatedClause(Generated generated) {
    return " GENERATED ALWAYS AS (" + generated.sql() + ") VIRTUAL";
  }

  @Override
  public List<String> dropTable(String quoted) {
    return List.of("DROP TABLE " + quoted + " CASCADE CONSTRAINTS");
  }

  @Override
  public Optional<Upkeep> upkeep() {
    return Optional.of(new OracleUpkeep(this));
  }

  /** Its tools send a program when a line has a slash alone. */
  @Override
  public String ended(String statement) {
    return makesTrigger(statement) ? statement + "\n/" : super.ended(statement);
  }
}
