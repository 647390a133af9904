package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.model.FieldType;
import org.kordamp.ikonli.feather.Feather;

/** The fixed choices of a field: renamed in place, added at the end, moved with Alt and arrows. */
final class ChoicesForm {
  private final SheetModel model;
  private final Texts texts;

  ChoicesForm(SheetModel model, Texts texts) {
    this.model = model;
    this.texts = texts;
  }

  List<Node> of(SheetModel.About.OfField of, FieldType.Choice choice) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.label(texts.get("side.choices"), "heading"));
    nodes.add(Parts.prose(texts.get("side.field.choices"), "muted", "small"));
    for (FieldType.Choice.Entry entry : choice.entries()) {
      nodes.add(entry(of, choice, entry));
    }
    TextField more = TypedText.of("", text -> model.addChoice(of, text));
    more.setId("choice-more");
    more.setPromptText(texts.get("side.choice.more"));
    more.setAccessibleText(texts.get("side.choice.more"));
    nodes.add(more);
    var table = Parts.button(texts.get("side.toLookup"), () -> model.toLookup(of));
    table.setId("to-lookup");
    nodes.add(table);
    nodes.add(Parts.prose(texts.get("side.toLookup.why"), "muted", "small"));
    return nodes;
  }

  private Node entry(
      SheetModel.About.OfField of, FieldType.Choice choice, FieldType.Choice.Entry entry) {
    TextField text = TypedText.of(entry.text(), typed -> model.renameChoice(of, entry, typed));
    text.setId("choice-" + entry.id().value());
    text.setAccessibleText(texts.get("side.field.choice", entry.text()));
    HBox.setHgrow(text, Priority.ALWAYS);
    text.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          boolean up = event.getCode() == KeyCode.UP;
          if (event.isAltDown() && (up || event.getCode() == KeyCode.DOWN)) {
            model.moveChoice(of, entry, up ? -1 : 1);
            event.consume();
          }
        });
    Node remove =
        Parts.iconButton(
            Feather.X,
            texts.get("side.choice.remove", entry.text()),
            () -> model.removeChoice(of, entry));
    remove.setDisable(choice.entries().size() == 1);
    return Parts.row(4, text, remove);
  }
}
