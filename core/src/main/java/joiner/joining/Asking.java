package joiner.joining;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Reference;
import joiner.expression.Span;
import joiner.expression.ValueType;
import joiner.expression.Width;
import joiner.meaning.AskedField;
import joiner.meaning.Meaning;
import joiner.meaning.QuestionScope;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.FieldId;
import joiner.model.OwnField;
import joiner.model.Question;
import joiner.model.Question.Counting;
import joiner.model.QuestionId;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * Makes questions of what somebody names: each table that is named is joined by the way that means
 * most, and rows are told apart where something is shown that people tell them apart by.
 */
public final class Asking {
  private final Design design;
  private final Meaning meaning;
  private final JoinPaths paths;
  private final List<Question.Role> everything;
  private final QuestionScope all;
  private final OpenValues values;

  /** Questions over a design. */
  public Asking(Design design, Meaning meaning) {
    this.design = design;
    this.meaning = meaning;
    this.paths = new JoinPaths(design);
    this.everything =
        design.tables().stream()
            .map(table -> new Question.Role(table.name(), table.id(), Optional.empty(), false))
            .toList();
    this.values = new OpenValues(design, everything);
    this.all = values.scope(List.of());
  }

  /** What came of naming something. */
  public sealed interface Made {
    /** The question with it. */
    record Question(joiner.model.Question question) implements Made {}

    /** Why it cannot be; a sentence with what to do. */
    record Fault(String message) implements Made {}
  }

  /** It cannot be, for a reason. */
  static final class Refused extends Exception {
    private static final long serialVersionUID = 1;

    Refused(String message) {
      super(message, null, false, false);
    }
  }

  /** A question that asks nothing yet. */
  public static Question nothing() {
    return new Question(
        new QuestionId("question"),
        "question",
        "Question",
        List.of(),
        List.of(),
        List.of(),
        List.of(),
        List.of(),
        List.of(),
        OptionalInt.empty());
  }

  /** The names that columns and conditions may use: all tables, and what their rows have. */
  public QuestionScope names() {
    return all;
  }

  /**
   * Shows one thing more.
   *
   * @param column as {@link ColumnText} has it: {@code member.name}, {@code count(firing)}
   */
  public Made show(Question question, String column) {
    return made(
        () -> {
          ColumnText text = ColumnText.of(column);
          return text.fold().isPresent()
              ? folded(question, text, text.fold().get())
              : shown(question, text);
        });
  }

  /**
   * Asks for one thing more: of the rows, or of lines where it names columns or set functions,
   * which are shown then. A name with a colon before it is left open, of the type of the field it
   * stands against.
   */
  public Made only(Question question, String condition) {
    return made(
        () -> {
          if (!ColumnText.folds(condition).isEmpty()) {
            return onlyFolded(question, condition);
          }
          Formula formula = new Formula(condition.strip());
          Question open = values.opened(question, formula);
          Checked checked = formula.condition(values.scope(open.parameters()));
          if (checked instanceof Checked.Faulty && isOfLines(question, formula)) {
            return onlyLines(question, formula);
          }
          Question joined = joined(open, tables(checked));
          var where = new ArrayList<>(joined.where());
          where.add(formula);
          return joined.withWhere(where);
        });
  }

  /** Whether all names of a formula, but those left open, are columns. */
  private static boolean isOfLines(Question question, Formula formula) {
    List<String> columns = LineScope.names(question);
    List<String> names = names(formula).filter(name -> !name.startsWith(":")).toList();
    return !names.isEmpty() && columns.containsAll(names);
  }

  /** What a formula names, as it is written. */
  static Stream<String> names(Formula formula) {
    return formula.names().stream().map(path -> String.join(".", path));
  }

  /** A condition over set functions: each becomes a column, unless it is one already. */
  private Question onlyFolded(Question question, String condition) throws Refused {
    Question shown = question;
    var text = new StringBuilder();
    int from = 0;
    for (Span fold : ColumnText.folds(condition)) {
      ColumnText column = ColumnText.of(condition.substring(fold.start(), fold.end()));
      Question with = folded(shown, column, column.fold().orElseThrow());
      int place = same(with);
      shown = place < with.columns().size() - 1 ? shown : with;
      text.append(condition, from, fold.start())
          .append(Formula.naming(LineScope.names(shown).get(place)).text());
      from = fold.end();
    }
    text.append(condition.substring(from));
    return onlyLines(shown, new Formula(text.toString().strip()));
  }

