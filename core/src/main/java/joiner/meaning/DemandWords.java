package joiner.meaning;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.expression.Formula;
import joiner.model.Demand;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.naming.WordList;

/** What a rule demands, in words. */
public final class DemandWords {
  private static final String GONE = "what is gone";

  private DemandWords() {}

  /** A condition as it is typed, and of what is demanded of several rows a sentence. */
  public static String of(Design design, Table table, Demand demand) {
    return switch (demand) {
      case Demand.OfRow(Formula condition) -> condition.text();
      case Demand.OfChildren children -> children(design, table, children);
      case Demand.Alone(List<FieldId> per, Formula where) ->
          per(table, per, "There")
              + " is at most one "
              + table.noun().singular()
              + " where "
              + where.text()
              + ".";
      case Demand.Apart apart -> apart(table, apart);
      case Demand.Stays(List<FieldId> fields, Formula when) ->
          "Where "
              + when.text()
              + ", "
              + WordList.and(fields.stream().map(f -> label(table, f)).toList())
              + (fields.size() == 1 ? " stays as it is." : " stay as they are.");
      case Demand.Tree(RelationshipId over) ->
          design
              .find(over)
              .map(
                  r ->
                      "No "
                          + table.noun().singular()
                          + " "
                          + r.childRole()
                          + " itself, over however many others.")
              .orElse("No circle of " + GONE + ".");
    };
  }

  private static String per(Table table, List<FieldId> per, String otherwise) {
    return per.isEmpty()
        ? otherwise
        : "For each " + WordList.and(per.stream().map(f -> label(table, f)).toList()) + " there";
  }

  private static String label(Table table, FieldId field) {
    return table.hasField(field) ? table.field(field).label() : GONE;
  }

  private static String children(Design design, Table table, Demand.OfChildren children) {
    Optional<Table> child =
        design.find(children.over()).map(Relationship::child).map(design::table);
    String rows = child.map(c -> c.noun().plural()).orElse(GONE);
    String where = children.where().map(w -> " where " + w.text()).orElse("");
    String bounds = bounds(children);
    String each = "Each " + table.noun().singular();
    return children
        .of()
        .map(
            of ->
                "The sum of "
                    + of.text()
                    + " over the "
                    + rows
                    + where
                    + " of "
                    + table.noun().indefinite()
                    + " is "
                    + bounds
                    + ".")
        .orElse(each + " has " + bounds + " " + rows + where + ".");
  }

  private static String bounds(Demand.OfChildren children) {
    if (children.least().isPresent() && children.least().equals(children.most())) {
      return "exactly " + children.least().get();
    }
    return WordList.and(
        Stream.of(
                children.least().map(least -> "at least " + least),
                children.most().map(most -> "at most " + most))
            .flatMap(Optional::stream)
            .toList());
  }

  private static String apart(Table table, Demand.Apart apart) {
    String period =
        "the periods from "
            + label(table, apart.from())
            + (apart.closed() ? " up to and with " : " to ")
            + label(table, apart.until());
    String per =
        apart.per().isEmpty()
            ? ""
            : "For each "
                + WordList.and(apart.per().stream().map(f -> label(table, f)).toList())
                + " ";
    String says = per + period + " do not overlap" + (apart.gapless() ? " and leave no gap." : ".");
    return Character.toUpperCase(says.charAt(0)) + says.substring(1);
  }
}
