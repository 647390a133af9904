package joiner.desktop.widget;

import java.time.LocalDate;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.DatePicker;
import javafx.scene.control.TextField;
import javafx.scene.control.skin.DatePickerSkin;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.stage.Popup;

/** A month of days below a field where a date is typed; Alt and an arrow down open it. */
public final class Calendar {
  private static final double GAP = 2;

  private final TextField field;
  private final Supplier<Optional<LocalDate>> shown;
  private final Consumer<LocalDate> picked;

  private Calendar(
      TextField field, Supplier<Optional<LocalDate>> shown, Consumer<LocalDate> picked) {
    this.field = field;
    this.shown = shown;
    this.picked = picked;
  }

  /**
   * A calendar for a field.
   *
   * @param shown the day the field holds, if it holds one
   * @param picked gets the day that is chosen
   */
  public static Calendar on(
      TextField field, Supplier<Optional<LocalDate>> shown, Consumer<LocalDate> picked) {
    var calendar = new Calendar(field, shown, picked);
    field.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.isAltDown() && event.getCode() == KeyCode.DOWN) {
            calendar.open();
            event.consume();
          }
        });
    return calendar;
  }

  /** Shows the month of the day the field holds, or this one. */
  public void open() {
    Optional<LocalDate> held = shown.get();
    var days = new DatePicker(held.orElse(null));
    days.setShowWeekNumbers(false);
    Node content = new DatePickerSkin(days).getPopupContent();
    content.setId("calendar");
    var popup = new Popup();
    popup.setAutoHide(true);
    popup.setHideOnEscape(true);
    popup.getContent().setAll(content);
    days.valueProperty()
        .addListener(
            (value, before, day) -> {
              popup.hide();
              picked.accept(day);
              field.requestFocus();
              field.end();
            });
    popup.setOnHidden(event -> field.requestFocus());
    Bounds at = field.localToScreen(field.getBoundsInLocal());
    popup.show(field, at.getMinX(), at.getMaxY() + GAP);
    content.applyCss();
    day(content, ".selected").or(() -> day(content, ".today")).ifPresent(Node::requestFocus);
  }

  /** The day whose cell has a style beside that of days; arrow keys go on from it. */
  private static Optional<Node> day(Node content, String style) {
    return content.lookupAll(".day-cell" + style).stream().findFirst();
  }
}
