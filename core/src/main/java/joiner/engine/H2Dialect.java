package joiner.engine;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.catalog.Generated;
import joiner.catalog.SqlType;
import joiner.expression.SqlText;
import joiner.naming.IdentifierRules;
import joiner.shape.TextPattern;

/** H2. */
final class H2Dialect extends IsoDialect {
  private static final IdentifierRules NAMES =
      new IdentifierRules(
          "H2",
          256,
          IdentifierRules.Measure.CHARACTERS,
          false,
          IdentifierRules.NONE,
          IdentifierRules.Folding.UPPER,
          ReservedWords.of("h2"));

  private final SqlText text = new H2Text(this::name);

  H2Dialect() {
    super(Profile.inFiles("h2", NAMES, ""));
  }

  @Override
  public boolean isFileOf(String head) {
    return head.startsWith("H:2,") || head.startsWith("H:3,");
  }

  /** It puts its own ending behind the name. */
  @Override
  public String placeOf(Path file) {
    return super.placeOf(file).replaceFirst("\\.mv\\.db$", "");
  }

  @Override
  public Map<String, String> readingProperties() {
    return Map.of("IFEXISTS", "TRUE");
  }

  @Override
  public Loading loading() {
    return Loading.PARAMETERS;
  }

  @Override
  public List<String> caveats() {
    return List.of("Characters beyond U+FFFF count twice in lengths.");
  }

  @Override
  public AroundQueries around() {
    return new AroundQueries(
        Optional.of(
            "SELECT table_name, 'false', 'CREATE VIEW \"' || REPLACE(table_name, '\"', '\"\"')"
                + " || '\" AS ' || view_definition FROM information_schema.views"
                + " WHERE table_schema = SCHEMA()"),
        Optional.of(
            "SELECT trigger_name, event_object_table, action_timing, event_manipulation,"
                + " 'CREATE TRIGGER \"' || REPLACE(trigger_name, '\"', '\"\"') || '\" '"
                + " || action_timing || ' ' || event_manipulation || ' ON \"'"
                + " || REPLACE(event_object_table, '\"', '\"\"') || '\" FOR EACH '"
                + " || action_orientation || ' CALL ''' || java_class || ''''"
                + " FROM information_schema.triggers WHERE trigger_schema = SCHEMA()"),
        Optional.empty(),
        Optional.of(
            "SELECT table_name, column_name, generation_expression, 'true'"
                + " FROM information_schema.columns"
                + " WHERE table_schema = SCHEMA() AND is_generated = 'ALWAYS'"),
        Optional.of(
            "SELECT '\"' || REPLACE(grantee, '\"', '\"\"') || '\"', privilege_type, table_name,"
                + " is_grantable FROM information_schema.table_privileges"
                + " WHERE table_schema = SCHEMA()"),
        false);
  }

  /** It computes them when a row is written, and has no word for that. */
  @Override
  String generatedClause(Generated generated) {
    return " GENERATED ALWAYS AS (" + generated.sql() + ")";
  }

  @Override
  public Alter alter() {
    return new H2Alter(this);
  }

  @Override
  public CatalogQueries queries() {
    return CatalogQueries.ofChecks(
        "SELECT t.CONSTRAINT_NAME, c.CHECK_CLAUSE FROM INFORMATION_SCHEMA.TABLE_CONSTRAINTS t"
            + " JOIN INFORMATION_SCHEMA.CHECK_CONSTRAINTS c"
            + " ON c.CONSTRAINT_SCHEMA = t.CONSTRAINT_SCHEMA"
            + " AND c.CONSTRAINT_NAME = t.CONSTRAINT_NAME"
            + " WHERE t.TABLE_SCHEMA = CURRENT_SCHEMA AND t.TABLE_NAME = ?");
  }

  @Override
  public boolean isMissing(String sqlState, int code) {
    return sqlState.equals("90146") || sqlState.equals("90124");
  }

  @Override
  public SqlText text() {
    return text;
  }

  @Override
  String bytes() {
    return "blob";
  }

  @Override
  public String longText() {
    return "varchar";
  }

  @Override
  public String anyNumber() {
    return "decfloat";
  }

  @Override
  String matches(String column, TextPattern pattern) {
    String java = PatternText.whole(pattern.tree(), PatternText.Flavour.JAVA, "\\A", "\\z");
    return "REGEXP_LIKE(" + name(column) + ", " + quoted(java) + ")";
  }

  @Override
  public int decimalsOfSeconds(SqlType type) {
    return type instanceof SqlType.Time ? 0 : 6;
  }

  @Override
  public String upkeepLoss() {
    return "H2 takes triggers only as classes of Java";
  }

  @Override
  Optional<String> uuid() {
    return Optional.of("RANDOM_UUID()");
  }

  @Override
  Optional<String> timedUuid() {
    return Optional.of("RANDOM_UUID(7)");
  }

  @Override
  Optional<String> chance(int characters) {
    return Optional.of("CAST(FLOOR(RAND() * " + characters + ") AS integer) + 1");
  }
}
