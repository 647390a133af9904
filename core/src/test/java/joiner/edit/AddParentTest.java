package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Optional;
import joiner.Pottery;
import joiner.meaning.Draft;
import joiner.meaning.ParentRows;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

class AddParentTest {
  private static final Draft DEMO = Pottery.demo();

  private static Relationship over(String table, String field) {
    return ParentRows.reference(DEMO, new TableId(table), new FieldId(field)).orElseThrow();
  }

  @Test
  void aParentIsAddedByItsNameUnderTheNextNumber() {
    Relationship r = over("firing", "kiln_id");
    Rows rows = DEMO.rows().of(r.child());
    Draft added = new AddParent(r.id(), rows, 3, "Tall Meg").apply(DEMO);
    Rows kilns = added.rows().of(r.parent());
    int last = kilns.count() - 1;
    assertThat(kilns.count()).isEqualTo(DEMO.rows().of(r.parent()).count() + 1);
    assertThat(kilns.cell(last, new FieldId("name"))).contains("Tall Meg");
    assertThat(kilns.cell(last, new FieldId("kiln_id"))).contains("5");
    assertThat(added.rows().of(r.child()).cell(3, r.childFields().getFirst())).contains("5");
    assertThat(added.rows().of(r.child()).cell(2, r.childFields().getFirst()))
        .isEqualTo(rows.cell(2, r.childFields().getFirst()));
  }

  @Test
  void aKeyThatIsATextIsTheText() {
    Relationship r = over("firing", "cone_no");
    Draft added = new AddParent(r.id(), DEMO.rows().of(r.child()), 0, "11").apply(DEMO);
    Rows cones = added.rows().of(r.parent());
    assertThat(cones.cell(cones.count() - 1, r.parentFields().getFirst())).contains("11");
    assertThat(AddParent.isPossible(DEMO, r)).isTrue();
  }

  @Test
  void whatATextAloneDoesNotIdentifyIsNotAdded() {
    Relationship r =
        DEMO.design().childrenOf(new TableId("session")).stream().findFirst().orElseThrow();
    assertThat(AddParent.isPossible(DEMO, r)).isFalse();
    TableId kiln = new TableId("kiln");
    Draft unlabelled =
        DEMO.withDesign(DEMO.design().withTable(kiln, t -> t.withRowLabel(Optional.empty())));
    Relationship toKiln = over("firing", "kiln_id");
    assertThat(AddParent.isPossible(unlabelled, toKiln)).isFalse();
    assertThatThrownBy(
            () ->
                new AddParent(toKiln.id(), DEMO.rows().of(toKiln.child()), 0, "Meg")
                    .apply(unlabelled))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("a kiln");
  }
}
