package joiner.desktop.frame;

import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.stage.FileChooser;
import javafx.stage.Window;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Conflict;
import joiner.desktop.work.Failure;
import joiner.desktop.work.Keeper;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Notice;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Request;
import joiner.desktop.work.SaveState;
import joiner.desktop.work.Settings;
import joiner.desktop.work.Workbench;
import joiner.format.DesignStore;

/** Opens, saves and leaves designs; asks wherever something would be lost. */
final class DesignFiles implements Actions.Files {
  private static final int MOST_DIFFERENCES = 40;

  private final Workbench bench;
  private final Questions questions;
  private final Recovery recovery;
  private final Settings settings;
  private final Supplier<Window> window;
  private final Texts texts = Texts.beside(DesignFiles.class);
  private final ReadOnlyObjectWrapper<List<Recovery.Kept>> kept =
      new ReadOnlyObjectWrapper<>(List.of());

  DesignFiles(
      Workbench bench,
      Questions questions,
      Recovery recovery,
      Settings settings,
      Supplier<Window> window) {
    this.bench = bench;
    this.questions = questions;
    this.recovery = recovery;
    this.settings = settings;
    this.window = window;
    bench.keeper().conflictProperty().subscribe(met -> met.ifPresent(this::settle));
    bench.keeper().stateProperty().subscribe(state -> remember(state == SaveState.SAVED));
    lookForKept();
  }

  /** Unsaved designs of windows that are gone. */
  ReadOnlyObjectProperty<List<Recovery.Kept>> keptProperty() {
    return kept.getReadOnlyProperty();
  }

  @Override
  public List<Settings.Recent> recent() {
    return settings.recent();
  }

  private void lookForKept() {
    bench
        .runner()
        .start(
            Request.of(
                    "kept designs",
                    texts.get("kept.looking"),
                    progress -> recovery.kept(),
                    kept::set,
                    bench::tell)
                .in(Lane.SAVING));
  }

  private void remember(boolean saved) {
    bench
        .keeper()
        .folder()
        .filter(folder -> saved)
        .ifPresent(
            folder -> {
              settings.opened(folder, bench.design().title());
              saveSettings();
            });
  }

  /** Writes the settings down in the background. */
  void saveSettings() {
    bench
        .runner()
        .start(
            Request.of(
                    "settings",
                    texts.get("settings.saving"),
                    progress -> {
                      settings.save();
                      return settings;
                    },
                    done -> {},
                    bench::tell)
                .in(Lane.SAVING));
  }

