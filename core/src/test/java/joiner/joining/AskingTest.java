package joiner.joining;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.stream.Collectors;
import joiner.Pottery;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.edit.DropQuestion;
import joiner.edit.EditRefusedException;
import joiner.edit.KeepQuestion;
import joiner.engine.Dialects;
import joiner.engine.Support;
import joiner.expression.Evaluator;
import joiner.expression.Formula;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.model.Noun;
import joiner.model.Question;
import joiner.model.Question.Counting;
import joiner.model.QuestionId;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

/** Questions are made of what somebody names, as they would mean it. */
class AskingTest {
  private final Draft demo = Pottery.demo();
  private final Asking asking = new Asking(demo.design(), demo.meaning());

  private Question ask(String columns, String... where) {
    return asked(asking.of(ColumnText.split(columns), List.of(where)));
  }

  private static Question asked(Asking.Made made) {
    assertThat(made).isInstanceOf(Asking.Made.Question.class);
    return ((Asking.Made.Question) made).question();
  }

  private String fault(String columns) {
    return ((Asking.Made.Fault) asking.of(ColumnText.split(columns), List.of())).message();
  }

  private Bound bound(Question question) {
    Binding.Result result = Binding.of(demo.design(), demo.meaning(), question);
    assertThat(result).isInstanceOf(Binding.Result.Sound.class);
    return ((Binding.Result.Sound) result).bound();
  }

  private Answer answer(Question question) {
    return new Answering(demo, Pottery.CLOCK).answer(bound(question));
  }

  private static String joins(Question question) {
    return question.roles().stream()
        .map(
            role ->
                role.link()
                        .map(link -> (link.down() ? "<" : ">") + link.over().value() + " ")
                        .orElse("")
                    + role.name())
        .collect(Collectors.joining(" "));
  }

  @Test
  void theJoinTableIsNotForgotten() {
    assertThat(joins(ask("piece.mark, glaze.name")))
        .isEqualTo("piece <fk_piece_glaze_piece_id piece_glaze >fk_piece_glaze_glaze_id glaze");
  }

  @Test
  void rowsThatReferToEachOtherAreCloserThanThoseThatShareAParent() {
    // Kilns and members are two steps apart over firings; nothing leads over the cone of a piece.
    assertThat(joins(ask("kiln.name, member.given_name")))
        .contains("firing")
        .doesNotContain("cone");
  }

  @Test
  void anotherRoleIsOffered() {
    Question byLoader = ask("member.given_name, count(firing)");
    assertThat(joins(byLoader)).contains("loaded_by");
    Asking.Other other = asking.others(byLoader, "firing").getFirst();
    Question byUnloader = asking.instead(byLoader, "firing", other);
    assertThat(joins(byUnloader)).contains("unloaded_by");
    assertThat(byUnloader.role("member").apart()).isTrue();
    assertThat(answer(byUnloader).lines()).isNotEqualTo(answer(byLoader).lines());
  }

  @Test
  void aRoleIsChangedBelowWhatIsJoinedToIt() {
    Question byMaker = ask("member.given_name, firing.firing_id, piece.mark");
    assertThat(joins(byMaker))
        .isEqualTo("member <fk_firing_loaded_by firing <fk_piece_maker_id piece");
    Question inFiring =
        asking.instead(byMaker, "piece", other(byMaker, "piece", "fk_piece_firing_id"));
    assertThat(inFiring.role("piece").link().orElseThrow().from()).isEqualTo("firing");
    Question unloaded =
        asking.instead(inFiring, "firing", other(inFiring, "firing", "fk_firing_unloaded_by"));
    assertThat(joins(unloaded))
        .isEqualTo("member <fk_firing_unloaded_by firing <fk_piece_firing_id piece");
    assertThat(answer(unloaded).lines()).isNotEmpty();
  }

  private Asking.Other other(Question question, String role, String over) {
    return asking.others(question, role).stream()
        .filter(o -> o.way().size() == 1 && o.way().getFirst().over().name().equals(over))
        .findFirst()
        .orElseThrow();
  }

  @Test
  void whatNothingJoinsIsSaidAndNotMultiplied() {
    var apart =
        demo.design()
            .withRelationships(
                demo.design().relationships().stream()
                    .filter(r -> !r.child().equals(new TableId("locker")))
                    .toList());
    var made =
        new Asking(apart, demo.withDesign(apart).meaning())
            .of(List.of("supplier.name", "locker.door"), List.of());
    assertThat(((Asking.Made.Fault) made).message())
        .startsWith("Nothing leads from Supplier to Locker");
  }

