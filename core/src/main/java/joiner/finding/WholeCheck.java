package joiner.finding;

import java.util.function.Consumer;

/** A check that looks at all tables together. */
non-sealed interface WholeCheck extends DesignCheck {
  /** Reports everything it finds; linear or log-linear in the design. */
  void run(CheckedDesign design, Consumer<Finding> found);
}
