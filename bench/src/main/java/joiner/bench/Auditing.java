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
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.SplittableRandom;
import joiner.audit.Audit;
import joiner.audit.AuditReport;
import joiner.expression.Width;
import joiner.format.DesignFolder;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Limits;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.rows.SampleRows;

/**
 * Audits pieces against their firings, ten pieces for each firing, and has DuckDB answer the same
 * questions about the same files in the same run. One process measures one of them, so that its
 * memory is its own: {@code Auditing FOLDER write|joiner|duckdb number|text|pair PIECES}.
 */
public final class Auditing {
  private static final int PIECES_A_FIRING = 10;
  private static final long KEYS_IN_MEMORY = 384L << 20;
  private static final List<String> FORMS = List.of("bowl", "plate", "mug", "vase");

  private final Path folder;
  private final Keys keys;
  private final int pieces;

  /** What a firing is identified by. */
  private enum Keys {
    NUMBER,
    TEXT,
    PAIR
  }

  private Auditing(Path folder, Keys keys, int pieces) {
    this.folder = folder.resolve(keys.name().toLowerCase(Locale.ROOT) + "-" + pieces);
    this.keys = keys;
    this.pieces = pieces;
  }

  /** Measures one of them and prints seconds, megabytes and what was found. */
  public static void main(String[] arguments) throws IOException, SQLException {
    var auditing =
        new Auditing(
            Path.of(arguments[0]),
            Keys.valueOf(arguments[2].toUpperCase(Locale.ROOT)),
            Integer.parseInt(arguments[3]));
    switch (arguments[1]) {
      case "write" -> auditing.write();
      case "joiner" -> auditing.joiner();
      case "duckdb" -> auditing.duckdb();
      default -> throw new IllegalArgumentException(arguments[1]);
    }
  }

  private List<Field> keyFields() {
    return switch (keys) {
      case NUMBER ->
          List.of(Field.of("firing_id", "Firing", new FieldType.WholeNumber(Width.BITS_32)));
      case TEXT -> List.of(Field.of("firing_code", "Firing", new FieldType.Text(40)));
      case PAIR ->
          List.of(
              Field.of("kiln_no", "Kiln", new FieldType.WholeNumber(Width.BITS_32)),
              Field.of("run_no", "Run", new FieldType.WholeNumber(Width.BITS_32)));
    };
  }

  private String key(long firing) {
    return switch (keys) {
      case NUMBER -> String.valueOf(firing);
      case TEXT -> "F-" + Long.toString(firing * 2_654_435_761L & 0xFFFFFFFFFFL, 36) + "-" + firing;
      case PAIR -> firing % 1_000 + "," + firing / 1_000;
    };
  }

  private Design design() {
    List<FieldId> key = keyFields().stream().map(Field::id).toList();
    var firing = new ArrayList<>(keyFields());
    firing.add(required("fuel", FieldType.Choice.of(List.of("gas", "wood"))));
    firing.add(Field.of("started_on", "Started", new FieldType.Date()));
    var piece = new ArrayList<Field>();
    piece.add(required("piece_id", new FieldType.WholeNumber(Width.BITS_32)));
    piece.addAll(keyFields());
    piece.add(required("form", FieldType.Choice.of(FORMS)));
    piece.add(
        required("grams", new FieldType.WholeNumber(Width.BITS_32))
            .withLimits(Limits.NONE.withRange(Optional.of("1"), Optional.of("4040"))));
    piece.add(Field.of("height_mm", "Height", new FieldType.Decimal(5, 1)));
    piece.add(required("made_on", new FieldType.Date()));
    Table firings =
        Table.of("firing", "Firing", new Noun("firing", "firings"))
            .withFields(firing)
            .withPrimaryKey(key);
    Table pieces =
        Table.of("piece", "Piece", new Noun("piece", "pieces"))
            .withFields(piece)
            .withPrimaryKey(List.of(new FieldId("piece_id")))
            .withRules(
                List.of(
                    new Rule(
                        "light",
                        "Light",
                        "grams < 4045 AND made_on >= DATE '2025-01-10'",
                        "Too heavy or too old.")));
    return Design.empty("pieces", "Pieces")
        .withTableAdded(firings)
        .withTableAdded(pieces)
        .withRelationshipAdded(Relationship.of("fk_piece", pieces.id(), key, firings.id(), key));
  }

  private static Field required(String name, FieldType type) {
    return Field.of(name, name, type).withRequired(true);
  }

  /** Writes design and rows; some point nowhere, some are there twice, some are no numbers. */
  private void write() throws IOException {
    Path data = Files.createDirectories(folder.resolve("rows"));
    DesignFolder.save(new Draft(design(), SampleRows.NONE), folder.resolve("design"));
    int firings = Math.max(1, pieces / PIECES_A_FIRING);
    String names = String.join(",", keyFields().stream().map(Field::name).toList());
    try (BufferedWriter out = Files.newBufferedWriter(data.resolve("firing.csv"))) {
      out.write(names + ",fuel,started_on\n");
      for (long i = 0; i < firings; i++) {
        long firing = i * 7_919 % firings;
        String fuel = firing % 3 == 0 ? "gas" : "wood";
        out.write(key(firing) + "," + fuel + ",2025-0" + (1 + firing % 9) + "-1" + firing % 10);
        out.write('\n');
      }
    }
    var random = new SplittableRandom(7);
    String none = ",".repeat(keyFields().size() - 1);
    try (BufferedWriter out = Files.newBufferedWriter(data.resolve("piece.csv"))) {
      out.write("piece_id," + names + ",form,grams,height_mm,made_on\n");
      for (int i = 0; i < pieces; i++) {
        long firing = random.nextInt(firings);
        String key = i % 2_000 == 7 ? none : key(i % 10_000 == 3 ? firings + firing : firing);
        out.write((i % 20_000 == 19_999 ? i - 19_999 : i) + "," + key + ",");
        out.write(FORMS.get(random.nextInt(4)) + ",");
        out.write(i % 1_000_000 == 5 ? "x" : String.valueOf(50 + random.nextInt(4_000)));
        out.write("," + (10 + random.nextInt(500)) + "." + random.nextInt(10));
        out.write(",2025-0" + (1 + random.nextInt(9)) + "-" + (10 + random.nextInt(18)) + "\n");
      }
    }
  }

