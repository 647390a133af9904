package joiner.deletion;

import java.time.Clock;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collections;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.edit.DeleteRows;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.meaning.Links;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.RowId;
import joiner.rows.Rows;

/**
 * Works out what deleting rows of a draft would do. Once it is known which rows refer to which, an
 * outcome is linear in the rows that it is about. Belongs to one thread at a time.
 */
public final class Deletions {
  private final Draft draft;
  private final Evaluator evaluator;
  private final Map<TableId, List<Relationship>> downwards;

  /** By which each parent must have a child. */
  private final List<Relationship> demanding;

  private final Links links;
  private final Map<RelationshipId, Optional<Integer>> byDefault = new HashMap<>();

  /** Deletions of rows of a draft; what defaults say of the clock is said of this one. */
  public Deletions(Draft draft, Clock clock) {
    this(draft, new Evaluator(clock), new Links(draft));
  }

  private Deletions(Draft draft, Evaluator evaluator, Links links) {
    this.draft = draft;
    this.evaluator = evaluator;
    this.links = links;
    this.downwards =
        draft.design().relationships().stream()
            .collect(Collectors.groupingBy(Relationship::parent));
    this.demanding =
        draft.design().relationships().stream().filter(Relationship::parentNeedsChild).toList();
  }

  /** The same if a delete did something else by one relationship; which rows refer stays known. */
  public Deletions supposing(Relationship of, ReferentialAction action) {
    Design design =
        draft.design().withRelationship(of.id(), r -> r.withActions(action, r.onUpdate()));
    return new Deletions(draft.withDesign(design), evaluator, links);
  }

  /** Which rows refer to which. */
  Links links() {
    return links;
  }

  /**
   * The edit that deletes rows of the draft as a database does it.
   *
   * @param what which rows, as people call them
   */
  public DeleteRows edit(String what, Outcome outcome) {
    Map<TableId, Set<RowId>> gone = new HashMap<>();
    outcome
        .gone()
        .forEach((table, rows) -> gone.put(table, DeleteRows.ids(draft.rows().of(table), rows)));
    Map<RelationshipId, DeleteRows.Freed> freed = new HashMap<>();
    outcome
        .unlinked()
        .forEach(
            (id, rows) -> {
              Relationship by = draft.design().relationship(id);
              freed.put(
                  id,
                  new DeleteRows.Freed(
                      DeleteRows.ids(draft.rows().of(by.child()), rows), instead(by)));
            });
    return new DeleteRows(what, gone, freed);
  }

  /** What the fields of a reference hold once the row is gone that it led to. */
  private List<Optional<String>> instead(Relationship by) {
    List<Optional<String>> none = Collections.nCopies(by.childFields().size(), Optional.empty());
    return by.onDelete() == ReferentialAction.SET_DEFAULT
        ? defaults(by)
            .map(values -> values.stream().map(v -> Optional.of(Evaluator.show(v))).toList())
            .orElse(none)
        : none;
  }

  /**
   * The row whose delete would take most others along, or be refused by most, of the first so many.
   *
   * @return its place; empty where there are no rows
   */
  public Optional<Integer> worst(TableId table, int first) {
    int looked = Math.min(first, draft.rows().of(table).count());
    return IntStream.range(0, looked)
        .boxed()
        .max(
            Comparator.comparingInt(
                row -> {
                  Outcome outcome = of(table, row);
                  return outcome.count() + outcome.links() + outcome.refusing();
                }));
  }

  private List<Relationship> downwards(TableId table) {
    return downwards.getOrDefault(table, List.of());
  }

  /** What deleting some rows of a table would do. */
  public Outcome of(TableId table, BitSet rows) {
    var way = new Way();
    way.delete(table, rows);
    return way.outcome();
  }

  /** What deleting one row of a table would do. */
  public Outcome of(TableId table, int row) {
    var rows = new BitSet();
    rows.set(row);
    return of(table, rows);
  }

  /** What the fields of a reference hold by default; empty where one of them has no default. */
  private Optional<List<Value>> defaults(Relationship r) {
    TableMeaning meaning = draft.meaning().of(r.child());
    var values = new ArrayList<Value>();
    for (FieldId field : r.childFields()) {
      meaning.valueByDefault(field, evaluator).ifPresent(values::add);
    }
    return values.size() == r.childFields().size() ? Optional.of(values) : Optional.empty();
  }

  /** The row that a default leads to. */
  private Optional<Integer> rowByDefault(Relationship r, List<Value> key) {
    return byDefault.computeIfAbsent(
        r.id(),
        id -> {
          int row = links.values(r.parent()).tuples(r.parentFields()).indexOf(Optional.of(key));
          return row < 0 ? Optional.empty() : Optional.of(row);
        });
  }

  /** One deletion as it goes on. */
  private final class Way {
    private record Step(TableId table, int row) {}

    private final Map<TableId, BitSet> gone = new LinkedHashMap<>();
    private final Map<RelationshipId, BitSet> unlinked = new LinkedHashMap<>();
    private final Map<RelationshipId, BitSet> standing = new LinkedHashMap<>();
    private final Map<RelationshipId, BitSet> defaulted = new LinkedHashMap<>();
    private final Map<RelationshipId, BitSet> doubtful = new LinkedHashMap<>();
    private final Deque<Step> ahead = new ArrayDeque<>();

    void delete(TableId table, BitSet rows) {
      rows.stream().forEach(row -> take(table, row));
      while (!ahead.isEmpty()) {
        Step step = ahead.poll();
        for (Relationship down : downwards(step.table)) {
          for (int child : links.children(down)[step.row]) {
            follow(down, child);
          }
        }
      }
    }

