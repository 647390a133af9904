package joiner.desktop.ship;

import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import joiner.database.Reached;
import joiner.database.Shipment;
import joiner.database.Target;
import joiner.database.TargetRefusedException;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.ddl.ShipGate;
import joiner.ddl.Statement;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.ShownAs;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Terms;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Failure;
import joiner.desktop.work.Glossary;
import joiner.desktop.work.Job;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Progress;
import joiner.desktop.work.Request;
import joiner.desktop.work.Targets;
import joiner.desktop.work.Workbench;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.meaning.Draft;
import joiner.naming.Counts;

/**
 * The stage Ship: the script by section, the shipment with its progress, and what was read back.
 */
public final class ShipView implements StageView {
  private static final PseudoClass STALE = PseudoClass.getPseudoClass("stale");

  private final Workbench bench;
  private final Texts texts = Texts.beside(ShipView.class);
  private final HBox main = new HBox(16);
  private final VBox side = new VBox(16);
  private final VBox told = new VBox(8);
  private final VBox targets = new VBox(6);
  private final Label title = Parts.label("", "title");
  private final Label counts = Parts.label("", "muted");
  private final FlowPane sections = new FlowPane(6, 6);
  private final SqlView sql = new SqlView(texts.get("script.name"));
  private final FlowPane actions = new FlowPane(8, 8);
  private final ComboBox<RowsChoice> rows = new ComboBox<>();
  private final Computed<WrittenScript.Wanted, WrittenScript> script;
  private final WhenSeen seen = new WhenSeen(this::ask);
  private final WhenSeen actionsSeen = new WhenSeen(this::showActions);
  private final Label state = Parts.label("", "oak");
  private final ShipWords words = new ShipWords(texts);
  private final Targets known;
  private final PlaceForm place;
  private Dialect dialect = Dialects.H2;
  private Optional<Statement.Section> section = Optional.empty();
  private Optional<Job<Shipment>> shipping = Optional.empty();
  private Optional<Draft> shipped = Optional.empty();

  /** Builds the stage. */
  public ShipView(Workbench bench, Targets known) {
    this.bench = bench;
    this.known = known;
    this.place =
        new PlaceForm(
            bench, known, dialect, texts, this::tryPlace, this::compare, this::showActions);
    this.script =
        new Computed<>(
            bench.runner(),
            texts.get("writing"),
            Lane.WORKING,
            WrittenScript.Wanted::isSame,
            (wanted, progress) -> WrittenScript.of(wanted));
    main.getStyleClass().add("stage-area");
    side.getStyleClass().add("side-content");
    side.getChildren().setAll(place.node(), told);
    targets.setPrefWidth(188);
    targets.setMinWidth(170);
    rows.getItems().setAll(RowsChoice.values());
    rows.setConverter(new ShownAs<>(choice -> texts.get("rows." + choice)));
    rows.setValue(RowsChoice.ALL);
    rows.setAccessibleText(texts.get("rows"));
    rows.valueProperty().subscribe(value -> seen.changed());
    counts.setMinWidth(0);
    var middle = new VBox(8, Parts.row(10, title, counts, state), sections, sql.node(), actions);
    middle.setMinWidth(0);
    HBox.setHgrow(middle, Priority.ALWAYS);
    VBox.setVgrow(sql.node(), Priority.ALWAYS);
    main.getChildren().setAll(targets, middle);
    script.answerProperty().subscribe(value -> show());
    place.show(dialect);
    bench.historyProperty().subscribe(value -> seen.changed());
    bench.verdictProperty().subscribe(value -> actionsSeen.changed());
  }

  @Override
  public void shown(boolean visible) {
    script.look(visible);
    seen.look(visible);
    actionsSeen.look(visible);
  }

  @Override
  public List<Command> commands() {
    var commands = new ArrayList<Command>();
    for (Dialect one : Dialects.ALL) {
      commands.add(Command.of(texts.get("script", one.engine()), () -> pick(one)));
    }
    commands.add(Command.of(texts.get("save"), this::saveScript));
    commands.add(Command.of(texts.get("copy"), this::copyScript));
    return commands;
  }

