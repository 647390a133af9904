package joiner.joining;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.expression.ValueType;
import joiner.expression.Width;
import joiner.meaning.AskedField;
import joiner.meaning.AskedValue;
import joiner.meaning.Meaning;
import joiner.meaning.Means;
import joiner.meaning.QuestionScope;
import joiner.meaning.ResultType;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Question;
import joiner.model.Relationship;
import joiner.model.Summed;
import joiner.model.Table;
import joiner.rows.EnteredText;
import joiner.rows.ReadValue;
import joiner.rows.ValueReader;

/**
 * Reads the formulas of a question. What is worked out for each row of another role first becomes a
 * value of that role, and roles nothing else needs are not joined.
 */
public final class Binding {
  private static final int DECIMALS_OF_MEANS = 2;
  private static final ValueType WHOLE = ValueType.whole(Width.BITS_64);

  private final Design design;
  private final Meaning meaning;
  private final Question question;
  private final QuestionScope scope;
  private final List<Fault> faults = new ArrayList<>();

  /** What a question turned out to be. */
  public sealed interface Result {
    /** It can be asked. */
    record Sound(Bound bound) implements Result {}

    /** It cannot, at least one fault. */
    record Faulty(List<Fault> faults) implements Result {}
  }

  /**
   * Something that is wrong with a question.
   *
   * @param part which column or condition; empty where it is about the whole
   */
  public record Fault(Optional<Formula> part, String message) {}

  private Binding(Design design, Meaning meaning, Question question) {
    this.design = design;
    this.meaning = meaning;
    this.question = question;
    this.scope = new QuestionScope(question, design);
  }

  /** A part is wrong, which was noted. */
  private static final class Wrong extends Exception {
    private static final long serialVersionUID = 1;

    Wrong() {
      super(null, null, false, false);
    }
  }

  /** A question over a design. */
  public static Result of(Design design, Meaning meaning, Question question) {
    return new Binding(design, meaning, question).result();
  }

  private Wrong wrong(Optional<Formula> part, String message) {
    faults.add(new Fault(part, message));
    return new Wrong();
  }

  private Result result() {
    if (!isOfThisDesign()) {
      return new Result.Faulty(faults);
    }
    if (question.columns().isEmpty()) {
      faults.add(new Fault(Optional.empty(), "It shows nothing; name a field to show."));
    }
    List<Bound.Joined> roles = joined();
    var where = new ArrayList<Expression>();
    for (Formula formula : question.where()) {
      try {
        where.add(written(formula.condition(scope), formula).tree());
      } catch (Wrong noted) {
        continue;
      }
    }
    var columns = new ArrayList<Bound.Column>();
    for (Question.Column column : question.columns()) {
      try {
        columns.add(column(column, where));
      } catch (Wrong noted) {
        continue;
      }
    }
    List<Expression> having = faults.isEmpty() ? having(columns) : List.of();
    if (!faults.isEmpty()) {
      return new Result.Faulty(List.copyOf(faults));
    }
    return new Result.Sound(joinedAsNeeded(roles, columns, where, having));
  }

  private List<Expression> having(List<Bound.Column> columns) {
    var lines = new LineScope(question, columns.stream().map(Bound.Column::type).toList(), scope);
    var having = new ArrayList<Expression>();
    for (Formula formula : question.having()) {
      try {
        Checked.Sound sound = sound(formula.condition(lines), formula);
        having.add(filledIn(sound.tree(), formula));
      } catch (Wrong noted) {
        continue;
      }
    }
    return having;
  }

  private boolean isOfThisDesign() {
    for (Question.Role role : question.roles()) {
      boolean there =
          design.find(role.table()).isPresent()
              && role.link().stream().allMatch(link -> fits(role, link));
      if (!there) {
        faults.add(
            new Fault(
                Optional.empty(),
                "What "
                    + role.name()
                    + " was joined by is not in the design any more; pick its fields again."));
      }
    }
    return faults.isEmpty();
  }

  private boolean fits(Question.Role role, Question.Link link) {
    return design
        .find(link.over())
        .filter(
            r -> {
              var from = question.role(link.from()).table();
              return link.down()
                  ? r.parent().equals(from) && r.child().equals(role.table())
                  : r.child().equals(from) && r.parent().equals(role.table());
            })
        .isPresent();
  }

