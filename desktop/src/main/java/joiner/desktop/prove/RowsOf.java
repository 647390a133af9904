package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import joiner.database.Target;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Targets;
import joiner.desktop.work.Workbench;

/** Whose rows are looked at. */
sealed interface RowsOf {
  /** Those that are kept beside the design. */
  record Samples() implements RowsOf {}

  /** Those of a database; it is only read. */
  record Live(Targets.Known known, Target at) implements RowsOf {}

  RowsOf SAMPLES = new Samples();

  /** The database, if it is one. */
  default Optional<Target> target() {
    return this instanceof Live live ? Optional.of(live.at) : Optional.empty();
  }

  /** What people call it. */
  default String words(Texts texts) {
    return switch (this) {
      case Samples samples -> texts.get("rows.samples");
      case Live(Targets.Known known, Target at) ->
          known.user().isEmpty()
              ? known.place()
              : texts.get("rows.live", known.place(), known.user());
    };
  }

  /** The sample rows and all databases the design was shipped to or looked at. */
  static List<RowsOf> all(Workbench bench, Targets targets) {
    var all = new ArrayList<RowsOf>();
    all.add(SAMPLES);
    for (Targets.Known known : targets.of(bench.keeper().folder())) {
      targets.target(known).ifPresent(target -> all.add(new Live(known, target)));
    }
    return all;
  }

  /** A button that says whose rows they are and lets one pick others. */
  static Button button(Workbench bench, Targets targets, Texts texts, Consumer<RowsOf> picked) {
    Button button = Parts.button(SAMPLES.words(texts), () -> {}, "picked");
    button.setOnAction(
        event ->
            new Picker<>(
                    texts.get("rows.prompt"),
                    Offers.among(all(bench, targets), of -> of.words(texts)))
                .open(
                    button,
                    of -> {
                      button.setText(of.words(texts));
                      picked.accept(of);
                    }));
    return button;
  }
}
