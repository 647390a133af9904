package joiner;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.SqlText;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.Question;
import joiner.model.Question.Counting;
import joiner.model.Question.Fold;
import joiner.model.QuestionId;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * Questions over any design: trees of joins up and down, the same table more than once, rows
 * without a match kept or not, values, every fold counted in every way, conditions, orders.
 */
public final class RandomQuestions {
  private static final int MOST_ROLES = 5;

  private final Design design;
  private final Random random;
  private final List<Question.Role> roles = new ArrayList<>();

  private RandomQuestions(Design design, long seed) {
    this.design = design;
    this.random = new Random(seed);
  }

  /** A question over a design. */
  public static Question of(Design design, long seed) {
    return new RandomQuestions(design, seed).question();
  }

  private Question question() {
    List<Table> tables = List.copyOf(design.tables());
    Table first = tables.get(random.nextInt(tables.size()));
    if (design.childrenOf(first.id()).isEmpty()) { // Joins start more often where rows repeat.
      first = tables.get(random.nextInt(tables.size()));
    }
    add(first.id(), Optional.empty());
    for (int i = random.nextInt(1, MOST_ROLES); i > 0; i--) {
      join();
    }
    var columns = new ArrayList<Question.Column>();
    for (int i = random.nextInt(3); i > 0; i--) {
      columns.add(new Question.Shown("c" + columns.size(), value()));
    }
    for (int i = random.nextInt(3) + (columns.isEmpty() ? 1 : 0); i > 0; i--) {
      columns.add(folded("f" + columns.size()));
    }
    var where = new ArrayList<Formula>();
    for (int i = Math.max(0, random.nextInt(5) - 2); i > 0; i--) {
      where.add(condition());
    }
    List<Question.Order> order =
        random.nextBoolean()
            ? List.of(new Question.Order(random.nextInt(columns.size()), random.nextBoolean()))
            : List.of();
    OptionalInt most =
        random.nextInt(4) == 0 ? OptionalInt.of(1 + random.nextInt(5)) : OptionalInt.empty();
    return new Question(
        new QuestionId("asked"),
        "asked",
        "Asked",
        roles,
        columns,
        where,
        having(columns),
        List.of(),
        order,
        most);
  }

  /** Sometimes a condition on what lines come to. */
  private List<Formula> having(List<Question.Column> columns) {
    List<String> folded =
        columns.stream()
            .filter(column -> column instanceof Question.Folded f && isNumber(f.fold()))
            .map(Question.Column::label)
            .toList();
    if (folded.isEmpty() || random.nextInt(3) > 0) {
      return List.of();
    }
    String first = folded.getFirst();
    String last = folded.getLast();
    return List.of(
        new Formula(
            switch (random.nextInt(3)) {
              case 0 -> first + " >= " + random.nextInt(4);
              case 1 -> "coalesce(" + last + ", 0) <= " + first + " + " + random.nextInt(3);
              default -> last + " IS NOT NULL";
            }));
  }

  private static boolean isNumber(Fold fold) {
    return fold != Fold.LEAST && fold != Fold.GREATEST;
  }

  private void add(TableId table, Optional<Question.Link> link) {
    String name = "q" + roles.size();
    roles.add(new Question.Role(name, table, link, random.nextBoolean()));
  }

  private void join() {
    Question.Role from = roles.get(random.nextInt(roles.size()));
    List<Relationship> up = design.parentsOf(from.table());
    List<Relationship> down = design.childrenOf(from.table());
    if (up.isEmpty() && down.isEmpty()) {
      return;
    }
    boolean isDown = up.isEmpty() || (!down.isEmpty() && random.nextBoolean());
    List<Relationship> ways = isDown ? down : up;
    Relationship over = ways.get(random.nextInt(ways.size()));
    boolean kept = random.nextInt(3) == 0;
    add(
        isDown ? over.child() : over.parent(),
        Optional.of(new Question.Link(from.name(), over.id(), isDown, kept)));
  }

  private Question.Role role() {
    return roles.get(random.nextInt(roles.size()));
  }

  private String field(Question.Role role, boolean numbers) {
    List<Field> fields =
        design.table(role.table()).fields().stream()
            .filter(f -> !numbers || f.type().valueType().kind() == Kind.WHOLE)
            .toList();
    return fields.isEmpty()
        ? "nothing"
        : path(role.name(), fields.get(random.nextInt(fields.size())).name());
  }

  private static String path(String... names) {
    return SqlText.iso().write(new Expression.Name(List.of(names), Place.NOWHERE));
  }

  private Formula value() {
    Question.Role role = role();
    return new Formula(
        switch (random.nextInt(5)) {
          case 0 -> field(role, true) + " + 1";
          case 1 -> role.name() + ".mark || " + role().name() + ".mark";
          case 2 -> far(role).orElse(field(role, false));
          default -> field(role, false);
        });
  }

  /** The mark of a parent, read by the child's formulas. */
  private Optional<String> far(Question.Role role) {
    List<Relationship> up =
        design.parentsOf(role.table()).stream().filter(r -> r.childFields().size() == 1).toList();
    if (up.isEmpty()) {
      return Optional.empty();
    }
    Relationship over = up.get(random.nextInt(up.size()));
    Table child = design.table(role.table());
    return Optional.of(
        path(role.name(), child.field(over.childFields().getFirst()).name(), "mark"));
  }

  private Question.Folded folded(String label) {
    Question.Role role = role();
    Fold fold = Fold.values()[random.nextInt(Fold.values().length)];
    boolean numbers = fold == Fold.SUM || fold == Fold.AVERAGE;
    Optional<Formula> of =
        fold == Fold.COUNT && random.nextBoolean()
            ? Optional.empty()
            : Optional.of(new Formula(field(role, numbers)));
    return new Question.Folded(label, fold, role.name(), of, counting(role, fold));
  }

  private Counting counting(Question.Role role, Fold fold) {
    Optional<Question.Link> down = role.link().filter(Question.Link::down);
    if (down.isPresent() && fold != Fold.DIFFERENT && random.nextInt(3) == 0) {
      return new Counting.Per(down.get().from());
    }
    return random.nextBoolean() ? Counting.ONCE : Counting.AS_JOINED;
  }

  private Formula condition() {
    return new Formula(
        switch (random.nextInt(4)) {
          case 0 -> field(role(), true) + " <= " + field(role(), true) + " + 1";
          case 1 -> field(role(), false) + " IS NOT NULL";
          default -> field(role(), true) + " > " + random.nextInt(-1, 3);
        });
  }
}
