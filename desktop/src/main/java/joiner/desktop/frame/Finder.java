package joiner.desktop.frame;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;

/** Finds tables, fields and actions by typing; every action shows its shortcut. */
final class Finder {
  private static final int MOST_SHOWN = 60;

  private final Actions actions;
  private final Consumer<Runnable> complete;
  private final TextField typed = new TextField();
  private final ListView<Command> found = new ListView<>();
  private List<Actions.Found> known = List.of();
  private Optional<Node> before = Optional.empty();
  private final StackPane veil = new StackPane();

  /**
   * A finder.
   *
   * @param complete makes all commands known and then does something; some are made only then
   */
  Finder(Actions actions, Consumer<Runnable> complete) {
    this.actions = actions;
    this.complete = complete;
    typed.setPromptText(Texts.beside(Finder.class).get("finder.prompt"));
    typed.setAccessibleText(typed.getPromptText());
    typed.setId("finder-text");
    typed.textProperty().subscribe(this::search);
    typed.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    found.setCellFactory(list -> new ActionCell());
    found.setFocusTraversable(false);
    found.setOnMouseClicked(event -> run());
    found.setPrefHeight(340);
    var box = new VBox(typed, found);
    box.getStyleClass().add("finder");
    box.setMaxSize(520, 400);
    StackPane.setAlignment(box, Pos.TOP_CENTER);
    StackPane.setMargin(box, new Insets(56, 0, 0, 0));
    veil.getStyleClass().add("veil");
    veil.getChildren().add(box);
    veil.setVisible(false);
    veil.setOnMouseClicked(event -> close());
  }

  Node node() {
    return veil;
  }

  void open() {
    before = Optional.ofNullable(veil.getScene()).map(javafx.scene.Scene::getFocusOwner);
    known = actions.all();
    veil.setVisible(true);
    typed.clear();
    search("");
    typed.requestFocus();
    complete.accept(this::again);
  }

  /** More commands are known now; what is picked stays picked if it is still the first. */
  private void again() {
    known = actions.all();
    if (found.getSelectionModel().getSelectedIndex() <= 0) {
      search(typed.getText());
    }
  }

  private void close() {
    veil.setVisible(false);
    before.ifPresent(Node::requestFocus);
  }

  private void search(String text) {
    var matching = new ArrayList<Command>();
    if (veil.isVisible()) {
      matching.addAll(actions.with(text));
      matching.addAll(Actions.matching(known, text, MOST_SHOWN));
    }
    found.getItems().setAll(matching);
    found.getSelectionModel().selectFirst();
  }

  private void key(KeyEvent event) {
    KeyCode code = event.getCode();
    int at = found.getSelectionModel().getSelectedIndex();
    if (code == KeyCode.ESCAPE) {
      close();
    } else if (code == KeyCode.ENTER) {
      run();
    } else if (code == KeyCode.DOWN || code == KeyCode.UP) {
      int next =
          Math.clamp(
              at + (code == KeyCode.DOWN ? 1 : -1), 0, Math.max(0, found.getItems().size() - 1));
      found.getSelectionModel().select(next);
      found.scrollTo(Math.max(0, next - 4));
    } else {
      return;
    }
    event.consume();
  }

  private void run() {
    Command action = found.getSelectionModel().getSelectedItem();
    close();
    if (action != null) {
      action.run().run();
    }
  }

  private static final class ActionCell extends ListCell<Command> {
    @Override
    protected void updateItem(Command action, boolean empty) {
      super.updateItem(action, empty);
      setPrefWidth(0); // As wide as the list, whatever the name.
      setText(null);
      if (empty || action == null) {
        setGraphic(null);
        return;
      }
      var name =
          action.sort() == Command.Sort.REMOVAL
              ? Parts.shortened(action.name(), "brick")
              : Parts.shortened(action.name());
      setGraphic(
          action.shortcut().isEmpty()
              ? name
              : Parts.row(8, name, Parts.spring(), Parts.label(action.shortcut(), "key")));
    }
  }
}
