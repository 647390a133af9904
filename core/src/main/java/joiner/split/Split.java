package joiner.split;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.dependency.AttributeSet;
import joiner.discovery.Contradiction;
import joiner.edit.InFile;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.EncodedTable;
import joiner.rows.Rows;
import joiner.rows.TableRows;
import joiner.split.SplitChoices.Decision;
import joiner.split.SplitChoices.Merge;
import joiner.split.SplitChoices.Settlement;

/**
 * A table split by what has been confirmed about it, worked out in full: the tables it becomes, the
 * rows that contradict, and the proof that joining gives back the same rows.
 *
 * @param open contradictions that have to be settled first; while there are any, nothing is split
 * @param after the design and rows after the split; empty while something is open
 * @param parts the tables it becomes, the split table first
 * @param cellsBefore rows times fields of the table
 * @param cellsAfter the same of all parts
 * @param changedCells cells that a merge or a settlement gave another value
 * @param homes the table in which each field of the split table is found afterwards
 * @param proof that nothing is lost; empty while something is open
 */
public record Split(
    List<Open> open,
    Optional<Draft> after,
    List<Part> parts,
    long cellsBefore,
    long cellsAfter,
    int changedCells,
    Map<FieldId, TableId> homes,
    Optional<Proof> proof) {
  public Split {
    homes = Map.copyOf(homes);
    open = List.copyOf(open);
    parts = List.copyOf(parts);
  }

  /** A decision that rows contradict. */
  public record Open(Decision decision, List<Contradiction> contradictions) {
    public Open {
      contradictions = List.copyOf(contradictions);
    }
  }

  /**
   * One table of the result.
   *
   * @param removes how many cells fewer its fields take than they did in the split table; 0 for the
   *     split table itself
   */
  public record Part(TableId table, String label, int rows, int fields, long removes) {}

  /**
   * The proof that nothing is lost.
   *
   * @param rows rows joined again and compared
   * @param differing cells that came back different; 0 as it should be
   * @param lossless whether the join is lossless for any rows that keep the decisions, by the chase
   */
  public record Proof(int rows, int differing, boolean lossless) {
    /** Whether joining gives back exactly the rows, now and always. */
    public boolean holds() {
      return differing == 0 && lossless;
    }
  }

  /**
   * Works a split out; time is linear in the cells of the table.
   *
   * @throws EditRefusedException if the choices make no sense together
   */
  public static Split of(Draft before, TableId id, SplitChoices choices) {
    Table table = before.design().table(id);
    InFile.requireHeld(before, id);
    Rows original = before.rows().of(id);
    Rows settled = settled(table, original, choices);
    int changed = changedCells(table, original, settled);
    long cellsBefore = (long) original.count() * table.fields().size();
    List<Open> open = open(table, settled, choices);
    if (!open.isEmpty()) {
      return new Split(
          open,
          Optional.empty(),
          List.of(),
          cellsBefore,
          cellsBefore,
          changed,
          Map.of(),
          Optional.empty());
    }
    var plan = new SplitPlan(table, choices);
    var writer = new SplitWriter(before, table, settled, plan, choices);
    Draft after = writer.write();
    List<Part> parts = writer.parts();
    long cellsAfter = parts.stream().mapToLong(p -> (long) p.rows() * p.fields()).sum();
    var rejoin = new Rejoin(after, id, writer.origins());
    return new Split(
        List.of(),
        Optional.of(after),
        parts,
        cellsBefore,
        cellsAfter,
        changed,
        homes(after, id, writer.origins()),
        Optional.of(new Proof(original.count(), rejoin.differing(settled), plan.isLossless())));
  }

  private static Map<FieldId, TableId> homes(
      Draft after, TableId main, Map<FieldId, SplitOrigin> origins) {
    Map<FieldId, TableId> homes = new HashMap<>();
    origins.forEach((field, origin) -> homes.put(field, origin.home(after.design(), main)));
    return homes;
  }

  /** The table in which a field of the split table is found afterwards. */
  public Optional<TableId> homeOf(FieldId field) {
    return Optional.ofNullable(homes.get(field));
  }

  /** The rows with merges and settlements applied, merges first. */
  private static Rows settled(Table table, Rows rows, SplitChoices choices) {
    Rows settled = rows;
    Map<FieldId, Map<String, String>> merges = new HashMap<>();
    for (Merge merge : choices.merges()) {
      merges.computeIfAbsent(merge.field(), f -> new HashMap<>()).put(merge.from(), merge.to());
    }
    for (var entry : merges.entrySet()) {
      settled = merged(settled, entry.getKey(), entry.getValue());
    }
    Map<Decision, Map<List<String>, String>> chosen = new HashMap<>();
    for (Settlement settlement : choices.settlements()) {
      if (choices.decisions().contains(settlement.decision())) {
        chosen
            .computeIfAbsent(settlement.decision(), d -> new HashMap<>())
            .put(settlement.determinant(), settlement.value());
      }
    }
    for (var entry : chosen.entrySet()) {
      settled = settled(settled, entry.getKey(), entry.getValue());
    }
    return settled;
  }

  private static Rows merged(Rows rows, FieldId field, Map<String, String> to) {
    var column = new ArrayList<Optional<String>>();
    for (int row = 0; row < rows.count(); row++) {
      column.add(rows.cell(row, field).map(text -> to.getOrDefault(text, text)));
    }
    return rows.withColumn(field, column);
  }

  private static Rows settled(Rows rows, Decision decision, Map<List<String>, String> values) {
    var column = new ArrayList<Optional<String>>();
    for (int row = 0; row < rows.count(); row++) {
      List<String> key =
          rows.row(row, decision.determinant()).stream().map(cell -> cell.orElse("")).toList();
      String chosen = values.get(key);
      column.add(
          chosen == null
              ? rows.cell(row, decision.decided())
              : Optional.of(chosen).filter(text -> !text.isEmpty()));
    }
    return rows.withColumn(decision.decided(), column);
  }

  private static int changedCells(Table table, Rows before, Rows after) {
    int changed = 0;
    for (Field field : table.fields()) {
      for (int row = 0; row < before.count(); row++) {
        changed += before.cell(row, field.id()).equals(after.cell(row, field.id())) ? 0 : 1;
      }
    }
    return changed;
  }

  private static List<Open> open(Table table, Rows rows, SplitChoices choices) {
    var open = new ArrayList<Open>();
    for (Decision decision : choices.decisions()) {
      var fields = new ArrayList<>(decision.determinant());
      fields.add(decision.decided());
      EncodedTable encoded = EncodedTable.of(new TableRows(table, fields, rows));
      List<Contradiction> found =
          Contradiction.of(encoded, AttributeSet.first(fields.size() - 1), fields.size() - 1);
      if (!found.isEmpty()) {
        open.add(new Open(decision, found));
      }
    }
    return open;
  }
}
