package joiner.audit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;
import joiner.discovery.ColumnProfile;
import joiner.discovery.Fact;
import joiner.discovery.FactSearch;
import joiner.edit.SplitOff;
import joiner.expression.Kind;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Origin;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.EncodedTable;
import joiner.rows.Rows;

/**
 * What goes wrong in tables below Boyce–Codd normal form, on their own rows: fields that are no key
 * decide others, as all rows show and as is plausible of the business (E. F. Codd, “Further
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
   * Fields that decide others though they are no key.
   *
   * @param update rows, from 0, that say the same twice: changed in one, they contradict each other
   * @param delete a row, from 0, with which all is gone that is known of what it decides
   * @param score how plausible it is that this is so for the business, 0 to 1
   */
  public record Anomaly(
      TableId table,
      List<FieldId> determinant,
      List<FieldId> dependents,
      List<Integer> update,
      OptionalInt delete,
      double score) {
    public Anomaly {
      determinant = List.copyOf(determinant);
      dependents = List.copyOf(dependents);
      update = List.copyOf(update);
    }

    /** All fields it is about. */
    public List<FieldId> fields() {
      var fields = new ArrayList<>(determinant);
      fields.addAll(dependents);
      return fields;
    }

    /** The split that ends it; the table that comes of it is called by what decides. */
    public SplitOff split(Draft draft) {
      Table of = draft.design().table(table);
      String label =
          SplitOff.refers(draft.design(), table, determinant)
              .map(over -> draft.design().table(over.parent()).label())
              .orElseGet(() -> String.join(" ", of.labelsOf(determinant)));
      return new SplitOff(table, determinant, dependents, label);
    }
  }

  /**
   * Those of all tables whose rows are held, the most plausible first.
   *
   * @param stop asked often; once true the search ends with what it has
   */
  public static List<Anomaly> of(Draft draft, BooleanSupplier stop) {
    var found = new Anomalies(draft, stop);
    return draft.design().tables().stream()
        .takeWhile(table -> !stop.getAsBoolean())
        .flatMap(table -> found.of(table).stream())
        .sorted(Comparator.comparingDouble(Anomaly::score).reversed())
        .toList();
  }

  private List<Anomaly> of(Table table) {
    Rows rows = draft.rows().of(table.id());
    List<Field> fields = table.fields().stream().filter(field -> isEntered(table, field)).toList();
    if (rows.count() < LEAST_ROWS || fields.size() < 3) {
      return List.of();
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
    var all = new ArrayList<Anomaly>();
    byDeterminant.forEach(
        (determinant, decided) -> {
          List<FieldId> dependents =
              decided.stream().map(d -> fields.get(d.dependent()).id()).toList();
          anomaly(table, rows, determinant, dependents, decided.getFirst().score())
              .ifPresent(all::add);
        });
    return all;
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

  /** What all rows show; empty where some row contradicts it, or nothing is said twice. */
  private Optional<Anomaly> anomaly(
      Table table, Rows rows, List<FieldId> determinant, List<FieldId> dependents, double score) {
    if (table.isUnique(determinant) || isBound(table, determinant, dependents)) {
      return Optional.empty();
    }
    Map<List<Optional<String>>, List<Integer>> groups = new LinkedHashMap<>();
    for (int row = 0; row < rows.count(); row++) {
      List<Optional<String>> key = rows.row(row, determinant);
      boolean whole = key.stream().allMatch(Optional::isPresent);
      List<Optional<String>> decided = rows.row(row, dependents);
      if (!whole && decided.stream().anyMatch(Optional::isPresent)) {
        return Optional.empty();
      }
      if (whole) {
        List<Integer> group = groups.computeIfAbsent(key, k -> new ArrayList<>());
        if (!group.isEmpty() && !rows.row(group.getFirst(), dependents).equals(decided)) {
          return Optional.empty();
        }
        group.add(row);
      }
    }
    Optional<List<Integer>> twice =
        groups.values().stream()
            .filter(group -> group.size() > 1)
            .min(Comparator.comparingInt(List::size));
    OptionalInt once =
        groups.values().stream()
            .filter(group -> group.size() == 1)
            .mapToInt(List::getFirst)
            .findFirst();
    return twice.map(
        update -> new Anomaly(table.id(), determinant, dependents, update, once, score));
  }

  /**
   * Whether a key or a relationship stands on what is decided, so that it could not be split off.
   */
  private boolean isBound(Table table, List<FieldId> determinant, List<FieldId> dependents) {
    return table.keys().stream().flatMap(List::stream).anyMatch(dependents::contains)
        || SplitOff.inTheWay(draft.design(), table.id(), determinant, dependents).isPresent();
  }
}
