package joiner.engine;

import java.nio.file.Path;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import joiner.catalog.Exclusion;
import joiner.catalog.Generated;
import joiner.catalog.SpelledType;
import joiner.catalog.SqlExpression;
import joiner.catalog.SqlType;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.SqlText;
import joiner.expression.Value;
import joiner.expression.ValueType;
import joiner.expression.Width;
import joiner.model.Generator;
import joiner.model.ReferentialAction;
import joiner.naming.IdentifierRules;
import joiner.shape.RandomCode;
import joiner.shape.TextPattern;

/**
 * What one engine says differently. Each difference is a method with a name; nothing else is asked.
 */
public abstract class Dialect {

  private final Profile profile;

  Dialect(Profile profile) {
    this.profile = profile;
  }

  /** The word used on the command line. */
  public final String id() {
    return profile.id();
  }

  /** What the engine allows as names. */
  public final IdentifierRules identifiers() {
    return profile.names();
  }

  /** The engine's name for people. */
  public final String engine() {
    return identifiers().engine();
  }

  /** How a JDBC URL of the engine begins. */
  public final String jdbcPrefix() {
    return profile.jdbcPrefix();
  }

  /** How much room it needs for rows, where that is known. */
  public Optional<Storage> storage() {
    return Optional.empty();
  }

  /** The name of its JDBC driver's file, where it does not come with Joiner. */
  public final Optional<String> driver() {
    return profile.driver();
  }

  /**
   * How the name of a file ends in which such a database lives, as a URL names it; empty: it does
   * not live in a file.
   */
  public final Optional<String> fileEnding() {
    return profile.fileEnding();
  }

  /** Where its server usually listens; empty: it has none, and lives in a file. */
  public final OptionalInt port() {
    return profile.port();
  }

  /** Whether a unique index can be of those rows only that meet a condition. */
  public boolean hasPartialIndexes() {
    return false;
  }

  /** Behind a query: that it sees what others have finished, and they wait; empty: always so. */
  public String lockingRead() {
    return "";
  }

  /**
   * Periods of a table's rows. Names are given unquoted.
   *
   * @param per columns by which they are told apart
   * @param type of their bounds
   * @param closed whether the end belongs to them
   */
  public record Periods(
      String table, List<String> per, String from, String until, SqlType type, boolean closed) {
    public Periods {
      per = List.copyOf(per);
    }
  }

  /** Behind a query in order: that only so many rows are wanted. */
  public String first(int rows) {
    return "FETCH FIRST " + rows + " ROWS ONLY";
  }

  /** Whether queries can follow rows from one to the next, and end where they come back. */
  public boolean followsRows() {
    return false;
  }

  /** Whether a constraint can keep periods from overlapping. */
  public boolean excludesPeriods() {
    return false;
  }

  /** That constraint; only where there is one. */
  public Exclusion apart(String name, Periods periods) {
    throw new UnsupportedOperationException(engine() + " has no such constraint");
  }

  /** Whether a script that fails leaves nothing behind without further doing. */
  public final boolean undoesDefinitions() {
    return profile.undoesDefinitions();
  }

  /** Whether a file that begins so, each byte a character, is a database of the engine. */
  public boolean isFileOf(String head) {
    return false;
  }

  /** A file as {@link #urlOf} takes it. */
  public String placeOf(Path file) {
    return file.toAbsolutePath().toString();
  }

  /** The JDBC URL of a place: a file, or {@code host:port/database}, or a URL already. */
  public final String urlOf(String place) {
    String where = place.strip();
    return where.startsWith("jdbc:") ? where : jdbcPrefix() + behindPrefix(where);
  }

  /** A place as it stands in a URL behind the prefix. */
  String behindPrefix(String place) {
    return (fileEnding().isPresent() ? "" : "//") + place;
  }

  /** What a connection has to be told when it is opened. */
  public Map<String, String> connectionProperties() {
    return Map.of();
  }

  /** What a connection has to be told that only reads, so that no database is made by it. */
  public Map<String, String> readingProperties() {
    return connectionProperties();
  }

  /** Statements that begin the transaction of a shipment. */
  public List<String> transactionStart() {
    return List.of();
  }

  /** How the engine changes tables that are there. */
  public abstract Alter alter();

