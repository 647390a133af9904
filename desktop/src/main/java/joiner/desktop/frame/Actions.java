package joiner.desktop.frame;

import java.util.ArrayList;
import java.util.List;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Workbench;
import joiner.edit.AddTable;
import joiner.edit.RemoveTable;
import joiner.model.Field;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;

/** Everything the finder can find or do. */
final class Actions {
  private final Workbench bench;
  private final Files files;
  private final Sources sources;
  private final Runnable switchTheme;
  private final Texts texts = Texts.beside(Actions.class);

  Actions(Workbench bench, Files files, Sources sources, Runnable switchTheme) {
    this.bench = bench;
    this.files = files;
    this.sources = sources;
    this.switchTheme = switchTheme;
  }

  /** All actions as they stand now. */
  List<Action> all() {
    var actions = new ArrayList<Action>();
    for (Stage stage : Stage.values()) {
      String name = texts.get("action.go", texts.get("stage." + stage));
      actions.add(
          new Action(name, "Alt+" + (stage.ordinal() + 1), () -> bench.stageProperty().set(stage)));
    }
    bench
        .historyProperty()
        .get()
        .undoName()
        .ifPresent(n -> actions.add(new Action(texts.get("undo.named", n), "Ctrl+Z", bench::undo)));
    bench
        .historyProperty()
        .get()
        .redoName()
        .ifPresent(
            n -> actions.add(new Action(texts.get("redo.named", n), "Ctrl+Shift+Z", bench::redo)));
    actions.add(new Action(texts.get("action.addTable"), "Ctrl+T", this::addTable));
    bench
        .table()
        .ifPresent(
            t ->
                actions.add(
                    new Action(texts.get("action.removeTable", t.label()), "", () -> remove(t))));
    actions.add(new Action(texts.get("action.open"), "Ctrl+O", files::open));
    actions.add(new Action(texts.get("action.new"), "Ctrl+N", files::startEmpty));
    actions.add(new Action(texts.get("action.saveAs"), "Ctrl+S", files::saveAs));
    actions.add(new Action(texts.get("action.source"), "Ctrl+G", sources::choose));
    actions.add(new Action(texts.get("action.paste"), "Ctrl+Shift+V", sources::paste));
    actions.add(new Action(texts.get("action.theme"), "Ctrl+Shift+L", switchTheme));
    addPlaces(actions);
    return actions;
  }

  private void addPlaces(List<Action> actions) {
    for (Table table : bench.design().tables()) {
      actions.add(
          new Action(
              texts.get("action.table", table.label()),
              "",
              () -> bench.selectionProperty().set(Selection.of(table.id()))));
    }
    for (Table table : bench.design().tables()) {
      for (Field field : table.fields()) {
        actions.add(
            new Action(
                texts.get("action.field", field.label(), table.label()),
                "",
                () -> bench.selectionProperty().set(Selection.of(table.id(), field.id()))));
      }
    }
  }

  void addTable() {
    var names = bench.design().tables().stream().map(Table::name).toList();
    int number = 1;
    while (names.contains("new_table_" + number)) {
      number++;
    }
    String label = texts.get("new.table", number);
    String area = bench.table().map(Table::area).orElse("");
    Table table =
        Table.of(NamingPolicy.nameFor(label), label, new Noun("row", "rows")).withArea(area);
    bench.apply(new AddTable(table, Rows.NONE));
    bench.selectionProperty().set(Selection.of(table.id()));
    bench.stageProperty().set(Stage.SHAPE);
  }

  private void remove(Table table) {
    bench.apply(new RemoveTable(table.id(), table.label()));
    bench.selectionProperty().set(Selection.NONE);
  }

  /** Actions whose name holds all the words typed, best first; at most {@code most}. */
  List<Action> matching(String typed, int most) {
    String[] words = typed.strip().toLowerCase(java.util.Locale.ROOT).split("\\s+");
    return all().stream()
        .filter(action -> matches(action, words))
        .sorted(java.util.Comparator.comparing(action -> begins(action, words[0]) ? 0 : 1))
        .limit(most)
        .toList();
  }

  private static boolean matches(Action action, String[] words) {
    String name = action.name().toLowerCase(java.util.Locale.ROOT);
    return java.util.Arrays.stream(words).allMatch(name::contains);
  }

  private static boolean begins(Action action, String word) {
    return java.util.Arrays.stream(action.name().toLowerCase(java.util.Locale.ROOT).split(" "))
        .anyMatch(w -> w.startsWith(word));
  }

  /** What is gathered. */
  interface Sources {
    void choose();

    void paste();
  }

  /** Where designs come from and go to. */
  interface Files {
    void open();

    void startEmpty();

    void saveAs();
  }
}
