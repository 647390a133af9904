package joiner.desktop.ship;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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
import joiner.ddl.Dialect;
import joiner.ddl.Dialects;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.ddl.Shortfall;
import joiner.ddl.Statement;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.ShownAs;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Background;
import joiner.desktop.work.Workbench;
import joiner.finding.Severity;
import joiner.rows.Draft;

/**
 * The stage Ship: the script by section, the shipment with its progress, and what was read back.
 */
public final class ShipView implements StageView {
  private final Workbench bench;
  private final Background background;
  private final Texts texts = Texts.beside(ShipView.class);
  private final HBox main = new HBox(16);
  private final VBox side = new VBox();
  private final VBox targets = new VBox(6);
  private final Label title = Parts.label("", "title");
  private final Label counts = Parts.label("", "muted");
  private final FlowPane sections = new FlowPane(6, 6);
  private final SqlView sql = new SqlView();
  private final HBox actions = Parts.row(8);
  private final ComboBox<RowsChoice> rows = new ComboBox<>();
  private final Map<Dialect, SchemaScript> scripts = new LinkedHashMap<>();
  private Dialect dialect = Dialects.H2;
  private Optional<Statement.Section> section = Optional.empty();
  private long newest;

  /** Builds the stage. */
  public ShipView(Workbench bench, Background background) {
    this.bench = bench;
    this.background = background;
    main.getStyleClass().add("stage-area");
    side.getStyleClass().add("side-content");
    targets.setPrefWidth(188);
    targets.setMinWidth(170);
    rows.getItems().setAll(RowsChoice.values());
    rows.setConverter(new ShownAs<>(choice -> texts.get("rows." + choice)));
    rows.setValue(RowsChoice.ALL);
    rows.setAccessibleText(texts.get("rows"));
    rows.valueProperty().subscribe(value -> write());
    var script = new VBox(8, Parts.row(10, title, counts), sections, sql.node(), actions);
    HBox.setHgrow(script, Priority.ALWAYS);
    VBox.setVgrow(sql.node(), Priority.ALWAYS);
    main.getChildren().setAll(targets, script);
    bench.historyProperty().subscribe(value -> write());
  }

  @Override
  public Node main() {
    return main;
  }

  @Override
  public Node side() {
    return side;
  }

  /** Writes all scripts anew in the background. */
  private void write() {
    long ticket = ++newest;
    Draft draft = bench.draft();
    RowsChoice choice = rows.getValue();
    background.compute(
        () -> {
          Map<Dialect, SchemaScript> written = new LinkedHashMap<>();
          Dialects.ALL.forEach(d -> written.put(d, SchemaScript.of(draft, d, choice)));
          return written;
        },
        written -> {
          if (ticket == newest) {
            scripts.clear();
            scripts.putAll(written);
            show();
          }
        },
        failure -> bench.tell(String.valueOf(failure)));
  }

  private void show() {
    SchemaScript script = scripts.get(dialect);
    showTargets();
    title.setText(texts.get("script", dialect.engine()));
    var design = bench.design();
    counts.setText(
        texts.get(
            "script.count",
            script.statements().size(),
            design.tables().size(),
            design.relationships().size()));
    showSections(script);
    showScript(script);
    showActions();
    showBefore(script);
  }

  private void showTargets() {
    targets.getChildren().setAll(Parts.label(texts.get("targets"), "heading"));
    for (SchemaScript script : scripts.values()) {
      int lost = script.shortfalls().size();
      var card =
          Parts.card(
              List.of(
                  Parts.label(script.dialect().engine(), "strong"),
                  Parts.prose(
                      lost == 0 ? texts.get("target.all") : texts.get("target.some", lost),
                      lost == 0 ? "spruce" : "oak",
                      "small")),
              script.dialect() == dialect ? "picked" : "unpicked");
      card.setId("target-" + script.dialect().id());
      card.setCursor(javafx.scene.Cursor.HAND);
      card.setFocusTraversable(true);
      card.setAccessibleText(script.dialect().engine());
      Runnable pick = () -> pick(script.dialect());
      card.setOnMouseClicked(event -> pick.run());
      card.setOnKeyPressed(
          event -> {
            if (event.getCode() == javafx.scene.input.KeyCode.SPACE
                || event.getCode() == javafx.scene.input.KeyCode.ENTER) {
              pick.run();
            }
          });
      targets.getChildren().add(card);
    }
    targets.getChildren().addAll(Parts.label(texts.get("rows"), "heading"), rows);
  }

