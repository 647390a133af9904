package joiner.desktop.work;

import java.time.LocalTime;
import java.util.List;
import java.util.Optional;

/**
 * Something told to the user, whole.
 *
 * @param sort how much it matters
 * @param text sentences
 * @param details for a report, if there are any
 * @param answers what can be done about it
 * @param at when it was told
 */
public record Notice(
    Sort sort, String text, Optional<String> details, List<Answer> answers, LocalTime at) {
  /** How much a notice matters, and whether it waits for an answer. */
  public enum Sort {
    /** Something was done. */
    DONE(false),
    /** Something is worth knowing. */
    HINT(false),
    /** Something was not done, for a reason. */
    REFUSED(true),
    /** Something went wrong. */
    FAILED(true);

    private final boolean stays;

    Sort(boolean stays) {
      this.stays = stays;
    }

    /** Whether it stays until somebody takes it away. */
    public boolean stays() {
      return stays;
    }
  }

  /** Something that can be done about a notice; the notice goes with it. */
  public record Answer(String label, Runnable action) {}

  public Notice {
    answers = List.copyOf(answers);
  }

  /** A notice without details. */
  public static Notice of(Sort sort, String text, Answer... answers) {
    return new Notice(sort, text, Optional.empty(), List.of(answers), LocalTime.now());
  }

  /** A notice of something that went wrong. */
  public static Notice of(Failure failure) {
    return new Notice(
        Sort.FAILED, failure.message(), failure.details(), List.of(), LocalTime.now());
  }
}