  @Override
  public Node main() {
    return main;
  }

  @Override
  public Node side() {
    return side;
  }

  private void ask() {
    script.ask(
        new WrittenScript.Wanted(
            bench.draft(), dialect, rows.getValue(), section, bench.design().title()));
  }

  /** Shows the script, or that it is being written; an older one is never shown as the newest. */
  private void show() {
    title.setText(texts.get("script", dialect.engine()));
    boolean current = script.answer().current().isPresent();
    state.setText(
        switch (script.answer()) {
          case Answer.Unasked<WrittenScript> u -> "";
          case Answer.Current<WrittenScript> c -> "";
          case Answer.Underway<WrittenScript> u -> texts.get("writing");
          case Answer.Stopped<WrittenScript> t -> texts.get("writing.stopped");
          case Answer.Failed<WrittenScript> f -> f.failure().message();
        });
    sql.node().pseudoClassStateChanged(STALE, !current);
    script.answer().current().ifPresent(this::show);
    showActions();
  }

  private void show(WrittenScript written) {
    showTargets(written);
    var design = bench.design();
    counts.setText(
        texts.get(
            "script.count",
            written.statements(),
            design.tables().size(),
            design.relationships().size()));
    showSections(written);
    sql.show(
        written.isWhole()
            ? written.text()
            : written.text() + texts.get("script.cut", Counts.of(written.lines())));
    if (shipped.isEmpty()) {
      told.getChildren().setAll(words.before(written, dialect));
    } else if (shipped.get() != bench.draft()) {
      shipped = Optional.empty();
      told.getChildren().setAll(words.before(written, dialect));
    }
  }

  private void showTargets(WrittenScript written) {
    targets
        .getChildren()
        .setAll(
            Terms.explain(
                Parts.label(texts.get("targets"), "heading"),
                "Target",
                Glossary.meaning("Target")));
    var group = new ToggleGroup();
    written
        .lost()
        .forEach(
            (one, lost) -> {
              var words =
                  new VBox(
                      2,
                      Parts.label(one.engine(), "strong"),
                      Parts.label(
                          lost == 0 ? texts.get("target.all") : texts.get("target.some", lost),
                          lost == 0 ? "spruce" : "oak",
                          "small"));
              var card = new ToggleButton();
              card.setGraphic(words);
              card.setToggleGroup(group);
              card.setSelected(one == dialect);
              card.getStyleClass().add("target-card");
              card.setMaxWidth(Double.MAX_VALUE);
              card.setId("target-" + one.id());
              card.setAccessibleText(one.engine());
              card.setOnAction(
                  event -> {
                    card.setSelected(true);
                    pick(one);
                  });
              targets.getChildren().add(card);
            });
    targets.getChildren().addAll(Parts.label(texts.get("rows"), "heading"), rows);
  }

  private void pick(Dialect picked) {
    if (picked != dialect) {
      dialect = picked;
      section = Optional.empty();
      shipped = Optional.empty();
      place.show(dialect);
      ask();
    }
  }

  private void showSections(WrittenScript written) {
    var group = new ToggleGroup();
    sections.getChildren().setAll(sectionButton(texts.get("section.all"), Optional.empty(), group));
    for (Statement.Section one : written.sections()) {
      sections.getChildren().add(sectionButton(one.title(), Optional.of(one), group));
    }
  }

  private ToggleButton sectionButton(
      String name, Optional<Statement.Section> one, ToggleGroup group) {
    var button = new ToggleButton(name);
    button.setToggleGroup(group);
    button.setSelected(section.equals(one));
    button.setOnAction(
        event -> {
          section = one;
          button.setSelected(true);
          ask();
        });
    return button;
  }

