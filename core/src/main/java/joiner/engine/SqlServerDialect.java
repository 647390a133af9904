package joiner.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import joiner.catalog.Generated;
import joiner.catalog.SqlType;
import joiner.expression.Expression;
import joiner.expression.SqlText;
import joiner.expression.Width;
import joiner.model.ReferentialAction;
import joiner.naming.IdentifierRules;
import joiner.shape.TextPattern;

/**
 * SQL Server from 2017 on, as its documentation describes it; no such server was at hand. Texts are
 * told apart by code point through the collation of their columns; truth is a bit.
 */
final class SqlServerDialect extends Dialect {
  static final String COLLATION = "Latin1_General_100_BIN2";

  /** From this length on, a text has no limit of its own. */
  private static final int LONGEST = 4_000;

  /** An index takes 1,700 bytes, a character two. */
  private static final int LONGEST_INDEXED = 850;

  private static final IdentifierRules NAMES =
      new IdentifierRules(
          "SQL Server",
          128,
          IdentifierRules.Measure.CHARACTERS,
          false,
          IdentifierRules.NONE,
          IdentifierRules.Folding.KEPT,
          ReservedWords.of("sqlserver"));

  private final SqlText text = new SqlServerText(this::name);

  SqlServerDialect() {
    super(
        Profile.onServers("sqlserver", NAMES, 1433).withDriver("mssql-jdbc").undoingDefinitions());
  }

  /** The database is a property there. */
  @Override
  public String first(int rows) {
    return "OFFSET 0 ROWS FETCH NEXT " + rows + " ROWS ONLY";
  }

  @Override
  String behindPrefix(String place) {
    int slash = place.lastIndexOf('/');
    return slash < 0
        ? "//" + place
        : "//" + place.substring(0, slash) + ";databaseName=" + place.substring(slash + 1);
  }

  @Override
  public List<String> opening() {
    return List.of("SET ANSI_NULLS, QUOTED_IDENTIFIER, ARITHABORT ON");
  }

  @Override
  public Alter alter() {
    return new SqlServerAlter(this);
  }

  @Override
  public List<String> transactionStart() {
    return opening();
  }

  /** Tools send what stands before GO as one batch. */
  @Override
  public String ended(String statement) {
    return statement + ";\nGO";
  }

  @Override
  public List<String> caveats() {
    return List.of(
        "Blanks at the end of a text make no difference where texts are compared.",
        "Characters beyond U+FFFF count twice in lengths.");
  }

  @Override
  public CatalogQueries queries() {
    return CatalogQueries.ofChecks(
        "SELECT name, definition FROM sys.check_constraints"
            + " WHERE parent_object_id ="
            + " OBJECT_ID(QUOTENAME(SCHEMA_NAME()) + N'.' + QUOTENAME(?))");
  }

  /** Cannot open database. */
  @Override
  public boolean isMissing(String sqlState, int code) {
    return super.isMissing(sqlState, code) || code == 4060;
  }

