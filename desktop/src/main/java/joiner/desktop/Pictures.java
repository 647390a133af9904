package joiner.desktop;

import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.zip.CRC32;
import java.util.zip.Deflater;
import javafx.application.Platform;
import javafx.event.ActionEvent;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.image.PixelReader;
import javafx.scene.image.WritableImage;
import joiner.desktop.frame.Frame;
import joiner.desktop.theme.Theme;
import joiner.desktop.work.DemoHome;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Runner;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Settings;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Workbench;
import joiner.edit.ToManyToMany;
import joiner.format.DesignFolder;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.model.Table;

/** Takes pictures of the main views at 1280×800 without a display. */
final class Pictures {
  private Pictures() {}

  /** Takes pictures of the views of a design, and of a dark one, into a folder. */
  static void write(Path designFolder, Path pictures, PrintStream out)
      throws IOException, UnreadableFileException {
    Files.createDirectories(pictures);
    Draft draft = DesignFolder.open(designFolder).draft();
    System.setProperty("glass.platform", "Headless");
    System.setProperty("prism.order", "sw");
    var started = new CountDownLatch(1);
    Platform.startup(started::countDown);
    Platform.setImplicitExit(false); // Closing one window must not end the next.
    await(started);
    try {
      Theme.loadFonts();
      for (Theme theme : Theme.values()) {
        views(draft, theme, pictures);
      }
    } finally {
      Platform.exit();
    }
    out.println("look    pictures of the views in " + pictures.getFileName());
  }

  private static void views(Draft draft, Theme theme, Path pictures) throws IOException {
    Path aside = Files.createTempDirectory("joiner-pictures");
    var recovery = new Recovery(aside.resolve("recovery"));
    var settings = Settings.in(aside.resolve("settings.properties"));
    settings.put("theme", theme.name());
    var bench =
        onWindow(
            () ->
                new Workbench(
                    OpenDesign.of(draft), Runner.ofWindow(), recovery, Clock.systemDefaultZone()));
    var frame = onWindow(() -> new Frame(bench, recovery, settings));
    javafx.stage.Stage window = onWindow(() -> show(frame));
    for (Stage stage : Stage.values()) {
      if (theme == Theme.LIGHT || stage == Stage.CONNECT) {
        onWindow(() -> select(bench, frame, stage));
        String name = stage.name().toLowerCase(Locale.ROOT);
        picture(window, pictures.resolve(name + (theme == Theme.DARK ? "-dark" : "") + ".png"));
        if (theme == Theme.LIGHT) {
          further(stage, bench, window, pictures);
        }
      }
    }
    onWindow(
        () -> {
          window.close();
          return window;
        });
  }

  /** What a stage shows beside its first face. */
  private static void further(
      Stage stage, Workbench bench, javafx.stage.Stage window, Path pictures) throws IOException {
    switch (stage) {
      case GATHER -> {
        onWindow(() -> settle(window));
        picture(window, pictures.resolve("gather-split.png"));
      }
      case CONNECT -> {
        onWindow(() -> click(window, "#face-matrix"));
        picture(window, pictures.resolve("connect-matrix.png"));
        onWindow(() -> click(window, "#face-map"));
        onWindow(() -> propose(bench));
        picture(window, pictures.resolve("preview.png"));
        onWindow(() -> dismiss(bench));
      }
      case PROVE -> faces(window, pictures);
      case SHAPE, GUARD, SHIP -> {}
    }
  }

  /** The other faces of Prove: a row that is open, a delete, and a question that multiplies. */
  private static void faces(javafx.stage.Stage window, Path pictures) throws IOException {
    onWindow(() -> click(window, "#face-enter"));
    settle();
    onWindow(
        () -> {
          if (window.getScene().lookup("#enter-rows") instanceof TableView<?> rows) {
            rows.getSelectionModel().select(1);
          }
          return window;
        });
    picture(window, pictures.resolve("enter.png"));
    onWindow(() -> click(window, "#face-if-deleted"));
    picture(window, pictures.resolve("if-deleted.png"));
    onWindow(() -> click(window, "#face-ask"));
    for (String column : List.of("member.card_no", "count(enrolment)", "sum(piece.grams)")) {
      onWindow(
          () -> {
            if (window.getScene().lookup("#ask-column") instanceof TextField field) {
              field.setText(column);
              field.fireEvent(new ActionEvent());
            }
            return window;
          });
      settle();
    }
    picture(window, pictures.resolve("ask.png"));
  }

