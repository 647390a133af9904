package joiner.desktop.connect;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;

/** Verb phrases of readings: typed, or one of the usual ones. */
final class Verbs {
  private Verbs() {}

  /** Lets a verb phrase be typed or picked. */
  static void pick(Texts texts, Node beside, String now, Consumer<String> picked) {
    List<Offers.Offer<String>> usual =
        List.of(texts.get("verbs").split(";")).stream()
            .map(verb -> Offers.Offer.of(verb, verb))
            .toList();
    Offers<String> offers =
        typed -> {
          var all = new ArrayList<>(Offers.narrowed(usual, typed));
          String text = typed.strip();
          if (!text.isEmpty() && all.stream().noneMatch(o -> o.thing().equals(text))) {
            all.addFirst(new Offers.Offer<>(text, text, texts.get("verb.typed"), ""));
          }
          return all;
        };
    new Picker<>(texts.get("verb.pick", now), offers).open(beside, picked);
  }
}
