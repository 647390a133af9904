package joiner.desktop.ship;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import joiner.database.LiveAudit;
import joiner.database.Reached;
import joiner.database.Shipment;
import joiner.database.Target;
import joiner.database.TargetRefusedException;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.ddl.ShipGate;
import joiner.ddl.Statement;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Failure;
import joiner.desktop.work.Job;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Progress;
import joiner.desktop.work.Request;
import joiner.desktop.work.Targets;
import joiner.desktop.work.Workbench;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.meaning.Draft;

/** What the stage Ship is about and does, without a window: the script, the gate, the shipment. */
final class ShipModel {
  private final Workbench bench;
  private final Targets known;
  private final Texts texts;
  private final Computed<WrittenScript.Wanted, WrittenScript> script;
  private final ReadOnlyObjectWrapper<News> news = new ReadOnlyObjectWrapper<>(new News.None());
  private final ReadOnlyObjectWrapper<Optional<Job<Shipment>>> shipping =
      new ReadOnlyObjectWrapper<>(Optional.empty());
  private Dialect dialect = Dialects.H2;
  private RowsChoice rows = RowsChoice.ALL;
  private Optional<Statement.Section> section = Optional.empty();

  /** What there is to tell beside the script. */
  sealed interface News {
    /** Nothing but what is known before it ships. */
    record None() implements News {}

    /** A design was shipped; it is told as long as the design stays what it was. */
    record Shipped(Draft draft, Shipment shipment, Targets.Known there) implements News {}

    /** A database was compared with a design; told as long as the design stays what it was. */
    record Differs(Draft draft, Drift drift) implements News {}

    /** The rows of a database were audited; told as long as the design stays what it was. */
    record Audited(Draft draft, LiveAudit audit) implements News {}

    /** A target refused. */
    record Refused(Failure failure) implements News {}
  }

  /** Whether it may be shipped, or why not. */
  sealed interface Gate {
    /** It may. */
    record Open() implements Gate {}

    /** The design is being checked. */
    record Checking() implements Gate {}

    /** The checks failed. */
    record CannotTell() implements Gate {}

    /** The design has errors. */
    record Errors(long count) implements Gate {}

    /** The rows that would go along break the design. */
    record BadRows(long count) implements Gate {}

    /** Nobody said where to. */
    record NoPlace() implements Gate {}

    /** The script is not there yet. */
    record NoScript() implements Gate {}
  }

  ShipModel(Workbench bench, Targets known, Texts texts) {
    this.bench = bench;
    this.known = known;
    this.texts = texts;
    this.script =
        new Computed<>(
            bench.runner(),
            texts.get("writing"),
            Lane.WORKING,
            WrittenScript.Wanted::isSame,
            (wanted, progress) -> WrittenScript.of(wanted));
  }

  Dialect dialect() {
    return dialect;
  }

  RowsChoice rows() {
    return rows;
  }

  Optional<Statement.Section> section() {
    return section;
  }

  ReadOnlyObjectProperty<Answer<WrittenScript>> scriptProperty() {
    return script.answerProperty();
  }

  /** The script as it is now; empty while it is written. */
  Optional<WrittenScript> script() {
    return script.answer().current();
  }

  ReadOnlyObjectProperty<News> newsProperty() {
    return news.getReadOnlyProperty();
  }

  ReadOnlyObjectProperty<Optional<Job<Shipment>>> shippingProperty() {
    return shipping.getReadOnlyProperty();
  }

  /** Whether somebody looks; else nothing is written. */
  void look(boolean visible) {
    script.look(visible);
  }

  /** Writes the script of the design as it is; news of another state of it go. */
  void ask() {
    boolean old =
        switch (news.get()) {
          case News.None n -> false;
          case News.Shipped n -> n.draft() != bench.draft();
          case News.Differs n -> n.draft() != bench.draft();
          case News.Audited n -> n.draft() != bench.draft();
          case News.Refused n -> true;
        };
    if (old) {
      news.set(new News.None());
    }
    script.ask(
        new WrittenScript.Wanted(bench.draft(), dialect, rows, section, bench.design().title()));
  }

  /** Turns to another engine; whether it is another. */
  boolean pick(Dialect picked) {
    if (picked == dialect) {
      return false;
    }
    dialect = picked;
    section = Optional.empty();
    news.set(new News.None());
    ask();
    return true;
  }

  void take(RowsChoice choice) {
    rows = choice;
  }

  void show(Optional<Statement.Section> one) {
    section = one;
    ask();
  }

  /**
   * Whether it may be shipped.
   *
   * @param placeMissing whether a place has to be named and is not
   */
  Gate gate(boolean placeMissing) {
    return switch (bench.verdict().state()) {
      case CHECKING -> new Gate.Checking();
      case FAILED -> new Gate.CannotTell();
      case CURRENT -> gateOfChecked(placeMissing);
    };
  }

