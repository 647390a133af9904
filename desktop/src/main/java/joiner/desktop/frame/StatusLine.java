package joiner.desktop.frame;

import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Workbench;

/** The foot of the window: what is to do, how large the design is, whether it is saved. */
final class StatusLine {
  private final Workbench bench;
  private final Texts texts = Texts.beside(StatusLine.class);
  private final Label fix = Parts.label("");
  private final Label consider = Parts.label("", "oak", "medium");
  private final Label size = Parts.label("", "muted");
  private final Label checked = Parts.label("", "muted");
  private final Label saved = Parts.label("", "muted");
  private final HBox node;

  StatusLine(Workbench bench) {
    this.bench = bench;
    this.node = Parts.row(20, fix, consider, size, checked, Parts.spring(), saved);
    node.getStyleClass().add("status-line");
    fix.setId("status-fix");
    bench.verdictProperty().subscribe(value -> show());
    bench.historyProperty().subscribe(value -> show());
    bench.savedProperty().subscribe(state -> saved.setText(texts.get("saved." + state)));
  }

  Node node() {
    return node;
  }

  private void show() {
    long toFix = bench.verdict().toFix();
    fix.setText(toFix == 0 ? texts.get("status.fix") : texts.get("status.fix.some", toFix));
    fix.getStyleClass().setAll("label", toFix == 0 ? "spruce" : "brick", "medium");
    consider.setText(texts.get("status.consider", bench.verdict().toConsider()));
    consider.setVisible(bench.verdict().toConsider() > 0);
    consider.setManaged(consider.isVisible());
    var design = bench.design();
    size.setText(
        texts.get(
            "status.size",
            design.tables().size(),
            design.fieldCount(),
            design.relationships().size()));
    checked.setText(texts.get("status.checked", bench.verdict().millis()));
  }
}
