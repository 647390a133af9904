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
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import joiner.desktop.prove.EnterModel.Part;
import joiner.desktop.prove.EnterModel.Row;
import joiner.desktop.prove.EnterModel.Tried;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Workbench;
import joiner.edit.EnterRows;
import joiner.entry.Entered;
import joiner.entry.Refusal;
import joiner.expression.Kind;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.RowId;

/** The face Enter: the rows of a table, one of them as a form with those that refer to it below. */
final class EnterFace implements Face {
  private static final double FIELD = 143;
  private static final double LIST = 132;
  private static final double MOST_LIST = 210;
  private static final double LIST_SHARE = 0.28;
  private static final double WRAP = 400;
  private static final double MOMENT = 168;
  private static final double PROSE = 300;
  private static final int SHORT = 100;
  private static final double BELOW = 120;
  private static final double LEAST_BELOW = 84;
  private static final int MOST_BELOW = 30;
  private static final int MOST_COLUMNS = 5;

  private final Workbench bench;
  private final Texts texts;
  private final EnterModel model;
  private final TextField filter = new TextField();
  private final ListView<Row> list = new ListView<>();
  private final Label count = Parts.label("", "muted", "small");
  private final Label title = Parts.shortened("", "strong");
  private final VBox form = new VBox(8);
  private final VBox details = new VBox(12);
  private final VBox content = new VBox(12);
  private final ScrollPane scroll = Parts.scroll(content);
  private final Button save = Parts.button("", () -> {}, "accent");
  private final Button forget = Parts.button("", () -> {});
  private final Button all = Parts.button("", () -> {});
  private final TextField value = new TextField();
  private final Button back = Parts.button("", () -> {});
  private final Button unfinished = Parts.button("", () -> {});
  private final Button fresh = Parts.button("", () -> {});
  private final Button like = Parts.button("", () -> {});
  private final Button delete = Parts.button("", () -> {});
  private final Consumer<Row> ifDeleted;
  private final Label state = Parts.prose("", "brick");
  private final HBox main = new HBox(16);
  private final VBox side = new VBox(8);
  private final WhenSeen seen = new WhenSeen(this::show);
  private final List<Cell> cells = new ArrayList<>();
  private Optional<Built> built = Optional.empty();
  private List<Row> rowsShown = List.of();
  private boolean filling;

  /** What the form was made for; while that is the same its controls stay. */
  private record Built(Design design, Table table, Optional<RowId> row, String below) {}

