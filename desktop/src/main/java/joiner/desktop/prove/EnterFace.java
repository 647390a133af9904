package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import joiner.desktop.prove.EnterFound.Row;
import joiner.desktop.prove.EnterModel.Tried;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Workbench;
import joiner.edit.EnterRows;
import joiner.entry.Refusal;
import joiner.expression.Kind;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.RowId;

/** The face Enter: the rows of a table, one of them as a form with those that refer to it below. */
final class EnterFace implements Face {
  private static final double FIELD = 143;
  private static final double WRAP = 400;
  private static final double MOMENT = 200;
  private static final double DAY = 168;
  private static final double PROSE = 300;
  private static final int SHORT = 100;

  private final Workbench bench;
  private final Texts texts;
  private final EnterModel model;
  private final EnterList list;
  private final IntakePane intake;
  private final VBox right = new VBox(8);
  private final Label title = Parts.shortened("", "strong");
  private final VBox form = new VBox(8);
  private final VBox details = new VBox(12);
  private final VBox content = new VBox(12);
  private final ScrollPane scroll = Parts.scroll(content);
  private final Button save = Parts.button("", () -> {}, "accent");
  private final Button forget = Parts.button("", () -> {});
  private final Button back = Parts.button("", () -> {});
  private final Button unfinished = Parts.button("", () -> {});
  private final Button up = Parts.button("", () -> {});
  private final Button like = Parts.button("", () -> {});
  private final Button delete = Parts.button("", () -> {});
  private final Consumer<Row> ifDeleted;
  private final Label state = Parts.prose("", "brick");
  private final HBox main = new HBox(16);
  private final VBox side = new VBox(8);
  private final WhenSeen seen = new WhenSeen(this::show);
  private final EnterControls controls;
  private final EnterDetails lines;
  private Optional<Built> built = Optional.empty();

  /** What the form was made for; while that is the same its controls stay. */
  private record Built(Design design, Table table, Optional<RowId> row, String below) {}

