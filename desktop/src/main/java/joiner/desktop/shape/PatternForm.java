package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.IntConsumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.naming.WordList;
import joiner.shape.Marks;
import joiner.shape.PartKind;
import joiner.shape.PatternPart;
import joiner.shape.PatternPart.What;
import joiner.shape.PatternWords;
import joiner.shape.TextPattern;
import org.kordamp.ikonli.feather.Feather;

/** The pattern of a text: said in words, put together from parts, tried and taken from the rows. */
final class PatternForm {
  private final SheetModel model;
  private final Texts texts;

  /** Whether the parts are in sight; they stay so while one goes from field to field. */
  private boolean open;

  PatternForm(SheetModel model, Texts texts) {
    this.model = model;
    this.texts = texts;
  }

  List<Node> of(SheetModel.About.OfField of) {
    String expression = of.field().limits().seen().orElse("");
    var nodes = new ArrayList<Node>();
    TextField typed = TypedText.of(expression, text -> model.pattern(of, text));
    typed.setId("field-pattern");
    nodes.add(Parts.beside(texts.get("side.field.pattern"), typed));
    if (!expression.isEmpty()) {
      nodes.add(words(expression));
      nodes.add(trial(expression));
      Marks.parted(expression).ifPresent(marks -> nodes.add(marks(of)));
    }
    Button seen = Parts.button(texts.get("pattern.seen"), () -> model.patternFromRows(of));
    seen.setId("pattern-from-rows");
    var parts = new ToggleButton(texts.get("pattern.parts"));
    parts.setId("pattern-parts");
    parts.setSelected(open);
    nodes.add(new FlowPane(8, 8, parts, seen));
    var rows = new VBox(4);
    parts
        .selectedProperty()
        .subscribe(
            on -> {
              open = on;
              rows.getChildren().setAll(on ? parts(of, expression) : List.of());
            });
    nodes.add(rows);
    return nodes;
  }

  private Node words(String expression) {
    if (TextPattern.of(expression) instanceof TextPattern.Read.Refused(String why)) {
      return Parts.prose(why, "brick", "small");
    }
    return Parts.prose(
        PatternWords.of(expression)
            .map(words -> texts.get("pattern.says", words))
            .orElseGet(() -> texts.get("pattern.beyond")),
        "muted",
        "small");
  }

  /** Whether the rows hold the marks that people see. */
  private Node marks(SheetModel.About.OfField of) {
    var box = new CheckBox(texts.get("pattern.marks"));
    box.setId("pattern-marks");
    box.setWrapText(true);
    box.setSelected(of.field().limits().shown().isEmpty());
    box.setOnAction(event -> model.storeMarks(of, box.isSelected()));
    return box;
  }

  private Node trial(String expression) {
    var tried = new TextField();
    tried.setId("pattern-try");
    Label verdict = Parts.label("", "small");
    tried
        .textProperty()
        .subscribe(
            text -> {
              boolean fits =
                  TextPattern.of(expression) instanceof TextPattern.Read.Understood(var pattern)
                      && pattern.matches(text);
              verdict.setText(
                  text.isEmpty() ? "" : texts.get(fits ? "pattern.fits" : "pattern.unfit"));
              verdict.getStyleClass().removeAll("spruce", "brick");
              verdict.getStyleClass().add(fits ? "spruce" : "brick");
            });
    HBox.setHgrow(tried, Priority.ALWAYS);
    return Parts.beside(texts.get("pattern.try"), Parts.row(6, tried, verdict));
  }

  private List<Node> parts(SheetModel.About.OfField of, String expression) {
    Optional<List<PatternPart>> read = PatternPart.read(expression);
    if (read.isEmpty()) {
      return List.of(Parts.prose(texts.get("pattern.noParts"), "muted", "small"));
    }
    List<PatternPart> parts = read.get();
    Consumer<List<PatternPart>> change =
        changed -> model.pattern(of, PatternPart.expression(changed));
    var nodes = new ArrayList<Node>();
    for (int i = 0; i < parts.size(); i++) {
      nodes.add(part(parts, i, change));
    }
    Button more = Parts.button(texts.get("pattern.more"), () -> {});
    more.setId("pattern-more");
    more.setOnAction(event -> pick(more, what -> change.accept(with(parts, parts.size(), what))));
    nodes.add(more);
    return nodes;
  }

