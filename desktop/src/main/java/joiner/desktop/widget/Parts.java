package joiner.desktop.widget;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Control;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.Ikon;
import org.kordamp.ikonli.javafx.FontIcon;

/** Labels, buttons and boxes as Joiner draws them. */
public final class Parts {
  /** A value of so many characters stands in one line. */
  private static final int ONE_LINE = 14;

  /** Names at the left of what they name. */
  private static final double NAME_WIDTH = 78;

  private Parts() {}

  /** A text with style classes. */
  public static Label label(String text, String... styles) {
    var label = new Label(text);
    label.getStyleClass().addAll(styles);
    label.setMinWidth(Region.USE_PREF_SIZE);
    return label;
  }

  /** A text that is shortened where there is no room for it. */
  public static Label shortened(String text, String... styles) {
    var label = label(text, styles);
    label.setMinWidth(0);
    return label;
  }

  /** A text that wraps. */
  public static Label prose(String text, String... styles) {
    var label = new Label(text);
    label.getStyleClass().addAll(styles);
    label.setWrapText(true);
    label.setMinHeight(Region.USE_PREF_SIZE);
    return label;
  }

  /** A button that does something. */
  public static Button button(String text, Runnable action, String... styles) {
    var button = new Button(text);
    button.setMnemonicParsing(false); // Names have underscores.
    button.getStyleClass().addAll(styles);
    button.setMinWidth(Region.USE_PREF_SIZE);
    button.setOnAction(event -> action.run());
    return button;
  }

  /** A button as wide as there is room, whose words go on below. */
  public static Button way(String words, Runnable action) {
    Button way = button(words, action, "way");
    way.setWrapText(true);
    way.setMinWidth(0);
    way.setMaxWidth(Double.MAX_VALUE);
    return way;
  }

  /** Something that was picked and can be taken away again by Delete. */
  public static Button chip(String text, Runnable action, Runnable remove, String... styles) {
    Button chip = button(text, action, styles);
    chip.getStyleClass().add("chip");
    chip.addEventHandler(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.DELETE || event.getCode() == KeyCode.BACK_SPACE) {
            remove.run();
            event.consume();
          }
        });
    return chip;
  }

  /** Lets something be seen, or be gone with the room it takes. */
  public static void toggle(Node node, boolean seen) {
    node.setVisible(seen);
    node.setManaged(seen);
  }

  /** A button with a picture only; its name is its tooltip and accessible text. */
  public static Button iconButton(Ikon icon, String name, Runnable action) {
    var button = button("", action, "plain");
    button.setGraphic(new FontIcon(icon));
    button.setTooltip(new Tooltip(name));
    button.setAccessibleText(name);
    return button;
  }

  /** Takes up all room that is left. */
  public static Region spring() {
    var region = new Region();
    HBox.setHgrow(region, Priority.ALWAYS);
    VBox.setVgrow(region, Priority.ALWAYS);
    return region;
  }

  /** Nodes in a row, centred. */
  public static HBox row(double gap, Node... nodes) {
    var row = new HBox(gap, nodes);
    row.setAlignment(Pos.CENTER_LEFT);
    return row;
  }

  /** A name on the left and its value on the right. */
  public static Node fact(String name, String value, String... styles) {
    var shown = prose(value, styles);
    var called = prose(name, "muted");
    if (value.length() <= ONE_LINE) {
      shown.setMinWidth(Region.USE_PREF_SIZE); // Rather the name goes on in a second line.
    } else {
      called.setMinWidth(Region.USE_PREF_SIZE);
    }
    var row = row(12, called, spring(), shown);
    row.getStyleClass().add("fact");
    return row;
  }

  /** A field with its name above it. */
  public static Node labelled(String name, TextInputControl field) {
    field.setAccessibleText(name);
    return new VBox(2, label(name, "muted", "small"), field);
  }

  /** A control with its name at the left, the control as wide as there is room. */
  public static Node beside(String name, Region control) {
    control.setAccessibleText(name);
    var called = prose(name, "muted", "small");
    called.setPrefWidth(NAME_WIDTH);
    called.setMinWidth(NAME_WIDTH);
    control.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(control, Priority.ALWAYS);
    var row = row(8, called, control);
    if (control instanceof Control named) {
      called.setLabelFor(named);
    }
    return row;
  }

  /** A framed piece. */
  public static VBox card(List<? extends Node> nodes, String... styles) {
    var card = new VBox();
    card.getChildren().addAll(nodes);
    card.getStyleClass().add("card");
    card.getStyleClass().addAll(styles);
    card.setMinHeight(Region.USE_PREF_SIZE);
    return card;
  }

  /** Content that scrolls up and down only. */
  public static ScrollPane scroll(Node content) {
    var scroll = new ScrollPane(content);
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    return scroll;
  }
}
