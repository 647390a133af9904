package joiner.ddl;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import joiner.catalog.Trigger.Event;
import joiner.engine.Dialect;
import joiner.engine.RowsQuery;
import joiner.engine.Upkeep;
import joiner.engine.Upkeep.Looked;
import joiner.expression.Expression;
import joiner.expression.Reference;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.FieldId;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Summed;
import joiner.model.Table;

/**
 * What has to be looked at so that a condition which reads rows of other tables stays true of each
 * row of a table: the row itself, rows it reads over relationships, and rows that refer to it.
 */
final class ReachingLooks {
  private final Design design;
  private final Table table;
  private final Dialect dialect;
  private final RowText text;
  private final String says;

  /**
   * For the rows of a table.
   *
   * @param says what whoever breaks the condition is told
   */
  ReachingLooks(Design design, Table table, Dialect dialect, String says) {
    this.design = design;
    this.table = table;
    this.dialect = dialect;
    this.text = new RowText(dialect);
    this.says = says;
  }

  /** Whether a condition only has to hold once a transaction has ended. */
  static boolean isAtEnd(Expression tree) {
    return tree.reads().stream().anyMatch(Summed.class::isInstance) && !isUpperBound(tree);
  }

  /** Why no trigger can look at a condition. */
  Optional<String> against(Expression tree, boolean atEnd) {
    boolean deep =
        tree.reads().stream()
            .filter(Summed.class::isInstance)
            .map(Summed.class::cast)
            .anyMatch(
                summed ->
                    !summed.over().isEmpty()
                        || summed.parts().stream()
                            .flatMap(part -> part.reads().stream())
                            .anyMatch(read -> !(read instanceof OwnField)));
    if (deep) {
      return Optional.of("it reads rows of too many tables for a trigger");
    }
    if (table.primaryKey().isEmpty()) {
      return Optional.of(table.label() + " has no primary key by which a trigger finds a row");
    }
    boolean ends = dialect.upkeep().filter(Upkeep::looksAtTheEnd).isPresent();
    return atEnd && !ends
        ? Optional.of(
            "it only holds once a transaction has ended, and "
                + dialect.engine()
                + " looks at no transaction as a whole")
        : Optional.empty();
  }

  /**
   * Whether more of what is summed up can only break it, and fewer only mend it, so that it holds
   * after each single change of a well-ordered transaction.
   */
  private static boolean isUpperBound(Expression tree) {
    return switch (tree) {
      case Expression.And(List<Expression> all, var place) ->
          all.stream().allMatch(ReachingLooks::isUpperBound);
      case Expression.Compare(var operator, var left, var right, var place) ->
          (operator == Expression.Comparison.AT_MOST || operator == Expression.Comparison.LESS)
              && left instanceof Expression.FieldRef(Summed summed, var at)
              && (summed.fold() == Summed.Fold.COUNT || summed.fold() == Summed.Fold.SUM)
              && right instanceof Expression.Literal;
      default -> tree.reads().stream().noneMatch(Summed.class::isInstance);
    };
  }

  /**
   * All that has to be looked at.
   *
   * @throws RowsQuery.Unsaid if the engine has no words for the condition
   */
  List<Looked> of(Expression tree, boolean atEnd) {
    var looks = new ArrayList<Looked>();
    if (atEnd || tree.reads().stream().anyMatch(read -> !(read instanceof Summed))) {
      looks.add(ownRow(tree, atEnd));
    }
    tree.reads().stream()
        .filter(Summed.class::isInstance)
        .map(read -> ((Summed) read).children())
        .distinct()
        .forEach(children -> looks.addAll(ofChildren(tree, children, atEnd)));
    looks.addAll(ofParents(tree, atEnd));
    return looks;
  }

  private static String broken(String condition) {
    return "NOT (" + condition + ")";
  }

  /** The rows of the table that some condition finds and the rule's is false for. */
  private String found(RowsQuery rows, Expression tree, String which) {
    String condition = rows.condition(tree);
    return "SELECT 1" + rows.from() + "\nWHERE " + which + " AND " + broken(condition);
  }

  private Looked ownRow(Expression tree, boolean atEnd) {
    var rows = new RowsQuery(design, table, dialect);
    for (Reference read : tree.reads()) {
      if (read instanceof Summed summed) {
        Relationship r = design.relationship(summed.children());
        rows.only(r.id(), text.changed(table, r.parentFields()));
      }
    }
    List<String> own = table.primaryKey().stream().map(rows::own).toList();
    String found = found(rows, tree, RowsQuery.same(own, text.changed(table, table.primaryKey())));
    Set<FieldId> read = new LinkedHashSet<>(table.primaryKey());
    tree.reads().forEach(reference -> read.addAll(ofRow(reference)));
    return new Looked(
        table.name(),
        Set.of(Event.INSERT, Event.UPDATE),
        table.namesOf(List.copyOf(read)),
        parentsRead(tree),
        found,
        says,
        atEnd);
  }

  private static List<FieldId> ofRow(Reference read) {
    return switch (read) {
      case OwnField own -> List.of(own.field());
      case FarField far -> far.from();
      case Summed summed -> summed.from();
      default -> List.of();
    };
  }

