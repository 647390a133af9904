package joiner.desktop.work;

import java.util.Optional;

/**
 * What a pane knows of something that is worked out in the background, and whether that is true of
 * the design as it stands.
 */
public sealed interface Answer<T> {
  /** Nobody has asked. */
  record Unasked<T>() implements Answer<T> {}

  /** It is being worked out, or waits for its turn or for somebody to look. */
  record Underway<T>(Optional<T> before) implements Answer<T> {}

  /** It is true now. */
  record Current<T>(T value) implements Answer<T> {}

  /** It could not be worked out. */
  record Failed<T>(Failure failure, Optional<T> before) implements Answer<T> {}

  /** Somebody stopped it. */
  record Stopped<T>(Optional<T> before) implements Answer<T> {}

  /** The value, if it is true now. */
  default Optional<T> current() {
    return this instanceof Current<T>(T value) ? Optional.of(value) : Optional.empty();
  }

  /** The value, true now or once. */
  default Optional<T> latest() {
    return switch (this) {
      case Unasked<T> u -> Optional.empty();
      case Underway<T> u -> u.before();
      case Current<T> c -> Optional.of(c.value());
      case Failed<T> f -> f.before();
      case Stopped<T> s -> s.before();
    };
  }
}
