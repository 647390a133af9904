package joiner.desktop.prove;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import joiner.desktop.prove.AskModel.Deed;
import joiner.desktop.prove.AskModel.JoinDeed;
import joiner.desktop.prove.AskModel.State;
import joiner.desktop.widget.CompletionList;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.SqlView;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Targets;
import joiner.desktop.work.Workbench;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.engine.Support;
import joiner.expression.Formula;
import joiner.format.AnswerCsv;
import joiner.format.AnswerSheet;
import joiner.joining.Asking;
import joiner.joining.Bound;
import joiner.joining.LineWords;
import joiner.model.Question;
import joiner.naming.Counts;

/** The face Ask: what is shown, how it is joined, where rows multiply, and the lines it gives. */
final class AskFace implements Face {
  private static final double SQL_HEIGHT = 250;

  private final Workbench bench;
  private final Texts texts;
  private final AskModel model;
  private final VBox content = new VBox(10);
  private final ScrollPane main = Parts.scroll(content);
  private final VBox side = new VBox(8);
  private final TextField column = new TextField();
  private final TextField condition = new TextField();
  private final Label refused = Parts.prose("", "brick");
  private final TextField first = new TextField();
  private final FlowPane shown = new FlowPane(6, 6);
  private final FlowPane where = new FlowPane(6, 6);
  private final AskOpen open;
  private final FlowPane joins = new FlowPane(0, 8);
  private final VBox warnings = new VBox(6);
  private final AskLines lines;
  private final CheckBox sheets = new CheckBox();
  private final Label count = Parts.label("", "muted");
  private final Button kept;
  private final Button keep;
  private final Button fresh;
  private final Button back;
  private final Button rows;
  private final SqlView sql;
  private final Button engine;
  private final WhenSeen seen = new WhenSeen(this::show);
  private Dialect dialect = Dialects.ALL.getFirst();