  @Test
  void namesThatAreNotCertainAreSaid() {
    assertThat(fault("name"))
        .isEqualTo(
            "Several tables have name: write membership_plan.name, kiln.name, supplier.name or"
                + " material.name.");
    assertThat(fault("membr.card_no")).contains("did you mean member?");
    assertThat(fault("count(*)")).startsWith("Say whose rows are counted");
    Binding.Result sum = Binding.of(demo.design(), demo.meaning(), ask("sum(member.card_no)"));
    assertThat(((Binding.Result.Faulty) sum).faults().getFirst().message())
        .startsWith("Only numbers are added up");
    assertThat(fault("1 + 1")).contains("reads no field");
  }

  @Test
  void lineWordsSayWhatALineStandsFor() {
    assertThat(LineWords.of(bound(ask("member.card_no, count(firing)"))))
        .isEqualTo("One line for each member.");
    assertThat(LineWords.of(bound(ask("member.card_no, firing.firing_id"))))
        .isEqualTo("One line for each firing.");
    assertThat(LineWords.of(bound(ask("piece.stage, count(piece)"))))
        .isEqualTo("One line for each different Piece stage.");
    assertThat(LineWords.of(bound(ask("count(piece)"))))
        .isEqualTo("One line for all rows together.");
    assertThat(LineWords.of(bound(ask("member.card_no, glaze.name, count(piece)"))))
        .isEqualTo("One line for each combination of a member and a glaze.");
  }

  @Test
  void rowsOfTwoBranchesMultiplyAndTheRemediesSayWhatIsMeant() {
    Question chasm = ask("member.card_no, count(enrolment), sum(piece.grams)");
    Answer wrong = answer(chasm);
    assertThat(wrong.repeated()).hasSize(2);
    assertThat(LineWords.of(wrong.bound(), wrong.repeated().getFirst()))
        .startsWith("An enrolment comes once for each piece, up to ");
    assertThat(LineWords.remedies(wrong.bound(), 1))
        .extracting(LineWords.Remedy::words)
        .containsExactly("Count each enrolment once", "Work out for each member first");
    Question once = counted(counted(chasm, 1, Counting.ONCE), 2, Counting.ONCE);
    Question first =
        counted(counted(chasm, 1, new Counting.Per("member")), 2, new Counting.Per("member"));
    assertThat(answer(once).repeated()).isEmpty();
    assertThat(answer(first).repeated()).isEmpty();
    assertThat(answer(first).lines()).isEqualTo(answer(once).lines());
    assertThat(((Support.Kept) QuestionSql.of(bound(once), Dialects.ALL.getFirst())).sql())
        .contains("SELECT DISTINCT");
    assertThat(bound(first).roles()).hasSize(1);
  }

  private static Question counted(Question question, int column, Counting counting) {
    var columns = new java.util.ArrayList<>(question.columns());
    columns.set(column, ((Question.Folded) columns.get(column)).withCounting(counting));
    return question.withColumns(columns);
  }

  @Test
  void pairsThatNothingPairsAreSaid() {
    assertThat(LineWords.pairing(bound(ask("enrolment.door_pass, member.card_no, piece.mark"))))
        .hasValueSatisfying(
            words ->
                assertThat(words)
                    .isEqualTo(
                        "Every enrolment stands beside every piece of the same member: nothing"
                            + " else pairs them. Ask two questions if that is not meant."));
    assertThat(LineWords.pairing(bound(ask("piece.mark, glaze.name")))).isEmpty();
  }

  @Test
  void rowsWithoutAMatchAreKeptWhenAskedFor() {
    Question question = ask("member.card_no, count(firing)");
    int all = demo.rows().of(new TableId("member")).count();
    Answer some = answer(question);
    assertThat(some.leftOut()).hasSize(1);
    assertThat(some.lines().size() + some.leftOut().getFirst().rows()).isEqualTo(all);
    Answer kept = answer(question.withRole("firing", role -> role.withKept(true)));
    assertThat(kept.leftOut()).isEmpty();
    assertThat(kept.lines()).hasSize(all);
    assertThat(kept.lines()).anyMatch(line -> Evaluator.show(line.get(1)).equals("0"));
  }

  @Test
  void whatIsTakenAwayTakesItsJoinsAlong() {
    Question question = ask("piece.mark, glaze.name", "piece.stage = 'fired'");
    assertThat(joins(asking.without(question, 1))).isEqualTo("piece");
    assertThat(joins(asking.without(question, 0))).contains("piece_glaze").contains("glaze");
    Question noCondition = asking.withoutCondition(question, 0);
    assertThat(joins(asking.without(noCondition, 0))).isEqualTo("glaze");
  }

