package joiner.desktop.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import joiner.Pottery;
import joiner.format.DesignFolder;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class SettingsTest {
  @TempDir private Path folder;

  @Test
  void whatWasChosenIsThereNextTime() throws Exception {
    Path file = folder.resolve("below/settings.properties");
    Settings settings = Settings.in(file);
    assertThat(settings.get("theme")).isEmpty();
    settings.put("theme", "DARK");
    settings.put("window.width", "1100");
    settings.save();
    assertThat(Settings.in(file).get("theme")).contains("DARK");
    assertThat(Settings.in(file).number("window.width")).contains(1100.0);
    settings.put("window.width", "wide");
    assertThat(settings.number("window.width")).isEmpty();
  }

  @Test
  void recentDesignsAreThoseStillThereNewestFirstAndOnce() throws Exception {
    Settings settings = Settings.in(folder.resolve("settings.properties"));
    for (int i = 0; i < 13; i++) {
      Path design = folder.resolve("d" + i);
      DesignFolder.save(Pottery.demo(), design);
      settings.opened(design, "Design " + i);
    }
    settings.opened(folder.resolve("d5"), "Design 5");
    Files.delete(folder.resolve("d12/datapackage.json"));
    assertThat(settings.recent())
        .extracting(Settings.Recent::title)
        .startsWith("Design 5", "Design 11", "Design 10")
        .hasSizeLessThanOrEqualTo(10)
        .doesNotHaveDuplicates();
  }

  @Test
  void aDamagedFileOfSettingsStartsFresh() throws Exception {
    Path file = Files.writeString(folder.resolve("settings.properties"), "theme=\\u00zz");
    assertThat(Settings.in(file).get("theme")).isEmpty();
  }
}
