package joiner.desktop.prove;

import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Calendar;
import joiner.desktop.widget.ChoiceBoxes;
import joiner.desktop.widget.HueMark;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.expression.Kind;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.rows.EnteredText;
import org.kordamp.ikonli.feather.Feather;

/** The controls by which rows are entered, which show again and again what there is now. */
final class EnterControls {
  private static final int MOST_BOXES = 4;
  private static final int MOST_LETTERS = 26;
  private static final int ISO_DAY = "2026-03-14".length();

  private final EnterModel model;
  private final Texts texts;
  private final List<Runnable> showing = new ArrayList<>();

  EnterControls(EnterModel model, Texts texts) {
    this.model = model;
    this.texts = texts;
  }

  /**
   * Where a control stands.
   *
   * @param roomy whether there is room for more than one control
   * @param text what is there now
   * @param type takes what is typed
   */
  record At(String id, boolean roomy, Text text, Consumer<Map<FieldId, String>> type) {
    /** What a cell holds. */
    interface Text {
      String of(FieldId field);
    }

    private At within(EnterPart part) {
      return new At(id + "-" + part.fields().getLast().value(), roomy, text, type);
    }
  }

  /** Shows in all controls what there is now. */
  void show() {
    showing.forEach(Runnable::run);
  }

  /** Knows of no control any more. */
  void clear() {
    showing.clear();
  }

  /** What a part is entered by. */
  Region of(Table table, EnterPart part, String name, At row) {
    At at = row.within(part);
    return switch (part) {
      case EnterPart.To(Relationship over, Table parent) -> reference(table, over, name, at);
      case EnterPart.Own(Field field) when !EnterPart.isTyped(field) -> given(field, name, at);
      case EnterPart.Own(Field field) when at.roomy && areBoxes(field) ->
          boxes(table, field, name, at);
      case EnterPart.Own(Field field) when isChosen(field) -> choices(field, name, at);
      case EnterPart.Own(Field field) -> typed(field, name, at);
    };
  }

  /** A text that is there only while something is refused. */
  Label refusals(Supplier<List<String>> refused, String between) {
    Label wrong = Parts.prose("", "brick", "small");
    showing.add(
        () -> {
          List<String> words = refused.get();
          wrong.setText(String.join(between, words));
          Parts.toggle(wrong, !words.isEmpty());
        });
    return wrong;
  }

  private static boolean isChosen(Field field) {
    return field.type() instanceof FieldType.Choice || field.type().kind() == Kind.BOOLEAN;
  }

  /** Whether a field is chosen from so few choices that they stand side by side. */
  boolean areBoxes(Field field) {
    List<String> choices = isChosen(field) ? offered(field) : List.of();
    int letters = choices.stream().mapToInt(choice -> choice(choice).length()).sum();
    return !choices.isEmpty() && choices.size() <= MOST_BOXES && letters <= MOST_LETTERS;
  }

  private static List<String> offered(Field field) {
    return field.type() instanceof FieldType.Choice choice
        ? choice.entries().stream()
            .filter(entry -> !entry.retired())
            .map(FieldType.Choice.Entry::text)
            .toList()
        : List.of("true", "false");
  }

  private Region typed(Field field, String name, At at) {
    var control = new TextField();
    control.setId(at.id);
    control.setAccessibleText(name);
    control.setPromptText(prompt(field));
    boolean[] filling = {false};
    control
        .textProperty()
        .subscribe(
            (was, is) -> {
              if (!filling[0]) {
                at.type.accept(Map.of(field.id(), is));
              }
            });
    showing.add(
        () -> {
          String now = at.text.of(field.id());
          if (!control.getText().equals(now)) {
            filling[0] = true;
            control.setText(now);
            filling[0] = false;
          }
        });
    Kind kind = field.type().kind();
    return kind.isMoment() ? withCalendar(control, field, at) : control;
  }

  /** A date is typed, or picked from a month; a time that is there stays. */
  private Region withCalendar(TextField control, Field field, At at) {
    Calendar calendar =
        Calendar.on(
            control,
            () -> day(field, control.getText()),
            day -> {
              String text = EnteredText.of(field, control.getText());
              int time = text.indexOf('T');
              boolean whole = field.type().kind() == Kind.DATE;
              String rest = whole ? "" : time < 0 ? " " : text.substring(time);
              control.setText(day + rest);
            });
    control.setTooltip(new Tooltip(texts.get("enter.calendar")));
    control.setOnMouseClicked(
        event -> {
          if (event.getClickCount() == 2 && day(field, control.getText()).isEmpty()) {
            calendar.open();
          }
        });
    if (!at.roomy) {
      return control;
    }
    Button open = Parts.iconButton(Feather.CALENDAR, texts.get("enter.calendar"), calendar::open);
    open.setId(at.id + "-calendar");
    open.setFocusTraversable(false);
    HBox.setHgrow(control, Priority.ALWAYS);
    return new HBox(2, control, open);
  }

