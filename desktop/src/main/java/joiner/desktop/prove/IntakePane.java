package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Insets;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.Clipboard;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import joiner.desktop.prove.IntakeModel.Came;
import joiner.desktop.prove.IntakeModel.Told;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenLaidOut;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Workbench;
import joiner.entry.Intake;
import joiner.entry.TakingIn;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.naming.WordList;
import joiner.source.SourceFile;

/** Where rows of a file or a pasted block are taken into a table. */
final class IntakePane {
  private static final int MOST_TOLD = 60;

  private final Workbench bench;
  private final Texts texts;
  private final IntakeModel model;
  private final VBox node = new VBox(10);
  private final Label title = Parts.shortened("", "strong");
  private final Label name = Parts.label("", "muted");
  private final FlowPane columns = new FlowPane(6, 6);
  private final VBox how = new VBox(6);
  private final Button match = Parts.button("", this::pickMatch, "picked");
  private final Button missing = Parts.button("", this::pickMissing, "picked");
  private final Label counts = Parts.prose("", "strong");
  private final Label state = Parts.prose("", "muted");
  private final VBox notes = new VBox(4);
  private final VBox refused = Parts.card(List.of(), "plain-card");
  private final CheckBox partly = new CheckBox();
  private final Button take;
  private final Button open;
  private Optional<Table> into = Optional.empty();

  /**
   * A pane of no table yet.
   *
   * @param close goes back to the form
   */
  IntakePane(Workbench bench, Texts texts, Runnable close) {
    this.bench = bench;
    this.texts = texts;
    this.model = new IntakeModel(bench, texts, this::show);
    this.take = Parts.button("", this::take, "accent");
    this.open = Parts.button(texts.get("intake.open"), this::open);
    Button paste = Parts.button(texts.get("intake.paste"), this::paste);
    Button back = Parts.button(texts.get("intake.close"), close);
    open.setId("intake-open");
    paste.setId("intake-paste");
    back.setId("intake-close");
    take.setId("intake-take");
    match.setId("intake-match");
    missing.setId("intake-missing");
    partly.setId("intake-partly");
    partly.setText(texts.get("intake.partly"));
    partly.setOnAction(event -> model.partly(partly.isSelected()));
    refused.setId("intake-refused");
    refused.setAccessibleText(texts.get("intake.refused"));
    refused.setSpacing(6);
    how.getChildren()
        .setAll(
            Parts.label(texts.get("intake.columns"), "muted"),
            columns,
            new FlowPane(8, 6, said("intake.match"), match, said("intake.missing"), missing));
    var content =
        new VBox(
            10,
            Parts.row(8, title, Parts.spring(), back),
            Parts.row(8, open, paste, name),
            how,
            notes,
            counts,
            state,
            refused);
    content.setPadding(new Insets(0, 10, 0, 0));
    ScrollPane scroll = Parts.scroll(content);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    node.getChildren().setAll(scroll, new FlowPane(8, 6, take, partly));
    node.setId("intake");
  }

  private Label said(String key) {
    Label label = Parts.label(texts.get(key), "muted");
    label.setMinHeight(28);
    return label;
  }

  VBox node() {
    return node;
  }

  void look(boolean visible) {
    model.look(visible);
  }

  /** Takes rows into that table. */
  void into(Table table) {
    into = Optional.of(table);
    model.into(table);
    show();
  }

  /** Puts the keyboard where one begins. */
  void focus() {
    WhenLaidOut.run(node, open::requestFocus);
  }

