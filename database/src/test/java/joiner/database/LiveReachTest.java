package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.CancellationException;
import joiner.Pottery;
import joiner.RandomLinks;
import joiner.Tries;
import joiner.ddl.RowsChoice;
import joiner.deletion.Deletions;
import joiner.deletion.Outcome;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a delete does among the rows that are read is what it does among all of them. */
class LiveReachTest {
  private static final int GROUPS = 12;
  private static final int FOLLOWED = 3;

  @TempDir private Path folder;
  private int compared;
  private int others;

  @Test
  void rowsThatAreReadAreEnoughToSeeWhatGoes() throws Exception {
    for (long seed : Tries.of(2).toArray()) {
      Draft draft = RandomLinks.draft(seed, GROUPS);
      for (String url : Databases.fresh(folder)) {
        Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
        for (Table table : draft.design().tables()) {
          compare(draft, url, table);
          found(draft, url, table);
        }
        Databases.drop(url);
      }
    }
    assertThat(compared).isGreaterThan(200);
    assertThat(others).as("rows that go along, lose a link or refuse").isGreaterThan(200);
  }

  private void compare(Draft draft, String url, Table table) throws Exception {
    var reach =
        LiveReach.of(
            draft,
            Target.of(url),
            table.id(),
            Optional.empty(),
            FOLLOWED,
            Pottery.CLOCK,
            Progress.NONE);
    int count = draft.rows().of(table.id()).count();
    assertThat(reach.first()).isEqualTo(Math.min(FOLLOWED, count));
    assertThat(reach.all()).isEqualTo(count <= FOLLOWED);
    var read = new Deletions(reach.draft(), Pottery.CLOCK);
    var whole = new Deletions(draft, Pottery.CLOCK);
    for (int row = 0; row < reach.first(); row++) {
      int same = row(draft, table.id(), id(reach.draft(), table.id(), row));
      Outcome said = read.of(table.id(), row);
      assertThat(words(reach.draft(), said))
          .as("%s of %s on %s", row, table.name(), url)
          .isEqualTo(words(draft, whole.of(table.id(), same)));
      compared++;
      others += said.count() - 1 + said.links() + said.refusing();
    }
  }

  /** A row that is not among the first is found by its key, and tells the same. */
  private void found(Draft draft, String url, Table table) throws Exception {
    int last = draft.rows().of(table.id()).count() - 1;
    if (last < 0) {
      return;
    }
    String wanted = id(draft, table.id(), last);
    String literal =
        table.field(new FieldId("id")).type().kind() == Kind.TEXT ? "'" + wanted + "'" : wanted;
    LiveReach reach = asked(draft, url, table.id(), "id = " + literal);
    assertThat(reach.first()).as("%s on %s", table.name(), url).isEqualTo(1);
    assertThat(reach.all()).isTrue();
    assertThat(id(reach.draft(), table.id(), 0)).isEqualTo(wanted);
    assertThat(words(reach.draft(), new Deletions(reach.draft(), Pottery.CLOCK).of(table.id(), 0)))
        .isEqualTo(words(draft, new Deletions(draft, Pottery.CLOCK).of(table.id(), last)));
  }

  private static LiveReach asked(Draft draft, String url, TableId table, String where)
      throws Exception {
    return LiveReach.of(
        draft,
        Target.of(url),
        table,
        Optional.of(new Formula(where)),
        FOLLOWED,
        Pottery.CLOCK,
        Progress.NONE);
  }

  @Test
  void aConditionThatCannotBeAskedThereIsRefused() throws Exception {
    Draft demo = Pottery.demo();
    String url = "jdbc:sqlite:" + folder.resolve("pottery.db");
    Shipment.ship(demo, Target.of(url), RowsChoice.ALL, Progress.NONE);
    TableId firing = demo.design().tableNamed("firing").orElseThrow().id();
    assertThat(asked(demo, url, firing, "peak_c > 1250").draft().rows().of(firing).count())
        .isPositive();
    assertThatThrownBy(() -> asked(demo, url, firing, "peek_c > 1250"))
        .isInstanceOf(TargetRefusedException.class)
        .hasMessageContaining("did you mean peak_c?");
    assertThatThrownBy(() -> asked(demo, url, firing, "kiln_id.name = 'Ember'"))
        .isInstanceOf(TargetRefusedException.class)
        .hasMessageContaining("reads other tables");
  }

  private static String id(Draft draft, TableId table, int row) {
    return draft.rows().of(table).cell(row, new FieldId("id")).orElseThrow();
  }

  private static int row(Draft draft, TableId table, String id) {
    for (int row = 0; row < draft.rows().of(table).count(); row++) {
      if (id(draft, table, row).equals(id)) {
        return row;
      }
    }
    throw new AssertionError(table + " has no row " + id);
  }

  /** All that is said, by the ids of the rows. */
  private static Map<String, TreeSet<String>> words(Draft draft, Outcome outcome) {
    Map<String, TreeSet<String>> words = new TreeMap<>();
    outcome.gone().forEach((table, rows) -> words.put("gone " + table, ids(draft, table, rows)));
    outcome
        .unlinked()
        .forEach((r, rows) -> words.put("unlinked " + r, ids(draft, child(draft, r), rows)));
    outcome
        .childless()
        .forEach(
            (r, rows) ->
                words.put(
                    "childless " + r, ids(draft, draft.design().relationship(r).parent(), rows)));
    for (Outcome.Refusal refusal : outcome.refusals()) {
      words.put(
          "refused " + refusal.everywhere() + refusal.relationship(),
          ids(draft, child(draft, refusal.relationship()), refusal.rows()));
    }
    return words;
  }

  private static TableId child(Draft draft, joiner.model.RelationshipId of) {
    return draft.design().relationship(of).child();
  }

  private static TreeSet<String> ids(Draft draft, TableId table, BitSet rows) {
    var ids = new TreeSet<String>();
    rows.stream().forEach(row -> ids.add(id(draft, table, row)));
    return ids;
  }

  @Test
  void theDemoIsReadInPiecesAndCanBeStopped() throws Exception {
    Draft demo = Pottery.demo();
    String url = "jdbc:sqlite:" + folder.resolve("pottery.db");
    Shipment.ship(demo, Target.of(url), RowsChoice.ALL, Progress.NONE);
    TableId member = demo.design().tableNamed("member").orElseThrow().id();
    List<String> reached = new ArrayList<>();
    var reach =
        LiveReach.of(
            demo,
            Target.of(url),
            member,
            Optional.empty(),
            1,
            Pottery.CLOCK,
            (done, total, doing) -> reached.add(doing));
    assertThat(reached).contains("locker", "piece", "enrolment");
    assertThat(reach.draft().rows().count()).isLessThan(demo.rows().count());
    assertThatThrownBy(
            () ->
                LiveReach.of(
                    demo,
                    Target.of(url),
                    member,
                    Optional.empty(),
                    1,
                    Pottery.CLOCK,
                    (done, total, doing) -> false))
        .isInstanceOf(CancellationException.class);
    assertThatThrownBy(
            () ->
                LiveReach.of(
                    demo,
                    new Target(
                        "jdbc:sqlite:" + folder.resolve("none.db"),
                        Optional.empty(),
                        Optional.empty()),
                    member,
                    Optional.empty(),
                    1,
                    Pottery.CLOCK,
                    Progress.NONE))
        .isInstanceOf(TargetRefusedException.class);
  }
}