  /** The first column that shows what the last one does, but for its label. */
  private static int same(Question question) {
    List<Question.Column> bare =
        question.columns().stream().map(column -> column.withLabel("")).toList();
    return bare.indexOf(bare.getLast());
  }

  private Question onlyLines(Question question, Formula formula) throws Refused {
    var having = new ArrayList<>(question.having());
    having.add(formula);
    Question unsieved = question.withWhere(List.of()).withHaving(List.of());
    List<ValueType> types =
        switch (Binding.of(design, meaning, unsieved)) {
          case Binding.Result.Sound(var bound) ->
              bound.columns().stream().map(Bound.Column::type).toList();
          case Binding.Result.Faulty(var faults) -> throw new Refused(faults.getFirst().message());
        };
    Question open = values.openedOnLines(question, formula, types);
    Question alone = open.withWhere(List.of()).withHaving(List.of(formula));
    if (Binding.of(design, meaning, alone) instanceof Binding.Result.Faulty(var faults)
        && !OpenValues.isOpen(open, formula)) {
      throw new Refused(faults.getFirst().message());
    }
    return open.withHaving(having);
  }

  /** Everything at once, as it is written on a command line. */
  public Made of(List<String> columns, List<String> conditions) {
    Made made = new Made.Question(nothing());
    for (String column : columns) {
      made = made instanceof Made.Question(Question so) ? show(so, column) : made;
    }
    for (String condition : conditions) {
      made = made instanceof Made.Question(Question so) ? only(so, condition) : made;
    }
    return made;
  }

  private interface Making {
    Question make() throws Refused;
  }

  private static Made made(Making making) {
    try {
      return new Made.Question(making.make());
    } catch (Refused refused) {
      return new Made.Fault(refused.getMessage());
    }
  }

  private Question shown(Question question, ColumnText text) throws Refused {
    Formula of = new Formula(text.of());
    Checked checked = of.value(all);
    Question joined = joined(question, tables(checked));
    for (AskedField asked : asked((Checked.Sound) checked)) {
      TableId table = everything.get(asked.role()).table();
      if (asked.of() instanceof OwnField own && tellsApart(table, own.field())) {
        joined = joined.withRole(asked.roleName(), role -> role.withApart(true));
      }
    }
    String label = text.label().orElseGet(() -> label((Checked.Sound) checked, of));
    return with(joined, new Question.Shown(label, of));
  }

  private Question folded(Question question, ColumnText text, Question.Fold fold) throws Refused {
    if (fold == Question.Fold.COUNT || fold == Question.Fold.DIFFERENT) {
      Optional<Table> table = design.tableNamed(text.of());
      if (table.isPresent()) {
        Table of = table.get();
        Question joined = joined(question, List.of(of.id()));
        Counting counting = fold == Question.Fold.DIFFERENT ? Counting.ONCE : Counting.AS_JOINED;
        String label = text.label().orElse(capital(of.noun().plural()));
        return with(
            joined,
            new Question.Folded(label, Question.Fold.COUNT, of.name(), Optional.empty(), counting));
      }
    }
    if (text.of().equals("*")) {
      throw new Refused("Say whose rows are counted: count(" + everything.getFirst().name() + ").");
    }
    Formula of = new Formula(text.of());
    Checked checked = of.value(all);
    List<TableId> tables = tables(checked);
    if (tables.size() != 1) {
      throw new Refused("What is made of many rows reads one table: " + text.of() + " does not.");
    }
    Question joined = joined(question, tables);
    String label =
        text.label().orElseGet(() -> words(fold) + " " + lower(label((Checked.Sound) checked, of)));
    String role = design.table(tables.getFirst()).name();
    return with(
        joined, new Question.Folded(label, fold, role, Optional.of(of), Counting.AS_JOINED));
  }

