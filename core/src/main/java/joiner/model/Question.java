package joiner.model;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.UnaryOperator;
import joiner.expression.Formula;

/**
 * What somebody asks across tables: tables joined into a tree, what is shown of their rows, and
 * which rows count. A line of the answer stands for each different combination of the values shown
 * and of the rows that are told apart.
 *
 * @param name what a database calls it as a view
 * @param roles the tables as they are joined; the first has no link, each other one is linked to
 *     one before it
 * @param where conditions over the roles, all of which hold
 * @param having conditions over what a line shows, by the names of its columns; all hold
 * @param parameters values that conditions leave open and that are filled in when it is asked
 * @param order by what lines are sorted; what remains equal is sorted by all columns
 * @param first so many lines only
 */
public record Question(
    QuestionId id,
    String name,
    String label,
    List<Role> roles,
    List<Column> columns,
    List<Formula> where,
    List<Formula> having,
    List<Parameter> parameters,
    List<Order> order,
    OptionalInt first) {

  public Question {
    roles = List.copyOf(roles);
    columns = List.copyOf(columns);
    where = List.copyOf(where);
    having = List.copyOf(having);
    parameters = List.copyOf(parameters);
    order = List.copyOf(order);
    for (int i = 0; i < roles.size(); i++) {
      List<Role> before = roles.subList(0, i);
      Role role = roles.get(i);
      boolean linked =
          role.link()
              .map(link -> before.stream().anyMatch(other -> other.name().equals(link.from())))
              .orElse(before.isEmpty());
      if (!linked || before.stream().anyMatch(other -> other.name().equals(role.name()))) {
        throw new IllegalArgumentException(role + " does not stand in a tree of joins");
      }
    }
  }

  /**
   * A table as it is joined.
   *
   * @param name what formulas of the question call it
   * @param apart whether rows of it are told apart though they show the same
   */
  public record Role(String name, TableId table, Optional<Link> link, boolean apart) {
    /** The same with its rows told apart, or not. */
    public Role withApart(boolean other) {
      return new Role(name, table, link, other);
    }

    /** The same with rows kept that it has no match for, or not. */
    public Role withKept(boolean kept) {
      return new Role(
          name, table, link.map(l -> new Link(l.from(), l.over(), l.down(), kept)), apart);
    }
  }

  /**
   * How a table is joined to one before it.
   *
   * @param from the name of the role before
   * @param over the relationship
   * @param down whether it leads from the parent to its children
   * @param kept whether rows that have no match are kept, without values here
   */
  public record Link(String from, RelationshipId over, boolean down, boolean kept) {}

  /**
   * A value that conditions leave open, named there with a colon before it as in embedded SQL
   * (ISO/IEC 9075-2, host parameter names).
   *
   * @param name without the colon
   * @param like a field of one of the roles, or a number; what is filled in is of its type
   * @param text what is filled in, as people type it; may be empty
   */
  public record Parameter(String name, Formula like, String text) {
    /** What conditions call it. */
    public String written() {
      return ":" + name;
    }

    /** The same with another value. */
    public Parameter withText(String other) {
      return new Parameter(name, like, other);
    }
  }

  /** What is shown. */
  public sealed interface Column {
    /** What people read above it. */
    String label();

    /** The same under another label. */
    Column withLabel(String other);
  }

  /** A value of the joined rows. */
  public record Shown(String label, Formula of) implements Column {
    @Override
    public Shown withLabel(String other) {
      return new Shown(other, of);
    }
  }

  /**
   * What all rows of a role in a line come to.
   *
   * @param of the value of each row; {@link Fold#COUNT} has none
   */
  public record Folded(
      String label, Fold fold, String role, Optional<Formula> of, Counting counting)
      implements Column {
    /** The same counted in another way. */
    public Folded withCounting(Counting other) {
      return new Folded(label, fold, role, of, other);
    }

    @Override
    public Folded withLabel(String other) {
      return new Folded(other, fold, role, of, counting);
    }
  }

  /** What is made of values; rows without one are passed over. */
  public enum Fold {
    /** How many rows there are. */
    COUNT,
    /** How many different values there are. */
    DIFFERENT,
    SUM,
    AVERAGE,
    LEAST,
    GREATEST;

    /** Whether it says something else where a row comes twice. */
    public boolean hangsOnRepetition() {
      return this == COUNT || this == SUM || this == AVERAGE;
    }
  }

  /** How often a row counts that joins have repeated within a line. */
  public sealed interface Counting {
    /** As often as it was repeated, as SQL has it. */
    record AsJoined() implements Counting {}

    /** Once in each line it is part of. */
    record Once() implements Counting {}

    /** For each row of another role, before anything else is joined. */
    record Per(String role) implements Counting {}

    Counting AS_JOINED = new AsJoined();
    Counting ONCE = new Once();
  }

  /** By which column lines are sorted; what has no value comes last. */
  public record Order(int column, boolean descending) {}

  /** The same with roles called otherwise, and with other formulas. */
  public Question renamed(Map<String, String> names, UnaryOperator<Formula> formulas) {
    List<Role> called =
        roles.stream()
            .map(
                role ->
                    new Role(
                        names.get(role.name()),
                        role.table(),
                        role.link()
                            .map(l -> new Link(names.get(l.from()), l.over(), l.down(), l.kept())),
                        role.apart()))
            .toList();
    List<Column> shown =
        columns.stream()
            .map(
                column ->
                    switch (column) {
                      case Shown s -> (Column) new Shown(s.label(), formulas.apply(s.of()));
                      case Folded f ->
                          new Folded(
                              f.label(),
                              f.fold(),
                              names.getOrDefault(f.role(), f.role()),
                              f.of().map(formulas),
                              f.counting() instanceof Counting.Per(String per)
                                  ? new Counting.Per(names.getOrDefault(per, per))
                                  : f.counting());
                    })
            .toList();
    List<Parameter> open =
        parameters.stream()
            .map(p -> new Parameter(p.name(), formulas.apply(p.like()), p.text()))
            .toList();
    return withRoles(called)
        .withColumns(shown)
        .withWhere(where.stream().map(formulas).toList())
        .withParameters(open);
  }

  /** The role of that name. */
  public Role role(String wanted) {
    return roles.stream()
        .filter(role -> role.name().equals(wanted))
        .findFirst()
        .orElseThrow(() -> new IllegalArgumentException(label + " has no role " + wanted));
  }

  /** The same with one of its roles changed. */
  public Question withRole(String role, UnaryOperator<Role> change) {
    return withRoles(roles.stream().map(r -> r.name().equals(role) ? change.apply(r) : r).toList());
  }

  /** The same over other joins. */
  public Question withRoles(List<Role> other) {
    return new Question(id, name, label, other, columns, where, having, parameters, order, first);
  }

  /** The same with other columns. */
  public Question withColumns(List<Column> other) {
    return new Question(id, name, label, roles, other, where, having, parameters, order, first);
  }

  /** The same under other conditions. */
  public Question withWhere(List<Formula> other) {
    return new Question(id, name, label, roles, columns, other, having, parameters, order, first);
  }

  /** The same of which other lines are left. */
  public Question withHaving(List<Formula> other) {
    return new Question(id, name, label, roles, columns, where, other, parameters, order, first);
  }

  /** The same with other values left open or filled in. */
  public Question withParameters(List<Parameter> other) {
    return new Question(id, name, label, roles, columns, where, having, other, order, first);
  }

  /** The same in another order. */
  public Question withOrder(List<Order> other) {
    return new Question(id, name, label, roles, columns, where, having, parameters, other, first);
  }

  /** The same cut after so many lines, or not. */
  public Question withFirst(OptionalInt other) {
    return new Question(id, name, label, roles, columns, where, having, parameters, order, other);
  }

  /** The same kept under another name. */
  public Question withNames(QuestionId otherId, String otherName, String otherLabel) {
    return new Question(
        otherId, otherName, otherLabel, roles, columns, where, having, parameters, order, first);
  }
}
