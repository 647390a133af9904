package joiner.format;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.change.Change;
import joiner.change.Changes;
import joiner.edit.History;
import joiner.meaning.Draft;

/**
 * The recent history of the design in a folder, kept beside the user's settings, so that what was
 * done before the design was closed can still be taken back.
 *
 * <p>The file grows line by line: a step that was made ({@code {"step": …, "changes": […]}}), which
 * takes the place of those undone before, or how many steps stand and for which state of the
 * design's files that holds ({@code {"done": …, "mark": …}}). A line that was not written to its
 * end counts for nothing. One thread at a time.
 */
public final class HistoryLog {
  /** From this length on, in bytes, the file is written anew with the newest half. */
  static final long LONGEST = 16L << 20;

  private static final String STEP = "step";
  private static final String CHANGES = "changes";
  private static final String DONE = "done";
  private static final String MARK = "mark";

  private final Path file;

  /** What the file holds: these steps, which begin so many into the history. */
  private List<History.Step> written = List.of();

  private int first;
  private boolean fresh = true;

  private HistoryLog(Path file) {
    this.file = file;
  }

  /** That of the design in a folder. */
  public static HistoryLog of(Path folder) {
    String path = DesignFolder.folderOf(folder).toString();
    return new HistoryLog(Places.history().resolve(Fingerprint.digestOf(path) + ".jsonl"));
  }

  /**
   * The history that led to a draft, if it was kept for that very state of the files.
   *
   * @param mark of the files the draft was read from
   */
  public History read(Draft present, String mark) throws IOException {
    var steps = new ArrayList<History.Step>();
    int done = 0;
    String marked = "";
    try {
      for (String line : Files.readAllLines(file, StandardCharsets.UTF_8)) {
        var members = new Members(JsonFile.parse(line, file), file, "a line");
        Optional<String> name = members.optionalText(STEP);
        if (name.isPresent()) {
          steps.subList(done, steps.size()).clear();
          steps.add(step(name.get(), members));
          done++;
          marked = "";
        } else {
          done = Math.clamp(members.number(DONE).orElse(0), 0, steps.size());
          marked = members.text(MARK);
        }
      }
    } catch (NoSuchFileException e) {
      return History.startingWith(present);
    } catch (UnreadableFileException e) {
      marked = ""; // Broken off, or of another version: what it says is of no use.
    }
    if (!marked.equals(mark)) {
      return History.startingWith(present);
    }
    written = List.copyOf(steps);
    fresh = false;
    return new History(steps, done, present);
  }

  private History.Step step(String name, Members members) throws UnreadableFileException {
    var changes = new ArrayList<Change>();
    for (Json json : members.list(CHANGES)) {
      changes.add(RecordJson.read(json, Change.class, file));
    }
    return new History.Step(name, new Changes(changes));
  }

  /**
   * Keeps a history.
   *
   * @param mark of the files its present was saved in
   */
  public void keep(History history, String mark) throws IOException {
    List<History.Step> steps = history.steps();
    int same = sameSteps(steps);
    boolean forgotten = steps.isEmpty(); // What is forgotten stands nowhere any more.
    if (fresh || forgotten || history.done() < first || same < 0) {
      writeAnew(history, mark);
      return;
    }
    var lines = new StringBuilder();
    if (same < written.size() && steps.size() > first + same) {
      lines.append(position(same, ""));
    }
    steps.subList(first + same, steps.size()).forEach(step -> lines.append(line(step)));
    lines.append(position(history.done() - first, mark));
    Files.writeString(file, lines, StandardOpenOption.APPEND, StandardOpenOption.CREATE);
    written = List.copyOf(steps.subList(first, steps.size()));
    if (Files.size(file) > LONGEST) {
      writeAnew(history, mark);
    }
  }

  /**
   * How many of the steps written are those of the history; below 0: they have nothing in common.
   */
  private int sameSteps(List<History.Step> steps) {
    if (first > steps.size()) {
      return -1;
    }
    int same = 0;
    while (same < written.size()
        && first + same < steps.size()
        && written.get(same) == steps.get(first + same)) {
      same++;
    }
    return same;
  }

  /** The newest steps that find room; a step that finds none cuts off those before it. */
  private void writeAnew(History history, String mark) throws IOException {
    List<History.Step> steps = history.steps();
    var lines = new ArrayList<String>();
    long length = 0;
    int from = steps.size();
    while (from > 0) {
      String line = line(steps.get(from - 1));
      length += line.length();
      if (length > LONGEST / 2) {
        break;
      }
      lines.add(line);
      from--;
    }
    if (from > history.done()) { // What was undone finds no room: nothing can be made again.
      lines.clear();
      from = history.done();
    }
    var text = new StringBuilder();
    lines.reversed().forEach(text::append);
    text.append(position(history.done() - from, mark));
    replace(text);
    first = from;
    written = lines.isEmpty() ? List.of() : List.copyOf(steps.subList(from, steps.size()));
    fresh = false;
  }

  private void replace(CharSequence text) throws IOException {
    Path aside = Places.aside(file);
    Files.writeString(aside, text);
    Files.move(aside, file, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
  }

  private static String line(History.Step step) {
    List<Json> changes = step.changes().list().stream().map(RecordJson::write).toList();
    var json = new Json.Obj().put(STEP, step.name()).put(CHANGES, new Json.Arr(changes, 0));
    return JsonText.line(json) + "\n";
  }

  private static String position(int done, String mark) {
    return JsonText.line(new Json.Obj().put(DONE, done).put(MARK, mark)) + "\n";
  }

  /** Throws the history away. */
  public void discard() throws IOException {
    Files.deleteIfExists(file);
    fresh = true;
  }
}
