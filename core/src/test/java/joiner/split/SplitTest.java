package joiner.split;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.edit.EditRefusedException;
import joiner.edit.History;
import joiner.edit.Prepared;
import joiner.finding.DesignChecks;
import joiner.finding.Severity;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import joiner.split.SplitChoices.CellList;
import joiner.split.SplitChoices.Decision;
import joiner.split.SplitChoices.Merge;
import joiner.split.SplitChoices.Repeat;
import joiner.split.SplitChoices.Settlement;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class SplitTest {
  private static final TableId LOG = new TableId("log");

  private static FieldId id(String field) {
    return new FieldId(field);
  }

  private static Draft log(String fields, String... rows) {
    List<String> names = List.of(fields.split(","));
    Table table =
        Table.of("log", "Log", new Noun("log", "logs"))
            .withFields(
                names.stream().map(name -> Field.of(name, name, new FieldType.Text(40))).toList());
    var cells = new ArrayList<List<Optional<String>>>();
    for (String row : rows) {
      var line = new ArrayList<Optional<String>>();
      for (String cell : row.split(",", -1)) {
        line.add(Optional.of(cell).filter(text -> !text.isEmpty()));
      }
      cells.add(line);
    }
    return new Draft(
        Design.empty("studio", "Studio").withTableAdded(table),
        new SampleRows(Map.of(LOG, Rows.of(names.stream().map(SplitTest::id).toList(), cells))));
  }

  private static Decision decision(String determinant, String decided) {
    return new Decision(
        List.of(determinant.split("\\+")).stream().map(SplitTest::id).toList(), id(decided));
  }

  private static SplitChoices deciding(Decision... decisions) {
    return new SplitChoices(
        List.of(decisions), List.of(), List.of(), List.of(), List.of(), List.of(), Set.of());
  }

  private static void assertSound(Split split) {
    assertThat(split.open()).isEmpty();
    assertThat(split.proof().orElseThrow()).matches(Split.Proof::holds);
    Draft after = split.after().orElseThrow();
    assertThat(DesignChecks.run(after))
        .filteredOn(finding -> finding.severity() == Severity.ERROR)
        .isEmpty();
    assertThat(Audit.of(after, Pottery.CLOCK, () -> false).violations().map(Object::toString))
        .isEmpty();
  }

  private static List<String> texts(Draft draft, String table, String field) {
    Rows rows = draft.rows().of(new TableId(table));
    return IntStream.range(0, rows.count())
        .mapToObj(row -> rows.cell(row, id(field)).orElse(""))
        .toList();
  }

  @Test
  void aDeterminantBecomesATableWithACounterAndStaysUnique() {
    Draft draft = log("day,member,email", "1,Mara,m@x", "2,Odo,o@x", "3,Mara,m@x");
    Split split = Split.of(draft, LOG, deciding(decision("member", "email")));
    assertSound(split);
    Draft after = split.after().orElseThrow();
    assertThat(texts(after, "member", "name")).containsExactly("Mara", "Odo");
    assertThat(texts(after, "log", "member_id")).containsExactly("1", "2", "1");
    Table member = after.design().table(new TableId("member"));
    assertThat(member.isKey(List.of(id("member_id")))).isTrue();
    assertThat(member.isUnique(List.of(id("name")))).isTrue();
    assertThat(split.cellsBefore()).isEqualTo(9);
  }

  @Test
  void aNaturalKeyIsReferredToByItself() {
    Draft draft = log("day,cone,peak", "1,04,1063", "2,6,1222", "3,04,1063");
    SplitChoices choices =
        deciding(decision("cone", "peak")).withNaturalKeys(Set.of(List.of(id("cone"))));
    Split split = Split.of(draft, LOG, choices);
    assertSound(split);
    assertThat(texts(split.after().orElseThrow(), "log", "cone")).containsExactly("04", "6", "04");
  }

  @Test
  void chainsOfDecisionsBecomeChainsOfTables() {
    Draft draft =
        log("no,kiln,room,floor", "1,Ember,R1,0", "2,Ash,R2,0", "3,Ember,R1,0", "4,Tom,R2,0");
    Split split =
        Split.of(draft, LOG, deciding(decision("kiln", "room"), decision("room", "floor")));
    assertSound(split);
    Design design = split.after().orElseThrow().design();
    assertThat(design.relationships())
        .extracting(r -> r.child() + " → " + r.parent())
        .containsExactlyInAnyOrder("kiln → room", "log → kiln");
  }

  @Test
  void determinantsThatDecideEachOtherShareATable() {
    Draft draft = log("no,code,title", "1,W,Wheel", "2,G,Glaze", "3,W,Wheel");
    Split split =
        Split.of(draft, LOG, deciding(decision("code", "title"), decision("title", "code")));
    assertSound(split);
    assertThat(split.parts()).hasSize(2);
  }

  /** Street, city and zip, of which no split keeps every dependency in one table. */
  @Test
  void overlappingDeterminantsLoseNothing() {
    Draft draft = log("no,city,street,zip", "1,A,s,1", "2,A,t,2", "3,B,s,3", "4,A,s,1");
    assertSound(
        Split.of(draft, LOG, deciding(decision("city+street", "zip"), decision("zip", "city"))));
  }

  @Test
  void determinantsThatShareAFieldStayInTheTable() {
    Draft draft = log("a,b,c,x,y", "1,1,1,p,q", "1,2,1,r,s", "2,1,1,t,q", "1,1,2,p,u");
    assertSound(Split.of(draft, LOG, deciding(decision("a+b", "x"), decision("b+c", "y"))));
  }

  @Test
  void emptyCellsComeBackEmpty() {
    Draft draft = log("no,member,email", "1,,", "2,Odo,", "3,,odd@x", "4,,odd@x", "5,Mara,m@x");
    Draft without = log("no,member,email", "1,,", "2,Odo,", "5,Mara,m@x");
    assertSound(Split.of(without, LOG, deciding(decision("member", "email"))));
    assertThat(Split.of(draft, LOG, deciding(decision("member", "email"))).open())
        .as("no member, but two different addresses: none and one")
        .hasSize(1);
  }

  @Test
  void numberedFieldsBecomeRowsInOrderWithGapsKept() {
    Draft draft = log("no,g1,g2,g3", "1,Moss,,Ash", "2,,,", "3,Ash,Ash,");
    var repeat =
        new Repeat(List.of(new Repeat.Base("Glaze", List.of(id("g1"), id("g2"), id("g3")))));
    Split split =
        Split.of(
            draft,
            LOG,
            new SplitChoices(
                List.of(),
                List.of(repeat),
                List.of(),
                List.of(id("g1")),
                List.of(),
                List.of(),
                Set.of()));
    assertSound(split);
    Draft after = split.after().orElseThrow();
    assertThat(texts(after, "log_glaze", "position")).containsExactly("1", "3", "1", "2");
    assertThat(texts(after, "glaze", "name")).containsExactly("Moss", "Ash");
  }

  @Test
  void listsInCellsBecomeRowsWithTheirCounts() {
    Draft draft = log("no,load", "1,4 bowls; 1 jug", "2,2 tiles", "3,");
    Split split =
        Split.of(
            draft,
            LOG,
            new SplitChoices(
                List.of(),
                List.of(),
                List.of(new CellList(id("load"), "; ", true)),
                List.of(),
                List.of(),
                List.of(),
                Set.of()));
    assertSound(split);
    assertThat(texts(split.after().orElseThrow(), "log_load", "quantity"))
        .containsExactly("4", "1", "2");
  }

  @Test
  void aListCanBelongToATableOfItsOwnDeterminant() {
    Draft draft = log("no,member,phones", "1,Mara,1 / 2", "2,Odo,3", "3,Mara,1 / 2");
    Split split =
        Split.of(
            draft,
            LOG,
            new SplitChoices(
                List.of(decision("member", "phones")),
                List.of(),
                List.of(new CellList(id("phones"), " / ", false)),
                List.of(),
                List.of(),
                List.of(),
                Set.of()));
    assertSound(split);
    assertThat(texts(split.after().orElseThrow(), "member_phone", "position"))
        .containsExactly("1", "2", "1");
  }

  @Test
  void contradictionsMustBeSettledFirst() {
    Draft draft = log("no,member,email", "1,Odo,o@x", "2,Odo,o@x", "3,Odo,q@x");
    Decision decision = decision("member", "email");
    Split split = Split.of(draft, LOG, deciding(decision));
    assertThat(split.after()).isEmpty();
    assertThat(split.open().getFirst().contradictions().getFirst().values().getFirst().text())
        .isEqualTo("o@x");
    assertThatThrownBy(() -> new SplitTable(LOG, "Log", deciding(decision)).apply(draft))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("Odo")
        .hasMessageContaining("2 values");
    Split settled =
        Split.of(
            draft,
            LOG,
            deciding(decision).settling(new Settlement(decision, List.of("Odo"), "o@x")));
    assertSound(settled);
    assertThat(settled.changedCells()).isEqualTo(1);
  }

  @Test
  void spellingsAreMergedOnlyWhereToldTo() {
    Draft draft = log("no,supplier", "1,Clay Barn", "2,Claybarn", "3,Clay Barn");
    SplitChoices choices =
        new SplitChoices(
            List.of(),
            List.of(),
            List.of(),
            List.of(id("supplier")),
            List.of(new Merge(id("supplier"), "Claybarn", "Clay Barn")),
            List.of(),
            Set.of());
    Split split = Split.of(draft, LOG, choices);
    assertSound(split);
    assertThat(texts(split.after().orElseThrow(), "supplier", "name")).containsExactly("Clay Barn");
    assertThat(split.changedCells()).isEqualTo(1);
  }

  @Test
  void undoTakesTheWholeSplitBack() {
    Draft draft = log("day,member,email", "1,Mara,m@x", "2,Odo,o@x", "3,Mara,m@x");
    History history =
        History.startingWith(draft)
            .after(new SplitTable(LOG, "Log", deciding(decision("member", "email"))));
    assertThat(history.undoName()).contains("split Log");
    assertThat(history.undone().present()).isEqualTo(draft);
    assertThat(history.undone().redone().present()).isEqualTo(history.present());
  }

  @Test
  void aSplitWorkedOutBeforehandGivesTheSameAndFollowsAnotherDraft() {
    Draft draft = log("day,member,email", "1,Mara,m@x", "2,Odo,o@x", "3,Mara,m@x");
    var split = new SplitTable(LOG, "Log", deciding(decision("member", "email")));
    Prepared prepared = Prepared.of(split, draft);
    assertThat(prepared.apply(draft)).isSameAs(prepared.after()).isEqualTo(split.apply(draft));
    Draft other = log("day,member,email", "1,Ines,i@x");
    assertThat(texts(prepared.apply(other), "member", "name")).containsExactly("Ines");
    assertThat(prepared.name()).isEqualTo(split.name());
  }

  @Test
  void aFieldThatHoldsAListDecidesNothing() {
    Draft draft = log("no,load,x", "1,a; b,1", "2,c,2");
    SplitChoices choices =
        new SplitChoices(
            List.of(decision("load", "x")),
            List.of(),
            List.of(new CellList(id("load"), "; ", false)),
            List.of(),
            List.of(),
            List.of(),
            Set.of());
    assertThatThrownBy(() -> Split.of(draft, LOG, choices))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("several values");
  }

  /** Whatever holds in random rows may be confirmed: every split joins back to its source. */
  @Property(tries = 2000)
  void everySplitJoinsBackToItsSource(
      @ForAll long seed,
      @ForAll @IntRange(min = 2, max = 6) int fields,
      @ForAll @IntRange(max = 14) int count) {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(seed);
    List<String> names = IntStream.range(0, fields).mapToObj(i -> "f" + i).toList();
    String[] rows = new String[count];
    for (int row = 0; row < count; row++) {
      var cells = new ArrayList<String>();
      for (int field = 0; field < fields; field++) {
        int value = random.nextInt(3);
        cells.add(value == 0 ? "" : "v" + value);
      }
      rows[row] = String.join(",", cells);
    }
    Draft draft = log(String.join(",", names), rows);
    Set<Decision> decisions = new HashSet<>();
    for (int i = 0; i < 6; i++) {
      int decided = random.nextInt(fields);
      var determinant = new ArrayList<String>();
      for (int field = 0; field < fields; field++) {
        if (field != decided && random.nextInt(3) == 0) {
          determinant.add(names.get(field));
        }
      }
      if (!determinant.isEmpty()) {
        Decision decision = decision(String.join("+", determinant), names.get(decided));
        if (Split.of(draft, LOG, deciding(decision)).open().isEmpty()) {
          decisions.add(decision);
        }
      }
    }
    Set<List<FieldId>> natural = new HashSet<>();
    decisions.stream()
        .filter(decision -> random.nextBoolean())
        .forEach(decision -> natural.add(decision.determinant()));
    SplitChoices choices = deciding(decisions.toArray(Decision[]::new)).withNaturalKeys(natural);
    assertSound(Split.of(draft, LOG, choices));
  }
}
