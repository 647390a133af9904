package joiner.split;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntFunction;
import joiner.discovery.Fact;
import joiner.model.FieldId;

/**
 * What a designer has confirmed about a table that is to be split.
 *
 * @param decisions what decides what
 * @param repeats numbered fields that are one list
 * @param lists fields whose cells hold several values
 * @param lookups fields, or the first field of a list, whose values become rows of a table
 * @param merges spellings that stand for another one
 * @param settlements values chosen where rows contradict a decision
 * @param naturalKeys determinants that identify the rows of their table themselves; all others get
 *     a counter and stay unique
 */
public record SplitChoices(
    List<Decision> decisions,
    List<Repeat> repeats,
    List<CellList> lists,
    List<FieldId> lookups,
    List<Merge> merges,
    List<Settlement> settlements,
    Set<List<FieldId>> naturalKeys) {
  /** Nothing confirmed. */
  public static final SplitChoices NONE =
      new SplitChoices(List.of(), List.of(), List.of(), List.of(), List.of(), List.of(), Set.of());

  public SplitChoices {
    decisions = List.copyOf(decisions);
    repeats = List.copyOf(repeats);
    lists = List.copyOf(lists);
    lookups = List.copyOf(lookups);
    merges = List.copyOf(merges);
    settlements = List.copyOf(settlements);
    naturalKeys = Set.copyOf(naturalKeys);
  }

  /** Rows that agree in the determinant agree in the decided field. */
  public record Decision(List<FieldId> determinant, FieldId decided) {
    public Decision {
      determinant = List.copyOf(determinant);
    }
  }

  /** Numbered fields that become rows; several bases repeat together. */
  public record Repeat(List<Base> bases) {
    public Repeat {
      bases = List.copyOf(bases);
    }

    /**
     * One repeated thing.
     *
     * @param label of the field it becomes
     * @param fields in the order of their numbers; as many in each base
     */
    public record Base(String label, List<FieldId> fields) {
      public Base {
        fields = List.copyOf(fields);
      }
    }
  }

  /**
   * A field whose cells become rows.
   *
   * @param separator between the values, exactly
   * @param counted whether each value is a number, a blank and a thing
   */
  public record CellList(FieldId field, String separator, boolean counted) {}

  /** A value that stands for another one. */
  public record Merge(FieldId field, String from, String to) {}

  /**
   * The value of a decided field for all rows of one determinant.
   *
   * @param determinant its texts, empty text for an empty cell
   * @param value empty text for none
   */
  public record Settlement(Decision decision, List<String> determinant, String value) {
    public Settlement {
      determinant = List.copyOf(determinant);
    }
  }

  /**
   * The choices that facts found in rows stand for.
   *
   * @param accepted the facts that are true
   * @param fieldOf the field of each column the facts speak of; a fact about a column that is no
   *     field is left out
   */
  public static SplitChoices of(Collection<Fact> accepted, IntFunction<Optional<FieldId>> fieldOf) {
    var decisions = new ArrayList<Decision>();
    var repeats = new ArrayList<Repeat>();
    var lists = new ArrayList<CellList>();
    var lookups = new ArrayList<FieldId>();
    var merges = new ArrayList<Merge>();
    for (Fact fact : accepted) {
      switch (fact) {
        case Fact.Decides decides -> decision(decides, fieldOf).ifPresent(decisions::add);
        case Fact.Repeats repeat -> repeat(repeat, fieldOf).ifPresent(repeats::add);
        case Fact.HoldsSeveral list ->
            fieldOf
                .apply(list.column())
                .ifPresent(f -> lists.add(new CellList(f, list.separator(), list.counted())));
        case Fact.IsLookup lookup -> fieldOf.apply(lookup.column()).ifPresent(lookups::add);
        case Fact.SameThing same ->
            fieldOf
                .apply(same.column())
                .ifPresent(f -> merges.add(new Merge(f, same.other(), same.keep())));
      }
    }
    return new SplitChoices(decisions, repeats, lists, lookups, merges, List.of(), Set.of());
  }

  private static Optional<Decision> decision(
      Fact.Decides fact, IntFunction<Optional<FieldId>> fieldOf) {
    List<FieldId> determinant = fields(fact.determinant().places().boxed().toList(), fieldOf);
    return fieldOf
        .apply(fact.dependent())
        .filter(decided -> determinant.size() == fact.determinant().size())
        .map(decided -> new Decision(determinant, decided));
  }

  private static Optional<Repeat> repeat(
      Fact.Repeats fact, IntFunction<Optional<FieldId>> fieldOf) {
    var bases = new ArrayList<Repeat.Base>();
    for (Fact.Repeats.Base base : fact.bases()) {
      bases.add(new Repeat.Base(base.label(), fields(base.columns(), fieldOf)));
      if (bases.getLast().fields().size() != base.columns().size()) {
        return Optional.empty();
      }
    }
    return Optional.of(new Repeat(bases));
  }

  private static List<FieldId> fields(
      List<Integer> columns, IntFunction<Optional<FieldId>> fieldOf) {
    return columns.stream().flatMap(column -> fieldOf.apply(column).stream()).toList();
  }

  /** The same with those natural keys. */
  public SplitChoices withNaturalKeys(Set<List<FieldId>> other) {
    return new SplitChoices(decisions, repeats, lists, lookups, merges, settlements, other);
  }

  /** The same with one more settlement; it takes the place of an earlier one. */
  public SplitChoices settling(Settlement settlement) {
    var all = new ArrayList<>(settlements);
    all.removeIf(
        s ->
            s.decision().equals(settlement.decision())
                && s.determinant().equals(settlement.determinant()));
    all.add(settlement);
    return new SplitChoices(decisions, repeats, lists, lookups, merges, all, naturalKeys);
  }

  /** Whether nothing would change the tables. */
  public boolean isEmpty() {
    return decisions.isEmpty() && repeats.isEmpty() && lists.isEmpty() && lookups.isEmpty();
  }

  /** The list a field belongs to, if its first field is that one. */
  Optional<Repeat.Base> baseBeginning(FieldId field) {
    return repeats.stream()
        .flatMap(repeat -> repeat.bases().stream())
        .filter(base -> base.fields().getFirst().equals(field))
        .findFirst();
  }
}
