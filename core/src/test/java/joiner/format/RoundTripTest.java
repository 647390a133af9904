package joiner.format;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.meaning.Draft;
import joiner.model.Table;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class RoundTripTest {
  @TempDir private Path folder;

  @Test
  void everyDesignThatCanBeBuiltComesBackAsItWas() {
    Tries.of(400)
        .forEach(
            seed -> {
              Draft draft = RandomDesigns.draft(seed);
              Path at = folder.resolve(Long.toHexString(seed));
              try (var store = DesignStore.at(at)) {
                store.save(draft);
                assertSame(DesignFolder.open(at).draft(), draft, seed);
              } catch (Exception | AssertionError e) {
                throw new AssertionError("seed " + seed + ": " + e.getMessage(), e);
              }
            });
  }

  /** Compared here cell by cell, not by the equality of the values themselves. */
  private static void assertSame(Draft found, Draft wanted, long seed) {
    assertThat(found.design()).as("design of seed " + seed).isEqualTo(wanted.design());
    for (Table table : wanted.design().tables()) {
      var there = found.rows().of(table.id());
      var before = wanted.rows().of(table.id());
      assertThat(there.count()).as(table.name()).isEqualTo(before.count());
      for (int row = 0; row < before.count(); row++) {
        assertThat(there.row(row, table.fieldIds()))
            .as(table.name() + " row " + (row + 1))
            .isEqualTo(before.row(row, table.fieldIds()));
      }
    }
  }

  @Test
  void savingOneDesignOverAnotherLeavesNoFileOfTheOther() {
    Tries.of(60)
        .forEach(
            seed -> {
              Draft first = RandomDesigns.draft(seed);
              Draft second = RandomDesigns.draft(seed + 1);
              Path over = folder.resolve("over" + Long.toHexString(seed));
              Path alone = folder.resolve("alone" + Long.toHexString(seed));
              try {
                DesignFolder.save(first, over);
                DesignFolder.save(second, over);
                DesignFolder.save(second, alone);
                assertThat(contents(over)).as("seed " + seed).isEqualTo(contents(alone));
              } catch (java.io.IOException e) {
                throw new AssertionError(e);
              }
            });
  }

  private static Map<String, String> contents(Path folder) throws java.io.IOException {
    try (var walk = java.nio.file.Files.walk(folder)) {
      var contents = new java.util.TreeMap<String, String>();
      for (Path file : walk.filter(java.nio.file.Files::isRegularFile).toList()) {
        contents.put(folder.relativize(file).toString(), java.nio.file.Files.readString(file));
      }
      return contents;
    }
  }
}
