package joiner.desktop.work;

import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import joiner.edit.Edit;
import joiner.edit.EditRefusedException;
import joiner.edit.History;
import joiner.edit.Prepared;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Table;

/**
 * The open design as every view reads it. Views send edits here; checks, audit and saving follow in
 * the background, each on an unchanging snapshot. Belongs to the window's thread.
 */
public final class Workbench {
  private final Runner runner;
  private final Clock clock;
  private final Notices notices = new Notices();
  private final Keeper keeper;
  private final Solver solver;
  private final Checking checking;
  private final ReadOnlyObjectWrapper<History> history;
  private final ObjectProperty<Selection> selection = new SimpleObjectProperty<>(Selection.NONE);
  private final ReadOnlyObjectWrapper<Optional<Proposal>> proposal =
      new ReadOnlyObjectWrapper<>(Optional.empty());
  private final ObjectProperty<Stage> stage = new SimpleObjectProperty<>(Stage.GATHER);

  private OpenDesign opened;

  /** Puts a design on the bench. */
  public Workbench(OpenDesign opened, Runner runner, Recovery recovery, Clock clock) {
    this.runner = runner;
    this.clock = clock;
    this.opened = opened;
    this.keeper = new Keeper(runner, notices, recovery);
    this.solver = new Solver(clock);
    this.checking = new Checking(runner, clock, solver);
    this.history = new ReadOnlyObjectWrapper<>(opened.history());
    verdictProperty().subscribe(verdict -> verdict.failure().ifPresent(this::tell));
    open(opened);
  }

  /** Puts another design on the bench, with a history of its own. */
  public void open(OpenDesign opened) {
    dismiss();
    this.opened = opened;
    keeper.open(opened);
    selection.set(Selection.NONE);
    history.set(opened.history());
    stage.set(opened.draft().design().tables().isEmpty() ? Stage.GATHER : Stage.CONNECT);
    checking.ask(opened.draft());
    notices.clear();
    opened.notices().forEach(text -> tell(Notice.Sort.HINT, text));
  }

  /** What was put on the bench last; another one is another design, or the same read anew. */
  public OpenDesign opened() {
    return opened;
  }

  public ReadOnlyObjectProperty<History> historyProperty() {
    return history.getReadOnlyProperty();
  }

  public ReadOnlyObjectProperty<Verdict> verdictProperty() {
    return checking.verdictProperty();
  }

  /** What was told to the user. */
  public Notices notices() {
    return notices;
  }

  /** What keeps the design on disk. */
  public Keeper keeper() {
    return keeper;
  }

  /** Who finds out what rules mean. */
  public Solver solver() {
    return solver;
  }

  /** Where work is done that is longer than a frame. */
  public Runner runner() {
    return runner;
  }

  public ObjectProperty<Selection> selectionProperty() {
    return selection;
  }

  public ObjectProperty<Stage> stageProperty() {
    return stage;
  }

  public Clock clock() {
    return clock;
  }

  public Draft draft() {
    return history.get().present();
  }

  public Design design() {
    return draft().design();
  }

  public Verdict verdict() {
    return checking.verdictProperty().get();
  }

  /** The chosen table, if it is still there. */
  public Optional<Table> table() {
    return selection.get().table().flatMap(design()::find);
  }

  /** Makes a change; a refusal becomes a notice. */
  public void apply(Edit edit) {
    apply(() -> edit);
  }

  /**
   * Makes a change that may be refused while it is put together.
   *
   * @return whether it was made
   */
  public boolean apply(Supplier<Edit> edit) {
    try {
      take(history.get().after(edit.get()));
      notices.dismissRefusals();
      return true;
    } catch (EditRefusedException refused) {
      tell(Notice.Sort.REFUSED, refused.getMessage());
      return false;
    }
  }

  /**
   * A change that is shown before it is made.
   *
   * @param before the draft it was tried on; once another is on the bench it is no longer proposed
   * @param after what it made of it
   * @param done what follows once it is made
   */
  public record Proposal(Edit edit, Draft before, Draft after, Runnable done) {}

  /** What became of trying a change: a draft, or why it is refused. */
  private record Trial(Optional<Draft> after, String refused) {
    static Trial of(Edit edit, Draft draft) {
      try {
        return new Trial(Optional.of(edit.apply(draft)), "");
      } catch (EditRefusedException refused) {
        return new Trial(Optional.empty(), refused.getMessage());
      }
    }
  }

