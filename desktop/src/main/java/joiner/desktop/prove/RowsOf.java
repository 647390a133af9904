package joiner.desktop.prove;

import java.util.Optional;
import joiner.database.Target;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Targets;

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
}