  private List<Bound.Joined> joined() {
    List<String> names = question.roles().stream().map(Question.Role::name).toList();
    var joined = new ArrayList<Bound.Joined>();
    for (Question.Role role : question.roles()) {
      Table table = design.table(role.table());
      Optional<Question.Link> link = role.link();
      List<FieldId> key = keyOf(table);
      if (key.isEmpty() && needsKey(role)) {
        faults.add(
            new Fault(
                Optional.empty(),
                table.label() + " has no key by which its rows are told apart; give it one."));
      }
      joined.add(
          new Bound.Joined(
              role.name(),
              table,
              link.map(l -> names.indexOf(l.from())).orElse(Bound.NONE),
              link.map(l -> design.relationship(l.over())),
              link.filter(Question.Link::down).isPresent(),
              link.filter(Question.Link::kept).isPresent(),
              role.apart(),
              key));
    }
    return joined;
  }

  private boolean needsKey(Question.Role role) {
    return role.apart()
        || question.columns().stream()
            .anyMatch(
                column ->
                    column instanceof Question.Folded folded && folded.role().equals(role.name()));
  }

  /** The primary key, else one whose fields all have values. */
  private static List<FieldId> keyOf(Table table) {
    return table.keys().stream()
        .filter(key -> key.stream().allMatch(table::isRequired))
        .findFirst()
        .orElse(List.of());
  }

  /** A value as it is typed; a day stands for its beginning where a time is asked for, too. */
  private static ReadValue read(String text, Field like) {
    ReadValue read = ValueReader.read(text, like.type());
    if (read instanceof ReadValue.Unfit && like.type() instanceof FieldType.DateTime) {
      String beginning = EnteredText.of(like, text + " 00:00");
      return ValueReader.read(beginning, like.type()) instanceof ReadValue.Fits fits ? fits : read;
    }
    return read;
  }

  /** A formula in terms of fields that are entered. */
  private Checked.Sound written(Checked checked, Formula formula) throws Wrong {
    Checked.Sound sound = sound(checked, formula);
    Expression tree = filledIn(sound.tree(), formula);
    if (tree.reads().isEmpty()) {
      throw wrong(Optional.of(formula), "It reads no field.");
    }
    return new Checked.Sound(written(tree, formula), sound.type());
  }

  private Checked.Sound sound(Checked checked, Formula formula) throws Wrong {
    return switch (checked) {
      case Checked.Faulty(var problems) ->
          throw wrong(Optional.of(formula), problems.getFirst().message());
      case Checked.Sound sound -> sound;
    };
  }

  /** With the values in it that a formula leaves open. */
  private Expression filledIn(Expression tree, Formula formula) throws Wrong {
    Map<Reference, Expression> values = new HashMap<>();
    for (Reference read : tree.reads()) {
      if (read instanceof AskedValue open) {
        values.put(read, value(open, formula));
      }
    }
    return replaced(
        tree, read -> values.getOrDefault(read, new Expression.FieldRef(read, Place.NOWHERE)));
  }

  private Expression value(AskedValue open, Formula formula) throws Wrong {
    String name = open.parameter().name();
    String text = EnteredText.of(open.like(), open.parameter().text()).strip();
    if (text.isEmpty()) {
      throw wrong(Optional.of(formula), "Fill in " + name + ".");
    }
    return switch (read(text, open.like())) {
      case ReadValue.Fits(Value value) ->
          new Expression.Literal(value, open.type().kind(), Place.NOWHERE);
      case ReadValue.Unfit(String expected) ->
          throw wrong(
              Optional.of(formula),
              "“" + open.parameter().text() + "” is no value of " + name + ": " + expected + ".");
    };
  }

