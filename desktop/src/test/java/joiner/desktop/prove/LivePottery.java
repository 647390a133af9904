package joiner.desktop.prove;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import joiner.Pottery;
import joiner.database.Progress;
import joiner.database.Shipment;
import joiner.database.Target;
import joiner.ddl.RowsChoice;
import joiner.desktop.work.Targets;

/** The demo in a database file. */
final class LivePottery {
  private LivePottery() {}

  static RowsOf in(Path folder) throws Exception {
    RowsOf.Live live = at(folder.resolve("pottery.db"));
    if (Files.notExists(folder.resolve("pottery.db"))) {
      Shipment.ship(Pottery.demo(), live.at(), RowsChoice.ALL, Progress.NONE);
    }
    return live;
  }

  /** A file that is not there. */
  static RowsOf missing(Path folder) {
    return at(folder.resolve("gone").resolve("nothing.db"));
  }

  private static RowsOf.Live at(Path file) {
    return new RowsOf.Live(
        new Targets.Known("sqlite", file.toString(), ""),
        new Target("jdbc:sqlite:" + file, Optional.empty(), Optional.empty()));
  }
}