  private static void picture(javafx.stage.Stage window, Path file) throws IOException {
    settle();
    WritableImage image = onWindow(() -> window.getScene().snapshot(null));
    Files.write(file, Png.of(image));
  }

  private static javafx.stage.Stage show(Frame frame) {
    var scene = new Scene(frame.root(), 1280, 800);
    frame.dress(scene);
    var window = new javafx.stage.Stage();
    window.setScene(scene);
    window.show();
    return window;
  }

  private static Workbench select(Workbench bench, Frame frame, Stage stage)
      throws UnreadableFileException {
    Optional<Table> firing = bench.design().tableNamed("firing");
    firing.ifPresent(table -> bench.selectionProperty().set(Selection.of(table.id())));
    bench.stageProperty().set(stage);
    if (stage == Stage.GATHER) {
      frame.gather(DemoHome.find().resolve("sources/firing log.csv"));
    }
    return bench;
  }

  private static javafx.stage.Stage click(javafx.stage.Stage window, String button) {
    if (window.getScene().lookup(button) instanceof ToggleButton toggle) {
      toggle.setSelected(true);
    }
    return window;
  }

  /** Has a change shown that reaches far. */
  private static Workbench propose(Workbench bench) {
    bench.design().relationships().stream()
        .filter(r -> r.name().equals("fk_firing_kiln_id"))
        .findFirst()
        .ifPresent(
            r ->
                bench.propose(
                    () -> new ToManyToMany(r.id(), "let each firing have many kilns"), () -> {}));
    return bench;
  }

  private static Workbench dismiss(Workbench bench) {
    bench.dismiss();
    return bench;
  }

  /** Settles the contradictions of the file in Gather, as a person would. */
  private static javafx.stage.Stage settle(javafx.stage.Stage window) {
    if (window.getScene().lookup("#settle-majority") instanceof Button majority) {
      majority.fire();
    }
    return window;
  }

  /** Lets background work arrive and be drawn: a few frames after everything queued. */
  private static void settle() {
    try {
      Thread.sleep(1500);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private static <T> T onWindow(Callable<T> work) {
    var task = new FutureTask<>(work);
    Platform.runLater(task);
    try {
      return task.get();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    } catch (ExecutionException e) {
      throw new IllegalStateException(e.getCause());
    }
  }

  private static void await(CountDownLatch latch) {
    try {
      latch.await();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  /** Writes images as PNG (ISO/IEC 15948) without the desktop toolkit of the JDK. */
  static final class Png {
    private Png() {}

    static byte[] of(WritableImage image) throws IOException {
      int width = (int) image.getWidth();
      int height = (int) image.getHeight();
      var raw = ByteBuffer.allocate((width * 3 + 1) * height);
      PixelReader pixels = image.getPixelReader();
      for (int y = 0; y < height; y++) {
        raw.put((byte) 0);
        for (int x = 0; x < width; x++) {
          int argb = pixels.getArgb(x, y);
          raw.put((byte) (argb >> 16)).put((byte) (argb >> 8)).put((byte) argb);
        }
      }
      var out = new java.io.ByteArrayOutputStream();
      out.write(new byte[] {(byte) 0x89, 'P', 'N', 'G', '\r', '\n', 0x1A, '\n'});
      var header =
          ByteBuffer.allocate(13).putInt(width).putInt(height).put(new byte[] {8, 2, 0, 0, 0});
      chunk("IHDR", header.array(), out);
      chunk("IDAT", deflated(raw.array()), out);
      chunk("IEND", new byte[0], out);
      return out.toByteArray();
    }

    private static byte[] deflated(byte[] raw) {
      var deflater = new Deflater(Deflater.BEST_COMPRESSION);
      deflater.setInput(raw);
      deflater.finish();
      var out = new java.io.ByteArrayOutputStream();
      byte[] buffer = new byte[1 << 16];
      while (!deflater.finished()) {
        out.write(buffer, 0, deflater.deflate(buffer));
      }
      deflater.end();
      return out.toByteArray();
    }

    private static void chunk(String type, byte[] data, OutputStream out) throws IOException {
      byte[] name = type.getBytes(java.nio.charset.StandardCharsets.US_ASCII);
      var sum = new CRC32();
      sum.update(name);
      sum.update(data);
      out.write(ByteBuffer.allocate(4).putInt(data.length).array());
      out.write(name);
      out.write(data);
      out.write(ByteBuffer.allocate(4).putInt((int) sum.getValue()).array());
    }
  }
}
