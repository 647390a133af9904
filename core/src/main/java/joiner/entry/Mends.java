package joiner.entry;

import java.time.Clock;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import joiner.audit.Violation;
import joiner.deletion.Deletions;
import joiner.deletion.Outcome;
import joiner.edit.Edit;
import joiner.edit.EnterRows;
import joiner.edit.Named;
import joiner.expression.Evaluator;
import joiner.expression.Spelling;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.meaning.ParentRows;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.EnteredText;
import joiner.rows.ReadValue;
import joiner.rows.RowId;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/**
 * Ways to put right what breaks a constraint, for some rows alike: each is an edit that changes
 * only these rows, and what it does is told before it is done.
 */
public final class Mends {
  /** Among more things than that no near miss is looked for. */
  private static final int MOST_KNOWN = 5_000;

  private final Draft draft;
  private final Violation violation;
  private final Table table;
  private final Rows rows;
  private final List<Integer> places;
  private final Clock clock;

  /**
   * A way to put rows right.
   *
   * @param words what it does, as a button says it
   * @param mended for how many rows it is a way
   */
  public record Mend(String words, Edit edit, int mended) {}

  /** Rows that may refer to any other row of a table. */
  public record Elsewhere(Relationship over, Set<RowId> rows) {}

  private Mends(Draft draft, Violation violation, List<Integer> numbers, Clock clock) {
    this.draft = draft;
    this.violation = violation;
    this.table = draft.design().table(violation.table());
    this.rows = draft.rows().of(table.id());
    this.clock = clock;
    this.places =
        numbers.stream().map(number -> number - 1).filter(place -> place < rows.count()).toList();
  }

  /**
   * The ways for all rows that break a constraint, or for some of them.
   *
   * @param numbers the rows, from 1
   */
  public static List<Mend> of(
      Draft draft, Violation violation, List<Integer> numbers, Clock clock) {
    return new Mends(draft, violation, numbers, clock).all();
  }

  /** The rows that point nowhere, where somebody may pick where they point to. */
  public static Optional<Elsewhere> elsewhere(
      Draft draft, Violation violation, List<Integer> numbers, Clock clock) {
    var mends = new Mends(draft, violation, numbers, clock);
    return violation.kind() != Violation.Kind.ORPHAN
        ? Optional.empty()
        : mends
            .reference()
            .map(
                over ->
                    new Elsewhere(
                        over,
                        mends.places.stream().map(mends.rows::id).collect(Collectors.toSet())));
  }

  private List<Mend> all() {
    var all = new ArrayList<Mend>();
    boolean computed = violation.fields().stream().map(table::field).anyMatch(Field::isComputed);
    if (places.isEmpty() || computed || draft.rows().link(table.id()).isPresent()) {
      return all; // What is worked out is put right in the design.
    }
    switch (violation.kind()) {
      case ORPHAN -> {
        nearParent().ifPresent(all::add);
        addParents().ifPresent(all::add);
      }
      case WRONG_TYPE -> cells("Read", this::converted).ifPresent(all::add);
      case NOT_IN_LIST -> cells("Take", this::nearChoice).ifPresent(all::add);
      case TOO_LONG -> cells("Shorten to", this::shortened).ifPresent(all::add);
      case MISSING_REQUIRED -> cells("Fill in", this::byDefault).ifPresent(all::add);
      case DUPLICATE_KEY, CHILDLESS, RULE, COMPUTED -> {}
    }
    boolean ofCells =
        violation.kind() == Violation.Kind.WRONG_TYPE
            || violation.kind() == Violation.Kind.NOT_IN_LIST
            || violation.kind() == Violation.Kind.TOO_LONG
            || violation.kind() == Violation.Kind.ORPHAN;
    if (ofCells) {
      emptied().ifPresent(all::add);
    }
    removed().ifPresent(all::add);
    return all;
  }

  private Optional<String> cell(int place, FieldId field) {
    return rows.cell(place, field);
  }

  private interface Better {
    Optional<String> of(Field field, String text);
  }

