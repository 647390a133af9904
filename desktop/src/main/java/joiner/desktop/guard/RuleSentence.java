package joiner.desktop.guard;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import joiner.desktop.widget.CompletionList;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.expression.Expression.Comparison;
import joiner.expression.Formula;
import joiner.meaning.RuleForm;
import joiner.model.Demand;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * What a rule demands as a sentence whose parts are picked and typed. It is written anew when the
 * rule has changed; where somebody was goes on there.
 */
final class RuleSentence {
  private static final Pattern SLOT = Pattern.compile("\\{(\\d)\\}");
  private static final double SHORT = 70;
  private static final double LONG = 220;

  private final RuleModel model;
  private final Texts texts;
  private final FlowPane flow = new FlowPane(6, 5);
  private Optional<Shown> shown = Optional.empty();

  /** What the sentence was written of. */
  private record Shown(Demand demand, Optional<RuleForm> form, Table table) {}

  RuleSentence(RuleModel model, Texts texts) {
    this.model = model;
    this.texts = texts;
    flow.setId("sentence-" + model.rule().name());
    flow.getStyleClass().add("sentence");
  }

  Node node() {
    return flow;
  }

  /** Whether there is a sentence at all; a condition of one's own has none. */
  boolean isThere() {
    return !flow.getChildren().isEmpty();
  }

  /** Puts the typing into the first part. */
  void type() {
    flow.getChildren().stream()
        .filter(node -> node instanceof Button || node instanceof TextField)
        .findFirst()
        .ifPresent(Node::requestFocus);
  }

  /** Writes the sentence as the rule is now. */
  void update() {
    Demand demand = model.rule().demand();
    Optional<RuleForm> form = demand instanceof Demand.OfRow ? model.form() : Optional.empty();
    var now = new Shown(demand, form, model.table());
    if (shown.equals(Optional.of(now))) {
      return;
    }
    Optional<Node> focused = flow.getChildren().stream().filter(Node::isFocusWithin).findFirst();
    shown = Optional.of(now);
    flow.getChildren().clear();
    write(now);
    flow.setVisible(isThere());
    flow.setManaged(isThere());
    focused.ifPresent(this::goOnAt);
  }

  private void goOnAt(Node before) {
    for (Node node : flow.getChildren()) {
      if (before.getId() != null && before.getId().equals(node.getId())) {
        if (before instanceof TextField was && node instanceof TextField is) {
          is.setText(was.getText());
          is.requestFocus();
          is.end();
        } else {
          node.requestFocus();
        }
      }
    }
  }

  private void write(Shown now) {
    switch (now.demand) {
      case Demand.OfRow row -> now.form.ifPresent(this::form);
      case Demand.OfChildren children -> children(children);
      case Demand.Alone alone -> alone(alone);
      case Demand.Stays stays -> stays(stays);
      case Demand.Apart apart -> apart(apart);
      case Demand.Tree tree -> tree(tree);
    }
  }

  private void word(String key, Object... values) {
    String text = texts.get(key, values);
    if (!text.isBlank()) {
      flow.getChildren().add(Parts.label(text));
    }
  }

  private <N extends Node> N part(String id, N node) {
    node.setId("part-" + id);
    node.setAccessibleText(texts.get("part." + id.replaceAll("-?\\d+$", "")));
    flow.getChildren().add(node);
    return node;
  }

  private <T> void picked(
      String id, List<T> things, Optional<T> now, Function<T, String> words, Consumer<T> take) {
    Button button = Parts.button(now.map(words).orElse(texts.get("part.pick")), () -> {}, "picked");
    button.setOnAction(
        event ->
            new Picker<>(texts.get("part.pick"), Offers.among(things, words))
                .at(now)
                .open(button, take));
    part(id, button);
  }

  private TextField typed(String id, String now, double width, Consumer<String> take) {
    TextField field = TypedText.of(now, text -> take.accept(text.strip()));
    field.setPrefWidth(width);
    return part(id, field);
  }

