package joiner.desktop.ship;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.audit.Violation;
import joiner.database.LiveAudit;
import joiner.database.Target;
import joiner.ddl.RowsChoice;
import joiner.ddl.Statement;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Failure;
import joiner.desktop.work.Lane;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Runner;
import joiner.desktop.work.Settings;
import joiner.desktop.work.Targets;
import joiner.desktop.work.TestWindow;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.edit.ChangeTitle;
import joiner.engine.Dialects;
import joiner.expression.Formula;
import joiner.format.DesignFolder;
import joiner.model.FieldId;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Ship without a window: scripts of now only, the gate, shipments and their news. */
class ShipModelTest {
  @TempDir private Path folder;
  private final TestWindow window = new TestWindow();
  private final Runner runner = new Runner(window);
  private Workbench bench;
  private Targets known;
  private ShipModel model;

  @BeforeEach
  void open() throws Exception {
    Path design = folder.resolve("design");
    DesignFolder.save(Pottery.demo(), design);
    bench =
        new Workbench(
            OpenDesign.in(design), runner, new Recovery(folder.resolve("recovery")), Pottery.CLOCK);
    known = new Targets(Settings.in(folder.resolve("settings")));
    model = new ShipModel(bench, known, Texts.beside(ShipView.class));
    model.look(true);
    model.ask();
  }

  /** What still works in the background would write into a folder that is being deleted. */
  @AfterEach
  void everythingIsDone() {
    assertThat(runner.finish(Lane.WORKING, 20_000)).isTrue();
    assertThat(runner.finish(Lane.SAVING, 20_000)).isTrue();
  }

  private void untilReady() {
    window.until(() -> bench.verdict().isCurrent() && model.script().isPresent());
  }

  private Path shipped(String file) {
    Path place = folder.resolve(file);
    model.ship(place);
    window.until(() -> model.shippingProperty().get().isEmpty());
    return place;
  }

  private void change() {
    bench.apply(new ChangeTitle("Saltmarsh at night"));
    model.ask();
  }

  @Test
  void theScriptIsOfTheEngineAndTheSectionThatWereAskedFor() {
    untilReady();
    assertThat(model.script().orElseThrow().text()).contains("for H2");
    assertThat(model.pick(Dialects.ORACLE)).isTrue();
    assertThat(model.pick(Dialects.ORACLE)).isFalse();
    assertThat(model.script()).as("the one of before is not the one of now").isEmpty();
    window.until(() -> model.script().isPresent());
    assertThat(model.script().orElseThrow().text()).contains("for Oracle");
    assertThat(model.script().orElseThrow().lost()).hasSize(Dialects.ALL.size());
    model.show(Optional.of(Statement.Section.INDEXES));
    window.until(() -> model.script().isPresent());
    assertThat(model.script().orElseThrow().text()).startsWith("CREATE ");
    model.pick(Dialects.H2);
    assertThat(model.section()).isEmpty();
  }

  @Test
  void nobodyLookingNothingIsWritten() {
    untilReady();
    model.look(false);
    change();
    assertThat(model.scriptProperty().get()).isNotInstanceOf(Answer.Current.class);
    model.look(true);
    window.until(() -> model.script().isPresent());
  }

  @Test
  void theGateSaysWhatStandsInTheWay() {
    assertThat(model.gate(false)).isInstanceOf(ShipModel.Gate.Checking.class);
    untilReady();
    assertThat(model.gate(false)).isInstanceOf(ShipModel.Gate.Open.class);
    assertThat(model.gate(true)).isInstanceOf(ShipModel.Gate.NoPlace.class);
    model.pick(Dialects.SQLITE);
    assertThat(model.gate(false)).isInstanceOf(ShipModel.Gate.NoScript.class);
    Table kiln = bench.design().table(new TableId("kiln"));
    bench.apply(
        ChangeField.defaultValue(
            kiln, kiln.field(new FieldId("litres")), Optional.of(new Formula("1 +"))));
    window.until(() -> bench.verdict().isCurrent());
    assertThat(model.gate(true)).isEqualTo(new ShipModel.Gate.Errors(1));
  }

  @Test
  void whatWasShippedIsToldUntilTheDesignChanges() {
    untilReady();
    Path place = shipped("studio");
    assertThat(model.newsProperty().get())
        .isInstanceOfSatisfying(
            ShipModel.News.Shipped.class,
            news -> assertThat(news.shipment().verification().holds()).isTrue());
    assertThat(known.of(bench.keeper().folder(), Dialects.H2))
        .extracting(Targets.Known::place)
        .containsExactly(place.toString());
    model.ask();
    assertThat(model.newsProperty().get()).isInstanceOf(ShipModel.News.Shipped.class);
    change();
    assertThat(model.newsProperty().get()).isInstanceOf(ShipModel.News.None.class);
  }

