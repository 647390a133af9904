package joiner.change;

import java.util.List;
import joiner.meaning.Draft;

/**
 * What leads from one draft to another: changes in the order they are made in, all of them or none.
 *
 * <p>For any drafts a and b, {@code between(a, b)} made on a gives b, its inverse made on b gives
 * a, and between a draft and its equal there is nothing.
 */
public record Changes(List<Change> list) {
  public Changes {
    list = List.copyOf(list);
  }

  /**
   * What leads from one draft to another; things with the same id are the same things. Linear in
   * what is not shared between the two: tables, columns of rows and cells that are the same objects
   * are not looked into.
   */
  public static Changes between(Draft before, Draft after) {
    return new Changes(new Differ(before, after).run());
  }

  /** Whether nothing changed. */
  public boolean isEmpty() {
    return list.isEmpty();
  }

  /**
   * The draft with all changes made.
   *
   * @throws UnfitChangeException if something is not as the changes found it
   */
  public Draft applyTo(Draft draft) {
    if (list.isEmpty()) {
      return draft;
    }
    var sketch = new Sketch(draft);
    list.forEach(sketch::make);
    return sketch.draft();
  }

  /** What takes these changes back. */
  public Changes inverse() {
    return new Changes(list.reversed().stream().map(Change::inverse).toList());
  }
}