  /**
   * A form of no table yet.
   *
   * @param ifDeleted goes where it is seen what deleting a row would do
   */
  EnterFace(Workbench bench, Texts texts, Consumer<Row> ifDeleted) {
    this.bench = bench;
    this.texts = texts;
    this.model = new EnterModel(bench, texts);
    this.ifDeleted = ifDeleted;
    this.list = new EnterList(model, texts, this::begin, this::takeIn);
    this.controls = new EnterControls(model, texts);
    this.lines = new EnterDetails(bench, texts, model, controls, this::addTo);
    this.intake = new IntakePane(bench, texts, this::backToForm);
    right.getChildren().setAll(form(), deeds());
    for (VBox half : List.of(right, intake.node())) {
      half.setMinWidth(0);
      half.setPrefWidth(FIELD); // It takes what the list leaves.
      HBox.setHgrow(half, Priority.ALWAYS);
    }
    main.getChildren().setAll(list.node(), right);
    main.widthProperty().subscribe(width -> fitList());
    main.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.isShortcutDown() && event.getCode() == KeyCode.ENTER && !save.isDisabled()) {
            model.save();
            event.consume();
          }
        });
    bench.historyProperty().subscribe(value -> seen.changed());
    bench.selectionProperty().subscribe(value -> seen.changed());
    model.found().listedProperty().subscribe(value -> seen.changed());
    model.triedProperty().subscribe(value -> seen.changed());
    model.whenReturned(seen::changed);
  }

  /** A button with what it is found by. */
  private void button(Button button, String id, Runnable action) {
    button.setId(id);
    button.setOnAction(event -> action.run());
  }

  private void button(Button button, String id, String words, Runnable action) {
    button(button, id, action);
    button.setText(texts.get(words));
  }

  private Node form() {
    button(up, "enter-up", model::up);
    button(like, "enter-like", "enter.like", model::copy);
    button(delete, "enter-delete", "enter.delete", () -> list.open().ifPresent(ifDeleted));
    form.setId("enter-form");
    content
        .getChildren()
        .setAll(Parts.row(8, up, title, Parts.spring(), like, delete), form, details);
    content.setPadding(new Insets(0, 10, 0, 0));
    VBox.setVgrow(scroll, Priority.ALWAYS);
    return scroll;
  }

  private Node deeds() {
    button(save, "enter-save", model::save);
    button(forget, "enter-forget", "enter.forget", model::forget);
    button(unfinished, "enter-unfinished", "enter.unfinished", model::save);
    unfinished.setTooltip(new Tooltip(texts.get("enter.unfinished.why")));
    button(back, "enter-back", model::back);
    return new FlowPane(8, 6, save, unfinished, forget, back, state);
  }

  @Override
  public Node main() {
    return main;
  }

  @Override
  public Node side() {
    return side;
  }

  @Override
  public void look(boolean visible) {
    model.look(visible);
    intake.look(visible);
    seen.look(visible);
  }

  private void fitList() {
    double width = list.width(main.getWidth());
    ((Region) list.node()).setMaxWidth(width);
    ((Region) list.node()).setPrefWidth(width);
  }

  /** Opens a row of the table that is chosen. */
  void open(RowId row) {
    model.refresh();
    list.forget();
    model.open(Optional.of(row));
    seen.changed();
  }

  private boolean isTaking() {
    return main.getChildren().contains(intake.node());
  }

  /** Takes rows of a file or a block into the table, where the form is else. */
  void takeIn() {
    if (model.table().isPresent() && model.canEnter()) {
      main.getChildren().setAll(list.node(), intake.node());
      intake.into(model.table().get());
      intake.focus();
    }
  }

  private void backToForm() {
    main.getChildren().setAll(list.node(), right);
  }

  /** Begins anew. */
  void begin() {
    backToForm();
    model.open(Optional.empty());
    show();
    form.lookupAll(".text-field").stream().findFirst().ifPresent(Node::requestFocus);
  }

  private void show() {
    model.refresh();
    Optional<Table> table = model.table();
    main.setDisable(table.isEmpty());
    if (table.isEmpty()) {
      side.getChildren().setAll(Parts.prose(texts.get("enter.notables"), "muted"));
      return;
    }
    list.show(table.get());
    fitList();
    if (isTaking()) {
      if (model.canEnter()) {
        intake.into(table.get());
      } else {
        backToForm();
      }
    }
    Optional<RowId> row = model.opened();
    String below =
        model.below().all().stream()
            .map(r -> r.id().value() + model.below().rows(r).size())
            .toList()
            .toString();
    var now = new Built(bench.design(), table.get(), row, below);
    if (!built.equals(Optional.of(now))) {
      boolean same =
          built.filter(b -> b.table.equals(now.table) && b.row.equals(now.row)).isPresent();
      if (!same && row.isPresent() && built.filter(b -> b.table.equals(now.table)).isPresent()) {
        backToForm(); // Whoever opens a row wants to see it.
      }
      built = Optional.of(now);
      buildForm(table.get(), same);
    }
    controls.show();
    showState(table.get());
    showSide(table.get());
  }

  /** Controls of another row, or of more or fewer rows below; whoever types there types on. */
  private void buildForm(Table table, boolean same) {
    String focused =
        same && content.getScene() != null && content.getScene().getFocusOwner() != null
            ? String.valueOf(content.getScene().getFocusOwner().getId())
            : "";
    controls.clear();
    form.getChildren().clear();
    Map<Optional<FieldGroup>, FlowPane> groups = new LinkedHashMap<>();
    for (EnterPart part : model.parts(table)) {
      groups
          .computeIfAbsent(table.groupOf(part.fields().getLast()), this::group)
          .getChildren()
          .add(labelled(table, part));
    }
    details.getChildren().clear();
    for (Relationship over : model.below().all()) {
      details.getChildren().add(lines.of(over));
    }
    if (!focused.isEmpty()) {
      Optional.ofNullable(content.lookup("#" + focused)).ifPresent(Node::requestFocus);
    }
  }

  /** Fields that belong together stand below their name. */
  private FlowPane group(Optional<FieldGroup> of) {
    of.ifPresent(group -> form.getChildren().add(Parts.label(group.label(), "heading")));
    var fields = new FlowPane(14, 8);
    fields.setPrefWrapLength(WRAP);
    form.getChildren().add(fields);
    return fields;
  }

  private Node labelled(Table table, EnterPart part) {
    boolean required = part.fields().stream().allMatch(table::isRequired);
    String name = part.label(table);
    Label called = Parts.label(name + (required ? " •" : ""), "muted", "small");
    Node control =
        controls.of(table, part, name, new EnterControls.At("enter", model::text, model::type));
    Label wrong =
        controls.refusals(
            () -> model.isUnsaved(model.opened()) ? model.refusals(part.fields()) : List.of(), " ");
    double width = width(part);
    wrong.setMaxWidth(width);
    var box = new VBox(2, called, control, wrong);
    box.setPrefWidth(width);
    return box;
  }

  /** As wide as what it holds usually is. */
  private static double width(EnterPart part) {
    if (!(part instanceof EnterPart.Own(Field field))) {
      return FIELD;
    }
    boolean moment = field.type().kind().isDayWithTime();
    boolean prose =
        field.type().kind() == Kind.TEXT
            && !(field.type() instanceof FieldType.Choice)
            && field.type().length().orElse(Integer.MAX_VALUE) > SHORT;
    boolean day = field.type().kind() == Kind.DATE;
    return moment ? MOMENT : prose ? PROSE : day ? DAY : FIELD;
  }

  private void addTo(Relationship over) {
    model.below().add(over);
    show();
    int last = model.below().rows(over).size() - 1;
    content.lookupAll("." + EnterDetails.style(over, last)).stream()
        .findFirst()
        .ifPresent(Node::requestFocus);
  }

  private void showState(Table table) {
    boolean typed = model.isUnsaved(model.opened());
    Optional<Tried> tried = model.tried();
    int refused = model.refusals().size();
    int below = model.entered().details().values().stream().mapToInt(List::size).sum();
    title.setText(
        model.opened().isEmpty()
            ? texts.get("enter.title.new", table.noun().singular())
            : list.open().map(Row::label).orElse(table.label()));
    save.setText(
        below == 0
            ? texts.get("enter.save", table.noun().singular())
            : texts.get(
                "enter.save.with", table.noun().singular(), Counts.of(below, "row", "rows")));
    save.setDisable(!typed || tried.isEmpty() || refused > 0 || !model.canEnter());
    boolean unmet = typed && tried.isPresent() && refused > 0 && model.canEnter();
    Parts.toggle(unfinished, unmet);
    forget.setDisable(!typed);
    Optional<Table> waiting = model.waitingFor();
    back.setText(waiting.map(t -> texts.get("enter.back", t.noun().singular())).orElse(""));
    Parts.toggle(back, waiting.isPresent());
    Optional<String> above = model.above();
    up.setText(above.map(label -> texts.get("enter.up", label)).orElse(""));
    Parts.toggle(up, above.isPresent());
    like.setVisible(model.opened().isPresent());
    delete.setVisible(model.opened().isPresent());
    state.setText(
        !model.canEnter()
            ? texts.get("enter.infile")
            : typed && refused > 0
                ? texts.get("enter.refused", refused)
                : typed && tried.isEmpty() ? texts.get("enter.trying") : "");
  }

  private void showSide(Table table) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(title.getText(), "title"));
    boolean typed = model.isUnsaved(model.opened());
    nodes.add(
        Parts.label(
            texts.get(
                typed
                    ? "enter.side.unsaved"
                    : model.opened().isEmpty() ? "enter.side.new" : "enter.side.saved"),
            "muted"));
    if (typed) {
      same(nodes);
      refusals(nodes);
    }
    model.tried().ifPresent(tried -> filledIn(table, tried, nodes));
    if (typed) {
      model.tried().ifPresent(tried -> sends(tried, nodes));
    }
    side.getChildren().setAll(nodes);
  }

  private void refusals(List<Node> nodes) {
    List<Refusal> all = model.refusals();
    if (all.isEmpty()) {
      return;
    }
    nodes.add(Parts.label(texts.get("enter.side.refused"), "heading"));
    for (Refusal refusal : all) {
      Table of = bench.design().table(refusal.table());
      String where = of.label() + ": " + String.join(", ", of.labelsOf(refusal.fields()));
      nodes.add(
          Parts.card(
              List.of(Parts.prose(where, "strong"), Parts.prose(refusal.message())), "brick-card"));
    }
  }

  /** A row that is there under the same key or name, and what can be done about it. */
  private void same(List<Node> nodes) {
    Optional<RowId> byKey = model.same().existing();
    Optional<RowId> there = byKey.or(model.same()::alike);
    if (there.isEmpty()) {
      return;
    }
    RowId row = there.get();
    nodes.add(Parts.label(texts.get("enter.existing"), "heading"));
    var parts = new ArrayList<Node>();
    parts.add(Parts.prose(model.same().label(row), "strong"));
    for (EnterSame.Difference one : model.same().differences(row)) {
      parts.add(
          Parts.prose(
              texts.get(
                  "enter.existing.differs",
                  one.field().label(),
                  orNothing(one.there()),
                  orNothing(one.typed())),
              "small"));
    }
    if (byKey.isEmpty()) {
      parts.add(Parts.prose(texts.get("enter.existing.both"), "muted", "small"));
    }
    nodes.add(Parts.card(parts, "oak-card"));
    nodes.add(Parts.button(texts.get("enter.existing.open"), () -> model.open(Optional.of(row))));
    nodes.add(Parts.button(texts.get("enter.existing.overwrite"), () -> model.overwrite(row)));
  }

  private String orNothing(String text) {
    return text.isBlank() ? texts.get("list.without") : text;
  }

  private void filledIn(Table table, Tried tried, List<Node> nodes) {
    List<Field> given = table.fields().stream().filter(f -> !EnterPart.isTyped(f)).toList();
    if (given.isEmpty()) {
      return;
    }
    nodes.add(Parts.label(texts.get("enter.side.given"), "heading"));
    for (Field field : given) {
      String text = tried.shown().getOrDefault(field.id(), "–");
      nodes.add(Parts.fact(field.label(), text.length() > 28 ? text.substring(0, 27) + "…" : text));
    }
  }

  /** What one save sends to a database. */
  private void sends(Tried tried, List<Node> nodes) {
    nodes.add(Parts.label(texts.get("enter.side.sends"), "heading"));
    Map<String, Integer> statements = new LinkedHashMap<>();
    for (EnterRows.One one : tried.trial().edit().rows()) {
      String name = bench.design().table(one.table()).name();
      statements.merge((one.row().isEmpty() ? "INSERT INTO " : "UPDATE ") + name, 1, Integer::sum);
    }
    var lines = new ArrayList<Node>();
    statements.forEach(
        (statement, times) ->
            lines.add(
                Parts.label(
                    statement + " …" + (times > 1 ? "  " + Counts.of(times) + " rows" : ""),
                    "mono")));
    lines.add(Parts.label("COMMIT", "mono"));
    nodes.add(Parts.card(lines));
  }
}
