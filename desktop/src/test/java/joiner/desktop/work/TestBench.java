package joiner.desktop.work;

import java.nio.file.Path;
import java.util.List;
import joiner.Pottery;
import joiner.edit.History;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Table;
import joiner.model.TableId;

/** A bench without a window, with a design that is saved nowhere. */
public final class TestBench {
  public final TestWindow window = new TestWindow();
  public final Runner runner = new Runner(window);
  public final Workbench bench;

  /**
   * With that draft on it.
   *
   * @param folder for what is kept against a loss
   */
  public TestBench(Draft draft, Path folder) {
    var opened = new OpenDesign(History.startingWith(draft), java.util.Optional.empty(), List.of());
    bench = new Workbench(opened, runner, new Recovery(folder), Pottery.CLOCK);
  }

  /** The design as it is now. */
  public Design design() {
    return bench.design();
  }

  /** The table as it is now. */
  public Table table(String id) {
    return bench.design().table(new TableId(id));
  }

  /** Chooses a table, and nothing of it. */
  public Table choose(String id) {
    bench.selectionProperty().set(Selection.of(new TableId(id)));
    return table(id);
  }

  /** Waits until checks and audit are of now. */
  public void untilChecked() {
    window.until(() -> bench.verdict().isCurrent());
  }

  /** Waits until a change that was tried is shown. */
  public void untilProposed() {
    window.until(() -> bench.proposalProperty().get().isPresent());
  }

  /** The newest thing that was told. */
  public String newest() {
    return bench.notices().newest().map(Notice::text).orElse("");
  }

  /** Waits for what still works, which would write into a folder that is being deleted. */
  public void finish() {
    if (!runner.finish(Lane.WORKING, 20_000) || !runner.finish(Lane.SAVING, 20_000)) {
      throw new AssertionError("the background does not come to an end");
    }
  }
}