  private void joiner() throws IOException {
    long begin = System.nanoTime();
    DesignFolder.Beside beside =
        DesignFolder.beside(folder.resolve("design"), folder.resolve("rows"));
    AuditReport report =
        Audit.of(
            beside.draft(),
            beside.rows(),
            Clock.systemDefaultZone(),
            KEYS_IN_MEMORY,
            (table, rows) -> true);
    print(begin, report.total() + " offending rows");
  }

  private void print(long begin, String found) throws IOException {
    double seconds = (System.nanoTime() - begin) / 1e9;
    System.out.printf(Locale.ROOT, "%.2f %d %s%n", seconds, peakMegabytes(), found);
  }

  /** The most memory this process ever had; 0 where the system does not tell. */
  static long peakMegabytes() throws IOException {
    Path status = Path.of("/proc/self/status");
    if (!Files.exists(status)) {
      return 0;
    }
    return Files.readAllLines(status).stream()
        .filter(line -> line.startsWith("VmHWM:"))
        .mapToLong(line -> Long.parseLong(line.replaceAll("\\D", "")) / 1_024)
        .findFirst()
        .orElse(0);
  }

  /** The same questions: of the cells of each table, of keys, of references, of the rule. */
  private void duckdb() throws IOException, SQLException {
    long begin = System.nanoTime();
    long broken = 0;
    List<String> names = keyFields().stream().map(Field::name).toList();
    try (Connection connection = DriverManager.getConnection("jdbc:duckdb:");
        Statement statement = connection.createStatement()) {
      for (String table : List.of("firing", "piece")) {
        Path file = folder.resolve("rows").resolve(table + ".csv").toAbsolutePath();
        statement.execute(
            "CREATE TABLE "
                + table
                + " AS SELECT * FROM read_csv('"
                + file
                + "', all_varchar = true, header = true)");
      }
      broken += sum(statement, cellsOfFirings(names));
      broken += sum(statement, cellsOfPieces(names));
      broken += sum(statement, repeated("firing", names.stream().map(this::typed).toList()));
      broken += sum(statement, repeated("piece", List.of("TRY_CAST(piece_id AS integer)")));
      broken += sum(statement, orphans(names));
    }
    print(begin, broken + " offending rows");
  }

  private String typed(String name) {
    return keys == Keys.TEXT ? name : "TRY_CAST(" + name + " AS integer)";
  }

  private String unfit(String name, boolean required) {
    return count((required ? "" : name + " IS NOT NULL AND ") + typed(name) + " IS NULL");
  }

  private static String count(String condition) {
    return "count(*) FILTER (WHERE " + condition + ")";
  }

  private String cellsOfFirings(List<String> names) {
    var counts = new ArrayList<>(names.stream().map(name -> unfit(name, true)).toList());
    counts.add(count("fuel IS NULL OR fuel NOT IN ('gas', 'wood')"));
    counts.add(count("started_on IS NOT NULL AND TRY_CAST(started_on AS date) IS NULL"));
    return "SELECT " + String.join(", ", counts) + " FROM firing";
  }

  private String cellsOfPieces(List<String> names) {
    String grams = "TRY_CAST(grams AS integer)";
    String day = "TRY_CAST(made_on AS date)";
    var counts = new ArrayList<>(names.stream().map(name -> unfit(name, false)).toList());
    counts.add(count("TRY_CAST(piece_id AS integer) IS NULL"));
    counts.add(count("form IS NULL OR form NOT IN ('bowl', 'plate', 'mug', 'vase')"));
    counts.add(count(grams + " IS NULL"));
    counts.add(count("NOT " + grams + " BETWEEN 1 AND 4040"));
    counts.add(count("height_mm IS NOT NULL AND TRY_CAST(height_mm AS decimal(5, 1)) IS NULL"));
    counts.add(count(day + " IS NULL"));
    counts.add(count("NOT (" + grams + " < 4045 AND " + day + " >= DATE '2025-01-10')"));
    return "SELECT " + String.join(", ", counts) + " FROM piece";
  }

  private static String repeated(String table, List<String> key) {
    return "SELECT sum(n - 1) FROM (SELECT count(*) AS n FROM "
        + table
        + " WHERE "
        + String.join(" AND ", key.stream().map(k -> k + " IS NOT NULL").toList())
        + " GROUP BY "
        + String.join(", ", key)
        + " HAVING count(*) > 1)";
  }

  private String orphans(List<String> names) {
    List<String> same =
        names.stream().map(name -> typed("f." + name) + " = " + typed("p." + name)).toList();
    List<String> there = names.stream().map(n -> typed("p." + n) + " IS NOT NULL").toList();
    return "SELECT count(*) FROM piece p WHERE "
        + String.join(" AND ", there)
        + " AND NOT EXISTS (SELECT 1 FROM firing f WHERE "
        + String.join(" AND ", same)
        + ")";
  }

  private static long sum(Statement statement, String sql) throws SQLException {
    try (ResultSet row = statement.executeQuery(sql)) {
      row.next();
      long sum = 0;
      for (int i = 1; i <= row.getMetaData().getColumnCount(); i++) {
        sum += row.getLong(i);
      }
      return sum;
    }
  }
}
