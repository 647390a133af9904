package joiner.desktop.frame;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Stream;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Settings;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Workbench;
import joiner.edit.AddTable;
import joiner.edit.RemoveTable;
import joiner.model.AreaId;
import joiner.model.Field;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;

/** Everything the finder can find or do. */
final class Actions {
  private final Workbench bench;
  private final Files files;
  private final Looks looks;
  private final Questions questions;
  private final Supplier<List<Command>> ofStages;
  private final Function<String, List<Command>> ofTyped;
  private final Runnable typeLabel;
  private final Texts texts = Texts.beside(Actions.class);

  /** A command with its name ready to be searched. */
  record Found(Command command, String name) {
    static Found of(Command command) {
      return new Found(command, command.name().toLowerCase(Locale.ROOT));
    }

    /** Whether one of its words begins so. */
    private boolean hasWord(String beginning) {
      int at = name.indexOf(beginning);
      while (at > 0 && Character.isLetterOrDigit(name.charAt(at - 1))) {
        at = name.indexOf(beginning, at + 1);
      }
      return at >= 0;
    }
  }

  /** A command with its place among those that fit; smaller comes first. */
  private record Ranked(Found found, long place) {
    static Ranked of(Found found, String[] words) {
      boolean nothing = words.length == 0;
      Command.Sort sort = found.command().sort();
      long removal = sort == Command.Sort.REMOVAL ? 1 : 0;
      long begun = Stream.of(words).filter(found::hasWord).count();
      // With nothing typed deeds come first: places stand in the list of tables already.
      long kind = nothing && sort == Command.Sort.DEED ? 0 : sort.ordinal() + 1L;
      long length = nothing ? 0 : Math.min(found.name().length(), 999);
      return new Ranked(
          found, ((removal * 100 + words.length - begun) * 10 + kind) * 1000 + length);
    }
  }

  Actions(
      Workbench bench,
      Files files,
      Looks looks,
      Questions questions,
      Supplier<List<Command>> ofStages,
      Function<String, List<Command>> ofTyped,
      Runnable typeLabel) {
    this.ofTyped = ofTyped;
    this.bench = bench;
    this.files = files;
    this.looks = looks;
    this.questions = questions;
    this.ofStages = ofStages;
    this.typeLabel = typeLabel;
  }

  /** What can be done with a text as it is typed. */
  List<Command> with(String typed) {
    return typed.isBlank() ? List.of() : ofTyped.apply(typed);
  }

  /** All commands as they stand now. */
  List<Found> all() {
    var commands = new ArrayList<Command>();
    for (Stage stage : Stage.values()) {
      commands.add(
          deed(
              texts.get("action.go", texts.get("stage." + stage)),
              "Alt+" + (stage.ordinal() + 1),
              () -> bench.stageProperty().set(stage)));
    }
    var history = bench.historyProperty().get();
    history
        .undoName()
        .ifPresent(n -> commands.add(deed(texts.get("undo.named", n), "Ctrl+Z", bench::undo)));
    history
        .redoName()
        .ifPresent(
            n -> commands.add(deed(texts.get("redo.named", n), "Ctrl+Shift+Z", bench::redo)));
    if (!history.steps().isEmpty()) {
      commands.add(
          new Command(
              texts.get("action.forget", history.steps().size()),
              "",
              Command.Sort.REMOVAL,
              () -> askToForget(history.steps().size())));
    }
    commands.add(deed(texts.get("action.addTable"), "Ctrl+T", this::addTable));
    commands.add(deed(texts.get("action.open"), "Ctrl+O", files::open));
    commands.add(deed(texts.get("action.new"), "Ctrl+N", files::startEmpty));
    commands.add(deed(texts.get("action.save"), "Ctrl+S", files::save));
    commands.add(deed(texts.get("action.saveAs"), "Ctrl+Shift+S", files::saveAs));
    for (Settings.Recent recent : files.recent()) {
      commands.add(
          deed(
              texts.get("action.recent", recent.title(), recent.folder()),
              "",
              () -> files.open(recent.folder())));
    }
    commands.add(deed(texts.get("action.theme"), "Ctrl+Shift+L", looks::switchTheme));
    commands.add(deed(texts.get("action.larger"), "Ctrl++", looks::largerText));
    commands.add(deed(texts.get("action.smaller"), "Ctrl+-", looks::smallerText));
    commands.add(deed(texts.get("action.messages"), "", looks::messages));
    commands.add(deed(texts.get("action.words"), "F1", looks::words));
    commands.addAll(ofStages.get());
    addPlaces(commands);
    return commands.stream().map(Found::of).toList();
  }