  /** How the engine's catalog is asked. */
  public abstract CatalogQueries queries();

  /** How the engine's catalog is asked for what stands around tables. */
  public AroundQueries around() {
    return AroundQueries.NONE;
  }

  /** How the engine keeps what it computes from other columns of a row. */
  public enum Computing {
    /** It does not. */
    NOT,
    /** Computed when a row is written, and kept. */
    STORED,
    /** Computed when a row is read. */
    VIRTUAL
  }

  /** How columns are computed from others. */
  public Computing computing() {
    return Computing.STORED;
  }

  /** Whether keys, indexes and checks may be on computed columns. */
  public boolean constrainsComputed() {
    return true;
  }

  /** A computed column as it stands in the definition of its table. */
  public String computedColumn(String column, SqlType type, Generated generated) {
    return name(column) + " " + spell(type) + generatedClause(generated);
  }

  /** How a computed column is said, behind its name and type. */
  String generatedClause(Generated generated) {
    return " GENERATED ALWAYS AS ("
        + generated.sql()
        + ")"
        + (generated.stored() ? " STORED" : " VIRTUAL");
  }

  /** What a type of the engine holds, as {@link #spell} spells it; any case. */
  public final SqlType understand(String spelled) {
    SqlType other = new SqlType.Other(spelled);
    SqlType type =
        SpelledType.of(spelled).map(t -> understand(t.name(), t.numbers())).orElse(other);
    return type instanceof SqlType.Other ? other : type;
  }

  /**
   * What a type of the engine holds; those of the standard are known, an engine adds its own.
   *
   * @param name its name, in lower case
   * @param numbers in the brackets behind it; none where there are none
   */
  public SqlType understand(String name, List<Integer> numbers) {
    return switch (name) {
      case "varchar", "character varying" ->
          numbers.isEmpty() ? new SqlType.LongText() : new SqlType.Varchar(numbers.getFirst());
      case "text", "clob", "character large object" -> new SqlType.LongText();
      case "smallint" -> new SqlType.Whole(Width.BITS_16);
      case "integer", "int" -> new SqlType.Whole(Width.BITS_32);
      case "bigint" -> new SqlType.Whole(Width.BITS_64);
      case "numeric", "decimal" ->
          numbers.size() == 2
              ? new SqlType.Decimal(numbers.get(0), numbers.get(1))
              : new SqlType.AnyNumber();
      case "decfloat" -> new SqlType.AnyNumber();
      case "boolean" -> new SqlType.TrueFalse();
      case "date" -> new SqlType.Date();
      case "time", "time without time zone" -> new SqlType.Time();
      case "timestamp", "timestamp without time zone" -> new SqlType.Timestamp(false);
      case "timestamp with time zone" -> new SqlType.Timestamp(true);
      case "uuid" -> new SqlType.Uuid();
      case "blob", "binary large object", "bytea" -> new SqlType.Bytes();
      default -> new SqlType.Other(name + (numbers.isEmpty() ? "" : numbers.toString()));
    };
  }

  /** What a type is kept as, where the engine has none like it. */
  public SqlType keptAs(SqlType type) {
    return type;
  }

  /** A type in the engine's spelling. */
  public abstract String spell(SqlType type);

  /** Writes expressions in the engine's spelling. */
  public abstract SqlText text();

  /**
   * Whether a table may refer to one that is created later, and needs no ALTER to close a circle.
   */
  public boolean refersAhead() {
    return false;
  }

  /** Whether a foreign key can be declared on a table that is there already. */
  public boolean addsReferences() {
    return true;
  }

  /**
   * Whether actions may reach a table by one way only: no circle, no second way from a parent to
   * its descendants.
   */
  public boolean actsAlongOneWay() {
    return false;
  }

  /** Whether the engine refuses a key or an index that says what another key says already. */
  public boolean refusesDoubledKeys() {
    return false;
  }

  /** Whether the engine's catalog gives constraints the names they were given. */
  public boolean keepsConstraintNames() {
    return true;
  }

  /**
   * A query for a condition in the words in which the engine's catalog shows it; empty where names
   * tell conditions apart.
   */
  public Optional<String> wording(String condition) {
    return Optional.empty();
  }

  /** What holds for every design on this engine and has to be known; a sentence each. */
  public List<String> caveats() {
    return List.of();
  }

