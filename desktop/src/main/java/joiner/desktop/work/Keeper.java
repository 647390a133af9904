package joiner.desktop.work;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import joiner.compare.Effect;
import joiner.compare.Effects;
import joiner.edit.History;
import joiner.format.ChangedOutsideException;
import joiner.format.DesignFolder;
import joiner.format.DesignStore;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;

/**
 * Keeps the open design on disk: in its folder after each change, or in the recovery place while it
 * has none. What somebody else changed meanwhile is never overwritten without being asked. Belongs
 * to the window's thread.
 */
public final class Keeper {
  private final Runner runner;
  private final Notices notices;
  private final Recovery recovery;
  private final ReadOnlyObjectWrapper<SaveState> state =
      new ReadOnlyObjectWrapper<>(SaveState.UNTOUCHED);
  private final ReadOnlyObjectWrapper<Optional<Conflict>> conflict =
      new ReadOnlyObjectWrapper<>(Optional.empty());
  private DesignStore store;
  private boolean homeless = true;

  Keeper(Runner runner, Notices notices, Recovery recovery) {
    this.runner = runner;
    this.notices = notices;
    this.recovery = recovery;
    this.store = recovery.fresh();
  }

  /** Whether the design as it stands is on disk. */
  public ReadOnlyObjectProperty<SaveState> stateProperty() {
    return state.getReadOnlyProperty();
  }

  /** What somebody else changed, until that is settled. */
  public ReadOnlyObjectProperty<Optional<Conflict>> conflictProperty() {
    return conflict.getReadOnlyProperty();
  }

  /** The folder the design is saved in, if it has one. */
  public Optional<Path> folder() {
    return homeless ? Optional.empty() : Optional.of(store.folder());
  }

  /** The folder the design stands in now, be it its own or the recovery place. */
  public Path place() {
    return store.folder();
  }

  /** Whether leaving the design now would lose something that is in no folder of its own. */
  public boolean wouldLose() {
    return switch (state.get()) {
      case SAVED, UNTOUCHED -> false;
      case SAVING -> homeless;
      case KEPT, FAILED, CONFLICT -> true;
    };
  }

  /** Another design is on the bench. */
  void open(OpenDesign opened) {
    leave();
    homeless = opened.store().isEmpty();
    store = opened.store().orElseGet(recovery::fresh);
    state.set(homeless ? SaveState.UNTOUCHED : SaveState.SAVED);
    conflict.set(Optional.empty());
  }

  /** Ends with the design on the bench; what is kept for recovery stays kept. */
  void leave() {
    DesignStore left = store;
    runner.start(
        request(
            "leave " + System.identityHashCode(left),
            "Leaving the folder",
            progress -> {
              left.close();
              return left;
            },
            done -> {}));
  }

  /** The design has changed. */
  void changed(History history) {
    if (state.get() == SaveState.CONFLICT) {
      return; // Nothing is written until that is settled; the draft is then asked for anew.
    }
    save(history, DesignStore::save);
  }

  /** Saves of one store end older ones of it, never those of another. */
  private record Saved(DesignStore store) {}

  private interface Saving {
    void save(DesignStore store, Draft draft) throws IOException, ChangedOutsideException;
  }

  private void save(History history, Saving saving) {
    DesignStore target = store;
    boolean kept = homeless;
    state.set(SaveState.SAVING);
    runner.start(
        new Request<>(
            new Saved(target),
            "Saving the design",
            Lane.SAVING,
            true,
            progress -> {
              saving.save(target, history.present());
              target.lock();
              return keep(target, history);
            },
            problem -> {
              state.set(kept ? SaveState.KEPT : SaveState.SAVED);
              problem.ifPresent(text -> notices.tell(Notice.of(Notice.Sort.HINT, text)));
            },
            failure -> failed(failure, history.present()),
            () -> {}));
  }

  /** Keeps what was done; why that was not possible, if it was not. The design is saved then. */
  private static Optional<String> keep(DesignStore store, History history) {
    try {
      store.keep(history);
      return Optional.empty();
    } catch (IOException e) {
      return Optional.of(
          "The design is saved, but what was done to it is not kept for the next start: "
              + e.getMessage());
    }
  }

