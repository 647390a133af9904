package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import joiner.database.LiveAnswer;
import joiner.database.TargetRefusedException;
import joiner.engine.Dialect;
import joiner.engine.Support;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.format.UnreadableFileException;
import joiner.joining.Answer;
import joiner.joining.Answering;
import joiner.joining.Asking;
import joiner.joining.Binding;
import joiner.joining.Bound;
import joiner.joining.ColumnText;
import joiner.joining.LineWords;
import joiner.joining.QuestionSql;
import joiner.meaning.Draft;
import joiner.model.Question;
import joiner.model.Question.Counting;
import joiner.naming.Counts;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Asks a question across tables. */
@Command(
    name = "ask",
    description = {
      "Ask the sample rows a question across tables: name what to show, and the joins are found.",
      "It is told what each line stands for, and where joins count rows more than once."
    },
    footer = {
      "Columns are fields with their table, SQL expressions of them, or count, sum, avg, min and max",
      "over them, with commas between:",
      "  joiner ask demo \"member.name, count(firing), sum(piece.weight_g) as weight\""
    },
    mixinStandardHelpOptions = true)
final class AskCommand implements Callable<Integer> {
  private static final int MOST_LINES = 100_000;

  @Mixin private DesignArgument design;

  @Parameters(
      index = "1",
      paramLabel = "COLUMNS",
      description = "What to show, or the name of a question that is kept.")
  private String columns;

  @Option(
      names = "--where",
      paramLabel = "CONDITION",
      description = {
        "Which rows count, or which lines where it names count, sum, avg, min or max;",
        "several conditions all hold. A name with a colon before it is left open."
      })
  private List<String> where = List.of();

  @Option(
      names = "--set",
      paramLabel = "NAME=VALUE",
      description = "Fill in what a condition leaves open as :NAME.")
  private Map<String, String> values = Map.of();

  @Option(
      names = "--order",
      split = ",",
      paramLabel = "N[-]",
      description = "Sort by the column of that number; with a minus behind it the greatest first.")
  private List<String> order = List.of();

  @Option(names = "--first", paramLabel = "N", description = "Only so many lines.")
  private Optional<Integer> first = Optional.empty();

  @Option(
      names = "--keep",
      split = ",",
      paramLabel = "TABLE",
      description = "Keep rows that have no match in this table.")
  private List<String> keep = List.of();

  @Option(names = "--once", description = "Count each row once in a line, however it was joined.")
  private boolean once;

  @Option(
      names = "--sql",
      converter = EngineWord.class,
      completionCandidates = EngineWord.class,
      paramLabel = "ENGINE",
      description = "Print the query for this engine instead: ${COMPLETION-CANDIDATES}.")
  private Optional<Dialect> sql = Optional.empty();

  @Option(
      names = "--url",
      paramLabel = "JDBC",
      description = "Ask this database instead of the sample rows; nothing is changed there.")
  private Optional<String> url = Optional.empty();

  @Mixin private LiveArgument live;

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException, UnreadableFileException, TargetRefusedException {
    PrintWriter out = spec.commandLine().getOut();
    PrintWriter err = spec.commandLine().getErr();
    Draft draft = design.open(err).draft();
    Bound bound = bound(draft, asked(draft));
    if (sql.isPresent()) {
      return printSql(bound, sql.get(), out, err);
    }
    Said said = url.isPresent() ? live(bound, url.get()) : own(bound, answer(draft, bound));
    if (json) {
      JsonOut.print(document(bound, said), out);
    } else {
      print(bound, said, out);
    }
    return ExitCode.FINE;
  }

  /**
   * An answer as it is printed.
   *
   * @param answer from the sample rows, if it is from them
   */
  private record Said(List<List<Optional<String>>> lines, boolean cut, Optional<Answer> answer) {}

  private static Said own(Bound bound, Answer answer) {
    return new Said(
        answer.lines().stream().map(line -> line.stream().map(AskCommand::text).toList()).toList(),
        answer.cut(),
        Optional.of(answer));
  }

  private Said live(Bound bound, String address) throws TargetRefusedException {
    LiveAnswer answer = LiveAnswer.of(bound, live.target(address), MOST_LINES);
    return new Said(answer.lines(), answer.cut(), Optional.empty());
  }

  private ParameterException wrong(String message) {
    return new ParameterException(spec.commandLine(), message);
  }

  private Question asked(Draft draft) {
    var asking = new Asking(draft.design(), draft.meaning());
    Optional<Question> kept =
        draft.design().questions().stream().filter(q -> q.name().equals(columns)).findFirst();
    Question question =
        kept.isPresent()
            ? only(asking, kept.get())
            : made(asking.of(ColumnText.split(columns), where));
    for (Map.Entry<String, String> value : values.entrySet()) {
      if (question.parameters().stream().noneMatch(p -> p.name().equals(value.getKey()))) {
        throw wrong(
            "--set " + value.getKey() + ": no condition leaves :" + value.getKey() + " open.");
      }
      question = Asking.filledIn(question, value.getKey(), value.getValue());
    }
    for (String table : keep) {
      if (question.roles().stream().noneMatch(role -> role.name().equals(table))) {
        throw wrong("--keep " + table + ": this question joins no table of that name.");
      }
      question = question.withRole(table, role -> role.withKept(true));
    }
    if (once) {
      question =
          question.withColumns(
              question.columns().stream()
                  .map(
                      column ->
                          column instanceof Question.Folded folded
                              ? folded.withCounting(Counting.ONCE)
                              : column)
                  .toList());
    }
    Question ordered =
        order.isEmpty() ? question : question.withOrder(order(question.columns().size()));
    return first.map(lines -> ordered.withFirst(OptionalInt.of(lines))).orElse(ordered);
  }

