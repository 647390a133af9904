package joiner.audit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.edit.SplitOff;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.KnownFact;
import joiner.model.Relationship;
import joiner.model.TableId;

/**
 * Fields that decide others though they are no key, and what goes wrong with them on the rows.
 *
 * @param fact what decides what
 * @param isKnown whether somebody said so; else all rows show it
 * @param update rows, from 0, that say the same twice: changed in one, they contradict each other;
 *     empty where none do
 * @param delete a row, from 0, with which all is gone that is known of what it decides
 * @param disagreements where rows contradict what is known
 * @param score how plausible it is that this is so for the business, 0 to 1
 */
public record Anomaly(
    TableId table,
    KnownFact fact,
    boolean isKnown,
    List<Integer> update,
    OptionalInt delete,
    List<Disagreement> disagreements,
    double score) {
  public Anomaly {
    update = List.copyOf(update);
    disagreements = List.copyOf(disagreements);
  }

  /**
   * Rows that are decided by the same and hold different values.
   *
   * @param said the different values, what most rows say first
   */
  public record Disagreement(List<Said> said) {
    public Disagreement {
      said = List.copyOf(said);
    }

    /** All its rows, from 0, in their order. */
    public List<Integer> rows() {
      return said.stream().flatMap(s -> s.rows.stream()).sorted().toList();
    }

    /** How many rows there are. */
    public int count() {
      return said.stream().mapToInt(s -> s.rows.size()).sum();
    }

    /** How many rows say something else than some of them say. */
    public int others(Said than) {
      return count() - than.rows.size();
    }

    /** What more rows say than say anything else. */
    public Optional<Said> most() {
      return said.get(0).rows.size() > said.get(1).rows.size()
          ? Optional.of(said.getFirst())
          : Optional.empty();
    }
  }

  /**
   * What some rows hold.
   *
   * @param values of the fields decided, in their order
   * @param rows from 0
   */
  public record Said(List<Optional<String>> values, List<Integer> rows) {
    public Said {
      values = List.copyOf(values);
      rows = List.copyOf(rows);
    }
  }

  public List<FieldId> determinant() {
    return fact.determinant();
  }

  public List<FieldId> dependents() {
    return fact.dependents();
  }

  /** All fields it is about. */
  public List<FieldId> fields() {
    var fields = new ArrayList<>(determinant());
    fields.addAll(dependents());
    return fields;
  }

  /** The rows that show it, from 0: those that disagree, else those that say the same twice. */
  public List<Integer> rows() {
    return disagreements.isEmpty()
        ? update
        : disagreements.stream().flatMap(d -> d.rows().stream()).sorted().toList();
  }

  /** The same rows, from 1. */
  public List<Integer> numbers() {
    return rows().stream().map(row -> row + 1).toList();
  }

  /** The split that ends it. */
  public SplitOff split(Draft draft) {
    return SplitOff.of(draft.design(), table, fact);
  }

  /** A relationship that would have to be changed before the split. */
  public Optional<Relationship> inTheWay(Draft draft) {
    return split(draft).inTheWay(draft.design());
  }
}
