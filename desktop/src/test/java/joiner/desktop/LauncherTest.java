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

  /**
   * The launcher in a home of its own: the first start builds, the second does not, a newer source
   * builds again.
   */
  @Test
  void theLauncherBuildsOnceAndOnlyAgainWhenASourceIsNewer() throws Exception {
    Path home = folder.resolve("home");
    Path mvn = folder.resolve("bin/mvn");
    Path builds = folder.resolve("builds");
    Files.createDirectories(mvn.getParent());
    Files.writeString(mvn, "#!/bin/sh\necho built >> '" + builds + "'\n");
    assertThat(mvn.toFile().setExecutable(true)).isTrue();
    for (String module : List.of("core", "database", "cli", "desktop")) {
      Files.createDirectories(home.resolve(module).resolve("src/main"));
      Files.writeString(home.resolve(module).resolve("pom.xml"), "<project/>");
    }
    Files.writeString(home.resolve("pom.xml"), "<project/>");
    Files.copy(Path.of("..", "joiner"), home.resolve("joiner"));
    Files.createDirectories(home.resolve("cli/target/lib"));
    jar(home.resolve("cli/target/cli.jar"));

    assertThat(start(home, mvn)).isEqualTo("7\n");
    assertThat(Files.readAllLines(builds)).hasSize(1);
    assertThat(start(home, mvn)).isEqualTo("7\n");
    assertThat(Files.readAllLines(builds)).hasSize(1);
    Path source = Files.writeString(home.resolve("core/src/main/Changed.java"), "class Changed {}");
    Files.setLastModifiedTime(
        source, java.nio.file.attribute.FileTime.from(java.time.Instant.now().plusSeconds(5)));
    assertThat(start(home, mvn)).isEqualTo("7\n");
    assertThat(Files.readAllLines(builds)).hasSize(2);
  }

  /** Starts the launcher with a word and gives what the stand-in for the command line prints. */
  private static String start(Path home, Path mvn) throws IOException, InterruptedException {
    var builder =
        new ProcessBuilder("bash", home.resolve("joiner").toString(), "version")
            .redirectError(ProcessBuilder.Redirect.DISCARD);
    builder.environment().put("PATH", mvn.getParent() + ":" + System.getenv("PATH"));
    Process process = builder.start();
    String out = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(process.waitFor()).isZero();
    return out;
  }

  /** A jar with a stand-in for the command line that prints the length of its first word. */
  private static void jar(Path file) throws IOException {
    byte[] code =
        java.lang.classfile.ClassFile.of()
            .build(
                java.lang.constant.ClassDesc.of("joiner.cli.Main"),
                type ->
                    type.withMethodBody(
                        "main",
                        java.lang.constant.MethodTypeDesc.ofDescriptor("([Ljava/lang/String;)V"),
                        java.lang.classfile.ClassFile.ACC_PUBLIC
                            | java.lang.classfile.ClassFile.ACC_STATIC,
                        body ->
                            body.getstatic(
                                    java.lang.constant.ClassDesc.of("java.lang.System"),
                                    "out",
                                    java.lang.constant.ClassDesc.of("java.io.PrintStream"))
                                .aload(0)
                                .iconst_0()
                                .aaload()
                                .invokevirtual(
                                    java.lang.constant.ConstantDescs.CD_String,
                                    "length",
                                    java.lang.constant.MethodTypeDesc.ofDescriptor("()I"))
                                .invokevirtual(
                                    java.lang.constant.ClassDesc.of("java.io.PrintStream"),
                                    "println",
                                    java.lang.constant.MethodTypeDesc.ofDescriptor("(I)V"))
                                .return_()));
    try (var jar = new java.util.jar.JarOutputStream(Files.newOutputStream(file))) {
      jar.putNextEntry(new java.util.zip.ZipEntry("joiner/cli/Main.class"));
      jar.write(code);
      jar.closeEntry();
    }
  }
}
