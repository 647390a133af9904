package joiner.desktop.frame;

import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.layout.StackPane;

/**
 * Something over the window that is made when it is first opened, so that no start waits for it.
 */
final class Overlay<T> {
  private final StackPane under;
  private final Supplier<T> make;
  private final Function<T, Node> node;
  private Optional<T> made = Optional.empty();

  /**
   * Something over a pane, of which the last child stays above all.
   *
   * @param node what is shown of it
   */
  Overlay(StackPane under, Supplier<T> make, Function<T, Node> node) {
    this.under = under;
    this.make = make;
    this.node = node;
  }

  /** It, made now if it was not yet. */
  T get() {
    if (made.isEmpty()) {
      T now = make.get();
      under.getChildren().add(under.getChildren().size() - 1, node.apply(now));
      made = Optional.of(now);
    }
    return made.get();
  }

  /** It, if it was made. */
  Optional<T> ifMade() {
    return made;
  }
}
