package joiner.desktop.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class ComputedTest {
  private final TestWindow window = new TestWindow();
  private final Runner runner = new Runner(window);
  private final AtomicInteger worked = new AtomicInteger();

  private Computed<String, Integer> lengths() {
    return new Computed<>(
        runner,
        "Measuring",
        Lane.WORKING,
        String::equals,
        (text, progress) -> {
          worked.incrementAndGet();
          if (text.startsWith("!")) {
            throw new IllegalStateException(text);
          }
          return text.length();
        });
  }

  @Test
  void anOlderAnswerIsNeverShownAsTheNewest() {
    Computed<String, Integer> computed = lengths();
    var seen = new ArrayList<Answer<Integer>>();
    computed.answerProperty().subscribe(answer -> seen.add(answer));
    computed.ask("kiln");
    window.until(() -> computed.answer().current().isPresent());
    computed.ask("glaze");
    assertThat(computed.answer().current()).isEmpty();
    assertThat(computed.answer().latest()).contains(4);
    window.until(() -> computed.answer().current().isPresent());
    assertThat(computed.answer().current()).contains(5);
    assertThat(seen).hasSize(5);
  }

  @Test
  void theSameQuestionTwiceIsWorkedOutOnce() {
    Computed<String, Integer> computed = lengths();
    computed.ask("kiln");
    computed.ask("kiln");
    window.until(() -> computed.answer().current().isPresent());
    computed.ask("kiln");
    assertThat(computed.answer().current()).contains(4);
    assertThat(worked).hasValue(1);
  }

  @Test
  void whatNobodyLooksAtWaitsAndTheNewestQuestionCounts() {
    Computed<String, Integer> computed = lengths();
    computed.look(false);
    computed.ask("kiln");
    computed.ask("glaze");
    assertThat(runner.jobs()).isEmpty();
    assertThat(computed.answer()).isInstanceOf(Answer.Underway.class);
    computed.look(true);
    window.until(() -> computed.answer().current().isPresent());
    assertThat(computed.answer().current()).contains(5);
    assertThat(worked).hasValue(1);
  }

  @Test
  void lookingAwayStopsTheWorkAndLookingAgainTakesItUp() {
    var release = new CountDownLatch(1);
    var running = new CountDownLatch(1);
    var stopped = new CountDownLatch(1);
    var computed =
        new Computed<String, Integer>(
            runner,
            "Measuring",
            Lane.WORKING,
            String::equals,
            (text, progress) -> {
              if (release.getCount() > 0) {
                running.countDown();
                while (!progress.stopped()) {
                  Thread.onSpinWait();
                }
                stopped.countDown();
              }
              return text.length();
            });
    computed.ask("kiln");
    await(running);
    computed.look(false);
    await(stopped);
    release.countDown();
    assertThat(computed.answer().current()).isEmpty();
    computed.look(true);
    window.until(() -> computed.answer().current().isPresent());
    assertThat(computed.answer().current()).contains(4);
  }

  @Test
  void aFailureSaysSoAndKeepsWhatWasKnown() {
    Computed<String, Integer> computed = lengths();
    computed.ask("kiln");
    window.until(() -> computed.answer().current().isPresent());
    computed.ask("!");
    window.until(() -> computed.answer() instanceof Answer.Failed);
    assertThat(computed.answer().current()).isEmpty();
    assertThat(computed.answer().latest()).contains(4);
    computed.ask("!");
    window.until(() -> worked.get() == 3);
  }

  @Test
  void whatWasStoppedIsWorkedOutWhenAskedAgain() {
    Computed<String, Integer> computed = lengths();
    computed.ask("kiln");
    computed.stop();
    assertThat(computed.answer()).isInstanceOf(Answer.Stopped.class);
    computed.ask("kiln");
    window.until(() -> computed.answer().current().isPresent());
  }

  @Test
  void theLatestOfEveryKindOfAnswerIsTheValueKnown() {
    var failure = new Failure("x", "y", java.util.Optional.empty(), new Exception());
    var known = java.util.Optional.of(7);
    List<Answer<Integer>> answers =
        List.of(
            new Answer.Underway<>(known),
            new Answer.Current<>(7),
            new Answer.Failed<>(failure, known),
            new Answer.Stopped<>(known));
    assertThat(answers).allMatch(answer -> answer.latest().equals(known));
    assertThat(new Answer.Unasked<Integer>().latest()).isEmpty();
  }

  private static void await(CountDownLatch latch) {
    try {
      assertThat(latch.await(20, TimeUnit.SECONDS)).isTrue();
    } catch (InterruptedException e) {
      throw new AssertionError(e);
    }
  }
}
