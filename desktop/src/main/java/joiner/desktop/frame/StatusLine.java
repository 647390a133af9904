package joiner.desktop.frame;

import java.util.Optional;
import javafx.animation.PauseTransition;
import javafx.collections.ListChangeListener;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;
import javafx.util.Duration;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Job;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Runner;
import joiner.desktop.work.Verdict;
import joiner.desktop.work.Workbench;
import org.kordamp.ikonli.feather.Feather;

/**
 * The foot of the window: what is to do and whether that is true of the design as it stands, how
 * large it is, what is being worked on, whether it is saved.
 */
final class StatusLine {
  /** Work that ends sooner is not worth a look. */
  private static final Duration WORTH_SHOWING = Duration.millis(350);

  private final Workbench bench;
  private final Texts texts = Texts.beside(StatusLine.class);
  private final Label fix = Parts.label("");
  private final Label consider = Parts.label("", "oak", "medium");
  private final Label size = Parts.shortened("", "muted");
  private final Label checked = Parts.label("", "muted");
  private final HBox working = Parts.row(8);
  private final Label saved = Parts.label("", "muted");
  private final PauseTransition later = new PauseTransition(WORTH_SHOWING);
  private final HBox node;

  StatusLine(Workbench bench, Runnable openMessages) {
    this.bench = bench;
    var messages = Parts.button(texts.get("status.messages", 0), openMessages, "plain", "small");
    messages.setId("status-messages");
    this.node =
        Parts.row(18, fix, consider, size, checked, Parts.spring(), working, messages, saved);
    node.getStyleClass().add("status-line");
    fix.setId("status-fix");
    checked.setId("status-checked");
    saved.setId("status-saved");
    working.setId("status-working");
    bench.verdictProperty().subscribe(value -> show());
    bench.historyProperty().subscribe(value -> show());
    bench.keeper().stateProperty().subscribe(state -> saved.setText(texts.get("saved." + state)));
    bench.notices().all().addListener((ListChangeListener<Notice>) change -> count(messages));
    later.setOnFinished(event -> showWork());
    bench.runner().jobs().addListener((ListChangeListener<Job<?>>) change -> jobsChanged());
  }

  private void count(javafx.scene.control.Button messages) {
    messages.setText(texts.get("status.messages", bench.notices().all().size()));
  }

  Node node() {
    return node;
  }

  private void jobsChanged() {
    if (work().isEmpty()) {
      later.stop();
      working.getChildren().clear();
    } else {
      later.playFromStart();
    }
  }

  private Optional<Job<?>> work() {
    return bench.runner().jobs().stream().filter(job -> job.lane() != Lane.SAVING).findFirst();
  }

  private void showWork() {
    Runner runner = bench.runner();
    work()
        .ifPresent(
            job -> {
              var bar = new ProgressBar();
              bar.setPrefWidth(70);
              bar.progressProperty().bind(job.doneProperty());
              working.getChildren().setAll(Parts.shortened(job.title(), "muted"), bar);
              if (job.lane() == Lane.WORKING) {
                working
                    .getChildren()
                    .add(
                        Parts.iconButton(
                            Feather.X,
                            texts.get("status.stop", job.title()),
                            () -> runner.stop(job)));
              }
            });
  }

  private void show() {
    Verdict verdict = bench.verdict();
    switch (verdict.state()) {
      case CHECKING -> checking();
      case CURRENT -> current(verdict);
      case FAILED -> failed();
    }
    var design = bench.design();
    size.setText(
        texts.get(
            "status.size",
            design.tables().size(),
            design.fieldCount(),
            design.relationships().size()));
  }

  private void checking() {
    fix.setText(texts.get("status.checking"));
    fix.getStyleClass().setAll("label", "muted");
    showConsider(0);
    checked.setText("");
  }

  private void current(Verdict verdict) {
    long toFix = verdict.toFix();
    String none = verdict.weighing() ? "status.fix.yet" : "status.fix";
    fix.setText(toFix == 0 ? texts.get(none) : texts.get("status.fix.some", toFix));
    fix.getStyleClass().setAll("label", toFix == 0 ? "spruce" : "brick", "medium");
    showConsider(verdict.toConsider());
    checked.setText(
        verdict.weighing()
            ? texts.get("status.weighing")
            : texts.get("status.checked", verdict.millis()));
  }

  private void failed() {
    fix.setText(texts.get("status.failed"));
    fix.getStyleClass().setAll("label", "brick", "medium");
    showConsider(0);
    checked.setText("");
  }

  private void showConsider(long number) {
    consider.setText(texts.get("status.consider", number));
    consider.setVisible(number > 0);
    consider.setManaged(number > 0);
  }
}
