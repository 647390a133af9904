package joiner.database;

import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import joiner.Pottery;
import joiner.ddl.RowsChoice;

/** A process that ships the studio to a database, to be killed on its way. */
public final class ShipLoop {
  private ShipLoop() {}

  /** Starts a process that ships to a URL and says so on its way. */
  static Process start(String url) throws IOException {
    String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
    return new ProcessBuilder(
            List.of(
                java,
                "-XX:TieredStopAtLevel=1",
                "--enable-native-access=ALL-UNNAMED",
                "-cp",
                System.getProperty("java.class.path"),
                ShipLoop.class.getName(),
                url))
        .redirectError(new File("/dev/null"))
        .start();
  }

  /** Ships; each statement is a line. */
  public static void main(String[] arguments) throws Exception {
    Shipment.ship(
        Pottery.demo(),
        Target.of(arguments[0]),
        RowsChoice.ALL,
        (done, total, doing) -> {
          System.out.println(done + " of " + total);
          return true;
        });
    System.out.println("shipped");
  }
}