  /** A kept question, under further conditions. */
  private Question only(Asking asking, Question kept) {
    Question question = kept;
    for (String condition : where) {
      question = made(asking.only(question, condition));
    }
    return question;
  }

  private Question made(Asking.Made made) {
    return switch (made) {
      case Asking.Made.Fault(String message) -> throw wrong(message);
      case Asking.Made.Question(Question question) -> question;
    };
  }

  private List<Question.Order> order(int columns) {
    var all = new ArrayList<Question.Order>();
    for (String by : order) {
      boolean descending = by.endsWith("-");
      String number = descending ? by.substring(0, by.length() - 1) : by;
      if (!number.matches("\\d{1,3}")
          || Integer.parseInt(number) < 1
          || Integer.parseInt(number) > columns) {
        throw wrong("--order " + by + ": give the number of a column, from 1 to " + columns + ".");
      }
      all.add(new Question.Order(Integer.parseInt(number) - 1, descending));
    }
    return all;
  }

  private Bound bound(Draft draft, Question question) {
    return switch (Binding.of(draft.design(), draft.meaning(), question)) {
      case Binding.Result.Sound(Bound bound) -> bound;
      case Binding.Result.Faulty(var faults) ->
          throw wrong(faults.stream().map(Binding.Fault::message).collect(Collectors.joining(" ")));
    };
  }

  private Answer answer(Draft draft, Bound bound) {
    try {
      return new Answering(draft, Clock.systemDefaultZone()).answer(bound);
    } catch (Answering.Unanswered unanswered) {
      throw wrong(unanswered.getMessage());
    }
  }

  private static int printSql(Bound bound, Dialect dialect, PrintWriter out, PrintWriter err) {
    return switch (QuestionSql.of(bound, dialect)) {
      case Support.Kept(String query) -> {
        out.println(query + ";");
        yield ExitCode.FINE;
      }
      case Support.Impossible(String loss) -> {
        err.println("joiner: " + dialect.engine() + " cannot answer this: " + loss);
        yield ExitCode.ERRORS;
      }
    };
  }

  private static List<String> warnings(Bound bound, Optional<Answer> answer) {
    var all = new ArrayList<String>();
    answer.stream()
        .flatMap(told -> told.repeated().stream())
        .forEach(r -> all.add("Rows multiply. " + LineWords.of(bound, r)));
    LineWords.pairing(bound).ifPresent(all::add);
    return all;
  }

  private static List<String> headings(Bound bound) {
    return bound.columns().stream().map(Bound.Column::label).toList();
  }

  private static Optional<String> text(Value value) {
    return value == Value.NULL ? Optional.empty() : Optional.of(Evaluator.show(value));
  }

  private static void print(Bound bound, Said said, PrintWriter out) {
    var lines = new ArrayList<List<String>>();
    lines.add(headings(bound));
    said.lines.forEach(line -> lines.add(line.stream().map(cell -> cell.orElse("")).toList()));
    int[] widths = new int[bound.columns().size()];
    for (List<String> line : lines) {
      for (int i = 0; i < widths.length; i++) {
        widths[i] = Math.max(widths[i], line.get(i).length());
      }
    }
    for (List<String> line : lines) {
      var text = new StringBuilder();
      for (int i = 0; i < widths.length; i++) {
        text.append(line.get(i)).append(" ".repeat(widths[i] - line.get(i).length() + 2));
      }
      out.println(text.toString().stripTrailing());
    }
    out.println();
    out.println(
        Counts.of(said.lines.size(), "line", "lines")
            + (said.cut ? ", and more" : "")
            + ". "
            + LineWords.of(bound));
    said.answer.ifPresent(
        answer ->
            answer
                .leftOut()
                .forEach(left -> out.println("Left out: " + LineWords.of(bound, left) + ".")));
    warnings(bound, said.answer).forEach(out::println);
  }

  private static Map<String, Object> document(Bound bound, Said said) {
    Map<String, Object> document = new LinkedHashMap<>();
    document.put("columns", headings(bound));
    document.put(
        "joins",
        bound.roles().stream()
            .filter(role -> role.over().isPresent())
            .map(role -> role.over().get().name())
            .toList());
    document.put("line", LineWords.of(bound));
    document.put(
        "lines",
        said.lines.stream().map(line -> line.stream().map(JsonOut::orNull).toList()).toList());
    document.put("more", said.cut);
    said.answer.ifPresent(
        answer -> {
          document.put(
              "repeated", answer.repeated().stream().<Object>map(r -> of(bound, r)).toList());
          document.put(
              "left_out",
              answer.leftOut().stream().map(left -> LineWords.of(bound, left)).toList());
        });
    LineWords.pairing(bound).ifPresent(pairing -> document.put("pairing", pairing));
    return document;
  }

  private static Map<String, Object> of(Bound bound, Answer.Repeated r) {
    Map<String, Object> one = new LinkedHashMap<>();
    one.put("column", bound.columns().get(r.column()).label());
    one.put("most", r.most());
    one.put("lines", r.lines());
    one.put("says", Evaluator.show(r.says()));
    one.put("means", Evaluator.show(r.means()));
    one.put("message", LineWords.of(bound, r));
    return one;
  }
}