  @Test
  void keptQuestionsFollowNewNames() {
    Question question =
        ask("member.card_no, count(firing), max(firing.kiln_id.hottest_c)", "firing.peak_c > 900")
            .withNames(new QuestionId("hot"), "hot_firings", "Hot firings");
    Draft kept = new KeepQuestion(question).apply(demo);
    Table firing = kept.design().table(new TableId("firing"));
    Draft field =
        ChangeField.rename(firing, firing.fieldNamed("peak_c").orElseThrow(), "Hottest", "hottest")
            .apply(kept);
    Table kiln = field.design().table(new TableId("kiln"));
    Draft far =
        ChangeField.rename(kiln, kiln.fieldNamed("hottest_c").orElseThrow(), "Limit", "limit_c")
            .apply(field);
    Draft table =
        ChangeTable.rename(
                far.design().table(firing.id()),
                "burning",
                "Burning",
                new Noun("burning", "burnings"))
            .apply(far);
    Question now = table.design().questions().getLast();
    assertThat(now.where().getFirst().text()).isEqualTo("burning.hottest > 900");
    assertThat(((Question.Folded) now.columns().get(2)).of().orElseThrow().text())
        .isEqualTo("burning.kiln_id.limit_c");
    Binding.Result read = Binding.of(table.design(), table.meaning(), now);
    assertThat(
            new Answering(table, Pottery.CLOCK)
                .answer(((Binding.Result.Sound) read).bound())
                .lines())
        .isEqualTo(answer(question).lines());
  }

  @Test
  void aQuestionNeedsANameOfItsOwn() {
    Question question = ask("member.card_no");
    assertThatThrownBy(
            () ->
                new KeepQuestion(question.withNames(new QuestionId("a"), "member", "Member"))
                    .apply(demo))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("There is a table or a question named member");
    Draft kept =
        new KeepQuestion(question.withNames(new QuestionId("a"), "cards", "Cards")).apply(demo);
    assertThat(new DropQuestion(new QuestionId("a"), "Cards").apply(kept).design())
        .isEqualTo(demo.design());
  }

  @Test
  void nobodyWaitsForAnAnswerThatIsNotWantedAnyMore() {
    Bound bound = bound(ask("member.card_no, count(firing)"));
    assertThatThrownBy(() -> new Answering(demo, Pottery.CLOCK).answer(bound, () -> true))
        .isInstanceOf(Answering.Unanswered.class)
        .hasMessage("It was stopped.");
  }

  @Test
  void conditionsOnWhatIsCountedLeaveLinesOut() {
    Question all = ask("kiln.name, count(firing)");
    Question often =
        ask("kiln.name, count(firing)", "count(firing) > 9", "kiln.name <> 'count(x)'");
    assertThat(often.columns()).isEqualTo(all.columns());
    assertThat(often.having()).extracting(Formula::text).containsExactly("firings > 9");
    assertThat(often.where()).extracting(Formula::text).containsExactly("kiln.name <> 'count(x)'");
    assertThat(answer(often).lines())
        .isNotEmpty()
        .hasSizeLessThan(answer(all).lines().size())
        .containsExactlyElementsOf(
            answer(all).lines().stream()
                .filter(line -> ((Value.Num) line.get(1)).number().intValue() > 9)
                .toList());

    Question shown = ask("kiln.name", "sum(firing.peak_c) >= 2 * max(firing.peak_c)");
    assertThat(shown.columns())
        .extracting(Question.Column::label)
        .containsExactly("Kiln name", "Sum of firing peak", "Greatest firing peak");
    Question renamed = asking.renamed(shown, 2, "Hottest");
    assertThat(renamed.having().getFirst().text()).isEqualTo("sum_of_firing_peak >= 2 * hottest");
    assertThat(answer(renamed).lines()).isEqualTo(answer(shown).lines());
    assertThat(asking.without(renamed, 2).having()).isEmpty();
  }

  @Test
  void linesWithoutAConditionsReadingAreSaid() {
    assertThat(asking.only(ask("kiln.name, count(firing)"), "count(firing) > 'x'"))
        .isInstanceOf(Asking.Made.Fault.class);
    assertThat(asking.only(ask("kiln.name"), "count(nothing) > 1"))
        .isInstanceOf(Asking.Made.Fault.class);
    Question open = ask("kiln.name", "firing.started_at > :since", "count(firing) > 2");
    assertThat(open.having()).as("though a value is not filled in yet").hasSize(1);
    assertThat(faults(open)).containsExactly("Fill in since.");
  }

