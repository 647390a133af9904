package joiner.finding;

import java.util.function.Consumer;

/** One check of a design. A pure function of what it looks at. */
interface DesignCheck {
  /** Names the check in findings and on the command line. */
  String id();

  /** Reports everything it finds; linear or log-linear in the design. */
  void run(CheckedDesign design, Consumer<Finding> found);
}
