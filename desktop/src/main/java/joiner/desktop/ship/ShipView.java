package joiner.desktop.ship;

import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import joiner.database.Shipment;
import joiner.database.Target;
import joiner.database.TargetRefusedException;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.ddl.ShipGate;
import joiner.ddl.Shortfall;
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
  private final VBox side = new VBox();
  private final VBox targets = new VBox(6);
  private final Label title = Parts.label("", "title");
  private final Label counts = Parts.label("", "muted");
  private final FlowPane sections = new FlowPane(6, 6);
  private final SqlView sql = new SqlView(texts.get("script.name"));
  private final HBox actions = Parts.row(8);
  private final ComboBox<RowsChoice> rows = new ComboBox<>();
  private final Computed<WrittenScript.Wanted, WrittenScript> script;
  private final WhenSeen seen = new WhenSeen(this::ask);
  private final WhenSeen actionsSeen = new WhenSeen(this::showActions);
  private final Label state = Parts.label("", "oak");
  private Dialect dialect = Dialects.H2;
  private Optional<Statement.Section> section = Optional.empty();
  private Optional<Job<Shipment>> shipping = Optional.empty();
  private Optional<Draft> shipped = Optional.empty();

  /** Builds the stage. */
  public ShipView(Workbench bench) {
    this.bench = bench;
    this.script =
        new Computed<>(
            bench.runner(),
            texts.get("writing"),
            Lane.WORKING,
            WrittenScript.Wanted::isSame,
            (wanted, progress) -> WrittenScript.of(wanted));
    main.getStyleClass().add("stage-area");
    side.getStyleClass().add("side-content");
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
      showBefore(written);
    } else if (shipped.get() != bench.draft()) {
      shipped = Optional.empty();
      showBefore(written);
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
    boolean embedded = dialect.fileEnding().isPresent();
    if (embedded) {
      nodes.add(shipButton());
    }
    var save = Parts.button(texts.get("save"), this::saveScript);
    save.setDisable(script.answer().current().isEmpty());
    nodes.add(save);
    if (!embedded) {
      nodes.add(Parts.shortened(texts.get("target.elsewhere"), "muted", "small"));
    }
    why().ifPresent(reason -> nodes.add(Parts.shortened(reason, "brick")));
    actions.getChildren().setAll(nodes);
  }

  private Node shipButton() {
    var ship = Parts.button(texts.get("ship", dialect.engine()), this::chooseAndShip, "main");
    ship.setId("ship");
    ship.setDisable(!isReady());
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
      case CURRENT -> {
        long inDesign = obstacles().stream().filter(o -> !o.inRows()).count();
        long inRows = obstacles().size() - inDesign;
        yield obstacles().isEmpty()
            ? Optional.empty()
            : Optional.of(
                inDesign > 0 ? texts.get("errors", inDesign) : texts.get("gate.rows", inRows));
      }
    };
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
    String url = dialect.jdbcPrefix() + file.toAbsolutePath();
    Draft draft = bench.draft();
    RowsChoice choice = rows.getValue();
    Job<Shipment> job =
        bench
            .runner()
            .start(
                Request.<Shipment>of(
                        this,
                        texts.get("shipping.to", dialect.engine()),
                        progress -> ship(draft, Target.of(url), choice, progress),
                        shipment -> ended(() -> showResult(shipment, file, draft)),
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

  private void showBefore(WrittenScript script) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(texts.get("side.title"), "title"));
    nodes.add(Parts.prose(texts.get("side.why"), "muted"));
    if (script.shortfalls().isEmpty()) {
      nodes.add(Parts.prose(texts.get("side.lost.none", dialect.engine()), "spruce"));
    } else {
      nodes.add(Parts.label(texts.get("side.lost", dialect.engine()), "heading"));
      for (Shortfall shortfall : script.shortfalls()) {
        nodes.add(
            Parts.card(
                List.of(
                    Parts.prose(shortfall.subject(), "strong"),
                    Parts.prose(shortfall.reason(), "muted", "small")),
                "attention"));
      }
    }
    side.getChildren().setAll(nodes);
  }

  private void showResult(Shipment shipment, Path file, Draft draft) {
    shipped = Optional.of(draft);
    var verification = shipment.verification();
    var nodes = new ArrayList<Node>();
    var head = Parts.prose(texts.get("result.title"), "title");
    head.setId("shipped");
    nodes.add(head);
    nodes.add(
        Parts.prose(
            verification.holds()
                ? texts.get("result.good", shipment.statements())
                : texts.get("result.bad"),
            verification.holds() ? "spruce" : "brick"));
    nodes.add(Parts.prose(texts.get("result.where", file.getFileName()), "muted"));
    nodes.add(Parts.label(texts.get("result.promised"), "heading"));
    verification
        .counts()
        .forEach(
            (sort, count) ->
                nodes.add(
                    Parts.fact(
                        sort,
                        texts.get("result.of", count.found(), count.promised()),
                        count.found() == count.promised() ? "spruce" : "brick")));
    verification
        .differences()
        .forEach(difference -> nodes.add(Parts.card(List.of(Parts.prose(difference)), "error")));
    side.getChildren().setAll(nodes);
  }

  private void showRefusal(Failure refusal) {
    if (refusal.details().isPresent()) {
      bench.tell(refusal);
    }
    side.getChildren()
        .setAll(
            Parts.prose(texts.get("refused.title"), "title"),
            Parts.card(List.of(Parts.prose(texts.get("refused.why", refusal.message()))), "error"));
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
