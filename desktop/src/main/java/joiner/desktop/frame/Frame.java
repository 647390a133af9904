package joiner.desktop.frame;

import java.nio.file.Path;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.animation.PauseTransition;
import javafx.collections.ListChangeListener;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.StackPane;
import javafx.util.Duration;
import joiner.desktop.connect.ConnectView;
import joiner.desktop.gather.GatherView;
import joiner.desktop.guard.GuardView;
import joiner.desktop.preview.PreviewView;
import joiner.desktop.prove.ProveView;
import joiner.desktop.shape.ShapeView;
import joiner.desktop.ship.ShipView;
import joiner.desktop.theme.Look;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Settings;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Targets;
import joiner.desktop.work.Workbench;

/** The whole window: everything but the stages themselves. Stages are built when first shown. */
public final class Frame {
  private final Workbench bench;
  private final Settings settings;
  private final Targets targets;
  private final Texts texts = Texts.beside(Frame.class);
  private final Map<Stage, StageView> stages = new EnumMap<>(Stage.class);
  private final StackPane middle = new StackPane();
  private final StackPane side = new StackPane();
  private final StackPane root = new StackPane();
  private final Questions questions = new Questions();
  private final DesignFiles files;
  private final Actions actions;
  private final Overlay<Finder> finder;
  private final Overlay<MessageList> messages;
  private final Overlay<WordBook> words;
  private Optional<PreviewView> preview = Optional.empty();
  private Optional<Node> focusedBefore = Optional.empty();
  private final Map<KeyCombination, Runnable> shortcuts;
  private Optional<Stage> inSight = Optional.empty();
  private Look look;

  /** Builds the window's content. */
  public Frame(Workbench bench, Recovery recovery, Settings settings) {
    this.bench = bench;
    this.settings = settings;
    this.targets = new Targets(settings);
    this.look = look(settings);
    this.files =
        new DesignFiles(bench, questions, recovery, settings, () -> root.getScene().getWindow());
    this.actions =
        new Actions(
            bench,
            files,
            new Looks(),
            questions,
            this::stageCommands,
            this::stageCommands,
            this::typeLabel);
    this.finder =
        new Overlay<>(root, () -> new Finder(actions, this::completeStages), Finder::node);
    this.messages = new Overlay<>(root, () -> new MessageList(bench.notices()), MessageList::node);
    this.words = new Overlay<>(root, () -> new WordBook(bench), WordBook::node);
    this.shortcuts = shortcuts();
    side.getStyleClass().add("side-sheet");
    side.setPrefWidth(292);
    side.setMinWidth(250);
    middle.setMinSize(0, 0);
    var pane = new BorderPane(middle);
    pane.setMinSize(0, 0); // Long names are shortened; they never push the window's parts aside.
    pane.setTop(new Strip(bench, this::find).node());
    pane.setLeft(new TableList(bench, actions::addTable).node());
    pane.setRight(side);
    pane.setBottom(new StatusLine(bench, () -> messages.get().open()).node());
    root.getChildren().addAll(pane, new NoticeBoard(bench.notices()).node(), questions.node());
    root.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    bench.stageProperty().subscribe(this::show);
    bench.proposalProperty().subscribe(this::propose);
    bench.selectionProperty().subscribe(value -> leaveGather());
    bench
        .notices()
        .all()
        .addListener(
            (ListChangeListener<Notice>)
                change -> messages.ifMade().ifPresent(MessageList::refresh));
  }

  /** Wears the theme of last time; call before the first control is made. */
  public static void wear(Settings settings) {
    look(settings).theme().wear();
  }

  private static Look look(Settings settings) {
    return Look.from(settings.get("theme"), settings.get("text"));
  }

  private void find() {
    finder.get().open();
  }

  /** Puts the cursor into the label of the table chosen. */
  private void typeLabel() {
    side.applyCss(); // What is scrolled is in the scene only once it has its skin.
    if (side.lookup("#table-label") instanceof TextField label) {
      label.requestFocus();
      label.selectAll();
    }
  }

  /** What the scene shows. */
  public Parent root() {
    return root;
  }

  /** Dresses the scene; call after the root is in it. */
  public void dress(Scene scene) {
    look.applyTo(scene);
  }

  /** Goes to Gather and opens a file there. */
  public void gather(Path file) {
    gather().open(file);
  }

  /** Does something that leaves the design, after asking where that would lose something. */
  public void unlessLost(Runnable leaving) {
    files.unlessLost(leaving);
  }

  private GatherView gather() {
    bench.stageProperty().set(Stage.GATHER);
    return (GatherView) view(Stage.GATHER);
  }

  /** How the window looks, as commands change it. */
  private final class Looks implements Actions.Looks {
    @Override
    public void switchTheme() {
      wear(look.otherTheme());
    }

    @Override
    public void largerText() {
      wear(look.larger());
    }

    @Override
    public void smallerText() {
      wear(look.smaller());
    }

    @Override
    public void messages() {
      messages.get().open();
    }

    @Override
    public void words() {
      words.get().open(inSight);
    }
  }

  private void wear(Look other) {
    look = other;
    look.applyTo(root.getScene());
    settings.put("theme", look.theme().name());
    settings.put("text", look.text().name());
    files.saveSettings();
  }

  /** A table chosen while files are gathered is wanted in its own shape. */
  private void leaveGather() {
    boolean chosen = bench.selectionProperty().get().table().isPresent();
    if (chosen && bench.stageProperty().get() == Stage.GATHER && !stages.isEmpty()) {
      bench.stageProperty().set(Stage.SHAPE);
    }
  }