  private Expression written(Expression tree, Formula formula) throws Wrong {
    Map<Reference, Expression> by = new HashMap<>();
    for (Reference read : tree.reads()) {
      var asked = (AskedField) read;
      Table table = design.table(question.roles().get(asked.role()).table());
      var alone =
          new Checked.Sound(new Expression.FieldRef(asked.of(), Place.NOWHERE), asked.type());
      switch (meaning.of(table).written(alone)) {
        case Checked.Faulty(var problems) ->
            throw wrong(Optional.of(formula), problems.getFirst().message());
        case Checked.Sound sound -> by.put(read, replaced(sound.tree(), of -> asked(asked, of)));
      }
    }
    return replaced(tree, by::get);
  }

  private static Expression asked(AskedField by, Reference of) {
    return new Expression.FieldRef(new AskedField(by.role(), by.roleName(), of), Place.NOWHERE);
  }

  /** What is read, said otherwise. */
  static Expression replaced(Expression tree, Function<Reference, Expression> by) {
    return tree instanceof Expression.FieldRef(Reference to, Place place)
        ? by.apply(to)
        : tree.withParts(part -> replaced(part, by));
  }

  private Bound.Column column(Question.Column column, List<Expression> where) throws Wrong {
    return switch (column) {
      case Question.Shown(String label, Formula of) -> {
        Checked.Sound sound = written(of.value(scope), of);
        yield new Bound.Shown(label, sound.tree(), sound.type());
      }
      case Question.Folded folded -> folded(folded, where);
    };
  }

  /** A value of each row, and what holds it. */
  private record Each(Expression tree, ValueType type, FieldType holds) {}

  private Bound.Column folded(Question.Folded folded, List<Expression> where) throws Wrong {
    int role = place(folded.role());
    Optional<Each> each = Optional.empty();
    if (folded.of().isPresent()) {
      each = Optional.of(each(folded.of().get(), role));
    }
    fits(folded, each);
    Optional<Expression> of = each.map(e -> ordered(folded.fold(), e));
    ValueType type = type(folded.fold(), each);
    return switch (folded.counting()) {
      case Question.Counting.Per(String per) ->
          new Bound.Shown(folded.label(), perRow(folded, role, place(per), each, where), type);
      case Question.Counting.Once once ->
          new Bound.Folded(folded.label(), folded.fold(), role, of, type, true, type.scale());
      case Question.Counting.AsJoined joined ->
          new Bound.Folded(folded.label(), folded.fold(), role, of, type, false, type.scale());
    };
  }

  private int place(String role) throws Wrong {
    List<Question.Role> all = question.roles();
    for (int i = 0; i < all.size(); i++) {
      if (all.get(i).name().equals(role)) {
        return i;
      }
    }
    throw wrong(Optional.empty(), "Nothing is called " + role + " in this question.");
  }

  private Each each(Formula formula, int role) throws Wrong {
    Checked.Sound sound = written(formula.value(scope), formula);
    Table table = design.table(question.roles().get(role).table());
    if (!Bound.rolesOf(sound.tree()).equals(Set.of(role))) {
      throw wrong(
          Optional.of(formula),
          "What is made of many rows reads one table; this reads others than "
              + table.label()
              + ".");
    }
    var own = new Checked.Sound(ofRow(sound.tree()), sound.type());
    return switch (meaning.of(table).resultOf(own)) {
      case ResultType.Found.None(String why) -> throw wrong(Optional.of(formula), why);
      case ResultType.Found.Type(FieldType holds) -> new Each(sound.tree(), sound.type(), holds);
    };
  }

  /** The same as formulas of the role's own table have it. */
  private static Expression ofRow(Expression tree) {
    return replaced(tree, read -> new Expression.FieldRef(((AskedField) read).of(), Place.NOWHERE));
  }

  private void fits(Question.Folded folded, Optional<Each> each) throws Wrong {
    if (folded.fold() == Question.Fold.COUNT) {
      return;
    }
    if (each.isEmpty()) {
      throw wrong(Optional.empty(), "Say of what: " + folded.label() + " has no field.");
    }
    Kind kind = each.get().type.kind();
    boolean fits =
        switch (folded.fold()) {
          case SUM, AVERAGE -> kind.isNumeric();
          case LEAST, GREATEST -> kind.isOrdered() || kind == Kind.TEXT;
          case COUNT, DIFFERENT -> kind != Kind.BYTES && kind != Kind.NULL;
        };
    if (!fits) {
      throw wrong(
          folded.of(),
          switch (folded.fold()) {
            case SUM, AVERAGE -> "Only numbers are added up, and this is " + kind.words() + ".";
            case LEAST, GREATEST -> "There is no least or greatest of " + kind.words() + ".";
            case COUNT, DIFFERENT -> "There is no telling apart of " + kind.words() + ".";
          });
    }
  }

