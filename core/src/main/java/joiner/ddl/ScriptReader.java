package joiner.ddl;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogIndex;
import joiner.catalog.CatalogTable;
import joiner.catalog.Exclusion;
import joiner.catalog.ForeignKey;
import joiner.catalog.Key;
import joiner.catalog.Sequence;
import joiner.catalog.Surroundings;
import joiner.catalog.Trigger;
import joiner.catalog.View;
import joiner.ddl.Tokens.NotUnderstoodException;
import joiner.engine.Dialect;

/** Reads a script statement by statement. */
final class ScriptReader {
  /** Statements that begin so say nothing of tables. */
  private static final Set<String> SILENT =
      Set.of(
          "SET",
          "BEGIN",
          "START",
          "COMMIT",
          "ROLLBACK",
          "USE",
          "PRAGMA",
          "LOCK",
          "UNLOCK",
          "GO",
          "PRINT",
          "ANALYZE",
          "VACUUM",
          "SELECT",
          "DROP");

  private static final Pattern BACKTICKS =
      Pattern.compile("(?im)^\\s*(?:CREATE TABLE|INSERT INTO)[^;\\n]*`");
  private static final Pattern COPY =
      Pattern.compile(
          "(?m)^COPY ([^\\n(]+?) ?(?:\\(([^\\n)]*)\\))? FROM stdin;\\r?\\n((?:(?!\\\\\\.\\r?$).*\\n)*)\\\\\\.\\r?$");
  private static final Pattern DELIMITED =
      Pattern.compile("(?ims)^DELIMITER[ \\t]+(\\S+)[ \\t]*\\R(.*?)^DELIMITER[ \\t]+;[ \\t]*\\r?$");

  private static final Pattern LONE_SEPARATOR =
      Pattern.compile("(?im)^[ \\t]*(?:GO|/)[ \\t]*\\r?$");

  private final String sql;

  /** A constraint by which rows exclude each other otherwise than by being equal. */
  private static final Pattern EXCLUDES =
      Pattern.compile("ADD\\s+CONSTRAINT\\s+\\S+\\s+EXCLUDE\\b", Pattern.CASE_INSENSITIVE);

  private final int[] lineBreaks;
  private final ScriptTypes types;
  private final boolean escapes;
  private final Map<String, TableDraft> tables = new LinkedHashMap<>();
  private final Map<String, TableDraft> anyCase = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
  private final ExtendedProperties properties = new ExtendedProperties(anyCase);
  private final Map<String, List<Map<String, String>>> rows = new LinkedHashMap<>();
  private final List<View> views = new ArrayList<>();
  private final List<Trigger> triggers = new ArrayList<>();
  private final List<Exclusion> exclusions = new ArrayList<>();
  private final List<String> unread = new ArrayList<>();

  /** Blocks of rows, each a table, its columns or null, and its lines. */
  private final List<String[]> blocks = new ArrayList<>();

  ScriptReader(String script, Optional<Dialect> dialect) {
    this.types = new ScriptTypes(dialect);
    this.escapes =
        dialect.map(Dialect::escapesWithBackslash).orElse(BACKTICKS.matcher(script).find())
            && !script.contains("NO_BACKSLASH_ESCAPES");
    this.sql = copied(script);
    this.lineBreaks = IntStream.range(0, sql.length()).filter(i -> sql.charAt(i) == '\n').toArray();
  }

  SqlScript read() {
    var statement = new ArrayList<SqlToken>();
    int begun = 0;
    List<SqlToken> all = SqlToken.of(sql, escapes);
    for (int i = 0; i < all.size(); i++) {
      SqlToken token = all.get(i);
      begun += begins(token, statement, begun) ? 1 : 0;
      begun -= token.is("END") && begun > 0 && !endsInside(all, i) ? 1 : 0;
      if (token.is(";") && begun == 0) {
        statement(statement);
        statement.clear();
      } else {
        statement.add(token);
      }
    }
    statement(statement);
    tables.values().forEach(table -> table.foreignKeys.replaceAll(this::referring));
    List<CatalogTable> made = tables.values().stream().map(TableDraft::table).toList();
    return new SqlScript(
        new Catalog(made, List.of(), new Surroundings(views, triggers, exclusions, List.of())),
        rows,
        unread);
  }

