package joiner.joining;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.model.Question;
import joiner.naming.Counts;
import joiner.naming.WordList;

/** What a question means, in sentences. */
public final class LineWords {
  private final Bound bound;

  private LineWords(Bound bound) {
    this.bound = bound;
  }

  /** What each line of the answer stands for. */
  public static String of(Bound bound) {
    return new LineWords(bound).line();
  }

  private String line() {
    List<Integer> apart = new Repetition(bound).essential();
    List<String> values =
        bound.shown().stream()
            .filter(shown -> !isSettled(shown.of(), bound.apart()))
            .map(Bound.Shown::label)
            .toList();
    List<String> nouns = apart.stream().map(this::singular).toList();
    if (nouns.isEmpty() && values.isEmpty()) {
      return "One line for all rows together.";
    }
    String rows =
        switch (nouns.size()) {
          case 0 -> "";
          case 1 -> nouns.getFirst();
          default ->
              "combination of "
                  + WordList.and(
                      apart.stream()
                          .map(role -> bound.roles().get(role).table().noun().indefinite())
                          .toList());
        };
    if (values.isEmpty()) {
      return "One line for each " + rows + ".";
    }
    String different = "each different " + WordList.and(values);
    return nouns.isEmpty()
        ? "One line for " + different + "."
        : "One line for each " + rows + " and " + different + ".";
  }

  private boolean isSettled(Expression tree, List<Integer> apart) {
    return new Repetition(bound).settledBy(apart).containsAll(Bound.rolesOf(tree));
  }

  private String singular(int role) {
    return bound.roles().get(role).table().noun().singular();
  }

  private String plural(int role) {
    return bound.roles().get(role).table().noun().plural();
  }

  /** That rows are counted more than once, with the numbers of one line. */
  public static String of(Bound bound, Answer.Repeated repeated) {
    var words = new LineWords(bound);
    var folded = (Bound.Folded) bound.columns().get(repeated.column());
    List<Integer> by = new Repetition(bound).of(folded.role());
    String where = words.example(repeated);
    return words.capital(folded.role())
        + " comes once for each "
        + words.each(by)
        + ", up to "
        + Counts.of(repeated.most())
        + " times in one line. "
        + folded.label()
        + " says "
        + Evaluator.show(repeated.says())
        + where
        + ", where "
        + Evaluator.show(repeated.means())
        + " is meant if each counts once; "
        + Counts.of(repeated.lines(), "line is", "lines are")
        + " wrong so.";
  }

  /** That a column may count rows more than once, by the design; empty where it cannot. */
  public static Optional<String> mayRepeat(Bound bound, int column) {
    if (!(bound.columns().get(column) instanceof Bound.Folded folded)
        || folded.once()
        || !folded.fold().hangsOnRepetition()) {
      return Optional.empty();
    }
    var words = new LineWords(bound);
    List<Integer> by = new Repetition(bound).of(folded.role());
    return by.isEmpty()
        ? Optional.empty()
        : Optional.of(
            words.capital(folded.role())
                + " comes once for each "
                + words.each(by)
                + ", and "
                + folded.label()
                + " counts it so.");
  }

  private String each(List<Integer> roles) {
    return roles.stream().map(this::singular).distinct().collect(Collectors.joining(" and each "));
  }

  private String capital(int role) {
    String noun = bound.roles().get(role).table().noun().indefinite();
    return noun.substring(0, 1).toUpperCase(Locale.ROOT) + noun.substring(1);
  }

  /** Of which line it is said. */
  private String example(Answer.Repeated repeated) {
    var told = new ArrayList<String>();
    for (int i = 0; i < bound.columns().size(); i++) {
      if (bound.columns().get(i) instanceof Bound.Shown) {
        told.add(Evaluator.show(repeated.example().get(i)));
      }
    }
    return told.isEmpty() ? "" : " for " + String.join(" · ", told);
  }

  /** That no line shows some rows. */
  public static String of(Bound bound, Answer.LeftOut left) {
    var words = new LineWords(bound);
    Bound.Joined without = bound.roles().get(left.without());
    return Counts.of(left.rows(), words.singular(left.role()), words.plural(left.role()))
        + " without "
        + (without.down() ? without.table().noun().plural() : without.table().noun().indefinite());
  }

  /** That rows stand side by side though nothing pairs them. */
  public static Optional<String> pairing(Bound bound) {
    var words = new LineWords(bound);
    return new Repetition(bound)
        .pairing()
        .map(
            pair ->
                "Every "
                    + words.singular(pair.one())
                    + " stands beside every "
                    + words.singular(pair.other())
                    + " of the same "
                    + words.singular(pair.meeting())
                    + ": nothing else pairs them. Ask two questions if that is not meant.");
  }

  /** The roles that stand side by side though nothing pairs them, the last joined first. */
  public static List<String> paired(Bound bound) {
    return new Repetition(bound)
        .pairing().stream()
            .flatMap(pair -> Stream.of(pair.one(), pair.other()))
            .sorted(Comparator.reverseOrder())
            .map(role -> bound.roles().get(role).name())
            .toList();
  }

  /** The counting by which a column would say what is meant, with words for it. */
  public record Remedy(Question.Counting counting, String words) {}

  /** Ways to count rows as they are meant, the surest first. */
  public static List<Remedy> remedies(Bound bound, int column) {
    var folded = (Question.Folded) bound.question().columns().get(column);
    var words = new LineWords(bound);
    int role = ((Bound.Folded) bound.columns().get(column)).role();
    var all = new ArrayList<Remedy>();
    all.add(new Remedy(Question.Counting.ONCE, "Count each " + words.singular(role) + " once"));
    bound
        .question()
        .role(folded.role())
        .link()
        .filter(Question.Link::down)
        .filter(link -> bound.question().role(link.from()).apart())
        .ifPresent(
            link ->
                all.add(
                    new Remedy(
                        new Question.Counting.Per(link.from()),
                        "Work out for each "
                            + words.singular(bound.roles().get(role).from())
                            + " first")));
    return all;
  }
}