  /** Each cell gets a better text, where there is one. */
  private Optional<Mend> cells(String verb, Better better) {
    var ones = new ArrayList<EnterRows.One>();
    Set<String> texts = new LinkedHashSet<>();
    for (int place : places) {
      Map<FieldId, Optional<String>> cells = new LinkedHashMap<>();
      for (FieldId id : violation.fields()) {
        Field field = table.field(id);
        better
            .of(field, cell(place, id).orElse(""))
            .ifPresent(
                text -> {
                  cells.put(id, Optional.of(text));
                  texts.add(text);
                });
      }
      if (!cells.isEmpty()) {
        ones.add(new EnterRows.One(table.id(), Optional.of(rows.id(place)), cells));
      }
    }
    if (ones.isEmpty()) {
      return Optional.empty();
    }
    String words = verb + " " + quoted(texts) + in(ones.size());
    return Optional.of(mend(words, ones));
  }

  private static String quoted(Set<String> texts) {
    String some = texts.stream().limit(3).map(t -> "“" + t + "”").collect(Collectors.joining(", "));
    return texts.size() > 3 ? some + " …" : some;
  }

  private String in(int count) {
    return count == 1 && places.size() == 1
        ? ""
        : " in " + Counts.of(count, table.noun().singular(), table.noun().plural());
  }

  private Mend mend(String words, List<EnterRows.One> ones) {
    String what = words.substring(0, 1).toLowerCase(Locale.ROOT) + words.substring(1);
    return new Mend(
        words, new Named(what, new EnterRows(what, ones, Map.of()), false), ones.size());
  }

  /** A text of another form that means a value of the type. */
  private Optional<String> converted(Field field, String text) {
    String typed = EnteredText.of(field, text.strip());
    List<String> tries =
        switch (field.type().kind()) {
          case WHOLE, NUMBER -> List.of(typed, typed.replace(" ", ""), typed.replace(",", "."));
          case BOOLEAN, UUID -> List.of(typed.toLowerCase(Locale.ROOT));
          case DATE, TIME, DATE_TIME, ZONED, TEXT -> List.of(typed);
          case INTERVAL, BYTES, NULL -> List.of();
        };
    return tries.stream()
        .filter(t -> !t.equals(text))
        .filter(t -> ValueReader.read(t, field.type()) instanceof ReadValue.Fits)
        .findFirst();
  }

  private Optional<String> nearChoice(Field field, String text) {
    List<String> known =
        field.type() instanceof FieldType.Choice choice
            ? choice.values()
            : field.limits().allowed();
    return near(text, known);
  }

  private static Optional<String> near(String text, List<String> known) {
    String folded = folded(text);
    return known.stream()
        .filter(k -> folded(k).equals(folded))
        .findFirst()
        .or(
            () ->
                known.size() > MOST_KNOWN
                    ? Optional.empty()
                    : Spelling.nearest(text.strip(), known));
  }

