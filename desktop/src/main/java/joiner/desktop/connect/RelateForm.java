package joiner.desktop.connect;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.edit.Reading;
import joiner.edit.Relate;
import joiner.edit.Relate.Types;
import joiner.model.Field;
import joiner.model.Noun;
import joiner.model.Quantity;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableKind;
import joiner.naming.WordList;

/**
 * Ties two tables by two sentences; what is made of them stands below while they are put together.
 */
final class RelateForm {
  private final RelateModel model;
  private final Texts texts;
  private final VBox box = new VBox(10);

  /** Whether it is shown already: then it takes the focus from nothing else. */
  private boolean open;

  RelateForm(RelateModel model, Texts texts) {
    this.model = model;
    this.texts = texts;
    box.setId("relate-form");
    box.addEventHandler(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            model.leave();
            event.consume();
          }
        });
  }

  /** Is told that it is shown no longer. */
  void closed() {
    open = false;
  }

  /**
   * The form for what is said so far. It takes the focus as it opens; later the focus stays at the
   * control it was at, wherever that is.
   */
  Node of(RelateModel.Wish wish) {
    Optional<String> focused =
        Optional.ofNullable(box.getScene())
            .map(javafx.scene.Scene::getFocusOwner)
            .filter(node -> isWithin(node))
            .map(Node::getId);
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(texts.get("relate.title"), "title"));
    nodes.add(Parts.prose(texts.get("relate.why"), "muted", "small"));
    nodes.add(Parts.card(sentences(wish)));
    Optional<Relate> edit = model.edit(wish);
    if (edit.isPresent()) {
      nodes.addAll(structure(wish, edit.get()));
    } else {
      nodes.add(Parts.prose(texts.get("relate.missing"), "muted"));
    }
    box.getChildren().setAll(nodes);
    String first = wish.other().isPresent() ? "relate-make" : "other-table";
    Optional<String> wanted = focused.or(() -> open ? Optional.empty() : Optional.of(first));
    open = true;
    wanted.ifPresent(
        id -> {
          if (box.getScene() == null) {
            Platform.runLater(() -> focus(id)); // Once it is shown.
          } else {
            focus(id); // At once, so that no key goes elsewhere meanwhile.
          }
        });
    return box;
  }

  private boolean isWithin(Node node) {
    for (Node at = node; at != null; at = at.getParent()) {
      if (at == box) {
        return true;
      }
    }
    return false;
  }

  private void focus(String id) {
    Node node = box.lookup("#" + id);
    if (node != null && box.getScene() != null) {
      node.requestFocus();
    }
  }

  private List<Node> sentences(RelateModel.Wish wish) {
    Table one = model.table(wish.one());
    Optional<Table> other = wish.other().map(model::table);
    Node first =
        sentence(
            "one",
            Optional.of(one),
            wish.ofOne(),
            other,
            table -> model.change(wish.withTables(table.id(), wish.other())),
            words -> model.change(wish.withOne(words)));
    Node second =
        sentence(
            "other",
            other,
            wish.ofOther(),
            Optional.of(one),
            table -> model.change(wish.withTables(wish.one(), Optional.of(table.id()))),
            words -> model.change(wish.withOther(words)));
    return List.of(first, second);
  }

  private Node sentence(
      String id,
      Optional<Table> subject,
      RelateModel.Words now,
      Optional<Table> object,
      Consumer<Table> table,
      Consumer<RelateModel.Words> said) {
    Quantity quantity = now.quantity();
    var flow = new FlowPane(4, 3);
    flow.getChildren().add(Parts.label(texts.get("each")));
    flow.getChildren().add(tablePicker(id, subject, table));
    flow.getChildren()
        .add(
            verbPicker(id, now.verb(), verb -> said.accept(new RelateModel.Words(verb, quantity))));
    var words = new MenuButton(quantity.words());
    words.getStyleClass().add("word-choice");
    words.setId(id + "-quantity");
    for (Quantity option : Quantity.values()) {
      var item = new MenuItem(option.words());
      item.setOnAction(event -> said.accept(new RelateModel.Words(now.verb(), option)));
      words.getItems().add(item);
    }
    flow.getChildren().add(words);
    String noun =
        object
            .map(Table::noun)
            .map(n -> quantity.isPlural() ? n.plural() : n.singular())
            .orElse("\u2026");
    flow.getChildren().add(Parts.label(object.isPresent() ? noun + "." : noun));
    return flow;
  }

  private Button tablePicker(String id, Optional<Table> now, Consumer<Table> picked) {
    String says = now.map(Table::noun).map(Noun::singular).orElse(texts.get("relate.pickTable"));
    Button button = Parts.button(says, () -> {}, "word-choice");
    button.setId(id + "-table");
    button.setAccessibleText(texts.get("relate.table", says));
    button.setOnAction(
        event ->
            new Picker<>(texts.get("relate.tables"), Offers.among(model.tables(), Table::label))
                .at(now)
                .open(button, picked));
    return button;
  }

  private Button verbPicker(String id, String verb, Consumer<String> picked) {
    Button button = Parts.button(verb, () -> {}, "word-choice");
    button.setId(id + "-verb");
    button.setOnAction(event -> Verbs.pick(texts, button, verb, picked));
    return button;
  }

  private List<Node> structure(RelateModel.Wish wish, Relate edit) {
    RelateModel.Outcome outcome = model.outcome(edit);
    var nodes = new ArrayList<Node>();
    Table child = model.table(edit.child().table());
    Table parent = model.table(edit.parent().table());
    nodes.add(Parts.label(texts.get("relate.kept"), "heading"));
    nodes.add(Parts.prose(texts.get("relate." + edit.shape()), "muted", "small"));
    nodes.add(
        row(
            texts.get("relate.by", child.noun().singular()),
            choice(
                "relate-by",
                model.ends(edit),
                edit.by(),
                by -> by.isEmpty() ? fresh(outcome, edit) : WordList.and(child.labelsOf(by)),
                by -> model.change(wish.withEnds(by, wish.key())))));
    nodes.add(
        row(
            texts.get("relate.key", parent.noun().singular()),
            choice(
                "relate-key",
                model.keys(edit),
                edit.referred(parent),
                key -> WordList.and(parent.labelsOf(key)),
                key -> model.change(wish.withEnds(List.of(), key)))));
    model.differing(edit).ifPresent(words -> nodes.add(types(wish, edit, words)));
    if (edit.shape() != Relate.Shape.MANY_TO_MANY) {
      nodes.add(
          row(
              texts.get("relate.delete", parent.noun().indefinite(), child.noun().plural()),
              choice(
                  "relate-delete",
                  List.of(ReferentialAction.values()),
                  edit.onDelete(),
                  action -> texts.get("delete." + action),
                  action -> model.change(wish.withRest(action, wish.types())))));
    }
    outcome.refused().ifPresent(why -> nodes.add(Parts.prose(why, "brick")));
    outcome.made().ifPresent(made -> nodes.addAll(reads(edit, outcome, made)));
    nodes.add(buttons(outcome));
    return nodes;
  }

  /** Which of two types that differ gives way. */
  private Node types(RelateModel.Wish wish, Relate edit, String[] words) {
    return choice(
        "relate-types",
        List.of(Types.values()),
        edit.types(),
        types ->
            types == Types.OF_KEY
                ? texts.get("relate.becomes", words[0], words[1])
                : texts.get("relate.becomes", words[2], words[3]),
        types -> model.change(wish.withRest(wish.onDelete(), types)));
  }

  private Node buttons(RelateModel.Outcome outcome) {
    Button make = Parts.button(texts.get("relate.make"), model::make, "main");
    make.setId("relate-make");
    make.setDisable(outcome.made().isEmpty());
    make.addEventHandler(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ENTER) {
            make.fire();
            event.consume();
          }
        });
    Button leave = Parts.button(texts.get("relate.leave"), model::leave);
    leave.setId("relate-leave");
    return new FlowPane(8, 8, make, leave);
  }

  /** What it will be read as, where that is not what the sentences say. */
  private List<Node> reads(Relate edit, RelateModel.Outcome outcome, Relationship made) {
    boolean asSaid =
        Reading.of(outcome.draft().design(), made).stream()
            .allMatch(
                reading ->
                    reading.quantity() == edit.one().quantity()
                        || reading.quantity() == edit.other().quantity());
    if (asSaid) {
      return List.of();
    }
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(texts.get("relate.reads"), "oak", "small"));
    Reading.of(outcome.draft().design(), made)
        .forEach(reading -> nodes.add(Parts.prose(reading.sentence(), "small")));
    return nodes;
  }

  private String fresh(RelateModel.Outcome outcome, Relate edit) {
    boolean own = outcome.made().isPresent() && edit.by().isEmpty();
    if (!own) {
      return texts.get("relate.new");
    }
    Relationship made = outcome.made().get();
    Table child = outcome.draft().design().table(made.child());
    String names =
        WordList.and(made.childFields().stream().map(child::field).map(Field::name).toList());
    return child.kind() instanceof TableKind.Join
        ? texts.get("relate.join", child.label())
        : texts.get("relate.new.named", names);
  }

  private static Node row(String name, Node control) {
    return new VBox(2, Parts.label(name, "muted", "small"), control);
  }

  private <T> Node choice(
      String id, List<T> all, T now, Function<T, String> words, Consumer<T> picked) {
    Button button = Picker.button(texts.get("relate.choose"), all, now, words, picked);
    button.setId(id);
    return button;
  }
}