  /** Whether a block opens there that END closes; outside of one CASE stands in one statement. */
  private static boolean begins(SqlToken token, List<SqlToken> statement, int begun) {
    return token.is("BEGIN") && !statement.isEmpty() || token.is("CASE") && begun > 0;
  }

  /** Whether an END closes what no BEGIN opened. */
  private static boolean endsInside(List<SqlToken> all, int end) {
    return end + 1 < all.size()
        && List.of("IF", "LOOP", "WHILE", "REPEAT").stream().anyMatch(all.get(end + 1)::is);
  }

  /** A foreign key that names no columns refers to the primary key. */
  private ForeignKey referring(ForeignKey key) {
    Optional<TableDraft> parent = Optional.ofNullable(anyCase.get(key.parent()));
    List<String> columns =
        key.parentColumns().isEmpty()
            ? parent.flatMap(p -> p.primaryKey).map(Key::columns).orElse(List.of())
            : key.parentColumns();
    return new ForeignKey(
        key.name(),
        key.columns(),
        parent.map(p -> p.name).orElse(key.parent()),
        columns,
        key.onDelete(),
        key.onUpdate(),
        key.late());
  }

  /** The script without blocks of rows as PostgreSQL dumps them, and with one kind of separator. */
  private String copied(String script) {
    var plain = new StringBuilder();
    Matcher block = COPY.matcher(script);
    int end = 0;
    while (block.find()) {
      plain.append(script, end, block.start());
      plain.append("COPY_BLOCK ").append(blocks.size()).append(';');
      plain.append("\n".repeat((int) block.group().lines().count() - 1));
      blocks.add(new String[] {block.group(1), block.group(2), block.group(3)});
      end = block.end();
    }
    plain.append(script.substring(end));
    return LONE_SEPARATOR.matcher(delimited(plain.toString())).replaceAll(";");
  }

  /** The script without what tells a client that statements end otherwise than with semicolons. */
  private static String delimited(String script) {
    return DELIMITED
        .matcher(script)
        .replaceAll(
            block -> Matcher.quoteReplacement("\n" + block.group(2).replace(block.group(1), ";")));
  }

  private void statement(List<SqlToken> statement) {
    if (statement.isEmpty()) {
      return;
    }
    String first = statement.getFirst().text().toUpperCase(Locale.ROOT);
    if (SILENT.contains(first)) {
      return;
    }
    var tokens = new Tokens(sql, List.copyOf(statement));
    try {
      understand(tokens);
    } catch (NotUnderstoodException e) {
      tell(tokens.start(), "not understood: " + head(tokens.whole()));
    }
  }

  private static String head(String statement) {
    return statement.length() > 100 ? statement.substring(0, 100) + "…" : statement;
  }

  private void tell(int place, String what) {
    int before = Arrays.binarySearch(lineBreaks, place);
    unread.add("Line " + ((before < 0 ? -before - 1 : before) + 1) + ", " + what);
  }

  private void understand(Tokens tokens) throws NotUnderstoodException {
    if (tokens.takes("COPY_BLOCK")) {
      copy(blocks.get(Integer.parseInt(tokens.next().text())));
    } else if (tokens.takes("CREATE")) {
      create(tokens);
    } else if (tokens.takes("ALTER", "TABLE")) {
      alter(tokens);
    } else if (tokens.takes("COMMENT", "ON")) {
      comment(tokens);
    } else if (tokens.takes("INSERT", "INTO")) {
      insert(tokens);
    } else if (tokens.takes("DECLARE")) {
      properties.declare(tokens);
    } else if (tokens.takes("EXEC") || tokens.takes("EXECUTE")) {
      properties.execute(tokens);
    } else {
      throw new NotUnderstoodException();
    }
  }

