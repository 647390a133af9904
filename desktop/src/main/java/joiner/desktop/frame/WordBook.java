package joiner.desktop.frame;

import java.util.Locale;
import java.util.Optional;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Terms;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Glossary;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Workbench;

/** The words of the trade, each with its meaning and an example from the open design. */
final class WordBook {
  private final Workbench bench;
  private final Texts texts = Texts.beside(WordBook.class);
  private final StackPane veil = new StackPane();
  private final TextField typed = new TextField();
  private final ListView<Glossary.Entry> list = new ListView<>();
  private final VBox meaning = new VBox(8);
  private Optional<Node> before = Optional.empty();

  WordBook(Workbench bench) {
    this.bench = bench;
    veil.getStyleClass().add("veil");
    veil.setVisible(false);
    veil.setId("words");
    veil.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    veil.setOnMouseClicked(
        event -> {
          if (event.getTarget() == veil) {
            close();
          }
        });
    typed.setPromptText(texts.get("words.prompt"));
    typed.setAccessibleText(texts.get("words.prompt"));
    typed.textProperty().subscribe(this::narrow);
    list.setAccessibleText(texts.get("words.title"));
    list.setCellFactory(view -> new WordCell());
    list.getSelectionModel().selectedItemProperty().subscribe(this::show);
    list.setPrefWidth(190);
    list.setMinWidth(190);
    HBox.setHgrow(meaning, Priority.ALWAYS);
    var body = new HBox(16, list, meaning);
    body.setPrefHeight(300);
    var box =
        new VBox(
            10,
            Parts.label(texts.get("words.title"), "title"),
            typed,
            body,
            Parts.button(texts.get("notice.close"), this::close));
    box.getStyleClass().add("question");
    box.setMaxSize(620, VBox.USE_PREF_SIZE);
    StackPane.setAlignment(box, Pos.TOP_CENTER);
    StackPane.setMargin(box, new Insets(80, 24, 24, 24));
    veil.getChildren().add(box);
  }

  Node node() {
    return veil;
  }

  /** Opens at the word the focus is about, or at the one of the stage. */
  void open(Optional<Stage> stage) {
    before = Optional.ofNullable(veil.getScene()).map(Scene::getFocusOwner);
    String word =
        before
            .flatMap(Terms::wordOf)
            .orElseGet(() -> stage.map(WordBook::wordOf).orElse("Primary key"));
    veil.setVisible(true);
    typed.clear();
    narrow("");
    Glossary.shipped()
        .find(word)
        .ifPresent(
            entry -> {
              list.getSelectionModel().select(entry);
              list.scrollTo(entry);
            });
    typed.requestFocus();
  }

  private static String wordOf(Stage stage) {
    return switch (stage) {
      case GATHER -> "Functional dependency";
      case SHAPE -> "Primary key";
      case CONNECT -> "Relationship";
      case GUARD -> "Rule";
      case PROVE -> "Referential integrity";
      case SHIP -> "Target";
    };
  }

  private void close() {
    veil.setVisible(false);
    before.ifPresent(Node::requestFocus);
  }

  private void narrow(String text) {
    String wanted = text.strip().toLowerCase(Locale.ROOT);
    list.getItems()
        .setAll(
            Glossary.shipped().entries().stream()
                .filter(
                    entry ->
                        entry.word().toLowerCase(Locale.ROOT).contains(wanted)
                            || entry.meaning().toLowerCase(Locale.ROOT).contains(wanted))
                .toList());
    list.getSelectionModel().selectFirst();
  }

  private void show(Glossary.Entry entry) {
    meaning.getChildren().clear();
    if (entry != null) {
      meaning.getChildren().add(Parts.prose(entry.word(), "title"));
      meaning.getChildren().add(Parts.prose(entry.meaning()));
      Glossary.example(entry.word(), bench.design(), bench.table())
          .ifPresent(
              example -> {
                meaning.getChildren().add(Parts.label(texts.get("words.example"), "heading"));
                meaning.getChildren().add(Parts.prose(example));
              });
    }
  }

  private void key(KeyEvent event) {
    int at = list.getSelectionModel().getSelectedIndex();
    if (event.getCode() == KeyCode.ESCAPE || event.getCode() == KeyCode.F1) {
      close();
    } else if (event.getCode() == KeyCode.DOWN || event.getCode() == KeyCode.UP) {
      int step = event.getCode() == KeyCode.DOWN ? 1 : -1;
      int next = Math.clamp(at + step, 0, Math.max(0, list.getItems().size() - 1));
      list.getSelectionModel().select(next);
      list.scrollTo(Math.max(0, next - 4));
    } else {
      return;
    }
    event.consume();
  }

  private static final class WordCell extends ListCell<Glossary.Entry> {
    @Override
    protected void updateItem(Glossary.Entry entry, boolean empty) {
      super.updateItem(entry, empty);
      setText(empty || entry == null ? null : entry.word());
    }
  }
}
