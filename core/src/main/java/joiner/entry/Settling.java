package joiner.entry;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.audit.Anomaly;
import joiner.audit.Anomaly.Disagreement;
import joiner.audit.Anomaly.Said;
import joiner.edit.Edit;
import joiner.edit.EnterRows;
import joiner.edit.Named;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.rows.Rows;

/** Lets rows that contradict what is known say the same. */
public final class Settling {
  private Settling() {}

  /**
   * An edit after which rows say the same.
   *
   * @param rows how many rows it changes
   */
  public record Settled(Edit edit, int rows) {}

  /** All rows of a disagreement say what some of them say. */
  public static Settled with(Draft draft, Anomaly anomaly, Disagreement of, Said said) {
    return settled(draft, anomaly, changed(draft, anomaly, of, said));
  }

  /**
   * All rows say what most of those that are decided by the same say; where there is no such
   * majority they stay. Empty where there is none at all.
   */
  public static Optional<Settled> byMost(Draft draft, Anomaly anomaly) {
    List<EnterRows.One> rows =
        anomaly.disagreements().stream()
            .flatMap(
                of ->
                    of.most().stream().flatMap(most -> changed(draft, anomaly, of, most).stream()))
            .toList();
    return rows.isEmpty() ? Optional.empty() : Optional.of(settled(draft, anomaly, rows));
  }

  private static Settled settled(Draft draft, Anomaly anomaly, List<EnterRows.One> rows) {
    Table table = draft.design().table(anomaly.table());
    String what =
        "settle what " + String.join(", ", table.labelsOf(anomaly.determinant())) + " decides";
    return new Settled(new Named(what, new EnterRows(what, rows, Map.of()), false), rows.size());
  }

  private static List<EnterRows.One> changed(
      Draft draft, Anomaly anomaly, Disagreement of, Said said) {
    Rows rows = draft.rows().of(anomaly.table());
    Map<FieldId, Optional<String>> cells = new LinkedHashMap<>();
    for (int i = 0; i < said.values().size(); i++) {
      cells.put(anomaly.dependents().get(i), said.values().get(i));
    }
    var changed = new ArrayList<EnterRows.One>();
    for (Said other : of.said()) {
      if (!other.equals(said)) {
        other
            .rows()
            .forEach(
                row ->
                    changed.add(
                        new EnterRows.One(anomaly.table(), Optional.of(rows.id(row)), cells)));
      }
    }
    return changed;
  }
}
