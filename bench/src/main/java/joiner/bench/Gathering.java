package joiner.bench;

import java.io.BufferedWriter;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryPoolMXBean;
import java.lang.management.MemoryType;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import joiner.discovery.DependencySearch;
import joiner.discovery.FoundDependencies;
import joiner.discovery.InclusionSearch;
import joiner.rows.EncodedTable;
import joiner.source.ReadingOptions;
import joiner.source.SourceFile;
import joiner.source.TableProfile;

/**
 * Measures how long the data takes to speak: dependencies, inclusions, profiles. Arguments: a
 * folder for files, and the size of the file to profile in MB.
 */
public final class Gathering {
  private static final List<String> ORDER_FIELDS =
      List.of(
          "No",
          "Day",
          "Member",
          "Town",
          "Material",
          "Price",
          "Kilos",
          "Paid",
          "Shelf",
          "Batch",
          "Packer",
          "Cart");

  private Gathering() {}

  /** Runs all and prints one table. */
  public static void main(String[] arguments) throws Exception {
    Path folder = Path.of(arguments[0]);
    System.out.println("| what | seconds | found | peak heap MB |");
    System.out.println("| --- | ---: | --- | ---: |");
    Path letters = folder.resolve("LetterRecognition.csv");
    if (Files.isRegularFile(letters)) {
      EncodedTable table =
          SourceFile.read(letters, ReadingOptions.DETECT).tables().getFirst().cells();
      dependencies("LetterRecognition, 20 000 × 17 (mlbench 2.1-3)", table);
    } else {
      System.out.println("| LetterRecognition is not there: see bench/run | | | |");
    }
    dependencies("generated, 1 000 000 × 12", orders(1_000_000));
    EncodedTable small = orders(1_000).keeping(List.of(0, 1, 2, 3, 4, 5, 6, 7, 8, 9));
    double joiner = dependencies("generated, 1 000 × 10", small);
    double naive = measured("the same by trying every set on all rows", () -> naive(small));
    inclusions();
    profile(folder, Integer.parseInt(arguments[1]));
    System.out.printf(
        Locale.ROOT,
        "%nThe naive search takes %.0f times as long as Joiner's on the same rows.%n",
        naive / joiner);
  }

  private static double measured(String what, Callable<String> work) throws Exception {
    System.gc();
    List<MemoryPoolMXBean> heap =
        ManagementFactory.getMemoryPoolMXBeans().stream()
            .filter(pool -> pool.getType() == MemoryType.HEAP)
            .toList();
    heap.forEach(MemoryPoolMXBean::resetPeakUsage);
    long begin = System.nanoTime();
    String found = work.call();
    double seconds = (System.nanoTime() - begin) / 1e9;
    long peak = heap.stream().mapToLong(pool -> pool.getPeakUsage().getUsed()).sum();
    System.out.printf(Locale.ROOT, "| %s | %.2f | %s | %d |%n", what, seconds, found, peak >> 20);
    return seconds;
  }

  private static double dependencies(String what, EncodedTable table) throws Exception {
    return measured(
        "dependencies and keys of " + what,
        () -> {
          FoundDependencies found = DependencySearch.full().exact(table);
          return found.dependencies().size() + ", " + found.keys().size() + " keys";
        });
  }

  /** Orders of clay with a customer, a town, a material and its price: few true dependencies. */
  private static EncodedTable orders(int rows) {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(11);
    var builder = new EncodedTable.Builder("orders");
    for (String header : ORDER_FIELDS) {
      builder.column(header);
    }
    for (int row = 0; row < rows; row++) {
      int member = random.nextInt(2_000);
      int material = random.nextInt(300);
      int batch = random.nextInt(40_000);
      String[] cells = {
        String.valueOf(row),
        "2026-" + random.nextInt(1, 13) + "-" + random.nextInt(1, 29),
        "M-" + member,
        "Town " + member % 97,
        "Material " + material,
        String.valueOf(100 + material * 7 % 211),
        String.valueOf(random.nextInt(1, 60)),
        String.valueOf(random.nextInt(2)),
        String.valueOf(random.nextInt(500)),
        "B" + batch,
        "P" + batch % 31,
        String.valueOf(random.nextInt(12))
      };
      for (int i = 0; i < cells.length; i++) {
        builder.cell(i, cells[i]);
      }
      builder.endRow(0);
    }
    return builder.build();
  }

  /** The ruler: every set of columns is asked of every other column on every row, unpruned. */
  private static String naive(EncodedTable table) {
    int columns = table.columns().size();
    int holding = 0;
    for (int set = 0; set < 1 << columns; set++) {
      for (int dependent = 0; dependent < columns; dependent++) {
        if ((set >> dependent & 1) == 0 && holds(table, set, dependent)) {
          holding++;
        }
      }
    }
    return holding + ", not only minimal ones";
  }

