package joiner.entry;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.random.RandomGenerator;
import java.util.stream.IntStream;
import joiner.edit.EditRefusedException;
import joiner.meaning.Draft;
import joiner.meaning.ParentRows;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.SameName;
import joiner.rows.EncodedTable;

/**
 * Rows from elsewhere that are taken into a table, with all that becomes of them, before it is
 * done.
 *
 * @param planned what changes; of the rows that can be taken where only those are wanted
 * @param trial the draft with these
 * @param refused what the design forbids, in the order in which it was found
 * @param named how many cells told the row they refer to by its row label or another key, and got
 *     the one that refers
 */
public record Intake(TakingIn planned, EntryTrial trial, List<Refused> refused, int named) {
  public Intake {
    refused = List.copyOf(refused);
  }

  /**
   * A refusal.
   *
   * @param line of the rows that came, from 1; 0 where a row is meant that was there before
   */
  public record Refused(int line, Refusal refusal) {}

  /**
   * How rows are taken.
   *
   * @param match by which fields rows are the same; empty: all are new
   * @param missing what becomes of rows that none matches
   * @param partly whether rows that are refused are left out, so that the others can be taken
   */
  public record How(List<FieldId> match, TakingIn.Missing missing, boolean partly) {
    public How {
      match = List.copyOf(match);
    }
  }

  /**
   * What is typed in each row of a table that came.
   *
   * @param fields for each column the field it is; empty: it is left out
   */
  public static List<Map<FieldId, String>> rows(
      EncodedTable cells, List<Optional<FieldId>> fields) {
    var rows = new ArrayList<Map<FieldId, String>>();
    for (int row = 0; row < cells.rows(); row++) {
      Map<FieldId, String> typed = new LinkedHashMap<>();
      for (int i = 0; i < fields.size(); i++) {
        if (fields.get(i).isPresent()) {
          typed.put(fields.get(i).get(), cells.text(row, i));
        }
      }
      rows.add(typed);
    }
    return rows;
  }

  /**
   * Plans it; linear in the rows of both, but once for each time others are refused for want of
   * those left out.
   *
   * @param rows what is typed in each, by field
   * @throws EditRefusedException if it cannot be done at all
   */
  public static Intake of(
      Draft draft,
      Table into,
      List<Map<FieldId, String>> rows,
      How how,
      KnownTrials known,
      Clock clock,
      RandomGenerator chance) {
    var naming = new Naming(draft, into, clock);
    List<Map<FieldId, String>> keyed = rows.stream().map(naming::keyed).toList();
    var refused = new ArrayList<Refused>();
    List<Integer> left = IntStream.range(0, rows.size()).boxed().toList();
    while (true) {
      List<Map<FieldId, String>> some = left.stream().map(keyed::get).toList();
      TakingIn planned = TakingIn.of(draft, into, some, how.match, how.missing, clock, chance);
      EntryTrial trial = EntryTrial.of(draft, planned.edit(), known, clock);
      Set<Integer> gone = new HashSet<>();
      for (Refusal refusal : trial.refusals()) {
        int line = line(planned, refusal);
        int place = line == 0 ? -1 : left.get(line - 1);
        refused.add(new Refused(place + 1, refusal));
        gone.add(place);
      }
      gone.remove(-1);
      if (gone.isEmpty() || !how.partly) {
        return new Intake(planned, trial, refused, naming.count);
      }
      left = left.stream().filter(place -> !gone.contains(place)).toList();
    }
  }

  private static int line(TakingIn planned, Refusal refusal) {
    return refusal.entered().isPresent() ? planned.lines().get(refusal.entered().getAsInt()) : 0;
  }

  /** Cells that tell a row by what people call it. */
  private static final class Naming {
    private final Draft draft;
    private final Map<FieldId, ParentRows> parents = new LinkedHashMap<>();
    private final Map<FieldId, Table> tables = new HashMap<>();
    private final Map<FieldId, Map<String, Optional<String>>> byLabel = new HashMap<>();
    private int count;

    Naming(Draft draft, Table into, Clock clock) {
      this.draft = draft;
      for (Field field : into.fields()) {
        Optional<Relationship> over = ParentRows.reference(draft, into.id(), field.id());
        over.ifPresent(
            r -> {
              parents.put(field.id(), ParentRows.of(draft, r, clock));
              tables.put(field.id(), draft.design().table(r.parent()));
            });
      }
    }

    Map<FieldId, String> keyed(Map<FieldId, String> row) {
      Map<FieldId, String> keyed = new LinkedHashMap<>(row);
      parents.forEach(
          (field, rows) -> {
            String text = row.getOrDefault(field, "").strip();
            if (!text.isEmpty() && rows.find(text).isEmpty()) {
              labels(field, rows)
                  .getOrDefault(SameName.folded(text), Optional.empty())
                  .ifPresent(
                      key -> {
                        keyed.put(field, key);
                        count++;
                      });
            }
          });
      return keyed;
    }

    /** What a row can be told by: its label, and what stands in its other keys. */
    private Set<String> words(Table parent, ParentRows.Parent row) {
      Set<String> words = new HashSet<>(Set.of(SameName.folded(row.label())));
      parent.keys().stream()
          .filter(key -> key.size() == 1)
          .flatMap(key -> draft.rows().of(parent.id()).cell(row.row(), key.getFirst()).stream())
          .forEach(text -> words.add(SameName.folded(text)));
      return words;
    }

    /** The key by each such word, none where several rows are called so. */
    private Map<String, Optional<String>> labels(FieldId field, ParentRows rows) {
      return byLabel.computeIfAbsent(
          field,
          f -> {
            Map<String, Optional<String>> labels = new HashMap<>();
            for (ParentRows.Parent parent : rows.all()) {
              for (String word : words(tables.get(field), parent)) {
                labels.merge(
                    word, Optional.of(parent.cells().getFirst()), (one, other) -> Optional.empty());
              }
            }
            return labels;
          });
    }
  }
}
