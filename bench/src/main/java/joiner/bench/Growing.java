package joiner.bench;

import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import joiner.database.Progress;
import joiner.database.Shipment;
import joiner.database.Target;
import joiner.ddl.RowsChoice;
import joiner.discovery.DependencySearch;
import joiner.discovery.Fact;
import joiner.discovery.FactSearch;
import joiner.format.DesignFolder;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.rows.SampleRows;
import joiner.source.ImportOptions;
import joiner.source.ProfiledSource;
import joiner.source.ReadingOptions;
import joiner.source.Source;
import joiner.source.SourceFile;
import joiner.source.SourceImport;
import joiner.source.TableProfile;
import joiner.split.Split;
import joiner.split.SplitChoices;

/**
 * How long it takes, from a file of flat orders, to profile it, to find its dependencies, to split
 * it and to ship the result, by Joiner and by DuckDB doing about the same. Arguments: a folder;
 * {@code write} or who does it, {@code joiner} or {@code duckdb}; what; and how many rows. A
 * process each.
 */
public final class Growing {
  private final Path file;
  private final Path folder;

  private Growing(Path folder, int rows) {
    this.folder = folder.resolve("growing-" + rows);
    this.file = this.folder.resolve("flat.csv");
  }

  /** Does one thing and prints seconds, megabytes at the peak, and what was found. */
  public static void main(String[] arguments) throws Exception {
    int rows = Integer.parseInt(arguments[3]);
    var growing = new Growing(Path.of(arguments[0]), rows);
    if (arguments[1].equals("write")) {
      growing.write(rows);
      return;
    }
    boolean joiner = arguments[1].equals("joiner");
    long begin = System.nanoTime();
    String found =
        switch (arguments[2]) {
          case "profile" -> joiner ? growing.profile() : growing.summarize();
          case "dependencies" -> joiner ? growing.dependencies() : growing.pairs();
          case "split" -> joiner ? growing.split() : growing.distinct();
          case "ship" -> joiner ? growing.ship() : growing.load();
          default -> throw new IllegalArgumentException(arguments[2]);
        };
    double seconds = (System.nanoTime() - begin) / 1e9;
    System.out.printf(Locale.ROOT, "%.2f %d %s%n", seconds, Auditing.peakMegabytes(), found);
  }

  /** A member has a town, a material a price, a batch a packer. */
  private void write(int rows) throws IOException {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(17);
    Files.createDirectories(folder);
    try (BufferedWriter out = Files.newBufferedWriter(file)) {
      out.write("no,day,member,town,material,price,kilos,batch,packer,shelf\n");
      for (int row = 1; row <= rows; row++) {
        int member = random.nextInt(2_000);
        int material = random.nextInt(300);
        int batch = random.nextInt(Math.max(50, rows / 25));
        out.write(
            String.format(
                Locale.ROOT,
                "%d,2026-%02d-%02d,M-%05d,Town %d,Material %d,%d,%d,B%d,P%d,%d%n",
                row,
                random.nextInt(1, 13),
                random.nextInt(1, 29),
                member,
                member % 97,
                material,
                100 + material * 7 % 211,
                random.nextInt(1, 60),
                batch,
                batch % 31,
                random.nextInt(500)));
      }
    }
  }

  private String profile() throws Exception {
    TableProfile table = TableProfile.scan(file, ReadingOptions.DETECT).tables().getFirst();
    return table.rows() + " rows, " + table.columns().size() + " columns";
  }

  private String dependencies() throws Exception {
    Source source = SourceFile.read(file, ReadingOptions.DETECT);
    return DependencySearch.full().exact(source.tables().getFirst().cells()).dependencies().size()
        + " dependencies";
  }

  private String split() throws Exception {
    Source source = SourceFile.read(file, ReadingOptions.DETECT);
    ProfiledSource profiled = ProfiledSource.of(source);
    FactSearch search =
        FactSearch.of(
            source.tables().getFirst().cells(), profiled.profiles().getFirst(), () -> false);
    Set<Fact> taken = new LinkedHashSet<>();
    for (Fact fact : search.facts()) {
      if (fact.score() >= FactSearch.PLAUSIBLE
          && fact instanceof Fact.Decides decides
          && decides.exceptions() == 0) {
        taken.add(fact);
      }
    }
    Draft empty = new Draft(Design.empty("orders", "Orders"), SampleRows.NONE);
    SourceImport imported = SourceImport.of(profiled, empty.design(), ImportOptions.ALL);
    Draft flat = imported.edit().apply(empty);
    SourceImport.Imported table = imported.tables().getFirst();
    SplitChoices choices =
        SplitChoices.of(taken, column -> Optional.ofNullable(table.columns().get(column)));
    Draft after = Split.of(flat, table.table().id(), choices).after().orElseThrow();
    DesignFolder.save(after, folder.resolve("split"));
    return after.design().tables().size() + " tables, " + after.rows().count() + " rows";
  }

