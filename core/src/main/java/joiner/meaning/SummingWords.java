package joiner.meaning;

import java.util.List;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Place;
import joiner.model.Design;
import joiner.model.Origin;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.Table;

/** What is made of rows that refer to a row, in words. */
public final class SummingWords {
  private SummingWords() {}

  /** As in "number of its pieces where defect IS NOT NULL"; what is gone is said so. */
  public static String of(Design design, Origin.SummedUp summed) {
    return design
        .find(summed.over())
        .map(over -> of(design, summed, over))
        .orElse("of rows that belong to it no more");
  }

  private static String of(Design design, Origin.SummedUp summed, Relationship over) {
    Table child = design.table(over.child());
    String whose = " of its " + rows(design, over);
    String value = summed.of().map(formula -> value(formula, child)).orElse("what is not said yet");
    String made =
        switch (summed.how()) {
          case COUNT -> "number" + whose + (summed.of().isPresent() ? " that have " + value : "");
          case SUM -> "sum of " + value + whose;
          case LEAST -> "least " + value + whose;
          case GREATEST -> "greatest " + value + whose;
          case AVERAGE -> "mean " + value + whose;
          case JOINED -> value + whose + ", joined";
          case ANY -> "answer whether any" + whose + " has " + value;
          case ALL -> "answer whether all" + whose + " have " + value;
        };
    return made + summed.where().map(where -> " where " + where.text()).orElse("");
  }

  /** What the rows are called; by which fields they refer, where they do in several ways. */
  public static String rows(Design design, Relationship over) {
    return told(design, over, design.table(over.child()).noun().plural());
  }

  /**
   * One end of a relationship, and by which fields where a table refers to another in several ways.
   */
  static String told(Design design, Relationship over, String end) {
    boolean alone =
        !over.child().equals(over.parent())
            && design.parentsOf(over.child()).stream()
                    .filter(other -> other.parent().equals(over.parent()))
                    .count()
                == 1;
    List<String> by = design.table(over.child()).labelsOf(over.childFields());
    return alone ? end : end + " (" + String.join(", ", by) + ")";
  }

  private static String value(Formula formula, Table child) {
    return formula.value(new TableScope(child))
            instanceof Checked.Sound(Expression.FieldRef(OwnField own, Place place), var type)
        ? child.field(own.field()).label()
        : formula.text();
  }
}
