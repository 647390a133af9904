package joiner.desktop.widget;

import java.text.MessageFormat;
import java.util.Locale;
import java.util.ResourceBundle;

/** The words of one view, from the bundle {@code texts.properties} beside it. */
public final class Texts {
  private final ResourceBundle bundle;

  private Texts(ResourceBundle bundle) {
    this.bundle = bundle;
  }

  /** The words beside that class; a missing bundle is a broken build. */
  public static Texts beside(Class<?> view) {
    return new Texts(
        ResourceBundle.getBundle(
            view.getPackageName() + ".texts", Locale.ROOT, view.getClassLoader()));
  }

  /** A text with its parameters put in. */
  public String get(String key, Object... parameters) {
    String pattern = bundle.getString(key);
    return parameters.length == 0
        ? pattern.replace("''", "'")
        : new MessageFormat(pattern, Locale.ENGLISH).format(parameters);
  }
}