  /** What a fold is called before what it is of. */
  public static String words(Question.Fold fold) {
    return switch (fold) {
      case COUNT -> "Count of";
      case DIFFERENT -> "Different";
      case SUM -> "Sum of";
      case AVERAGE -> "Average of";
      case LEAST -> "Least";
      case GREATEST -> "Greatest";
    };
  }

  private static String capital(String words) {
    return words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
  }

  private static Question with(Question question, Question.Column column) {
    var columns = new ArrayList<>(question.columns());
    Set<String> taken =
        columns.stream().map(Question.Column::label).collect(Collectors.toCollection(HashSet::new));
    String label = column.label();
    for (int number = 2; taken.contains(label); number++) {
      label = column.label() + " " + number;
    }
    columns.add(column.withLabel(label));
    return question.withColumns(columns);
  }

  /** What a column says, as people call it: the field, behind the ways that lead there. */
  private String label(Checked.Sound sound, Formula of) {
    if (!(sound.tree() instanceof Expression.FieldRef(Reference to, var place)
        && to instanceof AskedField asked)) {
      return of.text();
    }
    Table table = design.table(everything.get(asked.role()).table());
    return switch (asked.of()) {
      case OwnField own -> label(table, table.field(own.field()).label());
      case FarField far -> {
        String way = table.field(far.from().getFirst()).label();
        yield way + " " + lower(far.end(design).label());
      }
      default -> of.text();
    };
  }

  /** A field with its table, unless it names that itself. */
  private static String label(Table table, String field) {
    return field.toLowerCase(Locale.ROOT).startsWith(table.label().toLowerCase(Locale.ROOT))
        ? field
        : table.label() + " " + lower(field);
  }

  private static String lower(String label) {
    boolean word = label.length() > 1 && Character.isLowerCase(label.charAt(1));
    return word ? label.substring(0, 1).toLowerCase(Locale.ROOT) + label.substring(1) : label;
  }

  /** Whether people tell rows apart by a field: it is part of a key, or of the row label. */
  private boolean tellsApart(TableId table, FieldId field) {
    TableMeaning of = meaning.of(table);
    boolean key = of.table().keys().stream().anyMatch(k -> k.contains(field));
    boolean label =
        of.rowLabel()
            .filter(
                checked ->
                    checked instanceof Checked.Sound sound
                        && sound.reads().stream()
                            .anyMatch(
                                read -> read instanceof OwnField own && own.field().equals(field)))
            .isPresent();
    return key || label;
  }

  /** The tables something reads, in order of first use. */
  private List<TableId> tables(Checked checked) throws Refused {
    return switch (checked) {
      case Checked.Faulty(var problems) -> throw new Refused(problems.getFirst().message());
      case Checked.Sound sound when asked(sound).isEmpty() ->
          throw new Refused("It reads no field; name one with its table, such as member.name.");
      case Checked.Sound sound ->
          asked(sound).stream()
              .map(read -> everything.get(read.role()).table())
              .distinct()
              .toList();
    };
  }

  /** The fields something reads, without what it leaves open. */
  private static List<AskedField> asked(Checked.Sound sound) {
    return sound.reads().stream()
        .filter(AskedField.class::isInstance)
        .map(AskedField.class::cast)
        .toList();
  }

  private Question joined(Question question, List<TableId> tables) throws Refused {
    Question joined = question;
    for (TableId table : tables) {
      joined = joined(joined, table);
    }
    return joined;
  }

  private Question joined(Question question, TableId table) throws Refused {
    List<TableId> there = tablesOf(question);
    if (there.contains(table)) {
      return question;
    }
    if (there.isEmpty()) {
      return question.withRoles(List.of(role(table, Optional.empty())));
    }
    List<JoinPaths.Step> way =
        paths
            .way(there, table, Set.of())
            .orElseThrow(() -> new Refused(apart(there.getLast(), table)));
    return along(question, way);
  }

  private static List<TableId> tablesOf(Question question) {
    return question.roles().stream().map(Question.Role::table).toList();
  }

  private String apart(TableId one, TableId other) {
    return "Nothing leads from "
        + design.table(one).label()
        + " to "
        + design.table(other).label()
        + ": no relationships join them, and every row of one would stand beside every row of the"
        + " other. Relate them in Connect, or ask two questions.";
  }

