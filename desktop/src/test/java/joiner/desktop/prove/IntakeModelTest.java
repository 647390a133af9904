package joiner.desktop.prove;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.TestBench;
import joiner.entry.TakingIn.Missing;
import joiner.model.FieldId;
import joiner.model.TableId;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Rows of a block or a file on their way into a table, without a window. */
class IntakeModelTest {
  @TempDir private Path folder;
  private TestBench test;
  private IntakeModel model;

  @BeforeEach
  void open() {
    test = new TestBench(Pottery.demo(), folder);
    model = new IntakeModel(test.bench, Texts.beside(ProveView.class), () -> {});
    model.look(true);
    model.into(test.table("kiln"));
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private IntakeModel.Told told() {
    test.window.until(() -> model.told().isPresent());
    return model.told().orElseThrow();
  }

  private int kilns() {
    return test.bench.draft().rows().of(new TableId("kiln")).count();
  }

  @Test
  void aPastedBlockIsCountedTriedTakenAndTakenBack() {
    model.paste("Name\tFuel\tVolume\tWeather\nBig Tom\tgas\t240\tfog\nHeron\tgas\t90\train");
    var intake = told().intake();
    assertThat(told().came().fields().getFirst()).hasValue(new FieldId("name"));
    assertThat(told().came().fields().getLast()).as("no field is called so").isEmpty();
    assertThat(model.came().orElseThrow().how().match()).containsExactly(new FieldId("name"));
    assertThat(intake.planned().added()).isEqualTo(1);
    assertThat(intake.planned().updated()).isEqualTo(1);
    assertThat(intake.planned().missing()).isEqualTo(3);
    assertThat(intake.refused()).isNotEmpty();
    assertThat(model.canTake()).as("a kiln says how hot it gets").isFalse();
    assertThat(model.take()).isFalse();
    model.partly(true);
    assertThat(told().intake().planned().added()).isZero();
    assertThat(model.take()).isTrue();
    assertThat(model.came()).isEmpty();
    assertThat(fuel()).isEqualTo("gas");
    test.bench.undo();
    assertThat(fuel()).isEqualTo("electric");
    assertThat(kilns()).isEqualTo(4);
  }

  private String fuel() {
    return test.bench
        .draft()
        .rows()
        .of(new TableId("kiln"))
        .cell(0, new FieldId("fuel"))
        .orElseThrow();
  }

  @Test
  void aColumnIsOneFieldOrLeftOut() {
    model.paste("name\tother\nBig Tom\tx");
    told();
    model.column(1, Optional.of(new FieldId("name")));
    assertThat(model.came().orElseThrow().fields())
        .containsExactly(Optional.empty(), Optional.of(new FieldId("name")));
    model.column(1, Optional.empty());
    assertThat(model.came().orElseThrow().how().match()).as("no key comes along").isEmpty();
    assertThat(model.matches()).containsExactly(List.of());
  }

  @Test
  void aFileIsReadAndOneThatCannotBeIsSaid() throws Exception {
    Path file = folder.resolve("kilns.csv");
    Files.writeString(file, "kiln_id,name\n1,Big Thomas\n");
    model.open(file);
    assertThat(told().intake().planned().updated()).isEqualTo(1);
    assertThat(model.missing()).contains(Missing.LEAVE, Missing.DELETE);
    model.open(folder.resolve("nothing.csv"));
    assertThat(model.came()).isEmpty();
    test.window.until(() -> model.readProperty().get() instanceof Answer.Failed);
    assertThat(model.canTake()).isFalse();
  }

  @Test
  void whatCameForAnotherTableIsGivenUp() {
    model.paste("name\nBig Tom");
    told();
    model.into(test.table("firing"));
    assertThat(model.came()).isEmpty();
    assertThat(model.take()).isFalse();
  }

  @Test
  void anAnswerBeforeAnotherChangeIsNotTaken() {
    model.paste("kiln_id\tname\n1\tBig Thomas");
    told();
    test.bench.undo();
    model.match(List.of());
    assertThat(model.told()).isEmpty();
    assertThat(model.canTake()).isFalse();
  }
}