  /** What holds the rows still that a row reads over relationships. */
  private List<Upkeep.Held> parentsRead(Expression tree) {
    return ways(tree).keySet().stream()
        .filter(way -> ways(tree).keySet().stream().noneMatch(other -> goesOn(way, other)))
        .map(way -> new Upkeep.Held(Optional.of(heldOn(way)), table.name(), false))
        .toList();
  }

  private static boolean goesOn(List<RelationshipId> way, List<RelationshipId> further) {
    return further.size() > way.size() && further.subList(0, way.size()).equals(way);
  }

  private String heldOn(List<RelationshipId> way) {
    var sql = new StringBuilder("SELECT 1 FROM ");
    for (int i = 0; i < way.size(); i++) {
      Relationship up = design.relationship(way.get(i));
      Table parent = design.table(up.parent());
      String alias = "h" + (i + 1);
      sql.append(i == 0 ? "" : " JOIN ").append(dialect.name(parent.name())).append(' ');
      sql.append(alias);
      if (i > 0) {
        String before = "h" + i;
        Table child = design.table(up.child());
        sql.append(" ON ")
            .append(
                RowsQuery.same(
                    text.columns(alias, parent, up.parentFields()),
                    text.columns(before, child, up.childFields())));
      }
    }
    Relationship first = design.relationship(way.getFirst());
    return sql.append(" WHERE ")
        .append(
            RowsQuery.same(
                text.columns("h1", design.table(first.parent()), first.parentFields()),
                text.changed(table, first.childFields())))
        .toString();
  }

  /** The ways a condition reads over, with the fields that are read where each ends. */
  private Map<List<RelationshipId>, Set<FieldId>> ways(Expression tree) {
    Map<List<RelationshipId>, Set<FieldId>> ways = new LinkedHashMap<>();
    for (Reference read : tree.reads()) {
      if (read instanceof FarField far) {
        for (int end = 1; end <= far.over().size(); end++) {
          Set<FieldId> fields =
              ways.computeIfAbsent(far.over().subList(0, end), way -> new LinkedHashSet<>());
          if (end == far.over().size()) {
            fields.add(far.field());
          } else {
            fields.addAll(design.relationship(far.over().get(end)).childFields());
          }
        }
      }
    }
    return ways;
  }

  /** The rows that read something of a row which changes. */
  private List<Looked> ofParents(Expression tree, boolean atEnd) {
    var looks = new ArrayList<Looked>();
    ways(tree)
        .forEach(
            (way, fields) -> {
              Relationship last = design.relationship(way.getLast());
              Table parent = design.table(last.parent());
              var rows = new RowsQuery(design, table, dialect);
              String condition = rows.condition(tree);
              List<String> there =
                  last.parentFields().stream()
                      .map(field -> rows.at(way) + "." + text.name(parent, field))
                      .toList();
              looks.add(
                  new Looked(
                      parent.name(),
                      Set.of(Event.UPDATE),
                      parent.namesOf(List.copyOf(fields)),
                      List.of(),
                      "SELECT 1"
                          + rows.from()
                          + "\nWHERE "
                          + RowsQuery.same(there, text.changed(parent, last.parentFields()))
                          + " AND "
                          + broken(condition),
                      says,
                      atEnd));
            });
    return looks;
  }

  /** The row that rows refer to, whenever these come, go or change. */
  private List<Looked> ofChildren(Expression tree, RelationshipId children, boolean atEnd) {
    Relationship r = design.relationship(children);
    Table child = design.table(r.child());
    List<String> key = text.changed(child, r.childFields());
    var rows = new RowsQuery(design, table, dialect).only(children, key);
    List<String> own = r.parentFields().stream().map(rows::own).toList();
    String found = found(rows, tree, RowsQuery.same(own, key));
    Set<FieldId> read = new LinkedHashSet<>(r.childFields());
    boolean adds = false;
    for (Reference reference : tree.reads()) {
      if (reference instanceof Summed summed && summed.children().equals(children)) {
        adds |= summed.fold() != Summed.Fold.COUNT;
        summed.parts().forEach(part -> part.reads().forEach(of -> read.addAll(ofRow(of))));
      }
    }
    String parent =
        "SELECT 1 FROM "
            + dialect.name(table.name())
            + " h1 WHERE "
            + RowsQuery.same(text.columns("h1", table, r.parentFields()), key);
    List<Upkeep.Held> held = List.of(new Upkeep.Held(Optional.of(parent), table.name(), true));
    var looks = new ArrayList<Looked>();
    List<String> columns = child.namesOf(List.copyOf(read));
    looks.add(
        new Looked(
            child.name(), Set.of(Event.INSERT, Event.UPDATE), columns, held, found, says, atEnd));
    if (atEnd || adds) { // What goes may have been less than nothing.
      looks.add(
          new Looked(
                  child.name(),
                  Set.of(Event.DELETE, Event.UPDATE),
                  columns,
                  held,
                  found,
                  says,
                  atEnd)
              .ofRowBefore());
    }
    return looks;
  }
}
