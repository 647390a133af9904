package joiner.desktop.guard;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import javafx.beans.property.ReadOnlyObjectProperty;
import joiner.audit.Violation;
import joiner.ddl.Keeping;
import joiner.ddl.Lowered;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeTable;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.expression.Checked;
import joiner.expression.Expression.Comparison;
import joiner.expression.Formula;
import joiner.expression.Problem;
import joiner.meaning.Completions;
import joiner.meaning.Constraint;
import joiner.meaning.DemandWords;
import joiner.meaning.Messages;
import joiner.meaning.RuleForm;
import joiner.model.Demand;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.WordList;

/** One rule as its card shows it, without a window: what it says, who keeps it, which rows pass. */
final class RuleModel {
  private final Workbench bench;
  private final Texts texts;
  private final Computed<RuleTrial.Question, RuleTrial> tried;
  private static final Pattern UNNAMED = Pattern.compile("\\p{L}+ \\d+");

  private final TableId table;
  private Rule rule;

  /** A form that is filled in, or was read from the condition. */
  private Optional<RuleForm> begun = Optional.empty();

  /** What the language says of a condition. */
  sealed interface Judgement {
    /** Nothing is typed yet. */
    record Blank(String what) implements Judgement {}

    /** It cannot be used. */
    record Faulty(List<Fault> faults) implements Judgement {
      public Faulty {
        faults = List.copyOf(faults);
      }
    }

    /**
     * It can.
     *
     * @param by the engines that keep it, by what they have for it
     * @param losses why the others do not
     */
    record Sound(Map<Keeping.Means, List<String>> by, List<Loss> losses) implements Judgement {
      public Sound {
        losses = List.copyOf(losses);
      }

      int keeping() {
        return by.values().stream().mapToInt(List::size).sum();
      }

      boolean everywhere() {
        return losses.isEmpty();
      }

      boolean nowhere() {
        return by.isEmpty();
      }
    }
  }

  /**
   * Something wrong.
   *
   * @param at the character it begins at, from 1
   * @param piece what stands there; blank at the end
   */
  record Fault(int at, String piece, String message) {}

  /** An engine that does not keep a rule, and why. */
  record Loss(Dialect dialect, String why) {}

  RuleModel(Workbench bench, Texts texts, Table table, Rule rule) {
    this.bench = bench;
    this.texts = texts;
    this.table = table.id();
    this.rule = rule;
    this.tried =
        new Computed<>(
            bench.runner(),
            texts.get("trying", rule.label()),
            Lane.WORKING,
            RuleTrial.Question::isSame,
            RuleTrial::of);
  }

  /** The rule as it is now; as it was last if it is there no more. */
  Rule rule() {
    bench.design().find(table).stream()
        .flatMap(t -> t.rules().stream())
        .filter(r -> r.id().equals(rule.id()))
        .findFirst()
        .ifPresent(now -> rule = now);
    return rule;
  }

  /** Says whether somebody looks at it. */
  void look(boolean now) {
    tried.look(now);
  }

  /** The rows that pass and those refused. */
  ReadOnlyObjectProperty<Answer<RuleTrial>> trialProperty() {
    return tried.answerProperty();
  }

  /** Judges a condition as it stands in the card, and has it tried on the rows if it is sound. */
  Judgement judge(String text) {
    return switch (new Formula(text).condition(bench.draft().meaning().of(table).scope())) {
      case Checked.Faulty faulty -> {
        tried.stop();
        yield text.isBlank()
            ? new Judgement.Blank(faulty.problems().getFirst().message())
            : new Judgement.Faulty(faulty.problems().stream().map(p -> fault(text, p)).toList());
      }
      case Checked.Sound sound -> {
        tried.ask(
            new RuleTrial.Question(bench.draft(), table, sound, rule().message(), bench.clock()));
        yield sound(sound);
      }
    };
  }

  private static Fault fault(String text, Problem problem) {
    int at = Math.min(problem.span().start(), text.length());
    String piece = text.substring(at, Math.clamp(problem.span().end(), at, text.length()));
    return new Fault(at + 1, piece, problem.message());
  }

  /** Judges what the rule demands of several rows, as it stands in the design. */
  Judgement judge() {
    Optional<Constraint.Ruled> ruled =
        bench.draft().meaning().of(table).ruled().stream()
            .filter(one -> one.rule().id().equals(rule().id()))
            .findFirst();
    return ruled
        .<Judgement>map(
            one -> one.fault().<Judgement>map(Judgement.Blank::new).orElseGet(() -> kept(one)))
        .orElseGet(() -> new Judgement.Blank(""));
  }

  private Judgement sound(Checked.Sound sound) {
    return kept(new Constraint.Holds(rule(), sound));
  }

  private Judgement kept(Constraint.Ruled ruled) {
    var losses = new ArrayList<Loss>();
    Map<Keeping.Means, List<String>> by = new EnumMap<>(Keeping.Means.class);
    for (Dialect dialect : Dialects.ALL) {
      Keeping keeping = Lowered.keeping(bench.draft(), table, ruled, dialect);
      if (keeping.isKept()) {
        by.computeIfAbsent(keeping.by(), means -> new ArrayList<>()).add(dialect.engine());
      } else {
        losses.add(new Loss(dialect, keeping.loss()));
      }
    }
    return new Judgement.Sound(by, losses);
  }

