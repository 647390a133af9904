package joiner.desktop.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import joiner.compare.Impact;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Workbench;
import joiner.edit.EditRefusedException;
import joiner.finding.Finding;
import joiner.finding.Remedy;
import joiner.finding.Severity;

/** Findings as cards with their remedies as buttons. */
public final class FindingCards {
  private static final int MOST_EFFECTS = 12;
  private static final Texts TEXTS = Texts.beside(FindingCards.class);

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

  /** What a remedy does to each table, and the button that does it. */
  private static List<Node> effects(Workbench bench, Remedy remedy, Runnable doIt) {
    var nodes = new ArrayList<Node>();
    try {
      List<String> does =
          Impact.of(remedy.edit(), bench.draft()).effects().stream()
              .filter(effect -> effect.table().isPresent())
              .map(effect -> effect.table().orElseThrow() + ": " + effect.message())
              .toList();
      does.stream().limit(MOST_EFFECTS).forEach(effect -> nodes.add(Parts.prose(effect, "small")));
      if (does.isEmpty()) {
        nodes.add(Parts.prose(TEXTS.get("effects.none"), "muted", "small"));
      }
      if (does.size() > MOST_EFFECTS) {
        nodes.add(
            Parts.prose(TEXTS.get("effects.more", does.size() - MOST_EFFECTS), "muted", "small"));
      }
      Button button = Parts.button(TEXTS.get("effects.do"), doIt);
      button.setId("do-remedy");
      nodes.add(button);
    } catch (EditRefusedException refused) {
      nodes.add(Parts.prose(refused.getMessage(), "brick", "small"));
    }
    return nodes;
  }

  private static Node card(Workbench bench, Finding finding) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(finding.message()));
    nodes.add(Parts.prose(finding.why(), "muted", "small"));
    if (!finding.remedies().isEmpty()) {
      var buttons = new FlowPane(6, 6);
      var effects = new VBox(4);
      for (Remedy remedy : finding.remedies()) {
        Runnable doIt = () -> bench.apply(remedy.edit());
        Runnable tellFirst = () -> effects.getChildren().setAll(effects(bench, remedy, doIt));
        buttons
            .getChildren()
            .add(Parts.button(remedy.label(), remedy.edit().reachesFar() ? tellFirst : doIt));
      }
      nodes.add(buttons);
      nodes.add(effects);
    }
    return Parts.card(nodes, finding.severity() == Severity.ERROR ? "error" : "attention");
  }
}
