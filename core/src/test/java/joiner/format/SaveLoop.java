package joiner.format;

import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.SampleRows;

/** A process that saves again and again until it is killed, each time a design of another mark. */
public final class SaveLoop {
  private static final int TABLES = 5;
  private static final FieldId MARK = new FieldId("mark");

  private SaveLoop() {}

  /** A design of five tables in which every cell and the title are the same mark. */
  static Draft marked(String mark) {
    Design design = Design.empty("marked", "Marked " + mark);
    var rows = SampleRows.NONE;
    for (int i = 0; i < TABLES; i++) {
      Table table =
          Table.of("t" + i, "T" + i, new Noun("row", "rows"))
              .withFields(List.of(Field.of("mark", "Mark", new FieldType.Text(20))));
      design = design.withTableAdded(table);
      rows =
          rows.with(
              table.id(),
              none -> Rows.NONE.withRow(Map.of(MARK, mark)).withRow(Map.of(MARK, mark)));
    }
    return new Draft(design, rows);
  }

  /** The one mark of a design; empty where it is a mixture. */
  static Optional<String> markOf(Draft draft) {
    String mark = draft.design().title().replace("Marked ", "");
    return Optional.of(mark).filter(m -> marked(m).equals(draft));
  }

  /** Starts a process that saves designs marked with a letter and a number. */
  static Process start(Path folder, String letter) throws IOException {
    return new ProcessBuilder(
            Path.of(System.getProperty("java.home"), "bin", "java").toString(),
            "-cp",
            System.getProperty("java.class.path"),
            "-Djoiner.files=" + System.getProperty("joiner.files", ""),
            SaveLoop.class.getName(),
            folder.toString(),
            letter)
        .redirectErrorStream(true)
        .redirectOutput(new File("/dev/null").exists() ? new File("/dev/null") : new File("NUL"))
        .start();
  }

  /** Saves until it is killed, or left alone. */
  public static void main(String[] arguments) throws IOException, InterruptedException {
    ProcessHandle parent = ProcessHandle.current().parent().orElseThrow();
    for (int number = 0; parent.isAlive(); number++) {
      DesignFolder.save(marked(arguments[1] + number), Path.of(arguments[0]));
      Thread.sleep(3); // Lets the other one have its turn.
    }
  }
}