  @Test
  void whatIsLeftOpenIsFilledInAsItsFieldIsTyped() {
    Question open =
        ask(
            "firing.firing_id",
            "firing.started_at >= :since AND firing.peak_c BETWEEN :low AND 1300");
    assertThat(open.parameters())
        .extracting(p -> p.name() + " like " + p.like())
        .containsExactly("since like firing.started_at", "low like firing.peak_c");
    assertThat(faults(open)).containsExactly("Fill in since.");
    Question wrong = Asking.filledIn(Asking.filledIn(open, "since", "soon"), "low", "1000");
    assertThat(faults(wrong).getFirst()).contains("“soon” is no value of since");

    Question filled = Asking.filledIn(wrong, "since", "1.6.2025");
    Question written =
        ask(
            "firing.firing_id",
            "firing.started_at >= TIMESTAMP '2025-06-01 00:00:00' AND firing.peak_c BETWEEN 1000 AND"
                + " 1300");
    assertThat(answer(filled).lines()).isNotEmpty().isEqualTo(answer(written).lines());
    assertThat(QuestionSql.of(bound(filled), Dialects.POSTGRESQL))
        .isEqualTo(QuestionSql.of(bound(written), Dialects.POSTGRESQL));
    assertThat(QuestionSql.ofView(bound(filled), Dialects.POSTGRESQL))
        .isInstanceOf(Support.Impossible.class);
    assertThat(asking.withoutCondition(filled, 0).parameters()).isEmpty();
    assertThat(((Asking.Made.Fault) asking.only(open, "1 = :x")).message()).contains(":x");
    assertThat(((Asking.Made.Fault) asking.only(open, "firing.begun > :x")).message())
        .contains("no field begun");
  }

  @Test
  void whatIsLeftOpenOfLinesIsLikeTheirColumns() {
    Question open =
        ask(
            "kiln.name, avg(firing.peak_c)",
            "count(firing) > :often AND max(firing.started_at) >= :since",
            "avg(firing.peak_c) > :warm");
    assertThat(open.parameters())
        .extracting(p -> p.name() + " like " + p.like())
        .containsExactly("often like 0", "since like firing.started_at", "warm like 0.0");
    Question filled =
        Asking.filledIn(
            Asking.filledIn(Asking.filledIn(open, "often", "9"), "since", "1.6.2025"),
            "warm",
            "1080.5");
    Question written =
        ask(
            "kiln.name, avg(firing.peak_c)",
            "count(firing) > 9 AND max(firing.started_at) >= TIMESTAMP '2025-06-01 00:00:00'",
            "avg(firing.peak_c) > 1080.5");
    assertThat(answer(filled).lines()).isNotEmpty().isEqualTo(answer(written).lines());
    assertThat(answer(filled).lines()).hasSizeLessThan(answer(ask("kiln.name")).lines().size());
    assertThat(faults(Asking.filledIn(filled, "often", "9.5")).getFirst())
        .contains("“9.5” is no value of often");
    assertThat(asking.withoutLineCondition(filled, 1).parameters()).hasSize(2);
    assertThat(((Asking.Made.Fault) asking.only(open, "count(firing) > 1 OR 'a' = :x")).message())
        .contains("It is not seen what :x is");
  }

  @Test
  void severalOpenValuesAreEachLikeWhatTheyStandAgainst() {
    Question open =
        ask(
            "firing.firing_id",
            "firing.peak_c > 900 AND firing.started_at > :since AND firing.remark LIKE :word");
    assertThat(open.parameters())
        .extracting(p -> p.name() + " like " + p.like())
        .containsExactly("since like firing.started_at", "word like firing.remark");
  }

  private List<String> faults(Question question) {
    return ((Binding.Result.Faulty) Binding.of(demo.design(), demo.meaning(), question))
        .faults().stream().map(Binding.Fault::message).toList();
  }

  @Test
  void columnsAreWrittenAsSqlHasThem() {
    assertThat(ColumnText.split("a.b, count(c), f(x, y) as \"So, so\""))
        .containsExactly("a.b", "count(c)", "f(x, y) as \"So, so\"");
    assertThat(ColumnText.of("COUNT(distinct piece.stage) as stages"))
        .isEqualTo(
            new ColumnText(
                java.util.Optional.of(Question.Fold.DIFFERENT),
                "piece.stage",
                java.util.Optional.of("stages")));
    assertThat(ColumnText.of("CAST(piece.grams AS VARCHAR)").fold()).isEmpty();
    assertThat(ColumnText.of("CAST(piece.grams AS VARCHAR)").label()).isEmpty();
    assertThat(ColumnText.of("sum(a.b) + sum(a.c)").fold()).isEmpty();
  }
}
