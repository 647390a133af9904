package joiner.format;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import joiner.edit.History;
import joiner.meaning.Draft;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;

/**
 * A folder a design is worked on in: knows its files as they were last read or written, so that a
 * save writes only what changed, deletes what the design no longer uses, and never overwrites what
 * somebody else changed meanwhile. One thread at a time.
 */
public final class DesignStore implements AutoCloseable {
  private final Path folder;
  private final SafeSave save;
  private final FolderLock lock;
  private final HistoryLog log;
  private final Map<String, Fingerprint> known = new LinkedHashMap<>();
  private Optional<Draft> standing = Optional.empty();
  private Map<TableId, List<String>> paths = Map.of();
  private Map<TableId, List<Integer>> parts = Map.of();

  private DesignStore(Path path) {
    this.folder = DesignFolder.folderOf(path);
    this.save = new SafeSave(folder);
    this.lock = new FolderLock(folder);
    this.log = HistoryLog.of(folder);
  }

  /** A store in a folder of which nothing is known yet; it need not be there. */
  public static DesignStore at(Path path) {
    return new DesignStore(path);
  }

  /** The folder. */
  public Path folder() {
    return folder;
  }

  /** Whether there is a design in the folder. */
  public boolean holdsDesign() {
    return Files.isRegularFile(save.current(DataPackage.FILE));
  }

  /** Reads the design in the folder, as it stands there now. */
  public synchronized DesignFolder.Opened open() throws IOException, UnreadableFileException {
    SteadyReading reading = SteadyReading.of(folder, save, Optional.empty());
    DesignFolder.Opened opened = reading.opened();
    paths = reading.reader().paths();
    parts = reading.reader().parts();
    known.clear();
    known.putAll(reading.reader().prints());
    standing = Optional.of(opened.draft());
    return opened;
  }

  private Set<String> rowPaths() {
    var all = new LinkedHashSet<String>();
    paths.values().forEach(all::addAll);
    return all;
  }

  /** The draft as it was last read or written here. */
  public synchronized Optional<Draft> standing() {
    return standing;
  }

  /**
   * What was done to the design as it was last read here, as far as that was kept.
   *
   * @throws IllegalStateException if it was not read yet
   */
  public synchronized History history() throws IOException {
    return log.read(standing.orElseThrow(IllegalStateException::new), mark());
  }

  /** Keeps what was done to the design as it was last saved here, for when it is opened again. */
  public synchronized void keep(History history) throws IOException {
    log.keep(history, mark());
  }

  /** Forgets what was done. */
  public synchronized void forgetHistory() throws IOException {
    log.discard();
  }

  /** What tells the state of the files, as they were last read or written here, from any other. */
  private String mark() {
    var all = new StringBuilder();
    new TreeMap<>(known)
        .forEach(
            (path, print) -> all.append(path).append('\n').append(print.digest()).append('\n'));
    return Fingerprint.digestOf(all.toString());
  }

  /** Files that are no longer as they were last read or written here; empty: all are. */
  public synchronized List<String> changedOutside() {
    var changed = new ArrayList<String>();
    known.forEach(
        (path, print) -> {
          if (!print.stillStands(save.current(path))) {
            changed.add(path);
          }
        });
    return changed;
  }

  /**
   * Saves a draft.
   *
   * @throws ChangedOutsideException if somebody else changed the design meanwhile; nothing is
   *     written then
   */
  public synchronized void save(Draft draft) throws IOException, ChangedOutsideException {
    Files.createDirectories(folder);
    try (SavingTurn turn = SavingTurn.in(folder)) {
      List<String> changed = changedOutside();
      if (!changed.isEmpty()) {
        throw new ChangedOutsideException(folder, changed);
      }
      write(draft);
    }
  }

  /** Saves a draft in the place of whatever stands in the folder. */
  public synchronized void overwrite(Draft draft) throws IOException {
    Files.createDirectories(folder);
    try (SavingTurn turn = SavingTurn.in(folder)) {
      if (standing.isEmpty() && holdsDesign()) {
        learnPaths();
      }
      standing = Optional.empty();
      known.clear();
      write(draft);
    }
  }

  /** Where the design that stands in the folder has its rows; nothing where it is unreadable. */
  private void learnPaths() throws IOException {
    try {
      PackageReader reader = SteadyReading.of(folder, save, Optional.empty()).reader();
      paths = reader.paths();
      parts = reader.parts();
    } catch (UnreadableFileException e) {
      paths = Map.of(); // Nothing is deleted of what is not understood.
    }
  }

  private void write(Draft draft) throws IOException {
    var written = PackageWriter.write(draft, new Standing());
    Set<String> going = rowPaths();
    written.rowPaths().values().forEach(going::removeAll);
    going.removeAll(PackageWriter.otherPaths(draft.design().extras()));
    going.removeIf(path -> RowPaths.inside(folder, path).isEmpty());
    save.save(written.files(), going);
    written.files().forEach((path, content) -> known.put(path, Fingerprint.of(folder, path)));
    going.forEach(known::remove);
    paths = written.rowPaths();
    standing = Optional.of(draft);
  }

  /**
   * Marks the folder as worked on until this is closed.
   *
   * @return who works on it already, in words; empty: nobody, and now it is marked
   */
  public synchronized Optional<String> lock() throws IOException {
    return lock.take();
  }

  /** Takes the mark of being worked on away. */
  @Override
  public synchronized void close() throws IOException {
    lock.release();
  }

  /** The folder as the writer of a package sees it. */
  private final class Standing implements PackageWriter.Previous {
    private final Set<String> own = rowPaths(); // Asked for each table.

    @Override
    public Path folder() {
      return folder;
    }

    @Override
    public Optional<byte[]> content(String path) throws IOException {
      return save.content(path);
    }

    @Override
    public boolean isOthers(String path) {
      return !known.containsKey(path)
          && !own.contains(path)
          && Files.exists(save.current(path), LinkOption.NOFOLLOW_LINKS);
    }

    @Override
    public List<Integer> parts(TableId table) {
      return parts.getOrDefault(table, List.of());
    }

    @Override
    public boolean holds(Table table, Rows rows, List<String> wanted) {
      return standing
          .flatMap(draft -> draft.design().find(table.id()))
          .filter(before -> isSame(before, table))
          .filter(before -> standing.orElseThrow().rows().of(table.id()) == rows)
          .filter(before -> wanted.equals(paths.get(table.id())))
          .filter(before -> known.keySet().containsAll(wanted))
          .isPresent();
    }

    private static boolean isSame(Table before, Table table) {
      return before.fields().equals(table.fields()) && before.extras().equals(table.extras());
    }
  }
}
