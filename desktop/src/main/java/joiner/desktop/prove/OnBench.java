package joiner.desktop.prove;

import java.nio.file.Path;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.Workbench;

/** Tells when another design came onto the bench, so that what was about the one before goes. */
final class OnBench {
  private final Workbench bench;
  private OpenDesign opened;
  private Path place;

  OnBench(Workbench bench) {
    this.bench = bench;
    this.opened = bench.opened();
    this.place = bench.keeper().place();
  }

  /**
   * Whether it is another than when this was asked last; the same read anew is not, nor the same
   * saved elsewhere.
   */
  boolean isOther() {
    boolean again = bench.opened() != opened;
    boolean elsewhere = !bench.keeper().place().equals(place);
    opened = bench.opened();
    place = bench.keeper().place();
    return again && elsewhere;
  }
}
