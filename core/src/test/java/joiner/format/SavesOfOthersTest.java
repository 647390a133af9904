package joiner.format;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import joiner.Tries;
import joiner.meaning.Draft;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Real processes save into one folder, are read meanwhile, and are killed: no state is mixed. */
class SavesOfOthersTest {
  @TempDir private Path folder;

  /** The mark of the folder's design as a reader sees it. */
  private String seen(Path design) throws Exception {
    Draft draft = DesignFolder.open(design).draft();
    assertThat(SaveLoop.markOf(draft)).as(draft.design() + " " + draft.rows()).isPresent();
    return SaveLoop.markOf(draft).orElseThrow();
  }

  private static boolean bothSeen(Set<String> marks) {
    return marks.stream().anyMatch(m -> m.startsWith("a"))
        && marks.stream().anyMatch(m -> m.startsWith("b"));
  }

  @Test
  void readersSeeOneStateWhileTwoProcessesSave() throws Exception {
    DesignFolder.save(SaveLoop.marked("start"), folder);
    List<Process> writers = List.of(SaveLoop.start(folder, "a"), SaveLoop.start(folder, "b"));
    try {
      Set<String> marks = new HashSet<>();
      long reads = Tries.of(150).count();
      long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(60);
      for (long i = 0; i < reads || (!bothSeen(marks) && System.nanoTime() < end); i++) {
        marks.add(seen(folder));
      }
      assertThat(bothSeen(marks)).as("the writers were at it: " + marks).isTrue();
    } finally {
      for (Process writer : writers) {
        assertThat(writer.isAlive()).as("no writer failed").isTrue();
        writer.destroyForcibly().waitFor();
      }
    }
    seen(folder);
  }

  @Test
  void aKillLeavesTheOldOrTheNewDesign() throws Exception {
    for (long seed : Tries.of(8).toArray()) {
      Path design = Files.createTempDirectory(folder, "killed");
      DesignFolder.save(SaveLoop.marked("start"), design);
      Process writer = SaveLoop.start(design, "k");
      while (writer.isAlive() && seen(design).equals("start")) {
        Thread.onSpinWait();
      }
      Thread.sleep(new Random(seed).nextInt(60));
      writer.destroyForcibly().waitFor();
      String left = seen(design);
      assertThat(left).startsWith("k");
      DesignFolder.save(SaveLoop.marked("after"), design);
      assertThat(seen(design)).isEqualTo("after");
      assertThat(design.resolve(".joiner-saved")).doesNotExist();
    }
  }

  @Test
  void eightWritersAtOnceLoseNothing() throws Exception {
    DesignFolder.save(SaveLoop.marked("start"), folder);
    try (var threads = Executors.newFixedThreadPool(8)) {
      var saves = new ArrayList<Future<?>>();
      for (int i = 0; i < 8; i++) {
        String letter = String.valueOf((char) ('a' + i));
        saves.add(
            threads.submit(
                () -> {
                  for (int n = 0; n < 10; n++) {
                    DesignFolder.save(SaveLoop.marked(letter + n), folder);
                  }
                  return null;
                }));
      }
      for (Future<?> save : saves) {
        save.get(60, TimeUnit.SECONDS);
      }
    }
    assertThat(seen(folder)).endsWith("9");
    assertThat(folder.resolve(".joiner-saving")).doesNotExist();
  }
}
