package joiner.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.Callable;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.canvas.Canvas;
import javafx.scene.layout.StackPane;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.desktop.map.MapView;
import joiner.desktop.theme.Theme;
import joiner.edit.ChangeField;
import joiner.edit.History;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.finding.DesignChecks;
import joiner.finding.KnownFindings;
import joiner.format.DesignFolder;
import joiner.map.Detail;
import joiner.map.MapLayout;
import joiner.map.Scope;
import joiner.meaning.Draft;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.reasoning.Reasoner;

/** Measures what users wait for, on a generated design, and prints one table. */
public final class Scenarios {
  private static final int WARM = 8;
  private static final int RUNS = 15;

  private Scenarios() {}

  /** Runs all scenarios; needs JavaFX on the path and no display. */
  public static void main(String[] arguments) throws Exception {
    Draft large = LargeDesign.of(1000, 20, 1500);
    System.out.println("| what | median ms | slowest ms | target |");
    System.out.println("| --- | ---: | ---: | --- |");
    files(large);
    measure("check all", "≤ 250 ms", () -> DesignChecks.run(large));
    edit(large);
    rules();
    for (Dialect dialect : Dialects.ALL) {
      measure(
          "script for " + dialect.engine(),
          "≤ 500 ms",
          () -> SchemaScript.of(large, dialect, RowsChoice.NONE).text("Large"));
    }
    Draft middle = LargeDesign.of(200, 20, 300);
    layouts("map layout of 200 tables", middle, Scope.all(middle.design()), Detail.FIELDS);
    layouts("map layout of 1 000 tables", large, Scope.all(large.design()), Detail.NAMES);
    Scope regions = Scope.all(large.design()).with(Scope.Areas.REGIONS);
    layouts("the same with its areas as regions", large, regions, Detail.NAMES);
    panning(large);
    Platform.exit();
  }

  private static void files(Draft large) throws Exception {
    Path folder = Files.createTempDirectory("joiner-bench");
    DesignFolder.save(large, folder);
    measure("open", "", () -> DesignFolder.open(folder));
    var changed = new ArrayList<Draft>(List.of(large, edited(large)));
    measure(
        "save after a one-field edit",
        "",
        () -> {
          Collections.swap(changed, 0, 1);
          DesignFolder.save(changed.getFirst(), folder);
          return folder;
        });
    measure(
        "save whole",
        "",
        () -> {
          Path fresh = Files.createTempDirectory("joiner-bench");
          DesignFolder.save(large, fresh);
          return fresh;
        });
  }

  private static Draft edited(Draft large) {
    Table table = large.design().tables().iterator().next();
    return ChangeField.required(table, table.fields().get(1), true).apply(large);
  }

  private static void edit(Draft large) throws Exception {
    Table table = large.design().tables().iterator().next();
    History history = History.startingWith(large);
    boolean[] required = {false};
    var known = new KnownFindings();
    Callable<?> work =
        () -> {
          required[0] = !required[0];
          return DesignChecks.run(
              history
                  .after(ChangeField.required(table, table.fields().get(1), required[0]))
                  .present(),
              known);
        };
    measure("one-field edit to findings updated", "≤ 16 ms", work);
    measure("the same after 60 more", "≤ 16 ms", 60, work);
  }

  /**
   * What the demo's rules mean, by a solver that is loaded; nothing is known from the time before.
   */
  private static void rules() throws Exception {
    Draft demo = DesignFolder.open(Path.of("demo", "saltmarsh-pottery")).draft();
    Duration patience = Duration.ofMillis(400);
    var reasoners = new ArrayList<Reasoner>();
    for (int i = 0; i < WARM + RUNS; i++) {
      reasoners.add(new Reasoner(Clock.systemDefaultZone(), patience));
    }
    measure(
        "what the demo's rules mean, solver loaded",
        "≤ 300 ms",
        () -> {
          Reasoner fresh = reasoners.removeLast();
          return demo.design().tables().stream()
              .map(table -> fresh.rules(demo.meaning().of(table)))
              .toList();
        });
    reasoners.forEach(Reasoner::close);
  }

