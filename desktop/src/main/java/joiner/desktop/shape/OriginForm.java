package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Control;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextInputControl;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.expression.Formula;
import joiner.meaning.OriginWords;
import joiner.model.Field;
import joiner.model.Generator;
import joiner.model.Origin;
import joiner.model.Relationship;
import joiner.model.Stamp;
import joiner.model.Summing;

/** Where the values of a field come from, with what that gives while it is typed. */
final class OriginForm {
  private final FieldsModel fields;
  private final OriginsModel model;
  private final SheetModel sheet;
  private final Texts texts;

  OriginForm(FieldsModel fields, SheetModel sheet, Texts texts) {
    this.fields = fields;
    this.model = fields.origins();
    this.sheet = sheet;
    this.texts = texts;
  }

  List<Node> of(SheetModel.About.OfField of) {
    Field field = of.field();
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.label(texts.get("origin"), "heading"));
    nodes.add(source(field));
    nodes.addAll(
        switch (field.origin()) {
          case Origin.Typed(boolean once) -> List.of(once(field, once));
          case Origin.Generated(Generator by) ->
              new GeneratorForm(
                      model, texts, field, other -> give(field, new Origin.Generated(other)))
                  .of(by);
          case Origin.Stamped(Stamp now) -> List.of(stamp(field, now));
          case Origin.Copied(Formula now) -> List.of(copied(field, now));
          case Origin.Computed(Formula formula) -> computed(field, formula);
          case Origin.SummedUp summed -> summed(field, summed);
        });
    if (OriginsModel.isGiven(field)) {
      Label rows = Parts.prose(sheet.examples(of), "muted", "small");
      rows.setId("origin-examples");
      Button entered =
          Parts.button(
              texts.get("worked.enter"), () -> give(field, new DefaultOffers.Given.Entered()));
      entered.setId("origin-entered");
      if (field.isComputed()) {
        nodes.add(rows);
      }
      nodes.add(entered);
      nodes.add(Parts.label(texts.get("target"), "heading"));
      model.targets(field).forEach(target -> nodes.add(target(target)));
    }
    return nodes;
  }

  private static Node target(OriginsModel.Target target) {
    return target.falls()
        ? Parts.prose(
            target.words().startsWith(target.engine())
                ? target.words()
                : target.engine() + ": " + target.words(),
            "oak",
            "small")
        : Parts.fact(target.engine(), target.words());
  }

  /** Whether what was entered stays. */
  private Node once(Field field, boolean now) {
    var box = new CheckBox(texts.get("origin.stays"));
    box.setId("origin-stays");
    box.setWrapText(true);
    box.setSelected(now);
    box.setOnAction(event -> give(field, box.isSelected() ? Origin.ONCE : Origin.TYPED));
    return box;
  }

  private Node copied(Field field, Formula now) {
    var path =
        TypedText.of(
            now.text(),
            text -> Formula.unlessBlank(text).ifPresent(f -> give(field, new Origin.Copied(f))));
    path.getStyleClass().add("mono");
    return beside("path", path);
  }

  private Node stamp(Field field, Stamp now) {
    return choice(
        "stamp",
        List.of(Stamp.values()),
        now,
        OriginWords::of,
        stamp -> give(field, new Origin.Stamped(stamp)));
  }

  /** What the origin is called, and another to be picked. */
  private Node source(Field field) {
    String kind = texts.get("origin." + DefaultOffers.kind(field.origin()));
    Button button = picked("source", kind);
    button.setOnAction(
        event ->
            new Picker<>(texts.get("origin.pick"), model.offers(field).elsewhere())
                .at(OriginsModel.given(field))
                .open(button, given -> give(field, given)));
    return button;
  }

  private void give(Field field, DefaultOffers.Given given) {
    fields.give(List.of(field), given);
  }

  private void give(Field field, Origin origin) {
    give(field, new DefaultOffers.Given.From(origin));
  }

  private Button picked(String key, String now) {
    Button button = Parts.button(now, () -> {}, "picked");
    button.setId("origin-" + key);
    button.setMinWidth(0);
    button.setMaxWidth(Double.MAX_VALUE);
    return button;
  }

  private List<Node> computed(Field field, Formula now) {
    var formula = new TextArea(now.text());
    formula.setId("origin-formula");
    formula.setWrapText(true);
    formula.setPrefRowCount(3);
    formula.getStyleClass().add("mono");
    TypedText.settle(
        formula,
        now::text,
        text -> model.give(List.of(field), DefaultOffers.WORKED_OUT + " " + text));
    TypedText.leaveWithTab(formula);
    Label gives = gives();
    formula
        .textProperty()
        .subscribe(text -> tell(gives, field, new Origin.Computed(new Formula(text.strip()))));
    return List.of(Parts.labelled(texts.get("worked.by"), formula), gives);
  }

  private static Label gives() {
    Label gives = Parts.prose("", "small");
    gives.setId("origin-gives");
    return gives;
  }

  /** Says what comes of an origin. */
  private void tell(Label gives, Field field, Origin origin) {
    OriginsModel.Tells tells = model.tells(field, origin);
    gives.setText(tells.words());
    gives.getStyleClass().removeAll("muted", "brick");
    gives.getStyleClass().add(tells.isWrong() ? "brick" : "muted");
  }

  private List<Node> summed(Field field, Origin.SummedUp now) {
    var nodes = new ArrayList<Node>();
    nodes.add(
        choice(
            "how",
            List.of(Summing.values()),
            now.how(),
            how -> texts.get("origin.how." + how.name()),
            how -> give(field, now.withHow(how))));
    List<Relationship> children = model.children();
    children.stream()
        .filter(over -> over.id().equals(now.over()))
        .findFirst()
        .ifPresent(
            over ->
                nodes.add(
                    choice(
                        "over",
                        children,
                        over,
                        model::rows,
                        other -> give(field, now.withOver(other.id())))));
    Label gives = gives();
    nodes.add(part("of", field, now.of(), now::withOf, gives));
    nodes.add(part("where", field, now.where(), now::withWhere, gives));
    if (now.how() == Summing.JOINED) {
      nodes.add(part("by", field, now.by(), now::withBy, gives));
      nodes.add(
          beside(
              "between", TypedText.of(now.between(), text -> give(field, now.withBetween(text)))));
    }
    tell(gives, field, now);
    nodes.add(gives);
    return nodes;
  }

  private <T> Node choice(
      String key, List<T> things, T now, Function<T, String> words, Consumer<T> picked) {
    return beside(key, Picker.button(texts.get("origin." + key), things, now, words, picked));
  }

  /** A formula of the rows that are summed up; what it gives is told while it is typed. */
  private Node part(
      String key,
      Field field,
      Optional<Formula> now,
      Function<Optional<Formula>, Origin.SummedUp> with,
      Label gives) {
    TextInputControl typed =
        TypedText.of(
            now.map(Formula::text).orElse(""),
            text -> give(field, with.apply(Formula.unlessBlank(text))));
    typed.setPromptText(texts.get("origin." + key + ".none"));
    typed.getStyleClass().add("mono");
    typed
        .textProperty()
        .addListener((text, was, is) -> tell(gives, field, with.apply(Formula.unlessBlank(is))));
    return beside(key, typed);
  }

  private Node beside(String key, Control control) {
    control.setId("origin-" + key);
    return Parts.beside(texts.get("origin." + key), control);
  }
}
