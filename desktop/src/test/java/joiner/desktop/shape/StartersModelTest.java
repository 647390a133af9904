package joiner.desktop.shape;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Optional;
import joiner.Pottery;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.TestBench;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.TableId;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Tables to begin with, picked without a window. */
class StartersModelTest {
  @TempDir private Path folder;
  private TestBench test;
  private StartersModel model;

  @BeforeEach
  void open() {
    test = new TestBench(Pottery.demo(), folder.resolve("kept"));
    model = new StartersModel(test.bench, Texts.beside(ShapeView.class));
    model.read();
    test.window.until(() -> !model.lines().isEmpty());
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private StartersModel.Line line(String table) {
    return model.lines().stream()
        .filter(line -> line.table().equals(Optional.of(new TableId(table))))
        .findFirst()
        .orElseThrow();
  }

  @Test
  void tablesStandInGroupsWithTheirFields() {
    assertThat(model.lines().getFirst().heading()).isEqualTo("Places");
    assertThat(model.lines().stream().filter(line -> line.table().isPresent()).count())
        .isGreaterThanOrEqualTo(30);
    StartersModel.Line person = line("person");
    Field address = model.table(person).field(new FieldId("address_id"));
    assertThat(model.holds(person, address)).isEqualTo("→ Address");
    assertThat(model.isFixed(person, model.table(person).fields().getFirst())).isTrue();
    assertThat(model.count()).isZero();
  }

  @Test
  void whatIsReferredToComesAlongOrNot() {
    model.pick(line("person"), true);
    assertThat(model.count()).isEqualTo(4);
    assertThat(model.comesAlong(line("country"))).isTrue();
    assertThat(model.comesAlong(line("person"))).isFalse();
    model.bringParents(false);
    assertThat(model.count()).isEqualTo(1);
    StartersModel.Line person = line("person");
    model.want(person, model.table(person).field(new FieldId("phone")), false);
    assertThat(model.add()).isTrue();
    assertThat(test.table("person").fieldIds().stream().map(FieldId::value))
        .contains("family_name")
        .doesNotContain("phone", "address_id");
    assertThat(model.count()).isZero();
    test.bench.undo();
    assertThat(test.bench.design().tableNamed("person")).isEmpty();
  }

  @Test
  void whatIsTakenIsToldAndCalledOtherwise() {
    model.bringParents(false);
    model.pick(line("course"), true);
    model.pick(line("task"), true);
    assertThat(model.renamed()).contains("Course").doesNotContain("Task");
    assertThat(model.add()).isTrue();
    assertThat(test.bench.design().tableNamed("course_2")).isPresent();
    assertThat(test.bench.design().tables()).hasSize(18);
  }
}
