package joiner.entry;

import java.time.Clock;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.random.RandomGenerator;
import joiner.edit.EditRefusedException;
import joiner.edit.EnterRows;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.Counts;
import joiner.naming.NamingPolicy;
import joiner.naming.WordList;
import joiner.rows.EnteredText;
import joiner.rows.RowId;
import joiner.rows.RowValues;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/**
 * Takes many rows into a table: those that match a row that is there by a key change it, others are
 * new, and what becomes of rows nobody named is said. Nothing is changed by planning.
 *
 * @param edit that takes them in
 * @param lines for each row of the edit the number of the row it came from, from 1; of rows that
 *     are only marked 0
 * @param added how many are new
 * @param updated how many change a row
 * @param unchanged how many are as they are already
 * @param missing how many rows of the table none of them matches
 */
public record TakingIn(
    EnterRows edit, List<Integer> lines, int added, int updated, int unchanged, int missing) {
  public TakingIn {
    lines = List.copyOf(lines);
  }

  /** What becomes of rows that none matches. */
  public enum Missing {
    /** They stay as they are. */
    LEAVE,
    /** They are no longer offered. */
    RETIRE,
    /** They go. */
    DELETE
  }

  /**
   * Plans it; linear in the rows of both.
   *
   * @param rows what is typed in each, by field
   * @param match by which fields rows are the same; empty: all are new
   * @throws EditRefusedException if it cannot be done at all
   */
  public static TakingIn of(
      Draft draft,
      Table table,
      List<Map<FieldId, String>> rows,
      List<FieldId> match,
      Missing missing,
      Clock clock,
      RandomGenerator chance) {
    return new Planning(draft, table, match, clock, chance).plan(rows, missing);
  }

  /** The field a heading means: by its name, else by its label, in whatever letters. */
  public static Optional<Field> called(Table table, String heading) {
    String text = heading.strip();
    return table
        .fieldNamed(text)
        .or(() -> first(table, f -> f.label().equalsIgnoreCase(text)))
        .or(() -> first(table, f -> f.name().equalsIgnoreCase(text)))
        .or(() -> first(table, f -> f.name().equals(NamingPolicy.nameFor(text))));
  }

  private static Optional<Field> first(Table table, Predicate<Field> wanted) {
    return table.fields().stream().filter(wanted).findFirst();
  }

  /**
   * Which columns are which fields, by names or labels.
   *
   * @throws EditRefusedException if one is none, or two are the same
   */
  public static List<Field> fields(Table table, List<String> headings) {
    var fields = new ArrayList<Field>();
    for (String heading : headings) {
      Field field =
          called(table, heading)
              .orElseThrow(
                  () ->
                      new EditRefusedException(
                          table.label()
                              + " has no field "
                              + heading
                              + "; its fields are "
                              + WordList.and(table.fields().stream().map(Field::name).toList())
                              + "."));
      if (fields.contains(field)) {
        throw new EditRefusedException("Two columns are " + field.label() + "; leave one out.");
      }
      if (field.isComputed()) {
        throw new EditRefusedException(
            field.label() + " is worked out and not entered; leave the column out.");
      }
      fields.add(field);
    }
    return fields;
  }

  private static final class Planning {
    private final Draft draft;
    private final Table table;
    private final List<FieldId> match;
    private final Clock clock;
    private final RandomGenerator chance;
    private final Rows there;
    private final Map<List<Value>, Integer> byKey = new HashMap<>();
    private final BitSet met = new BitSet();
    private int unchanged;

    Planning(Draft draft, Table table, List<FieldId> match, Clock clock, RandomGenerator chance) {
      this.draft = draft;
      this.table = table;
      this.match = match;
      this.clock = clock;
      this.chance = chance;
      this.there = draft.rows().of(table.id());
      if (!match.isEmpty()) {
        List<Optional<List<Value>>> keys = new RowValues(table, there).tuples(match);
        for (int row = 0; row < keys.size(); row++) {
          int place = row;
          keys.get(row)
              .ifPresent(
                  key -> {
                    if (byKey.putIfAbsent(key, place) != null) {
                      throw new EditRefusedException(
                          "Two rows of "
                              + table.label()
                              + " have the same "
                              + WordList.and(table.labelsOf(match))
                              + ", so that no match by it is certain.");
                    }
                  });
        }
      }
    }

    TakingIn plan(List<Map<FieldId, String>> rows, Missing missing) {
      var entered = new ArrayList<Entered>();
      var lines = new ArrayList<Integer>();
      int updated = 0;
      for (int i = 0; i < rows.size(); i++) {
        Optional<Integer> same = match(rows.get(i));
        if (same.isEmpty()) {
          entered.add(new Entered(table.id(), Optional.empty(), rows.get(i), Map.of()));
          lines.add(i + 1);
        } else {
          met.set(same.get());
          Map<FieldId, String> changes = changes(same.get(), rows.get(i));
          if (changes.isEmpty()) {
            unchanged++;
          } else {
            RowId id = there.id(same.get());
            entered.add(new Entered(table.id(), Optional.of(id), changes, Map.of()));
            lines.add(i + 1);
            updated++;
          }
        }
      }
      int added = entered.size() - updated;
      Set<RowId> unmet = unmet();
      if (missing == Missing.RETIRE) {
        retired(unmet)
            .forEach(
                row -> {
                  entered.add(row);
                  lines.add(0);
                });
      }
      EnterRows edit =
          new Entry(draft, clock, chance)
              .of(Counts.of(rows.size(), table.noun().singular(), table.noun().plural()), entered);
      Map<TableId, Set<RowId>> gone =
          missing == Missing.DELETE && !unmet.isEmpty() ? Map.of(table.id(), unmet) : Map.of();
      return new TakingIn(
          new EnterRows(edit.what(), edit.rows(), gone),
          lines,
          added,
          updated,
          unchanged,
          match.isEmpty() ? 0 : unmet.size());
    }

    private Set<RowId> unmet() {
      Set<RowId> unmet = new HashSet<>();
      for (int row = 0; !match.isEmpty() && row < there.count(); row++) {
        if (!met.get(row)) {
          unmet.add(there.id(row));
        }
      }
      return unmet;
    }

    private List<Entered> retired(Set<RowId> unmet) {
      if (!(table.kind() instanceof TableKind.Lookup(var sort, Optional<FieldId> mark))
          || mark.isEmpty()) {
        throw new EditRefusedException(
            table.label() + " has no field that says which rows are retired; mark one in Shape.");
      }
      return unmet.stream()
          .map(row -> Entered.changed(table.id(), row).with(mark.get(), "true"))
          .toList();
    }

    private Optional<Integer> match(Map<FieldId, String> row) {
      if (match.isEmpty()) {
        return Optional.empty();
      }
      var key = new ArrayList<Value>();
      for (FieldId field : match) {
        key.add(value(field, Optional.ofNullable(row.get(field))));
      }
      return Optional.ofNullable(byKey.get(key));
    }

    private Value value(FieldId field, Optional<String> text) {
      return ValueReader.valueOrNull(
          text.map(t -> EnteredText.of(table.field(field), t)).filter(t -> !t.isBlank()),
          table.field(field).type());
    }

    /** Of what is typed that which is another value than the row has. */
    private Map<FieldId, String> changes(int row, Map<FieldId, String> typed) {
      Map<FieldId, String> changes = new LinkedHashMap<>();
      typed.forEach(
          (field, text) -> {
            Optional<String> now = there.cell(row, field);
            boolean sameText = now.orElse("").equals(text.strip());
            Value is = value(field, now);
            Value becomes = value(field, Optional.of(text));
            boolean same = is != Value.NULL && is.equals(becomes);
            if (!sameText && !same) {
              changes.put(field, text);
            }
          });
      return changes;
    }
  }
}
