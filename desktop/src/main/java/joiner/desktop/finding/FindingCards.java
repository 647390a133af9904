package joiner.desktop.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import javafx.scene.Node;
import javafx.scene.layout.FlowPane;
import joiner.desktop.widget.Parts;
import joiner.desktop.work.Workbench;
import joiner.finding.Finding;
import joiner.finding.Remedy;
import joiner.finding.Severity;

/** Findings as cards with their remedies as buttons. */
public final class FindingCards {
  private FindingCards() {}

  /**
   * Cards of the findings that meet the condition, under a heading; nothing where there are none.
   */
  public static List<Node> of(Workbench bench, String heading, Predicate<Finding> wanted) {
    var nodes = new ArrayList<Node>();
    for (Finding finding : bench.verdict().findings()) {
      if (wanted.test(finding) && bench.design().find(finding.table()).isPresent()) {
        nodes.add(card(bench, finding));
      }
    }
    if (!nodes.isEmpty()) {
      nodes.addFirst(Parts.label(heading, "heading"));
    }
    return nodes;
  }

  private static Node card(Workbench bench, Finding finding) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(finding.message()));
    nodes.add(Parts.prose(finding.why(), "muted", "small"));
    if (!finding.remedies().isEmpty()) {
      var buttons = new FlowPane(6, 6);
      for (Remedy remedy : finding.remedies()) {
        buttons
            .getChildren()
            .add(Parts.button(remedy.label(), () -> bench.propose(remedy::edit, () -> {})));
      }
      nodes.add(buttons);
    }
    return Parts.card(nodes, finding.severity() == Severity.ERROR ? "error" : "attention");
  }
}
