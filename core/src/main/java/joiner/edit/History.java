package joiner.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.change.Changes;
import joiner.meaning.Draft;

/**
 * The open draft with what was done and undone. Immutable. It keeps what changed, not the drafts
 * between: a changed cell costs two texts however many rows its table has, and steps may be kept in
 * a file and taken back after the design was opened again.
 */
public final class History {
  private final List<Step> steps;
  private final int done;
  private final Draft present;

  /**
   * One edit made.
   *
   * @param name what it does, shown after "Undo:"
   * @param changes what became of the draft before it
   */
  public record Step(String name, Changes changes) {}

  /**
   * A history with what was done before.
   *
   * @param steps what was done, from the first on, and after it what was undone
   * @param done how many of the steps stand
   * @param present the draft as it is now, which those steps led to
   */
  public History(List<Step> steps, int done, Draft present) {
    if (done < 0 || done > steps.size()) {
      throw new IllegalArgumentException(done + " of " + steps.size() + " steps");
    }
    this.steps = List.copyOf(steps);
    this.done = done;
    this.present = present;
  }

  /** A history that begins with that draft. */
  public static History startingWith(Draft draft) {
    return new History(List.of(), 0, draft);
  }

  /** What was done, from the first on, and after it what was undone. */
  public List<Step> steps() {
    return steps;
  }

  /** How many of the steps stand. */
  public int done() {
    return done;
  }

  /** The draft as it is now. */
  public Draft present() {
    return present;
  }

  /** After a change; what was undone before is forgotten. A change of nothing leaves no step. */
  public History after(Edit edit) {
    return replaced(edit.name(), edit.apply(present));
  }

  /** After the draft was replaced by another, as by changed files. */
  public History replaced(String name, Draft other) {
    Changes changes = Changes.between(present, other);
    if (changes.isEmpty()) {
      return this;
    }
    var kept = new ArrayList<>(steps.subList(0, done));
    kept.add(new Step(name, changes));
    return new History(kept, done + 1, other);
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
    return done == 0
        ? this
        : new History(steps, done - 1, steps.get(done - 1).changes.inverse().applyTo(present));
  }

  /** One step forward; the same where there is none. */
  public History redone() {
    return done == steps.size()
        ? this
        : new History(steps, done + 1, steps.get(done).changes.applyTo(present));
  }
}