  /** The change that is to be confirmed. */
  public ReadOnlyObjectProperty<Optional<Proposal>> proposalProperty() {
    return proposal.getReadOnlyProperty();
  }

  /**
   * Makes a change, or has it shown first where it reaches far; a refusal becomes a notice. What
   * reaches far is tried in the background.
   *
   * @param done what follows once it is made
   */
  public void propose(Supplier<Edit> edit, Runnable done) {
    try {
      Edit proposed = edit.get();
      if (proposed.reachesFar()) {
        Draft before = draft();
        runner.start(
            Request.of(
                proposal,
                "Trying to " + proposed.name(),
                progress -> Trial.of(proposed, before),
                trial -> propose(proposed, before, trial, done),
                this::tell));
      } else if (apply(() -> proposed)) {
        done.run();
      }
    } catch (EditRefusedException refused) {
      tell(Notice.Sort.REFUSED, refused.getMessage());
    }
  }

  private void propose(Edit edit, Draft before, Trial trial, Runnable done) {
    if (before != draft()) {
      return; // Something else was done meanwhile.
    }
    trial
        .after()
        .ifPresentOrElse(
            after -> {
              notices.dismissRefusals();
              proposal.set(Optional.of(new Proposal(edit, before, after, done)));
            },
            () -> tell(Notice.Sort.REFUSED, trial.refused()));
  }

  /** Makes the change that is shown. */
  public void accept() {
    Optional<Proposal> shown = proposal.get();
    dismiss();
    shown
        .filter(p -> apply(() -> new Prepared(p.edit(), p.before(), p.after())))
        .ifPresent(p -> p.done().run());
  }

  /** Leaves everything as it is. */
  public void dismiss() {
    proposal.set(Optional.empty());
  }

  /** Tells the user something. */
  public void tell(Notice.Sort sort, String message, Notice.Answer... answers) {
    notices.tell(Notice.of(sort, message, answers));
  }

  /** Tells of something done that can be taken back at once. */
  public void tellDone(String message, String undo) {
    History done = history.get();
    tell(
        Notice.Sort.DONE,
        message,
        new Notice.Answer(
            undo,
            () -> {
              if (history.get() == done) {
                undo();
              } else {
                tell(
                    Notice.Sort.REFUSED,
                    "Other changes came after it; take those back first with Ctrl+Z.");
              }
            }));
  }

  /** Tells of something that went wrong. */
  public void tell(Failure failure) {
    notices.tell(Notice.of(failure));
  }

  public void undo() {
    take(history.get().undone());
  }

  public void redo() {
    take(history.get().redone());
  }

  /** Forgets what was done, on disk too: nothing of it can be taken back or read from then on. */
  public void forgetSteps() {
    take(History.startingWith(draft()));
  }

  private void take(History next) {
    if (next != history.get()) {
      dismiss();
      history.set(next);
      checking.ask(next.present());
      keeper.changed(next);
    }
  }

  /** Saves from now on in that folder, beginning now, in the place of what stands there. */
  public void saveIn(Path path) {
    keeper.saveIn(path, history.get());
  }

  /** Looks whether somebody else changed the files of the design, or those that have its rows. */
  public void lookForChanges() {
    keeper.look(draft());
    checking.lookForChanges(draft());
  }

  /**
   * Settles a conflict for the files of the others; our state stays one step back in the history.
   *
   * @param name of the step
   */
  public void takeTheirs(String name) {
    keeper.takeTheirs(
        opened -> {
          dismiss();
          history.set(history.get().replaced(name, opened.draft()));
          checking.ask(opened.draft());
        });
  }

  /** Settles a conflict for the design as it is here. */
  public void keepOurs() {
    keeper.keepOurs(history.get());
  }

  /** Settles a conflict for both: ours goes on in a folder of its own. */
  public void keepBoth() {
    keeper.keepBoth(history.get());
  }

  /** Ends with the design on the bench; what is under way is still written. */
  public void leave() {
    keeper.leave();
  }

  /** Keeps a design that was taken up again for the next start. */
  public void keepForRecovery() {
    keeper.changed(history.get());
  }

  /** Throws an unsaved design away for good. */
  public void discard() {
    keeper.discard();
  }
}
