package joiner.expression;

import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.function.Predicate;

/**
 * A formula as somebody typed it: a condition or a value, in a part of ISO/IEC 9075-2 (search
 * conditions and value expressions over one row). It may be wrong while it is edited. It is read
 * once, whoever asks; two formulas are equal when their texts are.
 */
public final class Formula {
  private final String text;
  private volatile Parsed parsed;

  /** What reading the text gave. */
  private sealed interface Parsed {
    record Tree(Expression tree) implements Parsed {}

    record Failed(Problem problem) implements Parsed {}
  }

  /** The formula of that text, sound or not. */
  public Formula(String text) {
    this.text = text;
  }

  /** The formula of a text that stands for none when it is blank. */
  public static Optional<Formula> unlessBlank(String text) {
    return Optional.of(text.strip()).filter(t -> !t.isEmpty()).map(Formula::new);
  }

  /** The formula that reads what has that name. */
  public static Formula naming(String name) {
    return new Formula(SqlText.iso().write(new Expression.Name(List.of(name), Place.NOWHERE)));
  }

  /** As it was typed. */
  public String text() {
    return text;
  }

  /** Whether nothing is said. */
  public boolean isBlank() {
    return text.isBlank();
  }

  /** Read as a search condition: it must yield true, false or unknown. */
  public Checked condition(Scope scope) {
    return switch (value(scope)) {
      case Checked.Sound sound when sound.kind() != Kind.BOOLEAN && sound.kind() != Kind.NULL ->
          new Checked.Faulty(
              List.of(
                  new Problem(
                      sound.tree().place().span(),
                      "A rule says what must be true; this is "
                          + sound.kind().words()
                          + ". Compare it with something.")));
      case Checked.Sound sound -> sound;
      case Checked.Faulty faulty -> faulty;
    };
  }

  /** Read as a value of any kind. */
  public Checked value(Scope scope) {
    return switch (parsed()) {
      case Parsed.Tree read -> TypeCheck.check(read.tree(), scope);
      case Parsed.Failed failed -> new Checked.Faulty(List.of(failed.problem()));
    };
  }

  /** Read as a value that names nothing, such as a default. */
  public Checked constant() {
    return value(Scope.EMPTY);
  }

  /**
   * The same formula with what it reads called by new names; all else stays as typed, and so does
   * what cannot be read.
   *
   * @param scope in which its names mean something now
   * @param path what each reference is to be called
   */
  public Formula renamed(Scope scope, Function<Reference, List<String>> path) {
    if (!(parsed() instanceof Parsed.Tree read)) {
      return this;
    }
    var changes = new TreeMap<Integer, Change>(Comparator.reverseOrder());
    collect(read.tree(), scope, path, changes);
    return changed(changes);
  }

  /**
   * The same formula where what a reference reads is compared with another text than before.
   *
   * @param scope in which its names mean something
   * @param before the text as a value, not as it stands in SQL
   */
  public Formula comparing(Scope scope, Reference with, String before, String after) {
    if (!(parsed() instanceof Parsed.Tree read)) {
      return this;
    }
    var changes = new TreeMap<Integer, Change>(Comparator.reverseOrder());
    String sql = SqlText.iso().write(text(after));
    for (Expression.Literal literal : Walk.comparedWith(read.tree(), reads(scope, with))) {
      if (literal.value().equals(new Value.Text(before))) {
        Span at = literal.place().span();
        changes.put(at.start(), new Change(at, sql));
      }
    }
    return changed(changes);
  }

  private static Expression text(String value) {
    return new Expression.Literal(new Value.Text(value), Kind.TEXT, Place.NOWHERE);
  }

  private static Predicate<Expression> reads(Scope scope, Reference wanted) {
    return e ->
        e instanceof Expression.Name name
            && scope.find(name.path()).filter(wanted::equals).isPresent();
  }

  private Formula changed(SortedMap<Integer, Change> fromTheEnd) {
    var changed = new StringBuilder(text);
    fromTheEnd
        .values()
        .forEach(change -> changed.replace(change.at.start(), change.at.end(), change.to));
    return fromTheEnd.isEmpty() ? this : new Formula(changed.toString());
  }

  /**
   * The paths it names, in order and each once, whatever they mean; none where it is unreadable.
   */
  public List<List<String>> names() {
    var names = new LinkedHashSet<List<String>>();
    if (parsed() instanceof Parsed.Tree read) {
      names(read.tree(), names);
    }
    return List.copyOf(names);
  }

  private static void names(Expression tree, Set<List<String>> names) {
    if (tree instanceof Expression.Name name) {
      names.add(name.path());
    }
    Walk.parts(tree).forEach(part -> names(part, names));
  }

  /** Whether it reads anything of another row than its own. */
  public boolean reachesOut() {
    return parsed() instanceof Parsed.Tree read
        && Walk.any(read.tree(), e -> e instanceof Expression.Name name && name.path().size() > 1);
  }

  private record Change(Span at, String to) {}

  private static void collect(
      Expression tree,
      Scope scope,
      Function<Reference, List<String>> path,
      Map<Integer, Change> changes) {
    if (tree instanceof Expression.Name written) {
      Optional<Reference> reference = scope.find(written.path());
      Optional<List<String>> other =
          reference.map(path).filter(to -> !to.equals(reference.get().path()));
      other.ifPresent(
          to -> {
            Span at = written.place().span();
            String sql = SqlText.iso().write(new Expression.Name(to, Place.NOWHERE));
            changes.put(at.start(), new Change(at, sql));
          });
    }
    Walk.parts(tree).forEach(part -> collect(part, scope, path, changes));
  }

  private Parsed parsed() {
    Parsed known = parsed;
    if (known == null) { // Two threads may both read it; they read the same.
      known = parse();
      parsed = known;
    }
    return known;
  }

  private Parsed parse() {
    try {
      return new Parsed.Tree(Parser.parse(text));
    } catch (ParseFailure failure) {
      return new Parsed.Failed(failure.problem());
    }
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof Formula that && text.equals(that.text);
  }

  @Override
  public int hashCode() {
    return text.hashCode();
  }

  @Override
  public String toString() {
    return text;
  }
}