  private void create(Tokens tokens) throws NotUnderstoodException {
    if (around(tokens)) {
      return;
    }
    boolean unique = tokens.takes("UNIQUE");
    if (tokens.takes("INDEX")) {
      index(tokens, unique);
      return;
    }
    if (tokens.takes("SEQUENCE")) {
      return; // What counts by it says so itself.
    }
    if (tokens.takes("EXTENSION")) {
      return; // What takes it says so itself.
    }
    tokens.expect("TABLE");
    tokens.takes("IF", "NOT", "EXISTS");
    var table = new TableDraft(tokens.name());
    var elements = new TableElements(table, types);
    int place = tokens.start();
    for (Tokens element : tokens.brackets().parts()) {
      try {
        elements.read(element);
      } catch (NotUnderstoodException e) {
        tell(element.start(), "not understood in " + table.name + ": " + element.whole());
      }
    }
    elements.unread().forEach(what -> tell(place, "left out of " + table.name + ": " + what));
    while (!tokens.isOver()) {
      if (tokens.takes("COMMENT")) {
        tokens.takes("=");
        table.comment = TableElements.text(tokens.next());
      } else {
        tokens.next(); // How and where it is stored.
      }
    }
    if (tables.putIfAbsent(table.name, table) != null) {
      tell(place, "there is a table " + table.name + " already.");
    }
    anyCase.put(table.name, table);
  }

  /** Views, triggers and what they call are known and told. */
  private boolean around(Tokens tokens) throws NotUnderstoodException {
    String whole = "CREATE " + tokens.rest();
    tokens.takes("OR", "REPLACE");
    boolean stored = tokens.takes("MATERIALIZED");
    if (tokens.takes("VIEW")) {
      tokens.takes("IF", "NOT", "EXISTS");
      views.add(new View(tokens.name(), stored, whole));
    } else if (tokens.takes("FUNCTION") || tokens.takes("PROCEDURE")) {
      tokens.next(); // What triggers call.
    } else if (tokens.takes("CONSTRAINT", "TRIGGER") || tokens.takes("TRIGGER")) {
      String name = tokens.name();
      Optional<String> first = tokens.takes("ON") ? Optional.of(tokens.name()) : Optional.empty();
      String timing = timing(tokens);
      String events = tokens.textUntil(List.of(first.isPresent() ? "AS" : "ON"));
      if (first.isEmpty()) {
        tokens.expect("ON");
      }
      String table = first.isPresent() ? first.get() : tokens.name();
      triggers.add(
          new Trigger(name, table, Trigger.Timing.of(timing), Trigger.Event.in(events), whole));
    } else {
      return false;
    }
    tell(tokens.start(), "not taken along: " + head(tokens.whole()));
    return true;
  }

  private static String timing(Tokens tokens) {
    for (String words : List.of("INSTEAD OF", "BEFORE", "AFTER")) {
      if (tokens.takes(words.split(" "))) {
        return words;
      }
    }
    return "";
  }

  private TableDraft table(Tokens tokens) throws NotUnderstoodException {
    TableDraft table = anyCase.get(tokens.name());
    if (table == null) {
      throw new NotUnderstoodException();
    }
    return table;
  }

  private void index(Tokens tokens, boolean unique) throws NotUnderstoodException {
    String whole = "CREATE UNIQUE INDEX " + tokens.rest();
    tokens.takes("IF", "NOT", "EXISTS");
    String name = tokens.name();
    tokens.expect("ON");
    tokens.takes("ONLY");
    TableDraft table = table(tokens);
    if (tokens.takes("USING")) {
      tokens.expect("BTREE");
    }
    if (unique) {
      key(tokens, table, name, whole);
    } else {
      CatalogIndex index = IndexParts.plain(name, tokens);
      requireAll(tokens, table, index.columns());
      table.indexes.add(index);
    }
  }

  /** A key, or by what some rows only exclude each other, which is known and told. */
  private void key(Tokens tokens, TableDraft table, String name, String whole)
      throws NotUnderstoodException {
    try {
      List<String> columns = IndexParts.ofKey(tokens);
      requireAll(tokens, table, columns);
      table.uniqueKeys.add(new Key(name, columns));
    } catch (NotUnderstoodException noKey) {
      exclude(tokens, new Exclusion(name, table.name, true, Optional.empty(), whole));
    }
  }

  private void exclude(Tokens tokens, Exclusion exclusion) {
    exclusions.add(exclusion);
    tell(tokens.start(), "not taken along: " + head(exclusion.definition()));
  }

  private static void requireAll(Tokens tokens, TableDraft table, List<String> columns)
      throws NotUnderstoodException {
    if (!tokens.isOver() || !table.columns.keySet().containsAll(columns)) {
      throw new NotUnderstoodException();
    }
  }

