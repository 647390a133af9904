package joiner.ddl;

import joiner.expression.SqlText;
import joiner.model.FieldType;
import joiner.naming.Engines;
import joiner.naming.IdentifierRules;

/** PostgreSQL. */
final class PostgreSqlDialect extends IsoDialect {
  private final SqlText text = new PostgreSqlText(this::name);

  @Override
  public String id() {
    return "postgresql";
  }

  @Override
  public IdentifierRules identifiers() {
    return Engines.POSTGRESQL;
  }

  @Override
  SqlText text() {
    return text;
  }

  @Override
  String longText() {
    return "text";
  }

  @Override
  String anyNumber() {
    return "numeric";
  }

  @Override
  String matches(String column, String pattern) {
    return name(column) + " ~ " + quoted("^(?:" + pattern + ")$");
  }

  @Override
  int decimalsOfSeconds(FieldType type) {
    return 6;
  }
}