  /** The form that writes the condition, if one does. */
  Optional<RuleForm> form() {
    if (begun.isEmpty()) {
      begun = rule().condition().flatMap(c -> RuleForm.of(bench.draft().meaning().of(table), c));
    }
    return begun;
  }

  /** Begins with a form that has nothing in it yet. */
  void begin(RuleForm form) {
    begun = Optional.of(form);
  }

  /** Somebody wrote the condition by hand. */
  void forget() {
    begun = Optional.empty();
  }

  /** Takes a form as it is filled in; once it is whole it writes the condition. */
  void form(RuleForm form) {
    begun = Optional.of(form);
    if (form.isWhole()) {
      Formula written = form.written(table());
      if (!rule().condition().equals(Optional.of(written))) {
        change(drafted(rule().withCondition(written), form), "");
      }
    }
  }

  /**
   * What is demanded of several rows, as a sentence without its stop; empty while it is not whole.
   */
  private String said(Rule of) {
    Design tried = bench.design().withTable(table, t -> t.withRules(List.of(of)));
    boolean whole =
        bench.draft().withDesign(tried).meaning().of(table).ruled().getFirst().fault().isEmpty();
    String words = DemandWords.of(tried, tried.table(table), of.demand());
    return whole ? words.substring(0, words.length() - 1) : "";
  }

  private Rule drafted(Rule changed, RuleForm form) {
    String before =
        RuleForm.of(bench.draft().meaning().of(table), rule().condition().orElseThrow())
            .map(this::words)
            .orElse("");
    return drafted(changed, before, words(form));
  }

  /** A rule nobody has named yet, or whose message follows what it says, is called by that. */
  private static Rule drafted(Rule changed, String before, String now) {
    if (now.isEmpty()) {
      return changed;
    }
    boolean unnamed = UNNAMED.matcher(changed.label()).matches();
    Rule named = unnamed || changed.label().equals(before) ? changed.withLabel(now) : changed;
    boolean follows = named.message().isBlank() || named.message().equals(before + ".");
    return follows ? named.withMessage(now + ".") : named;
  }

  /** What a form demands, in words. */
  private String words(RuleForm form) {
    if (form.sort() == RuleForm.Sort.RANGE && form.values().stream().anyMatch(String::isBlank)) {
      boolean least = form.values().getLast().isBlank();
      return texts.get(
          least ? "form.least" : "form.most",
          words(form, 0),
          least ? form.values().get(1) : form.values().get(2));
    }
    return texts.get(
        "form." + form.sort(),
        IntStream.range(0, form.values().size()).mapToObj(i -> words(form, i)).toArray());
  }

  private String words(RuleForm form, int slot) {
    String value = form.values().get(slot);
    return switch (form.sort().slots().get(slot)) {
      case FIELD -> table().fieldNamed(value).map(Field::label).orElse(value);
      case COMPARISON -> compared(value);
      case UNIT -> texts.get("unit." + value);
      case VALUE, VALUES, WHOLE_NUMBER, CONDITION, PATH -> value;
    };
  }

  /** An operator in words. */
  String compared(String sql) {
    return Arrays.stream(Comparison.values())
        .filter(comparison -> comparison.sql().equals(sql))
        .findFirst()
        .map(comparison -> texts.get("compare." + comparison))
        .orElse(sql);
  }

  /** Takes what is demanded of several rows. */
  void demand(Demand demand) {
    if (!rule().demand().equals(demand)) {
      change(drafted(rule().withDemand(demand), said(rule()), said(rule().withDemand(demand))), "");
    }
  }

  /** The table the rule belongs to. */
  Table table() {
    return bench.design().table(table);
  }

  Design design() {
    return bench.design();
  }

  /** What a condition can go on with. */
  List<Completions.Completion> completions(String text, int caret) {
    return completions(table, text, caret);
  }

  /** What a formula of a table can go on with. */
  List<Completions.Completion> completions(TableId of, String text, int caret) {
    return Completions.of(
        bench.design().table(of), bench.draft().meaning().of(of).scope(), text, caret);
  }

  /** How many rows refuse a rule on several rows, in a sentence of the audit; empty: none. */
  Optional<String> refused() {
    return bench
        .verdict()
        .audit()
        .violations()
        .filter(v -> v.table().equals(table) && v.constraint().equals(rule().name()))
        .map(Violation::message)
        .findFirst();
  }

  /** What is wrong with the message, or missing; empty: nothing. */
  Optional<String> ofMessage(String message) {
    if (message.isBlank()) {
      return Optional.of(texts.get("message.missing"));
    }
    List<String> unknown = Messages.unknown(message, table());
    return unknown.isEmpty()
        ? Optional.empty()
        : Optional.of(texts.get("message.unknown", WordList.and(unknown), table().label()));
  }

  void label(String text) {
    change(rule().withLabel(text.strip()), texts.get("undo.label", text));
  }

  void condition(String text) {
    change(rule().withCondition(new Formula(text.strip())), "");
  }

  void message(String text) {
    change(rule().withMessage(text.strip()), "");
  }

  private void change(Rule changed, String name) {
    bench
        .design()
        .find(table)
        .map(t -> ChangeTable.changeRule(t, changed))
        .ifPresent(edit -> bench.apply(name.isEmpty() ? edit : edit.called(name)));
  }

  /** Removes the rule, which one undo takes back. */
  void remove() {
    bench.apply(ChangeTable.removeRule(bench.design().table(table), rule()));
    bench.tellDone(texts.get("removed", rule.label()), texts.get("undo"));
  }
}
