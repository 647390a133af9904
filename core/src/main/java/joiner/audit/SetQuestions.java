package joiner.audit;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import joiner.catalog.SqlType;
import joiner.engine.Dialect;
import joiner.engine.RowsQuery;
import joiner.engine.Support;
import joiner.expression.Checked;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.meaning.Messages;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.shape.TextPattern;

/**
 * What a database is asked about the rows of one table that it holds: counts of sets, in the SQL of
 * its engine (ISO/IEC 9075-2 but for how conditions are spelled). Nothing is changed there.
 */
public final class SetQuestions {
  private final Design design;
  private final Table table;
  private final TableMeaning meaning;
  private final Dialect dialect;
  private final List<Counted> counted = new ArrayList<>();
  private final List<Question> questions = new ArrayList<>();
  private final List<String> notAsked = new ArrayList<>();

  /** A constraint that rows are counted for which break it. */
  private record Counted(
      Violation.Kind kind, List<FieldId> fields, String constraint, String says, String broken) {}

  /**
   * A query of one row.
   *
   * @param sql gives the number of rows first, where it counts them, and then a number for each
   *     constraint; NULL is none
   * @param countsRows whether it counts the rows of the table
   * @param about the constraints, as violations of no row
   */
  public record Question(String sql, boolean countsRows, List<Violation> about) {
    public Question {
      about = List.copyOf(about);
    }

    /** A violation of so many rows. */
    public static Violation of(Violation about, long count) {
      return new Violation(
          about.kind(),
          about.table(),
          about.fields(),
          about.constraint(),
          count,
          List.of(),
          Counts.of(count, "row", "rows") + about.message());
    }
  }

  private SetQuestions(Draft draft, Table table, Dialect dialect) {
    this.design = draft.design();
    this.table = table;
    this.meaning = draft.meaning().of(table);
    this.dialect = dialect;
    table.fields().forEach(this::cells);
    meaning.rules().forEach(this::rule);
    questions.add(cellsAndRules());
    meaning.ruled().forEach(this::together);
    meaning.keys().forEach(this::key);
    design.parentsOf(table.id()).forEach(this::reference);
    design.childrenOf(table.id()).stream()
        .filter(Relationship::parentNeedsChild)
        .forEach(this::children);
  }

  /** The questions about a table of a design. */
  public static SetQuestions of(Draft draft, Table table, Dialect dialect) {
    return new SetQuestions(draft, table, dialect);
  }

  public List<Question> questions() {
    return List.copyOf(questions);
  }

  /** What the engine cannot be asked, a sentence each. */
  public List<String> notAsked() {
    return List.copyOf(notAsked);
  }

  private String column(FieldId field) {
    return dialect.name(table.field(field).name());
  }

  private void cells(Field field) {
    if (field.isComputed()) {
      computed(field);
      return;
    }
    for (Constraint.OfField constraint : meaning.constraintsOf(field.id())) {
      switch (constraint) {
        case Constraint.OfType type ->
            dialect
                .typeCheck(field.name(), typeOf(field))
                .ifPresent(sql -> add(Violation.Kind.WRONG_TYPE, type, isFalse(sql)));
        case Constraint.Required required ->
            add(Violation.Kind.MISSING_REQUIRED, required, column(field.id()) + " IS NULL");
        case Constraint.Matching matching -> pattern(matching);
        case Constraint.Longest most -> value(Violation.Kind.TOO_LONG, most);
        case Constraint.MostBytes most -> value(Violation.Kind.TOO_LONG, most);
        case Constraint.OfMedia media ->
            notAsked(media, field, "it is told by the first bytes of each file");
        case Constraint.Listed listed -> value(Violation.Kind.NOT_IN_LIST, listed);
        case Constraint.OfValue value -> value(Violation.Kind.RULE, value);
      }
    }
  }

  /** What is worked out may be no column there; that it has its type follows from its formula. */
  private void computed(Field field) {
    for (Constraint.OfField constraint : meaning.constraintsOf(field.id())) {
      boolean follows =
          constraint instanceof Constraint.OfType || constraint instanceof Constraint.Longest;
      if (!follows) {
        notAsked(constraint, field, "it is worked out");
      }
    }
  }

  private void notAsked(Constraint.OfField constraint, Field field, String why) {
    notAsked.add(
        "The "
            + constraint.about()
            + " of "
            + table.label()
            + " · "
            + field.label()
            + " was not asked: "
            + why
            + ".");
  }

  /** How long a text may be is asked by itself. */
  private static SqlType typeOf(Field field) {
    SqlType type = SqlType.of(field.type());
    return field.type() instanceof FieldType.Sized ? new SqlType.LongText() : type;
  }

  private void value(Violation.Kind kind, Constraint.OfValue constraint) {
    constraint
        .condition()
        .ifPresent(
            condition ->
                ask(dialect.sayCondition(condition), kind, constraint, constraint.field()));
  }

  private void pattern(Constraint.Matching matching) {
    if (matching.read() instanceof TextPattern.Read.Understood understood) {
      Support said = dialect.sayPattern(matching.field().name(), understood.pattern());
      ask(said, Violation.Kind.RULE, matching, matching.field());
    }
  }

  private void ask(Support said, Violation.Kind kind, Constraint.OfField constraint, Field field) {
    switch (said) {
      case Support.Kept kept -> add(kind, constraint, isFalse(kept.sql()));
      case Support.Impossible impossible -> notAsked(constraint, field, impossible.loss());
    }
  }