  /** The sum of a group's values; a sum of whole numbers is one again. */
  public String sum(String value, ValueType type) {
    return type.kind() == Kind.WHOLE ? wholeSum(value) : "SUM(" + value + ")";
  }

  String wholeSum(String value) {
    return "CAST(SUM(" + value + ") AS " + spell(new SqlType.Whole(Width.BITS_64)) + ")";
  }

  /**
   * The texts of a group, one behind the other (ISO/IEC 9075-2:2016, LISTAGG).
   *
   * @param order what puts them in order, at least one
   */
  public String joinedTexts(String text, List<String> order, String between) {
    return "LISTAGG("
        + text
        + ", "
        + literal(new Value.Text(between))
        + ") WITHIN GROUP (ORDER BY "
        + String.join(", ", order)
        + ")";
  }

  /** The same where the order stands within the brackets of a function. */
  final String joinedTexts(String function, String text, List<String> order, String between) {
    return function
        + "("
        + text
        + ", "
        + literal(new Value.Text(between))
        + " ORDER BY "
        + String.join(", ", order)
        + ")";
  }

  /** What stands behind SELECT where no table is asked; empty: nothing need be there. */
  public String fromNothing() {
    return "";
  }

  /** A statement as it stands in a script. */
  public String ended(String statement) {
    return statement + ";";
  }

  /** Whether a statement has others within it. */
  static boolean makesTrigger(String statement) {
    return statement.startsWith("CREATE TRIGGER ");
  }

  /**
   * How the engine keeps values that nobody types; empty: it has no triggers that SQL can write.
   */
  public Optional<Upkeep> upkeep() {
    return Optional.empty();
  }

  /** Whether a trigger can fill a column only when its row is there. */
  public boolean fillsLater() {
    return false;
  }

  /** Why it has none, without a full stop. */
  public String upkeepLoss() {
    return engine() + " has no triggers";
  }

  /**
   * What makes a value for a new row, as a default.
   *
   * @return empty where the engine has no means for it, or none that a default may use
   */
  public Optional<String> generated(Generator by) {
    return switch (by) {
      case Generator.Uuid(boolean timed) -> timed ? timedUuid() : uuid();
      case Generator.Drawn(RandomCode code) -> drawn(code);
      case Generator.Coded coded -> Optional.empty();
    };
  }

  Optional<String> uuid() {
    return Optional.empty();
  }

  Optional<String> timedUuid() {
    return Optional.empty();
  }

  /** The place of a character drawn by chance, from 1; empty: there is no such function. */
  Optional<String> chance(int characters) {
    return Optional.empty();
  }

  private Optional<String> drawn(RandomCode code) {
    return chance(code.alphabet().length())
        .map(
            place -> {
              String one = "SUBSTR(" + quoted(code.alphabet()) + ", " + place + ", 1)";
              return joinedDraws(Collections.nCopies(code.length(), one));
            });
  }

  String joinedDraws(List<String> draws) {
    return String.join(" || ", draws);
  }

  /** How rows get into the engine quickest. */
  public enum Loading {
    /** Written out in statements. */
    STATEMENTS,
    /** As parameters of one statement. */
    PARAMETERS,
    /** Through PostgreSQL's COPY, in its text format. */
    COPY,
    /** From a file of comma-separated values. */
    FILE
  }

  /** How rows are sent to the engine. */
  public Loading loading() {
    return Loading.STATEMENTS;
  }

  /** A value as its driver takes it for a parameter. */
  public Object parameter(Value value) {
    return switch (value) {
      case Value.Text v -> v.text();
      case Value.Num v -> v.number();
      case Value.Bool v -> v.truth();
      case Value.Date v -> v.date();
      case Value.Time v -> v.time();
      case Value.DateTime v -> v.at();
      case Value.Zoned v -> v.at();
      case Value.Bytes v -> v.content();
      case Value.Interval v ->
          throw new IllegalArgumentException("no field holds a length of time");
      case Value.Null v -> throw new IllegalArgumentException("NULL is no value of a parameter");
    };
  }

  /** The bytes of a file as the texts have them from which the engine loads rows. */
  public String loaded(Value.Bytes file) {
    throw new IllegalStateException(engine() + " loads no rows from texts");
  }

