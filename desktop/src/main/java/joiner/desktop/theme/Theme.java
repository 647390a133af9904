package joiner.desktop.theme;

import atlantafx.base.theme.PrimerDark;
import atlantafx.base.theme.PrimerLight;
import java.io.InputStream;
import java.util.List;
import java.util.Objects;
import javafx.application.Application;
import javafx.scene.Scene;
import javafx.scene.text.Font;

/** Light or dark: paper, boards and ink. */
public enum Theme {
  LIGHT,
  DARK;

  private static final List<String> FONTS =
      List.of(
          "IBMPlexSans_400Regular",
          "IBMPlexSans_500Medium",
          "IBMPlexSans_600SemiBold",
          "IBMPlexMono_400Regular",
          "IBMPlexMono_600SemiBold");

  /** Loads the fonts that come with Joiner; call once before the first scene. */
  public static void loadFonts() {
    for (String font : FONTS) {
      InputStream in = Theme.class.getResourceAsStream("fonts/" + font + ".ttf");
      if (in == null || Font.loadFont(in, 13) == null) {
        throw new IllegalStateException("the font " + font + " is missing from the application");
      }
    }
  }

  /** Dresses a scene. */
  public void applyTo(Scene scene) {
    wear();
    String sheet = sheet("joiner");
    if (!scene.getStylesheets().contains(sheet)) {
      scene.getStylesheets().add(sheet);
    }
    scene.getRoot().getStyleClass().remove("dark");
    if (this == DARK) {
      scene.getRoot().getStyleClass().add("dark");
    }
  }

  /** Dresses all that is in no scene yet. */
  public void wear() {
    var primer = this == DARK ? new PrimerDark() : new PrimerLight();
    String sheet = primer.getUserAgentStylesheetBSS();
    if (!sheet.equals(Application.getUserAgentStylesheet())) { // Reading it takes its time.
      Application.setUserAgentStylesheet(sheet);
    }
  }

  /** A style sheet of Joiner in the form in which it was made ready by the build. */
  static String sheet(String name) {
    return Objects.requireNonNull(Theme.class.getResource(name + ".bss"), name).toString();
  }

  /** The other one. */
  public Theme other() {
    return this == DARK ? LIGHT : DARK;
  }
}
