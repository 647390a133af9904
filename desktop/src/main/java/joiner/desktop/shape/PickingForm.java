package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Control;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.expression.Formula;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Picking;
import joiner.model.Relationship;

/** How the rows that a field refers to are picked: what is shown, in what order, which of them. */
final class PickingForm {
  private final PickingModel model;
  private final Texts texts;

  PickingForm(PickingModel model, Texts texts) {
    this.model = model;
    this.texts = texts;
  }

  List<Node> of(Relationship r) {
    Picking picking = r.picking();
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.label(texts.get("picking", model.parent(r).label()), "heading"));
    nodes.add(
        fields(r, "shown", picking.shown(), "picking.shown.none", field -> model.show(r, field)));
    nodes.add(
        fields(r, "order", picking.order(), "picking.order.none", field -> model.order(r, field)));
    var only =
        TypedText.of(picking.only().map(Formula::text).orElse(""), text -> model.only(r, text));
    only.setPromptText(texts.get("picking.only.none"));
    nodes.add(beside("only", only));
    model.fault(r).ifPresent(why -> nodes.add(Parts.prose(why, "brick", "small")));
    OptionalInt most = picking.atOnce();
    var atOnce =
        TypedText.of(
            most.isPresent() ? String.valueOf(most.getAsInt()) : "", text -> model.atOnce(r, text));
    atOnce.setPromptText(texts.get("picking.atOnce.none"));
    nodes.add(beside("atOnce", atOnce));
    var mayAdd = new CheckBox(texts.get("picking.mayAdd", model.parent(r).noun().indefinite()));
    mayAdd.setId("picking-mayAdd");
    mayAdd.setSelected(picking.mayAdd());
    mayAdd.setOnAction(event -> model.mayAdd(r, mayAdd.isSelected()));
    nodes.add(mayAdd);
    return nodes;
  }

  /** Fields of the parent, each put in or taken out by picking it. */
  private Node fields(
      Relationship r, String key, List<FieldId> now, String none, Consumer<FieldId> toggle) {
    String said = String.join(", ", model.labels(r, now));
    Button button = Parts.button(said.isEmpty() ? texts.get(none) : said, () -> {}, "picked");
    button.setMinWidth(0);
    List<Offers.Offer<FieldId>> offers =
        model.parent(r).fields().stream().map(field -> offer(field, now)).toList();
    button.setOnAction(
        event ->
            new Picker<FieldId>(
                    texts.get("picking." + key + ".pick"), typed -> Offers.narrowed(offers, typed))
                .open(button, toggle));
    return beside(key, button);
  }

  private Offers.Offer<FieldId> offer(Field field, List<FieldId> now) {
    int at = now.indexOf(field.id());
    return new Offers.Offer<>(
        field.id(), field.label(), at < 0 ? "" : texts.get("picking.in", at + 1), "");
  }

  private Node beside(String key, Control control) {
    control.setId("picking-" + key);
    return Parts.beside(texts.get("picking." + key), control);
  }
}