  private void showActions() {
    if (shipping.isPresent()) {
      return; // Its progress stands here until it ends.
    }
    var nodes = new ArrayList<Node>();
    if (bench.design().tables().isEmpty()) {
      actions.getChildren().setAll(Parts.label(texts.get("empty"), "muted"));
      return;
    }
    nodes.add(shipButton());
    var save = Parts.button(texts.get("save"), this::saveScript);
    save.setDisable(script.answer().current().isEmpty());
    nodes.add(save);
    var copy = Parts.button(texts.get("copy"), this::copyScript);
    copy.setDisable(script.answer().current().isEmpty());
    nodes.add(copy);
    why().ifPresent(reason -> nodes.add(Parts.shortened(reason, "brick")));
    actions.getChildren().setAll(nodes);
  }

  private Node shipButton() {
    String name = texts.get(place.isServer() ? "ship.server" : "ship", dialect.engine());
    var ship = Parts.button(name, place.isServer() ? this::shipThere : this::chooseAndShip, "main");
    ship.setId("ship");
    ship.setDisable(!isReady() || place.isServer() && place.place().isEmpty());
    return ship;
  }

  private boolean isReady() {
    return bench.verdict().isCurrent()
        && script.answer().current().isPresent()
        && obstacles().isEmpty();
  }

  private List<ShipGate.Obstacle> obstacles() {
    return ShipGate.obstacles(
        bench.design(), bench.verdict().findings(), bench.verdict().audit(), rows.getValue());
  }

  /** Why nothing can be shipped now, in words. */
  private Optional<String> why() {
    return switch (bench.verdict().state()) {
      case CHECKING -> Optional.of(texts.get("gate.checking"));
      case FAILED -> Optional.of(texts.get("gate.failed"));
      case CURRENT -> whyRefused();
    };
  }

  private Optional<String> whyRefused() {
    long inDesign = obstacles().stream().filter(o -> !o.inRows()).count();
    long inRows = obstacles().size() - inDesign;
    if (inDesign > 0) {
      return Optional.of(texts.get("errors", inDesign));
    }
    if (inRows > 0) {
      return Optional.of(texts.get("gate.rows", inRows));
    }
    return place.isServer() && place.place().isEmpty()
        ? Optional.of(texts.get("place.none"))
        : Optional.empty();
  }

