package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import joiner.desktop.prove.EnterFound.Deed;
import joiner.desktop.prove.EnterFound.Held;
import joiner.desktop.prove.EnterFound.Row;
import joiner.desktop.widget.CompletionList;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.naming.Counts;

/**
 * The rows at the left of a form, and how they are looked for: by words, by what fields hold, and
 * by a condition; what is done with all that are found.
 */
final class EnterList {
  private static final double LEAST = 150;
  private static final double MOST = 210;
  private static final double SHARE = 0.28;
  private static final double SHARE_WITH_COLUMNS = 0.5;

  private final EnterModel model;
  private final EnterFound found;
  private final Texts texts;
  private final TextField words = new TextField();
  private final TextField condition = new TextField();
  private final Label fault = Parts.prose("", "brick", "small");
  private final FlowPane looked = new FlowPane(6, 6);
  private final EnterColumns rows;
  private final Label count = Parts.label("", "muted", "small");
  private final Button all;
  private final Button fresh;
  private final Button list;
  private final Button first;
  private final Button takeIn;
  private final TextField value = new TextField();
  private final VBox node;
  private Optional<Table> shownOf = Optional.empty();
  private List<FieldId> filters = List.of();
  private boolean filling;

  /**
   * A list of no table yet.
   *
   * @param begin begins a new row
   * @param fromElsewhere takes rows from elsewhere
   */
  EnterList(EnterModel model, Texts texts, Runnable begin, Runnable fromElsewhere) {
    this.model = model;
    this.found = model.found();
    this.texts = texts;
    this.fresh = wide("enter-new", "", begin);
    this.all = wide("enter-all", texts.get("enter.all"), this::pickForAll);
    this.takeIn = wide("enter-intake", texts.get("intake.begin"), fromElsewhere);
    this.rows = new EnterColumns(model, texts);
    this.list = Parts.button(texts.get("list.list"), this::change);
    this.first = Parts.chip(texts.get("list.first.chip"), this::allAgain, this::allAgain, "picked");
    first.setId("list-first");
    list.setId("enter-list");
    list.setTooltip(new Tooltip(texts.get("list.why")));
    looking();
    sieving();
    value.setId("enter-all-value");
    Parts.toggle(value, false);
    node =
        new VBox(6, fresh, words, looked, condition, fault, rows.node(), count, all, value, takeIn);
    node.setMinWidth(LEAST);
  }

  private static Button wide(String id, String words, Runnable action) {
    Button button = Parts.button(words, action);
    button.setId(id);
    button.setMinWidth(0);
    button.setMaxWidth(Double.MAX_VALUE);
    return button;
  }

  Node node() {
    return node;
  }

  /** How wide it is at most within so much. */
  double width(double of) {
    boolean plain = found.listing().columns().isEmpty();
    return Math.clamp(
        of * (plain ? SHARE : SHARE_WITH_COLUMNS),
        LEAST,
        plain ? MOST : Math.max(rows.wanted(), LEAST));
  }

