package joiner.desktop.prove;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.desktop.prove.AskColumns.Deed;
import joiner.desktop.prove.AskModel.JoinDeed;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.TestBench;
import joiner.edit.ChangeField;
import joiner.edit.RemoveField;
import joiner.engine.Dialects;
import joiner.engine.Support;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.format.AnswerCsv;
import joiner.joining.Answer;
import joiner.joining.LineWords;
import joiner.model.Question;
import joiner.model.Question.Counting;
import joiner.model.Question.Fold;
import joiner.model.Table;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Ask without a window: what is named is shown, joined, counted, kept, and true of the design. */
class AskModelTest {
  @TempDir private Path folder;
  private TestBench test;
  private AskModel model;

  @BeforeEach
  void open() {
    test = new TestBench(Pottery.demo(), folder);
    model = new AskModel(test.bench, Texts.beside(ProveView.class));
    model.look(true);
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private void show(String... columns) {
    for (String column : columns) {
      assertThat(model.show(column)).as(column).isEmpty();
    }
  }

  private Answer answer() {
    test.window.until(() -> model.told().isPresent());
    return model.told().orElseThrow().answer();
  }

  private Question.Folded folded(int column) {
    return (Question.Folded) model.question().columns().get(column);
  }

  private String labels() {
    return model.question().columns().stream().map(Question.Column::label).toList().toString();
  }

  @Test
  void nothingIsAskedAtFirstAndNothingClaimed() {
    assertThat(model.state().isBlank()).isTrue();
    assertThat(model.told()).isEmpty();
    assertThat(model.sql(Dialects.ALL.getFirst())).isEmpty();
  }

  @Test
  void whatCannotBeAskedIsSaidAndChangesNothing() {
    show("member.card_no");
    Question before = model.question();
    assertThat(model.show("member.card_n"))
        .hasValueSatisfying(why -> assertThat(why).contains("did you mean card_no?"));
    assertThat(model.only("member.active ="))
        .hasValueSatisfying(why -> assertThat(why).isNotBlank());
    assertThat(model.show("  ")).isEmpty();
    assertThat(model.question()).isEqualTo(before);
  }

  @Test
  void anAnswerBeforeIsNotShownForAnotherQuestion() {
    show("member.card_no");
    int all = answer().lines().size();
    assertThat(model.only("member.active = TRUE")).isEmpty();
    assertThat(model.told()).isEmpty();
    assertThat(answer().lines()).hasSizeBetween(1, all - 1);
    model.removeCondition(0);
    assertThat(answer().lines()).hasSize(all);
  }

  @Test
  void rowsThatMultiplyAreCountedOnceByOneDeed() {
    show("member.card_no", "count(enrolment)", "sum(piece.grams)");
    assertThat(answer().repeated()).hasSize(2);
    model.columns().countOnce(List.of(1, 2));
    assertThat(answer().repeated()).isEmpty();
    assertThat(folded(1).counting()).isEqualTo(Counting.ONCE);
    List<List<Value>> once = answer().lines();
    assertThat(model.columns().deeds(2)).contains(new Deed.Count(new Counting.Per("member")));
    model.columns().make(1, new Deed.Count(new Counting.Per("member")));
    model.columns().make(2, new Deed.Count(new Counting.Per("member")));
    assertThat(answer().lines()).isEqualTo(once);
  }

  @Test
  void aColumnIsFoldedUnfoldedSortedAndMoved() {
    show("piece.stage", "piece.grams");
    model.columns().make(1, new Deed.As(Optional.of(Fold.AVERAGE)));
    assertThat(labels()).isEqualTo("[Piece stage, Average of Piece grams]");
    model.columns().make(1, new Deed.As(Optional.of(Fold.GREATEST)));
    assertThat(labels()).isEqualTo("[Piece stage, Greatest Piece grams]");
    model.columns().make(1, new Deed.Sort(true));
    List<String> greatest =
        answer().lines().stream().map(line -> Evaluator.show(line.get(1))).toList();
    assertThat(greatest)
        .isSortedAccordingTo(
            (one, other) -> Integer.compare(Integer.parseInt(other), Integer.parseInt(one)));
    model.columns().make(1, new Deed.Move(-1));
    assertThat(model.question().order()).containsExactly(new Question.Order(0, true));
    model.columns().make(0, new Deed.As(Optional.empty()));
    assertThat(labels()).isEqualTo("[Piece grams, Piece stage]");
    model.columns().make(0, new Deed.Unsort());
    assertThat(model.question().order()).isEmpty();
    assertThat(model.columns().deeds(1)).doesNotContain(new Deed.As(Optional.of(Fold.SUM)));
    model.columns().make(0, new Deed.Remove());
    assertThat(labels()).isEqualTo("[Piece stage]");
  }

  @Test
  void joinsAreChangedWhereTheyStand() {
    show("member.card_no", "count(firing)");
    int with = answer().lines().size();
    model.make("firing", new JoinDeed.Keep(true));
    assertThat(answer().lines().size()).isGreaterThan(with);
    JoinDeed other =
        model.joinDeeds("firing").stream()
            .filter(JoinDeed.Instead.class::isInstance)
            .findFirst()
            .orElseThrow();
    model.make("firing", other);
    assertThat(model.words(model.question().role("firing"))).isEqualTo("Unloaded by");
    model.make("member", new JoinDeed.Apart(false));
    assertThat(model.question().role("member").apart()).isFalse();
  }

  @Test
  void linesAreCutWhereANumberIsSaid() {
    show("member.card_no");
    model.first("3");
    assertThat(answer().lines()).hasSize(3);
    assertThat(answer().cut()).isTrue();
    model.first("many");
    assertThat(answer().cut()).isFalse();
  }

  @Test
  void aQuestionIsKeptOpenedChangedAndLetGoEachOfWhichCanBeTakenBack() {
    int kept = model.kept().size();
    show("piece.stage", "count(piece)");
    assertThat(model.keep("Pieces by stage")).isTrue();
    assertThat(model.isKept()).isTrue();
    assertThat(model.kept()).hasSize(kept + 1);
    assertThat(model.kept().getLast().name()).isEqualTo("pieces_by_stage");
    show("avg(piece.grams)");
    assertThat(model.isKept()).isFalse();
    assertThat(model.keep("Pieces by stage")).isTrue();
    assertThat(model.kept()).hasSize(kept + 1);
    assertThat(model.keep("Member")).isFalse();
    assertThat(test.newest()).contains("There is a table or a question named member");
    model.drop();
    assertThat(model.kept()).hasSize(kept);
    assertThat(model.state().isBlank()).isFalse();
    test.bench.undo();
    assertThat(model.kept()).hasSize(kept + 1);
  }

  @Test
  void whatTheDesignTakesAwayIsSaid() {
    show("piece.mark", "glaze.name");
    Table glaze = test.table("glaze");
    test.bench.apply(
        ChangeField.rename(glaze, glaze.fieldNamed("name").orElseThrow(), "Called", "called"));
    model.refresh();
    assertThat(model.state().faults())
        .singleElement()
        .satisfies(fault -> assertThat(fault).contains("There is no field name in Glaze"));
    assertThat(model.told()).isEmpty();
    test.bench.undo();
    model.refresh();
    assertThat(answer().lines()).isNotEmpty();
    Table piece = test.table("piece");
    test.bench.apply(
        new RemoveField(piece.id(), piece.fieldNamed("mark").orElseThrow().id(), "Mark"));
    model.refresh();
    assertThat(model.state().faults()).isNotEmpty();
  }

  @Test
  void fieldsOfTheChosenTableAreOfferedFirst() {
    test.choose("kiln");
    assertThat(model.fields().of("").getFirst().thing()).isEqualTo("count(kiln)");
    assertThat(model.fields().of("peak").getFirst().thing()).isEqualTo("firing.peak_c");
    assertThat(model.completions("fir", 3)).extracting(c -> c.text()).contains("firing");
    assertThat(model.completions("firing.pe", 9)).extracting(c -> c.text()).contains("peak_c");
    assertThat(model.completions("coun", 4)).extracting(c -> c.text()).contains("count(");
  }

  @Test
  void everyEngineIsShownItsOwnQuery() {
    show("member.card_no", "avg(piece.grams)");
    model.first("5");
    Dialects.ALL.forEach(
        dialect ->
            assertThat(model.sql(dialect))
                .hasValueSatisfying(
                    sql ->
                        assertThat(((Support.Kept) sql).sql())
                            .contains(dialect.name("member"))
                            .contains(dialect.first(5))));
  }

  @Test
  void conditionsOnLinesFollowTheirColumn() {
    show("kiln.name", "count(firing)");
    int all = answer().lines().size();
    assertThat(model.only("count(firing) > 9")).isEmpty();
    assertThat(answer().lines()).hasSizeBetween(1, all - 1);
    List<List<Value>> often = answer().lines();
    model.columns().rename(1, "How often");
    assertThat(model.question().having().getFirst().text()).isEqualTo("how_often > 9");
    assertThat(answer().lines()).isEqualTo(often);
    model.removeLineCondition(0);
    assertThat(answer().lines()).hasSize(all);
  }

  @Test
  void whatIsLeftOpenIsAskedForAndFilledIn() {
    show("firing.firing_id");
    assertThat(model.only("firing.peak_c > :hotter_than")).isEmpty();
    assertThat(model.state().faults()).containsExactly("Fill in hotter_than.");
    assertThat(model.told()).isEmpty();
    model.fillIn("hotter_than", "1200 ");
    int hot = answer().lines().size();
    model.fillIn("hotter_than", "1290");
    assertThat(answer().lines()).hasSizeLessThan(hot);
    assertThat(model.keep("Hot firings")).isTrue();
    assertThat(model.isKept()).isTrue();
    model.removeCondition(0);
    assertThat(model.question().parameters()).isEmpty();
  }

  @Test
  void anotherDesignIsAskedNothingYet() {
    show("kiln.name", "firing.peak_c");
    test.bench.open(OpenDesign.of(Pottery.demo()));
    model.refresh();
    assertThat(model.question().columns()).isEmpty();
    assertThat(model.canGoBack()).isFalse();
    assertThat(model.rows()).isEqualTo(RowsOf.SAMPLES);
  }

  @Test
  void whatCouldBeJoinedNextIsBesideWhatIs() {
    assertThat(model.near())
        .as("nothing is joined yet")
        .hasSameSizeAs(test.bench.design().tables());
    show("kiln.name");
    assertThat(model.near()).extracting(Table::name).containsExactly("firing");
    assertThat(model.fields(model.near().getFirst()).of("peak"))
        .extracting(Offers.Offer::thing)
        .containsExactly("firing.peak_c");
    show("firing.peak_c");
    assertThat(model.near())
        .extracting(Table::name)
        .contains("member", "cone")
        .doesNotContain("kiln", "supplier");
  }

  @Test
  void whatNothingPairsIsAskedAsTwoQuestions() {
    show("member.card_no", "enrolment.attendance", "piece.mark");
    Question both = model.question();
    List<String> paired = LineWords.paired(model.state().bound().orElseThrow());
    assertThat(paired).hasSize(2);
    assertThat(model.aside()).isEmpty();
    model.separate(paired.reversed());
    assertThat(labels()).isEqualTo("[Member card number, Enrolment attendance]");
    assertThat(LineWords.pairing(model.state().bound().orElseThrow())).isEmpty();
    Question first = model.question();
    Question second = model.aside().orElseThrow();
    model.turnAside();
    assertThat(labels()).isEqualTo("[Member card number, Piece mark]");
    assertThat(model.question()).isEqualTo(second);
    assertThat(model.aside()).hasValue(first);
    model.turnAside();
    assertThat(model.question()).isEqualTo(first);
    model.back();
    assertThat(model.question()).as("both at once were asked before").isEqualTo(both);
  }

  @Test
  void whatWasAskedBeforeComesBack() {
    assertThat(model.canGoBack()).isFalse();
    show("member.card_no", "count(enrolment)", "count(piece)");
    Question both = model.question();
    model.leaveOut("piece");
    assertThat(labels()).isEqualTo("[Member card number, Enrolments]");
    assertThat(model.question().roles()).hasSize(2);
    model.back();
    assertThat(model.question()).isEqualTo(both);
    model.back();
    assertThat(labels()).isEqualTo("[Member card number, Enrolments]");
    model.back();
    model.back();
    assertThat(labels()).isEqualTo("[Member card number]");
  }

  @Test
  void aBoardShowsFieldsOfItsTable() {
    show("member.card_no", "count(piece)");
    model.make("piece", new JoinDeed.Show("piece.stage", "Stage"));
    assertThat(model.joinDeeds("piece")).contains(new JoinDeed.Show("piece.stage", "Stage"));
    assertThat(labels()).isEqualTo("[Member card number, Pieces, Piece stage]");
    model.make("piece", new JoinDeed.LeaveOut());
    assertThat(labels()).isEqualTo("[Member card number]");
  }

  @Test
  void aDatabaseAnswersAsTheSampleRowsItWasMadeOf() throws Exception {
    RowsOf live = LivePottery.in(folder);
    show("kiln.name", "count(firing)", "avg(firing.peak_c)");
    var own = AnswerCsv.of(answer(), true);
    model.from(live);
    assertThat(model.told()).isEmpty();
    assertThat(AnswerCsv.of(answer(), true)).isEqualTo(own);
    assertThat(model.told().orElseThrow().rows()).isEqualTo(live);
    model.from(LivePottery.missing(folder));
    test.window.until(
        () -> model.answerProperty().get() instanceof joiner.desktop.work.Answer.Failed);
    assertThat(model.told()).isEmpty();
    model.from(RowsOf.SAMPLES);
    assertThat(AnswerCsv.of(answer(), true)).isEqualTo(own);
  }
}