  private void open() {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("intake.open"));
    chooser
        .getExtensionFilters()
        .add(
            new FileChooser.ExtensionFilter(
                texts.get("intake.tables"),
                SourceFile.ENDINGS.stream().map(ending -> "*." + ending).toList()));
    var file = chooser.showOpenDialog(node.getScene().getWindow());
    if (file != null) {
      model.open(file.toPath());
    }
  }

  private void paste() {
    String block = Clipboard.getSystemClipboard().getString();
    model.paste(block == null ? "" : block);
  }

  private void take() {
    if (model.take()) {
      open.requestFocus();
    }
  }

  private void show() {
    if (into.isEmpty()) {
      return;
    }
    Table table = into.get();
    title.setText(texts.get("intake.title", table.label()));
    Optional<Came> came = model.came();
    Parts.toggle(how, came.isPresent());
    Parts.toggle(partly, came.isPresent());
    name.setText(
        came.map(
                c -> texts.get("intake.came", c.name(), Counts.of(c.cells().rows(), "row", "rows")))
            .orElse(""));
    notes.getChildren().clear();
    came.ifPresent(c -> showHow(table, c));
    Optional<Told> told = model.told();
    showTold(table, came, told);
    int rows =
        told.map(t -> t.intake().planned().added() + t.intake().planned().updated()).orElse(0);
    take.setText(
        texts.get("intake.take", Counts.of(rows, table.noun().singular(), table.noun().plural())));
    take.setDisable(!model.canTake());
    Parts.toggle(take, came.isPresent());
  }

  private void showHow(Table table, Came came) {
    int focused = -1;
    for (int i = 0; i < columns.getChildren().size(); i++) {
      focused = columns.getChildren().get(i).isFocused() ? i : focused;
    }
    columns.getChildren().clear();
    for (int i = 0; i < came.fields().size(); i++) {
      columns.getChildren().add(column(table, came, i));
    }
    if (focused >= 0 && focused < columns.getChildren().size()) {
      columns.getChildren().get(focused).requestFocus();
    }
    match.setText(words(table, came.how().match()));
    missing.setText(texts.get("intake.missing." + came.how().missing()));
    missing.setDisable(came.how().match().isEmpty());
    partly.setSelected(came.how().partly());
    came.problems().stream()
        .limit(3)
        .forEach(problem -> notes.getChildren().add(Parts.prose(problem, "oak")));
  }

  private Button column(Table table, Came came, int place) {
    String heading = came.cells().headers().get(place);
    Optional<FieldId> field = came.fields().get(place);
    String to = field.map(f -> table.field(f).label()).orElse(texts.get("intake.left"));
    Button chip = Parts.button(texts.get("intake.column", heading, to), () -> {}, "chip");
    if (field.isEmpty()) {
      chip.getStyleClass().add("muted");
    }
    chip.setId("intake-column-" + place);
    chip.setOnAction(event -> pickField(chip, place, heading));
    return chip;
  }

  private void pickField(Button chip, int place, String heading) {
    var all = new ArrayList<Offers.Offer<Optional<FieldId>>>();
    all.add(Offers.Offer.of(Optional.empty(), texts.get("intake.left")));
    for (Field field : model.fields()) {
      all.add(Offers.Offer.of(Optional.of(field.id()), field.label()));
    }
    new Picker<Optional<FieldId>>(heading, typed -> Offers.narrowed(all, typed))
        .open(
            chip,
            field -> {
              model.column(place, field);
              columns.getChildren().get(place).requestFocus();
            });
  }

  private String words(Table table, List<FieldId> match) {
    return match.isEmpty() ? texts.get("intake.match.none") : WordList.and(table.labelsOf(match));
  }

  private void pickMatch() {
    into.ifPresent(
        table ->
            new Picker<>(
                    texts.get("intake.match"),
                    Offers.among(model.matches(), fields -> words(table, fields)))
                .open(match, model::match));
  }

  private void pickMissing() {
    new Picker<>(
            texts.get("intake.missing"),
            Offers.among(model.missing(), what -> texts.get("intake.missing." + what)))
        .open(missing, model::missing);
  }

  private void showTold(Table table, Optional<Came> came, Optional<Told> told) {
    refused.getChildren().clear();
    Parts.toggle(refused, false);
    if (told.isEmpty()) {
      counts.setText("");
      state.setText(came.isPresent() ? waiting() : idle());
      return;
    }
    state.setText("");
    Intake intake = told.get().intake();
    TakingIn planned = intake.planned();
    counts.setText(
        texts.get(
            "intake.counts",
            planned.added(),
            planned.updated(),
            planned.unchanged(),
            planned.missing()));
    if (intake.named() > 0) {
      notes
          .getChildren()
          .add(
              Parts.prose(
                  texts.get("intake.named", Counts.of(intake.named(), "cell", "cells")), "muted"));
    }
    List<Intake.Refused> all = intake.refused();
    if (!all.isEmpty()) {
      Parts.toggle(refused, true);
      all.stream()
          .sorted(Comparator.comparing(Intake.Refused::line))
          .limit(MOST_TOLD)
          .forEach(one -> refused.getChildren().add(Parts.prose(words(one))));
      if (all.size() > MOST_TOLD) {
        refused
            .getChildren()
            .add(Parts.prose(texts.get("intake.more", all.size() - MOST_TOLD), "muted"));
      }
      long lines =
          all.stream().mapToInt(Intake.Refused::line).filter(l -> l > 0).distinct().count();
      notes
          .getChildren()
          .add(
              Parts.prose(
                  texts.get(
                      came.orElseThrow().how().partly() ? "intake.without" : "intake.some",
                      Counts.of(lines, "row is", "rows are")),
                  "brick"));
    }
  }

  private String waiting() {
    return model.toldProperty().get() instanceof Answer.Failed<Told> failed
        ? failed.failure().message()
        : texts.get("intake.trying");
  }

  private String idle() {
    return switch (model.readProperty().get()) {
      case Answer.Failed<?> failed -> failed.failure().message();
      default -> texts.get("intake.why");
    };
  }

  private String words(Intake.Refused one) {
    Table of = bench.design().table(one.refusal().table());
    String fields = String.join(", ", of.labelsOf(one.refusal().fields()));
    String where =
        one.line() > 0
            ? texts.get("intake.row", one.line())
            : texts.get("intake.there", of.label(), one.refusal().row());
    return where + " · " + fields + " · " + one.refusal().message();
  }
}
