package joiner.desktop.frame;

import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;
import javafx.stage.DirectoryChooser;
import javafx.stage.Window;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Background;
import joiner.desktop.work.Workbench;
import joiner.format.DesignFolder;
import joiner.format.UnreadableFileException;
import joiner.model.Design;
import joiner.rows.Draft;
import joiner.rows.SampleRows;

/** Opens and saves designs through the system's folder dialog. */
final class DesignFiles implements Actions.Files {
  private final Workbench bench;
  private final Background background;
  private final java.util.function.Supplier<Window> window;
  private final Texts texts = Texts.beside(DesignFiles.class);

  DesignFiles(Workbench bench, Background background, java.util.function.Supplier<Window> window) {
    this.bench = bench;
    this.background = background;
    this.window = window;
  }

  @Override
  public void open() {
    choose("open.title").ifPresent(this::open);
  }

  /** Opens the design in a folder; a failure is told in the status line. */
  void open(Path folder) {
    background.compute(
        () -> DesignFolder.open(folder),
        opened -> {
          bench.open(opened.draft(), Optional.of(folder));
          if (!opened.notices().isEmpty()) {
            bench.tell(String.join(" ", opened.notices()));
          }
        },
        failure -> {
          if (!(failure instanceof UnreadableFileException) && !(failure instanceof IOException)) {
            throw new IllegalStateException(failure);
          }
          bench.tell(texts.get("open.failed", failure.getMessage()));
        });
  }

  @Override
  public void startEmpty() {
    bench.open(
        new Draft(Design.empty("untitled", texts.get("new.title")), SampleRows.NONE),
        Optional.empty());
  }

  @Override
  public void saveAs() {
    choose("save.title").ifPresent(bench::saveIn);
  }

  private Optional<Path> choose(String title) {
    var chooser = new DirectoryChooser();
    chooser.setTitle(texts.get(title));
    File chosen = chooser.showDialog(window.get());
    return Optional.ofNullable(chosen).map(File::toPath);
  }
}
