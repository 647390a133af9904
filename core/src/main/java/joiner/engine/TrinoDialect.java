package joiner.engine;

import java.util.Optional;
import joiner.catalog.SqlType;
import joiner.expression.SqlText;
import joiner.naming.IdentifierRules;
import joiner.shape.TextPattern;

/**
 * Trino, seen with 483: an engine of many machines over data that lies elsewhere. It keeps no keys,
 * checks or defaults, so it is asked what rows hold, and nothing is shipped to it.
 */
final class TrinoDialect extends Dialect {
  private static final IdentifierRules NAMES =
      new IdentifierRules(
          "Trino",
          Integer.MAX_VALUE,
          IdentifierRules.Measure.CHARACTERS,
          false,
          IdentifierRules.NONE,
          IdentifierRules.Folding.LOWER,
          ReservedWords.of("trino"));

  private final SqlText text = new TrinoText(this::name);

  TrinoDialect() {
    super(Profile.onServers("trino", NAMES, 8080).withDriver("trino-jdbc"));
  }

  @Override
  public Alter alter() {
    return new Alter(this);
  }

  /** It has no checks. */
  @Override
  public CatalogQueries queries() {
    return CatalogQueries.ofChecks("SELECT '', '' WHERE ? IS NULL");
  }

  @Override
  public SqlText text() {
    return text;
  }

  @Override
  public SqlType keptAs(SqlType type) {
    return type instanceof SqlType.AnyNumber ? new SqlType.Decimal(38, 10) : type;
  }

  @Override
  public Optional<String> typeLoss(SqlType type) {
    return type instanceof SqlType.AnyNumber
        ? Optional.of("Trino keeps 28 digits before the point and 10 after it.")
        : Optional.empty();
  }

  @Override
  public String spell(SqlType type) {
    return switch (type) {
      case SqlType.Varchar t -> "varchar(" + t.length() + ")";
      case SqlType.LongText t -> "varchar";
      case SqlType.Whole t -> IsoDialect.whole(t.width());
      case SqlType.Decimal t -> "decimal(" + t.precision() + ", " + t.scale() + ")";
      case SqlType.AnyNumber t -> "decimal(38, 10)";
      case SqlType.TrueFalse t -> "boolean";
      case SqlType.Date t -> "date";
      case SqlType.Time t -> "time(6)";
      case SqlType.Timestamp t -> t.zoned() ? "timestamp(6) with time zone" : "timestamp(6)";
      case SqlType.Uuid t -> "uuid";
      case SqlType.Bytes t -> "varbinary";
      case SqlType.Other t -> t.spelled();
    };
  }

  @Override
  public Computing computing() {
    return Computing.NOT;
  }

  @Override
  public Optional<String> counter(SqlType type, boolean wholeKey) {
    return Optional.empty();
  }

  @Override
  public boolean addsReferences() {
    return false;
  }

  @Override
  public int decimalsOfSeconds(SqlType type) {
    return 6;
  }

  @Override
  String matches(String column, TextPattern pattern) {
    String java = PatternText.whole(pattern.tree(), PatternText.Flavour.JAVA, "\\A", "\\z");
    return "regexp_like(" + name(column) + ", " + quoted(java) + ")";
  }
}