  private Question.Role role(TableId table, Optional<Question.Link> link) {
    return new Question.Role(design.table(table).name(), table, link, false);
  }

  private Question along(Question question, List<JoinPaths.Step> way) {
    var roles = new ArrayList<>(question.roles());
    for (JoinPaths.Step step : way) {
      String from = design.table(step.from()).name();
      var link = new Question.Link(from, step.over().id(), step.down(), false);
      roles.add(role(step.to(), Optional.of(link)));
    }
    return question.withRoles(roles);
  }

  /** A way by which a role could be joined instead. */
  public record Other(List<JoinPaths.Step> way) {}

  /** Other ways to a role, by the relationships it would be joined over. */
  public List<Other> others(Question question, String role) {
    Question.Role of = question.role(role);
    if (of.link().isEmpty()) {
      return List.of();
    }
    Question.Link link = of.link().get();
    List<Question.Role> beyond = beyond(question, role);
    var step =
        new JoinPaths.Step(
            question.role(link.from()).table(), design.relationship(link.over()), link.down());
    return paths.others(tablesOf(without(question, beyond)), List.of(step)).stream()
        .filter(
            way ->
                way.stream()
                    .noneMatch(
                        s -> beyond.stream().skip(1).anyMatch(r -> r.table().equals(s.to()))))
        .map(Other::new)
        .toList();
  }

  /** A role and all that is joined to it, one after the other. */
  private static List<Question.Role> beyond(Question question, String role) {
    Set<String> names = new LinkedHashSet<>(Set.of(role));
    for (Question.Role other : question.roles()) {
      if (other.link().filter(link -> names.contains(link.from())).isPresent()) {
        names.add(other.name());
      }
    }
    return question.roles().stream().filter(r -> names.contains(r.name())).toList();
  }

  private static Question without(Question question, List<Question.Role> gone) {
    return question.withRoles(
        question.roles().stream().filter(role -> !gone.contains(role)).toList());
  }

  /** The same with a role joined by another way; what only the old way needed goes. */
  public Question instead(Question question, String role, Other other) {
    Question.Role of = question.role(role);
    List<Question.Role> beyond = beyond(question, role);
    Question along = along(without(question, beyond), other.way);
    var roles = new ArrayList<>(along.withRole(role, r -> r.withApart(of.apart())).roles());
    roles.addAll(beyond.subList(1, beyond.size()));
    return trimmed(question.withRoles(roles));
  }

  /** The same without a column, what is asked of it, and the tables nothing else needs. */
  public Question without(Question question, int column) {
    var columns = new ArrayList<>(question.columns());
    columns.remove(column);
    List<Question.Order> order =
        question.order().stream()
            .filter(o -> o.column() != column)
            .map(o -> o.column() > column ? new Question.Order(o.column() - 1, o.descending()) : o)
            .toList();
    String name = LineScope.names(question).get(column);
    List<Formula> having =
        question.having().stream().filter(of -> names(of).noneMatch(name::equals)).toList();
    return trimmed(question.withColumns(columns).withOrder(order).withHaving(having));
  }

  /** The same without a role and all beyond it: without what they show, and asked of them. */
  public Question withoutRole(Question question, String role) {
    Set<String> gone =
        beyond(question, role).stream().map(Question.Role::name).collect(Collectors.toSet());
    var scope = new QuestionScope(question, design);
    Question left = question;
    for (int i = question.columns().size() - 1; i >= 0; i--) {
      Set<String> read = new LinkedHashSet<>();
      switch (question.columns().get(i)) {
        case Question.Shown shown -> roles(shown.of().value(scope), read);
        case Question.Folded folded -> read.add(folded.role());
      }
      left = read.stream().anyMatch(gone::contains) ? without(left, i) : left;
    }
    return trimmed(
        left.withWhere(
            left.where().stream()
                .filter(
                    condition -> {
                      Set<String> read = new LinkedHashSet<>();
                      roles(condition.condition(scope), read);
                      return read.stream().noneMatch(gone::contains);
                    })
                .toList()));
  }

