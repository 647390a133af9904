package joiner.desktop.gather;

import java.io.IOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import joiner.database.LiveDesign;
import joiner.database.WholeSchema;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Failure;
import joiner.desktop.work.Job;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Request;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Workbench;
import joiner.edit.AddDesign;
import joiner.format.UnreadableFileException;
import joiner.source.ProfiledSource;
import joiner.source.ReadingOptions;
import joiner.source.SourceFile;

/** What the stage Gather holds, without a window: sources that are open, and those being read. */
final class GatherModel {
  /** More sentences of what was not understood are not told at once. */
  private static final int MOST_TOLD = 8;

  private final Workbench bench;
  private final Texts texts;
  private final Map<String, Opened> sources = new LinkedHashMap<>();
  private int begun;
  private final ObservableList<Reading> underway = FXCollections.observableArrayList();
  private final ReadOnlyObjectWrapper<Optional<Shown>> shown =
      new ReadOnlyObjectWrapper<>(Optional.empty());

  /**
   * A source that is open.
   *
   * @param file where it was read from; none for a pasted block
   * @param benches by table, as they are looked at
   */
  record Opened(
      Optional<Path> file,
      ReadingOptions options,
      ProfiledSource profiled,
      Map<Integer, SplitBench> benches) {}

  /** The table of a source that is shown, from 0. */
  record Shown(String source, int table) {}

  /** A file that is being read; the number tells it from one of the same name. */
  record Reading(String name, int number, Job<?> job) {}

  GatherModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
  }

  /** Names of the sources that are open, in the order in which they were opened. */
  List<String> names() {
    return List.copyOf(sources.keySet());
  }

  /** What is being read. */
  ObservableList<Reading> underway() {
    return underway;
  }

  ReadOnlyObjectProperty<Optional<Shown>> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  /** The source that is shown. */
  Optional<Opened> source() {
    return shown.get().map(s -> sources.get(s.source()));
  }

  /** The bench of the table that is shown; it is made when first looked at. */
  Optional<SplitBench> split() {
    return source()
        .map(
            source ->
                source
                    .benches()
                    .computeIfAbsent(
                        shown.get().orElseThrow().table(),
                        table -> new SplitBench(bench, source.profiled(), table)));
  }

  /** Whether that bench was looked at before. */
  boolean isSeenBefore() {
    return source()
        .filter(s -> s.benches().containsKey(shown.get().orElseThrow().table()))
        .isPresent();
  }

  void show(String name, int table) {
    if (sources.containsKey(name)) {
      shown.set(Optional.of(new Shown(name, table)));
    }
  }

  /** Reads a file: tables for the bench, or a whole schema, which is added at once. */
  void open(Path file) {
    if (WholeSchema.is(file)) {
      bring(file);
    } else {
      open(file, ReadingOptions.DETECT);
    }
  }

  /** Reads a file in another way than the usual; the rows of a large one stay in it. */
  void open(Path file, ReadingOptions options) {
    read(
        file,
        options,
        told ->
            SourceFile.shouldStay(file)
                ? SourceFile.readHead(file, told)
                : ProfiledSource.of(SourceFile.read(file, told)));
  }

  /** Reads a file whose rows are to stay in it. */
  void openHead(Path file, ReadingOptions options) {
    read(file, options, told -> SourceFile.readHead(file, told));
  }

  /** Reads all rows of a file, however many they are. */
  void openWhole(Path file, ReadingOptions options) {
    read(file, options, told -> ProfiledSource.of(SourceFile.read(file, told)));
  }

  private void read(Path file, ReadingOptions options, SourceReading reading) {
    read(String.valueOf(file.getFileName()), Optional.of(file), options, reading);
  }

  /** Reads a block of text. */
  void paste(String block) {
    if (block.isBlank()) {
      bench.tell(Notice.Sort.REFUSED, texts.get("paste.nothing"));
      return;
    }
    String name = texts.get("pasted", sources.size() + 1);
    read(
        name,
        Optional.empty(),
        ReadingOptions.DETECT,
        options -> ProfiledSource.of(SourceFile.pasted(name, block, options)));
  }

  /** Adds the tables of a file that says a whole schema. */
  private void bring(Path file) {
    String name = String.valueOf(file.getFileName());
    this.<WholeSchema>start(
        name,
        progress ->
            WholeSchema.read(
                file,
                name,
                Optional.empty(),
                LiveDesign.USUAL_ROWS,
                (done, total, doing) -> {
                  progress.share((double) done / Math.max(1, total));
                  return !progress.stopped();
                }),
        schema -> brought(name, schema));
  }

  private void brought(String name, WholeSchema schema) {
    int tables = schema.draft().design().tables().size();
    if (tables == 0) {
      bench.tell(Notice.Sort.REFUSED, texts.get("brought.nothing", name));
    } else if (bench.apply(() -> new AddDesign(schema.draft()))) {
      bench.stageProperty().set(Stage.CONNECT);
      bench.tellDone(texts.get("brought", tables, name), texts.get("undo"));
    } else {
      return; // Why it was not added is told.
    }
    if (!schema.notices().isEmpty()) {
      String some = schema.notices().stream().limit(MOST_TOLD).collect(Collectors.joining("\n"));
      int more = schema.notices().size() - MOST_TOLD;
      bench.tell(
          Notice.Sort.HINT,
          texts.get("brought.unread", name)
              + "\n"
              + some
              + (more > 0 ? "\n" + texts.get("brought.more", more) : ""));
    }
  }

  /** Something that reads a source. */
  private interface SourceReading {
    ProfiledSource read(ReadingOptions options) throws IOException, UnreadableFileException;
  }

  private void read(
      String name, Optional<Path> file, ReadingOptions options, SourceReading reading) {
    this.<ProfiledSource>start(
        name,
        progress -> {
          ReadingOptions told = options.stoppedBy(progress::stopped).telling(progress::share);
          return reading.read(told);
        },
        profiled -> {
          sources.put(name, new Opened(file, options, profiled, new HashMap<>()));
          shown.set(Optional.empty()); // The same source read again is another.
          show(name, 0);
        });
  }

  /** Reads something in the background; it is underway until it ends. */
  private <T> void start(String name, Request.Work<T> work, Consumer<T> done) {
    int number = ++begun;
    Job<T> job =
        bench
            .runner()
            .start(
                Request.<T>of(
                        "read " + name,
                        texts.get("reading", name),
                        work,
                        result -> {
                          ended(number);
                          done.accept(result);
                        },
                        failure -> {
                          ended(number);
                          failed(failure);
                        })
                    .whenStopped(() -> ended(number)));
    underway.add(new Reading(name, number, job));
  }

  private void ended(int number) {
    underway.removeIf(reading -> reading.number() == number);
  }

  /** Ends a reading. */
  void stop(Reading reading) {
    bench.runner().stop(reading.job());
  }

  private void failed(Failure failure) {
    bench.tell(
        new Failure(
            failure.doing(),
            texts.get("failed", failure.message()),
            failure.details(),
            failure.cause()));
  }

  /** Adds the table that is shown as it is. */
  void add(SplitBench split) {
    split.addAsIs(
        table -> {
          bench.selectionProperty().set(Selection.of(table));
          bench.stageProperty().set(Stage.SHAPE);
          bench.tellDone(
              texts.get(
                  "added", bench.design().table(table).label(), bench.draft().rows().count(table)),
              texts.get("undo"));
        });
  }

  /** Adds the tables the one that is shown is split into. */
  void split(SplitBench split) {
    split.split(
        table -> {
          bench.stageProperty().set(Stage.CONNECT);
          bench.selectionProperty().set(Selection.of(table));
        });
  }
}
