package joiner.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.meaning.Draft;

/**
 * The open draft with what was done and undone. Immutable; going back and forth takes constant
 * time.
 */
public final class History {
  private record Step(String name, Draft before, Draft after) {}

  private final List<Step> steps;
  private final int done;
  private final Draft present;

  private History(List<Step> steps, int done, Draft present) {
    this.steps = steps;
    this.done = done;
    this.present = present;
  }

  /** A history that begins with that draft. */
  public static History startingWith(Draft draft) {
    return new History(List.of(), 0, draft);
  }

  /** The draft as it is now. */
  public Draft present() {
    return present;
  }

  /** After a change; what was undone before is forgotten. A change of nothing leaves no step. */
  public History after(Edit edit) {
    Draft changed = edit.apply(present);
    if (changed.equals(present)) {
      return this;
    }
    var kept = new ArrayList<>(steps.subList(0, done));
    kept.add(new Step(edit.name(), present, changed));
    return new History(List.copyOf(kept), done + 1, changed);
  }

  /** After the draft was replaced by another from outside, as by changed files. */
  public History replaced(String name, Draft other) {
    var kept = new ArrayList<>(steps.subList(0, done));
    kept.add(new Step(name, present, other));
    return new History(List.copyOf(kept), done + 1, other);
  }

  /** Name of the change that undo takes back. */
  public Optional<String> undoName() {
    return done == 0 ? Optional.empty() : Optional.of(steps.get(done - 1).name);
  }

  /** Name of the change that redo makes again. */
  public Optional<String> redoName() {
    return done == steps.size() ? Optional.empty() : Optional.of(steps.get(done).name);
  }

  /** One step back; the same where there is none. */
  public History undone() {
    return done == 0 ? this : new History(steps, done - 1, steps.get(done - 1).before);
  }

  /** One step forward; the same where there is none. */
  public History redone() {
    return done == steps.size() ? this : new History(steps, done + 1, steps.get(done).after);
  }
}
