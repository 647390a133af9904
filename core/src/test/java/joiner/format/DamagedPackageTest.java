package joiner.format;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.Tries;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/**
 * Designs whose description or rows were damaged in their structure: values of another kind, lines
 * lost, doubled or exchanged. Each opens, and then saves and opens again as it was, or is refused
 * with the name of the file.
 */
class DamagedPackageTest {
  private static final Pattern VALUE =
      Pattern.compile("(?<=: )(\"[^\"\\n]*\"|-?\\d+|true|false|\\[]|\\{})");
  private static final List<String> OTHER_VALUES =
      List.of(
          "null",
          "7",
          "-1",
          "1e999",
          "99999999999999999999",
          "true",
          "\"x\"",
          "\"\"",
          "[]",
          "{}",
          "[[]]",
          "[null]",
          "{\"a\":{\"b\":[]}}",
          "\"../x\"",
          "\"\\u0000\"",
          "\"\\ud800\"",
          "[\"a\",\"a\"]",
          "\"2026-13-45\"");

  @TempDir private Path folder;

  private static String damaged(String text, Random random) {
    String now = text;
    for (int wounds = random.nextInt(1, 4); wounds > 0; wounds--) {
      List<String> lines = new ArrayList<>(now.lines().toList());
      int line = random.nextInt(lines.size());
      switch (random.nextInt(6)) {
        case 0 -> lines.remove(line);
        case 1 -> lines.add(line, lines.get(random.nextInt(lines.size())));
        case 2 -> Collections.swap(lines, line, random.nextInt(lines.size()));
        default -> {
          String joined = String.join("\n", lines);
          List<MatchResult> values = VALUE.matcher(joined).results().toList();
          if (values.isEmpty()) {
            continue;
          }
          MatchResult value = values.get(random.nextInt(values.size()));
          String other = OTHER_VALUES.get(random.nextInt(OTHER_VALUES.size()));
          now = joined.substring(0, value.start()) + other + joined.substring(value.end());
          continue;
        }
      }
      now = String.join("\n", lines) + "\n";
    }
    return now;
  }

  private void copy(Path to) throws Exception {
    try (Stream<Path> files = Files.walk(Pottery.folder("saltmarsh-pottery"))) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        Path target = to.resolve(Pottery.folder("saltmarsh-pottery").relativize(file).toString());
        Files.createDirectories(target.getParent());
        Files.copy(file, target);
      }
    }
  }

  private boolean opens(Path design) throws Exception {
    DesignFolder.Opened opened;
    try {
      opened = DesignFolder.open(design);
    } catch (UnreadableFileException refused) {
      assertThat(refused.getMessage()).contains(design.toString()).endsWith(".");
      return false;
    }
    Path saved = Files.createTempDirectory(folder, "saved");
    DesignFolder.save(opened.draft(), saved);
    assertThat(DesignFolder.open(saved).draft()).isEqualTo(opened.draft());
    return true;
  }

  @Test
  @Timeout(600)
  void aDamagedDesignOpensOrIsRefusedByName() throws Exception {
    int opened = 0;
    int all = 0;
    for (long seed : Tries.of(200).toArray()) {
      var random = new Random(seed);
      Path design = Files.createTempDirectory(folder, "damaged");
      copy(design);
      List<Path> files;
      try (Stream<Path> walk = Files.walk(design)) {
        files = walk.filter(Files::isRegularFile).sorted().toList();
      }
      Path file =
          random.nextInt(4) == 0
              ? files.get(random.nextInt(files.size()))
              : design.resolve("datapackage.json");
      Files.writeString(file, damaged(Files.readString(file), random));
      try {
        opened += opens(design) ? 1 : 0;
      } catch (Throwable e) {
        throw new AssertionError("seed " + seed, e);
      }
      all++;
    }
    assertThat(opened).as("some damage can be read").isBetween(1, all);
  }
}
