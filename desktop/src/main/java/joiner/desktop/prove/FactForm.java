package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Workbench;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.KnownFact;
import joiner.model.Table;
import joiner.model.TableId;

/** Where somebody says what decides what in a table, and sees what was said of it before. */
final class FactForm {
  private final Workbench bench;
  private final SaidAgain model;
  private final Texts texts;
  private final Runnable close;
  private final VBox box = new VBox(8);
  private final List<FieldId> by = new ArrayList<>();
  private final List<FieldId> decided = new ArrayList<>();
  private TableId table;
  private Table drawn;

  /**
   * Nothing is said yet.
   *
   * @param close leaves it
   */
  FactForm(Workbench bench, SaidAgain model, Texts texts, TableId table, Runnable close) {
    this.bench = bench;
    this.model = model;
    this.texts = texts;
    this.table = table;
    this.drawn = bench.design().table(table);
    this.close = close;
    box.setId("fact-form");
    box.addEventHandler(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            close.run();
            event.consume();
          }
        });
    draw(drawn);
  }

  Node node() {
    return box;
  }

  /**
   * Shows it of the design as it is now, and nothing else where that is as it was: what is picked
   * and where the keyboard is stay. Ends where the table is gone.
   */
  void show() {
    Optional<Table> now = bench.design().find(table);
    if (now.isEmpty()) {
      close.run();
    } else if (!now.equals(Optional.of(drawn))) {
      again(focused().orElse("fact-by"));
    }
  }

  private Optional<String> focused() {
    return Stream.of("fact-by", "fact-decided", "fact-say")
        .filter(id -> box.lookup("#" + id) instanceof Node node && node.isFocused())
        .findFirst();
  }

  private void draw(Table of) {
    drawn = of;
    by.removeIf(field -> !of.hasField(field));
    decided.removeIf(field -> !of.hasField(field));
    var say = Parts.button(texts.get("fact.say"), this::say, "accent");
    say.setId("fact-say");
    say.setDisable(by.isEmpty() || decided.isEmpty());
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.label(texts.get("fact.title"), "title"));
    nodes.add(Parts.prose(texts.get("fact.why"), "muted"));
    nodes.add(
        Parts.beside(
            texts.get("fact.table"),
            Picker.button(
                texts.get("fact.table"),
                List.copyOf(bench.design().tables()),
                of,
                Table::label,
                other -> turnTo(other.id()))));
    nodes.add(Parts.label(texts.get("fact.by"), "heading"));
    nodes.add(fields(of, by, "fact-by"));
    nodes.add(Parts.label(texts.get("fact.decided"), "heading"));
    nodes.add(fields(of, decided, "fact-decided"));
    nodes.add(Parts.row(8, say, Parts.button(texts.get("fact.close"), close)));
    if (!of.facts().isEmpty()) {
      nodes.add(Parts.label(texts.get("fact.known", of.label()), "heading"));
      of.facts().forEach(fact -> nodes.add(known(of, fact)));
    }
    box.getChildren().setAll(nodes);
  }

  /** Puts the keyboard where one begins. */
  void focus() {
    Optional.ofNullable(box.lookup(by.isEmpty() ? "#fact-by" : "#fact-decided"))
        .ifPresent(Node::requestFocus);
  }

  private void turnTo(TableId other) {
    if (!other.equals(table)) {
      table = other;
      by.clear();
      decided.clear();
    }
    again("fact-by");
  }

  /** Draws it anew and keeps the keyboard where one goes on. */
  private void again(String focused) {
    draw(bench.design().table(table));
    Optional.ofNullable(box.lookup("#" + focused)).ifPresent(Node::requestFocus);
  }

  private Node fields(Table of, List<FieldId> picked, String id) {
    var flow = new FlowPane(6, 6);
    for (FieldId field : picked) {
      Runnable away =
          () -> {
            picked.remove(field);
            again(id);
          };
      flow.getChildren().add(Parts.chip(of.field(field).label() + "  ×", away, away));
    }
    Button add = Parts.button(texts.get(picked.isEmpty() ? "fact.pick" : "fact.and"), () -> {});
    add.setId(id);
    List<Field> left =
        of.fields().stream()
            .filter(f -> Stream.concat(by.stream(), decided.stream()).noneMatch(f.id()::equals))
            .toList();
    add.setDisable(left.isEmpty());
    Consumer<Field> taken =
        field -> {
          picked.add(field.id());
          again(id);
        };
    add.setOnAction(
        event ->
            new Picker<>(
                    texts.get("fact.pick.prompt", of.label()), Offers.among(left, Field::label))
                .goingOn(() -> goOn(id))
                .open(add, taken));
    flow.getChildren().add(add);
    return flow;
  }

  /** Tab picks and goes on to what comes next. */
  private void goOn(String id) {
    String next = id.equals("fact-by") ? "#fact-decided" : "#fact-say";
    Platform.runLater(() -> Optional.ofNullable(box.lookup(next)).ifPresent(Node::requestFocus));
  }

  private Node known(Table of, KnownFact fact) {
    Button gone = Parts.way(texts.get("fact.forget", fact.words(of)), () -> forget(fact));
    gone.getStyleClass().add("known-fact");
    return gone;
  }

  private void forget(KnownFact fact) {
    model.forget(table, fact);
    again("fact-by");
  }

  private void say() {
    var fact = new KnownFact(by, decided, true);
    by.clear();
    decided.clear();
    model.know(table, fact);
    again("fact-by");
  }
}
