package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import joiner.RandomPatterns;
import joiner.Tries;
import joiner.engine.Dialect;
import joiner.engine.Support;
import joiner.shape.TextPattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A law: a pattern that an engine keeps matches there the texts that it matches in the audit. */
class PatternsOnEnginesTest {
  @TempDir private Path folder;

  @Test
  void aPatternMeansTheSameOnEveryEngine() throws Exception {
    var texts =
        new LinkedHashSet<>(List.of("a", "K", "7", "ab", "aa", "a7", "x", "-", "\n", "a\n"));
    var words = new RandomPatterns(1);
    while (texts.size() < 150) {
      texts.add(words.text());
    }
    long verdicts = 0;
    for (String url : Databases.fresh(folder)) {
      Dialect dialect = Shipment.dialectOf(url);
      try (Connection connection = connect(url, dialect)) {
        fill(connection, texts);
        for (long seed : Tries.of(150).toArray()) {
          String pattern = new RandomPatterns(seed).next();
          if (TextPattern.of(pattern) instanceof TextPattern.Read.Understood understood
              && dialect.sayPattern("t", understood.pattern()) instanceof Support.Kept said) {
            verdicts += texts.size();
            assertThat(matched(connection, said.sql()))
                .as("%s on %s: %s", pattern, dialect.engine(), said.sql())
                .isEqualTo(texts.stream().filter(understood.pattern()::matches).toList());
          }
        }
      }
      Databases.drop(url);
    }
    assertThat(verdicts).isGreaterThan((long) (20_000 * Tries.factor()));
  }

  private static Connection connect(String url, Dialect dialect) throws SQLException {
    Connection connection = DriverManager.getConnection(url);
    for (String sql : dialect.transactionStart()) {
      try (Statement statement = connection.createStatement()) {
        statement.execute(sql);
      }
    }
    return connection;
  }

  private static void fill(Connection connection, Set<String> texts) throws SQLException {
    boolean maria = connection.getMetaData().getURL().startsWith("jdbc:mariadb:");
    String tail = maria ? " DEFAULT CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin" : "";
    try (Statement statement = connection.createStatement()) {
      statement.execute("CREATE TABLE mark (n integer, t varchar(40))" + tail);
    }
    try (PreparedStatement insert = connection.prepareStatement("INSERT INTO mark VALUES (?, ?)")) {
      int n = 0;
      for (String text : texts) {
        insert.setInt(1, n++);
        insert.setString(2, text);
        insert.execute();
      }
    }
  }

  private static List<String> matched(Connection connection, String condition) throws SQLException {
    var found = new ArrayList<String>();
    try (Statement statement = connection.createStatement();
        ResultSet rows =
            statement.executeQuery("SELECT t FROM mark WHERE " + condition + " ORDER BY n")) {
      while (rows.next()) {
        found.add(rows.getString(1));
      }
    } catch (SQLException e) {
      throw new AssertionError(condition, e);
    }
    return found;
  }
}
