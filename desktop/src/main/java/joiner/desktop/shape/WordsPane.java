package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.meaning.TableInWords;

/**
 * The table in words, each phrase leading to what says it: by a click, or by Enter on the phrase
 * that the arrow keys went to.
 */
final class WordsPane {
  private static final PseudoClass HERE = PseudoClass.getPseudoClass("here");

  private final Consumer<TableInWords.Source> go;
  private final TextFlow flow = new TextFlow();
  private final VBox node;
  private List<Text> phrases = List.of();
  private List<TableInWords.Source> sources = List.of();
  private int here = -1;
  private Optional<TableInWords> shown = Optional.empty();

  /**
   * Shows nothing yet.
   *
   * @param go leads to what says a phrase
   */
  WordsPane(Texts texts, Consumer<TableInWords.Source> go) {
    this.go = go;
    flow.getStyleClass().add("words");
    flow.setLineSpacing(1);
    ScrollPane scroll = Parts.scroll(flow);
    scroll.getStyleClass().add("words-pane");
    scroll.setId("table-in-words");
    scroll.setFocusTraversable(true);
    scroll.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    scroll.focusedProperty().subscribe(focused -> stand(focused ? Math.max(0, here) : -1));
    VBox.setVgrow(scroll, Priority.ALWAYS);
    var heading = Parts.row(8, Parts.label(texts.get("words"), "strong"));
    heading.getStyleClass().add("line-of-controls");
    node = new VBox(6, heading, scroll);
    node.setMinWidth(0);
  }

  Node node() {
    return node;
  }

  /** Shows what a table says now. */
  void show(TableInWords words) {
    if (shown.filter(words::equals).isPresent()) {
      return;
    }
    shown = Optional.of(words);
    var nodes = new ArrayList<Node>();
    var links = new ArrayList<Text>();
    var leads = new ArrayList<TableInWords.Source>();
    for (TableInWords.Sentence sentence : words.sentences()) {
      for (TableInWords.Phrase phrase : sentence.phrases()) {
        switch (phrase) {
          case TableInWords.Phrase.Plain plain -> nodes.add(text(plain.text(), "plain-words"));
          case TableInWords.Phrase.Said said -> {
            Text link = link(said);
            nodes.add(link);
            links.add(link);
            leads.add(said.source());
          }
        }
      }
      nodes.add(text(" ", "plain-words"));
    }
    phrases = List.copyOf(links);
    sources = List.copyOf(leads);
    here = -1;
    flow.getChildren().setAll(nodes);
    flow.setAccessibleText(words.text());
  }

  private Text link(TableInWords.Phrase.Said said) {
    Text link = text(said.text(), "phrase");
    link.setAccessibleRole(AccessibleRole.HYPERLINK);
    link.setOnMouseClicked(event -> go.accept(said.source()));
    return link;
  }

  private static Text text(String words, String style) {
    var text = new Text(words);
    text.getStyleClass().add(style);
    return text;
  }

  private void key(KeyEvent event) {
    boolean taken =
        switch (event.getCode()) {
          case RIGHT, DOWN -> stand(here + 1);
          case LEFT, UP -> stand(here - 1);
          case ENTER -> follow();
          default -> false;
        };
    if (taken) {
      event.consume();
    }
  }

  private boolean follow() {
    boolean there = here >= 0 && here < sources.size();
    if (there) {
      go.accept(sources.get(here));
    }
    return there;
  }

  /** Marks a phrase, or none; past the ends it stays where it was. */
  private boolean stand(int phrase) {
    if (phrase >= phrases.size() || phrase < 0 && here == 0) {
      return true;
    }
    if (here >= 0 && here < phrases.size()) {
      phrases.get(here).pseudoClassStateChanged(HERE, false);
    }
    here = phrase;
    if (here >= 0) {
      phrases.get(here).pseudoClassStateChanged(HERE, true);
    }
    return true;
  }
}