  AskFace(Workbench bench, Targets targets, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    this.model = new AskModel(bench, texts);
    this.open = new AskOpen(model, texts);
    this.lines = new AskLines(texts.get("ask.lines"));
    this.sql = new SqlView("question-sql", texts.get("ask.sql"));
    this.kept = Parts.button(texts.get("ask.kept"), this::openKept);
    this.keep = Parts.button(texts.get("ask.keep"), this::keep);
    this.fresh = Parts.button(texts.get("ask.new"), this::begin);
    this.engine = Parts.button(dialect.engine(), this::pickEngine, "picked");
    this.back = Parts.button(texts.get("ask.back"), this::back);
    this.rows = RowsOf.button(bench, targets, texts, model::from);
    back.setId("question-back");
    rows.setId("question-rows");
    kept.setId("kept-questions");
    keep.setId("keep-question");
    engine.setId("question-engine");
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
    var head = Parts.row(8, kept, fresh, back, Parts.spring(), keep);
    var form =
        Parts.card(
            List.of(
                line("ask.show", shown, Parts.row(6, column, pick)),
                line("ask.where", where, condition),
                open.node()),
            "question");
    Parts.toggle(refused, false);
    sheets.setText(texts.get("ask.sheets"));
    sheets.setTooltip(new Tooltip(texts.get("ask.sheets.why")));
    Button save = Parts.button(texts.get("ask.save"), this::save);
    var foot =
        new FlowPane(
            8,
            6,
            Parts.label(texts.get("ask.first"), "muted"),
            first,
            Parts.label(texts.get("ask.rows"), "muted"),
            rows,
            save,
            sheets,
            count);
    content.getChildren().setAll(head, form, refused, joins, warnings, lines.node(), foot);
    content.setPadding(new Insets(0, 10, 0, 0));
    main.setFitToHeight(true); // The lines take what room there is; where there is none it scrolls.
    sql.node().getStyleClass().add("question-sql");
    sql.wrap();
    ((Region) sql.node()).setPrefHeight(SQL_HEIGHT);
    ((Region) sql.node()).setMinHeight(SQL_HEIGHT);
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
    return side;
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

  private void back() {
    model.back();
    said(Optional.empty());
    showFirst(model.question());
    if (back.isDisabled()) {
      column.requestFocus();
    }
  }

  private void openKept() {
    new Picker<>(texts.get("ask.kept.prompt"), Offers.among(model.kept(), Question::label))
        .open(kept, this::ask);
  }

  private void show() {
    model.refresh();
    State state = model.state();
    showChips(state);
    showJoins(state);
    showAnswer(state);
    kept.setDisable(model.kept().isEmpty());
    fresh.setDisable(state.isBlank());
    back.setDisable(!model.canGoBack());
    keep.setText(texts.get(model.keptAs().isPresent() ? "ask.keep.changes" : "ask.keep"));
    keep.setDisable(state.bound().isEmpty() || model.isKept());
    showSide(state);
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
        Parts.chip(of.label() + order, () -> {}, () -> model.make(place, new Deed.Remove()));
    chip.setId("column-" + place);
    chip.setOnAction(
        event ->
            new Picker<>(of.label(), Offers.among(model.deeds(place), this::words))
                .open(chip, deed -> model.make(place, deed)));
    return chip;
  }

  private String words(Deed deed) {
    return switch (deed) {
      case Deed.As(var fold) -> texts.get(fold.map(f -> "ask.fold." + f).orElse("ask.fold.none"));
      case Deed.Count(Question.Counting.AsJoined joined) -> texts.get("ask.count.joined");
      case Deed.Count(Question.Counting.Once once) -> texts.get("ask.count.once");
      case Deed.Count(Question.Counting.Per(String role)) -> texts.get("ask.count.per", noun(role));
      case Deed.Sort(boolean descending) -> texts.get(descending ? "ask.sort.down" : "ask.sort.up");
      case Deed.Unsort unsort -> texts.get("ask.sort.none");
      case Deed.Move(int by) -> texts.get(by < 0 ? "ask.move.left" : "ask.move.right");
      case Deed.Remove remove -> texts.get("ask.remove");
    };
  }

  private String noun(String role) {
    return bench.design().table(model.question().role(role).table()).noun().singular();
  }

  private String nouns(String role) {
    return bench.design().table(model.question().role(role).table()).noun().plural();
  }

  private void showJoins(State state) {
    joins.getChildren().clear();
    String before = "";
    for (Question.Role role : state.question().roles()) {
      if (bench.design().find(role.table()).isEmpty()) {
        continue;
      }
      var joined = new HBox(board(role, before));
      if (role.link().isPresent() && bench.design().find(role.link().get().over()).isPresent()) {
        var mark = new JoinMark(model.multiplicity(role), role.link().get().down());
        joined.getChildren().addFirst(mark); // They stand together when the line is full.
      }
      joins.getChildren().add(joined);
      before = role.name();
    }
    toggle(joins);
  }

  /** A table as it is joined; where it hangs on another than the one before, that is said. */
  private Node board(Question.Role role, String before) {
    var table = bench.design().table(role.table());
    var words = new VBox(Parts.label(table.label(), "strong"));
    String rows = Counts.of(bench.draft().rows().of(table.id()).count(), "row", "rows");
    String how =
        role.link()
            .map(
                link ->
                    texts.get(
                        link.from().equals(before) ? "ask.join" : "ask.join.from",
                        model.words(role),
                        noun(link.from())))
            .orElse(rows);
    words.getChildren().add(Parts.label(how, "muted", "small"));
    if (role.link().filter(Question.Link::kept).isPresent()) {
      words
          .getChildren()
          .add(
              Parts.label(
                  texts.get("ask.kept.rows", nouns(role.link().get().from())), "oak", "small"));
    }
    var board = new Button();
    board.setGraphic(words);
    board.getStyleClass().add("join-board");
    board.setId("role-" + role.name());
    board.setAccessibleText(table.label() + ", " + how);
    board.setOnAction(
        event ->
            new Picker<>(
                    texts.get("ask.join.prompt"),
                    Offers.among(model.joinDeeds(role.name()), deed -> words(role, deed)))
                .open(board, deed -> model.make(role.name(), deed)));
    return board;
  }

  private String words(Question.Role role, JoinDeed deed) {
    return switch (deed) {
      case JoinDeed.Instead(var other) -> texts.get("ask.join.instead", model.words(other));
      case JoinDeed.Keep(boolean kept) ->
          texts.get(
              kept ? "ask.join.keep" : "ask.join.drop",
              nouns(role.link().orElseThrow().from()),
              nouns(role.name()));
      case JoinDeed.Apart(boolean apart) ->
          texts.get(apart ? "ask.join.apart" : "ask.join.together", nouns(role.name()));
      case JoinDeed.Show(String column, String label) -> texts.get("ask.join.show", label);
      case JoinDeed.LeaveOut out -> texts.get("ask.join.out", nouns(role.name()));
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
    return LineWords.paired(bound).stream()
        .filter(role -> bound.question().role(role).link().isPresent())
        .<Node>map(
            role ->
                Parts.button(
                    texts.get("ask.without", nouns(role)),
                    () -> {
                      lines.node().requestFocus(); // The button goes with what it says.
                      model.leaveOut(role);
                    }))
        .toList();
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
                          model.count(repeated.column(), remedy.counting());
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
                model.countOnce(
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

  private void showSide(State state) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(texts.get("ask.title"), "title"));
    if (state.bound().isEmpty()) {
      nodes.add(Parts.prose(texts.get("ask.why"), "muted"));
      side.getChildren().setAll(nodes);
      return;
    }
    Bound bound = state.bound().get();
    nodes.add(Parts.label(texts.get("ask.line"), "heading"));
    nodes.add(Parts.card(List.of(Parts.prose(LineWords.of(bound)))));
    model
        .told()
        .filter(told -> !told.answer().leftOut().isEmpty())
        .ifPresent(
            told -> {
              nodes.add(Parts.label(texts.get("ask.left"), "heading"));
              told.answer().leftOut().forEach(left -> leftOut(bound, left, nodes));
            });
    nodes.add(Parts.label(texts.get("ask.sql"), "heading"));
    nodes.add(Parts.beside(texts.get("ask.engine"), engine));
    model
        .sql(dialect)
        .ifPresent(
            support -> {
              switch (support) {
                case Support.Kept(String query) -> {
                  sql.show(query);
                  nodes.add(sql.node());
                  nodes.add(Parts.button(texts.get("ask.copy"), () -> copy(query)));
                }
                case Support.Impossible(String loss) ->
                    nodes.add(
                        Parts.prose(texts.get("ask.unsaid", dialect.engine(), loss), "brick"));
              }
            });
    model
        .keptAs()
        .ifPresent(
            question ->
                nodes.add(Parts.button(texts.get("ask.drop", question.label()), model::drop)));
    side.getChildren().setAll(nodes);
  }

  private void leftOut(Bound bound, joiner.joining.Answer.LeftOut left, List<Node> nodes) {
    String role = bound.roles().get(left.without()).name();
    String from = bound.roles().get(left.role()).name();
    nodes.add(Parts.prose(LineWords.of(bound, left)));
    nodes.add(
        Parts.button(
            texts.get("ask.keep.rows", nouns(from)),
            () -> model.make(role, new JoinDeed.Keep(true))));
  }

  private void copy(String query) {
    var content = new ClipboardContent();
    content.putString(query);
    Clipboard.getSystemClipboard().setContent(content);
    bench.tell(Notice.Sort.DONE, texts.get("ask.copied"));
  }

  private void pickEngine() {
    new Picker<>(texts.get("ask.engine"), Offers.among(Dialects.ALL, Dialect::engine))
        .at(Optional.of(dialect))
        .open(
            engine,
            picked -> {
              dialect = picked;
              engine.setText(picked.engine());
              showSide(model.state());
              engine.requestFocus();
            });
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

  private void save() {
    Optional<AskModel.Told> told = model.told();
    if (told.isEmpty()) {
      return;
    }
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("ask.save"));
    chooser.setInitialFileName(model.question().name() + ".csv");
    chooser
        .getExtensionFilters()
        .addAll(
            new FileChooser.ExtensionFilter("CSV", "*.csv"),
            new FileChooser.ExtensionFilter(texts.get("ask.workbook"), "*.xlsx"));
    var file = chooser.showSaveDialog(main.getScene().getWindow());
    if (file == null) {
      return;
    }
    try {
      write(told.get().answer(), file.toPath());
      bench.tell(Notice.Sort.DONE, texts.get("ask.saved", file.getName()));
    } catch (IOException e) {
      bench.tell(Notice.Sort.REFUSED, texts.get("ask.unsaved", file.getName(), e.getMessage()));
    }
  }

  /** As a workbook where the file is called so, as CSV elsewhere. */
  private void write(joiner.joining.Answer answer, Path file) throws IOException {
    if (file.toString().toLowerCase(Locale.ROOT).endsWith(".xlsx")) {
      try (OutputStream out = Files.newOutputStream(file)) {
        AnswerSheet.write(answer, out);
      }
    } else {
      Files.writeString(file, AnswerCsv.of(answer, sheets.isSelected()), StandardCharsets.UTF_8);
    }
  }
}
