package joiner.desktop.work;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Supplier;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import joiner.audit.Audit;
import joiner.edit.Edit;
import joiner.edit.EditRefusedException;
import joiner.edit.History;
import joiner.finding.DesignChecks;
import joiner.finding.KnownFindings;
import joiner.format.DesignFolder;
import joiner.model.Design;
import joiner.model.Table;
import joiner.rows.Draft;

/**
 * The open design as every view reads it. Views send edits here; checks, audit and saving follow in
 * the background, each on an unchanging snapshot. Belongs to the window's thread.
 */
public final class Workbench {
  private final Executor background;
  private final Executor window;
  private final Clock clock;
  private final AtomicLong newest = new AtomicLong();
  private final KnownFindings known = new KnownFindings();
  private final ReadOnlyObjectWrapper<History> history;
  private final ReadOnlyObjectWrapper<Verdict> verdict = new ReadOnlyObjectWrapper<>(Verdict.NONE);
  private final ReadOnlyObjectWrapper<SaveState> saved;
  private final ReadOnlyObjectWrapper<Optional<String>> notice =
      new ReadOnlyObjectWrapper<>(Optional.empty());
  private final ObjectProperty<Selection> selection = new SimpleObjectProperty<>(Selection.NONE);
  private final ObjectProperty<Stage> stage = new SimpleObjectProperty<>(Stage.GATHER);
  private Optional<Path> folder;

  /**
   * Opens a draft.
   *
   * @param folder where it is saved after each change; empty: nowhere yet
   * @param background runs checks and saves, one at a time
   * @param window runs what belongs to the window's thread
   */
  public Workbench(
      Draft draft, Optional<Path> folder, Executor background, Executor window, Clock clock) {
    this.history = new ReadOnlyObjectWrapper<>(History.startingWith(draft));
    this.folder = folder;
    this.background = background;
    this.window = window;
    this.clock = clock;
    this.saved =
        new ReadOnlyObjectWrapper<>(folder.isPresent() ? SaveState.SAVED : SaveState.NOWHERE);
    stage.set(draft.design().tables().isEmpty() ? Stage.GATHER : Stage.CONNECT);
    check();
  }

  /** Puts another draft on the bench, with a history of its own. */
  public void open(Draft draft, Optional<Path> from) {
    folder = from;
    selection.set(Selection.NONE);
    history.set(History.startingWith(draft));
    saved.set(from.isPresent() ? SaveState.SAVED : SaveState.NOWHERE);
    notice.set(Optional.empty());
    check();
  }

  public ReadOnlyObjectProperty<History> historyProperty() {
    return history.getReadOnlyProperty();
  }

  public ReadOnlyObjectProperty<Verdict> verdictProperty() {
    return verdict.getReadOnlyProperty();
  }

  public ReadOnlyObjectProperty<SaveState> savedProperty() {
    return saved.getReadOnlyProperty();
  }

  /** What the last change was refused for, if it was. */
  public ReadOnlyObjectProperty<Optional<String>> noticeProperty() {
    return notice.getReadOnlyProperty();
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
    return verdict.get();
  }

  /** The chosen table, if it is still there. */
  public Optional<Table> table() {
    return selection.get().table().flatMap(design()::find);
  }

  /** Makes a change; a refusal becomes a notice. */
  public void apply(Edit edit) {
    apply(() -> edit);
  }

  /** Makes a change that may be refused while it is put together. */
  public void apply(Supplier<Edit> edit) {
    try {
      take(history.get().after(edit.get()));
      notice.set(Optional.empty());
    } catch (EditRefusedException refused) {
      notice.set(Optional.of(refused.getMessage()));
    }
  }

  /** Tells the user something that needs no answer. */
  public void tell(String message) {
    notice.set(Optional.of(message));
  }

  /** Forgets what was told. */
  public void dismissNotice() {
    notice.set(Optional.empty());
  }

  public void undo() {
    take(history.get().undone());
  }

  public void redo() {
    take(history.get().redone());
  }

  private void take(History next) {
    if (next != history.get()) {
      history.set(next);
      check();
      save();
    }
  }

  /** Saves from now on in that folder, beginning now. */
  public void saveIn(Path path) {
    folder = Optional.of(path);
    save();
  }

  private void check() {
    long ticket = newest.incrementAndGet();
    Draft snapshot = draft();
    background.execute(
        () -> {
          if (ticket == newest.get()) {
            long start = System.nanoTime();
            var findings = DesignChecks.run(snapshot, known);
            var audit = Audit.of(snapshot, clock, () -> ticket != newest.get());
            var result = new Verdict(findings, audit, (System.nanoTime() - start) / 1_000_000);
            window.execute(() -> show(ticket, result));
          }
        });
  }

  private void show(long ticket, Verdict result) {
    if (ticket == newest.get()) {
      verdict.set(result);
    }
  }

  private void save() {
    if (folder.isEmpty()) {
      saved.set(SaveState.NOWHERE);
      return;
    }
    saved.set(SaveState.SAVING);
    long ticket = newest.get();
    Draft snapshot = draft();
    Path target = folder.get();
    background.execute(
        () -> {
          SaveState state = write(snapshot, target);
          window.execute(
              () ->
                  saved.set(
                      ticket == newest.get() || state == SaveState.FAILED ? state : saved.get()));
        });
  }

  private SaveState write(Draft snapshot, Path target) {
    try {
      DesignFolder.save(snapshot, target);
      return SaveState.SAVED;
    } catch (IOException | UncheckedIOException e) {
      window.execute(
          () ->
              tell(
                  "The design could not be saved in "
                      + target
                      + ": "
                      + e.getMessage()
                      + ". Choose another folder with Ctrl+S."));
      return SaveState.FAILED;
    }
  }
}