  private static Command deed(String name, String shortcut, Runnable run) {
    return new Command(name, shortcut, Command.Sort.DEED, run);
  }

  private void addPlaces(List<Command> commands) {
    for (Table table : bench.design().tables()) {
      Runnable go = () -> bench.selectionProperty().set(Selection.of(table.id()));
      commands.add(
          new Command(
              texts.get("action.table", table.label()), table.name(), Command.Sort.TABLE, go));
      commands.add(
          new Command(
              texts.get("action.removeTable", table.label()),
              "",
              Command.Sort.REMOVAL,
              () -> remove(table)));
      for (Field field : table.fields()) {
        commands.add(
            new Command(
                texts.get("action.field", field.label(), table.label()),
                field.name(),
                Command.Sort.FIELD,
                () -> bench.selectionProperty().set(Selection.of(table.id(), field.id()))));
      }
    }
  }

  void addTable() {
    var labels = bench.design().tables().stream().map(Table::label).toList();
    int number = 1;
    while (labels.contains(texts.get("new.table", number))) {
      number++;
    }
    String label = texts.get("new.table", number);
    var names = bench.design().tables().stream().map(Table::name).toList();
    String name = NamingPolicy.free(NamingPolicy.nameFor(label), names);
    Optional<AreaId> area = bench.table().flatMap(Table::area);
    Table table = bench.design().unused(Table.of(name, label, Noun.ofLabel(label)).withArea(area));
    bench.apply(new AddTable(table, Rows.NONE));
    bench.selectionProperty().set(Selection.of(table.id()));
    bench.stageProperty().set(Stage.SHAPE);
    typeLabel.run();
  }

  private void askToForget(int steps) {
    questions.ask(
        new Questions.Question(
            texts.get("forget.title"),
            texts.get("forget.text", steps),
            List.of(),
            List.of(
                new Questions.Answer("keep", texts.get("forget.keep"), () -> {}),
                new Questions.Answer("forget", texts.get("forget.do"), bench::forgetSteps))));
  }

  /** Removes a table once it was seen what goes with it. */
  private void remove(Table table) {
    bench.propose(
        () -> new RemoveTable(table.id(), table.label()),
        () -> {
          bench.selectionProperty().set(Selection.NONE);
          bench.tellDone(texts.get("removed", table.label()), texts.get("undo"));
        });
  }

  /**
   * Commands that have all the words typed, best first: those whose words begin so before those
   * that hold it somewhere, places before deeds, and what takes something away last.
   *
   * @param most how many at most
   */
  static List<Command> matching(List<Found> all, String typed, int most) {
    String[] words =
        Stream.of(typed.strip().toLowerCase(Locale.ROOT).split("\\s+"))
            .filter(word -> !word.isEmpty())
            .toArray(String[]::new);
    return all.stream()
        .filter(found -> Stream.of(words).allMatch(found.name()::contains))
        .map(found -> Ranked.of(found, words))
        .sorted(Comparator.comparingLong(Ranked::place))
        .limit(most)
        .map(ranked -> ranked.found().command())
        .toList();
  }

  /** How the window looks and what it shows beside the stages. */
  interface Looks {
    void switchTheme();

    void largerText();

    void smallerText();

    void messages();

    void words();
  }

  /** Where designs come from and go to. */
  interface Files {
    void open();

    void open(java.nio.file.Path folder);

    void startEmpty();

    void save();

    void saveAs();

    List<Settings.Recent> recent();
  }
}