  /** The greatest file, in bytes, that a statement can have written out in it. */
  public int mostBytesWritten() {
    return Integer.MAX_VALUE;
  }

  /** How many rows one INSERT may bring. */
  public int rowsPerInsert() {
    return 200;
  }

  /** Statements before rows are put into a table, so that its counter lets them. */
  public List<String> beforeRows(String table) {
    return List.of();
  }

  /** What {@link #beforeRows} began ends here. */
  public List<String> afterRows(String table) {
    return List.of();
  }

  /** Statements before everything else. */
  public List<String> opening() {
    return List.of();
  }

  /** Statements after everything else. */
  public List<String> closing() {
    return List.of();
  }

  /**
   * How a column that counts up is written, without its name; empty if this one cannot count.
   *
   * @param type what it is kept as
   * @param wholeKey whether it is the whole primary key
   */
  public abstract Optional<String> counter(SqlType type, boolean wholeKey);

  /** The default by which a column counts up from a sequence; empty: it counts by itself. */
  public Optional<String> next(String sequence) {
    return Optional.empty();
  }

  /** Whether a default, as the engine's catalog gives it, takes the next number of a sequence. */
  public boolean isNext(String found) {
    return false;
  }

  /** What a column that counts up is kept as. */
  public SqlType counterType(Width width) {
    return keptAs(new SqlType.Whole(width));
  }

  /** Whether a column that counts up is declared the primary key by that. */
  public boolean countsAsKey() {
    return false;
  }

  /** How many decimals of a second a column of that type keeps. */
  public abstract int decimalsOfSeconds(SqlType type);

  /** Makes a counter go on above a number; empty if the engine does so by itself. */
  public Optional<String> restart(String table, String column, long next) {
    return Optional.empty();
  }

  /** A condition that keeps values of the type, where the engine does not by itself. */
  public Optional<String> typeCheck(String column, SqlType type) {
    return Optional.empty();
  }

  /** A condition that a text matches a pattern as a whole. */
  abstract String matches(String column, TextPattern pattern);

  /** A statement that notes something on a table; empty if the engine has none. */
  public Optional<String> tableComment(String table, String text) {
    return keepsComments()
        ? Optional.of("COMMENT ON TABLE " + name(table) + " IS " + quoted(text))
        : Optional.empty();
  }

  /** A statement that notes something on a column; empty if the engine has none. */
  public Optional<String> columnComment(String table, String column, String text) {
    String path = name(table) + "." + name(column);
    return keepsComments()
        ? Optional.of("COMMENT ON COLUMN " + path + " IS " + quoted(text))
        : Optional.empty();
  }

  /** Whether the engine keeps notes on tables and columns. */
  public boolean keepsComments() {
    return true;
  }

  /** Whether its catalog gives them back. */
  public boolean showsComments() {
    return keepsComments();
  }

  /** What stands behind the definition of a column, its note among it. */
  public String columnTail(String comment) {
    return "";
  }

  /** What stands behind the definition of a table, its note among it. */
  public String tableTail(String comment) {
    return "";
  }

  /** What checks may not read. */
  public Set<InCheck> refusedInChecks() {
    return Set.of();
  }

  /** Why the engine has no key or index on columns of those types; empty if it has. */
  public final Optional<String> indexLoss(List<SqlType> types) {
    return types.stream().anyMatch(SqlType.Bytes.class::isInstance)
        ? Optional.of(engine() + " is given no key or index on whole files")
        : widthLoss(types);
  }

  /** Why the engine has no key or index as wide as columns of those types are together. */
  Optional<String> widthLoss(List<SqlType> types) {
    return Optional.empty();
  }

  /**
   * The statement that keeps values apart where they are filled, for an engine whose unique keys
   * take fewer empty ones than the standard lets in; empty: its keys take them.
   *
   * @param nullable those of the columns that may be empty
   */
  public Optional<String> uniqueWhereFilled(
      String key, String table, List<String> columns, Set<String> nullable) {
    return Optional.empty();
  }

  /** A condition that those of the columns that may be empty are filled. */
  final String filled(List<String> columns, Set<String> nullable) {
    return columns.stream()
        .filter(nullable::contains)
        .map(column -> name(column) + " IS NOT NULL")
        .collect(Collectors.joining(" AND "));
  }