  private String ship() throws Exception {
    Draft draft = DesignFolder.open(folder.resolve("split")).draft();
    Path database = folder.resolve("shipped.duckdb");
    Files.deleteIfExists(database);
    Shipment shipped =
        Shipment.ship(draft, Target.of("jdbc:duckdb:" + database), RowsChoice.ALL, Progress.NONE);
    return shipped.verification().holds() ? draft.rows().count() + " rows" : "not as promised";
  }

  private String all() {
    return "read_csv('" + file.toAbsolutePath() + "')";
  }

  private static long rows(Statement statement, String sql) throws SQLException {
    long rows = 0;
    try (ResultSet result = statement.executeQuery(sql)) {
      while (result.next()) {
        rows++;
      }
    }
    return rows;
  }

  private String summarize() throws SQLException {
    try (Connection connection = DriverManager.getConnection("jdbc:duckdb:");
        Statement statement = connection.createStatement()) {
      return rows(statement, "SUMMARIZE FROM " + all()) + " columns";
    }
  }

  /** Of single columns only; Joiner looks at all sets. */
  private String pairs() throws SQLException {
    try (Connection connection = DriverManager.getConnection("jdbc:duckdb:");
        Statement statement = connection.createStatement()) {
      statement.execute("CREATE TABLE orders AS SELECT * FROM " + all());
      List<String> columns =
          List.of(
              "no",
              "day",
              "member",
              "town",
              "material",
              "price",
              "kilos",
              "batch",
              "packer",
              "shelf");
      int holding = 0;
      for (String one : columns) {
        var others = new ArrayList<>(columns);
        others.remove(one);
        String same =
            "SELECT 1 FROM (SELECT %s FROM orders GROUP BY %s HAVING count(DISTINCT %s) > 1 LIMIT 1)";
        for (String other : others) {
          holding += rows(statement, same.formatted(one, one, other)) == 0 ? 1 : 0;
        }
      }
      return holding + " dependencies of one column";
    }
  }

  private static final Map<String, String> PARTS =
      Map.of(
          "member", "member, town",
          "material", "material, price",
          "batch", "batch, packer",
          "orders", "no, day, member, material, kilos, batch, shelf");

  private String distinct() throws SQLException {
    try (Connection connection = DriverManager.getConnection("jdbc:duckdb:");
        Statement statement = connection.createStatement()) {
      for (Map.Entry<String, String> part : PARTS.entrySet()) {
        statement.execute(
            "COPY (SELECT DISTINCT "
                + part.getValue()
                + " FROM "
                + all()
                + ") TO '"
                + folder.resolve(part.getKey() + ".csv").toAbsolutePath()
                + "' (HEADER)");
      }
    }
    return PARTS.size() + " files";
  }

  private String load() throws SQLException, IOException {
    Path database = folder.resolve("loaded.duckdb");
    Files.deleteIfExists(database);
    try (Connection connection = DriverManager.getConnection("jdbc:duckdb:" + database);
        Statement statement = connection.createStatement()) {
      statement.execute("CREATE TABLE member (member varchar PRIMARY KEY, town varchar)");
      statement.execute("CREATE TABLE material (material varchar PRIMARY KEY, price integer)");
      statement.execute("CREATE TABLE batch (batch varchar PRIMARY KEY, packer varchar)");
      statement.execute(
          "CREATE TABLE orders (no integer PRIMARY KEY, day date, member varchar REFERENCES member,"
              + " material varchar REFERENCES material, kilos integer,"
              + " batch varchar REFERENCES batch, shelf integer)");
      for (String table : List.of("member", "material", "batch", "orders")) {
        statement.execute(
            "COPY " + table + " FROM '" + folder.resolve(table + ".csv").toAbsolutePath() + "'");
      }
    }
    return "4 tables";
  }
}