  @Test
  void aFileNamedAsTheEngineNamesItIsThatFile() {
    untilReady();
    shipped("studio.mv.db");
    assertThat(folder.resolve("studio.mv.db")).exists();
    assertThat(folder.resolve("studio.mv.db.mv.db")).doesNotExist();
    assertThat(known.of(bench.keeper().folder(), Dialects.H2))
        .extracting(Targets.Known::place)
        .containsExactly(folder.resolve("studio").toString());
  }

  @Test
  void aSecondShipmentToTheSamePlaceIsRefused() {
    untilReady();
    shipped("studio");
    shipped("studio");
    assertThat(model.newsProperty().get())
        .isInstanceOfSatisfying(
            ShipModel.News.Refused.class,
            news -> assertThat(news.failure().message()).contains("already has tables"));
    model.ask();
    assertThat(model.newsProperty().get()).isInstanceOf(ShipModel.News.None.class);
  }

  @Test
  void aShipmentCanBeStopped() {
    untilReady();
    model.ship(folder.resolve("stopped"));
    assertThat(model.shippingProperty().get()).isPresent();
    model.stop();
    window.until(() -> model.shippingProperty().get().isEmpty());
    assertThat(model.newsProperty().get()).isInstanceOf(ShipModel.News.None.class);
  }

  @Test
  void aDatabaseIsTriedAndComparedWithTheDesign() {
    untilReady();
    model.take(RowsChoice.NONE);
    var there = new Targets.Known("h2", shipped("studio").toString(), "");
    Target target = known.target(Dialects.H2, there, "");
    var said = new ArrayList<String>();
    model.attempt(there, target, reached -> said.add(reached.tables() + " tables"), this::fail);
    window.until(() -> !said.isEmpty());
    assertThat(said).containsExactly("16 tables");
    model.compare(target, () -> said.add("compared"), this::fail);
    window.until(() -> said.size() == 2);
    assertThat(model.newsProperty().get())
        .isInstanceOfSatisfying(
            ShipModel.News.Differs.class, news -> assertThat(news.drift().effects()).isEmpty());
    Target none = Target.of("jdbc:h2:" + folder.resolve("none"));
    model.attempt(there, none, reached -> said.add("no"), failure -> said.add(failure.message()));
    window.until(() -> said.size() == 3);
    assertThat(said.getLast()).contains("there is no such file");
  }

  @Test
  void theRowsOfADatabaseAreAuditedAgainstTheDesignOfNow() {
    untilReady();
    var there = new Targets.Known("h2", shipped("studio").toString(), "");
    Target target = known.target(Dialects.H2, there, "");
    var said = new ArrayList<String>();
    model.audit(target, () -> said.add("audited"), this::fail);
    window.until(() -> !said.isEmpty());
    assertThat(audited().report().total()).isZero();
    assertThat(audited().report().rows())
        .isEqualTo(
            bench.design().tables().stream()
                .mapToLong(t -> bench.draft().rows().of(t.id()).count())
                .sum());

    Table kiln = bench.design().table(new TableId("kiln"));
    var small = new Rule("small", "A kiln is small", "litres < 0", "This kiln is not small.");
    bench.apply(ChangeTable.addRule(kiln, small));
    model.ask();
    assertThat(model.newsProperty().get()).isInstanceOf(ShipModel.News.None.class);
    model.audit(target, () -> said.add("again"), this::fail);
    window.until(() -> said.size() == 2);
    assertThat(audited().report().violations())
        .extracting(Violation::constraint, Violation::count)
        .containsExactly(tuple("small", (long) bench.draft().rows().of(kiln.id()).count()));

    model.audit(target, () -> said.add("late"), this::fail);
    change();
    window.until(() -> said.size() == 3);
    assertThat(model.newsProperty().get())
        .as("what is found of the design of before is no news")
        .isInstanceOf(ShipModel.News.None.class);
  }

  private LiveAudit audited() {
    return ((ShipModel.News.Audited) model.newsProperty().get()).audit();
  }

  private void fail(Failure failure) {
    throw new AssertionError(failure.message());
  }

  @Test
  void theScriptIsWrittenWhole() throws Exception {
    untilReady();
    var texts = new ArrayList<String>();
    model.write(texts::add);
    window.until(() -> !texts.isEmpty());
    var saved = new ArrayList<Path>();
    model.save(folder.resolve("studio.sql"), saved::add);
    window.until(() -> !saved.isEmpty());
    assertThat(List.of(Files.readString(saved.getFirst()))).isEqualTo(texts);
    assertThat(texts.getFirst()).contains("INSERT INTO piece");
  }
}