  /**
   * One question for each of some roles that nothing pairs, without the others; none where one of
   * them is what all else hangs on.
   */
  public List<Question> separately(Question question, List<String> roles) {
    if (roles.size() < 2 || roles.stream().anyMatch(r -> question.role(r).link().isEmpty())) {
      return List.of();
    }
    var all = new ArrayList<Question>();
    for (String kept : roles) {
      Question alone = question;
      for (String role : roles) {
        boolean there = alone.roles().stream().anyMatch(r -> r.name().equals(role));
        alone = role.equals(kept) || !there ? alone : withoutRole(alone, role);
      }
      all.add(alone);
    }
    return all;
  }

  /** The same without a condition, and without the tables nothing else needs. */
  public Question withoutCondition(Question question, int place) {
    var where = new ArrayList<>(question.where());
    where.remove(place);
    return trimmed(question.withWhere(where));
  }

  /** The same without a condition on lines. */
  public Question withoutLineCondition(Question question, int place) {
    var having = new ArrayList<>(question.having());
    having.remove(place);
    return trimmed(question.withHaving(having));
  }

  /** The same with a column called otherwise, by the conditions on lines, too. */
  public Question renamed(Question question, int column, String label) {
    var columns = new ArrayList<>(question.columns());
    columns.set(column, columns.get(column).withLabel(label));
    Question renamed = question.withColumns(columns);
    List<String> names = LineScope.names(renamed);
    List<ValueType> unknown =
        columns.stream().map(of -> ValueType.whole(Width.BITS_64)).toList(); // Names only.
    var scope = new LineScope(question, unknown, new QuestionScope(question, design));
    return renamed.withHaving(
        question.having().stream()
            .map(
                formula ->
                    formula.renamed(
                        scope,
                        read ->
                            read instanceof LineScope.OfLine line
                                ? List.of(names.get(line.column()))
                                : read.path()))
            .toList());
  }

  /** The same with a value filled in; an empty one leaves it open. */
  public static Question filledIn(Question question, String parameter, String text) {
    return question.withParameters(
        question.parameters().stream()
            .map(p -> p.name().equals(parameter) ? p.withText(text) : p)
            .toList());
  }

  /** Leaves out roles at the ends of joins that nothing reads, and values nothing asks for. */
  private Question trimmed(Question question) {
    Set<String> asked =
        Stream.concat(question.where().stream(), question.having().stream())
            .flatMap(Asking::names)
            .collect(Collectors.toSet());
    Question trimmed =
        question.withParameters(
            question.parameters().stream().filter(p -> asked.contains(p.written())).toList());
    Set<String> read = read(trimmed);
    boolean more = true;
    while (more) {
      more = false;
      for (Question.Role role : trimmed.roles()) {
        List<Question.Role> beyond =
            trimmed.roles().stream()
                .filter(r -> r.link().filter(l -> l.from().equals(role.name())).isPresent())
                .toList();
        boolean first = role.link().isEmpty();
        boolean end = first ? beyond.size() <= 1 : beyond.isEmpty();
        if (end && !read.contains(role.name())) {
          var left = new ArrayList<>(trimmed.roles());
          left.remove(role);
          if (first && !beyond.isEmpty()) {
            Question.Role now = beyond.getFirst();
            left.remove(now);
            left.addFirst(
                new Question.Role(now.name(), now.table(), Optional.empty(), now.apart()));
          }
          trimmed = trimmed.withRoles(left);
          more = true;
          break;
        }
      }
    }
    return trimmed;
  }

  private Set<String> read(Question question) {
    Set<String> read = new LinkedHashSet<>();
    var formulas = new ArrayList<>(question.where());
    question.parameters().forEach(open -> formulas.add(open.like()));
    for (Question.Column column : question.columns()) {
      switch (column) {
        case Question.Shown shown -> formulas.add(shown.of());
        case Question.Folded folded -> {
          read.add(folded.role());
          folded.of().ifPresent(formulas::add);
        }
      }
    }
    var scope = new QuestionScope(question, design);
    formulas.forEach(formula -> roles(formula.value(scope), read));
    return read;
  }

  private static void roles(Checked checked, Set<String> read) {
    if (checked instanceof Checked.Sound sound) {
      asked(sound).forEach(field -> read.add(field.roleName()));
    }
  }
}