  /** When a referential action is taken. */
  public enum Event {
    DELETE("ON DELETE"),
    UPDATE("ON UPDATE");

    private final String sql;

    Event(String sql) {
      this.sql = sql;
    }

    /** The words of the SQL standard. */
    public String sql() {
      return sql;
    }
  }

  /** How a referential action is said, with its event; empty: it need not be. */
  public String action(Event event, ReferentialAction action) {
    return action == ReferentialAction.NO_ACTION ? "" : " " + event.sql() + " " + action.sql();
  }

  /** What an action is kept as. */
  public ReferentialAction keptAs(Event event, ReferentialAction action) {
    return actionLoss(event, action).isPresent() ? ReferentialAction.RESTRICT : action;
  }

  /** What becomes of an action that the engine does not have; empty: nothing is lost by it. */
  public Optional<String> actionLoss(Event event, ReferentialAction action) {
    return Optional.empty();
  }

  /** The name of a key or index as somebody gave it; empty where the engine made it up. */
  public String givenName(String found) {
    return found;
  }

  /** Whether a backslash within a text escapes the next character, in the engine's usual mode. */
  public boolean escapesWithBackslash() {
    return false;
  }

  /**
   * Whether an error says that the database is not there.
   *
   * @param sqlState its class and subclass (ISO/IEC 9075-2, subclause 24.1); may be empty
   * @param code the engine's own number
   */
  public boolean isMissing(String sqlState, int code) {
    return sqlState.startsWith("3D");
  }

  /** A default as the engine's catalog gives it back; empty where that means none. */
  public Optional<SqlExpression> foundDefault(String sql) {
    return Optional.of(SqlExpression.found(sql));
  }

  /** A default as the engine's catalog can show it. */
  public String shown(String sql) {
    return sql;
  }

  /** Statements that take a table away, whatever refers to it. */
  public List<String> dropTable(String quoted) {
    return List.of("DROP TABLE " + quoted + " CASCADE");
  }

  /** The default of a column; what is computed stands in brackets. */
  public String defaultClause(String expression, boolean literal) {
    return literal ? " DEFAULT " + expression : " DEFAULT (" + expression + ")";
  }

  /** The default of a column. */
  public final String defaultClause(SqlExpression value) {
    return defaultClause(value.sql(), value.isLiteral());
  }

  /** What the engine loses of a type, if anything. */
  public Optional<String> typeLoss(SqlType type) {
    return Optional.empty();
  }

  /** A name as it stands in SQL text. */
  public final String name(String name) {
    return identifiers().quote(name);
  }

  /** Names with a comma between. */
  public final String names(List<String> names) {
    return String.join(", ", names.stream().map(this::name).toList());
  }

  /** A value written out. */
  public final String literal(Value value) {
    return text().write(new Expression.Literal(value, Kind.NULL, joiner.expression.Place.NOWHERE));
  }

  /** A quoted text. */
  public static String quoted(String text) {
    return "'" + text.replace("'", "''") + "'";
  }

  /** An expression in the engine's spelling, or why it has none. */
  public final Support say(Expression tree) {
    return attempt(() -> text().write(asValue(tree)));
  }

  /** What a column is computed by in the engine's spelling, or why it cannot be. */
  public final Support sayComputed(Expression tree) {
    return attempt(
        () -> {
          requireComputable(tree);
          return text().write(asValue(tree));
        });
  }

  /** Refuses what the engine takes elsewhere, but not for the columns it computes. */
  void requireComputable(Expression tree) {}

  /** A condition in the engine's spelling, or why it has none. */
  public final Support sayCondition(Expression tree) {
    return attempt(() -> text().write(asCondition(tree)));
  }

  /** An expression in the forms the engine has, where it stands for a value. */
  Expression asValue(Expression tree) {
    return tree;
  }

  /** An expression in the forms the engine has, where it stands for a condition. */
  Expression asCondition(Expression tree) {
    return tree;
  }

  /** The condition that a column's text matches a pattern as a whole, or why there is none. */
  public final Support sayPattern(String column, TextPattern pattern) {
    return attempt(() -> matches(column, pattern));
  }

  private static Support attempt(Supplier<String> writer) {
    try {
      return new Support.Kept(writer.get());
    } catch (InexpressibleException e) {
      return new Support.Impossible(e.getMessage());
    }
  }
}
