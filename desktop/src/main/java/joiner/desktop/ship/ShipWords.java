package joiner.desktop.ship;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import joiner.audit.AuditReport;
import joiner.audit.Violation;
import joiner.compare.Effect;
import joiner.compare.Risk;
import joiner.database.LiveAudit;
import joiner.database.Shipment;
import joiner.ddl.Shortfall;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Failure;
import joiner.desktop.work.Targets;
import joiner.engine.Dialect;
import joiner.model.Design;

/** Says what will be lost, what was shipped, and what differs. */
final class ShipWords {
  private final Texts texts;

  ShipWords(Texts texts) {
    this.texts = texts;
  }

  /** What there is to know before it ships. */
  List<Node> before(WrittenScript script, Dialect dialect) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(texts.get("side.title"), "title"));
    nodes.add(Parts.prose(texts.get("side.why"), "muted"));
    List<Shortfall> lost = script.shortfalls().stream().filter(s -> !s.elsewhere()).toList();
    List<Shortfall> moved = script.shortfalls().stream().filter(Shortfall::elsewhere).toList();
    if (lost.isEmpty()) {
      nodes.add(Parts.prose(texts.get("side.lost.none", dialect.engine()), "spruce"));
    } else {
      nodes.add(Parts.label(texts.get("side.lost", dialect.engine()), "heading"));
      lost.forEach(shortfall -> nodes.add(card(shortfall, "attention")));
    }
    if (!moved.isEmpty()) {
      nodes.add(Parts.label(texts.get("side.elsewhere"), "heading"));
      moved.forEach(shortfall -> nodes.add(card(shortfall)));
    }
    if (!script.left().isEmpty()) {
      nodes.add(Parts.label(texts.get("side.left"), "heading"));
      script.left().forEach(rows -> nodes.add(Parts.prose(rows, "muted", "small")));
    }
    var known = new ArrayList<>(dialect.caveats());
    if (!dialect.undoesDefinitions()) {
      known.add(texts.get("side.once", dialect.engine()));
    }
    if (!known.isEmpty()) {
      nodes.add(Parts.label(texts.get("side.know", dialect.engine()), "heading"));
      known.forEach(sentence -> nodes.add(Parts.prose(sentence, "muted", "small")));
    }
    return nodes;
  }

  private static Node card(Shortfall shortfall, String... styles) {
    return Parts.card(
        List.of(
            Parts.prose(shortfall.subject(), "strong"),
            Parts.prose(shortfall.reason(), "muted", "small")),
        styles);
  }

  /** Why a target refused. */
  List<Node> of(Failure refusal) {
    String why = texts.get("refused.why", refusal.message());
    return List.of(
        Parts.prose(texts.get("refused.title"), "title"),
        Parts.card(List.of(Parts.prose(why)), "error"));
  }

  /** Why nothing can be shipped now; empty where it can, or soon will be. */
  Optional<String> why(ShipModel.Gate gate) {
    return switch (gate) {
      case ShipModel.Gate.Open open -> Optional.empty();
      case ShipModel.Gate.NoScript none -> Optional.empty();
      case ShipModel.Gate.Checking checking -> Optional.of(texts.get("gate.checking"));
      case ShipModel.Gate.CannotTell failed -> Optional.of(texts.get("gate.failed"));
      case ShipModel.Gate.Errors errors -> Optional.of(texts.get("errors", errors.count()));
      case ShipModel.Gate.BadRows rows -> Optional.of(texts.get("gate.rows", rows.count()));
      case ShipModel.Gate.NoPlace none -> Optional.of(texts.get("place.none"));
    };
  }

  /** What was promised and found. */
  List<Node> of(Shipment shipment, Targets.Known there) {
    var verification = shipment.verification();
    var nodes = new ArrayList<Node>();
    var head = Parts.prose(texts.get("result.title"), "title");
    head.setId("shipped");
    nodes.add(head);
    nodes.add(
        Parts.prose(
            verification.holds()
                ? texts.get("result.good", shipment.statements())
                : texts.get("result.bad"),
            verification.holds() ? "spruce" : "brick"));
    nodes.add(Parts.prose(texts.get("result.where", there.place()), "muted"));
    nodes.add(Parts.label(texts.get("result.promised"), "heading"));
    verification
        .counts()
        .forEach(
            (sort, count) ->
                nodes.add(
                    Parts.fact(
                        sort,
                        texts.get("result.of", count.found(), count.promised()),
                        count.found() == count.promised() ? "spruce" : "brick")));
    verification
        .differences()
        .forEach(difference -> nodes.add(Parts.card(List.of(Parts.prose(difference)), "error")));
    return nodes;
  }

  /** What in the rows of a database breaks the design. */
  List<Node> of(Design design, LiveAudit audit) {
    AuditReport report = audit.report();
    var nodes = new ArrayList<Node>();
    var head = Parts.prose(texts.get("audited.title"), "title");
    head.setId("audited");
    nodes.add(head);
    boolean whole = audit.notices().isEmpty();
    if (report.total() > 0) {
      nodes.add(Parts.prose(texts.get("audited.some", report.total(), report.rows()), "brick"));
    } else {
      nodes.add(
          Parts.prose(
              texts.get(whole ? "audited.none" : "audited.none.asked", report.rows()),
              whole ? "spruce" : "oak"));
    }
    report.violations().forEach(violation -> nodes.add(card(design, violation)));
    audit.notices().forEach(notice -> nodes.add(Parts.prose(notice, "muted", "small")));
    return nodes;
  }

  private static Node card(Design design, Violation violation) {
    return Parts.card(
        List.of(
            Parts.prose(design.table(violation.table()).label(), "strong"),
            Parts.prose(violation.message())),
        "error");
  }

  /** What a database has otherwise than the design. */
  List<Node> of(Drift drift) {
    var nodes = new ArrayList<Node>();
    var head = Parts.prose(texts.get("drift.title"), "title");
    head.setId("drift");
    nodes.add(head);
    if (drift.effects().isEmpty()) {
      nodes.add(Parts.prose(texts.get("drift.none"), "spruce"));
    } else {
      nodes.add(Parts.prose(texts.get("drift.some", drift.effects().size()), "muted"));
    }
    for (Effect effect : drift.worstFirst()) {
      boolean grave = effect.risk().compareTo(Risk.REFUSES) >= 0;
      nodes.add(
          Parts.card(
              List.of(
                  Parts.prose(effect.message()),
                  Parts.prose(texts.get("drift.risk." + effect.risk()), "muted", "small")),
              grave ? "error" : "attention"));
    }
    drift.notices().forEach(notice -> nodes.add(Parts.prose(notice, "muted", "small")));
    return nodes;
  }
}
