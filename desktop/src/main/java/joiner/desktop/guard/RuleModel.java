package joiner.desktop.guard;

import java.util.ArrayList;
import java.util.List;
import javafx.beans.property.ReadOnlyObjectProperty;
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
import joiner.engine.Support;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.expression.Problem;
import joiner.meaning.Constraint;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;

/** One rule as its card shows it, without a window: what it says, who keeps it, which rows pass. */
final class RuleModel {
  private final Workbench bench;
  private final Texts texts;
  private final Computed<RuleTrial.Question, RuleTrial> tried;
  private final TableId table;
  private Rule rule;

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
     * @param keeping how many engines keep it
     * @param losses why the others do not
     */
    record Sound(int keeping, List<Loss> losses) implements Judgement {
      public Sound {
        losses = List.copyOf(losses);
      }

      boolean everywhere() {
        return losses.isEmpty();
      }

      boolean nowhere() {
        return keeping == 0;
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
        tried.ask(new RuleTrial.Question(bench.draft(), table, sound, bench.clock()));
        yield sound(sound);
      }
    };
  }

  private static Fault fault(String text, Problem problem) {
    int at = Math.min(problem.span().start(), text.length());
    String piece = text.substring(at, Math.clamp(problem.span().end(), at, text.length()));
    return new Fault(at + 1, piece, problem.message());
  }

  private Judgement sound(Checked.Sound sound) {
    var losses = new ArrayList<Loss>();
    for (Dialect dialect : Dialects.ALL) {
      Keeping keeping =
          Lowered.keeping(
              bench.draft(), table, new Constraint.Holds(rule(), sound), dialect);
      if (!keeping.isKept()) {
        losses.add(new Loss(dialect, keeping.loss()));
      }
    }
    return new Judgement.Sound(Dialects.ALL.size() - losses.size(), losses);
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