  private <T> Request<T> request(String key, String title, Request.Work<T> work, Consumer<T> done) {
    return new Request<>(
        key,
        title,
        Lane.SAVING,
        true,
        work,
        done,
        failure -> notices.tell(Notice.of(failure)),
        () -> {});
  }

  private void failed(Failure failure, Draft draft) {
    if (failure.cause() instanceof ChangedOutsideException changed) {
      met(changed.files(), draft);
      return;
    }
    state.set(SaveState.FAILED);
    notices.tell(
        Notice.of(
            Notice.Sort.FAILED,
            "The design could not be saved in "
                + store.folder()
                + ": "
                + failure.message()
                + " It stays open; save it in another folder with Ctrl+S."));
  }

  /** Looks whether somebody else changed the files; does nothing where nobody did. */
  public void look(Draft draft) {
    if (homeless || state.get() != SaveState.SAVED) {
      return;
    }
    DesignStore looked = store;
    runner.start(
        request(
            "look",
            "Looking for changes by others",
            progress -> looked.changedOutside(),
            files -> {
              if (!files.isEmpty() && store == looked && state.get() == SaveState.SAVED) {
                met(files, draft);
              }
            }));
  }

  private void met(List<String> files, Draft ours) {
    state.set(SaveState.CONFLICT);
    Path folder = store.folder();
    runner.start(
        request(
            "conflict",
            "Reading what others changed",
            progress -> conflict(folder, files, ours),
            found -> conflict.set(Optional.of(found))));
  }

  private static Conflict conflict(Path folder, List<String> files, Draft ours) throws IOException {
    try {
      Draft theirs = DesignFolder.open(folder).draft();
      return new Conflict(
          files,
          Optional.of(theirs),
          Effects.between(ours, theirs).stream().map(Effect::message).toList());
    } catch (UnreadableFileException e) {
      return new Conflict(files, Optional.empty(), List.of(e.getMessage()));
    }
  }

  /** Settles a conflict for the files of the others; gives the design as it stands there. */
  void takeTheirs(Consumer<DesignFolder.Opened> taken) {
    DesignStore target = store;
    runner.start(
        request(
            "theirs",
            "Reading the changed files",
            progress -> target.open(),
            opened -> {
              conflict.set(Optional.empty());
              state.set(SaveState.SAVED);
              taken.accept(opened);
            }));
  }

  /** Settles a conflict for the design on the bench. */
  void keepOurs(History history) {
    conflict.set(Optional.empty());
    save(history, DesignStore::overwrite);
  }

  /** Settles a conflict for both: ours goes into a folder of its own beside theirs. */
  void keepBoth(History history) {
    Path folder = store.folder();
    Path beside = folder.resolveSibling(folder.getFileName() + "-mine");
    for (int number = 2; Files.exists(beside); number++) {
      beside = folder.resolveSibling(folder.getFileName() + "-mine-" + number);
    }
    conflict.set(Optional.empty());
    saveIn(beside, history);
    notices.tell(
        Notice.of(
            Notice.Sort.DONE,
            "Your version goes on in " + beside + "; the other one stays in " + folder + "."));
  }

  /** Saves in a folder from now on, in the place of whatever design stands there. */
  void saveIn(Path folder, History history) {
    DesignStore before = store;
    boolean kept = homeless;
    DesignStore target = DesignStore.at(folder);
    store = target;
    homeless = false;
    conflict.set(Optional.empty());
    save(history, DesignStore::overwrite);
    runner.start(
        request(
            "leave " + System.identityHashCode(before),
            "Leaving the folder before",
            progress -> {
              before.close();
              if (kept && target.holdsDesign()) {
                before.forgetHistory();
                recovery.discard(before.folder());
              }
              return before;
            },
            done -> {}));
  }

  /** Throws away what is kept of a design that has no folder. */
  void discard() {
    DesignStore left = store;
    if (homeless) {
      store = recovery.fresh();
      state.set(SaveState.UNTOUCHED);
      runner.start(
          request(
              "discard",
              "Throwing the unsaved design away",
              progress -> {
                left.close();
                left.forgetHistory();
                recovery.discard(left.folder());
                return left;
              },
              done -> {}));
    }
  }
}
