package joiner.desktop.widget;

import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.scene.Node;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;

/** The faces of a stage, one of which is always shown. */
public final class Faces<F extends Enum<F>> {
  private final Map<F, ToggleButton> buttons = new LinkedHashMap<>();
  private final ToggleGroup group = new ToggleGroup();
  private final HBox node = Parts.row(0);

  /**
   * All faces.
   *
   * @param first the one that is shown at first, which nobody is told
   * @param words what each is called
   * @param shown is told which one is shown now
   */
  public Faces(F[] all, F first, Function<F, String> words, Consumer<F> shown) {
    for (F face : all) {
      var button = new ToggleButton(words.apply(face));
      button.setId("face-" + face.name().toLowerCase(Locale.ROOT).replace('_', '-'));
      button.setToggleGroup(group);
      button.setMinWidth(ToggleButton.USE_PREF_SIZE);
      buttons.put(face, button);
      node.getChildren().add(button);
    }
    group.selectToggle(buttons.get(first));
    group
        .selectedToggleProperty()
        .subscribe(
            (was, is) -> {
              if (is == null) {
                group.selectToggle(was); // One of them is always shown.
              } else {
                buttons.forEach(
                    (face, button) -> {
                      if (button == is) {
                        shown.accept(face);
                      }
                    });
              }
            });
  }

  /** The buttons in a row. */
  public Node node() {
    return node;
  }

  /** Shows a face. */
  public void show(F face) {
    group.selectToggle(buttons.get(face));
  }
}
