package joiner.desktop.gather;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.collections.FXCollections;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.dependency.AttributeSet;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.discovery.Fact;
import joiner.discovery.FactSearch;

/** The facts found in a table, to be ticked where they are true. */
final class FactList {
  private static final int SHOWN_AT_FIRST = 60;

  private final Texts texts;
  private final SplitBench split;
  private final Consumer<Fact> picked;
  private final FactWords words;
  private final VBox cards = new VBox(6);
  private final VBox node;
  private boolean less;
  private boolean adding;

  FactList(Texts texts, SplitBench split, Consumer<Fact> picked) {
    this.texts = texts;
    this.split = split;
    this.picked = picked;
    this.words = new FactWords(texts, split.cells().headers(), split.cells().rows());
    var scroll = Parts.scroll(cards);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    node =
        new VBox(
            2,
            Parts.label(texts.get("facts.title"), "title"),
            Parts.shortened(texts.get("facts.why"), "muted", "small"),
            scroll);
    VBox.setMargin(scroll, new javafx.geometry.Insets(6, 0, 0, 0));
  }

  Node node() {
    return node;
  }

  void show(SplitBench.State state) {
    var nodes = new ArrayList<Node>();
    if (state.searching()) {
      nodes.add(Parts.label(texts.get("facts.searching"), "muted"));
      nodes.add(Parts.button(texts.get("facts.stop"), split::stop));
    }
    List<Fact> likely = state.facts().stream().filter(this::isLikely).toList();
    List<Fact> unlikely = state.facts().stream().filter(fact -> !isLikely(fact)).toList();
    likely.stream().limit(SHOWN_AT_FIRST).map(this::card).forEach(nodes::add);
    if (!state.searching() && likely.isEmpty()) {
      nodes.add(Parts.prose(texts.get("facts.none"), "muted"));
    }
    if (!unlikely.isEmpty() && less) {
      unlikely.stream().limit(SHOWN_AT_FIRST).map(this::card).forEach(nodes::add);
    } else if (!unlikely.isEmpty()) {
      nodes.add(
          Parts.button(
              texts.get("facts.more", unlikely.size()),
              () -> {
                less = true;
                show(state);
              },
              "plain"));
    }
    if (!state.complete()) {
      nodes.add(Parts.prose(texts.get("facts.stopped"), "oak", "small"));
    }
    if (!state.searching()) {
      nodes.add(adding ? form() : adder(state));
    }
    cards.getChildren().setAll(nodes);
  }

  private boolean isLikely(Fact fact) {
    return fact.score() >= FactSearch.PLAUSIBLE || split.isOwn(fact) || split.isAccepted(fact);
  }

  private Node card(Fact fact) {
    var tick = new CheckBox();
    tick.setSelected(split.isAccepted(fact));
    tick.setAccessibleText(words.title(fact));
    tick.setId("fact-" + fact.id().replace('.', '-'));
    tick.setOnAction(event -> split.accept(fact, tick.isSelected()));
    var said =
        new VBox(
            1,
            Parts.prose(words.title(fact), "strong"),
            Parts.shortened(
                words.evidence(fact), words.contradicted(fact) ? "oak" : "muted", "small"));
    HBox.setHgrow(said, Priority.ALWAYS);
    var row = Parts.row(10, tick, said);
    var card = Parts.card(List.of(row), "fact-card");
    card.setOnMouseClicked(event -> picked.accept(fact));
    tick.focusedProperty().subscribe(focused -> pick(focused, fact));
    return card;
  }

  private void pick(boolean focused, Fact fact) {
    if (focused) {
      picked.accept(fact);
    }
  }

  private Node adder(SplitBench.State state) {
    return Parts.button(
        texts.get("facts.add"),
        () -> {
          adding = true;
          show(state);
        },
        "plain");
  }

  /** The form in which somebody states a dependency of their own. */
  private Node form() {
    ComboBox<String> first = columns(texts.get("facts.add.first"));
    ComboBox<String> second = columns(texts.get("facts.add.second"));
    ComboBox<String> decided = columns(texts.get("facts.add.decided"));
    second.getItems().addFirst("");
    var say =
        Parts.button(
            texts.get("facts.add.say"),
            () -> say(place(first), place(second), place(decided)),
            "main");
    return Parts.card(
        List.of(
            Parts.row(6, first, Parts.label(texts.get("facts.add.and"), "muted"), second),
            Parts.row(6, Parts.label(texts.get("facts.add.decide"), "muted"), decided, say)));
  }

  /** States the dependency once both sides are chosen. */
  private void say(Optional<Integer> from, Optional<Integer> and, Optional<Integer> to) {
    if (from.isPresent() && to.isPresent() && !from.equals(to)) {
      AttributeSet determinant = AttributeSet.of(from.get());
      if (and.isPresent() && !and.equals(to)) {
        determinant = determinant.with(and.get());
      }
      adding = false;
      split.state(determinant, to.get());
    }
  }

  private ComboBox<String> columns(String prompt) {
    var box = new ComboBox<>(FXCollections.observableArrayList(split.cells().headers()));
    box.setPromptText(prompt);
    box.setAccessibleText(prompt);
    box.setPrefWidth(130);
    return box;
  }

  private Optional<Integer> place(ComboBox<String> box) {
    int place = box.getValue() == null ? -1 : split.cells().headers().indexOf(box.getValue());
    return place < 0 ? Optional.empty() : Optional.of(place);
  }
}
