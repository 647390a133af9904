package joiner;

import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.meaning.TableMeaning;
import joiner.model.Table;

/** Formulas read against a table, as tests write them. */
public final class Formulas {
  private Formulas() {}

  /** A condition on the rows of a table. */
  public static Checked condition(String text, Table table) {
    return new Formula(text).condition(TableMeaning.of(table).scope());
  }

  /** A value of the rows of a table. */
  public static Checked value(String text, Table table) {
    return new Formula(text).value(TableMeaning.of(table).scope());
  }
}
