package joiner.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.application.Platform;
import javafx.scene.Scene;
import joiner.desktop.frame.Frame;
import joiner.desktop.theme.Theme;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Runner;
import joiner.desktop.work.Settings;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Workbench;
import joiner.format.DesignFolder;
import joiner.meaning.Draft;

/**
 * How long somebody waits who goes to another stage: from the key to the end of the first picture
 * of it, for the first time and later on. Without the start-up cache of the launcher, so the first
 * times are those of a cold virtual machine.
 */
final class Showing {
  private static final int ROUNDS = 8;

  private Showing() {}

  public static void main(String[] arguments) throws Exception {
    HeadlessWindow.start();
    System.out.println("| stage of | first ms | later ms, median | later ms, slowest |");
    System.out.println("| --- | ---: | ---: | ---: |");
    show("the demo", Path.of("demo/saltmarsh-pottery"));
    for (int tables : List.of(200, 1000)) {
      show(tables + " tables", saved(LargeDesign.of(tables, 20, tables * 3 / 2)));
    }
    show("3 × 100,000 rows", saved(Editing.threeTables()));
    Platform.exit();
  }

  private static Path saved(Draft draft) throws Exception {
    Path folder = Files.createTempDirectory("joiner-showing").resolve("design");
    DesignFolder.save(draft, folder);
    return folder;
  }

  private static void show(String what, Path folder) throws Exception {
    Path home = Files.createTempDirectory("joiner-showing");
    OpenDesign design = OpenDesign.in(folder);
    Workbench bench =
        HeadlessWindow.on(
            () ->
                new Workbench(
                    design,
                    Runner.ofWindow(),
                    new Recovery(home.resolve("recovery")),
                    Clock.systemDefaultZone()));
    Scene scene = HeadlessWindow.on(() -> window(bench, home));
    while (!HeadlessWindow.on(() -> bench.verdict().isCurrent())) {
      Thread.onSpinWait();
    }
    walk(what, bench, scene);
    HeadlessWindow.on(
        () -> {
          scene.getWindow().hide();
          bench.leave();
          return scene;
        });
  }

  /** Goes through all stages several times and prints what each took. */
  private static void walk(String what, Workbench bench, Scene scene) throws Exception {
    Map<Stage, Double> first = new EnumMap<>(Stage.class);
    Map<Stage, List<Double>> later = new EnumMap<>(Stage.class);
    for (int round = 0; round < ROUNDS; round++) {
      for (Stage stage : Stage.values()) {
        double spent = HeadlessWindow.on(() -> go(bench, scene, stage));
        if (first.putIfAbsent(stage, spent) != null) {
          later.computeIfAbsent(stage, none -> new ArrayList<>()).add(spent);
        }
      }
    }
    for (Stage stage : Stage.values()) {
      List<Double> times = later.get(stage);
      Collections.sort(times);
      System.out.printf(
          Locale.ROOT,
          "| %s: %s | %.0f | %.0f | %.0f |%n",
          what,
          stage.name().toLowerCase(Locale.ROOT),
          first.get(stage),
          times.get(times.size() / 2),
          times.getLast());
    }
  }

  private static Scene window(Workbench bench, Path home) {
    Theme.loadFonts();
    var frame =
        new Frame(bench, new Recovery(home.resolve("recovery")), Settings.in(home.resolve("own")));
    var scene = new Scene(frame.root(), 1280, 800);
    frame.dress(scene);
    var window = new javafx.stage.Stage();
    window.setScene(scene);
    window.show();
    return scene;
  }

  private static double go(Workbench bench, Scene scene, Stage stage) {
    long start = System.nanoTime();
    bench.stageProperty().set(stage);
    scene.snapshot(null);
    return (System.nanoTime() - start) / 1e6;
  }
}