  private void alter(Tokens tokens) throws NotUnderstoodException {
    tokens.takes("ONLY");
    TableDraft table = table(tokens);
    if (tokens.takes("OWNER") || tokens.takes("ENABLE") || tokens.takes("DISABLE")) {
      return;
    }
    if (tokens.takes("ALTER")) {
      tokens.takes("COLUMN");
      TableDraft.ColumnDraft column = table.columns.get(tokens.name());
      if (column == null) {
        throw new NotUnderstoodException();
      }
      if (tokens.takes("SET", "DEFAULT")) {
        TableElements.defaultOf(column, tokens.rest());
      } else if (tokens.takes("SET", "NOT", "NULL")) {
        column.required = true;
      } else if (tokens.takes("ADD", "GENERATED") || tokens.takes("RESTART")) {
        column.counts = true;
      } else {
        throw new NotUnderstoodException();
      }
      return;
    }
    if (tokens.takes("MODIFY")) {
      modify(table, tokens.sees("(") ? tokens.brackets() : tokens);
      return;
    }
    tokens.takes("WITH", "CHECK");
    String whole = tokens.rest();
    tokens.expect("ADD");
    Matcher excludes = EXCLUDES.matcher(whole);
    if (excludes.lookingAt() && tokens.takes("CONSTRAINT")) {
      String sql = "ALTER TABLE " + table.name + " " + whole;
      exclude(tokens, new Exclusion(tokens.name(), table.name, false, Optional.empty(), sql));
      return;
    }
    tokens.takes("COLUMN");
    Tokens elements = tokens.sees("(") ? tokens.brackets() : tokens;
    var reading = new TableElements(table, types);
    for (Tokens element : elements.parts()) {
      element.takes("ADD");
      element.takes("COLUMN");
      reading.read(element);
    }
    int place = tokens.start();
    reading.unread().forEach(what -> tell(place, "left out of " + table.name + ": " + what));
  }

  /** Changes of columns as Oracle writes them. */
  private static void modify(TableDraft table, Tokens changes) throws NotUnderstoodException {
    for (Tokens change : changes.parts()) {
      TableDraft.ColumnDraft column = table.columns.get(change.name());
      if (column == null) {
        throw new NotUnderstoodException();
      }
      if (change.takes("GENERATED")) {
        column.counts = true;
      } else if (change.takes("NOT", "NULL")) {
        column.required = true;
      } else if (change.takes("DEFAULT")) {
        TableElements.defaultOf(column, change.rest());
      } else {
        throw new NotUnderstoodException();
      }
    }
  }

  private void comment(Tokens tokens) throws NotUnderstoodException {
    if (tokens.takes("TABLE")) {
      TableDraft table = table(tokens);
      tokens.expect("IS");
      table.comment = TableElements.text(tokens.next());
      return;
    }
    tokens.expect("COLUMN");
    var path = new ArrayList<String>(List.of(tokens.next().name()));
    while (tokens.takes(".")) {
      path.add(tokens.next().name());
    }
    tokens.expect("IS");
    TableDraft table = path.size() < 2 ? null : anyCase.get(path.get(path.size() - 2));
    TableDraft.ColumnDraft column = table == null ? null : table.columns.get(path.getLast());
    if (column == null) {
      throw new NotUnderstoodException();
    }
    column.comment = TableElements.text(tokens.next());
  }

  private void insert(Tokens tokens) throws NotUnderstoodException {
    TableDraft table = table(tokens);
    if (Sequence.keeps(table.columns.keySet())) {
      return;
    }
    List<String> columns = tokens.sees("(") ? tokens.names() : List.copyOf(table.columns.keySet());
    tokens.expect("VALUES");
    var found = new ArrayList<Map<String, String>>();
    do {
      found.add(ScriptValues.row(columns, tokens.brackets().parts(), escapes));
    } while (tokens.takes(","));
    rows.computeIfAbsent(table.name, name -> new ArrayList<>()).addAll(found);
  }

  private void copy(String[] block) throws NotUnderstoodException {
    TableDraft table = table(new Tokens(block[0], SqlToken.of(block[0])));
    List<String> columns =
        block[1] == null
            ? List.copyOf(table.columns.keySet())
            : new Tokens("(" + block[1] + ")", SqlToken.of("(" + block[1] + ")")).names();
    List<Map<String, String>> into = rows.computeIfAbsent(table.name, name -> new ArrayList<>());
    for (String line : block[2].lines().toList()) {
      into.add(ScriptValues.copied(columns, line));
    }
  }
}
