package joiner.desktop.ship;

import java.io.File;
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
import joiner.database.Shipment;
import joiner.database.Target;
import joiner.ddl.RowsChoice;
import joiner.ddl.Statement;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.ShownAs;
import joiner.desktop.widget.SqlView;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Terms;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Failure;
import joiner.desktop.work.Glossary;
import joiner.desktop.work.Job;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Targets;
import joiner.desktop.work.Workbench;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
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
  private final SqlView sql = new SqlView("script", texts.get("script.name"));
  private final FlowPane actions = new FlowPane(8, 8);
  private final ComboBox<RowsChoice> rows = new ComboBox<>();
  private final Label state = Parts.label("", "oak");
  private final ShipWords words = new ShipWords(texts);
  private final ShipModel model;
  private final PlaceForm place;
  private final WhenSeen seen;
  private final WhenSeen actionsSeen = new WhenSeen(this::showActions);

  /** Builds the stage. */
  public ShipView(Workbench bench, Targets known) {
    this.bench = bench;
    this.model = new ShipModel(bench, known, texts);
    this.seen = new WhenSeen(model::ask);
    this.place =
        new PlaceForm(
            bench,
            known,
            model.dialect(),
            texts,
            new PlaceForm.Deeds(this::tryPlace, this::compare, this::audit, this::showActions));
    main.getStyleClass().add("stage-area");
    side.getStyleClass().add("side-content");
    side.getChildren().setAll(place.node(), told);
    targets.setPrefWidth(188);
    targets.setMinWidth(170);
    rows.getItems().setAll(RowsChoice.values());
    rows.setConverter(new ShownAs<>(choice -> texts.get("rows." + choice)));
    rows.setValue(model.rows());
    rows.setAccessibleText(texts.get("rows"));
    rows.valueProperty()
        .subscribe(
            value -> {
              model.take(value);
              seen.changed();
            });
    counts.setMinWidth(0);
    var middle = new VBox(8, Parts.row(10, title, counts, state), sections, sql.node(), actions);
    middle.setMinWidth(0);
    HBox.setHgrow(middle, Priority.ALWAYS);
    VBox.setVgrow(sql.node(), Priority.ALWAYS);
    main.getChildren().setAll(targets, middle);
    model.scriptProperty().subscribe(value -> show());
    model.newsProperty().subscribe(value -> showNews());
    model.shippingProperty().subscribe(value -> showActions());
    place.show(model.dialect());
    bench.historyProperty().subscribe(value -> seen.changed());
    bench.verdictProperty().subscribe(value -> actionsSeen.changed());
  }

  @Override
  public void shown(boolean visible) {
    model.look(visible);
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

  /** Shows the script, or that it is being written; an older one is never shown as the newest. */
  private void show() {
    title.setText(texts.get("script", model.dialect().engine()));
    Answer<WrittenScript> answer = model.scriptProperty().get();
    state.setText(
        switch (answer) {
          case Answer.Unasked<WrittenScript> u -> "";
          case Answer.Current<WrittenScript> c -> "";
          case Answer.Underway<WrittenScript> u -> texts.get("writing");
          case Answer.Stopped<WrittenScript> t -> texts.get("writing.stopped");
          case Answer.Failed<WrittenScript> f -> f.failure().message();
        });
    sql.node().pseudoClassStateChanged(STALE, answer.current().isEmpty());
    answer.current().ifPresent(this::show);
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
    showNews();
  }

  private void showNews() {
    switch (model.newsProperty().get()) {
      case ShipModel.News.None none ->
          model
              .script()
              .ifPresent(w -> told.getChildren().setAll(words.before(w, model.dialect())));
      case ShipModel.News.Shipped news -> {
        place.show(model.dialect());
        told.getChildren().setAll(words.of(news.shipment(), news.there()));
      }
      case ShipModel.News.Differs news -> told.getChildren().setAll(words.of(news.drift()));
      case ShipModel.News.Audited news ->
          told.getChildren().setAll(words.of(news.draft().design(), news.audit()));
      case ShipModel.News.Refused news -> told.getChildren().setAll(words.of(news.failure()));
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
              card.setSelected(one == model.dialect());
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
    if (model.pick(picked)) {
      place.show(picked);
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
    button.setSelected(model.section().equals(one));
    button.setOnAction(
        event -> {
          button.setSelected(true);
          model.show(one);
        });
    return button;
  }

  private void showActions() {
    if (model.shippingProperty().get().isPresent()) {
      showShipping(model.shippingProperty().get().get());
      return;
    }
    if (bench.design().tables().isEmpty()) {
      actions.getChildren().setAll(Parts.label(texts.get("empty"), "muted"));
      return;
    }
    var nodes = new ArrayList<Node>();
    ShipModel.Gate gate = model.gate(place.isServer() && place.place().isEmpty());
    nodes.add(shipButton(gate));
    var save = Parts.button(texts.get("save"), this::saveScript);
    save.setDisable(model.script().isEmpty());
    nodes.add(save);
    var copy = Parts.button(texts.get("copy"), this::copyScript);
    copy.setDisable(model.script().isEmpty());
    nodes.add(copy);
    words.why(gate).ifPresent(reason -> nodes.add(Parts.shortened(reason, "brick")));
    actions.getChildren().setAll(nodes);
  }

  private void showShipping(Job<Shipment> job) {
    var bar = new ProgressBar();
    bar.progressProperty().bind(job.doneProperty());
    var doing = Parts.shortened("", "muted");
    doing.textProperty().bind(job.wordsProperty());
    actions.getChildren().setAll(bar, doing, Parts.button(texts.get("cancel"), model::stop));
  }

  private Node shipButton(ShipModel.Gate gate) {
    String name = texts.get(place.isServer() ? "ship.server" : "ship", model.dialect().engine());
    var ship = Parts.button(name, place.isServer() ? this::shipThere : this::chooseAndShip, "main");
    ship.setId("ship");
    ship.setDisable(!(gate instanceof ShipModel.Gate.Open));
    return ship;
  }

  private void chooseAndShip() {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("file.title"));
    chooser.setInitialFileName(bench.design().name() + model.dialect().fileEnding().orElse(""));
    Optional.ofNullable(chooser.showSaveDialog(main.getScene().getWindow()))
        .map(File::toPath)
        .ifPresent(this::ship);
  }

  /** Ships the design into a database file of the engine shown. */
  public void ship(Path file) {
    model.ship(file);
  }

  private void shipThere() {
    place.target().ifPresent(to -> model.ship(place.place().orElseThrow(), to));
  }

  /** Sees whether the place typed can be reached. */
  private void tryPlace() {
    typed("place.trying")
        .ifPresent(
            target ->
                model.attempt(
                    place.place().orElseThrow(),
                    target,
                    reached -> {
                      place.show(model.dialect());
                      place.say(
                          texts.get("place.reached", reached.product(), reached.tables()),
                          "spruce");
                    },
                    failure -> place.say(failure.message(), "brick")));
  }

  /** Sees what the database at the place has otherwise than the design. */
  private void compare() {
    ask("place.comparing", model::compare);
  }

  /** Sees what in the rows of the database at the place breaks the design. */
  private void audit() {
    ask("place.auditing", model::audit);
  }

  /** A question to a database, whose answer is news. */
  private interface Question {
    void of(Target target, Runnable answered, Consumer<Failure> failed);
  }

  private void ask(String doing, Question question) {
    typed(doing)
        .ifPresent(
            target ->
                question.of(
                    target, () -> place.say(""), failure -> place.say(failure.message(), "brick")));
  }

  /** The place typed, where it now says what is being done; or that none is typed. */
  private Optional<Target> typed(String doing) {
    Optional<Target> target = place.target();
    if (target.isPresent()) {
      place.say(texts.get(doing), "muted");
    } else {
      place.say(texts.get("place.none"), "brick");
    }
    return target;
  }

  /** Copies the whole script. */
  private void copyScript() {
    String engine = model.dialect().engine();
    model.write(
        text -> {
          var content = new ClipboardContent();
          content.putString(text);
          Clipboard.getSystemClipboard().setContent(content);
          bench.tell(Notice.Sort.DONE, texts.get("copied", engine));
        });
  }

  private void saveScript() {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("save.title"));
    chooser.setInitialFileName(bench.design().name() + "-" + model.dialect().id() + ".sql");
    Optional.ofNullable(chooser.showSaveDialog(main.getScene().getWindow()))
        .map(File::toPath)
        .ifPresent(
            file ->
                model.save(file, saved -> bench.tell(Notice.Sort.DONE, texts.get("saved", saved))));
  }
}
