package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.RandomLinks;
import joiner.Tries;
import joiner.audit.Audit;
import joiner.audit.Violation;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableKind;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

/** No change of structure loses a link between two rows without saying so. */
class LinksStayTest {
  private enum Kind {
    TURNED,
    JOINED,
    JOINED_AND_BACK,
    WITHIN,
    OWN_KEY
  }

  private final Map<Kind, Integer> done = new EnumMap<>(Kind.class);
  private int refused;

  @Test
  void everyStructuralChangeKeepsEveryLinkOrIsRefused() {
    Tries.of(350).forEach(this::change);
    assertThat(done.values().stream().mapToInt(n -> n).sum()).isGreaterThan(Tries.least(1_000));
    assertThat(done.keySet()).hasSize(Kind.values().length);
    assertThat(refused).as("where several links meet").isGreaterThan(Tries.least(50));
  }

  private void change(long seed) {
    Draft draft = RandomLinks.draft(seed, 1);
    for (Relationship r : draft.design().relationships()) {
      List<String> links = links(draft, r);
      attempt(draft, new TurnRound(r.id()))
          .ifPresent(
              after -> {
                Relationship turned = Relate.made(draft.design(), after.design()).orElseThrow();
                assertThat(turned(links(after, turned))).as("%s %s", seed, r).isEqualTo(links);
                sound(Kind.TURNED, after);
              });
      Table child = draft.design().table(r.child());
      attempt(draft, WithinParent.of(draft.design(), r))
          .ifPresent(after -> within(draft, after, r));
      attempt(draft, Counters.identifyPairs(child))
          .ifPresent(
              after -> {
                allLinksStay(draft, after);
                sound(Kind.OWN_KEY, after);
              });
      attempt(draft, new ToManyToMany(r.id(), "many"))
          .ifPresent(after -> joined(draft, after, links));
    }
  }

  /** In each parent the numbers go from 1 to as many as it has children. */
  private void within(Draft draft, Draft after, Relationship r) {
    Table child = after.design().table(r.child());
    assertThat(child.primaryKey()).startsWith(r.childFields().toArray(FieldId[]::new));
    FieldId number = child.primaryKey().getLast();
    Rows rows = after.rows().of(child.id());
    Map<List<Optional<String>>, List<Integer>> numbers = new HashMap<>();
    for (int row = 0; row < rows.count(); row++) {
      numbers
          .computeIfAbsent(rows.row(row, r.childFields()), parent -> new ArrayList<>())
          .add(Integer.parseInt(rows.cell(row, number).orElseThrow()));
    }
    assertThat(numbers.values())
        .allSatisfy(
            some ->
                assertThat(some)
                    .containsExactlyElementsOf(
                        IntStream.rangeClosed(1, some.size()).boxed().toList()));
    allLinksStay(draft, after);
    sound(Kind.WITHIN, after);
  }

  private static void allLinksStay(Draft draft, Draft after) {
    for (Relationship other : draft.design().relationships()) {
      Relationship now = after.design().relationship(other.id());
      assertThat(links(after, now)).as("%s", other).isEqualTo(links(draft, other));
    }
  }

  private void joined(Draft draft, Draft after, List<String> links) {
    Table join =
        after.design().tables().stream()
            .filter(t -> t.kind() instanceof TableKind.Join)
            .findFirst()
            .orElseThrow();
    var kind = (TableKind.Join) join.kind();
    Relationship toChild = after.design().relationship(kind.first());
    Relationship toParent = after.design().relationship(kind.second());
    Rows rows = after.rows().of(join.id());
    var pairs = new ArrayList<String>();
    for (int row = 0; row < rows.count(); row++) {
      String child = named(after, toChild, rows.row(row, toChild.childFields()));
      pairs.add(child + " > " + named(after, toParent, rows.row(row, toParent.childFields())));
    }
    assertThat(pairs.stream().sorted().toList()).isEqualTo(links);
    sound(Kind.JOINED, after);
    attempt(after, new FromManyToMany(join.id(), toChild.id(), "one"))
        .ifPresent(
            back -> {
              Relationship again = Relate.made(after.design(), back.design()).orElseThrow();
              assertThat(links(back, again)).isEqualTo(links);
              sound(Kind.JOINED_AND_BACK, back);
            });
  }

  private void sound(Kind kind, Draft after) {
    assertThat(Audit.of(after, Pottery.CLOCK).violations())
        .as("%s", kind)
        .allMatch(v -> v.kind() == Violation.Kind.CHILDLESS); // So it was before.
    done.merge(kind, 1, Integer::sum);
  }

  private Optional<Draft> attempt(Draft draft, Edit edit) {
    try {
      return Optional.of(edit.apply(draft));
    } catch (EditRefusedException why) {
      assertThat(why.getMessage()).endsWith(".").hasSizeGreaterThan(20);
      refused++;
      return Optional.empty();
    }
  }

  /** Which row of the child refers to which of the parent, by their marks, in order. */
  private static List<String> links(Draft draft, Relationship r) {
    Rows rows = draft.rows().of(r.child());
    var links = new ArrayList<String>();
    for (int row = 0; row < rows.count(); row++) {
      List<Optional<String>> to = rows.row(row, r.childFields());
      if (to.stream().allMatch(Optional::isPresent)) {
        links.add(mark(rows, row) + " > " + named(draft, r, to));
      }
    }
    return links.stream().sorted().toList();
  }

  private static String mark(Rows rows, int row) {
    return rows.cell(row, new FieldId("mark")).orElseThrow();
  }

  /** The mark of the row that is referred to. */
  private static String named(Draft draft, Relationship r, List<Optional<String>> key) {
    Rows parents = draft.rows().of(r.parent());
    for (int row = 0; row < parents.count(); row++) {
      if (parents.row(row, r.parentFields()).equals(key)) {
        return mark(parents, row);
      }
    }
    throw new AssertionError("nobody is " + key + " of " + r.parent());
  }

  private static List<String> turned(List<String> links) {
    return links.stream()
        .map(
            link ->
                link.substring(link.indexOf('>') + 2)
                    + " > "
                    + link.substring(0, link.indexOf(" >")))
        .sorted()
        .toList();
  }
}
