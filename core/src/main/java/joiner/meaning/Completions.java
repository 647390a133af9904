package joiner.meaning;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Reference;
import joiner.expression.Scope;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;

/**
 * What a condition can go on with where somebody types it: values of the field that is compared,
 * fields of the row and, behind a dot, of the row a field leads to, functions, and words of SQL.
 */
public final class Completions {
  /** A word that is begun, or a name between quotation marks; ways have dots between. */
  private static final Pattern WORD = Pattern.compile(":?[\\p{L}_][\\p{L}\\p{N}_.]*$|$");

  /** A field, how it is compared, and the beginning of a value. */
  private static final Pattern COMPARED =
      Pattern.compile(
          "([\\p{L}_][\\p{L}\\p{N}_]*)\\s*(?:=|<>|\\b(?:NOT\\s+)?IN\\s*\\((?:\\s*'[^']*'\\s*,)*)"
              + "\\s*('?[^'(),=<>]*)$",
          Pattern.CASE_INSENSITIVE);

  private static final List<String> WORDS =
      List.of(
          "AND",
          "OR",
          "NOT",
          "IS NULL",
          "IS NOT NULL",
          "BETWEEN",
          "IN (",
          "LIKE",
          "CASE WHEN",
          "THEN",
          "ELSE",
          "END",
          "TRUE",
          "FALSE",
          "NULL",
          "CURRENT_DATE",
          "LOCALTIMESTAMP",
          "CURRENT_TIMESTAMP",
          "CURRENT_USER",
          "INTERVAL '1' DAY",
          "IS TRUE",
          "IS NOT TRUE",
          "IS UNKNOWN",
          "EXTRACT(YEAR FROM ",
          "CAST(");

  /** SQL's set functions. */
  private static final List<String> FOLDS =
      List.of("count(", "count(distinct ", "sum(", "avg(", "min(", "max(");

  private Completions() {}

  /** What sort of thing it is. */
  public enum Sort {
    VALUE,
    FIELD,
    FUNCTION,
    WORD
  }

  /**
   * Something to go on with.
   *
   * @param from where the text begins that it takes the place of, up to the caret
   * @param text what is put there
   * @param detail what it is, for people; may be empty
   */
  public record Completion(Sort sort, int from, String text, String detail) {}

  /**
   * What fits a text as it stands before the caret, values first.
   *
   * @param scope in which its names mean something
   * @param table whose fields they are
   */
  public static List<Completion> of(Table table, Scope scope, String text, int caret) {
    return of(Optional.of(table), scope, text, caret);
  }

  /**
   * What fits a text over several tables, each behind its name.
   *
   * @param scope whose ways are the tables
   */
  public static List<Completion> of(Scope scope, String text, int caret) {
    return of(Optional.empty(), scope, text, caret);
  }

  private static List<Completion> of(Optional<Table> table, Scope scope, String text, int caret) {
    String before = text.substring(0, caret);
    var all = new ArrayList<Completion>();
    table.ifPresent(t -> all.addAll(values(t, before)));
    if (quoted(before)) {
      return all;
    }
    Matcher word = WORD.matcher(before);
    String begun = word.find() ? word.group() : "";
    int from = caret - begun.length();
    int dot = begun.lastIndexOf('.');
    if (dot >= 0) {
      further(scope, begun.substring(0, dot))
          .ifPresent(
              there ->
                  all.addAll(
                      fields(there, Optional.empty(), from + dot + 1, begun.substring(dot + 1))));
      return all;
    }
    if (table.isEmpty()) {
      for (String way : scope.ways()) {
        String label = scope.over(way).map(Scope::label).orElse("");
        add(all, Sort.FIELD, from, begun, Formula.naming(way).text(), label);
      }
      FOLDS.forEach(fold -> add(all, Sort.FUNCTION, from, begun, fold, ""));
    }
    all.addAll(fields(scope, table, from, begun));
    for (Expression.Function function : Expression.Function.values()) {
      add(all, Sort.FUNCTION, from, begun, function.name() + "(", "");
    }
    WORDS.forEach(sql -> add(all, Sort.WORD, from, begun, sql, ""));
    return all;
  }

  /** Whether the caret stands in a text between quotation marks. */
  private static boolean quoted(String before) {
    return before.chars().filter(c -> c == '\'').count() % 2 == 1;
  }

  private static void add(
      List<Completion> all, Sort sort, int from, String begun, String text, String detail) {
    boolean fits = text.toLowerCase(Locale.ROOT).startsWith(begun.toLowerCase(Locale.ROOT));
    if (fits && !text.equals(begun)) {
      all.add(new Completion(sort, from, text, detail));
    }
  }

  private static Optional<Scope> further(Scope scope, String ways) {
    Optional<Scope> there = Optional.of(scope);
    for (String way : ways.split("\\.", -1)) {
      there = there.flatMap(at -> at.over(way));
    }
    return there;
  }

  private static List<Completion> fields(
      Scope scope, Optional<Table> table, int from, String begun) {
    var fields = new ArrayList<Completion>();
    for (String name : scope.names()) {
      String detail =
          table
              .flatMap(t -> t.fieldNamed(name))
              .map(field -> field.label() + " · " + TypeWords.of(field.type()))
              .orElseGet(() -> scope.find(name).map(Completions::kind).orElse(""));
      add(fields, Sort.FIELD, from, begun, Formula.naming(name).text(), detail);
      boolean byLabel =
          !begun.isEmpty()
              && table
                  .flatMap(t -> t.fieldNamed(name))
                  .filter(f -> startsWith(f.label(), begun) && !startsWith(name, begun))
                  .isPresent();
      if (byLabel) {
        fields.add(new Completion(Sort.FIELD, from, Formula.naming(name).text(), detail));
      }
    }
    fields.sort(Comparator.comparing(Completion::text));
    return fields;
  }

  private static boolean startsWith(String text, String begun) {
    return text.toLowerCase(Locale.ROOT).startsWith(begun.toLowerCase(Locale.ROOT));
  }

  private static String kind(Reference reference) {
    return reference.type().kind().words();
  }

  /** Values that the field can have which is compared just now, where it is told which. */
  private static List<Completion> values(Table table, String before) {
    Matcher compared = COMPARED.matcher(before);
    if (!compared.find()) {
      return List.of();
    }
    Optional<Field> field =
        table.fields().stream()
            .filter(f -> f.name().equalsIgnoreCase(compared.group(1)))
            .findFirst();
    String begun = compared.group(2);
    int from = before.length() - begun.length();
    String bare = begun.startsWith("'") ? begun.substring(1) : begun;
    return field.stream()
        .flatMap(Completions::listed)
        .filter(value -> startsWith(value, bare))
        .map(
            value ->
                new Completion(
                    Sort.VALUE, from, "'" + value.replace("'", "''") + "'", field.get().label()))
        .toList();
  }

  private static Stream<String> listed(Field field) {
    return field.type() instanceof FieldType.Choice choice
        ? choice.values().stream()
        : field.limits().allowed().stream();
  }
}
