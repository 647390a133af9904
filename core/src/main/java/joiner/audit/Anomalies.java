package joiner.audit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;
import joiner.discovery.ColumnProfile;
import joiner.discovery.Fact;
import joiner.discovery.FactSearch;
import joiner.edit.SplitOff;
import joiner.expression.Kind;
import joiner.meaning.Draft;
import joiner.model.Decided;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.KnownFact;
import joiner.model.Origin;
import joiner.model.Table;
import joiner.rows.EncodedTable;
import joiner.rows.Rows;

/**
 * What goes wrong in tables below Boyce–Codd normal form, on their own rows: fields that are no key
 * decide others, as somebody knows, or as all rows show and is plausible (E. F. Codd, “Further
 * Normalization of the Data Base Relational Model”, 1971, tells the three anomalies; from memory).
 */
public final class Anomalies {
  /** So many rows of a table are searched for what decides what; all rows must show it then. */
  private static final int SEARCHED = 5_000;

  /** Below this nothing can be told from chance. */
  private static final int LEAST_ROWS = 8;

  private final Draft draft;
  private final BooleanSupplier stop;

  private Anomalies(Draft draft, BooleanSupplier stop) {
    this.draft = draft;
    this.stop = stop;
  }

  /**
   * Those of all tables, as far as their rows are held: what rows contradict first, then what
   * somebody knows, then the most plausible.
   *
   * @param stop asked often; once true the search ends with what it has
   */
  public static List<Anomaly> of(Draft draft, BooleanSupplier stop) {
    var found = new Anomalies(draft, stop);
    return draft.design().tables().stream()
        .takeWhile(table -> !stop.getAsBoolean())
        .flatMap(table -> found.of(table).stream())
        .sorted(
            Comparator.comparing((Anomaly anomaly) -> anomaly.disagreements().isEmpty())
                .thenComparing(anomaly -> !anomaly.isKnown())
                .thenComparing(Comparator.comparingDouble(Anomaly::score).reversed()))
        .toList();
  }

  /** What somebody knows and rows contradict, of all tables whose rows are held. */
  public static List<Anomaly> contradicted(Draft draft) {
    return draft.design().tables().stream()
        .filter(table -> !table.facts().isEmpty())
        .flatMap(
            table ->
                known(table, draft.rows().of(table.id()), new Decided(table)).stream()
                    .filter(anomaly -> !anomaly.disagreements().isEmpty()))
        .toList();
  }

  private static List<Anomaly> known(Table table, Rows rows, Decided decided) {
    return decided.belowBoyceCodd().stream()
        .map(fact -> new FactRows(rows, fact).anomaly(table.id(), true, 1))
        .toList();
  }

  private List<Anomaly> of(Table table) {
    Rows rows = draft.rows().of(table.id());
    var decided = new Decided(table);
    var all = new ArrayList<>(known(table, rows, decided));
    shown(table, rows)
        .forEach(
            (fact, score) -> {
              var shown = new FactRows(rows, fact);
              if (!decided.identifies(fact.determinant())
                  && shown.isShown()
                  && !isBound(table, fact)) {
                all.add(shown.anomaly(table.id(), false, score));
              }
            });
    return all;
  }

  /** What rows show, with how plausible it is; without what somebody knows to be so, or not so. */
  private Map<KnownFact, Double> shown(Table table, Rows rows) {
    List<Field> fields = table.fields().stream().filter(field -> isEntered(table, field)).toList();
    Map<KnownFact, Double> shown = new LinkedHashMap<>();
    if (rows.count() < LEAST_ROWS || fields.size() < 3) {
      return shown;
    }
    Map<List<FieldId>, List<Fact.Decides>> byDeterminant = new LinkedHashMap<>();
    for (Fact fact : facts(table, fields, rows)) {
      if (fact instanceof Fact.Decides decides
          && decides.exceptions() == 0
          && decides.score() >= FactSearch.PLAUSIBLE) {
        List<FieldId> determinant =
            decides.determinant().places().mapToObj(fields::get).map(Field::id).toList();
        byDeterminant.computeIfAbsent(determinant, d -> new ArrayList<>()).add(decides);
      }
    }
    byDeterminant.forEach(
        (determinant, decided) -> {
          List<FieldId> dependents =
              decided.stream()
                  .map(d -> fields.get(d.dependent()).id())
                  .filter(field -> !isSaid(table, determinant, field))
                  .toList();
          if (!dependents.isEmpty()) {
            shown.put(new KnownFact(determinant, dependents, true), decided.getFirst().score());
          }
        });
    return shown;
  }

  private static boolean isSaid(Table table, List<FieldId> determinant, FieldId dependent) {
    return table.facts().stream()
        .anyMatch(fact -> fact.isOf(determinant) && fact.dependents().contains(dependent));
  }

  /**
   * Whether a field holds facts of its own: not what is worked out, generated or stamped, nor what
   * is copied to stay as it was, nor a key.
   */
  private static boolean isEntered(Table table, Field field) {
    boolean typed = field.origin() instanceof Origin.Typed && !field.isComputed();
    boolean generated =
        field.type() instanceof FieldType.Counter || field.type().kind() == Kind.BYTES;
    return typed && !generated && !table.isKey(List.of(field.id()));
  }

  private List<Fact> facts(Table table, List<Field> fields, Rows rows) {
    List<List<String>> cells =
        IntStream.range(0, Math.min(rows.count(), SEARCHED))
            .mapToObj(
                row -> fields.stream().map(field -> rows.cell(row, field.id()).orElse("")).toList())
            .toList();
    List<String> headers = fields.stream().map(Field::name).toList();
    EncodedTable searched = EncodedTable.of(table.name(), headers, cells);
    List<ColumnProfile> profiles = searched.columns().stream().map(ColumnProfile::of).toList();
    return FactSearch.of(searched, profiles, stop).facts();
  }

  /**
   * Whether a key or a relationship stands on what is decided, so that it could not be split off.
   */
  private boolean isBound(Table table, KnownFact fact) {
    return table.keys().stream().flatMap(List::stream).anyMatch(fact.dependents()::contains)
        || SplitOff.of(draft.design(), table.id(), fact).inTheWay(draft.design()).isPresent();
  }
}