  /** Shows a change before it is made, in the place of the stage. */
  private void propose(Optional<Workbench.Proposal> proposal) {
    if (proposal.isPresent()) {
      PreviewView shown = preview.orElseGet(() -> new PreviewView(bench));
      preview = Optional.of(shown);
      focusedBefore = Optional.ofNullable(root.getScene()).map(Scene::getFocusOwner);
      middle.getChildren().setAll(shown.node());
      shown.open(proposal.get());
    } else if (isPreviewing()) {
      middle.getChildren().setAll(view(bench.stageProperty().get()).main());
      focusedBefore.ifPresent(Node::requestFocus);
    }
  }

  private boolean isPreviewing() {
    return preview.map(PreviewView::node).filter(middle.getChildren()::contains).isPresent();
  }

  private void show(Stage stage) {
    bench.dismiss();
    inSight.map(stages::get).ifPresent(view -> view.shown(false));
    StageView view = view(stage);
    inSight = Optional.of(stage);
    middle.getChildren().setAll(view.main());
    side.getChildren().setAll(Parts.scroll(view.side()));
    view.shown(true);
  }

  private StageView view(Stage stage) {
    return stages.computeIfAbsent(stage, this::build);
  }

  private StageView build(Stage stage) {
    return switch (stage) {
      case GATHER -> new GatherView(bench, new Starts(bench, files));
      case SHAPE -> new ShapeView(bench);
      case CONNECT -> new ConnectView(bench);
      case GUARD -> new GuardView(bench);
      case PROVE -> new ProveView(bench, targets);
      case SHIP -> new ShipView(bench, targets);
    };
  }

  /** Builds the stages nobody has looked at yet, one a frame, and then does something. */
  private void completeStages(Runnable then) {
    for (Stage stage : Stage.values()) {
      if (!stages.containsKey(stage)) {
        var next = new PauseTransition(Duration.millis(16));
        next.setOnFinished(
            event -> {
              view(stage);
              completeStages(then);
            });
        next.play();
        return;
      }
    }
    then.run();
  }

  /** Commands of every stage that is built; one in another stage goes there first. */
  private List<Command> stageCommands() {
    return stages.keySet().stream()
        .flatMap(stage -> view(stage).commands().stream().map(command -> in(stage, command)))
        .toList();
  }

  /** What the stages that are built can do with a text. */
  private List<Command> stageCommands(String typed) {
    return stages.keySet().stream()
        .flatMap(
            stage -> view(stage).commandsFor(typed).stream().map(command -> in(stage, command)))
        .toList();
  }

  private Command in(Stage stage, Command command) {
    return new Command(
        texts.get("action.in", texts.get("stage." + stage), command.name()),
        command.shortcut(),
        command.sort(),
        () -> {
          bench.stageProperty().set(stage);
          command.run().run();
        });
  }

  private void key(KeyEvent event) {
    questions.typed();
    if (questions.isAsking()) {
      return;
    }
    for (Map.Entry<KeyCombination, Runnable> shortcut : shortcuts.entrySet()) {
      if (shortcut.getKey().match(event)) {
        commitTyping(event);
        shortcut.getValue().run();
        event.consume();
        return;
      }
    }
  }

  /** What is being typed counts before a shortcut does anything. */
  private static void commitTyping(KeyEvent event) {
    if (event.getTarget() instanceof TextInputControl text && text.getParent() != null) {
      text.getParent().requestFocus();
    }
  }

  private Map<KeyCombination, Runnable> shortcuts() {
    var control = KeyCombination.SHORTCUT_DOWN;
    var shift = KeyCombination.SHIFT_DOWN;
    var anyShift = KeyCombination.SHIFT_ANY; // On many keyboards + is typed with it.
    var looks = new Looks();
    Map<KeyCombination, Runnable> map = new LinkedHashMap<>();
    map.put(new KeyCodeCombination(KeyCode.K, control), this::find);
    map.put(new KeyCodeCombination(KeyCode.Z, control), bench::undo);
    map.put(new KeyCodeCombination(KeyCode.Z, control, shift), bench::redo);
    map.put(new KeyCodeCombination(KeyCode.T, control), actions::addTable);
    map.put(new KeyCodeCombination(KeyCode.L, control, shift), looks::switchTheme);
    map.put(new KeyCodeCombination(KeyCode.PLUS, control, anyShift), looks::largerText);
    map.put(new KeyCodeCombination(KeyCode.EQUALS, control, anyShift), looks::largerText);
    map.put(new KeyCodeCombination(KeyCode.ADD, control), looks::largerText);
    map.put(new KeyCodeCombination(KeyCode.MINUS, control), looks::smallerText);
    map.put(new KeyCodeCombination(KeyCode.SUBTRACT, control), looks::smallerText);
    map.put(new KeyCodeCombination(KeyCode.O, control), files::open);
    map.put(new KeyCodeCombination(KeyCode.N, control), files::startEmpty);
    map.put(new KeyCodeCombination(KeyCode.S, control), files::save);
    map.put(new KeyCodeCombination(KeyCode.S, control, shift), files::saveAs);
    map.put(new KeyCodeCombination(KeyCode.G, control), () -> gather().choose());
    map.put(new KeyCodeCombination(KeyCode.V, control, shift), () -> gather().paste());
    map.put(new KeyCodeCombination(KeyCode.F1), looks::words);
    for (Stage stage : Stage.values()) {
      KeyCode digit = KeyCode.valueOf("DIGIT" + (stage.ordinal() + 1));
      map.put(
          new KeyCodeCombination(digit, KeyCombination.ALT_DOWN),
          () -> bench.stageProperty().set(stage));
    }
    return map;
  }
}