  private void condition(String id, TableId of, String now, Consumer<String> take) {
    TextField field = typed(id, now, LONG, take);
    field.getStyleClass().add("formula");
    field.setPromptText(texts.get("part.condition.prompt"));
    CompletionList.on(field, (text, caret) -> model.completions(of, text, caret));
  }

  private String label(FieldId id) {
    Table table = model.table();
    return table.hasField(id) ? table.field(id).label() : texts.get("part.gone");
  }

  private List<FieldId> fields() {
    return model.table().fieldIds();
  }

  private void several(String id, List<FieldId> now, Consumer<List<FieldId>> take) {
    for (int i = 0; i < now.size(); i++) {
      FieldId field = now.get(i);
      List<FieldId> others = now.stream().filter(other -> !other.equals(field)).toList();
      Button button =
          part(
              id + "-" + i,
              Parts.button(label(field) + "  ×", () -> take.accept(others), "picked"));
      button.setAccessibleText(texts.get("part.without", label(field)));
    }
    List<FieldId> more = fields().stream().filter(field -> !now.contains(field)).toList();
    Button add = Parts.button(texts.get(now.isEmpty() ? "part.pick" : "part.more"), () -> {});
    add.setOnAction(
        event ->
            new Picker<>(texts.get("part.pick"), Offers.among(more, this::label))
                .open(
                    add,
                    field -> take.accept(Stream.concat(now.stream(), Stream.of(field)).toList())));
    part(id, add);
  }

  private void form(RuleForm form) {
    String words = texts.get("form." + form.sort());
    Matcher slot = SLOT.matcher(words);
    int end = 0;
    while (slot.find()) {
      plain(words.substring(end, slot.start()));
      slot(form, Integer.parseInt(slot.group(1)));
      end = slot.end();
    }
    plain(words.substring(end));
  }

  private void plain(String words) {
    if (!words.isBlank()) {
      flow.getChildren().add(Parts.label(words.strip()));
    }
  }

  private void slot(RuleForm form, int at) {
    String now = form.values().get(at);
    Consumer<String> take =
        text -> {
          model.form(form.with(at, text));
          update();
        };
    String id = "slot-" + at;
    switch (form.sort().slots().get(at)) {
      case FIELD ->
          picked(
              id,
              model.table().fields(),
              model.table().fieldNamed(now),
              Field::label,
              field -> take.accept(field.name()));
      case VALUE -> typed(id, now, form.sort() == RuleForm.Sort.LIKE ? LONG : SHORT, take);
      case VALUES -> typed(id, now, LONG, take);
      case WHOLE_NUMBER -> typed(id, now, SHORT, take);
      case COMPARISON ->
          picked(
              id,
              Arrays.stream(Comparison.values()).map(Comparison::sql).toList(),
              Optional.of(now),
              model::compared,
              take);
      case UNIT ->
          picked(
              id,
              List.of("DAY", "MONTH", "YEAR"),
              Optional.of(now),
              unit -> texts.get("unit." + unit),
              take);
      case CONDITION -> condition(id, model.table().id(), now, take);
      case PATH -> {
        TextField path = typed(id, now, LONG, take);
        path.getStyleClass().add("formula");
        CompletionList.on(path, model::completions);
      }
    }
  }

