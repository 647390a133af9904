package joiner.desktop;

import java.util.Locale;

/** Whether there is a display to open a window on. */
final class Displays {
  private Displays() {}

  static boolean available() {
    if (System.getProperty(JoinerApplication.TRAINING) != null) {
      return true;
    }
    if ("Headless".equals(System.getProperty("glass.platform"))) {
      return false;
    }
    String system = System.getProperty("os.name").toLowerCase(Locale.ROOT);
    return !system.contains("linux") || isSet("DISPLAY");
  }

  private static boolean isSet(String variable) {
    String value = System.getenv(variable);
    return value != null && !value.isBlank();
  }
}