  private static boolean holds(EncodedTable table, int set, int dependent) {
    var seen = new java.util.HashMap<List<Integer>, Integer>();
    for (int row = 0; row < table.rows(); row++) {
      var key = new ArrayList<Integer>();
      for (int column = 0; column < table.columns().size(); column++) {
        if ((set >> column & 1) == 1) {
          key.add(table.columns().get(column).code(row));
        }
      }
      int code = table.columns().get(dependent).code(row);
      Integer before = seen.putIfAbsent(key, code);
      if (before != null && before != code) {
        return false;
      }
    }
    return true;
  }

  private static void inclusions() throws Exception {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(12);
    var tables = new ArrayList<EncodedTable>();
    for (int t = 0; t < 50; t++) {
      var builder = new EncodedTable.Builder("table " + t);
      for (int column = 0; column < 10; column++) {
        builder.column("c" + column);
      }
      for (int row = 0; row < 5_000; row++) {
        builder.cell(0, "t" + t + "-" + row);
        builder.cell(1, "t" + (t * 7 + 3) % 50 + "-" + random.nextInt(5_000));
        builder.cell(2, String.valueOf(row));
        for (int column = 3; column < 10; column++) {
          builder.cell(column, "v" + random.nextInt(20 * column * column));
        }
        builder.endRow(0);
      }
      tables.add(builder.build());
    }
    measured(
        "inclusions over 50 tables, 5 000 × 10 each",
        () -> InclusionSearch.usual().search(tables).size() + " inclusions");
  }

  private static void profile(Path folder, int megabytes) throws Exception {
    Path file = folder.resolve("profile-" + megabytes + ".csv");
    if (!Files.isRegularFile(file)) {
      write(file, megabytes);
    }
    String size = Files.size(file) / 1_000_000 + " MB of CSV";
    double joiner =
        measured(
            "profile of " + size,
            () -> {
              TableProfile table =
                  TableProfile.scan(file, ReadingOptions.DETECT).tables().getFirst();
              return table.rows() + " rows, " + table.columns().size() + " columns";
            });
    Optional<Connection> ruler = ruler();
    if (ruler.isPresent()) {
      try (Connection connection = ruler.get()) {
        double duck =
            measured("SUMMARIZE of the same by DuckDB", () -> summarize(connection, file));
        System.out.printf(
            Locale.ROOT, "%nProfile: %.2f times the time of DuckDB.%n", joiner / duck);
      }
    }
  }

  /** DuckDB, where its driver is on the path. */
  private static Optional<Connection> ruler() {
    try {
      return Optional.of(DriverManager.getConnection("jdbc:duckdb:"));
    } catch (SQLException e) {
      System.out.println("| DuckDB is not on the path: " + e.getMessage() + " | | | |");
      return Optional.empty();
    }
  }

  private static String summarize(Connection connection, Path file) throws SQLException {
    int columns = 0;
    try (Statement statement = connection.createStatement();
        ResultSet result =
            statement.executeQuery("SUMMARIZE FROM read_csv('" + file.toAbsolutePath() + "')")) {
      while (result.next()) {
        columns++;
      }
    }
    return columns + " columns";
  }

  private static void write(Path file, int megabytes) throws IOException {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(13);
    long left = megabytes * 1_000_000L;
    try (BufferedWriter out = Files.newBufferedWriter(file)) {
      out.write("no,day,member,email,kiln,cone,peak,cost,note,glazed\n");
      for (int row = 1; left > 0; row++) {
        int member = random.nextInt(200_000);
        String line =
            row
                + String.format(
                    Locale.ROOT,
                    ",2026-%02d-%02d,M-%06d,member%d@example.org,",
                    random.nextInt(1, 13),
                    random.nextInt(1, 29),
                    member,
                    member)
                + List.of("Ember", "Big Tom", "Little Ann").get(random.nextInt(3))
                + ",0"
                + random.nextInt(1, 10)
                + ","
                + random.nextInt(900, 1300)
                + ","
                + random.nextInt(10_000)
                + "."
                + random.nextInt(10, 100)
                + ","
                + (random.nextInt(4) == 0 ? "lid cracked, shelf " + random.nextInt(90) : "")
                    .transform(note -> note.isEmpty() ? "" : "\"" + note + "\"")
                + ","
                + random.nextBoolean()
                + "\n";
        out.write(line);
        left -= line.length();
      }
    }
  }
}
