package joiner.engine;

import java.util.List;
import joiner.catalog.SqlType;
import joiner.expression.SqlText;
import joiner.expression.Width;
import joiner.naming.IdentifierRules;
import joiner.shape.TextPattern;

/** PostgreSQL. */
final class PostgreSqlDialect extends IsoDialect {
  private static final IdentifierRules NAMES =
      new IdentifierRules(
          "PostgreSQL",
          63,
          IdentifierRules.Measure.BYTES,
          true,
          IdentifierRules.NONE,
          IdentifierRules.Folding.LOWER,
          ReservedWords.of("postgresql"));

  private final SqlText text = new PostgreSqlText(this::name);

  PostgreSqlDialect() {
    super(Profile.onServers("postgresql", NAMES, 5432).undoingDefinitions());
  }

  @Override
  public Loading loading() {
    return Loading.COPY;
  }

  @Override
  public CatalogQueries queries() {
    return CatalogQueries.ofChecks(
        "SELECT c.conname, pg_get_constraintdef(c.oid)"
            + " FROM pg_constraint c JOIN pg_class t ON t.oid = c.conrelid"
            + " JOIN pg_namespace n ON n.oid = t.relnamespace"
            + " WHERE c.contype = 'c' AND n.nspname = current_schema() AND t.relname = ?");
  }

  @Override
  public SqlType understand(String name, List<Integer> numbers) {
    return switch (name) {
      case "int2", "smallserial" -> new SqlType.Whole(Width.BITS_16);
      case "int4", "serial" -> new SqlType.Whole(Width.BITS_32);
      case "int8", "bigserial" -> new SqlType.Whole(Width.BITS_64);
      case "bool" -> new SqlType.TrueFalse();
      case "timestamptz" -> new SqlType.Timestamp(true);
      default -> super.understand(name, numbers);
    };
  }

  @Override
  public SqlText text() {
    return text;
  }

  @Override
  public String longText() {
    return "text";
  }

  @Override
  public String anyNumber() {
    return "numeric";
  }

  @Override
  String matches(String column, TextPattern pattern) {
    String own = PatternText.whole(pattern.tree(), PatternText.Flavour.ADVANCED, "^", "$");
    return name(column) + " ~ " + quoted(own);
  }

  @Override
  public int decimalsOfSeconds(SqlType type) {
    return 6;
  }
}
