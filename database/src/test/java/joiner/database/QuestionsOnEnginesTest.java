package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Collectors;
import joiner.Pottery;
import joiner.RandomLinks;
import joiner.RandomQuestions;
import joiner.Tries;
import joiner.ddl.RowsChoice;
import joiner.engine.Dialect;
import joiner.engine.Support;
import joiner.expression.Evaluator;
import joiner.expression.Kind;
import joiner.expression.Value;
import joiner.joining.Answering;
import joiner.joining.Binding;
import joiner.joining.Bound;
import joiner.joining.QuestionSql;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Question;
import joiner.model.QuestionId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Every engine answers a question, said in its SQL, as Joiner answers it from the rows. */
class QuestionsOnEnginesTest {
  private static final int GROUPS = 10;
  private static final int QUESTIONS = 150;
  private static final int KEPT = 20;

  @TempDir private Path folder;
  private int views;
  private final Map<String, Integer> compared = new TreeMap<>();

  @Test
  void everyEngineAnswersAsJoinerDoes() throws Exception {
    for (long seed : Tries.of(3).toArray()) {
      Draft links = RandomLinks.draft(seed, GROUPS);
      Draft draft = links.withDesign(links.design().withQuestions(kept(links.design(), seed)));
      for (String url : Databases.fresh(folder)) {
        var shipped = Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
        assertThat(shipped.verification().differences()).as(url).isEmpty();
        try (Connection connection = DriverManager.getConnection(url);
            Statement statement = connection.createStatement()) {
          for (Question question : draft.design().questions()) {
            compareView(draft, question, url, statement);
          }
          var random = new Random(seed);
          for (int i = 0; i < QUESTIONS; i++) {
            compare(draft, RandomQuestions.of(draft.design(), random.nextLong()), url, statement);
          }
        }
        Databases.drop(url);
      }
    }
    assertThat(views).isGreaterThan(KEPT);
    System.out.println("questions compared: " + compared);
    assertThat(compared.values()).allMatch(count -> count >= Tries.least(QUESTIONS * 3));
  }

  private static List<Question> kept(Design design, long seed) {
    var random = new Random(seed);
    var all = new ArrayList<Question>();
    for (int i = 0; i < KEPT; i++) {
      String name = "asked_" + i;
      all.add(
          RandomQuestions.of(design, random.nextLong())
              .withNames(new QuestionId(name), name, "Asked " + i));
    }
    return all;
  }

  /** A view has the lines of its question, in whatever order. */
  private void compareView(Draft draft, Question question, String url, Statement statement)
      throws Exception {
    Bound bound = bound(draft, question);
    String sql = "SELECT * FROM " + Shipment.dialectOf(url).name(question.name());
    assertThat(found(statement, sql, bound, url))
        .as(url + "\n" + question)
        .containsExactlyInAnyOrderElementsOf(expected(draft, bound));
    views++;
  }

  private static Bound bound(Draft draft, Question question) {
    return ((Binding.Result.Sound) Binding.of(draft.design(), draft.meaning(), question)).bound();
  }

  private static List<String> expected(Draft draft, Bound bound) {
    return new Answering(draft, Pottery.CLOCK)
        .answer(bound).lines().stream()
            .map(
                line ->
                    line.stream()
                        .map(QuestionsOnEnginesTest::said)
                        .collect(Collectors.joining("|")))
            .toList();
  }

  private void compare(Draft draft, Question question, String url, Statement statement)
      throws Exception {
    Dialect dialect = Shipment.dialectOf(url);
    Bound bound = bound(draft, question);
    String sql = ((Support.Kept) QuestionSql.of(bound, dialect)).sql();
    List<String> expected = expected(draft, bound);
    List<String> found = found(statement, sql, bound, url);
    String which = url + "\n" + question + "\n" + sql;
    if (question.order().isEmpty() && question.first().isEmpty()) {
      assertThat(found).as(which).containsExactlyInAnyOrderElementsOf(expected);
    } else {
      assertThat(found).as(which).containsExactlyElementsOf(expected);
    }
    compared.merge(dialect.id(), 1, Integer::sum);
  }

  private static List<String> found(Statement statement, String sql, Bound bound, String url)
      throws SQLException {
    var lines = new ArrayList<String>();
    try (ResultSet rows = statement.executeQuery(sql)) {
      while (rows.next()) {
        var cells = new ArrayList<String>();
        for (int i = 0; i < bound.columns().size(); i++) {
          String text = rows.getString(i + 1);
          Kind kind = bound.columns().get(i).type().kind();
          boolean number = kind == Kind.WHOLE || kind == Kind.NUMBER;
          cells.add(text == null ? "-" : number ? plain(new BigDecimal(text)) : text);
        }
        lines.add(String.join("|", cells));
      }
    } catch (SQLException e) {
      throw new SQLException(url + " refuses " + sql + ": " + e.getMessage(), e);
    }
    return lines;
  }

  private static String said(Value value) {
    return switch (value) {
      case Value.Null none -> "-";
      case Value.Num num -> plain(num.number());
      default -> Evaluator.show(value);
    };
  }

  private static String plain(BigDecimal number) {
    return number.signum() == 0 ? "0" : number.stripTrailingZeros().toPlainString();
  }
}
