package joiner.desktop.prove;

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
import joiner.expression.Kind;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.RowId;
import org.kordamp.ikonli.feather.Feather;

/** The face Enter: the rows of a table, one of them as a form with those that refer to it below. */
final class EnterFace implements Face {
  private static final double FIELD = 143;
  private static final double MOST_TITLE = 240;
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
  private final Button before;
  private final Button after;
  private final Label placed = Parts.label("", "muted", "small");
  private final HBox steps;
  private final Button like = Parts.button("", () -> {});
  private final Button delete = Parts.button("", () -> {});
  private final Consumer<Row> ifDeleted;
  private final Label state = Parts.prose("", "brick");
  private final HBox main = new HBox(16);
  private final VBox side = new VBox(8);
  private final WhenSeen seen = new WhenSeen(this::show);
  private final EnterControls controls;
  private final EnterDetails lines;
  private final EnterSide told;
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
    this.told = new EnterSide(bench, texts, model);
    this.controls = new EnterControls(model, texts);
    this.lines = new EnterDetails(bench, texts, model, controls, this::addTo, this::again);
    this.intake = new IntakePane(bench, texts, this::backToForm);
    this.before = Parts.iconButton(Feather.CHEVRON_LEFT, texts.get("enter.before"), () -> step(-1));
    this.after = Parts.iconButton(Feather.CHEVRON_RIGHT, texts.get("enter.after"), () -> step(1));
    this.steps = Parts.row(2, before, placed, after);
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
          } else if (event.isShortcutDown() && event.getCode() == KeyCode.PAGE_UP) {
            step(-1);
            event.consume();
          } else if (event.isShortcutDown() && event.getCode() == KeyCode.PAGE_DOWN) {
            step(1);
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
    button(up, "enter-up", model.trips()::up);
    button(like, "enter-like", "enter.like", model::copy);
    button(delete, "enter-delete", "enter.delete", () -> list.open().ifPresent(ifDeleted));
    form.setId("enter-form");
    title.setMaxWidth(MOST_TITLE);
    var head = new FlowPane(8, 6, up, title, steps, like, delete); // Below one another if need be.
    head.setPrefWrapLength(WRAP);
    content.getChildren().setAll(head, form, details);
    content.setPadding(new Insets(0, 10, 0, 0));
    VBox.setVgrow(scroll, Priority.ALWAYS);
    return scroll;
  }

  private Node deeds() {
    button(save, "enter-save", model::save);
    button(forget, "enter-forget", "enter.forget", model::forget);
    button(unfinished, "enter-unfinished", "enter.unfinished", model::save);
    unfinished.setTooltip(new Tooltip(texts.get("enter.unfinished.why")));
    button(back, "enter-back", model.trips()::back);
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

  /** Shows more or fewer of the same rows below. */
  private void again() {
    built = built.map(b -> new Built(b.design, b.table, b.row, ""));
    show();
  }

  private void backToForm() {
    main.getChildren().setAll(list.node(), right);
  }

  /** Opens the row before or after the open one among those that are found. */
  private void step(int by) {
    model
        .opened()
        .flatMap(row -> model.found().beside(row, by))
        .ifPresent(next -> model.open(Optional.of(next.id())));
  }

  private void showPlace() {
    Optional<RowId> open = model.opened();
    int place = open.map(model.found()::place).orElse(-1);
    int all = model.found().rows().size();
    placed.setText(
        place < 0 ? "" : texts.get("enter.placed", Counts.of(place + 1), Counts.of(all)));
    before.setDisable(place <= 0);
    after.setDisable(place < 0 || place + 1 >= all);
    Parts.toggle(steps, place >= 0);
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
    showPlace();
    side.getChildren().setAll(told.of(table.get(), title.getText()));
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
        controls.of(
            table, part, name, new EnterControls.At("enter", true, model::text, model::type));
    Label wrong =
        controls.refusals(
            () -> model.isUnsaved(model.opened()) ? model.refusals(part.fields()) : List.of(), " ");
    double width = width(part);
    wrong.setMaxWidth(width);
    var box = new VBox(2, called, control, wrong);
    if (part instanceof EnterPart.Own(Field field) && controls.areBoxes(field)) {
      box.setMinWidth(width); // All of them stand side by side.
    } else {
      box.setPrefWidth(width);
    }
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
    Optional<Table> waiting = model.trips().waitingFor();
    back.setText(waiting.map(t -> texts.get("enter.back", t.noun().singular())).orElse(""));
    Parts.toggle(back, waiting.isPresent());
    Optional<String> above = model.trips().above();
    up.setText(above.map(label -> texts.get("enter.up", label)).orElse(""));
    Parts.toggle(up, above.isPresent());
    Parts.toggle(like, model.opened().isPresent());
    Parts.toggle(delete, model.opened().isPresent());
    state.setText(
        !model.canEnter()
            ? texts.get("enter.infile")
            : typed && refused > 0
                ? texts.get("enter.refused", refused)
                : typed && tried.isEmpty() ? texts.get("enter.trying") : "");
  }
}