  private void add(Violation.Kind kind, Constraint.OfField constraint, String broken) {
    counted.add(
        new Counted(
            kind,
            constraint.fields(),
            CellCheck.nameOf(constraint),
            ": " + constraint.field().label() + " must " + constraint.demand() + ".",
            broken));
  }

  private static String isFalse(String condition) {
    return "NOT (" + condition + ")";
  }

  private static boolean reachesOut(Checked.Sound formula) {
    return formula.reads().stream().anyMatch(read -> !(read instanceof OwnField));
  }

  private String says(Rule rule) {
    return rule.message().isBlank()
        ? " break the rule " + rule.label()
        : " are refused: " + Messages.labelled(rule.message(), table);
  }

  private Violation about(Constraint.Ruled ruled) {
    return about(Violation.Kind.RULE, ruled.fields(), ruled.name(), says(ruled.rule()));
  }

  private void notAsked(Rule rule, String why) {
    notAsked.add(
        "The rule " + rule.label() + " of " + table.label() + " was not asked: " + why + ".");
  }

  /** Counts with the cells what a row tells by itself. */
  private void rule(Constraint.Holds holds) {
    if (holds.condition() instanceof Checked.Sound sound && !reachesOut(sound)) {
      switch (dialect.sayCondition(sound.tree())) {
        case Support.Kept kept ->
            counted.add(
                new Counted(
                    Violation.Kind.RULE,
                    holds.fields(),
                    holds.name(),
                    says(holds.rule()),
                    isFalse(kept.sql())));
        case Support.Impossible impossible -> notAsked(holds.rule(), impossible.loss());
      }
    }
  }

  /** Asks by itself what hangs on several rows. */
  private void together(Constraint.Ruled ruled) {
    boolean counted =
        ruled instanceof Constraint.Holds holds
            && !(holds.condition() instanceof Checked.Sound sound && reachesOut(sound));
    boolean breakable = ruled.fault().isEmpty() && !(ruled instanceof Constraint.Stays);
    if (!counted && breakable) {
      switch (new TogetherQuestions(design, table, dialect).of(ruled)) {
        case Support.Kept(String sql) ->
            questions.add(new Question(sql, false, List.of(about(ruled))));
        case Support.Impossible(String why) -> notAsked(ruled.rule(), why);
      }
    }
  }

  /** One pass over the table counts everything that each row tells by itself. */
  private Question cellsAndRules() {
    String sums =
        counted.stream()
            .map(c -> ", SUM(CASE WHEN " + c.broken + " THEN 1 ELSE 0 END)")
            .collect(Collectors.joining());
    return new Question(
        "SELECT COUNT(*)" + sums + " FROM " + dialect.name(table.name()),
        true,
        counted.stream().map(c -> about(c.kind, c.fields, c.constraint, c.says)).toList());
  }

  private Violation about(
      Violation.Kind kind, List<FieldId> fields, String constraint, String says) {
    return new Violation(kind, table.id(), fields, constraint, 0, List.of(), says);
  }

  static String filled(List<String> columns) {
    return columns.stream().map(c -> c + " IS NOT NULL").collect(Collectors.joining(" AND "));
  }

  private void key(Constraint.Unique key) {
    if (key.fields().stream().anyMatch(id -> table.field(id).isComputed())) {
      notAsked.add(
          "The key "
              + key.name()
              + " of "
              + table.label()
              + " was not asked: a part of it is worked out.");
      return;
    }
    List<String> columns = key.fields().stream().map(this::column).toList();
    String sql =
        "SELECT SUM(n - 1) FROM (SELECT COUNT(*) AS n FROM "
            + dialect.name(table.name())
            + " WHERE "
            + filled(columns)
            + " GROUP BY "
            + String.join(", ", columns)
            + " HAVING COUNT(*) > 1) d";
    String says =
        " repeat a value of "
            + String.join(" and ", table.labelsOf(key.fields()))
            + " that must occur once.";
    questions.add(
        new Question(
            sql,
            false,
            List.of(about(Violation.Kind.DUPLICATE_KEY, key.fields(), key.name(), says))));
  }

  private void reference(Relationship r) {
    Table parent = design.table(r.parent());
    List<String> own = columns("c", table, r.childFields());
    String lonely = filled(own) + " AND " + without(parent, "p", linked(r));
    String says = " point to " + parent.noun().indefinite() + " that does not exist.";
    count("c", lonely, about(Violation.Kind.ORPHAN, r.childFields(), r.name(), says));
  }

  private void children(Relationship r) {
    Table child = design.table(r.child());
    String says = " have no " + child.noun().singular() + ", and each must have one.";
    Violation about = about(Violation.Kind.CHILDLESS, r.parentFields(), r.name(), says);
    count("p", without(child, "c", linked(r)), about);
  }

  private void count(String alias, String condition, Violation about) {
    String from = "SELECT COUNT(*) FROM " + dialect.name(table.name()) + " " + alias;
    questions.add(new Question(from + " WHERE " + condition, false, List.of(about)));
  }

  private String without(Table other, String alias, String condition) {
    String from = dialect.name(other.name()) + " " + alias;
    return "NOT EXISTS (SELECT 1 FROM " + from + " WHERE " + condition + ")";
  }

  /** That a child row c refers to a parent row p. */
  private String linked(Relationship r) {
    List<String> up = columns("p", design.table(r.parent()), r.parentFields());
    List<String> down = columns("c", design.table(r.child()), r.childFields());
    return RowsQuery.same(up, down);
  }

  private List<String> columns(String alias, Table of, List<FieldId> fields) {
    return of.namesOf(fields).stream().map(name -> alias + "." + dialect.name(name)).toList();
  }
}