  /**
   * A control of the form with what it shows.
   *
   * @param show shows what there is now
   */
  private record Cell(Runnable show) {}

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
    build();
    bench.historyProperty().subscribe(value -> seen.changed());
    bench.selectionProperty().subscribe(value -> seen.changed());
    model.listedProperty().subscribe(value -> seen.changed());
    model.triedProperty().subscribe(value -> seen.changed());
  }

  private void build() {
    filter.setId("enter-filter");
    filter.setPromptText(texts.get("enter.filter"));
    filter.setAccessibleText(texts.get("enter.filter"));
    filter.textProperty().subscribe(text -> seen.changed());
    filter.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            filter.clear();
            event.consume();
          } else if (event.getCode() == KeyCode.DOWN) {
            list.requestFocus();
            event.consume();
          }
        });
    list.setId("enter-rows");
    list.setAccessibleText(texts.get("enter.rows"));
    list.setFixedCellSize(28);
    list.setCellFactory(view -> new RowCell());
    list.getSelectionModel()
        .selectedItemProperty()
        .subscribe(
            row -> {
              if (!filling && row != null) {
                model.open(Optional.of(row.id()));
              }
            });
    VBox.setVgrow(list, Priority.ALWAYS);
    fresh.setMinWidth(0);
    fresh.setMaxWidth(Double.MAX_VALUE);
    fresh.setId("enter-new");
    fresh.setOnAction(event -> begin());
    all.setId("enter-all");
    all.setText(texts.get("enter.all"));
    all.setMinWidth(0);
    all.setMaxWidth(Double.MAX_VALUE);
    all.setOnAction(
        event ->
            new Picker<>(
                    texts.get("enter.all.field"), Offers.among(model.changeable(), Field::label))
                .open(all, this::askForAll));
    value.setId("enter-all-value");
    value.setVisible(false);
    value.setManaged(false);
    var left = new VBox(6, fresh, filter, list, count, all, value);
    left.setMinWidth(LIST);
    left.setMaxWidth(MOST_LIST);
    left.prefWidthProperty().bind(main.widthProperty().multiply(LIST_SHARE));
    save.setId("enter-save");
    save.setOnAction(event -> model.save());
    forget.setId("enter-forget");
    forget.setText(texts.get("enter.forget"));
    forget.setOnAction(event -> model.forget());
    unfinished.setId("enter-unfinished");
    unfinished.setText(texts.get("enter.unfinished"));
    unfinished.setTooltip(new Tooltip(texts.get("enter.unfinished.why")));
    unfinished.setOnAction(event -> model.save());
    back.setId("enter-back");
    back.setOnAction(event -> model.back());
    like.setId("enter-like");
    like.setText(texts.get("enter.like"));
    like.setOnAction(event -> model.copy());
    delete.setId("enter-delete");
    delete.setText(texts.get("enter.delete"));
    delete.setOnAction(event -> openRow().ifPresent(ifDeleted));
    form.setId("enter-form");
    content.getChildren().setAll(Parts.row(8, title, Parts.spring(), like, delete), form, details);
    content.setPadding(new Insets(0, 10, 0, 0));
    VBox.setVgrow(scroll, Priority.ALWAYS);
    var deeds = new FlowPane(8, 6, save, unfinished, forget, back, state);
    var right = new VBox(8, scroll, deeds);
    right.setMinWidth(0);
    right.setPrefWidth(LIST); // It takes what the list leaves.
    HBox.setHgrow(right, Priority.ALWAYS);
    main.getChildren().setAll(left, right);
    main.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.isShortcutDown() && event.getCode() == KeyCode.ENTER && !save.isDisabled()) {
            model.save();
            event.consume();
          }
        });
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
    seen.look(visible);
  }

  @Override
  public List<Command> commands() {
    return model.table().stream()
        .map(table -> Command.of(texts.get("enter.new.of", table.noun().singular()), this::begin))
        .toList();
  }

  /** Opens a row of the table that is chosen. */
  void open(RowId row) {
    filter.clear();
    model.refresh();
    model.open(Optional.of(row));
    seen.changed();
  }

  /** Asks what all rows that were found are to hold. */
  private void askForAll(Field field) {
    List<Row> rows = List.copyOf(list.getItems());
    String prompt = texts.get("enter.all.value", field.label(), Counts.of(rows.size()));
    value.setPromptText(prompt);
    value.setAccessibleText(prompt);
    value.clear();
    value.setOnAction(
        event -> {
          closeAll();
          model.changeAll(rows, field, value.getText());
        });
    value.setOnKeyPressed(
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            closeAll();
            event.consume();
          }
        });
    value.setVisible(true);
    value.setManaged(true);
    value.requestFocus();
  }

  private void closeAll() {
    all.requestFocus();
    value.setVisible(false);
    value.setManaged(false);
  }

  private Optional<Row> openRow() {
    return list.getItems().stream()
        .filter(row -> model.opened().equals(Optional.of(row.id())))
        .findFirst();
  }

  private void begin() {
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
    showList(table.get());
    Optional<RowId> row = model.opened();
    String below =
        model.details().stream()
            .map(r -> r.id().value() + model.below(r).size())
            .toList()
            .toString();
    var now = new Built(bench.design(), table.get(), row, below);
    if (!built.equals(Optional.of(now))) {
      boolean same =
          built.filter(b -> b.table.equals(now.table) && b.row.equals(now.row)).isPresent();
      built = Optional.of(now);
      buildForm(table.get(), same);
    }
    cells.forEach(cell -> cell.show.run());
    showState(table.get());
    showSide(table.get());
  }

  private void showList(Table table) {
    filling = true;
    fresh.setText(texts.get("enter.new.of", table.noun().singular()));
    List<Row> rows = model.rows(filter.getText());
    if (rows != rowsShown) {
      rowsShown = rows;
      list.getItems().setAll(rows);
    }
    Optional<Row> open =
        rows.stream().filter(row -> model.opened().equals(Optional.of(row.id()))).findFirst();
    if (open.isPresent()) {
      list.getSelectionModel().select(open.get());
    } else {
      list.getSelectionModel().clearSelection();
    }
    list.refresh();
    all.setDisable(rows.isEmpty() || !model.canEnter());
    filling = false;
    count.setText(
        texts.get(
            "enter.count",
            rows.size(),
            Counts.of(model.count(), table.noun().singular(), table.noun().plural())));
  }

  /** Controls of another row, or of more or fewer rows below; whoever types there types on. */
  private void buildForm(Table table, boolean same) {
    String focused =
        same && content.getScene() != null && content.getScene().getFocusOwner() != null
            ? String.valueOf(content.getScene().getFocusOwner().getId())
            : "";
    cells.clear();
    form.getChildren().clear();
    Map<Optional<FieldGroup>, FlowPane> groups = new LinkedHashMap<>();
    for (Part part : model.parts(table)) {
      groups
          .computeIfAbsent(table.groupOf(part.fields().getLast()), this::group)
          .getChildren()
          .add(labelled(table, part));
    }
    details.getChildren().clear();
    for (Relationship over : model.details()) {
      details.getChildren().add(below(over));
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

  private Node labelled(Table table, Part part) {
    boolean required = part.fields().stream().allMatch(table::isRequired);
    String name =
        switch (part) {
          case Part.Own own -> own.field().label();
          case Part.To to when to.fields().size() == 1 ->
              table.field(to.fields().getFirst()).label();
          case Part.To to -> to.parent().label();
        };
    Label called = Parts.label(name + (required ? " •" : ""), "muted", "small");
    Node control = control(table, part, name, model::text, model::type, "enter");
    Label wrong = Parts.prose("", "brick", "small");
    double width = width(part);
    wrong.setMaxWidth(width);
    cells.add(
        new Cell(
            () -> {
              List<String> refusals =
                  model.isUnsaved(model.opened()) ? model.refusals(part.fields()) : List.of();
              wrong.setText(String.join(" ", refusals));
              wrong.setVisible(!refusals.isEmpty());
              wrong.setManaged(!refusals.isEmpty());
            }));
    var box = new VBox(2, called, control, wrong);
    box.setPrefWidth(width);
    return box;
  }

  /** As wide as what it holds usually is. */
  private static double width(Part part) {
    if (!(part instanceof Part.Own(Field field))) {
      return FIELD;
    }
    boolean moment = field.type().kind() == Kind.DATE_TIME || field.type().kind() == Kind.ZONED;
    boolean prose =
        field.type().kind() == Kind.TEXT
            && !(field.type() instanceof FieldType.Choice)
            && field.type().length().orElse(Integer.MAX_VALUE) > SHORT;
    return moment ? MOMENT : prose ? PROSE : FIELD;
  }

  private interface Text {
    String of(FieldId field);
  }

  /** What a part is entered by. */
  private Node control(
      Table table,
      Part part,
      String name,
      Text text,
      Consumer<Map<FieldId, String>> type,
      String id) {
    String own = id + "-" + part.fields().getLast().value();
    return switch (part) {
      case Part.To(Relationship over, Table parent) ->
          reference(table, over, name, text, type, own);
      case Part.Own(Field field) when !EnterModel.isTyped(field) -> given(field, name, text);
      case Part.Own(Field field) when field.type() instanceof FieldType.Choice choice ->
          choices(field, choiceTexts(choice), name, text, type, own);
      case Part.Own(Field field) when field.type().kind() == Kind.BOOLEAN ->
          choices(field, List.of("true", "false"), name, text, type, own);
      case Part.Own(Field field) -> typed(field, name, text, type, own);
    };
  }

  private static List<String> choiceTexts(FieldType.Choice choice) {
    return choice.entries().stream()
        .filter(entry -> !entry.retired())
        .map(FieldType.Choice.Entry::text)
        .toList();
  }

  private Node typed(
      Field field, String name, Text text, Consumer<Map<FieldId, String>> type, String id) {
    var control = new TextField();
    control.setId(id);
    control.setAccessibleText(name);
    control.setPromptText(prompt(field));
    boolean[] showing = {false};
    control
        .textProperty()
        .subscribe(
            (was, is) -> {
              if (!showing[0]) {
                type.accept(Map.of(field.id(), is));
              }
            });
    cells.add(
        new Cell(
            () -> {
              String now = text.of(field.id());
              if (!control.getText().equals(now)) {
                showing[0] = true;
                control.setText(now);
                showing[0] = false;
              }
            }));
    return control;
  }

  private String prompt(Field field) {
    return switch (field.type().kind()) {
      case DATE -> texts.get("enter.prompt.date");
      case DATE_TIME -> texts.get("enter.prompt.moment");
      case TIME -> texts.get("enter.prompt.time");
      default -> field.unit();
    };
  }

  /** What nobody types shows what it becomes. */
  private Node given(Field field, String name, Text text) {
    var shown = new TextField();
    shown.setEditable(false);
    shown.setFocusTraversable(false);
    shown.getStyleClass().add("given");
    shown.setAccessibleText(name);
    cells.add(
        new Cell(
            () ->
                shown.setText(
                    model
                        .tried()
                        .map(t -> t.shown().getOrDefault(field.id(), ""))
                        .orElse(text.of(field.id())))));
    return shown;
  }

  private Button picked(String name, String id) {
    Button button = Parts.button("", () -> {}, "picked");
    button.setId(id);
    button.setMinWidth(0);
    button.setMaxWidth(Double.MAX_VALUE);
    button.setAccessibleText(name);
    return button;
  }

  private Node choices(
      Field field,
      List<String> choices,
      String name,
      Text text,
      Consumer<Map<FieldId, String>> type,
      String id) {
    Button button = picked(name, id);
    button.setOnAction(
        event -> {
          var all = new ArrayList<>(choices);
          all.addFirst("");
          new Picker<>(name, Offers.among(all, this::choice))
              .at(Optional.of(text.of(field.id())))
              .open(
                  button,
                  picked -> {
                    type.accept(Map.of(field.id(), picked));
                    button.requestFocus();
                  });
        });
    cells.add(new Cell(() -> button.setText(choice(text.of(field.id())))));
    return button;
  }

  private String choice(String text) {
    return switch (text) {
      case "" -> texts.get("enter.none");
      case "true" -> texts.get("enter.yes");
      case "false" -> texts.get("enter.no");
      default -> text;
    };
  }

  private Node reference(
      Table table,
      Relationship over,
      String name,
      Text text,
      Consumer<Map<FieldId, String>> type,
      String id) {
    Button button = picked(name, id);
    boolean optional = !over.childFields().stream().allMatch(table::isRequired);
    Consumer<String> pick =
        begun ->
            new Picker<>(name, model.offers(over, optional))
                .begunWith(begun)
                .open(
                    button,
                    picked -> {
                      model.pick(over, picked, type::accept);
                      button.requestFocus();
                    });
    button.setOnAction(event -> pick.accept(""));
    button.addEventHandler(
        KeyEvent.KEY_TYPED,
        event -> { // A letter begins to look for a row.
          String letter = event.getCharacter();
          if (!letter.isBlank()
              && !event.isControlDown()
              && !event.isAltDown()
              && Character.isLetterOrDigit(letter.charAt(0))) {
            pick.accept(letter);
            event.consume();
          }
        });
    cells.add(
        new Cell(
            () -> {
              String label = model.label(over, over.childFields().stream().map(text::of).toList());
              button.setText(label.isEmpty() ? texts.get("enter.none") : label);
            }));
    return button;
  }

  /** The rows that refer to the open one, as lines of controls. */
  private Node below(Relationship over) {
    Table child = bench.design().table(over.child());
    List<Entered> rows = model.below(over);
    Button add = Parts.button(texts.get("enter.add", child.noun().indefinite()), () -> addTo(over));
    add.setId("add-" + over.name());
    String counted = Counts.of(rows.size(), child.noun().singular(), child.noun().plural());
    boolean several =
        model.details().stream().filter(r -> r.child().equals(over.child())).count() > 1;
    Label heading =
        Parts.label(
            several
                ? texts.get(
                    "enter.below.as",
                    counted,
                    String.join(", ", child.labelsOf(over.childFields())))
                : counted,
            "strong");
    var box = new VBox(6, Parts.row(8, heading, Parts.spring(), add));
    List<Part> parts =
        model.parts(child).stream()
            .filter(part -> part.fields().stream().noneMatch(over.childFields()::contains))
            .filter(part -> !(part instanceof Part.Own own) || EnterModel.isTyped(own.field()))
            .limit(MOST_COLUMNS)
            .toList();
    if (!rows.isEmpty() && !parts.isEmpty()) {
      box.getChildren().add(sideways(grid(over, child, rows, parts)));
    }
    Label wrong = Parts.prose("", "brick", "small");
    cells.add(
        new Cell(
            () -> {
              List<String> refusals = model.refusals(over);
              wrong.setText(String.join("\n", refusals));
              wrong.setVisible(!refusals.isEmpty());
              wrong.setManaged(!refusals.isEmpty());
            }));
    box.getChildren().add(wrong);
    if (rows.size() > MOST_BELOW) {
      box.getChildren()
          .add(
              Parts.label(
                  texts.get("enter.more", rows.size() - MOST_BELOW, child.label()), "muted"));
    }
    return box;
  }

  private void addTo(Relationship over) {
    model.add(over);
    show();
    int last = model.below(over).size() - 1;
    content.lookupAll(".below-" + over.id().value() + "-" + last).stream()
        .findFirst()
        .ifPresent(Node::requestFocus);
  }

  /** What is wider than there is room scrolls by itself. */
  private static Node sideways(Node wide) {
    var scroll = new ScrollPane(wide);
    scroll.setVbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    scroll.setFitToWidth(true);
    scroll.setMinWidth(0);
    scroll.setMinHeight(Region.USE_PREF_SIZE);
    return scroll;
  }

  private Node grid(Relationship over, Table child, List<Entered> rows, List<Part> parts) {
    var grid = new GridPane(6, 4);
    grid.setPadding(new Insets(0, 0, 10, 0)); // Room for a bar below.
    for (int column = 0; column < parts.size(); column++) {
      Part part = parts.get(column);
      String name =
          part instanceof Part.To to && to.fields().size() > 1
              ? to.parent().label()
              : child.field(part.fields().getLast()).label();
      grid.add(Parts.label(name, "muted", "small"), column, 0);
    }
    int shown = Math.min(rows.size(), MOST_BELOW);
    int first = rows.size() - shown;
    for (int i = first; i < rows.size(); i++) {
      int place = i;
      for (int column = 0; column < parts.size(); column++) {
        Part part = parts.get(column);
        Node control =
            control(
                child,
                part,
                child.field(part.fields().getLast()).label(),
                field -> below(over, place, field),
                typed -> model.type(over, place, typed),
                "below-" + over.name() + "-" + place);
        ((Region) control).setPrefWidth(BELOW);
        ((Region) control).setMinWidth(LEAST_BELOW);
        control.getStyleClass().add("below-" + over.id().value() + "-" + place);
        grid.add(control, column, i - first + 1);
      }
      if (rows.get(i).row().isEmpty()) {
        Button remove = Parts.button("×", () -> model.remove(over, place), "plain");
        remove.setAccessibleText(texts.get("enter.remove", child.noun().singular()));
        grid.add(remove, parts.size(), i - first + 1);
      }
    }
    return grid;
  }

  private String below(Relationship over, int place, FieldId field) {
    List<Entered> rows = model.below(over);
    return place < rows.size() ? model.text(rows.get(place), field) : "";
  }

  private void showState(Table table) {
    boolean typed = model.isUnsaved(model.opened());
    Optional<Tried> tried = model.tried();
    int refused = model.refusals().size();
    int below = model.entered().details().values().stream().mapToInt(List::size).sum();
    title.setText(
        model.opened().isEmpty()
            ? texts.get("enter.title.new", table.noun().singular())
            : openRow().map(Row::label).orElse(table.label()));
    save.setText(
        below == 0
            ? texts.get("enter.save", table.noun().singular())
            : texts.get(
                "enter.save.with", table.noun().singular(), Counts.of(below, "row", "rows")));
    save.setDisable(!typed || tried.isEmpty() || refused > 0 || !model.canEnter());
    boolean unmet = typed && tried.isPresent() && refused > 0 && model.canEnter();
    unfinished.setVisible(unmet);
    unfinished.setManaged(unmet);
    forget.setDisable(!typed);
    Optional<Table> waiting = model.waitingFor();
    back.setText(waiting.map(t -> texts.get("enter.back", t.noun().singular())).orElse(""));
    back.setVisible(waiting.isPresent());
    back.setManaged(waiting.isPresent());
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
    model
        .existing()
        .ifPresent(
            row -> {
              nodes.add(
                  Parts.button(
                      texts.get("enter.existing.open"), () -> model.open(Optional.of(row))));
              nodes.add(
                  Parts.button(texts.get("enter.existing.overwrite"), () -> model.overwrite(row)));
            });
  }

  private void filledIn(Table table, Tried tried, List<Node> nodes) {
    List<Field> given = table.fields().stream().filter(f -> !EnterModel.isTyped(f)).toList();
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

  private final class RowCell extends ListCell<Row> {
    @Override
    protected void updateItem(Row row, boolean empty) {
      super.updateItem(row, empty);
      setText(
          empty || row == null
              ? null
              : row.label() + (model.isUnsaved(Optional.of(row.id())) ? "  •" : ""));
    }
  }
}