  private Gate gateOfChecked(boolean placeMissing) {
    List<ShipGate.Obstacle> obstacles =
        ShipGate.obstacles(
            bench.design(), bench.verdict().findings(), bench.verdict().audit(), rows);
    long inDesign = obstacles.stream().filter(o -> !o.inRows()).count();
    if (inDesign > 0) {
      return new Gate.Errors(inDesign);
    }
    if (!obstacles.isEmpty()) {
      return new Gate.BadRows(obstacles.size());
    }
    if (placeMissing) {
      return new Gate.NoPlace();
    }
    return script().isPresent() ? new Gate.Open() : new Gate.NoScript();
  }

  /** Ships the design into a database file of the engine. */
  void ship(Path file) {
    var there = new Targets.Known(dialect.id(), dialect.placeOf(file), "");
    ship(there, known.target(dialect, there, ""));
  }

  /** Ships the design to a place. */
  void ship(Targets.Known there, Target target) {
    Draft draft = bench.draft();
    RowsChoice choice = rows;
    shipping.set(
        Optional.of(
            bench
                .runner()
                .start(
                    Request.<Shipment>of(
                            this,
                            texts.get("shipping.to", dialect.engine()),
                            progress -> ship(draft, target, choice, progress),
                            shipment -> shipped(new News.Shipped(draft, shipment, there)),
                            this::refused)
                        .whenStopped(() -> shipping.set(Optional.empty())))));
  }

  private Shipment ship(Draft draft, Target target, RowsChoice choice, Progress progress)
      throws TargetRefusedException {
    return Shipment.ship(draft, target, choice, told(progress, "shipping"));
  }

  private joiner.database.Progress told(Progress progress, String key) {
    return (done, total, doing) -> {
      progress.share((double) done / Math.max(total, 1));
      progress.doing(texts.get(key, doing));
      return !progress.stopped();
    };
  }

  private void shipped(News.Shipped shipped) {
    shipping.set(Optional.empty());
    if (shipped.shipment().verification().holds()) {
      keep(shipped.there());
    }
    news.set(shipped);
  }

  private void refused(Failure failure) {
    shipping.set(Optional.empty());
    if (failure.details().isPresent()) {
      bench.tell(failure);
    }
    news.set(new News.Refused(failure));
  }

  /** Ends the shipment that is underway. */
  void stop() {
    shipping.get().ifPresent(bench.runner()::stop);
  }

  /** Remembers a database that answered. */
  void keep(Targets.Known there) {
    known.keep(bench.keeper().folder(), there);
    bench
        .runner()
        .start(
            Request.of(
                    "targets",
                    texts.get("place.keeping"),
                    progress -> {
                      known.save();
                      return there;
                    },
                    done -> {},
                    bench::tell)
                .in(Lane.SAVING));
  }

  /** Sees whether a place can be reached; one that answers is remembered. */
  void attempt(
      Targets.Known there, Target target, Consumer<Reached> answered, Consumer<Failure> failed) {
    ask(
        texts.get("place.trying"),
        progress -> Reached.of(target),
        reached -> {
          keep(there);
          answered.accept(reached);
        },
        failed);
  }

  /** Sees what a database has otherwise than the design. */
  void compare(Target target, Runnable answered, Consumer<Failure> failed) {
    Draft draft = bench.draft();
    ask(
        texts.get("place.comparing"),
        progress -> Drift.of(draft, target),
        newsOf(draft, answered, drift -> new News.Differs(draft, drift)),
        failed);
  }

  /** Sees what in the rows of a database breaks the design; the database counts. */
  void audit(Target target, Runnable answered, Consumer<Failure> failed) {
    Draft draft = bench.draft();
    ask(
        texts.get("place.auditing"),
        progress -> LiveAudit.of(draft, target, told(progress, "auditing.there")),
        newsOf(draft, answered, audit -> new News.Audited(draft, audit)),
        failed);
  }

  /** Makes news of an answer, unless another design or engine is meant by now. */
  private <T> Consumer<T> newsOf(Draft draft, Runnable answered, Function<T, News> say) {
    Dialect asked = dialect;
    return answer -> {
      answered.run();
      if (bench.draft() == draft && dialect == asked) {
        news.set(say.apply(answer));
      }
    };
  }

  private <T> void ask(
      String doing, Request.Work<T> work, Consumer<T> answered, Consumer<Failure> failed) {
    bench.runner().start(Request.of("place", doing, work, answered, failed));
  }

  /** Gives the whole script as text. */
  void write(Consumer<String> written) {
    Callable<String> script = whole();
    bench
        .runner()
        .start(
            Request.<String>of(
                "copy script",
                texts.get("copying.script"),
                progress -> script.call(),
                written,
                bench::tell));
  }

  /** Writes the whole script into a file. */
  void save(Path file, Consumer<Path> saved) {
    Callable<String> script = whole();
    bench
        .runner()
        .start(
            Request.<Path>of(
                "save script",
                texts.get("saving.script"),
                progress -> Files.writeString(file, script.call()),
                saved,
                bench::tell));
  }

  /** The whole script of the design as it is now, to be written in the background. */
  private Callable<String> whole() {
    Draft draft = bench.draft();
    Dialect engine = dialect;
    RowsChoice choice = rows;
    return () -> SchemaScript.of(draft, engine, choice).text(draft.design().title());
  }
}
