package joiner.edit;

import joiner.meaning.Draft;

/**
 * A change worked out beforehand for one draft, because it takes long. On any other draft it is
 * worked out anew.
 *
 * @param edit the change
 * @param before the draft it was worked out for
 * @param after what it makes of that
 */
public record Prepared(Edit edit, Draft before, Draft after) implements Edit {
  /**
   * Works a change out.
   *
   * @throws EditRefusedException as the change itself does
   */
  public static Prepared of(Edit edit, Draft draft) {
    return new Prepared(edit, draft, edit.apply(draft));
  }

  @Override
  public String name() {
    return edit.name();
  }

  @Override
  public Draft apply(Draft draft) {
    return draft == before ? after : edit.apply(draft);
  }
}
