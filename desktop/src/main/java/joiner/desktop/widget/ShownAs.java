package joiner.desktop.widget;

import java.util.function.Function;
import javafx.util.StringConverter;
import org.jspecify.annotations.Nullable;

/** Shows the values of a list to choose from in words; nothing is ever typed there. */
public final class ShownAs<T> extends StringConverter<T> {
  private final Function<T, String> words;

  /** Shows values by those words, and no value as nothing. */
  public ShownAs(Function<T, String> words) {
    this.words = words;
  }

  @Override
  public String toString(@Nullable T value) {
    return value == null ? "" : words.apply(value);
  }

  @Override
  public T fromString(String text) {
    throw new IllegalStateException("a choice is picked, not typed");
  }
}