  @Override
  public void open() {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("open.title"));
    chooser
        .getExtensionFilters()
        .add(new FileChooser.ExtensionFilter(texts.get("open.files"), "datapackage.json"));
    startAt(chooser);
    Optional.ofNullable(chooser.showOpenDialog(window.get()))
        .map(File::toPath)
        .ifPresent(this::open);
  }

  private void startAt(FileChooser chooser) {
    bench
        .keeper()
        .folder()
        .or(() -> settings.recent().stream().map(Settings.Recent::folder).findFirst())
        .map(Path::getParent)
        .filter(Files::isDirectory)
        .ifPresent(folder -> chooser.setInitialDirectory(folder.toFile()));
  }

  /** Opens the design in a folder, once it is sure that nothing is lost. */
  @Override
  public void open(Path path) {
    unlessLost(() -> read(path));
  }

  private void read(Path path) {
    bench
        .runner()
        .start(
            Request.of(
                "open",
                texts.get("open.reading", path),
                progress -> OpenDesign.in(path),
                bench::open,
                failure -> bench.tell(notOpened(failure))));
  }

  private Failure notOpened(Failure failure) {
    return new Failure(
        failure.doing(),
        texts.get("open.failed", failure.message()),
        failure.details(),
        failure.cause());
  }

  /** Puts a design that has no folder on the bench. */
  void start(Request.Work<OpenDesign> making) {
    unlessLost(
        () ->
            bench
                .runner()
                .start(
                    Request.of(
                        "open", texts.get("open.making"), making, bench::open, bench::tell)));
  }

  @Override
  public void startEmpty() {
    unlessLost(() -> bench.open(OpenDesign.empty(texts.get("new.title"))));
  }

  /** Goes on with an unsaved design of a window that is gone. */
  void recover(Recovery.Kept found) {
    unlessLost(
        () ->
            bench
                .runner()
                .start(
                    Request.of(
                        "open",
                        texts.get("open.reading", found.title()),
                        progress -> {
                          var draft = DesignStore.at(found.folder()).open().draft();
                          recovery.discard(found.folder());
                          return OpenDesign.of(draft);
                        },
                        opened -> {
                          bench.open(opened);
                          bench.keepForRecovery();
                          kept.set(kept.get().stream().filter(k -> !k.equals(found)).toList());
                        },
                        bench::tell)));
  }

  @Override
  public void save() {
    Keeper keeper = bench.keeper();
    if (keeper.folder().isEmpty()) {
      saveAs();
    } else if (keeper.stateProperty().get() == SaveState.FAILED) {
      bench.saveIn(keeper.folder().get());
    } else {
      bench.tell(Notice.Sort.DONE, texts.get("save.always", keeper.folder().get()));
    }
  }

  @Override
  public void saveAs() {
    saveAs(() -> {});
  }

  private void saveAs(Runnable then) {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("save.title"));
    chooser.setInitialFileName(bench.design().name());
    startAt(chooser);
    File chosen = chooser.showSaveDialog(window.get());
    if (chosen != null) {
      saveIn(chosen.toPath(), then);
    }
  }

  /** Saves in a folder from now on; asks where another design stands there. */
  void saveIn(Path folder, Runnable then) {
    boolean other =
        Files.isRegularFile(folder.resolve("datapackage.json"))
            && !bench.keeper().folder().equals(Optional.of(folder));
    if (Files.isRegularFile(folder)) {
      bench.tell(Notice.Sort.REFUSED, texts.get("save.file", folder));
    } else if (other) {
      questions.ask(
          Questions.Question.of(
              texts.get("replace.title"),
              texts.get("replace.text", folder),
              new Questions.Answer("elsewhere", texts.get("replace.elsewhere"), this::saveAs),
              new Questions.Answer("replace", texts.get("replace.do"), () -> saveNow(folder, then)),
              new Questions.Answer("cancel", texts.get("cancel"), () -> {})));
    } else {
      saveNow(folder, then);
    }
  }

  private void saveNow(Path folder, Runnable then) {
    bench.saveIn(folder);
    then.run();
  }

  /** Does something that leaves the design, after asking where that would lose something. */
  void unlessLost(Runnable leaving) {
    Keeper keeper = bench.keeper();
    if (!keeper.wouldLose()) {
      leaving.run();
      return;
    }
    boolean kept = keeper.folder().isEmpty();
    var save = new Questions.Answer("save", texts.get("leave.save"), () -> saveAs(leaving));
    var keep = new Questions.Answer("keep", texts.get("leave.keep"), leaving);
    var drop =
        new Questions.Answer(
            "discard",
            texts.get("leave.discard"),
            () -> {
              bench.discard();
              leaving.run();
            });
    var cancel = new Questions.Answer("cancel", texts.get("leave.cancel"), () -> {});
    questions.ask(
        new Questions.Question(
            texts.get("leave.title", bench.design().title()),
            texts.get(kept ? "leave.unsaved" : "leave.failed"),
            List.of(),
            kept ? List.of(save, keep, drop, cancel) : List.of(save, drop, cancel)));
  }

  private void settle(Conflict conflict) {
    List<String> shown = conflict.differences().stream().limit(MOST_DIFFERENCES).toList();
    String text =
        conflict.theirs().isEmpty()
            ? texts.get("conflict.unreadable", String.join(", ", conflict.files()))
            : texts.get(
                conflict.differences().isEmpty() ? "conflict.same" : "conflict.text",
                String.join(", ", conflict.files()));
    var mine = new Questions.Answer("mine", texts.get("conflict.mine"), bench::keepOurs);
    var both = new Questions.Answer("both", texts.get("conflict.both"), bench::keepBoth);
    var theirs =
        new Questions.Answer(
            "theirs",
            texts.get("conflict.theirs"),
            () -> bench.takeTheirs(texts.get("conflict.step")));
    questions.raise(
        new Questions.Question(
            texts.get("conflict.title"),
            text,
            shown,
            conflict.theirs().isPresent() ? List.of(theirs, mine, both) : List.of(both, mine)));
  }
}
