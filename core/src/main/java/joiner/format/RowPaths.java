package joiner.format;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiPredicate;
import java.util.regex.Pattern;
import joiner.model.Table;

/**
 * Where rows stand below the folder of a package. The one place that decides whether a path may be
 * read or written: it never leaves the folder, whatever a package says.
 */
final class RowPaths {
  /** Leaves room for an ending within the 255 bytes file systems allow a name. */
  private static final int LONGEST_BYTES = 200;

  private static final Pattern UNSAFE = Pattern.compile("[\\p{Cntrl}/\\\\:*?\"<>|]");

  /** Names the file systems of Windows reserve (from memory). */
  private static final Pattern RESERVED =
      Pattern.compile("(?i)(con|prn|aux|nul|com\\d|lpt\\d)(\\..*)?");

  /** Endings of files that are no delimited text. */
  private static final Set<String> OTHER_ENDINGS =
      Set.of(
          "xlsx", "xls", "ods", "json", "jsonl", "ndjson", "geojson", "xml", "parquet", "gz", "zip",
          "bz2", "sqlite", "db");

  private RowPaths() {}

  /**
   * For each table name, in order, the path of its rows where nothing else is said.
   *
   * @param isOthers whether, for a table name, a path belongs to somebody else
   */
  static Map<String, String> usual(
      Collection<String> tableNames, BiPredicate<String, String> isOthers) {
    Map<String, String> paths = new LinkedHashMap<>();
    Set<String> taken = new HashSet<>();
    for (String name : tableNames) {
      String safe = safe(name);
      String candidate = safe;
      for (int number = 2;
          isOthers.test(name, path(candidate)) || !taken.add(candidate.toLowerCase(Locale.ROOT));
          number++) {
        candidate = safe + "-" + number;
      }
      paths.put(name, path(candidate));
    }
    return paths;
  }

  private static String path(String name) {
    return "data/" + name + ".csv";
  }

  private static String safe(String name) {
    String plain = UNSAFE.matcher(name).replaceAll("-").replaceAll("^[. ]+|[. ]+$", "");
    while (plain.getBytes(StandardCharsets.UTF_8).length > LONGEST_BYTES) {
      plain = plain.substring(0, plain.offsetByCodePoints(plain.length(), -1));
    }
    return plain.isEmpty() || RESERVED.matcher(plain).matches() ? "table-" + plain : plain;
  }

  /** The paths a table's resource names, as kept with it; none: it has the usual one. */
  static List<String> kept(Table table) {
    String json = table.extras().byProperty().get("path");
    return json == null ? List.of() : of(ExtrasJson.parse(json));
  }

  /** One path or a list of them. */
  static List<String> of(Json path) {
    return switch (path) {
      case Json.Text text -> List.of(text.text());
      case Json.Arr array ->
          array.items().stream()
              .map(item -> item instanceof Json.Text text ? text.text() : "")
              .toList();
      case Json.Obj o -> List.of();
      case Json.Num n -> List.of();
      case Json.Bool b -> List.of();
      case Json.Null n -> List.of();
    };
  }

  /** Whether rows behind a path are read and written: text inside the package. */
  static boolean isReadable(String path, Table table) {
    String ending = path.substring(path.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
    String format = table.extras().byProperty().getOrDefault("format", "\"csv\"");
    return !path.contains("://")
        && !OTHER_ENDINGS.contains(ending)
        && List.of("\"csv\"", "\"tsv\"").contains(format);
  }

  /**
   * The place of rows below the folder.
   *
   * @return empty where the path would lead out of the folder, names a folder, or is a file that
   *     describes the package or is Joiner's own
   */
  static Optional<Path> ofRows(Path folder, String path) {
    return inside(folder, path)
        .filter(place -> !path.endsWith("/") && !path.endsWith("."))
        .filter(place -> !isOwn(folder.normalize().relativize(place)));
  }

  private static boolean isOwn(Path relative) {
    String first = relative.getName(0).toString().toLowerCase(Locale.ROOT);
    return first.startsWith(".joiner") || first.equals(DataPackage.FILE);
  }

  /**
   * The place of a path below the folder.
   *
   * @return empty where it would lead out of the folder, through a link too, or is no path at all
   */
  static Optional<Path> inside(Path folder, String path) {
    try {
      Path relative = Path.of(path);
      Path target = folder.resolve(relative).normalize();
      boolean below =
          !path.isBlank()
              && !relative.isAbsolute()
              && target.startsWith(folder.normalize())
              && !target.equals(folder.normalize());
      return Optional.of(target).filter(t -> below && staysInside(folder, t));
    } catch (InvalidPathException e) {
      return Optional.empty();
    }
  }

  /** Follows links of what is there already; what is not there yet cannot lead out. */
  private static boolean staysInside(Path folder, Path target) {
    try {
      Path there = target;
      while (!Files.exists(there)) {
        there = there.getParent();
      }
      return !Files.exists(folder)
          || there.toRealPath().startsWith(folder.toRealPath())
          || folder.toRealPath().startsWith(there.toRealPath());
    } catch (IOException e) {
      return false;
    }
  }
}