    private void take(TableId table, int row) {
      BitSet rows = gone.computeIfAbsent(table, t -> new BitSet());
      if (!rows.get(row)) {
        rows.set(row);
        ahead.add(new Step(table, row));
      }
    }

    private void follow(Relationship down, int child) {
      switch (down.onDelete()) {
        case CASCADE -> take(down.child(), child);
        case SET_NULL -> note(isForbidden(down) ? standing : unlinked, down, child);
        case SET_DEFAULT -> note(defaulted, down, child);
        case NO_ACTION, RESTRICT -> note(standing, down, child);
      }
    }

    private void note(Map<RelationshipId, BitSet> where, Relationship down, int child) {
      where.computeIfAbsent(down.id(), id -> new BitSet()).set(child);
    }

    /** Whether a field that would be emptied must have a value. */
    private boolean isForbidden(Relationship down) {
      Table child = draft.design().table(down.child());
      return down.childFields().stream().anyMatch(child::isRequired);
    }

    /**
     * What becomes of references that get their default, once all that goes is known. A default
     * that is no row, or one that goes, is refused by most; H2 was seen to leave the reference
     * dangling.
     */
    private void settleDefaults() {
      defaulted.forEach(
          (id, rows) -> {
            Relationship down = draft.design().relationship(id);
            Optional<List<Value>> key = defaults(down);
            boolean leads =
                key.flatMap(to -> rowByDefault(down, to))
                    .filter(row -> !gone.getOrDefault(down.parent(), new BitSet()).get(row))
                    .isPresent();
            if (key.isEmpty()) {
              (isForbidden(down) ? standing : unlinked).put(id, rows);
            } else {
              (leads ? unlinked : doubtful).put(id, rows);
            }
          });
    }

    Outcome outcome() {
      settleDefaults();
      Map<RelationshipId, BitSet> left = new LinkedHashMap<>();
      unlinked.forEach(
          (id, rows) -> {
            BitSet staying = staying(id, rows);
            if (!staying.isEmpty()) {
              left.put(id, staying);
            }
          });
      var refusals = new ArrayList<Outcome.Refusal>();
      standing.forEach(
          (id, rows) -> {
            BitSet staying = staying(id, rows);
            boolean everywhere = !staying.isEmpty();
            refusals.add(new Outcome.Refusal(id, everywhere ? staying : rows, everywhere));
          });
      doubtful.forEach((id, rows) -> refusals.add(new Outcome.Refusal(id, rows, false)));
      return new Outcome(gone, left, childless(left), refusals);
    }

    /** Who loses the last child there must be. */
    private Map<RelationshipId, BitSet> childless(Map<RelationshipId, BitSet> left) {
      Map<RelationshipId, BitSet> all = new LinkedHashMap<>();
      for (Relationship r : demanding) {
        var lost = (BitSet) gone.getOrDefault(r.child(), new BitSet()).clone();
        lost.or(left.getOrDefault(r.id(), new BitSet()));
        BitSet parents = gone.getOrDefault(r.parent(), new BitSet());
        var without = new BitSet();
        lost.stream()
            .map(child -> links.parents(r)[child])
            .filter(parent -> parent != Links.NONE && !parents.get(parent))
            .distinct()
            .filter(parent -> Arrays.stream(links.children(r)[parent]).allMatch(lost::get))
            .forEach(without::set);
        if (!without.isEmpty()) {
          all.put(r.id(), without);
        }
      }
      return all;
    }

    private BitSet staying(RelationshipId id, BitSet rows) {
      var staying = (BitSet) rows.clone();
      staying.andNot(gone.getOrDefault(draft.design().relationship(id).child(), new BitSet()));
      return staying;
    }
  }

  /**
   * What deleting any one row of a table would do at most, over all rows or the first so many.
   *
   * @param least the fewest rows that go with one, itself not counted, of those with which any goes
   * @param most the most
   * @param taking how many rows there are with which others go
   * @param unlinking how many there are through which rows lose a link
   * @param bereaving how many there are through which rows lose the last child they must have
   * @param refused how many cannot be deleted
   * @param rows how many were looked at
   * @param by the relationship that stands against it most often; empty if none does
   */
  public record Today(
      int least,
      int most,
      int taking,
      int unlinking,
      int bereaving,
      int refused,
      int rows,
      Optional<RelationshipId> by) {}

  /** What deleting any one row of a table would do today. */
  public Today today(TableId table, int first) {
    Rows rows = draft.rows().of(table);
    int looked = Math.min(first, rows.count());
    int least = Integer.MAX_VALUE;
    int most = 0;
    int taking = 0;
    int unlinking = 0;
    int bereaving = 0;
    int refused = 0;
    Map<RelationshipId, Integer> standing = new LinkedHashMap<>();
    for (int row = 0; row < looked; row++) {
      Outcome outcome = of(table, row);
      if (outcome.verdict() == Outcome.Verdict.REFUSED) {
        refused++;
        outcome.refusals().stream()
            .filter(Outcome.Refusal::everywhere)
            .forEach(refusal -> standing.merge(refusal.relationship(), 1, Integer::sum));
        continue;
      }
      int others = outcome.count() - 1;
      if (others > 0) {
        taking++;
        least = Math.min(least, others);
        most = Math.max(most, others);
      }
      unlinking += outcome.unlinked().isEmpty() ? 0 : 1;
      bereaving += outcome.childless().isEmpty() ? 0 : 1;
    }
    Optional<RelationshipId> by =
        standing.entrySet().stream().max(Map.Entry.comparingByValue()).map(Map.Entry::getKey);
    return new Today(
        taking == 0 ? 0 : least, most, taking, unlinking, bereaving, refused, looked, by);
  }
}
