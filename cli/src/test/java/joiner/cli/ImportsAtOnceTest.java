package joiner.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import joiner.format.DesignFolder;
import joiner.format.DesignStore;
import joiner.meaning.Draft;
import joiner.model.Table;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Commands that change one design at once, as processes of their own. */
class ImportsAtOnceTest {
  @TempDir private Path folder;

  private Process start(String... arguments) throws Exception {
    var command =
        new ArrayList<>(
            List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-cp",
                System.getProperty("java.class.path"),
                "joiner.cli.Main"));
    command.addAll(List.of(arguments));
    return new ProcessBuilder(command).redirectErrorStream(true).start();
  }

  @Test
  void importsIntoOneDesignAtOnceAllArrive() throws Exception {
    Path design = folder.resolve("design");
    var processes = new ArrayList<Process>();
    for (int i = 0; i < 8; i++) {
      Path file = folder.resolve("shelf" + i + ".csv");
      Files.writeString(file, "Name,Litres\nA" + i + "," + i + "\nB,7\n");
      processes.add(start("import", file.toString(), "--out", design.toString()));
    }
    for (Process process : processes) {
      String said = new String(process.getInputStream().readAllBytes());
      assertThat(process.waitFor(120, TimeUnit.SECONDS)).isTrue();
      assertThat(process.exitValue()).as(said).isZero();
    }
    Draft draft = DesignFolder.open(design).draft();
    assertThat(draft.design().tables()).extracting(Table::name).hasSize(8).doesNotHaveDuplicates();
    assertThat(draft.rows().count()).isEqualTo(16);
    assertThat(design.resolve(".joiner-lock")).doesNotExist();
  }

  @Test
  void aFailureOfItsOwnHasACodeOneLineAndALog() throws Exception {
    String before = System.getProperty("joiner.files", "");
    System.setProperty("joiner.files", folder.resolve("state").toString());
    try {
      var err = new StringWriter();
      int code = Main.ownFailure(new IllegalStateException("broken"), new PrintWriter(err, true));
      assertThat(code).isEqualTo(4);
      assertThat(err.toString().lines())
          .containsExactly(
              "joiner: Joiner itself failed (a fault, IllegalStateException); the details are in "
                  + folder.resolve("state/joiner.log")
                  + ".");
      assertThat(folder.resolve("state/joiner.log"))
          .content()
          .contains("IllegalStateException: broken");
    } finally {
      System.setProperty("joiner.files", before);
    }
  }

  @Test
  void aDesignSomebodyWorksOnIsNotTakenFromThem() throws Exception {
    Path design = Files.createDirectories(folder.resolve("held"));
    try (DesignStore store = DesignStore.at(design)) {
      assertThat(store.lock()).isEqualTo(Optional.empty());
      Process other = start("import", "none.csv", "--out", design.toString());
      assertThat(other.waitFor(2, TimeUnit.SECONDS)).as("it waits").isFalse();
      other.destroyForcibly().waitFor();
    }
  }
}