  private void looking() {
    words.setId("enter-filter");
    words.setPromptText(texts.get("enter.filter"));
    words.setAccessibleText(texts.get("enter.filter"));
    words.setTooltip(new Tooltip(texts.get("enter.filter.why")));
    words
        .textProperty()
        .subscribe(
            text -> {
              if (!filling) {
                found.words(text);
                show();
              }
            });
    words.setOnAction(
        event -> found.meant(words.getText()).ifPresent(row -> model.open(Optional.of(row.id()))));
    words.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            words.clear();
            event.consume();
          } else if (event.getCode() == KeyCode.DOWN) {
            rows.node().requestFocus();
            event.consume();
          }
        });
  }

  private void sieving() {
    condition.setId("enter-condition");
    condition.setPromptText(texts.get("list.condition.prompt"));
    condition.setAccessibleText(texts.get("list.condition.prompt"));
    CompletionList.on(condition, found::completions);
    condition.setOnAction(event -> meet(condition.getText()));
    condition
        .focusedProperty()
        .subscribe(
            (was, is) -> {
              if (was && !is) {
                meet(condition.getText());
              }
            });
    condition.addEventHandler(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            condition.clear();
            meet("");
            words.requestFocus();
            event.consume();
          }
        });
    fault.setId("enter-condition-fault");
  }

  private void meet(String text) {
    if (!text.strip().equals(found.condition().strip())) {
      found.condition(text);
    }
    showCondition();
  }

  /** The row that is open, if it is among those that are found. */
  Optional<Row> open() {
    return rows.open();
  }

  /** Finds all rows again. */
  void forget() {
    found.all();
    words.clear();
  }

  /** Shows what is found of a table now. */
  void show(Table table) {
    filling = true;
    if (!shownOf.map(Table::id).equals(Optional.of(table.id()))) {
      words.setText(found.words());
      condition.setText(found.condition());
      closeAll(false);
    }
    fresh.setText(texts.get("enter.new.of", table.noun().singular()));
    shownOf = Optional.of(table);
    filling = false;
    show();
  }

  private void show() {
    if (shownOf.isEmpty()) {
      return;
    }
    Table table = shownOf.get();
    filling = true;
    rows.show(table);
    showLooked(table);
    showCondition();
    List<Row> now = found.rows();
    all.setDisable(now.isEmpty() || !model.canEnter());
    takeIn.setDisable(!model.canEnter());
    filling = false;
    count.setText(
        texts.get(
            found.isCurrent() ? "enter.count" : "enter.counting",
            now.size(),
            Counts.of(model.count(), table.noun().singular(), table.noun().plural())));
  }

  /** What fields hold that are offered, and what changes the list. */
  private void showLooked(Table table) {
    List<FieldId> offered = found.listing().filters().stream().filter(table::hasField).toList();
    if (looked.getChildren().isEmpty() || !offered.equals(filters)) {
      filters = offered;
      looked
          .getChildren()
          .setAll(
              Stream.concat(offered.stream().map(this::filter), Stream.of(first, list)).toList());
    }
    Parts.toggle(first, found.isFirstOnly());
    for (Node chip : looked.getChildren()) {
      if (chip.getUserData() instanceof FieldId field && chip instanceof Button button) {
        String label = table.field(field).label();
        Optional<String> held = found.chosen(field);
        button.setText(held.map(text -> said(label, field, text)).orElse(label));
        button.getStyleClass().remove("picked");
        if (held.isPresent()) {
          button.getStyleClass().add("picked");
        }
      }
    }
  }

  private String said(String label, FieldId field, String text) {
    return found.held(field).stream()
        .filter(held -> held.text().equals(text))
        .map(held -> texts.get("list.is", label, words(held)))
        .findFirst()
        .orElse(texts.get("list.is", label, text));
  }

  private String words(Held held) {
    return held.text().isEmpty() ? texts.get("list.without") : held.label();
  }

  private Node filter(FieldId field) {
    Button chip = Parts.button("", () -> {}, "chip");
    chip.setId("list-by-" + field.value());
    chip.setUserData(field);
    chip.setOnAction(event -> pick(field, chip));
    return chip;
  }

  private void pick(FieldId field, Button chip) {
    var offers = new ArrayList<Offers.Offer<Optional<String>>>();
    offers.add(Offers.Offer.of(Optional.empty(), texts.get("list.any")));
    for (Held held : found.held(field)) {
      offers.add(
          new Offers.Offer<>(Optional.of(held.text()), words(held), Counts.of(held.rows()), ""));
    }
    new Picker<Optional<String>>(chip.getText(), typed -> Offers.narrowed(offers, typed))
        .open(
            chip,
            held -> {
              found.choose(field, held);
              show();
              chip.requestFocus();
            });
  }

  private void allAgain() {
    found.make(new Deed.First(false));
    show();
    list.requestFocus();
  }

  private void change() {
    Optional<Deed> none = Optional.empty();
    var offers = new ArrayList<Offers.Offer<Optional<Deed>>>();
    offers.add(Offers.Offer.of(none, texts.get("list.condition")));
    for (Deed deed : found.deeds()) {
      offers.add(new Offers.Offer<>(Optional.of(deed), words(deed), "", ""));
    }
    new Picker<Optional<Deed>>(texts.get("list.prompt"), typed -> Offers.narrowed(offers, typed))
        .open(
            list,
            deed -> {
              if (deed.isEmpty()) {
                Parts.toggle(condition, true);
                condition.requestFocus();
              } else {
                found.make(deed.get());
                show();
                list.requestFocus();
              }
            });
  }

  private String words(Deed deed) {
    return switch (deed) {
      case Deed.Column(Field field, boolean shown) ->
          texts.get(shown ? "list.column" : "list.column.not", field.label());
      case Deed.Filter(Field field, boolean offered) ->
          texts.get(offered ? "list.filter" : "list.filter.not", field.label());
      case Deed.Sort(Field field, boolean descending) ->
          texts.get(descending ? "list.sort.down" : "list.sort.up", field.label());
      case Deed.KeepOrder keep -> texts.get("list.order");
      case Deed.Unsort unsort -> texts.get("list.unsort");
      case Deed.First(boolean only) -> texts.get(only ? "list.first" : "list.first.not");
    };
  }

  private void showCondition() {
    Parts.toggle(condition, !found.condition().isBlank() || condition.isFocused());
    String why = found.listed().flatMap(EnterFound.Listed::fault).orElse("");
    fault.setText(why);
    Parts.toggle(fault, !why.isEmpty());
  }

  private void pickForAll() {
    new Picker<>(texts.get("enter.all.field"), Offers.among(model.changeable(), Field::label))
        .open(all, this::askForAll);
  }

  /** Asks what all rows that were found are to hold. */
  private void askForAll(Field field) {
    List<Row> some = found.rows();
    String prompt = texts.get("enter.all.value", field.label(), Counts.of(some.size()));
    value.setPromptText(prompt);
    value.setAccessibleText(prompt);
    value.clear();
    value.setOnAction(
        event -> {
          closeAll(true);
          model.changeAll(some, field, value.getText());
        });
    value.setOnKeyPressed(
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            closeAll(true);
            event.consume();
          }
        });
    Parts.toggle(value, true);
    value.requestFocus();
  }

  private void closeAll(boolean back) {
    if (back) {
      all.requestFocus();
    }
    Parts.toggle(value, false);
  }
}
