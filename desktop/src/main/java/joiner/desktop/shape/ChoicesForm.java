package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.HueMark;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.model.FieldType.Choice;
import joiner.model.Hue;
import org.kordamp.ikonli.feather.Feather;

/**
 * The fixed choices of a field: renamed in place, added at the end, moved with Alt and arrows,
 * marked, described, retired.
 */
final class ChoicesForm {
  private final ChoicesModel model;
  private final Texts texts;

  ChoicesForm(ChoicesModel model, Texts texts) {
    this.model = model;
    this.texts = texts;
  }

  List<Node> of(SheetModel.About.OfField of, Choice choice) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.label(texts.get("side.choices"), "heading"));
    nodes.add(Parts.prose(texts.get("side.field.choices"), "muted", "small"));
    choice.entries().forEach(entry -> nodes.add(entry(of, entry)));
    TextField more = TypedText.of("", text -> model.add(of, text));
    more.setId("choice-more");
    more.setPromptText(texts.get("side.choice.more"));
    more.setAccessibleText(texts.get("side.choice.more"));
    nodes.add(more);
    var grows = new CheckBox(texts.get("side.choice.grows"));
    grows.setId("choice-grows");
    grows.setSelected(choice.grows());
    grows.setOnAction(event -> model.grow(of, grows.isSelected()));
    nodes.add(grows);
    nodes.add(button("to-lookup", "side.toLookup", () -> model.toLookup(of)));
    nodes.add(Parts.prose(texts.get("side.toLookup.why"), "muted", "small"));
    nodes.add(button("to-several", "side.several", () -> model.allowSeveral(of)));
    nodes.add(
        Parts.prose(
            texts.get("side.several.why", of.table().noun().indefinite()), "muted", "small"));
    return nodes;
  }

  private Button button(String id, String key, Runnable action) {
    Button button = Parts.button(texts.get(key), action);
    button.setId(id);
    return button;
  }

  private Node entry(SheetModel.About.OfField of, Choice.Entry entry) {
    TextField text = TypedText.of(entry.text(), typed -> model.rename(of, entry, typed));
    text.setId("choice-" + entry.id().value());
    text.setAccessibleText(texts.get("side.field.choice", entry.text()));
    text.setMinWidth(40);
    HBox.setHgrow(text, Priority.ALWAYS);
    text.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          boolean up = event.getCode() == KeyCode.UP;
          if (event.isAltDown() && (up || event.getCode() == KeyCode.DOWN)) {
            model.move(of, entry, up ? -1 : 1);
            event.consume();
          }
        });
    if (entry.retired()) {
      text.getStyleClass().add("retired");
    }
    TextField meaning = meaning(of, entry);
    Node row =
        Parts.row(
            2, mark(of, entry), text, say(entry, meaning), retire(of, entry), remove(of, entry));
    var lines = new VBox(2, row, meaning);
    if (entry.retired()) {
      lines.getChildren().add(1, Parts.prose(texts.get("side.choice.retired"), "oak", "small"));
    }
    return lines;
  }

  /** What a choice means; there where something is said, or somebody wants to say it. */
  private TextField meaning(SheetModel.About.OfField of, Choice.Entry entry) {
    TextField meaning =
        TypedText.of(entry.description(), typed -> model.describe(of, entry, typed));
    meaning.setId("choice-meaning-" + entry.id().value());
    meaning.getStyleClass().add("small");
    meaning.setPromptText(texts.get("side.choice.meaning"));
    meaning.setAccessibleText(texts.get("side.choice.meaningOf", entry.text()));
    meaning.managedProperty().bind(meaning.visibleProperty());
    meaning.setVisible(!entry.description().isEmpty());
    return meaning;
  }

  private Node say(Choice.Entry entry, TextField meaning) {
    Button say =
        Parts.iconButton(
            Feather.MESSAGE_SQUARE,
            texts.get("side.choice.meaningOf", entry.text()),
            () -> {
              meaning.setVisible(true);
              meaning.requestFocus();
            });
    say.setId("choice-say-" + entry.id().value());
    return say;
  }

  private Node mark(SheetModel.About.OfField of, Choice.Entry entry) {
    Button mark = Parts.button("", () -> {}, "plain");
    mark.setGraphic(HueMark.of(entry.hue()));
    mark.setId("choice-hue-" + entry.id().value());
    mark.setAccessibleText(texts.get("side.choice.hue", entry.text(), word(entry.hue())));
    mark.setOnAction(
        event ->
            new Picker<>(texts.get("hue.pick"), hues())
                .at(Optional.of(entry.hue()))
                .marked(hue -> Optional.of(HueMark.of(hue)))
                .open(mark, hue -> model.mark(of, entry, hue)));
    return mark;
  }

  private Offers<Optional<Hue>> hues() {
    List<Optional<Hue>> all =
        Stream.concat(
                Stream.of(Optional.<Hue>empty()), Arrays.stream(Hue.values()).map(Optional::of))
            .toList();
    return Offers.among(all, this::word);
  }

  private String word(Optional<Hue> hue) {
    return texts.get("hue." + hue.map(Hue::word).orElse("none"));
  }

  private Node retire(SheetModel.About.OfField of, Choice.Entry entry) {
    Button retire =
        Parts.iconButton(
            entry.retired() ? Feather.ROTATE_CCW : Feather.ARCHIVE,
            texts.get(entry.retired() ? "side.choice.restore" : "side.choice.retire", entry.text()),
            () -> model.retire(of, entry));
    retire.setId("choice-retire-" + entry.id().value());
    return retire;
  }

  private Node remove(SheetModel.About.OfField of, Choice.Entry entry) {
    return Parts.iconButton(
        Feather.X, texts.get("side.choice.remove", entry.text()), () -> model.remove(of, entry));
  }
}