  private void children(Demand.OfChildren now) {
    Table table = model.table();
    List<Relationship> down = model.design().childrenOf(table.id());
    Optional<Relationship> over = down.stream().filter(r -> r.id().equals(now.over())).findFirst();
    boolean sums = now.of().isPresent();
    word("children.each", table.noun().singular());
    bound("least", now.least(), text -> bounds(now, text, now.most().orElse("")));
    bound("most", now.most(), text -> bounds(now, now.least().orElse(""), text));
    picked(
        "how",
        List.of(false, true),
        Optional.of(sums),
        sum -> texts.get(sum ? "children.sum" : "children.count"),
        sum -> take(now, sum ? Optional.of(new Formula("")) : Optional.empty(), now.where()));
    TableId child = over.map(Relationship::child).orElse(table.id());
    now.of()
        .ifPresent(
            of -> {
              condition(
                  "sum",
                  child,
                  of.text(),
                  text -> take(now, Optional.of(new Formula(text)), now.where()));
              word("children.over");
            });
    picked(
        "over",
        down,
        over,
        r -> model.design().table(r.child()).noun().plural() + " (" + r.parentRole() + ")",
        r ->
            model.demand(
                new Demand.OfChildren(r.id(), now.of(), now.where(), now.least(), now.most())));
    word("children.where");
    condition(
        "where",
        child,
        now.where().map(Formula::text).orElse(""),
        text -> take(now, now.of(), Formula.unlessBlank(text)));
  }

  /** A bound with its word, which stay together. */
  private void bound(String id, Optional<String> now, Consumer<String> take) {
    word("children." + id);
    typed(id, now.orElse(""), SHORT, take);
  }

  private void take(Demand.OfChildren now, Optional<Formula> of, Optional<Formula> where) {
    model.demand(new Demand.OfChildren(now.over(), of, where, now.least(), now.most()));
  }

  private void bounds(Demand.OfChildren now, String least, String most) {
    model.demand(
        new Demand.OfChildren(now.over(), now.of(), now.where(), given(least), given(most)));
  }

  private static Optional<String> given(String text) {
    return Optional.of(text).filter(t -> !t.isEmpty());
  }

  private void alone(Demand.Alone now) {
    word("alone.where", model.table().noun().plural());
    condition(
        "where",
        model.table().id(),
        now.where().text(),
        text -> model.demand(new Demand.Alone(now.per(), new Formula(text))));
    word("alone.one");
    several("per", now.per(), per -> model.demand(new Demand.Alone(per, now.where())));
    word(now.per().isEmpty() ? "alone.all" : "alone.each");
  }

  private void stays(Demand.Stays now) {
    several("fields", now.fields(), f -> model.demand(new Demand.Stays(f, now.when())));
    word("stays.where");
    condition(
        "when",
        model.table().id(),
        now.when().text(),
        text -> model.demand(new Demand.Stays(now.fields(), new Formula(text))));
  }

  private void apart(Demand.Apart now) {
    word("apart.each");
    several(
        "per",
        now.per(),
        per ->
            model.demand(
                new Demand.Apart(per, now.from(), now.until(), now.closed(), now.gapless())));
    word("apart.from");
    picked(
        "from",
        fields(),
        Optional.of(now.from()),
        this::label,
        from ->
            model.demand(
                new Demand.Apart(now.per(), from, now.until(), now.closed(), now.gapless())));
    picked(
        "closed",
        List.of(false, true),
        Optional.of(now.closed()),
        closed -> texts.get(closed ? "apart.through" : "apart.until"),
        closed ->
            model.demand(
                new Demand.Apart(now.per(), now.from(), now.until(), closed, now.gapless())));
    picked(
        "until",
        fields(),
        Optional.of(now.until()),
        this::label,
        until ->
            model.demand(
                new Demand.Apart(now.per(), now.from(), until, now.closed(), now.gapless())));
    word("apart.apart");
    var gapless = part("gapless", new CheckBox(texts.get("apart.gapless")));
    gapless.setSelected(now.gapless());
    gapless.setOnAction(
        event ->
            model.demand(
                new Demand.Apart(
                    now.per(), now.from(), now.until(), now.closed(), gapless.isSelected())));
  }

  private void tree(Demand.Tree now) {
    List<Relationship> own =
        model.design().parentsOf(model.table().id()).stream()
            .filter(Relationship::isSelfReference)
            .toList();
    word("tree.none", model.table().noun().singular());
    picked(
        "tree",
        own,
        own.stream().filter(r -> r.id().equals(now.over())).findFirst(),
        Relationship::childRole,
        r -> model.demand(new Demand.Tree(r.id())));
    word("tree.itself");
  }
}
