package joiner.ddl;

import java.util.ArrayList;
import java.util.List;
import joiner.catalog.Check;
import joiner.catalog.SqlExpression;

/** Finds the checks in the text of a statement that makes a table. */
public final class CheckClauses {
  private CheckClauses() {}

  /** Name and condition of each, in order; one without a name has an empty one. */
  public static List<Check> in(String createTable) {
    List<SqlToken> tokens = SqlToken.of(createTable);
    var checks = new ArrayList<Check>();
    for (int i = 0; i + 1 < tokens.size(); i++) {
      if (tokens.get(i).is("CHECK") && tokens.get(i + 1).is("(")) {
        int close = SqlToken.closing(tokens, SqlToken::text, i + 1);
        boolean named = i >= 2 && tokens.get(i - 2).is("CONSTRAINT");
        if (close == i + 1) {
          break; // The statement breaks off.
        }
        String condition =
            createTable.substring(tokens.get(i + 1).end(), tokens.get(close).start()).strip();
        checks.add(
            new Check(named ? tokens.get(i - 1).name() : "", SqlExpression.found(condition)));
        i = close;
      }
    }
    return checks;
  }
}