  private static Expression ordered(Question.Fold fold, Each each) {
    boolean byOrder = fold == Question.Fold.LEAST || fold == Question.Fold.GREATEST;
    return byOrder && each.type.kind() == Kind.TEXT
        ? new Expression.CodePoints(each.tree, Place.NOWHERE)
        : each.tree;
  }

  private static ValueType type(Question.Fold fold, Optional<Each> each) {
    return switch (fold) {
      case COUNT, DIFFERENT -> WHOLE;
      case SUM -> each.map(e -> ResultType.sum(e.holds, e.type).valueType()).orElse(WHOLE);
      case AVERAGE -> ValueType.number(each.map(Binding::decimals).orElse(DECIMALS_OF_MEANS));
      case LEAST, GREATEST -> each.map(Each::type).orElse(WHOLE);
    };
  }

  private static int decimals(Each each) {
    return Math.max(DECIMALS_OF_MEANS, each.type.scale());
  }

  /** What is worked out for each row of a role's parent, before anything else is joined. */
  private Expression perRow(
      Question.Folded folded, int role, int per, Optional<Each> each, List<Expression> where)
      throws Wrong {
    Question.Role of = question.roles().get(role);
    Optional<Question.Link> link =
        of.link().filter(l -> l.down() && l.from().equals(question.roles().get(per).name()));
    if (link.isEmpty() || folded.fold() == Question.Fold.DIFFERENT) {
      throw wrong(
          folded.of(),
          folded.label()
              + " cannot be worked out for each "
              + design.table(question.roles().get(per).table()).noun().singular()
              + " first.");
    }
    var summing = new Summing(per, design.relationship(link.get().over()), conditions(role, where));
    return switch (folded.fold()) {
      case COUNT -> summing.count(each.map(Each::tree));
      case AVERAGE -> summing.average(each.orElseThrow());
      case SUM ->
          summing.fold(
              Summed.Fold.SUM,
              each.orElseThrow().tree,
              ResultType.sum(each.orElseThrow().holds, each.orElseThrow().type));
      case LEAST, GREATEST ->
          summing.fold(
              folded.fold() == Question.Fold.LEAST ? Summed.Fold.LEAST : Summed.Fold.GREATEST,
              ordered(folded.fold(), each.orElseThrow()),
              each.orElseThrow().holds);
      case DIFFERENT -> throw new IllegalStateException("told above");
    };
  }

  /** The conditions on one role alone. */
  private static Optional<Expression> conditions(int role, List<Expression> where) {
    List<Expression> own =
        where.stream().filter(w -> Bound.rolesOf(w).equals(Set.of(role))).toList();
    return own.size() > 1
        ? Optional.of(new Expression.And(own, Place.NOWHERE))
        : own.stream().findFirst();
  }

  /** Children summed up as a value of their parent's row. */
  private final class Summing {
    private final int per;
    private final Relationship over;
    private final Optional<Expression> where;

    Summing(int per, Relationship over, Optional<Expression> where) {
      this.per = per;
      this.over = over;
      this.where = where.map(Binding::ofRow);
    }

    private Expression read(
        Summed.Fold fold, Optional<Expression> of, Optional<Expression> only, FieldType holds) {
      var summed =
          new Summed(
              List.of(),
              over.parentFields(),
              over.id(),
              fold,
              of.map(Binding::ofRow),
              only,
              Optional.empty(),
              "",
              List.of(design.table(over.child()).name()),
              holds);
      return new Expression.FieldRef(
          new AskedField(per, question.roles().get(per).name(), summed), Place.NOWHERE);
    }

    Expression fold(Summed.Fold fold, Expression of, FieldType holds) {
      return read(fold, Optional.of(of), where, holds);
    }

