package joiner.engine;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import joiner.catalog.Exclusion;
import joiner.catalog.SqlType;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.SqlText;
import joiner.expression.Value;
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
  public Optional<Storage> storage() {
    return Optional.of(new PostgreSqlStorage());
  }

  @Override
  public Loading loading() {
    return Loading.COPY;
  }

  @Override
  public AroundQueries around() {
    return new AroundQueries(
        Optional.of(
            "SELECT viewname, 'false', 'CREATE VIEW ' || quote_ident(viewname) || ' AS '"
                + " || rtrim(definition, '; ') FROM pg_views WHERE schemaname = current_schema()"
                + " UNION ALL SELECT matviewname, 'true', 'CREATE MATERIALIZED VIEW '"
                + " || quote_ident(matviewname) || ' AS ' || rtrim(definition, '; ')"
                + " FROM pg_matviews WHERE schemaname = current_schema()"),
        Optional.of(
            "SELECT t.tgname, c.relname, CASE WHEN t.tgtype & 64 <> 0 THEN 'INSTEAD OF'"
                + " WHEN t.tgtype & 2 <> 0 THEN 'BEFORE' ELSE 'AFTER' END,"
                + " concat_ws(',', CASE WHEN t.tgtype & 4 <> 0 THEN 'INSERT' END,"
                + " CASE WHEN t.tgtype & 8 <> 0 THEN 'DELETE' END,"
                + " CASE WHEN t.tgtype & 16 <> 0 THEN 'UPDATE' END,"
                + " CASE WHEN t.tgtype & 32 <> 0 THEN 'TRUNCATE' END), pg_get_triggerdef(t.oid)"
                + " FROM pg_trigger t JOIN pg_class c ON c.oid = t.tgrelid"
                + " JOIN pg_namespace n ON n.oid = c.relnamespace"
                + " WHERE NOT t.tgisinternal AND n.nspname = current_schema() ORDER BY t.oid"),
        Optional.of(
            "SELECT i.relname, c.relname, 'true', pg_get_indexdef(x.indexrelid)"
                + " FROM pg_index x JOIN pg_class i ON i.oid = x.indexrelid"
                + " JOIN pg_class c ON c.oid = x.indrelid"
                + " JOIN pg_namespace n ON n.oid = c.relnamespace"
                + " WHERE x.indisunique AND (x.indpred IS NOT NULL OR x.indexprs IS NOT NULL)"
                + " AND n.nspname = current_schema()"
                + " UNION ALL SELECT o.conname, c.relname, 'false',"
                + " 'ALTER TABLE ' || quote_ident(c.relname) || ' ADD CONSTRAINT '"
                + " || quote_ident(o.conname) || ' ' || pg_get_constraintdef(o.oid)"
                + " FROM pg_constraint o JOIN pg_class c ON c.oid = o.conrelid"
                + " JOIN pg_namespace n ON n.oid = c.relnamespace"
                + " WHERE o.contype = 'x' AND n.nspname = current_schema()"),
        Optional.of(
            "SELECT c.relname, a.attname, pg_get_expr(d.adbin, d.adrelid), a.attgenerated = 's'"
                + " FROM pg_attribute a JOIN pg_class c ON c.oid = a.attrelid"
                + " JOIN pg_namespace n ON n.oid = c.relnamespace"
                + " JOIN pg_attrdef d ON d.adrelid = a.attrelid AND d.adnum = a.attnum"
                + " WHERE a.attgenerated <> '' AND n.nspname = current_schema()"),
        Optional.of(
            "SELECT CASE grantee WHEN 'PUBLIC' THEN 'PUBLIC' ELSE quote_ident(grantee) END,"
                + " privilege_type, table_name, is_grantable"
                + " FROM information_schema.table_privileges"
                + " WHERE table_schema = current_schema() AND grantee <> grantor"),
        false);
  }

  @Override
  public boolean hasPartialIndexes() {
    return true;
  }

  @Override
  public boolean excludesPeriods() {
    return true;
  }

  /** Scalars are compared beside ranges by an extension that comes with the engine. */
  @Override
  public Exclusion apart(String name, Periods p) {
    String from = name(p.from());
    String until = name(p.until());
    String range =
        switch (p.type()) {
          case SqlType.Date date -> "daterange";
          case SqlType.Timestamp(boolean zoned) -> zoned ? "tstzrange" : "tsrange";
          case SqlType.Whole whole -> "int8range";
          default -> "numrange";
        };
    String compared =
        p.per().stream().map(column -> name(column) + " WITH =, ").collect(Collectors.joining());
    String bounds = p.closed() ? "'[]'" : "'[)'";
    String sql =
        "ALTER TABLE %s ADD CONSTRAINT %s EXCLUDE USING gist (%s%s(%s, %s, %s) WITH &&)"
            .formatted(name(p.table()), name(name), compared, range, from, until, bounds);
    String counts =
        " WHERE (%s IS NOT NULL AND (%s IS NULL OR %s %s %s))"
            .formatted(from, until, from, p.closed() ? "<=" : "<", until);
    return new Exclusion(
        name,
        p.table(),
        false,
        p.per().isEmpty()
            ? Optional.empty()
            : Optional.of("CREATE EXTENSION IF NOT EXISTS btree_gist"),
        sql + counts);
  }

  @Override
  public boolean followsRows() {
    return true;
  }

  @Override
  public Alter alter() {
    return new PostgreSqlAlter(this);
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
  public String joinedTexts(String text, List<String> order, String between) {
    return joinedTexts("string_agg", text, order, between);
  }

  @Override
  public SqlText text() {
    return text;
  }

  @Override
  public String loaded(Value.Bytes file) {
    return "\\x" + file.hex();
  }

  /** How it writes dates and moments depends on a setting, so that it computes none into texts. */
  @Override
  void requireComputable(Expression tree) {
    boolean dated =
        tree instanceof Expression.ToText text
            && (text.kind() == Kind.DATE || text.kind() == Kind.DATE_TIME);
    if (dated) {
      throw new InexpressibleException(
          "PostgreSQL computes no column from a date as text: how it writes it is a setting");
    }
    tree.parts().forEach(this::requireComputable);
  }

  @Override
  String bytes() {
    return "bytea";
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

  @Override
  public Optional<Upkeep> upkeep() {
    return Optional.of(new PostgreSqlUpkeep(this));
  }

  @Override
  Optional<String> uuid() {
    return Optional.of("gen_random_uuid()");
  }

  /** The first 48 bits are the milliseconds; of a random UUID of version 4 two bits make it 7. */
  @Override
  Optional<String> timedUuid() {
    return Optional.of(
        "CAST(encode(set_bit(set_bit(overlay(uuid_send(gen_random_uuid()) PLACING"
            + " substring(int8send(CAST(floor(extract(epoch FROM clock_timestamp()) * 1000)"
            + " AS bigint)) FROM 3) FROM 1 FOR 6), 52, 1), 53, 1), 'hex') AS uuid)");
  }

  @Override
  Optional<String> chance(int characters) {
    return Optional.of("CAST(floor(random() * " + characters + ") AS integer) + 1");
  }

  @Override
  Expression asValue(Expression tree) {
    return Constants.folded(tree);
  }
}
