package joiner.finding;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.function.Supplier;
import joiner.meaning.RowLabels;
import joiner.meaning.TableMeaning;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;

/**
 * Findings about single tables and relationships that still hold from the last run. Values never
 * change in place, so the same values have the same findings. Belongs to one thread at a time.
 */
public final class KnownFindings {
  /** A finding with the place of its check in the list. */
  record Numbered(int check, Finding finding) {}

  private record Known(TableMeaning meaning, Rows rows, List<Numbered> findings) {}

  private record KnownLink(Relationship link, Table child, Table parent, List<Numbered> findings) {}

  /** A check of a relationship with its child and its parent. */
  interface LinkCheck {
    List<Numbered> apply(Relationship link, Table child, Table parent);
  }

  private Map<TableId, Known> known = Map.of();
  private Map<RelationshipId, KnownLink> knownLinks = Map.of();

  private record KnownLabels(TableMeaning meaning, Rows rows, RowLabels.Shared shared) {}

  private final Map<TableId, KnownLabels> knownLabels = new HashMap<>();

  /**
   * Which labels are shared, of a table whose label reads nothing but its own rows.
   *
   * @param found finds it out, where it is not known
   */
  RowLabels.Shared sharedLabels(TableMeaning meaning, Rows rows, Supplier<RowLabels.Shared> found) {
    TableId table = meaning.table().id();
    KnownLabels before = knownLabels.get(table);
    boolean holds = before != null && before.meaning == meaning && before.rows == rows;
    KnownLabels now = holds ? before : new KnownLabels(meaning, rows, found.get());
    knownLabels.put(table, now);
    return now.shared;
  }

  /** Adds the findings of all tables and relationships to the lists of their checks. */
  void update(
      CheckedDesign design,
      BiFunction<TableMeaning, Rows, List<Numbered>> check,
      LinkCheck linkCheck,
      List<List<Finding>> byCheck) {
    updateTables(design, check, byCheck);
    updateLinks(design, linkCheck, byCheck);
  }

  private void updateLinks(CheckedDesign design, LinkCheck check, List<List<Finding>> byCheck) {
    Map<RelationshipId, KnownLink> next =
        HashMap.newHashMap(design.design().relationships().size());
    for (Relationship link : design.design().relationships()) {
      Table child = design.design().table(link.child());
      Table parent = design.design().table(link.parent());
      KnownLink before = knownLinks.get(link.id());
      boolean holds =
          before != null && before.link == link && before.child == child && before.parent == parent;
      KnownLink now =
          holds ? before : new KnownLink(link, child, parent, check.apply(link, child, parent));
      next.put(link.id(), now);
      now.findings.forEach(numbered -> byCheck.get(numbered.check).add(numbered.finding));
    }
    knownLinks = next;
  }

  private void updateTables(
      CheckedDesign design,
      BiFunction<TableMeaning, Rows, List<Numbered>> check,
      List<List<Finding>> byCheck) {
    Map<TableId, Known> next = HashMap.newHashMap(design.design().tables().size());
    for (Table table : design.design().tables()) {
      Rows rows = design.rows(table);
      Known before = known.get(table.id());
      TableMeaning meaning = design.meaning(table);
      boolean holds = before != null && before.meaning == meaning && before.rows == rows;
      Known now = holds ? before : new Known(meaning, rows, check.apply(meaning, rows));
      next.put(table.id(), now);
      now.findings.forEach(numbered -> byCheck.get(numbered.check).add(numbered.finding));
    }
    known = next;
  }
}
