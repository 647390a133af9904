package joiner.database;

import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.engine.Support;
import joiner.joining.Bound;
import joiner.joining.QuestionSql;

/**
 * What a live database answers to a question; nothing is changed there.
 *
 * @param lines as texts of the engine, in the order of the columns
 * @param cut whether there are more
 */
public record LiveAnswer(List<List<Optional<String>>> lines, boolean cut) {
  public LiveAnswer {
    lines = List.copyOf(lines);
  }

  /**
   * Asks a database.
   *
   * @param most so many lines at most
   * @throws TargetRefusedException if it cannot be reached, has no words for it, or refuses
   */
  public static LiveAnswer of(Bound question, Target target, int most)
      throws TargetRefusedException {
    return LiveTarget.read(target, "cannot be asked", live -> ask(question, live, most));
  }

  private static LiveAnswer ask(Bound question, LiveTarget live, int most) throws SQLException {
    String sql =
        switch (QuestionSql.of(question, live.dialect())) {
          case Support.Kept(String query) -> query;
          case Support.Impossible(String loss) -> throw new SQLException(loss);
        };
    var lines = new ArrayList<List<Optional<String>>>();
    try (PreparedStatement statement = live.reading(sql)) {
      statement.setMaxRows(most == Integer.MAX_VALUE ? 0 : most + 1);
      try (ResultSet rows = statement.executeQuery()) {
        int columns = question.columns().size();
        while (rows.next() && lines.size() <= most) {
          var line = new ArrayList<Optional<String>>(columns);
          for (int i = 1; i <= columns; i++) {
            line.add(Optional.ofNullable(rows.getString(i)));
          }
          lines.add(List.copyOf(line));
        }
      }
    }
    boolean cut = lines.size() > most;
    return new LiveAnswer(cut ? lines.subList(0, most) : lines, cut);
  }
}
