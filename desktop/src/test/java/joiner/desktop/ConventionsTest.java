package joiner.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.syntax.ArchRuleDefinition;
import com.tngtech.archunit.library.dependencies.SlicesRuleDefinition;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Properties;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** What holds for every view: texts in bundles, colours in one sheet, packages in one direction. */
class ConventionsTest {
  private static final Path SOURCES = Path.of("src/main/java/joiner/desktop");
  private static final Path RESOURCES = Path.of("src/main/resources/joiner/desktop");

  private static List<Path> files(Path root, String ending) throws IOException {
    try (Stream<Path> walk = Files.walk(root)) {
      return walk.filter(path -> path.toString().endsWith(ending)).sorted().toList();
    }
  }

  @Test
  void everyTextThatIsAskedForIsThere() throws IOException {
    Pattern asked = Pattern.compile("texts\\.get\\(\\s*\"([^\"]+)\"\\s*[,)]");
    for (Path source : files(SOURCES, ".java")) {
      Path bundle =
          RESOURCES.resolve(SOURCES.relativize(source)).resolveSibling("texts.properties");
      Set<String> missing = new TreeSet<>();
      var texts = new Properties();
      if (Files.exists(bundle)) {
        try (var reader = Files.newBufferedReader(bundle)) {
          texts.load(reader);
        }
      }
      asked
          .matcher(Files.readString(source))
          .results()
          .map(found -> found.group(1))
          .filter(key -> !texts.containsKey(key))
          .forEach(missing::add);
      assertThat(missing).as(source.toString()).isEmpty();
    }
  }

  @Test
  void lightAndDarkNameTheSameColoursAndNothingElseIsLiteral() throws IOException {
    String sheet = Files.readString(RESOURCES.resolve("theme/joiner.css"));
    String colours = sheet.substring(0, sheet.indexOf("/* end of colours */"));
    String light = colours.substring(colours.indexOf(".root {"), colours.indexOf(".root.dark"));
    String dark = colours.substring(colours.indexOf(".root.dark"));
    assertThat(names(dark)).isEqualTo(names(light)).isNotEmpty();
    assertThat(sheet.substring(colours.length())).doesNotContainPattern("#[0-9a-fA-F]{6}");
  }

  private static Set<String> names(String block) {
    return Pattern.compile("(-joiner-[a-z0-9-]+):")
        .matcher(block)
        .results()
        .map(found -> found.group(1))
        .collect(Collectors.toCollection(TreeSet::new));
  }

  @Test
  void inkOnPaperMeetsWcagContrast() throws IOException {
    String sheet = Files.readString(RESOURCES.resolve("theme/joiner.css"));
    for (String block :
        sheet.substring(0, sheet.indexOf("/* end of colours */")).split("\\.root\\.dark")) {
      for (String ink : List.of("ink", "muted", "spruce", "oak", "brick")) {
        for (String ground : List.of("paper", "board", "sunk")) {
          assertThat(contrast(colour(block, ink), colour(block, ground)))
              .as(ink + " on " + ground)
              .isGreaterThanOrEqualTo(4.5);
        }
      }
    }
  }

  private static int colour(String block, String name) {
    var found = Pattern.compile("-joiner-" + name + ": #([0-9A-F]{6})").matcher(block);
    assertThat(found.find()).isTrue();
    return Integer.parseInt(found.group(1), 16);
  }

  /** Contrast ratio of WCAG 2.2, with its relative luminance. */
  private static double contrast(int one, int other) {
    double light = Math.max(luminance(one), luminance(other));
    double dark = Math.min(luminance(one), luminance(other));
    return (light + 0.05) / (dark + 0.05);
  }

  private static double luminance(int rgb) {
    return 0.2126 * channel(rgb >> 16) + 0.7152 * channel(rgb >> 8) + 0.0722 * channel(rgb);
  }

  private static double channel(int value) {
    double share = (value & 0xFF) / 255.0;
    return share <= 0.04045 ? share / 12.92 : Math.pow((share + 0.055) / 1.055, 2.4);
  }

  @Test
  void packagesFormNoCircleAndTheBenchKnowsNoScene() {
    var classes =
        new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("joiner.desktop");
    SlicesRuleDefinition.slices()
        .matching("joiner.desktop.(*)..")
        .should()
        .beFreeOfCycles()
        .check(classes);
    ArchRuleDefinition.noClasses()
        .that()
        .resideInAPackage("joiner.desktop.work..")
        .should()
        .dependOnClassesThat()
        .resideInAPackage("javafx.scene..")
        .check(classes);
    ArchRuleDefinition.noClasses()
        .that()
        .haveSimpleNameEndingWith("Model")
        .should()
        .dependOnClassesThat()
        .resideInAPackage("javafx.scene..")
        .check(classes);
    ArchRuleDefinition.noClasses()
        .should()
        .dependOnClassesThat()
        .resideInAPackage("java.sql..")
        .check(classes);
  }
}
