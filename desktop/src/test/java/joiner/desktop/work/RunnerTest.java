package joiner.desktop.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import joiner.edit.EditRefusedException;
import org.junit.jupiter.api.Test;

class RunnerTest {
  private final TestWindow window = new TestWindow();
  private final Runner runner = new Runner(window);
  private final List<String> heard = new ArrayList<>();

  private Request<String> request(Object key, Request.Work<String> work) {
    return Request.of(
        key,
        "Doing " + key,
        work,
        heard::add,
        failure -> heard.add("failed: " + failure.message()));
  }

  @Test
  void aResultComesBackOnTheWindowsThread() {
    Thread own = Thread.currentThread();
    var delivered = new AtomicBoolean();
    runner.start(
        Request.of(
            "a",
            "A",
            progress -> Thread.currentThread(),
            ran -> {
              assertThat(ran).isNotEqualTo(own);
              assertThat(Thread.currentThread()).isEqualTo(own);
              delivered.set(true);
            },
            failure -> {}));
    assertThat(runner.jobs()).hasSize(1);
    window.until(delivered::get);
    assertThat(runner.jobs()).isEmpty();
  }

  @Test
  void whatIsHeldBeginsWhenItIsReleasedOrAtTheEnd() {
    runner.hold();
    runner.start(request("map", progress -> "old"));
    runner.start(request("map", progress -> "map"));
    runner.start(request("check", progress -> "check"));
    assertThat(runner.jobs()).as("the older one about the map ended").hasSize(2);
    assertThat(heard).isEmpty();
    runner.release();
    window.until(() -> heard.containsAll(List.of("map", "check")));
    assertThat(heard).doesNotContain("old");
    runner.hold();
    runner.start(request("late", progress -> "late"));
    for (Lane lane : Lane.values()) {
      assertThat(runner.finish(lane, 5_000)).isTrue();
    }
    window.until(() -> heard.contains("late"));
  }

  @Test
  void aNewerRequestAboutTheSameEndsTheOlder() {
    var running = new CountDownLatch(1);
    var stopped = new AtomicBoolean();
    runner.start(
        request(
            "map",
            progress -> {
              running.countDown();
              while (!progress.stopped()) {
                Thread.onSpinWait();
              }
              stopped.set(true);
              return "old";
            }));
    await(running);
    runner.start(request("map", progress -> "new"));
    window.until(() -> heard.contains("new") && stopped.get());
    window.until(() -> runner.jobs().isEmpty());
    assertThat(heard).containsExactly("new");
  }

  @Test
  void aSaveDoesNotWaitForSearches() {
    var release = new CountDownLatch(1);
    for (String search : List.of("a", "b", "c", "d")) {
      runner.start(
          request(
              search,
              progress -> {
                release.await();
                return search;
              }));
    }
    runner.start(request("save", progress -> "saved").in(Lane.SAVING));
    runner.start(request("check", progress -> "checked").in(Lane.CHECKING));
    window.until(() -> heard.containsAll(List.of("saved", "checked")));
    assertThat(heard).hasSize(2);
    release.countDown();
    window.until(() -> heard.size() == 6);
  }

  @Test
  void whatIsVisibleGoesFirst() {
    var order = new ArrayList<String>();
    var started = new CountDownLatch(1);
    var go = new CountDownLatch(1);
    var other = new Runner(window);
    other.start(
        request(
                "first",
                progress -> {
                  started.countDown();
                  go.await();
                  return "first";
                })
            .in(Lane.CHECKING));
    await(started);
    for (boolean visible : new boolean[] {false, true}) {
      String name = visible ? "seen" : "unseen";
      other.start(
          new Request<String>(
              name,
              name,
              Lane.CHECKING,
              visible,
              progress -> name,
              order::add,
              failure -> {},
              () -> {}));
    }
    go.countDown();
    window.until(() -> order.size() == 2);
    assertThat(order).containsExactly("seen", "unseen");
  }

  @Test
  void whateverIsThrownComesBackAsAFailure() {
    runner.start(
        request(
            "mistake",
            progress -> {
              throw new IllegalStateException("a wheel came off");
            }));
    runner.start(
        request(
            "deep",
            progress -> {
              throw new StackOverflowError();
            }));
    runner.start(
        request(
            "refused",
            progress -> {
              throw new EditRefusedException("There is a kiln already; choose another name.");
            }));
    window.until(() -> heard.size() == 3);
    assertThat(heard)
        .anyMatch(h -> h.contains("Joiner made a mistake") && h.contains("a wheel came off"))
        .anyMatch(h -> h.contains("StackOverflowError"))
        .contains("failed: There is a kiln already; choose another name.");
  }

  @Test
  void aStoppedJobDeliversNothingButThatItWasStopped() {
    var running = new CountDownLatch(1);
    Job<String> job =
        runner.start(
            request(
                    "long",
                    progress -> {
                      running.countDown();
                      while (!progress.stopped()) {
                        Thread.onSpinWait();
                      }
                      return "late";
                    })
                .whenStopped(() -> heard.add("stopped")));
    await(running);
    runner.stop(job);
    runner.stop(job);
    var next = new AtomicBoolean();
    runner.start(Request.of("next", "Next", progress -> true, next::set, failure -> {}));
    window.until(next::get);
    assertThat(heard).containsExactly("stopped");
  }

  @Test
  void progressIsToldInSharesAndWords() {
    Job<String> job =
        runner.start(
            request(
                "parts",
                progress -> {
                  progress.doing("kilns");
                  progress.share(1);
                  return "done";
                }));
    window.until(() -> heard.contains("done"));
    assertThat(job.doneProperty().get()).isEqualTo(1);
    assertThat(job.wordsProperty().get()).isEqualTo("kilns");
  }

  @Test
  void theEndWaitsForWhatIsStillToBeSaved() {
    var saved = new AtomicBoolean();
    var release = new CountDownLatch(1);
    runner.start(
        request(
                "save",
                progress -> {
                  release.await();
                  saved.set(true);
                  return "saved";
                })
            .in(Lane.SAVING));
    assertThat(runner.finish(Lane.SAVING, 50)).isFalse();
    release.countDown();
    assertThat(runner.finish(Lane.SAVING, 20_000)).isTrue();
    assertThat(saved).isTrue();
  }

  private static void await(CountDownLatch latch) {
    try {
      assertThat(latch.await(20, TimeUnit.SECONDS)).isTrue();
    } catch (InterruptedException e) {
      throw new AssertionError(e);
    }
  }
}