  private void pick(Dialect picked) {
    dialect = picked;
    section = Optional.empty();
    show();
  }

  private void showSections(SchemaScript script) {
    var group = new ToggleGroup();
    sections.getChildren().setAll(sectionButton(texts.get("section.all"), Optional.empty(), group));
    for (Statement.Section one : Statement.Section.values()) {
      if (!script.section(one).isEmpty()) {
        sections.getChildren().add(sectionButton(one.title(), Optional.of(one), group));
      }
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
          showScript(scripts.get(dialect));
        });
    return button;
  }

  private void showScript(SchemaScript script) {
    sql.show(
        section
            .map(one -> SchemaScript.text(script.section(one)).stripLeading())
            .orElseGet(() -> script.text(bench.design().title())));
  }

  private void showActions() {
    var nodes = new ArrayList<Node>();
    if (bench.design().tables().isEmpty()) {
      actions.getChildren().setAll(Parts.label(texts.get("empty"), "muted"));
      return;
    }
    long errors =
        bench.verdict().findings().stream().filter(f -> f.severity() == Severity.ERROR).count();
    boolean embedded = dialect != Dialects.POSTGRESQL;
    if (errors > 0) {
      nodes.add(Parts.label(texts.get("errors", errors), "brick"));
    } else if (embedded) {
      var ship = Parts.button(texts.get("ship", dialect.engine()), this::chooseAndShip, "main");
      ship.setId("ship");
      nodes.add(ship);
    }
    nodes.add(Parts.button(texts.get("save"), this::saveScript));
    if (!embedded) {
      nodes.add(Parts.label(texts.get("target.postgresql"), "muted", "small"));
    }
    actions.getChildren().setAll(nodes);
  }

  private void chooseAndShip() {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("file.title"));
    chooser.setInitialFileName(
        bench.design().name() + (dialect == Dialects.SQLITE ? ".sqlite" : ""));
    Optional.ofNullable(chooser.showSaveDialog(main.getScene().getWindow()))
        .map(File::toPath)
        .ifPresent(this::ship);
  }

  /** Ships the design into a database file of the engine shown. */
  public void ship(Path file) {
    String url = (dialect == Dialects.SQLITE ? "jdbc:sqlite:" : "jdbc:h2:") + file.toAbsolutePath();
    var task =
        new ShipTask(
            bench.draft(), Target.of(url), rows.getValue(), doing -> texts.get("shipping", doing));
    var bar = new ProgressBar();
    bar.progressProperty().bind(task.progressProperty());
    var doing = Parts.label("", "muted");
    doing.textProperty().bind(task.messageProperty());
    actions.getChildren().setAll(bar, doing, Parts.button(texts.get("cancel"), task::cancel));
    task.setOnSucceeded(
        event -> {
          showActions();
          showResult(task.getValue(), file);
        });
    task.setOnFailed(
        event -> {
          showActions();
          showRefusal(task.getException());
        });
    task.setOnCancelled(event -> showActions());
    background.start(task);
  }

  private void showBefore(SchemaScript script) {
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

  private void showResult(Shipment shipment, Path file) {
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

  private void showRefusal(Throwable refusal) {
    side.getChildren()
        .setAll(
            Parts.prose(texts.get("refused.title"), "title"),
            Parts.card(
                List.of(Parts.prose(texts.get("refused.why", refusal.getMessage()))), "error"));
  }

  private void saveScript() {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("save.title"));
    chooser.setInitialFileName(bench.design().name() + "-" + dialect.id() + ".sql");
    File file = chooser.showSaveDialog(main.getScene().getWindow());
    if (file != null) {
      String text = scripts.get(dialect).text(bench.design().title());
      background.compute(
          () -> Files.writeString(file.toPath(), text),
          saved -> bench.tell(texts.get("saved", saved)),
          failure ->
              bench.tell(
                  texts.get(
                      "save.failed",
                      failure instanceof IOException ? failure.getMessage() : failure.toString())));
    }
  }
}
