package joiner.model;

import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.UnaryOperator;
import joiner.expression.Formula;

/** What a rule demands, of each row or of several together. A closed set. */
public sealed interface Demand {
  /**
   * A condition that is false for no row.
   *
   * @param condition an SQL search condition over field names, as typed; may be wrong while it is
   *     edited
   */
  record OfRow(Formula condition) implements Demand {}

  /**
   * How many rows refer to each row, or what a value of theirs adds up to, lies between bounds. A
   * sum of no values is unknown, and keeps every bound.
   *
   * @param over the relationship in which the rule's table is the parent
   * @param of the value that is added up, as formulas of the child say it; empty: rows are counted
   * @param where which rows count; all where it says nothing
   * @param least a number as it is typed
   * @param most a number as it is typed
   */
  record OfChildren(
      RelationshipId over,
      Optional<Formula> of,
      Optional<Formula> where,
      Optional<String> least,
      Optional<String> most)
      implements Demand {}

  /**
   * Of the rows that a condition is true of no two have the same values in some fields; rows with
   * an empty part do not count.
   *
   * @param per none: there is one such row in the whole table
   */
  record Alone(List<FieldId> per, Formula where) implements Demand {
    public Alone {
      per = List.copyOf(per);
    }
  }

  /**
   * Periods of rows that have the same values in some fields do not overlap. A period without an
   * end goes on for ever; one without a beginning, or that ends before it begins, does not count.
   *
   * @param per none: no two periods in the whole table
   * @param from the first moment of a period
   * @param until its end
   * @param closed whether the end belongs to the period, as a last day does
   * @param gapless whether each period begins where one before it ends, but for the first
   */
  record Apart(List<FieldId> per, FieldId from, FieldId until, boolean closed, boolean gapless)
      implements Demand {
    public Apart {
      per = List.copyOf(per);
    }
  }

  /**
   * No row leads back to itself.
   *
   * @param over a relationship of the table to itself
   */
  record Tree(RelationshipId over) implements Demand {}

  /**
   * Where a condition is true of a row, some of its values stay as they are. It is about changes,
   * so that no row breaks it by itself.
   */
  record Stays(List<FieldId> fields, Formula when) implements Demand {
    public Stays {
      fields = List.copyOf(fields);
    }
  }

  /**
   * The same demand with its formulas said otherwise.
   *
   * @param own of the rule's table
   * @param child of the table at the other end of a relationship
   */
  default Demand withFormulas(
      UnaryOperator<Formula> own, BiFunction<RelationshipId, Formula, Formula> child) {
    return switch (this) {
      case OfRow(Formula condition) -> new OfRow(own.apply(condition));
      case OfChildren(var over, var of, var where, var least, var most) ->
          new OfChildren(
              over,
              of.map(formula -> child.apply(over, formula)),
              where.map(formula -> child.apply(over, formula)),
              least,
              most);
      case Alone(var per, Formula where) -> new Alone(per, own.apply(where));
      case Stays(var fields, Formula when) -> new Stays(fields, own.apply(when));
      case Apart apart -> apart;
      case Tree tree -> tree;
    };
  }

  /** The same demand of the same things under other ids. */
  default Demand under(UnaryOperator<FieldId> fields, UnaryOperator<RelationshipId> relationships) {
    return switch (this) {
      case OfRow row -> row;
      case OfChildren(var over, var of, var where, var least, var most) ->
          new OfChildren(relationships.apply(over), of, where, least, most);
      case Alone(var per, var where) -> new Alone(per.stream().map(fields).toList(), where);
      case Apart(var per, var from, var until, var closed, var gapless) ->
          new Apart(
              per.stream().map(fields).toList(),
              fields.apply(from),
              fields.apply(until),
              closed,
              gapless);
      case Tree(var over) -> new Tree(relationships.apply(over));
      case Stays(var some, var when) -> new Stays(some.stream().map(fields).toList(), when);
    };
  }

  /** Whether it hangs on rows of other tables, whatever these are. */
  default boolean reachesOut() {
    return switch (this) {
      case OfRow(Formula condition) -> condition.reachesOut();
      case OfChildren children -> true;
      case Alone(var per, Formula where) -> where.reachesOut();
      case Stays(var fields, Formula when) -> when.reachesOut();
      case Apart apart -> false;
      case Tree tree -> true;
    };
  }
}
