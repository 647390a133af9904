package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Control;
import javafx.scene.control.TextArea;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.edit.TypeChoice;
import joiner.edit.UsualType;
import joiner.expression.Kind;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Kit;
import joiner.model.Limits;
import joiner.model.MediaType;
import joiner.model.Origin;
import joiner.naming.Counts;

/** All that is said of one field, or of several together, as a form. */
final class FieldForm {
  private final FieldsModel fields;
  private final SheetModel model;
  private final Texts texts;
  private final PatternForm patterns;

  FieldForm(FieldsModel fields, SheetModel model, Texts texts) {
    this.fields = fields;
    this.model = model;
    this.texts = texts;
    this.patterns = new PatternForm(model, texts);
  }

  /** The form of one field. */
  List<Node> of(SheetModel.About.OfField of) {
    Field field = of.field();
    List<Field> alone = List.of(field);
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(field.label(), "title"));
    nodes.add(Parts.prose(texts.get("side.field.of", of.table().label()), "muted"));
    nodes.add(typed("label", field.label(), text -> fields.relabel(field, text)));
    nodes.add(typed("name", field.name(), text -> fields.rename(field, text)));
    nodes.add(type(alone, fields.type(field)));
    if (hasSize(field)) {
      nodes.add(typed("size", TypeChoice.sizeOf(field), text -> fields.resize(alone, text)));
    }
    boolean refers = of.references().stream().anyMatch(up -> up.childFields().size() == 1);
    if (isMeasurable(field) && (!refers || !field.unit().isEmpty())) {
      nodes.add(typed("unit", field.unit(), text -> fields.measure(alone, text)));
    }
    nodes.add(usual(field));
    nodes.add(check("required", alone, fields::isRequired, fields::require));
    nodes.add(check("unique", alone, fields::isUnique, fields::setUnique));
    if (!OriginsModel.isGiven(field)) {
      nodes.add(defaults(alone, fields.origins().words(field)));
    }
    nodes.addAll(new OriginForm(fields, model, texts).of(of));
    if (field.type() instanceof FieldType.Content content) {
      nodes.add(kinds(field, content));
    }
    if (field.type() instanceof FieldType.Choice choice) {
      nodes.addAll(new ChoicesForm(model.choices(), texts).of(of, choice));
    } else {
      if (isOrdered(field) && (!refers || isBounded(field))) {
        nodes.add(range(of));
      }
      boolean formed = field.origin() instanceof Origin.Generated;
      boolean textual = field.type().kind() == Kind.TEXT || field.limits().pattern().isPresent();
      if (textual && !formed) {
        nodes.addAll(patterns.of(of));
      }
    }
    of.references().stream()
        .filter(up -> up.childFields().size() == 1)
        .forEach(up -> nodes.addAll(new PickingForm(model.picking(), texts).of(up)));
    GroupsModel.of(of.table(), List.of(field.id()))
        .flatMap(fields.kits()::of)
        .ifPresent(kit -> nodes.addAll(inKit(kit, field)));
    nodes.add(note(field));
    nodes.removeIf(node -> node instanceof HBox box && box.getChildren().isEmpty());
    return nodes;
  }

  /** The form of several fields: what is changed goes to all of them. */
  List<Node> of(SheetModel.About.OfFields of) {
    List<Field> chosen = of.fields();
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(String.join(", ", of.table().labelsOf(ids(chosen))), "title"));
    nodes.add(Parts.prose(texts.get("side.fields.of", chosen.size(), of.table().label()), "muted"));
    nodes.add(Parts.label(texts.get("side.together"), "heading"));
    nodes.add(type(chosen, common(chosen, fields::type)));
    boolean sized = chosen.stream().allMatch(FieldForm::hasSize);
    if (sized) {
      var size =
          TypedText.of(common(chosen, TypeChoice::sizeOf), text -> fields.resize(chosen, text));
      size.setPromptText(texts.get("mixed"));
      nodes.add(beside("size", size));
    }
    if (chosen.stream().allMatch(FieldForm::isMeasurable)) {
      var unit = TypedText.of(common(chosen, Field::unit), text -> fields.measure(chosen, text));
      unit.setPromptText(
          texts.get(chosen.stream().allMatch(f -> f.unit().isEmpty()) ? "unit.none" : "mixed"));
      nodes.add(beside("unit", unit));
    }
    nodes.add(check("required", chosen, fields::isRequired, fields::require));
    nodes.add(check("unique", chosen, fields::isUnique, fields::setUnique));
    nodes.add(defaults(chosen, common(chosen, fields.origins()::words)));
    Button unique =
        Parts.button(texts.get("side.uniqueTogether"), () -> fields.keys().uniqueTogether(chosen));
    unique.setId("unique-together");
    Button index = Parts.button(texts.get("side.index"), () -> fields.keys().index(chosen));
    index.setId("index-fields");
    nodes.add(new FlowPane(8, 8, unique, index, group(of), kit(chosen)));
    GroupsModel.of(of.table(), ids(chosen))
        .flatMap(fields.kits()::of)
        .ifPresent(kit -> nodes.addAll(ofKit(kit)));
    return nodes;
  }

  /** Makes a kit of the fields. */
  private Button kit(List<Field> chosen) {
    Button button = Parts.button(texts.get("kit.make"), () -> {});
    button.setId("make-kit");
    button.setOnAction(
        event ->
            new Picker<>(
                    texts.get("kit.name"),
                    typed -> {
                      String label = typed.isBlank() ? texts.get("kit.new") : typed.strip();
                      return List.of(
                          new Offers.Offer<>(label, label, texts.get("kit.new.detail"), ""));
                    })
                .open(button, label -> fields.kits().make(chosen, label)));
    return button;
  }

  /** That the field is of a kit, and the ways for it out of that. */
  private List<Node> inKit(Kit kit, Field field) {
    return fields
        .kits()
        .ofKit(kit, field)
        .map(
            ofKit -> {
              Button out =
                  Parts.button(texts.get("kit.out"), () -> fields.kits().take(kit, ofKit, false));
              out.setId("out-of-kit");
              Button remove =
                  Parts.button(texts.get("kit.remove"), () -> fields.kits().take(kit, ofKit, true));
              remove.setId("remove-from-kit");
              return List.<Node>of(
                  Parts.label(texts.get("kit.of", kit.label()), "heading"),
                  Parts.fact(texts.get("kit.tables"), Counts.of(fields.kits().tables(kit))),
                  new FlowPane(8, 8, out, remove));
            })
        .orElse(List.of());
  }

  /** In how many tables the kit is, and the way out of it. */
  private List<Node> ofKit(Kit kit) {
    Button leave = Parts.button(texts.get("kit.leave"), () -> fields.kits().leave(kit));
    leave.setId("leave-kit");
    Button more = Parts.button(texts.get("kit.more"), () -> {});
    more.setId("spread-kit");
    more.setOnAction(
        event ->
            new Picker<>(texts.get("kit.into"), fields.kits().others(kit))
                .open(more, into -> fields.kits().drop(kit, into)));
    return List.of(
        Parts.label(texts.get("kit.of", kit.label()), "heading"),
        Parts.fact(texts.get("kit.tables"), Counts.of(fields.kits().tables(kit))),
        Parts.prose(texts.get("kit.how"), "muted", "small"),
        new FlowPane(8, 8, more, leave));
  }

  /** Lets the fields be read as one thing, or no longer. */
  private Button group(SheetModel.About.OfFields of) {
    var group = GroupsModel.of(of.table(), ids(of.fields()));
    Button button =
        group
            .map(
                there ->
                    Parts.button(
                        texts.get("side.ungroup"), () -> fields.groups().apart(of.table(), there)))
            .orElseGet(
                () ->
                    Parts.button(
                        texts.get("side.group"),
                        () -> fields.groups().together(of.table(), of.fields())));
    button.setId("group-fields");
    return button;
  }

  private static List<FieldId> ids(List<Field> fields) {
    return fields.stream().map(Field::id).toList();
  }

  /** What all of them say; empty where they differ. */
  private static String common(List<Field> fields, Function<Field, String> value) {
    List<String> values = fields.stream().map(value).distinct().toList();
    return values.size() == 1 ? values.getFirst() : "";
  }

  private static boolean hasSize(Field field) {
    boolean choice = field.type() instanceof FieldType.Choice;
    boolean kept = field.type() instanceof FieldType.Kept;
    return !choice && !kept && !TypeChoice.sizeOf(field.type()).isEmpty();
  }

  private Node typed(String key, String value, Consumer<String> change) {
    return beside(key, TypedText.of(value, change));
  }

  private Node beside(String key, Control control) {
    control.setId("field-" + key);
    return Parts.beside(texts.get("side.field." + key), control);
  }

  private Node type(List<Field> chosen, String now) {
    Button button = picked(now);
    button.setOnAction(
        event ->
            new Picker<>(texts.get("type.pick"), fields.typeOffers())
                .open(button, held -> fields.retype(chosen, held)));
    return beside("type", button);
  }

  private Node defaults(List<Field> chosen, String now) {
    boolean differ = now.isEmpty() && chosen.stream().anyMatch(f -> f.defaultValue().isPresent());
    Button button = picked(now.isEmpty() && !differ ? texts.get("default.none") : now);
    Field first = chosen.getFirst();
    button.setOnAction(
        event ->
            new Picker<>(texts.get("default.pick"), fields.origins().offers(first))
                .at(OriginsModel.given(first))
                .open(button, given -> fields.give(chosen, given)));
    return beside("default", button);
  }

  /** A button that looks like a field, for what is picked rather than typed. */
  private Button picked(String now) {
    Button button = Parts.button(now.isEmpty() ? texts.get("mixed") : now, () -> {}, "picked");
    button.setMinWidth(0);
    button.setMaxWidth(Double.MAX_VALUE);
    if (now.isEmpty()) {
      button.getStyleClass().add("mixed");
    }
    return button;
  }

  private Node check(
      String key,
      List<Field> chosen,
      Function<Field, Boolean> on,
      BiConsumer<List<Field>, Boolean> set) {
    long count = chosen.stream().filter(on::apply).count();
    var box = new CheckBox();
    box.setSelected(count == chosen.size());
    box.setIndeterminate(count > 0 && count < chosen.size());
    if (box.isIndeterminate()) {
      box.setText(texts.get("mixed"));
    }
    box.setOnAction(event -> set.accept(chosen, box.isSelected()));
    return beside(key, box);
  }

  /** Whether its values are numbers of something, or it has a unit all the same. */
  private static boolean isMeasurable(Field field) {
    boolean counter = field.type() instanceof FieldType.Counter;
    return !field.unit().isEmpty() || !counter && field.type().kind().isNumeric();
  }

  /** Whether bounds say something of its values, or are there all the same. */
  private static boolean isOrdered(Field field) {
    return isBounded(field) || field.type().kind().isOrdered();
  }

  private static boolean isBounded(Field field) {
    return field.limits().minimum().isPresent() || field.limits().maximum().isPresent();
  }

  private Node usual(Field field) {
    Optional<UsualType> usual =
        UsualType.of(field.label()).filter(found -> found.type().equals(field.type()));
    return usual
        .<Node>map(
            found ->
                Parts.prose(
                    texts.get("side.field.usual", found.words(), found.reason()), "muted", "small"))
        .orElseGet(HBox::new);
  }

  private Node range(SheetModel.About.OfField of) {
    Limits limits = of.field().limits();
    var least = TypedText.of(limits.minimum().orElse(""), text -> model.least(of, text));
    var greatest = TypedText.of(limits.maximum().orElse(""), text -> model.greatest(of, text));
    least.setId("field-least");
    greatest.setId("field-greatest");
    least.setAccessibleText(texts.get("side.field.least"));
    greatest.setAccessibleText(texts.get("side.field.greatest"));
    var both = new HBox(6, least, Parts.label("…", "muted"), greatest);
    both.setAlignment(Pos.CENTER_LEFT);
    List.of(least, greatest)
        .forEach(
            end -> {
              end.setPrefColumnCount(4);
              HBox.setHgrow(end, Priority.ALWAYS);
            });
    return Parts.beside(texts.get("side.field.range"), both);
  }

  /** Which kinds of file a field may hold. */
  private Node kinds(Field field, FieldType.Content type) {
    var kinds = new FlowPane(10, 4);
    for (MediaType media : MediaType.values()) {
      var box = new CheckBox(media.name());
      box.setId("field-media-" + media.name());
      box.setSelected(type.media().contains(media));
      box.setTooltip(new Tooltip(media.iana()));
      box.setOnAction(event -> fields.admit(field, type, media, box.isSelected()));
      kinds.getChildren().add(box);
    }
    String which = type.media().isEmpty() ? "side.field.kinds.any" : "side.field.kinds";
    return new VBox(2, Parts.label(texts.get(which), "muted", "small"), kinds);
  }

  private Node note(Field field) {
    var area = new TextArea(field.description());
    area.setWrapText(true);
    area.setPrefRowCount(2);
    area.setId("field-note");
    TypedText.settle(area, field::description, text -> fields.note(field, text));
    TypedText.leaveWithTab(area);
    return Parts.labelled(texts.get("side.field.note"), area);
  }
}
