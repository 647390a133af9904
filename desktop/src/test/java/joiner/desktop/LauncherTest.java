package joiner.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The entry of the window as a process of its own, on a machine without a display. */
class LauncherTest {
  @TempDir private Path folder;

  private record Outcome(int code, String out) {}

  private static Outcome run(String... arguments) throws IOException, InterruptedException {
    var command = new ArrayList<String>();
    command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
    command.addAll(
        List.of(
            "-Djoiner.home=" + Path.of("..").toAbsolutePath().normalize(),
            "--enable-native-access=ALL-UNNAMED",
            "-Dglass.platform=Headless",
            "-Dprism.order=sw"));
    command.addAll(List.of("-cp", System.getProperty("java.class.path"), "joiner.desktop.Main"));
    command.addAll(List.of(arguments));
    Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
    String out = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(process.waitFor(3, TimeUnit.MINUTES)).isTrue();
    return new Outcome(process.exitValue(), out);
  }

  @Test
  void withoutADisplayTheDemoWalksWindowless() throws Exception {
    Path out = folder.resolve("demo");
    Outcome outcome = run("demo", "--out", out.toString());
    assertThat(outcome.code()).as(outcome.out()).isZero();
    assertThat(outcome.out())
        .contains("no display", "audit   0 offending rows", "everything promised is there");
    assertThat(Files.size(out.resolve("pictures/connect.png"))).isGreaterThan(20_000);
    assertThat(Files.readString(out.resolve("saltmarsh-pottery.sql")))
        .contains("CREATE TABLE member");
  }

  @Test
  void badUsageGivesTwoAndOneLine() throws Exception {
    Outcome outcome = run("open", folder.resolve("none").toString());
    assertThat(outcome.code()).isEqualTo(2);
    assertThat(outcome.out().lines().filter(line -> line.startsWith("joiner:"))).hasSize(1);
    assertThat(run("demo", "--help").out()).contains("Usage: joiner open");
  }

  /** The shell reads the launcher without complaint. */
  @Test
  void theLauncherScriptIsSoundBash() throws Exception {
    Process process =
        new ProcessBuilder("bash", "-n", Path.of("..", "joiner").toString())
            .redirectErrorStream(true)
            .start();
    assertThat(new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8))
        .isEmpty();
    assertThat(process.waitFor()).isZero();
  }
}
