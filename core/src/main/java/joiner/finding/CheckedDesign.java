package joiner.finding;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import joiner.deletion.Deletions;
import joiner.meaning.Draft;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.jspecify.annotations.Nullable;

/** A draft with the indexes that several checks share, built once. */
final class CheckedDesign {
  /** What is found in rows does not hang on the day of the check. */
  static final Clock ANY_DAY = Clock.fixed(Instant.EPOCH, ZoneOffset.UTC);

  private final Draft draft;
  private final KnownFindings known;
  private final Map<TableId, List<Relationship>> byChild;
  private final Map<TableId, List<Relationship>> byParent;
  private @Nullable Deletions deletions;

  CheckedDesign(Draft draft, KnownFindings known) {
    this.draft = draft;
    this.known = known;
    this.byChild =
        draft.design().relationships().stream().collect(Collectors.groupingBy(Relationship::child));
    this.byParent =
        draft.design().relationships().stream()
            .collect(Collectors.groupingBy(Relationship::parent));
  }

  /** What deleting rows would do; who refers to whom is found once for all checks. */
  Deletions deletions() {
    Deletions known = deletions;
    if (known == null) {
      known = new Deletions(draft, ANY_DAY);
      deletions = known;
    }
    return known;
  }

  Draft draft() {
    return draft;
  }

  /** What is known from the last run. */
  KnownFindings known() {
    return known;
  }

  Design design() {
    return draft.design();
  }

  TableMeaning meaning(Table table) {
    return draft.meaning().of(table);
  }

  Rows rows(Table table) {
    return draft.rows().of(table.id());
  }

  /** Relationships in which the table is the child. */
  List<Relationship> parentsOf(TableId child) {
    return byChild.getOrDefault(child, List.of());
  }

  /** Relationships in which the table is the parent. */
  List<Relationship> childrenOf(TableId parent) {
    return byParent.getOrDefault(parent, List.of());
  }
}
