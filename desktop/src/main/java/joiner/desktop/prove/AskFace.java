package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import joiner.desktop.prove.AskColumns.Deed;
import joiner.desktop.prove.AskModel.State;
import joiner.desktop.widget.CompletionList;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Targets;
import joiner.desktop.work.Workbench;
import joiner.expression.Formula;
import joiner.joining.Asking;
import joiner.joining.Bound;
import joiner.joining.LineWords;
import joiner.model.Question;

/** The face Ask: what is shown, how it is joined, where rows multiply, and the lines it gives. */
final class AskFace implements Face {
  private static final double WRAP = 600;

  private final Workbench bench;
  private final Texts texts;
  private final AskModel model;
  private final VBox content = new VBox(10);
  private final ScrollPane main = Parts.scroll(content);
  private final AskJoins joins;
  private final AskSide side;
  private final AskSaving saving;
  private final TextField column = new TextField();
  private final TextField condition = new TextField();
  private final Label refused = Parts.prose("", "brick");
  private final TextField first = new TextField();
  private final FlowPane shown = new FlowPane(6, 6);
  private final FlowPane where = new FlowPane(6, 6);
  private final AskOpen open;
  private final VBox warnings = new VBox(6);
  private final AskLines lines;
  private final Label count = Parts.label("", "muted");
  private final Button kept;
  private final Button keep;
  private final Button fresh;
  private final Button back;
  private final Button aside = Parts.button("", () -> {});
  private final RowsPick rows;
  private final WhenSeen seen = new WhenSeen(this::show);

  AskFace(Workbench bench, Targets targets, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    this.model = new AskModel(bench, texts);
    this.open = new AskOpen(model, texts);
    this.lines = new AskLines(texts.get("ask.lines"));
    this.joins = new AskJoins(bench, texts, model, this::showOf);
    this.side = new AskSide(bench, texts, model);
    this.saving = new AskSaving(bench, texts, model);
    this.kept = Parts.button(texts.get("ask.kept"), this::openKept);
    this.keep = Parts.button(texts.get("ask.keep"), this::keep);
    this.fresh = Parts.button(texts.get("ask.new"), this::begin);
    this.back = Parts.button(texts.get("ask.back"), this::back);
    this.rows = new RowsPick("question-rows", bench, targets, texts, model::from);
    back.setId("question-back");
    kept.setId("kept-questions");
    keep.setId("keep-question");
    build();
    bench.historyProperty().subscribe(value -> seen.changed());
    model.stateProperty().subscribe(value -> seen.changed());
    model.answerProperty().subscribe(value -> seen.changed());
  }

  private void build() {
    typed(column, "ask-column", "ask.column", this::showColumn);
    typed(condition, "ask-condition", "ask.condition", this::onlyWhere);
    HBox.setHgrow(column, Priority.ALWAYS);
    HBox.setHgrow(condition, Priority.ALWAYS);
    Button pick = Parts.button(texts.get("ask.pick"), () -> {});
    pick.setId("pick-field");
    pick.setOnAction(
        event ->
            new Picker<>(texts.get("ask.pick.prompt"), model.fields())
                .open(pick, text -> said(model.show(text))));
    shown.setPrefWrapLength(WRAP);
    where.setPrefWrapLength(WRAP);
    aside.setId("question-aside");
    aside.setOnAction(event -> turnAside());
    var head = Parts.row(8, kept, fresh, back, aside, Parts.spring(), keep);
    var form =
        Parts.card(
            List.of(
                line("ask.show", shown, Parts.row(6, column, pick)),
                line("ask.where", where, condition),
                open.node()),
            "question");
    Parts.toggle(refused, false);
    content.getChildren().setAll(head, form, refused, joins.node(), warnings, lines.node(), foot());
    content.setPadding(new Insets(0, 10, 0, 0));
    main.setFitToHeight(true); // The lines take what room there is; where there is none it scrolls.
  }

