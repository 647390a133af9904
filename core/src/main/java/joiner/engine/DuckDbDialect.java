package joiner.engine;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import joiner.catalog.SqlType;
import joiner.expression.SqlText;
import joiner.expression.Value;
import joiner.model.ReferentialAction;
import joiner.naming.IdentifierRules;
import joiner.shape.TextPattern;

/**
 * DuckDB, seen with 2.0. It keeps no lengths of texts, counts by sequences, takes foreign keys only
 * together with their table and without actions, and makes up names for constraints.
 */
final class DuckDbDialect extends Dialect {
  /** Steps of the machine that RE2 makes of a pattern, about, and those of a property. */
  private static final int LARGEST_PATTERN = 50_000;

  private static final int PROPERTY = 500;

  /** The limit of RE2 for a part, over all repetitions around it. */
  private static final int MOST_TIMES = 1_000;

  private static final Pattern COUNT = Pattern.compile("(\\d{1,9})}");

  private static final IdentifierRules NAMES =
      new IdentifierRules(
          "DuckDB",
          Integer.MAX_VALUE,
          IdentifierRules.Measure.BYTES,
          false,
          IdentifierRules.NONE,
          IdentifierRules.Folding.KEPT,
          ReservedWords.of("duckdb"));

  private final SqlText text = new DuckDbText(this::name);

  DuckDbDialect() {
    super(
        Profile.inFiles("duckdb", NAMES, ".duckdb").withDriver("duckdb_jdbc").undoingDefinitions());
  }

  /** Behind a sum of the first block. */
  @Override
  public boolean isFileOf(String head) {
    return head.startsWith("DUCK", 8);
  }

  @Override
  public Map<String, String> readingProperties() {
    return Map.of("duckdb.read_only", "true");
  }

  @Override
  public Loading loading() {
    return Loading.FILE;
  }

  @Override
  public List<String> caveats() {
    return List.of(
        "A number that leaves its width on the way is no error where a rule can be decided without"
            + " it.");
  }

  @Override
  public AroundQueries around() {
    return new AroundQueries(
        Optional.of(
            "SELECT view_name, 'false', rtrim(sql, '; ') FROM duckdb_views() WHERE NOT internal"
                + " AND database_name = current_database() AND schema_name = current_schema()"),
        Optional.empty(),
        Optional.empty(),
        Optional.of(
            "SELECT sql FROM duckdb_tables() WHERE sql LIKE '%GENERATED ALWAYS AS%'"
                + " AND database_name = current_database() AND schema_name = current_schema()"),
        Optional.empty(),
        true);
  }

  @Override
  public boolean followsRows() {
    return true;
  }

  @Override
  public Alter alter() {
    return new DuckDbAlter(this);
  }

  @Override
  public CatalogQueries queries() {
    String own = " WHERE schema_name = current_schema() AND table_name = wanted";
    String of = "WITH w AS (SELECT ? AS wanted) SELECT ";
    String keys = " FROM duckdb_constraints(), w" + own + " AND constraint_type = ";
    return new CatalogQueries(
        Optional.of(of + "column_name, data_type FROM duckdb_columns(), w" + own),
        Optional.of(of + "unnest(constraint_column_names)" + keys + "'PRIMARY KEY'"),
        Optional.of(
            of
                + "constraint_index, unnest(constraint_column_names), referenced_table,"
                + " unnest(referenced_column_names), 'NO ACTION', 'NO ACTION'"
                + keys
                + "'FOREIGN KEY' ORDER BY constraint_index"),
        Optional.of(
            of
                + "'#' || constraint_index, true, unnest(constraint_column_names)"
                + keys
                + "'UNIQUE' UNION ALL SELECT index_name, is_unique,"
                + " CASE WHEN part[1] = '\"' THEN replace(part[2:-2], '\"\"', '\"') ELSE part END"
                + " FROM (SELECT *, unnest(CAST(expressions AS varchar[])) AS part"
                + " FROM duckdb_indexes(), w"
                + own
                + ")"),
        of + "constraint_name, expression" + keys + "'CHECK'",
        false);
  }

  /** Keys are told by their number. */
  @Override
  public String givenName(String found) {
    return found.startsWith("#") ? "" : found;
  }

  @Override
  public boolean keepsConstraintNames() {
    return false;
  }

  /** Its catalog shows an expression as its parser understood it. */
  @Override
  public Optional<String> wording(String condition) {
    String select = quoted("SELECT (" + condition + ")");
    return Optional.of(
        "SELECT substr(json_deserialize_sql(json_serialize_sql(" + select + ")), 8)");
  }