  private static String folded(String text) {
    return text.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "");
  }

  /** As much as fits, up to the last whole word if that is not far. */
  private Optional<String> shortened(Field field, String text) {
    int most =
        draft.meaning().of(table).constraintsOf(field.id()).stream()
            .filter(Constraint.Longest.class::isInstance)
            .mapToInt(c -> ((Constraint.Longest) c).most())
            .min()
            .orElse(Integer.MAX_VALUE);
    if (text.codePointCount(0, text.length()) <= most) {
      return Optional.empty();
    }
    String cut = text.substring(0, text.offsetByCodePoints(0, most));
    int word = cut.lastIndexOf(' ');
    boolean whole = text.charAt(cut.length()) != ' ' && word > most / 2;
    return Optional.of((whole ? cut.substring(0, word) : cut).strip());
  }

  private Optional<String> byDefault(Field field, String text) {
    return draft
        .meaning()
        .of(table)
        .valueByDefault(field.id(), new Evaluator(clock))
        .map(Evaluator::show);
  }

  private Optional<Mend> emptied() {
    boolean required = violation.fields().stream().anyMatch(table::isRequired);
    if (required) {
      return Optional.empty();
    }
    List<EnterRows.One> ones =
        places.stream()
            .map(
                place -> {
                  Map<FieldId, Optional<String>> cells = new LinkedHashMap<>();
                  violation.fields().forEach(field -> cells.put(field, Optional.empty()));
                  return new EnterRows.One(table.id(), Optional.of(rows.id(place)), cells);
                })
            .toList();
    String labels = String.join(", ", table.labelsOf(violation.fields()));
    return Optional.of(mend("Leave " + labels + " empty" + in(ones.size()), ones));
  }

  private Optional<Mend> removed() {
    var which = new BitSet();
    places.forEach(which::set);
    var deletions = new Deletions(draft, clock);
    Outcome outcome = deletions.of(table.id(), which);
    if (outcome.verdict() == Outcome.Verdict.REFUSED) {
      return Optional.empty();
    }
    String what = Counts.of(places.size(), table.noun().singular(), table.noun().plural());
    int others = outcome.count() - places.size();
    String words =
        "Remove "
            + what
            + (others == 0 ? "" : ", with " + Counts.of(others, "other row", "other rows"));
    return Optional.of(new Mend(words, deletions.edit(what, outcome), places.size()));
  }

  private Optional<Relationship> reference() {
    return draft.design().parentsOf(table.id()).stream()
        .filter(r -> r.childFields().equals(violation.fields()))
        .filter(r -> r.name().equals(violation.constraint()) || isAlone(r))
        .findFirst();
  }

  private boolean isAlone(Relationship r) {
    return draft.design().parentsOf(table.id()).stream()
            .filter(other -> other.childFields().equals(r.childFields()))
            .count()
        == 1;
  }

  /** Rows whose key or label differs from what a cell holds by spelling only. */
  private Optional<Mend> nearParent() {
    Optional<Relationship> over = reference().filter(r -> r.childFields().size() == 1);
    if (over.isEmpty()) {
      return Optional.empty();
    }
    Map<String, String> keys = new LinkedHashMap<>();
    for (ParentRows.Parent parent : ParentRows.of(draft, over.get(), clock).all()) {
      keys.putIfAbsent(parent.key(), parent.key());
      keys.putIfAbsent(parent.label(), parent.key());
    }
    List<String> known = List.copyOf(keys.keySet());
    boolean texts = table.field(violation.fields().getFirst()).type().kind().isNumeric();
    Function<String, Optional<String>> look =
        text -> texts && text.matches("[-\\d. ]+") ? Optional.empty() : near(text, known);
    return cells(
        "Take", (field, text) -> look.apply(text).map(keys::get).filter(k -> !k.equals(text)));
  }

  /** The rows that are missing, with their keys; what else they need is for people to type. */
  private Optional<Mend> addParents() {
    Optional<Relationship> over = reference();
    if (over.isEmpty() || draft.rows().link(over.get().parent()).isPresent()) {
      return Optional.empty();
    }
    Table parent = draft.design().table(over.get().parent());
    var seen = new HashSet<List<Optional<String>>>();
    var entered = new ArrayList<Entered>();
    for (int place : places) {
      List<Optional<String>> key =
          over.get().childFields().stream().map(field -> cell(place, field)).toList();
      if (key.stream().allMatch(Optional::isPresent) && seen.add(key)) {
        Entered row = Entered.added(parent.id());
        for (int i = 0; i < key.size(); i++) {
          row = row.with(over.get().parentFields().get(i), key.get(i).orElseThrow());
        }
        entered.add(row);
      }
    }
    if (entered.isEmpty()) {
      return Optional.empty();
    }
    String keys =
        seen.stream()
            .limit(3)
            .map(key -> key.stream().map(k -> k.orElse("")).collect(Collectors.joining(" · ")))
            .collect(Collectors.joining(", "));
    String words =
        "Add the missing "
            + (entered.size() == 1 ? parent.noun().singular() : parent.noun().plural())
            + " "
            + keys
            + (entered.size() > 3 ? " …" : "");
    EnterRows edit = new Entry(draft, clock, new Random(places.size())).of(words, entered);
    return Optional.of(mend(words, edit.rows()));
  }
}
