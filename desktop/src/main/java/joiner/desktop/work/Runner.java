package joiner.desktop.work;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.Executor;
import javafx.application.Platform;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;

/**
 * The one place where work leaves the window's thread and comes back to it. Each lane has threads
 * of its own; within a lane what is visible goes first, then what was asked for first. A newer
 * request ends the older one about the same thing. Whatever is thrown comes back as a {@link
 * Failure}; nothing ends unheard. Requests are made on the window's thread.
 */
public final class Runner {
  private static final Comparator<Job<?>> FIRST =
      Comparator.<Job<?>, Boolean>comparing(job -> !job.request().visible())
          .thenComparing(Job::number);

  private final Executor window;
  private final Map<Lane, Crew> crews = new EnumMap<>(Lane.class);
  private final ObservableList<Job<?>> jobs = FXCollections.observableArrayList();
  // Listens weakly to what it shows, so it has to be held as long as the runner.
  private final ObservableList<Job<?>> shownJobs = FXCollections.unmodifiableObservableList(jobs);
  private long asked;
  private boolean held;

  /** The threads of a lane and what waits for them. */
  private static final class Crew {
    private final PriorityQueue<Job<?>> waiting = new PriorityQueue<>(FIRST);
    private final int threads;
    private final String name;
    private int busy;

    Crew(Lane lane) {
      this.threads = lane == Lane.WORKING ? 2 : 1;
      this.name = "joiner-" + lane.name().toLowerCase(java.util.Locale.ROOT);
    }
  }

  /** A runner that comes back to the window's thread of JavaFX. */
  public static Runner ofWindow() {
    return new Runner(Platform::runLater);
  }

  /**
   * A runner.
   *
   * @param window runs what belongs to the window's thread, in order
   */
  public Runner(Executor window) {
    this.window = window;
    for (Lane lane : Lane.values()) {
      crews.put(lane, new Crew(lane));
    }
  }

  /** What waits or runs, for the window to show. */
  public ObservableList<Job<?>> jobs() {
    return shownJobs;
  }

  /** Takes a request on; an older one with an equal key ends. */
  public <T> Job<T> start(Request<T> request) {
    for (Job<?> older : List.copyOf(jobs)) {
      if (older.request().key().equals(request.key())) {
        stop(older);
      }
    }
    var job = new Job<>(request, window, ++asked);
    jobs.add(job);
    Crew crew = crews.get(request.lane());
    synchronized (crew) {
      crew.waiting.add(job);
      if (!held) {
        hire(crew);
      }
    }
    return job;
  }

  /** One more thread, if the lane has one left; the crew is locked. */
  private void hire(Crew crew) {
    if (crew.busy < crew.threads) {
      crew.busy++;
      Thread.ofPlatform().daemon().name(crew.name).start(() -> serve(crew));
    }
  }

  /**
   * Lets what is asked for wait until {@link #release}, so that nothing takes the processor from a
   * window that is just being built.
   */
  public void hold() {
    held = true;
  }

  /** Begins what waits. */
  public void release() {
    held = false;
    for (Crew crew : crews.values()) {
      synchronized (crew) {
        crew.waiting.forEach(job -> hire(crew));
      }
    }
  }

  /**
   * Stops a job: one that waits is forgotten, one that runs is told to end, and neither delivers a
   * result.
   */
  public void stop(Job<?> job) {
    job.stop();
    if (jobs.remove(job)) {
      Crew crew = crews.get(job.request().lane());
      synchronized (crew) {
        crew.waiting.remove(job);
      }
      job.request().stopped().run();
    }
  }

  /** Works off what waits in a lane, then ends. */
  private void serve(Crew crew) {
    while (true) {
      Job<?> next;
      synchronized (crew) {
        next = crew.waiting.poll();
        if (next == null) {
          crew.busy--;
          crew.notifyAll();
          return;
        }
      }
      run(next);
    }
  }

  private <T> void run(Job<T> job) {
    Request<T> request = job.request();
    if (job.stopped() && request.lane() != Lane.SAVING) {
      return;
    }
    try {
      T result = request.work().run(job);
      deliver(job, () -> request.done().accept(result));
    } catch (CancellationException stopped) {
      deliver(job, request.stopped());
    } catch (Throwable thrown) { // The outermost boundary: whatever it is, somebody hears of it.
      Failure failure = Failure.of(request.title(), thrown);
      deliver(job, () -> request.failed().accept(failure));
    }
  }

  private void deliver(Job<?> job, Runnable answer) {
    window.execute(
        () -> {
          if (jobs.remove(job)) {
            answer.run();
          }
        });
  }

  /**
   * Waits until everything in a lane has run, or so many milliseconds have gone by. For the end of
   * the application only.
   *
   * @return whether it all ran
   */
  public boolean finish(Lane lane, long millis) {
    release(); // What was asked for before the window stood is wanted too.
    Crew crew = crews.get(lane);
    long end = System.nanoTime() + millis * 1_000_000;
    synchronized (crew) {
      try {
        while (crew.busy > 0 && System.nanoTime() < end) {
          crew.wait(20);
        }
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
      }
      return crew.busy == 0;
    }
  }

  /** Titles of everything that waits or runs in a lane, for tests and reports. */
  public List<String> titles(Lane lane) {
    var titles = new ArrayList<String>();
    jobs.stream()
        .filter(job -> job.request().lane() == lane)
        .forEach(job -> titles.add(job.title()));
    return titles;
  }
}
