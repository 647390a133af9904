package joiner.desktop.gather;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import joiner.Pottery;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Notice;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Runner;
import joiner.desktop.work.Stage;
import joiner.desktop.work.TestWindow;
import joiner.desktop.work.Workbench;
import joiner.source.ReadingOptions;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Gather without a window: files that are read, shown, added, stopped and refused. */
class GatherModelTest {
  @TempDir private Path folder;
  private final TestWindow window = new TestWindow();
  private final Runner runner = new Runner(window);
  private Workbench bench;
  private GatherModel model;

  @BeforeEach
  void open() {
    bench =
        new Workbench(
            OpenDesign.empty("Studio"),
            runner,
            new Recovery(folder.resolve("recovery")),
            Pottery.CLOCK);
    model = new GatherModel(bench, Texts.beside(GatherView.class));
  }

  /** What still works in the background would write into a folder that is being deleted. */
  @AfterEach
  void everythingIsDone() {
    assertThat(runner.finish(Lane.WORKING, 20_000)).isTrue();
    assertThat(runner.finish(Lane.SAVING, 20_000)).isTrue();
  }

  private Path file(String name, String text) throws Exception {
    return Files.writeString(folder.resolve(name), text);
  }

  private void untilRead() {
    assertThat(model.underway()).isNotEmpty();
    window.until(() -> model.underway().isEmpty());
  }

  private String newest() {
    return bench.notices().newest().map(Notice::text).orElse("");
  }

  @Test
  void whatWasReadIsShown() throws Exception {
    model.open(file("kilns.csv", "name,litres\nBig Tom,420\nEmber,90\n"));
    untilRead();
    assertThat(model.shownProperty().get()).contains(new GatherModel.Shown("kilns.csv", 0));
    assertThat(model.isSeenBefore()).isFalse();
    SplitBench split = model.split().orElseThrow();
    assertThat(split.cells().headers()).containsExactly("name", "litres");
    assertThat(model.isSeenBefore()).isTrue();
    assertThat(model.split()).as("a bench is made once").containsSame(split);
  }

  @Test
  void severalSourcesAreOpenAndOneIsShown() throws Exception {
    model.open(file("kilns.csv", "name\nEmber\n"));
    untilRead();
    model.paste("cone\theat\n04\t1060\n");
    untilRead();
    assertThat(model.names()).hasSize(2).first().isEqualTo("kilns.csv");
    model.show("kilns.csv", 0);
    assertThat(model.split().orElseThrow().cells().headers()).containsExactly("name");
    model.show("none.csv", 0);
    assertThat(model.shownProperty().get()).contains(new GatherModel.Shown("kilns.csv", 0));
  }

  @Test
  void aFileIsReadAgainInAnotherWay() throws Exception {
    Path kilns = file("kilns.csv", "a;b,c\n1;2,3\n");
    model.open(kilns);
    untilRead();
    SplitBench before = model.split().orElseThrow();
    model.open(kilns, ReadingOptions.DETECT.withSeparator(','));
    untilRead();
    assertThat(model.names()).containsExactly("kilns.csv");
    assertThat(model.split()).isNotEqualTo(Optional.of(before));
    assertThat(model.split().orElseThrow().cells().headers()).containsExactly("a;b", "c");
  }

  @Test
  void whatCannotBeReadIsTold() throws Exception {
    model.open(folder.resolve("none.csv"));
    untilRead();
    assertThat(model.shownProperty().get()).isEmpty();
    assertThat(newest()).contains("none.csv");
    model.paste(" ");
    assertThat(model.underway()).isEmpty();
    assertThat(bench.notices().newest().orElseThrow().sort()).isEqualTo(Notice.Sort.REFUSED);
  }

  @Test
  void aWholeSchemaIsAddedAtOnceAndWhatWasNotUnderstoodIsTold() throws Exception {
    model.open(
        file(
            "studio.sql",
            "CREATE TABLE kiln (kiln_id int PRIMARY KEY, name varchar(40));\nCREATE VIEW v AS 1;"));
    untilRead();
    assertThat(bench.design().tableNamed("kiln")).isPresent();
    assertThat(bench.stageProperty().get()).isEqualTo(Stage.CONNECT);
    assertThat(newest()).contains("CREATE VIEW");
    model.open(folder.resolve("studio.sql"));
    untilRead();
    assertThat(newest()).as("the rest is not told of what was not added").contains("kiln");
    assertThat(bench.notices().newest().orElseThrow().sort()).isEqualTo(Notice.Sort.REFUSED);
    model.open(file("empty.sql", "-- nothing\n"));
    untilRead();
    assertThat(newest()).contains("empty.sql");
    assertThat(bench.design().tables()).hasSize(1);
  }

  @Test
  void theTableShownIsAddedAsItIs() throws Exception {
    model.open(file("kilns.csv", "name,litres\nBig Tom,420\nEmber,90\n"));
    untilRead();
    model.add(model.split().orElseThrow());
    window.until(() -> !bench.design().tables().isEmpty());
    assertThat(bench.stageProperty().get()).isEqualTo(Stage.SHAPE);
    assertThat(bench.selectionProperty().get().table()).isPresent();
    assertThat(newest()).contains("2 rows");
  }

  @Test
  void rowsCanStayInTheirFile() throws Exception {
    Path file = file("kilns.csv", "name,litres\n" + "Ember,90\n".repeat(20_000));
    model.openHead(file, ReadingOptions.DETECT);
    untilRead();
    SplitBench split = model.split().orElseThrow();
    assertThat(split.isWhole()).isFalse();
    assertThat(split.cells().rows()).isEqualTo(10_000);
    assertThat(split.profiles().getFirst().rows()).isEqualTo(20_000);
    model.add(split);
    window.until(() -> !bench.design().tables().isEmpty());
    assertThat(newest()).contains("20,000 rows");
    assertThat(bench.draft().rows().linked()).hasSize(1);
    assertThat(bench.draft().rows().count()).isZero();
    model.openWhole(file, ReadingOptions.DETECT);
    untilRead();
    assertThat(model.split().orElseThrow().isWhole()).isTrue();
  }

  @Test
  void aReadingCanBeStopped() throws Exception {
    model.open(file("kilns.csv", "name\n" + "Ember\n".repeat(200_000)));
    model.stop(model.underway().getFirst());
    window.until(() -> model.underway().isEmpty());
    assertThat(model.shownProperty().get()).isEmpty();
  }
}