  /** Each time without another table, so that no layout is known from the time before. */
  private static void layouts(String what, Draft draft, Scope scope, Detail detail)
      throws Exception {
    var left = new ArrayList<>(draft.design().tables().stream().map(Table::id).toList());
    Collections.shuffle(left, new Random(System.nanoTime()));
    measure(
        what,
        "≤ 1 500 ms, off the UI thread",
        () -> {
          Set<TableId> some = new HashSet<>(scope.tables());
          some.remove(left.removeLast());
          some.remove(left.removeLast());
          return MapLayout.of(
              draft.design(), new Scope(some, scope.areas(), scope.folded()), detail);
        });
  }

  private static void panning(Draft large) throws Exception {
    HeadlessWindow.start();
    MapLayout layout = MapLayout.of(large.design(), Scope.all(large.design()), Detail.FIELDS);
    MapView map = HeadlessWindow.on(() -> show(layout));
    Canvas bare = HeadlessWindow.on(Scenarios::bare);
    frames("panning 1 000 tables, whole map in sight", map, () -> map.pan(3, 0), map::paintNow);
    HeadlessWindow.on(
        () -> {
          map.zoom(8);
          return map;
        });
    frames("panning 1 000 tables, zoomed in", map, () -> map.pan(3, 0), map::paintNow);
    Runnable fill = () -> bare.getGraphicsContext2D().fillRect(0, 0, 1280, 800);
    frames("a bare Canvas filled", map, () -> {}, fill);
  }

  private static MapView show(MapLayout layout) {
    Theme.loadFonts();
    var map = new MapView(selection -> {});
    var scene = new Scene(new StackPane(map), 1280, 800);
    Theme.LIGHT.applyTo(scene);
    var window = new javafx.stage.Stage();
    window.setScene(scene);
    window.show();
    map.show(layout);
    return map;
  }

  private static Canvas bare() {
    var canvas = new Canvas(1280, 800);
    var window = new javafx.stage.Stage();
    window.setScene(new Scene(new StackPane(canvas), 1280, 800));
    window.show();
    return canvas;
  }

  /** Times the work on the window's thread, and the whole frame by a picture of the scene. */
  private static void frames(String what, MapView map, Runnable move, Runnable draw)
      throws Exception {
    var work = new ArrayList<Double>();
    var whole = new ArrayList<Double>();
    for (int i = 0; i < WARM + 40; i++) {
      boolean counted = i >= WARM;
      HeadlessWindow.on(
          () -> {
            long start = System.nanoTime();
            move.run();
            draw.run();
            double spent = (System.nanoTime() - start) / 1e6;
            map.getScene().snapshot(null);
            double frame = (System.nanoTime() - start) / 1e6;
            if (counted) {
              work.add(spent);
              whole.add(frame);
            }
            return map;
          });
    }
    report(what + ": UI-thread work", work, "≤ 4 ms");
    report(what + ": whole frame with picture", whole, "reported");
  }

  private static void measure(String what, String target, Callable<?> work) throws Exception {
    measure(what, target, WARM, work);
  }

  private static void measure(String what, String target, int warm, Callable<?> work)
      throws Exception {
    var times = new ArrayList<Double>();
    for (int run = 0; run < warm + RUNS; run++) {
      long start = System.nanoTime();
      Object result = work.call();
      double spent = (System.nanoTime() - start) / 1e6;
      if (result == null) {
        throw new IOException(what + " gave nothing");
      }
      if (run >= warm) {
        times.add(spent);
      }
    }
    report(what, times, target);
  }

  private static void report(String what, List<Double> times, String target) {
    Collections.sort(times);
    row(what, times.get(times.size() / 2), times.getLast(), target);
  }

  private static void row(String what, double median, double slowest, String target) {
    System.out.printf(Locale.ROOT, "| %s | %.1f | %.1f | %s |%n", what, median, slowest, target);
  }
}
