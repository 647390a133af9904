package joiner.desktop.prove;

import java.time.Clock;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import joiner.database.LiveAnswer;
import joiner.database.Target;
import joiner.database.TargetRefusedException;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Workbench;
import joiner.edit.DropQuestion;
import joiner.edit.KeepQuestion;
import joiner.engine.Dialect;
import joiner.engine.Support;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.expression.Value;
import joiner.joining.Answering;
import joiner.joining.Asking;
import joiner.joining.Binding;
import joiner.joining.Bound;
import joiner.joining.JoinPaths;
import joiner.joining.QuestionSql;
import joiner.meaning.Completions;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.Multiplicity;
import joiner.model.Question;
import joiner.model.QuestionId;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.NamingPolicy;

/** What the face Ask is about, without a window: a question, and what it comes to. */
final class AskModel {
  private final Workbench bench;
  private final Texts texts;
  private final ReadOnlyObjectWrapper<State> state;
  private final Computed<Input, Told> answer;

  /**
   * A question as it stands.
   *
   * @param bound the question with its formulas read; empty while it asks nothing, or is faulty
   * @param faults what is wrong with it, as sentences
   */
  record State(Question question, Draft draft, Optional<Bound> bound, List<String> faults) {
    boolean isBlank() {
      return question.columns().isEmpty() && question.where().isEmpty();
    }
  }

  /** What an answer is worked out from. */
  private record Input(Draft draft, Bound bound, RowsOf rows) {
    /** Nothing but the design and its rows makes a difference, and the question. */
    boolean isAs(Input other) {
      return draft == other.draft
          && rows.equals(other.rows)
          && bound.question().equals(other.bound.question());
    }
  }

  /**
   * An answer and how long it took, in milliseconds.
   *
   * @param rows whose rows it is from; what a database answered tells of no repetition
   */
  record Told(joiner.joining.Answer answer, RowsOf rows, long millis) {}

  /** So many lines of a database are shown at most. */
  private static final int MOST_LINES = 100_000;

  private RowsOf rows = RowsOf.SAMPLES;

  /** What was asked before, the newest last. */
  private final AskColumns columns;

  private final OnBench onBench;

  private final Deque<Question> aside = new ArrayDeque<>();
  private final Deque<Question> before = new ArrayDeque<>();

  AskModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.onBench = new OnBench(bench);
    this.columns = new AskColumns(this, bench);
    this.texts = texts;
    this.state = new ReadOnlyObjectWrapper<>(read(Asking.nothing()));
    Clock clock = bench.clock();
    this.answer =
        new Computed<>(
            bench.runner(),
            texts.get("ask.working"),
            Lane.WORKING,
            Input::isAs,
            (input, progress) -> {
              long start = System.nanoTime();
              var told =
                  input.rows.target().isPresent()
                      ? live(input.bound, input.rows.target().get())
                      : new Answering(input.draft, clock).answer(input.bound, progress::stopped);
              return new Told(told, input.rows, (System.nanoTime() - start) / 1_000_000);
            });
  }

  /** What a database says; its texts are shown as they are. */
  private static joiner.joining.Answer live(Bound bound, Target target)
      throws TargetRefusedException {
    LiveAnswer answer = LiveAnswer.of(bound, target, MOST_LINES);
    List<List<Value>> lines =
        answer.lines().stream().map(line -> line.stream().map(AskModel::value).toList()).toList();
    return new joiner.joining.Answer(bound, lines, answer.cut(), List.of(), List.of());
  }

  private static Value value(Optional<String> text) {
    return text.isPresent() ? new Value.Text(text.get()) : Value.NULL;
  }

  /** Asks the rows of that from now on. */
  void from(RowsOf other) {
    rows = other;
    work();
  }

  /** Whose rows are asked. */
  RowsOf rows() {
    return rows;
  }

  ReadOnlyObjectProperty<State> stateProperty() {
    return state.getReadOnlyProperty();
  }

  State state() {
    return state.get();
  }

  ReadOnlyObjectProperty<Answer<Told>> answerProperty() {
    return answer.answerProperty();
  }

  Question question() {
    return state.get().question;
  }

  private State read(Question question) {
    Draft draft = bench.draft();
    if (question.columns().isEmpty()) {
      return new State(question, draft, Optional.empty(), List.of());
    }
    return switch (Binding.of(draft.design(), draft.meaning(), question)) {
      case Binding.Result.Sound(Bound bound) ->
          new State(question, draft, Optional.of(bound), List.of());
      case Binding.Result.Faulty(var faults) ->
          new State(
              question,
              draft,
              Optional.empty(),
              faults.stream().map(Binding.Fault::message).toList());
    };
  }

  /** Asks that from now on. */
  void ask(Question question) {
    Question was = question();
    if (!was.columns().isEmpty() && !was.equals(question)) {
      before.addLast(was);
    }
    if (question.columns().isEmpty()) {
      aside.clear();
    }
    set(question);
  }

  private void set(Question question) {
    state.set(read(question));
    work();
  }

  /** Asks one question for each of some roles: the first now, the others one after the other. */
  void separate(List<String> roles) {
    List<Question> alone = asking().separately(question(), roles);
    if (!alone.isEmpty()) {
      ask(alone.getFirst());
      aside.clear();
      aside.addAll(alone.subList(1, alone.size()));
    }
  }

  /** The question that waits while another of those it was separated from is asked. */
  Optional<Question> aside() {
    return Optional.ofNullable(aside.peekFirst());
  }

  /** Asks the question that waits; the one that is asked waits from now on. */
  void turnAside() {
    if (!aside.isEmpty()) {
      Question now = question();
      Question next = aside.removeFirst();
      aside.addLast(now);
      set(next);
    }
  }

  /** Whether something else was asked before. */
  boolean canGoBack() {
    return !before.isEmpty();
  }

  /** Asks again what was asked before. */
  void back() {
    if (canGoBack()) {
      set(before.removeLast());
    }
  }

  /** The design or its rows may have changed. */
  void refresh() {
    if (onBench.isOther()) {
      before.clear();
      aside.clear();
      rows = RowsOf.SAMPLES;
      set(Asking.nothing());
    }
    if (state.get().draft != bench.draft()) {
      state.set(read(question()));
      work();
    }
  }

  private void work() {
    state.get().bound.ifPresent(bound -> answer.ask(new Input(state.get().draft, bound, rows)));
  }

  /** Says whether somebody looks. */
  void look(boolean now) {
    answer.look(now);
  }

  void stop() {
    answer.stop();
  }

  /** The answer as far as it is of the question that is asked; what was before is not shown. */
  Optional<Told> told() {
    return answer
        .answer()
        .current()
        .filter(told -> state.get().bound.filter(b -> b == told.answer.bound()).isPresent());
  }

  /** The columns of what is asked, and what can be done with them. */
  AskColumns columns() {
    return columns;
  }

  Asking asking() {
    return new Asking(bench.design(), bench.draft().meaning());
  }

  /** Shows one thing more; gives why not, where it cannot. */
  Optional<String> show(String column) {
    return column.isBlank() ? Optional.empty() : made(asking().show(question(), column));
  }

  /** Asks for one thing more of the rows; gives why not, where it cannot. */
  Optional<String> only(String condition) {
    return condition.isBlank() ? Optional.empty() : made(asking().only(question(), condition));
  }

  private Optional<String> made(Asking.Made made) {
    return switch (made) {
      case Asking.Made.Fault(String message) -> Optional.of(message);
      case Asking.Made.Question(Question question) -> {
        ask(question);
        yield Optional.empty();
      }
    };
  }

  List<Completions.Completion> completions(String text, int caret) {
    return Completions.of(asking().names(), text, caret);
  }

  /** Fields to pick, those of the table that is chosen first, each as a column is written. */
  Offers<String> fields() {
    Optional<Table> chosen = bench.table();
    var all = new ArrayList<Offers.Offer<String>>();
    chosen.ifPresent(table -> offer(table, all));
    bench.design().tables().stream()
        .filter(table -> chosen.filter(table::equals).isEmpty())
        .forEach(table -> offer(table, all));
    return typed -> Offers.narrowed(all, typed);
  }

  /** Fields of one table, and its count. */
  Offers<String> fields(Table table) {
    var all = new ArrayList<Offers.Offer<String>>();
    offer(table, all);
    return typed -> Offers.narrowed(all, typed);
  }

  /** Tables that could be joined next: those beside what is joined, or any where nothing is. */
  List<Table> near() {
    Set<TableId> joined =
        question().roles().stream().map(Question.Role::table).collect(Collectors.toSet());
    Set<TableId> beside = new HashSet<>();
    for (Relationship r : bench.design().relationships()) {
      if (joined.contains(r.child())) {
        beside.add(r.parent());
      }
      if (joined.contains(r.parent())) {
        beside.add(r.child());
      }
    }
    return bench.design().tables().stream()
        .filter(table -> !joined.contains(table.id()))
        .filter(table -> joined.isEmpty() || beside.contains(table.id()))
        .toList();
  }

  private void offer(Table table, List<Offers.Offer<String>> all) {
    all.add(
        new Offers.Offer<>(
            "count(" + table.name() + ")",
            texts.get("ask.count.of", table.noun().plural()),
            "",
            table.label()));
    for (Field field : table.fields()) {
      all.add(
          new Offers.Offer<>(
              written(table, field), field.label() + " · " + table.label(), "", table.label()));
    }
  }

  void removeCondition(int place) {
    ask(asking().withoutCondition(question(), place));
  }

  void removeLineCondition(int place) {
    ask(asking().withoutLineCondition(question(), place));
  }

  /** Fills in what a condition leaves open. */
  void fillIn(String parameter, String text) {
    Question filled = Asking.filledIn(question(), parameter, text.strip());
    if (!filled.equals(question())) {
      set(filled);
    }
  }

  /** Leaves out a table that is joined, and what is beyond it. */
  void leaveOut(String role) {
    ask(asking().withoutRole(question(), role));
  }

  /** Cuts the answer after so many lines; anything that is no number shows all. */
  void first(String lines) {
    boolean number = lines.strip().matches("[1-9]\\d{0,6}");
    ask(
        question()
            .withFirst(
                number ? OptionalInt.of(Integer.parseInt(lines.strip())) : OptionalInt.empty()));
  }

  /** What can be changed at a join. */
  sealed interface JoinDeed {
    /** Joins it another way. */
    record Instead(Asking.Other other) implements JoinDeed {}

    /** Keeps rows that have no match here, or not. */
    record Keep(boolean kept) implements JoinDeed {}

    /** Tells rows apart, or not. */
    record Apart(boolean apart) implements JoinDeed {}

    /** Leaves it out, with what is beyond it. */
    record LeaveOut() implements JoinDeed {}

    /** Shows one of its fields, as a column is written. */
    record Show(String column, String label) implements JoinDeed {}
  }

  /** What can be changed at the join of a role. */
  List<JoinDeed> joinDeeds(String name) {
    var deeds = new ArrayList<JoinDeed>();
    Question.Role role = question().role(name);
    asking().others(question(), name).forEach(other -> deeds.add(new JoinDeed.Instead(other)));
    role.link().ifPresent(link -> deeds.add(new JoinDeed.Keep(!link.kept())));
    deeds.add(new JoinDeed.Apart(!role.apart()));
    bench.design().find(role.table()).ifPresent(table -> shows(role, table, deeds));
    if (role.link().isPresent()) {
      deeds.add(new JoinDeed.LeaveOut());
    }
    return deeds;
  }

  /** Fields of a table that is joined and that are not shown yet; those of its own name only. */
  private static void shows(Question.Role role, Table table, List<JoinDeed> deeds) {
    if (role.name().equals(table.name())) {
      table.fields().stream()
          .filter(field -> field.type().kind() != Kind.BYTES)
          .forEach(field -> deeds.add(new JoinDeed.Show(written(table, field), field.label())));
    }
  }

  private static String written(Table table, Field field) {
    return table.name() + "." + Formula.naming(field.name()).text();
  }

  /** Changes something at the join of a role. */
  void make(String role, JoinDeed deed) {
    switch (deed) {
      case JoinDeed.Instead(Asking.Other other) -> ask(asking().instead(question(), role, other));
      case JoinDeed.Keep(boolean kept) -> ask(question().withRole(role, r -> r.withKept(kept)));
      case JoinDeed.Apart(boolean apart) -> ask(question().withRole(role, r -> r.withApart(apart)));
      case JoinDeed.LeaveOut out -> leaveOut(role);
      case JoinDeed.Show(String column, String label) -> show(column);
    }
  }

  /** What one row of a role is called. */
  String noun(String role) {
    return bench.design().table(question().role(role).table()).noun().singular();
  }

  /** What its rows are called. */
  String nouns(String role) {
    return bench.design().table(question().role(role).table()).noun().plural();
  }

  /** How a join is told: what is made of its relationship in words, from one table to the other. */
  String words(Question.Role role) {
    Question.Link link = role.link().orElseThrow();
    var over = bench.design().relationship(link.over());
    Table child = bench.design().table(over.child());
    return String.join(", ", child.labelsOf(over.childFields()));
  }

  /** How another way is told. */
  String words(Asking.Other other) {
    var words = new ArrayList<String>();
    for (JoinPaths.Step step : other.way()) {
      Table child = bench.design().table(step.over().child());
      words.add(
          bench.design().table(step.to()).label()
              + " ("
              + String.join(", ", child.labelsOf(step.over().childFields()))
              + ")");
    }
    return String.join(" → ", words);
  }

  /** How many rows stand at the ends of the join of a role. */
  Multiplicity multiplicity(Question.Role role) {
    return Multiplicity.of(
        bench.design(), bench.design().relationship(role.link().orElseThrow().over()));
  }

  /** The query of an engine, or what it cannot say. */
  Optional<Support> sql(Dialect dialect) {
    return state.get().bound.map(bound -> QuestionSql.of(bound, dialect));
  }

  /** Questions that are kept. */
  List<Question> kept() {
    return bench.design().questions();
  }

  /** The kept question that is open, as it is kept. */
  Optional<Question> keptAs() {
    return kept().stream().filter(q -> q.id().equals(question().id())).findFirst();
  }

  /** Whether there is nothing to be kept that is not kept already. */
  boolean isKept() {
    return keptAs().filter(question()::equals).isPresent();
  }

  /** Keeps the question under a label, as a new one unless it is the one kept under it. */
  boolean keep(String label) {
    String name = NamingPolicy.nameFor(label);
    Optional<Question> same = keptAs().filter(q -> q.label().equals(label.strip()));
    List<String> ids = kept().stream().map(q -> q.id().value()).toList();
    QuestionId id =
        same.map(Question::id).orElseGet(() -> new QuestionId(NamingPolicy.free(name, ids)));
    Question named = question().withNames(id, same.map(Question::name).orElse(name), label.strip());
    boolean kept = bench.apply(() -> new KeepQuestion(named));
    if (kept) {
      ask(named);
    }
    return kept;
  }

  /** Lets the kept question go; it stays asked. */
  void drop() {
    keptAs().ifPresent(q -> bench.apply(new DropQuestion(q.id(), q.label())));
    ask(question().withNames(Asking.nothing().id(), Asking.nothing().name(), question().label()));
  }

  /** Begins anew. */
  void clear() {
    ask(Asking.nothing());
  }
}