  @Override
  public String joinedTexts(String text, List<String> order, String between) {
    return super.joinedTexts(text, order, between).replaceFirst("LISTAGG", "STRING_AGG");
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
      case SqlType.Varchar t when t.length() > LONGEST -> new SqlType.LongText();
      case SqlType.AnyNumber t -> new SqlType.Decimal(38, 10);
      default -> type;
    };
  }

  @Override
  public Optional<String> typeLoss(SqlType type) {
    return type instanceof SqlType.AnyNumber
        ? Optional.of("SQL Server keeps 28 digits before the point and 10 after it.")
        : Optional.empty();
  }

  @Override
  public Optional<String> typeCheck(String column, SqlType type) {
    return type instanceof SqlType.Varchar text && text.length() > LONGEST
        ? Optional.of(SqlServerText.length(name(column)) + " <= " + text.length())
        : Optional.empty();
  }

  @Override
  public String spell(SqlType type) {
    return switch (type) {
      case SqlType.Varchar t when t.length() > LONGEST -> "nvarchar(max) COLLATE " + COLLATION;
      case SqlType.Varchar t -> "nvarchar(" + t.length() + ") COLLATE " + COLLATION;
      case SqlType.LongText t -> "nvarchar(max) COLLATE " + COLLATION;
      case SqlType.Whole t -> whole(t.width());
      case SqlType.Decimal t -> "decimal(" + t.precision() + ", " + t.scale() + ")";
      case SqlType.AnyNumber t -> "decimal(38, 10)";
      case SqlType.TrueFalse t -> "bit";
      case SqlType.Date t -> "date";
      case SqlType.Time t -> "time";
      case SqlType.Timestamp t -> t.zoned() ? "datetimeoffset" : "datetime2";
      case SqlType.Uuid t -> "uniqueidentifier";
      case SqlType.Bytes t -> "varbinary(max)";
      case SqlType.Other t -> t.spelled();
    };
  }

  private static String whole(Width width) {
    return width == Width.BITS_32 ? "int" : IsoDialect.whole(width);
  }

  @Override
  public SqlType understand(String name, List<Integer> numbers) {
    return switch (name.replaceAll(" (?:collate .*|identity)$", "")) {
      case "nvarchar" ->
          numbers.isEmpty() ? new SqlType.LongText() : new SqlType.Varchar(numbers.getFirst());
      case "nvarchar max" -> new SqlType.LongText();
      case "varbinary max" -> new SqlType.Bytes();
      case "bit" -> new SqlType.TrueFalse();
      case "datetime2" -> new SqlType.Timestamp(false);
      case "datetimeoffset" -> new SqlType.Timestamp(true);
      case "uniqueidentifier" -> new SqlType.Uuid();
      default -> super.understand(name, numbers);
    };
  }

  @Override
  public boolean actsAlongOneWay() {
    return true;
  }

  @Override
  public Optional<String> counter(SqlType type, boolean wholeKey) {
    return Optional.of(spell(type) + " IDENTITY(1, 1)");
  }

  @Override
  public List<String> beforeRows(String table) {
    return List.of("SET IDENTITY_INSERT " + name(table) + " ON");
  }

  @Override
  public List<String> afterRows(String table) {
    return List.of("SET IDENTITY_INSERT " + name(table) + " OFF");
  }

  @Override
  public int decimalsOfSeconds(SqlType type) {
    return 7;
  }

  @Override
  String matches(String column, TextPattern pattern) {
    String like =
        pattern
            .tree()
            .flatMap(PatternText::like)
            .orElseThrow(
                () ->
                    new InexpressibleException(
                        "SQL Server has no regular expressions before 2025, and LIKE says only"
                            + " which characters stand at which place"));
    return name(column) + " LIKE N" + quoted(like);
  }

  @Override
  Optional<String> widthLoss(List<SqlType> types) {
    int length = 0;
    for (SqlType type : types) {
      if (keptAs(type) instanceof SqlType.LongText) {
        return Optional.of("SQL Server has no key on texts without a limit");
      }
      length += type instanceof SqlType.Varchar text ? text.length() : 8;
    }
    return length > LONGEST_INDEXED
        ? Optional.of("SQL Server has no key on more than " + LONGEST_INDEXED + " characters")
        : Optional.empty();
  }

  /** A key of its own would take one row with an empty value only. */
  @Override
  public Optional<String> uniqueWhereFilled(
      String key, String table, List<String> columns, Set<String> nullable) {
    String filled = filled(columns, nullable);
    return Optional.of(
        "CREATE UNIQUE INDEX "
            + name(key)
            + " ON "
            + name(table)
            + " ("
            + names(columns)
            + ") WHERE "
            + filled);
  }

  /** It knows no RESTRICT; what it does at the end of the statement comes to the same. */
  @Override
  public ReferentialAction keptAs(Event event, ReferentialAction action) {
    return action == ReferentialAction.RESTRICT ? ReferentialAction.NO_ACTION : action;
  }

  /** Its driver gives no extended properties. */
  @Override
  public boolean showsComments() {
    return false;
  }

  @Override
  public Optional<String> tableComment(String table, String text) {
    return Optional.of(comment(Property.ADD, table, List.of(), text));
  }

  @Override
  public Optional<String> columnComment(String table, String column, String text) {
    return Optional.of(comment(Property.ADD, table, pathOf(column), text));
  }

  /** Where a column stands below its table. */
  static List<String> pathOf(String column) {
    return List.of("N'COLUMN'", "N" + quoted(column));
  }

  /** What is done to an extended property. */
  enum Property {
    ADD,
    UPDATE,
    DROP;

    private String procedure() {
      return "sys.sp_" + name().toLowerCase(Locale.ROOT) + "extendedproperty";
    }
  }

  /** A description is an extended property of that name, which tools show. */
  String comment(Property done, String table, List<String> column, String text) {
    boolean says = done != Property.DROP;
    boolean broken = says && LineBreaks.isIn(text);
    var arguments = new ArrayList<String>();
    arguments.add("N'MS_Description'");
    if (says) {
      arguments.add(broken ? "@text" : "N" + quoted(text));
    }
    arguments.addAll(List.of("N'SCHEMA'", "@schema", "N'TABLE'", "N" + quoted(table)));
    arguments.addAll(column);
    String value =
        broken ? ", @text nvarchar(max) = N" + LineBreaks.apart(quoted(text), " + N", "NCHAR") : "";
    return "DECLARE @schema sysname = SCHEMA_NAME()"
        + value
        + "; EXEC "
        + done.procedure()
        + " "
        + String.join(", ", arguments);
  }

  /** A computed column has no type but that of its expression, and the collation of its columns. */
  @Override
  public String computedColumn(String column, SqlType type, Generated generated) {
    return name(column)
        + " AS (CAST("
        + generated.sql()
        + " AS "
        + spell(type).replaceFirst(" COLLATE .*", "")
        + "))"
        + (generated.stored() ? " PERSISTED" : "");
  }

  @Override
  public String defaultClause(String expression, boolean literal) {
    return " DEFAULT (" + expression + ")";
  }

  /** Its triggers come after the rows are there. */
  @Override
  public boolean fillsLater() {
    return true;
  }

  @Override
  public Optional<Upkeep> upkeep() {
    return Optional.of(new SqlServerUpkeep(this));
  }

  /** Its own UUIDs in order of time have a layout of their own, so that there are none. */
  @Override
  Optional<String> uuid() {
    return Optional.of("NEWID()");
  }
}
