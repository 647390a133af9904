package joiner.joining;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.expression.Expression;
import joiner.expression.ValueType;
import joiner.meaning.AskedField;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.Multiplicity;
import joiner.model.Question;
import joiner.model.Relationship;
import joiner.model.Table;

/**
 * A question whose formulas are read, in terms of fields that are entered. Roles are places, from
 * 0; each stands behind the one it is joined to.
 */
public final class Bound {
  /** The parent of the first role. */
  static final int NONE = -1;

  /**
   * A role with its table.
   *
   * @param from the role it is joined to; {@link #NONE} for the first
   * @param over by what; empty for the first
   * @param key by which its rows are told apart
   */
  public record Joined(
      String name,
      Table table,
      int from,
      Optional<Relationship> over,
      boolean down,
      boolean kept,
      boolean apart,
      List<FieldId> key) {
    /** The same joined to the role at another place. */
    Joined from(int other) {
      return new Joined(name, table, other, over, down, kept, apart, key);
    }
  }

  /** A column with its formulas. */
  public sealed interface Column {
    String label();

    ValueType type();
  }

  /** A value of the joined rows. */
  public record Shown(String label, Expression of, ValueType type) implements Column {
    Shown of(Expression other) {
      return new Shown(label, other, type);
    }
  }

  /**
   * What rows of a role come to.
   *
   * @param once whether each row counts once in a line
   * @param decimals of an average
   */
  public record Folded(
      String label,
      Question.Fold fold,
      int role,
      Optional<Expression> of,
      ValueType type,
      boolean once,
      int decimals)
      implements Column {
    Folded of(int otherRole, Optional<Expression> other) {
      return new Folded(label, fold, otherRole, other, type, once, decimals);
    }
  }

  /**
   * A condition.
   *
   * @param group the role whose group it is about: the first of those that are there or not there
   *     together
   */
  record Where(Expression condition, Set<Integer> roles, int group) {}

  private final Design design;
  private final Question question;
  private final List<Joined> roles;
  private final List<Column> columns;
  private final List<Where> where;
  private final List<Expression> having;

  Bound(
      Design design,
      Question question,
      List<Joined> roles,
      List<Column> columns,
      List<Expression> where,
      List<Expression> having) {
    this.design = design;
    this.question = question;
    this.roles = List.copyOf(roles);
    this.columns = List.copyOf(columns);
    this.where = where.stream().map(this::where).toList();
    this.having = List.copyOf(having);
  }

  public Design design() {
    return design;
  }

  public Question question() {
    return question;
  }

  /** The tables as they are joined. */
  public List<Joined> roles() {
    return roles;
  }

  public List<Column> columns() {
    return columns;
  }

  List<Where> where() {
    return where;
  }

  /** What lines must show to stand in the answer, over columns of the line. */
  List<Expression> having() {
    return having;
  }

  /** Columns whose values make a line, with their places. */
  List<Shown> shown() {
    return columns.stream().filter(Shown.class::isInstance).map(Shown.class::cast).toList();
  }

  /** Columns that are made of many rows. */
  List<Folded> folded() {
    return columns.stream().filter(Folded.class::isInstance).map(Folded.class::cast).toList();
  }

  /** Roles whose rows are told apart. */
  List<Integer> apart() {
    return IntStream.range(0, roles.size()).filter(i -> roles.get(i).apart()).boxed().toList();
  }

  /** The first of the roles that are there or not there together with one. */
  int groupOf(int role) {
    int at = role;
    while (roles.get(at).from() != NONE && !roles.get(at).kept()) {
      at = roles.get(at).from();
    }
    return at;
  }

  /** The group around a group; {@link #NONE} around the first. */
  int around(int group) {
    int from = roles.get(group).from();
    return from == NONE ? NONE : groupOf(from);
  }

  /** The roles of a group, in their order. */
  List<Integer> members(int group) {
    return IntStream.range(0, roles.size()).filter(i -> groupOf(i) == group).boxed().toList();
  }

  /** The groups right within a group, in their order. */
  List<Integer> within(int group) {
    return IntStream.range(0, roles.size())
        .filter(i -> groupOf(i) == i && around(i) == group)
        .boxed()
        .toList();
  }

  private Where where(Expression condition) {
    Set<Integer> read = rolesOf(condition);
    List<List<Integer>> outwards =
        read.stream()
            .map(
                role -> {
                  var chain = new ArrayList<Integer>();
                  for (int g = groupOf(role); g != NONE; g = around(g)) {
                    chain.addFirst(g);
                  }
                  return (List<Integer>) chain;
                })
            .toList();
    int common = 0;
    for (int depth = 0; ; depth++) {
      int at = depth;
      Set<Integer> here =
          outwards.stream()
              .map(chain -> at < chain.size() ? chain.get(at) : NONE)
              .collect(Collectors.toSet());
      if (here.size() != 1 || here.contains(NONE)) {
        return new Where(condition, read, common);
      }
      common = here.iterator().next();
    }
  }

  /** The roles something reads. */
  static Set<Integer> rolesOf(Expression tree) {
    return tree.reads().stream()
        .map(read -> ((AskedField) read).role())
        .collect(Collectors.toCollection(TreeSet::new));
  }

  /** The one role that a column reads; empty where it reads several. */
  public Optional<String> roleOf(int column) {
    Set<Integer> read =
        switch (columns.get(column)) {
          case Shown shown -> rolesOf(shown.of());
          case Folded folded -> Set.of(folded.role());
        };
    return read.size() == 1
        ? Optional.of(roles.get(read.iterator().next()).name())
        : Optional.empty();
  }

  /** The roles joined to one, whichever stands before. */
  List<Integer> beside(int role) {
    return IntStream.range(0, roles.size())
        .filter(i -> roles.get(i).from() == role || roles.get(role).from() == i)
        .boxed()
        .toList();
  }

  /** Whether a row of a role is joined to one row at most of the role beside it. */
  boolean isToOne(int role, int beside) {
    boolean further = roles.get(beside).from() == role;
    Joined link = roles.get(further ? beside : role);
    boolean down = link.down() == further;
    Relationship over = link.over().orElseThrow();
    return !down || Multiplicity.of(design, over).childUnique();
  }
}