    Expression count(Optional<Expression> of) {
      Optional<Expression> filled =
          of.map(Binding::ofRow).map(tree -> new Expression.IsNull(tree, true, Place.NOWHERE));
      Optional<Expression> both =
          where.isPresent() && filled.isPresent()
              ? Optional.of(new Expression.And(List.of(where.get(), filled.get()), Place.NOWHERE))
              : where.or(() -> filled);
      return read(
          Summed.Fold.COUNT, Optional.empty(), both, new FieldType.WholeNumber(Width.BITS_64));
    }

    Expression average(Each each) {
      Expression sum = fold(Summed.Fold.SUM, each.tree, ResultType.sum(each.holds, each.type));
      return Means.of(sum, count(Optional.of(each.tree)), decimals(each));
    }
  }

  /**
   * Leaves out what nothing needs; a link to it that was not kept asks for a match all the same.
   */
  private Bound joinedAsNeeded(
      List<Bound.Joined> roles,
      List<Bound.Column> columns,
      List<Expression> where,
      List<Expression> having) {
    var left = new ArrayList<>(where);
    Set<Integer> gone = new HashSet<>();
    for (int i = roles.size() - 1; i > 0; i--) {
      int role = i;
      boolean first =
          question.columns().stream()
              .anyMatch(
                  column ->
                      column instanceof Question.Folded folded
                          && folded.counting() instanceof Question.Counting.Per
                          && folded.role().equals(roles.get(role).name()));
      List<Expression> own =
          left.stream().filter(w -> Bound.rolesOf(w).equals(Set.of(role))).toList();
      boolean needed =
          !first
              || roles.get(role).apart()
              || IntStream.range(0, roles.size())
                  .anyMatch(other -> !gone.contains(other) && roles.get(other).from() == role)
              || columns.stream().anyMatch(column -> reads(column, role))
              || left.stream().anyMatch(w -> !own.contains(w) && Bound.rolesOf(w).contains(role));
      if (!needed) {
        Bound.Joined link = roles.get(role);
        Optional<Expression> conditions = conditions(role, left);
        left.removeAll(own);
        gone.add(role);
        if (!link.kept()) {
          var summing = new Summing(link.from(), link.over().orElseThrow(), conditions);
          left.add(
              new Expression.Compare(
                  Expression.Comparison.GREATER,
                  summing.count(Optional.empty()),
                  new Expression.Literal(Value.whole(0), Kind.WHOLE, Place.NOWHERE),
                  Place.NOWHERE));
        }
      }
    }
    return without(gone, roles, columns, left, having);
  }

  private static boolean reads(Bound.Column column, int role) {
    return switch (column) {
      case Bound.Shown shown -> Bound.rolesOf(shown.of()).contains(role);
      case Bound.Folded folded -> folded.role() == role;
    };
  }

  private Bound without(
      Set<Integer> gone,
      List<Bound.Joined> roles,
      List<Bound.Column> columns,
      List<Expression> where,
      List<Expression> having) {
    if (gone.isEmpty()) {
      return new Bound(design, question, roles, columns, where, having);
    }
    int[] place = new int[roles.size()];
    for (int i = 0, next = 0; i < place.length; i++) {
      place[i] = gone.contains(i) ? Bound.NONE : next++;
    }
    UnaryOperator<Expression> moved = tree -> replaced(tree, read -> moved(read, place));
    List<Bound.Joined> left =
        IntStream.range(0, place.length)
            .filter(i -> !gone.contains(i))
            .mapToObj(roles::get)
            .map(r -> r.from() == Bound.NONE ? r : r.from(place[r.from()]))
            .toList();
    List<Bound.Column> now =
        columns.stream()
            .map(
                column ->
                    switch (column) {
                      case Bound.Shown s -> (Bound.Column) s.of(moved.apply(s.of()));
                      case Bound.Folded f -> f.of(place[f.role()], f.of().map(moved));
                    })
            .toList();
    return new Bound(design, question, left, now, where.stream().map(moved).toList(), having);
  }

  private static Expression moved(Reference read, int[] place) {
    var asked = (AskedField) read;
    return new Expression.FieldRef(
        new AskedField(place[asked.role()], asked.roleName(), asked.of()), Place.NOWHERE);
  }
}