  private static Optional<LocalDate> day(Field field, String typed) {
    String text = EnteredText.of(field, typed.strip());
    if (text.length() < ISO_DAY) {
      return Optional.empty();
    }
    try {
      return Optional.of(LocalDate.parse(text.substring(0, ISO_DAY)));
    } catch (DateTimeParseException e) {
      return Optional.empty(); // The form says what is wrong with it.
    }
  }

  private String prompt(Field field) {
    return switch (field.type().kind()) {
      case DATE -> texts.get("enter.prompt.date");
      case DATE_TIME -> texts.get("enter.prompt.moment");
      case TIME -> texts.get("enter.prompt.time");
      default -> field.unit();
    };
  }

  /** What nobody types shows what it becomes. */
  private Region given(Field field, String name, At at) {
    var shown = new TextField();
    shown.setEditable(false);
    shown.setFocusTraversable(false);
    shown.getStyleClass().add("given");
    shown.setAccessibleText(name);
    showing.add(
        () ->
            shown.setText(
                model
                    .tried()
                    .map(t -> t.shown().getOrDefault(field.id(), ""))
                    .orElseGet(() -> at.text.of(field.id()))));
    return shown;
  }

  private static Button picked(String name, At at) {
    Button button = Parts.button("", () -> {}, "picked");
    button.setId(at.id);
    button.setMinWidth(0);
    button.setMaxWidth(Double.MAX_VALUE);
    button.setAccessibleText(name);
    return button;
  }

  private Region boxes(Table table, Field field, String name, At at) {
    List<String> choices = offered(field);
    var boxes =
        new ChoiceBoxes(
            name,
            choices,
            this::choice,
            !table.isRequired(field.id()),
            taken -> at.type.accept(Map.of(field.id(), taken)));
    boxes.setId(at.id);
    Label other = Parts.label("", "muted", "small");
    if (field.type() instanceof FieldType.Choice choice) {
      boxes.marked(
          text ->
              choice
                  .find(text)
                  .flatMap(FieldType.Choice.Entry::hue)
                  .map(hue -> HueMark.of(Optional.of(hue)))
                  .orElse(null));
    }
    showing.add(
        () -> {
          String now = at.text.of(field.id());
          boxes.show(now);
          boolean offered = now.isEmpty() || choices.contains(now);
          other.setText(offered ? "" : texts.get("enter.choice.other", now));
          Parts.toggle(other, !offered);
        });
    return new VBox(2, boxes, other);
  }

  private Region choices(Field field, String name, At at) {
    Button button = picked(name, at);
    button.setOnAction(
        event -> {
          var all = new ArrayList<>(offered(field));
          all.addFirst("");
          new Picker<>(name, Offers.among(all, this::choice))
              .at(Optional.of(at.text.of(field.id())))
              .open(
                  button,
                  picked -> {
                    at.type.accept(Map.of(field.id(), picked));
                    button.requestFocus();
                  });
        });
    showing.add(() -> button.setText(choice(at.text.of(field.id()))));
    return button;
  }

  private String choice(String text) {
    return switch (text) {
      case "" -> texts.get("enter.none");
      case "true" -> texts.get("enter.yes");
      case "false" -> texts.get("enter.no");
      default -> text;
    };
  }

  private Region reference(Table table, Relationship over, String name, At at) {
    Button button = picked(name, at);
    boolean optional = !over.childFields().stream().allMatch(table::isRequired);
    Consumer<String> pick =
        begun ->
            new Picker<>(name, model.picks().offers(over, optional))
                .begunWith(begun)
                .open(
                    button,
                    picked -> {
                      model.trips().pick(over, picked, at.type::accept);
                      button.requestFocus();
                    });
    button.setOnAction(event -> pick.accept(""));
    button.addEventHandler(
        KeyEvent.KEY_TYPED,
        event -> { // A letter begins to look for a row.
          String letter = event.getCharacter();
          if (!letter.isBlank()
              && !event.isControlDown()
              && !event.isAltDown()
              && Character.isLetterOrDigit(letter.charAt(0))) {
            pick.accept(letter);
            event.consume();
          }
        });
    showing.add(
        () -> {
          List<String> held = over.childFields().stream().map(at.text::of).toList();
          String label = model.picks().label(over, held);
          button.setText(label.isEmpty() ? texts.get("enter.none") : label);
        });
    return button;
  }
}
