package joiner.desktop.prove;

import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import joiner.audit.Anomaly;
import joiner.audit.Anomaly.Said;
import joiner.desktop.prove.SaidAgain.Dispute;
import joiner.desktop.prove.SaidAgain.Told;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Workbench;
import joiner.edit.SplitOff;
import joiner.model.KnownFact;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.naming.WordList;

/** The side sheet about what is said again and again: what goes wrong, and what can be done. */
final class SaidAgainSide {
  private static final int MOST_SAID = 4;

  private final Workbench bench;
  private final SaidAgain model;
  private final Texts texts;

  SaidAgainSide(Workbench bench, SaidAgain model, Texts texts) {
    this.bench = bench;
    this.model = model;
    this.texts = texts;
  }

  /** Puts it below what the sheet says already. */
  void show(Told told, List<Node> nodes) {
    Anomaly anomaly = told.anomaly();
    Table table = bench.design().table(anomaly.table());
    nodes.add(
        Parts.prose(texts.get(anomaly.isKnown() ? "anomaly.why.known" : "anomaly.why"), "muted"));
    if (told.disputes().isEmpty()) {
      troubles(told, table, nodes);
    } else {
      disputes(told, table, nodes);
    }
    nodes.add(Parts.label(texts.get("ways"), "heading"));
    if (told.disputes().isEmpty()) {
      split(anomaly, table, nodes);
    } else {
      if (told.byMost() > 0) {
        way(
            nodes,
            "anomaly-most",
            texts.get("anomaly.most", rows(table, told.byMost())),
            () -> model.settleByMost(told));
      }
    }
    KnownFact fact = anomaly.fact();
    if (anomaly.isKnown()) {
      way(
          nodes,
          "anomaly-forget",
          texts.get("anomaly.forget"),
          () -> model.forget(table.id(), fact));
    } else {
      way(nodes, "anomaly-know", texts.get("anomaly.know"), () -> model.know(table.id(), fact));
      way(
          nodes,
          "anomaly-deny",
          texts.get("anomaly.deny"),
          () ->
              model.know(table.id(), new KnownFact(fact.determinant(), fact.dependents(), false)));
    }
    nodes.add(Parts.prose(texts.get("ways.undo"), "muted"));
  }

  private static void way(List<Node> nodes, String id, String words, Runnable action) {
    Button way = Parts.way(words, action);
    way.setId(id);
    nodes.add(way);
  }

  /** The smallest examples of each trouble on the table's own rows. */
  private void troubles(Told told, Table table, List<Node> nodes) {
    Anomaly anomaly = told.anomaly();
    String decides = WordList.and(table.labelsOf(anomaly.determinant()));
    String decided = WordList.and(table.labelsOf(anomaly.dependents()));
    String noun = table.noun().singular();
    if (anomaly.update().isEmpty()) {
      trouble(nodes, "update.later", decided, decides, table.noun().plural());
    } else {
      trouble(
          nodes,
          "update",
          Counts.of(anomaly.update().size()),
          decided,
          told.what(),
          decides,
          told.who());
    }
    trouble(nodes, "insert", decided, decides, table.noun().indefinite());
    if (anomaly.delete().isPresent()) {
      String last = Counts.of(anomaly.delete().getAsInt() + 1);
      trouble(nodes, "delete", last, decided, decides, told.last());
    } else {
      trouble(nodes, "delete.last", noun, decides, decided);
    }
  }

  private void trouble(List<Node> nodes, String what, Object... with) {
    String heading = texts.get("anomaly." + what.split("\\.")[0] + ".title");
    nodes.add(
        Parts.card(
            List.of(
                Parts.label(heading, "strong"), Parts.prose(texts.get("anomaly." + what, with)))));
  }

  /** Which rows contradict it, and what each would say after it was settled. */
  private void disputes(Told told, Table table, List<Node> nodes) {
    for (Dispute dispute : told.disputes()) {
      nodes.add(Parts.label(dispute.who(), "strong"));
      List<Said> said = dispute.of().said();
      for (int i = 0; i < Math.min(said.size(), MOST_SAID); i++) {
        Said one = said.get(i);
        String rows =
            texts.get(
                "rows.named",
                one.rows().size(),
                WordList.and(one.rows().stream().limit(4).map(row -> Counts.of(row + 1)).toList()));
        String words =
            texts.get(
                "anomaly.settle",
                dispute.said().get(i),
                rows,
                rows(table, dispute.of().others(one)));
        nodes.add(Parts.way(words, () -> model.settle(told, dispute, one)));
      }
      if (said.size() > MOST_SAID) {
        nodes.add(Parts.prose(texts.get("anomaly.said.more", said.size() - MOST_SAID), "muted"));
      }
    }
    if (told.further() > 0) {
      nodes.add(
          Parts.prose(texts.get("anomaly.disputes.more", Counts.of(told.further())), "muted"));
    }
  }

  private static String rows(Table table, int count) {
    return Counts.of(count, table.noun().singular(), table.noun().plural());
  }

  private void split(Anomaly anomaly, Table table, List<Node> nodes) {
    Optional<Relationship> bound = anomaly.inTheWay(bench.draft());
    if (bound.isPresent()) {
      nodes.add(Parts.prose(texts.get("anomaly.split.bound", bound.get().name()), "muted"));
      return;
    }
    String decides = WordList.and(table.labelsOf(anomaly.determinant()));
    String decided = WordList.and(table.labelsOf(anomaly.dependents()));
    Optional<Relationship> into =
        SplitOff.refers(bench.design(), table.id(), anomaly.determinant());
    String words =
        into.isPresent()
            ? texts.get(
                "anomaly.split.into", decided, bench.design().table(into.get().parent()).label())
            : texts.get("anomaly.split.new", decided, decides);
    way(nodes, "anomaly-split", words, () -> model.split(anomaly));
  }
}