  /** How many lines of whose rows, and what becomes of them. */
  private Node foot() {
    first.setId("ask-first");
    first.setPrefColumnCount(4);
    first.setPromptText(texts.get("ask.first.all"));
    first.setOnAction(event -> model.first(first.getText()));
    first
        .focusedProperty()
        .subscribe(
            (was, is) -> {
              if (was && !is) {
                model.first(first.getText());
              }
            });
    return new FlowPane(
        8,
        6,
        Parts.label(texts.get("ask.first"), "muted"),
        first,
        Parts.label(texts.get("ask.rows"), "muted"),
        rows,
        saving.button(),
        saving.forSheets(),
        count);
  }

  private Node line(String name, FlowPane chips, Node typing) {
    Label called = Parts.label(texts.get(name), "muted");
    called.setMinWidth(44);
    var rest = new VBox(6, chips, typing);
    HBox.setHgrow(rest, Priority.ALWAYS);
    var line = new HBox(10, called, rest);
    line.getStyleClass().add("question-line");
    return line;
  }

  private void typed(TextField field, String id, String prompt, Runnable enter) {
    field.setId(id);
    field.setPromptText(texts.get(prompt));
    field.setAccessibleText(texts.get(prompt));
    CompletionList.on(field, model::completions);
    field.setOnAction(event -> enter.run());
    field.addEventHandler(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            field.clear();
            said(Optional.empty());
          }
        });
  }

  private void showColumn() {
    said(model.show(column.getText()), column);
  }

  private void onlyWhere() {
    said(model.only(condition.getText()), condition);
    model.question().parameters().stream()
        .filter(parameter -> parameter.text().isEmpty() && condition.getText().isEmpty())
        .findFirst()
        .ifPresent(open::focus);
  }

  private void said(Optional<String> fault, TextField typed) {
    said(fault);
    if (fault.isEmpty()) {
      typed.clear();
    }
    typed.requestFocus();
  }

  /** Says why something could not be asked. */
  private void said(Optional<String> fault) {
    refused.setText(fault.orElse(""));
    Parts.toggle(refused, fault.isPresent());
  }

  @Override
  public Node main() {
    return main;
  }

  @Override
  public Node side() {
    return side.node();
  }

  @Override
  public void look(boolean visible) {
    model.look(visible);
    seen.look(visible);
  }

  /** Asks a question that is kept. */
  void ask(Question question) {
    said(Optional.empty());
    showFirst(question);
    model.ask(question);
  }

  private void showFirst(Question question) {
    first.setText(question.first().isPresent() ? "" + question.first().getAsInt() : "");
  }

  /** Begins anew. */
  void begin() {
    ask(Asking.nothing());
    column.requestFocus();
  }

  /** Shows something that was picked at a board, which may be gone then. */
  private void showOf(String text) {
    said(model.show(text));
    column.requestFocus();
  }

  private void back() {
    model.back();
    said(Optional.empty());
    showFirst(model.question());
    if (back.isDisabled()) {
      column.requestFocus();
    }
  }

  private void turnAside() {
    model.turnAside();
    said(Optional.empty());
    showFirst(model.question());
  }

  private void showAside() {
    Optional<Question> waiting = model.aside();
    Parts.toggle(aside, waiting.isPresent());
    waiting.ifPresent(
        question -> aside.setText(texts.get("ask.aside", question.columns().getLast().label())));
  }

  private void openKept() {
    new Picker<>(texts.get("ask.kept.prompt"), Offers.among(model.kept(), Question::label))
        .open(kept, this::ask);
  }

  private void show() {
    model.refresh();
    State state = model.state();
    showChips(state);
    joins.show(state.question());
    showAnswer(state);
    kept.setDisable(model.kept().isEmpty());
    fresh.setDisable(state.isBlank());
    back.setDisable(!model.canGoBack());
    showAside();
    rows.show(model.rows());
    keep.setText(texts.get(model.keptAs().isPresent() ? "ask.keep.changes" : "ask.keep"));
    keep.setDisable(state.bound().isEmpty() || model.isKept());
    side.show(state);
  }

  private void showChips(State state) {
    int focused = focusedChip(shown);
    shown.getChildren().clear();
    for (int i = 0; i < state.question().columns().size(); i++) {
      shown.getChildren().add(chip(state, i));
    }
    where.getChildren().clear();
    List<Formula> conditions = state.question().where();
    for (int i = 0; i < conditions.size(); i++) {
      int place = i;
      String text = conditions.get(i).text();
      where.getChildren().add(condition(text, text, () -> model.removeCondition(place)));
    }
    List<Formula> having = state.question().having();
    for (int i = 0; i < having.size(); i++) {
      int place = i;
      String text = having.get(i).text();
      String shown = texts.get("ask.having", text);
      where.getChildren().add(condition(shown, text, () -> model.removeLineCondition(place)));
    }
    open.show(state.question());
    toggle(open.node());
    toggle(shown);
    toggle(where);
    if (focused >= 0 && !shown.getChildren().isEmpty()) {
      shown.getChildren().get(Math.min(focused, shown.getChildren().size() - 1)).requestFocus();
    }
  }

  /** A condition that can be opened again, or taken away. */
  private Button condition(String shown, String text, Runnable remove) {
    Button chip =
        Parts.chip(
            shown,
            () -> {
              condition.setText(text);
              remove.run();
              condition.requestFocus();
              condition.end();
            },
            remove,
            "mono");
    chip.setAccessibleText(texts.get("ask.condition.chip", text));
    return chip;
  }

  private static int focusedChip(FlowPane chips) {
    for (int i = 0; i < chips.getChildren().size(); i++) {
      if (chips.getChildren().get(i).isFocused()) {
        return i;
      }
    }
    return -1;
  }

  private static void toggle(Region chips) {
    boolean any = !chips.getChildrenUnmodifiable().isEmpty();
    Parts.toggle(chips, any);
  }

  private Button chip(State state, int place) {
    Question.Column of = state.question().columns().get(place);
    String order =
        state.question().order().stream()
            .filter(o -> o.column() == place)
            .map(o -> o.descending() ? " ↓" : " ↑")
            .findFirst()
            .orElse("");
    Button chip =
        Parts.chip(
            of.label() + order, () -> {}, () -> model.columns().make(place, new Deed.Remove()));
    chip.setId("column-" + place);
    chip.setOnAction(
        event ->
            new Picker<>(of.label(), Offers.among(model.columns().deeds(place), this::words))
                .open(chip, deed -> model.columns().make(place, deed)));
    return chip;
  }

  private String words(Deed deed) {
    return switch (deed) {
      case Deed.As(var fold) -> texts.get(fold.map(f -> "ask.fold." + f).orElse("ask.fold.none"));
      case Deed.Count(Question.Counting.AsJoined joined) -> texts.get("ask.count.joined");
      case Deed.Count(Question.Counting.Once once) -> texts.get("ask.count.once");
      case Deed.Count(Question.Counting.Per(String role)) ->
          texts.get("ask.count.per", model.noun(role));
      case Deed.Sort(boolean descending) -> texts.get(descending ? "ask.sort.down" : "ask.sort.up");
      case Deed.Unsort unsort -> texts.get("ask.sort.none");
      case Deed.Move(int by) -> texts.get(by < 0 ? "ask.move.left" : "ask.move.right");
      case Deed.Remove remove -> texts.get("ask.remove");
    };
  }

  private void showAnswer(State state) {
    warnings.getChildren().clear();
    String empty = model.told().isPresent() ? texts.get("ask.noline") : "";
    lines.empty(state.isBlank() ? texts.get("ask.none") : empty);
    state.faults().forEach(fault -> warnings.getChildren().add(warning(fault, List.of())));
    Optional<AskModel.Told> told = model.told();
    lines.stale(state.bound().isPresent() && told.isEmpty());
    if (state.bound().isEmpty()) {
      lines.clear();
      count.setText("");
    } else if (told.isPresent()) {
      showTold(told.get());
    } else if (model.answerProperty().get() instanceof Answer.Failed<AskModel.Told> failed) {
      warnings.getChildren().add(warning(failed.failure().message(), List.of()));
      lines.none();
      count.setText("");
    } else {
      count.setText(texts.get("ask.working"));
    }
  }

  private void showTold(AskModel.Told told) {
    var answer = told.answer();
    Bound bound = answer.bound();
    lines.show(bound.columns(), answer.lines());
    count.setText(
        texts.get(
            answer.cut() ? "ask.count.cut" : "ask.count", answer.lines().size(), told.millis()));
    if (told.rows() instanceof RowsOf.Live) {
      for (int i = 0; i < bound.columns().size(); i++) {
        LineWords.mayRepeat(bound, i)
            .ifPresent(words -> warnings.getChildren().add(warning(words, List.of())));
      }
    }
    if (answer.repeated().size() > 1) {
      warnings.getChildren().add(allAtOnce(answer.repeated()));
    }
    answer.repeated().forEach(r -> warnings.getChildren().add(multiplied(bound, r)));
    LineWords.pairing(bound)
        .ifPresent(words -> warnings.getChildren().add(warning(words, alone(bound))));
  }

  /** One question for each of two tables that nothing pairs. */
  private List<Node> alone(Bound bound) {
    List<String> paired = LineWords.paired(bound);
    var ways = new ArrayList<Node>();
    if (paired.stream().allMatch(role -> bound.question().role(role).link().isPresent())) {
      Button separate =
          Parts.button(
              texts.get("ask.separate", paired.size()),
              () -> {
                lines.node().requestFocus(); // The button goes with what it says.
                model.separate(paired.reversed());
              });
      separate.setId("ask-separate");
      ways.add(separate);
    }
    paired.stream()
        .filter(role -> bound.question().role(role).link().isPresent())
        .<Node>map(
            role ->
                Parts.button(
                    texts.get("ask.without", model.nouns(role)),
                    () -> {
                      lines.node().requestFocus(); // The button goes with what it says.
                      model.leaveOut(role);
                    }))
        .forEach(ways::add);
    return ways;
  }

  private Node multiplied(Bound bound, joiner.joining.Answer.Repeated repeated) {
    List<Node> remedies =
        LineWords.remedies(bound, repeated.column()).stream()
            .<Node>map(
                remedy ->
                    Parts.button(
                        remedy.words(),
                        () -> {
                          lines.node().requestFocus(); // The button goes with what it says.
                          model.columns().count(repeated.column(), remedy.counting());
                        }))
            .toList();
    return warning(texts.get("ask.multiply") + " " + LineWords.of(bound, repeated), remedies);
  }

  /** Several columns are put right together. */
  private Node allAtOnce(List<joiner.joining.Answer.Repeated> repeated) {
    Button once =
        Parts.button(
            texts.get("ask.once.all", repeated.size()),
            () ->
                model
                    .columns()
                    .countOnce(
                        repeated.stream().map(joiner.joining.Answer.Repeated::column).toList()));
    once.setId("count-all-once");
    return Parts.row(8, Parts.label(texts.get("ask.multiply.many"), "oak"), once);
  }

  private static Node warning(String words, List<Node> remedies) {
    var parts = new ArrayList<Node>();
    parts.add(Parts.prose(words));
    if (!remedies.isEmpty()) {
      parts.add(Parts.row(8, remedies.toArray(Node[]::new)));
    }
    VBox card = Parts.card(parts, "oak-card");
    card.setSpacing(6);
    return card;
  }

  /** Keeps the question under the name it has, or asks for one. */
  private void keep() {
    if (model.keptAs().isPresent()) {
      model.keep(model.keptAs().get().label());
      return;
    }
    var name = new TextField();
    name.setId("question-name");
    name.setPromptText(texts.get("ask.name"));
    name.setAccessibleText(texts.get("ask.name"));
    name.setPrefColumnCount(20);
    var row = (HBox) keep.getParent();
    row.getChildren().add(row.getChildren().indexOf(keep), name);
    name.setOnAction(
        event -> {
          if (!name.getText().isBlank() && model.keep(name.getText())) {
            row.getChildren().remove(name);
            keep.requestFocus();
          }
        });
    name.addEventHandler(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            row.getChildren().remove(name);
            keep.requestFocus();
            event.consume();
          }
        });
    name.requestFocus();
  }
}