  private static List<PatternPart> with(List<PatternPart> parts, int place, What what) {
    var changed = new ArrayList<>(parts);
    if (place == parts.size()) {
      changed.add(new PatternPart(what, 1, Optional.of(1)));
    } else {
      PatternPart old = parts.get(place);
      changed.set(place, new PatternPart(what, old.least(), old.most()));
    }
    return changed;
  }

  /** What a part may be; of fixed texts and sets of characters what is typed. */
  private void pick(Node beside, Consumer<What> picked) {
    Offers<What> offers =
        typed -> {
          var all = new ArrayList<Offers.Offer<What>>();
          for (PartKind kind : PartKind.values()) {
            all.add(Offers.Offer.of(new What.OfKind(kind), kind.words()));
          }
          var found = new ArrayList<>(Offers.narrowed(all, typed));
          if (!typed.isEmpty()) {
            found.add(
                new Offers.Offer<>(
                    new What.Fixed(typed), "“" + typed + "”", texts.get("pattern.fixed"), ""));
          }
          List<String> several = texts(typed);
          if (several.size() > 1) {
            found.addFirst(offer(several));
          }
          if (typed.codePointCount(0, typed.length()) > 1) {
            found.add(
                new Offers.Offer<>(new What.AnyOf(typed), typed, texts.get("pattern.anyOf"), ""));
          }
          return found;
        };
    new Picker<>(texts.get("pattern.pick"), offers).open(beside, picked);
  }

  /** Texts that are typed with bars between them. */
  private static List<String> texts(String typed) {
    return Arrays.stream(typed.split("\\|")).filter(text -> !text.isEmpty()).distinct().toList();
  }

  private Offers.Offer<What> offer(List<String> several) {
    var oneOf = new What.OneOf(several);
    return new Offers.Offer<>(oneOf, said(oneOf), texts.get("pattern.oneOf"), "");
  }

  private Node part(List<PatternPart> parts, int place, Consumer<List<PatternPart>> change) {
    PatternPart part = parts.get(place);
    Button what = Parts.button(said(part.what()), () -> {}, "picked");
    what.setId("part-" + place);
    what.setMinWidth(0);
    what.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(what, Priority.ALWAYS);
    what.setOnAction(event -> pick(what, other -> change.accept(with(parts, place, other))));
    TextField least =
        number(
            part.least() + "",
            texts.get("pattern.least"),
            n -> change.accept(times(parts, place, n, atLeast(part.most(), n))));
    least.setId("part-least-" + place);
    TextField most =
        number(
            part.most().map(String::valueOf).orElse("∞"),
            texts.get("pattern.most"),
            n ->
                change.accept(
                    times(
                        parts,
                        place,
                        n < 0 ? part.least() : Math.min(part.least(), n),
                        n < 0 ? Optional.empty() : Optional.of(Math.max(1, n)))));
    most.setId("part-most-" + place);
    Node remove =
        Parts.iconButton(
            Feather.X,
            texts.get("pattern.remove"),
            () -> {
              var fewer = new ArrayList<>(parts);
              fewer.remove(place);
              change.accept(fewer);
            });
    return Parts.row(4, what, least, Parts.label("…", "muted"), most, remove);
  }

  private static Optional<Integer> atLeast(Optional<Integer> most, int least) {
    return most.map(m -> Math.max(1, Math.max(m, least)));
  }

  private static List<PatternPart> times(
      List<PatternPart> parts, int place, int least, Optional<Integer> most) {
    var changed = new ArrayList<>(parts);
    changed.set(place, new PatternPart(parts.get(place).what(), Math.max(0, least), most));
    return changed;
  }

  private String said(What what) {
    return switch (what) {
      case What.OfKind(PartKind kind) -> kind.words();
      case What.Fixed(String text) -> "“" + text + "”";
      case What.OneOf(List<String> choices) ->
          WordList.or(choices.stream().map(text -> "“" + text + "”").toList());
      case What.AnyOf(String characters) -> texts.get("pattern.anyOf") + " " + characters;
    };
  }

  /** A number of times; what is no number is without end, −1. */
  private static TextField number(String now, String name, IntConsumer changed) {
    TextField field =
        TypedText.of(
            now,
            text -> {
              boolean number = text.strip().matches("\\d{1,3}");
              changed.accept(number ? Integer.parseInt(text.strip()) : -1);
            });
    field.setPrefColumnCount(2);
    field.setMinWidth(34);
    field.setMaxWidth(40);
    field.setAccessibleText(name);
    return field;
  }
}