  @Override
  public String joinedTexts(String text, List<String> order, String between) {
    return joinedTexts("string_agg", text, order, between);
  }

  @Override
  public SqlText text() {
    return text;
  }

  @Override
  public SqlType keptAs(SqlType type) {
    return type instanceof SqlType.Varchar ? new SqlType.LongText() : type;
  }

  @Override
  public boolean constrainsComputed() {
    return false;
  }

  @Override
  public Computing computing() {
    return Computing.VIRTUAL;
  }

  @Override
  public String spell(SqlType type) {
    return switch (type) {
      case SqlType.Varchar t -> "varchar";
      case SqlType.LongText t -> "varchar";
      case SqlType.Whole t -> IsoDialect.whole(t.width());
      case SqlType.Decimal t -> "decimal(" + t.precision() + ", " + t.scale() + ")";
      case SqlType.AnyNumber t -> "double";
      case SqlType.TrueFalse t -> "boolean";
      case SqlType.Date t -> "date";
      case SqlType.Time t -> "time";
      case SqlType.Timestamp t -> t.zoned() ? "timestamp with time zone" : "timestamp";
      case SqlType.Uuid t -> "uuid";
      case SqlType.Bytes t -> "blob";
      case SqlType.Other t -> t.spelled();
    };
  }

  @Override
  public SqlType understand(String name, List<Integer> numbers) {
    return switch (name) {
      case "double" -> new SqlType.AnyNumber();
      default -> super.understand(name, numbers);
    };
  }

  @Override
  public String loaded(Value.Bytes file) {
    return file.hex().replaceAll("..", "\\\\x$0");
  }

  @Override
  public Optional<String> typeLoss(SqlType type) {
    return switch (type) {
      case SqlType.AnyNumber t ->
          Optional.of("DuckDB keeps numbers of any size as floating-point ones: 15 digits.");
      default -> Optional.empty();
    };
  }

  @Override
  public Optional<String> typeCheck(String column, SqlType type) {
    return type instanceof SqlType.Varchar text
        ? Optional.of("length(" + name(column) + ") <= " + text.length())
        : Optional.empty();
  }

  @Override
  public boolean addsReferences() {
    return false;
  }

  @Override
  public Optional<String> counter(SqlType type, boolean wholeKey) {
    return Optional.of(spell(type));
  }

  @Override
  public Optional<String> next(String sequence) {
    return Optional.of("nextval(" + quoted(name(sequence)) + ")");
  }

  @Override
  public boolean isNext(String found) {
    return found.startsWith("nextval(");
  }

  @Override
  public int decimalsOfSeconds(SqlType type) {
    return 6;
  }

  @Override
  String matches(String column, TextPattern pattern) {
    boolean grows =
        pattern
            .tree()
            .map(
                tree ->
                    PatternText.mostTimes(tree) > MOST_TIMES
                        || PatternText.size(tree, PROPERTY) > LARGEST_PATTERN)
            .orElseGet(() -> counted(pattern) > MOST_TIMES / 10);
    if (grows) {
      throw new InexpressibleException(
          "DuckDB takes no pattern that grows so large by its repetitions");
    }
    return "regexp_full_match(" + name(column) + ", " + quoted(pattern.expression()) + ")";
  }

  /** At most the product of all counts. */
  private static long counted(TextPattern pattern) {
    return COUNT
        .matcher(pattern.expression())
        .results()
        .mapToLong(count -> Long.parseLong(count.group(1)))
        .reduce(1, (a, b) -> Math.min(Integer.MAX_VALUE, Math.max(1, a) * Math.max(1, b)));
  }

  @Override
  public ReferentialAction keptAs(Event event, ReferentialAction action) {
    return ReferentialAction.NO_ACTION;
  }

  @Override
  public Optional<String> actionLoss(Event event, ReferentialAction action) {
    return switch (action) {
      case NO_ACTION, RESTRICT -> Optional.empty();
      case CASCADE, SET_NULL, SET_DEFAULT ->
          Optional.of("DuckDB has no actions; the change is refused instead.");
    };
  }

  @Override
  Optional<String> uuid() {
    return Optional.of("uuid()");
  }

  @Override
  Optional<String> timedUuid() {
    return Optional.of("uuidv7()");
  }

  @Override
  Optional<String> chance(int characters) {
    return Optional.of("CAST(floor(random() * " + characters + ") AS integer) + 1");
  }
}
