package joiner.naming;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

class ConstraintNamingTest {
  @Test
  void constraintsAreNamedBySortTableAndWhatTheyAreAbout() {
    assertThat(ConstraintNaming.primaryKey("kiln")).isEqualTo("pk_kiln");
    assertThat(ConstraintNaming.unique("kiln", List.of("name", "site")))
        .isEqualTo("uq_kiln_name_site");
    assertThat(ConstraintNaming.unique("kiln", List.of())).isEqualTo("uq_kiln");
    assertThat(ConstraintNaming.reference("firing", List.of("kiln_id")))
        .isEqualTo("fk_firing_kiln_id");
    assertThat(ConstraintNaming.index("firing", List.of("kiln_id"))).isEqualTo("ix_firing_kiln_id");
    assertThat(ConstraintNaming.check("kiln", "litres", "minimum"))
        .isEqualTo("ck_kiln_litres_minimum");
  }
}
