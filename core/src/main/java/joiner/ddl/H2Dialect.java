package joiner.ddl;

import joiner.expression.SqlText;
import joiner.model.FieldType;
import joiner.naming.Engines;
import joiner.naming.IdentifierRules;

/** H2. */
final class H2Dialect extends IsoDialect {
  private final SqlText text = new H2Text(this::name);

  @Override
  public String id() {
    return "h2";
  }

  @Override
  public IdentifierRules identifiers() {
    return Engines.H2;
  }

  @Override
  SqlText text() {
    return text;
  }

  @Override
  String longText() {
    return "varchar";
  }

  @Override
  String anyNumber() {
    return "decfloat";
  }

  @Override
  String matches(String column, String pattern) {
    return "REGEXP_LIKE(" + name(column) + ", " + quoted("^(?:" + pattern + ")$") + ")";
  }

  @Override
  int decimalsOfSeconds(FieldType type) {
    return type instanceof FieldType.Time ? 0 : 6;
  }
}