  private void chooseAndShip() {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("file.title"));
    chooser.setInitialFileName(bench.design().name() + dialect.fileEnding().orElse(""));
    Optional.ofNullable(chooser.showSaveDialog(main.getScene().getWindow()))
        .map(File::toPath)
        .ifPresent(this::ship);
  }

  /** Ships the design into a database file of the engine shown. */
  public void ship(Path file) {
    var there = new Targets.Known(dialect.id(), file.toAbsolutePath().toString(), "");
    ship(there, known.target(dialect, there, ""));
  }

  private void shipThere() {
    Optional<Target> target = place.target();
    target.ifPresent(to -> ship(place.place().orElseThrow(), to));
  }

  private void ship(Targets.Known there, Target target) {
    Draft draft = bench.draft();
    RowsChoice choice = rows.getValue();
    Job<Shipment> job =
        bench
            .runner()
            .start(
                Request.<Shipment>of(
                        this,
                        texts.get("shipping.to", dialect.engine()),
                        progress -> ship(draft, target, choice, progress),
                        shipment -> ended(() -> shipped(shipment, there, draft)),
                        failure -> ended(() -> showRefusal(failure)))
                    .whenStopped(() -> ended(() -> {})));
    shipping = Optional.of(job);
    var bar = new ProgressBar();
    bar.progressProperty().bind(job.doneProperty());
    var doing = Parts.shortened("", "muted");
    doing.textProperty().bind(job.wordsProperty());
    actions
        .getChildren()
        .setAll(bar, doing, Parts.button(texts.get("cancel"), () -> bench.runner().stop(job)));
  }

  private void shipped(Shipment shipment, Targets.Known there, Draft draft) {
    keep(there);
    shipped = Optional.of(draft);
    told.getChildren().setAll(words.of(shipment, there));
  }

  /** Remembers a database that answered. */
  private void keep(Targets.Known there) {
    known.keep(bench.keeper().folder(), there);
    place.show(dialect);
    bench
        .runner()
        .start(
            Request.of(
                    "targets",
                    texts.get("place.keeping"),
                    progress -> {
                      known.save();
                      return there;
                    },
                    done -> {},
                    bench::tell)
                .in(Lane.SAVING));
  }

  /** Sees whether the place typed can be reached. */
  private void tryPlace() {
    Optional<Targets.Known> there = place.place();
    ask(
        texts.get("place.trying"),
        Reached::of,
        reached -> {
          keep(there.orElseThrow());
          place.say(texts.get("place.reached", reached.product(), reached.tables()), "spruce");
        });
  }

  /** Sees what the database at the place has otherwise than the design. */
  private void compare() {
    Draft draft = bench.draft();
    Dialect asked = dialect;
    ask(
        texts.get("place.comparing"),
        target -> Drift.of(draft, target),
        drift -> {
          place.say("");
          if (bench.draft() == draft && dialect == asked) { // Else it is news of yesterday.
            shipped = Optional.of(draft);
            told.getChildren().setAll(words.of(drift));
          }
        });
  }

  private interface Question<T> {
    T of(Target target) throws TargetRefusedException;
  }

  /** Asks the database at the place typed; what keeps it from answering is said there. */
  private <T> void ask(String doing, Question<T> question, Consumer<T> answered) {
    Optional<Target> target = place.target();
    if (target.isEmpty()) {
      place.say(texts.get("place.none"), "brick");
      return;
    }
    place.say(doing, "muted");
    bench
        .runner()
        .start(
            Request.<T>of(
                "place",
                doing,
                progress -> question.of(target.get()),
                answered,
                failure -> place.say(failure.message(), "brick")));
  }

  private Shipment ship(Draft draft, Target target, RowsChoice choice, Progress progress)
      throws TargetRefusedException {
    return Shipment.ship(
        draft,
        target,
        choice,
        (done, total, doing) -> {
          progress.share((double) done / Math.max(total, 1));
          progress.doing(texts.get("shipping", doing));
          return !progress.stopped();
        });
  }

  private void ended(Runnable then) {
    shipping = Optional.empty();
    showActions();
    then.run();
  }

  private void showRefusal(Failure refusal) {
    if (refusal.details().isPresent()) {
      bench.tell(refusal);
    }
    told.getChildren()
        .setAll(
            Parts.prose(texts.get("refused.title"), "title"),
            Parts.card(List.of(Parts.prose(texts.get("refused.why", refusal.message()))), "error"));
  }

  /** Copies the whole script. */
  private void copyScript() {
    Draft draft = bench.draft();
    Dialect written = dialect;
    RowsChoice choice = rows.getValue();
    bench
        .runner()
        .start(
            Request.<String>of(
                "copy script",
                texts.get("copying.script"),
                progress -> SchemaScript.of(draft, written, choice).text(draft.design().title()),
                text -> {
                  var content = new ClipboardContent();
                  content.putString(text);
                  Clipboard.getSystemClipboard().setContent(content);
                  bench.tell(Notice.Sort.DONE, texts.get("copied", written.engine()));
                },
                bench::tell));
  }

  private void saveScript() {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("save.title"));
    chooser.setInitialFileName(bench.design().name() + "-" + dialect.id() + ".sql");
    File file = chooser.showSaveDialog(main.getScene().getWindow());
    if (file != null) {
      Draft draft = bench.draft();
      Dialect written = dialect;
      RowsChoice choice = rows.getValue();
      bench
          .runner()
          .start(
              Request.of(
                  "save script",
                  texts.get("saving.script"),
                  progress -> {
                    SchemaScript whole = SchemaScript.of(draft, written, choice);
                    return Files.writeString(file.toPath(), whole.text(draft.design().title()));
                  },
                  saved -> bench.tell(Notice.Sort.DONE, texts.get("saved", saved)),
                  bench::tell));
    }
  }
}
