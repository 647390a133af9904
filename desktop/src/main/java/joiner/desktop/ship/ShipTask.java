package joiner.desktop.ship;

import java.util.function.UnaryOperator;
import javafx.concurrent.Task;
import joiner.database.Shipment;
import joiner.database.Target;
import joiner.ddl.RowsChoice;
import joiner.rows.Draft;

/** Ships one snapshot of the design; can be stopped between statements. */
final class ShipTask extends Task<Shipment> {
  private final Draft draft;
  private final Target target;
  private final RowsChoice rows;
  private final UnaryOperator<String> words;

  ShipTask(Draft draft, Target target, RowsChoice rows, UnaryOperator<String> words) {
    this.draft = draft;
    this.target = target;
    this.rows = rows;
    this.words = words;
  }

  @Override
  protected Shipment call() throws Exception {
    return Shipment.ship(
        draft,
        target,
        rows,
        (done, total, doing) -> {
          updateProgress(done, total);
          updateMessage(words.apply(doing));
          return !isCancelled();
        });
  }
}
