package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import joiner.desktop.prove.EnterModel.Tried;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Workbench;
import joiner.edit.EnterRows;
import joiner.entry.Refusal;
import joiner.model.Field;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.RowId;

/**
 * What is told beside a form: what is refused, what is the same already, what is filled in, and
 * what one save sends.
 */
final class EnterSide {
  private final Workbench bench;
  private final Texts texts;
  private final EnterModel model;

  EnterSide(Workbench bench, Texts texts, EnterModel model) {
    this.bench = bench;
    this.texts = texts;
    this.model = model;
  }

  /** What is told now of a row of a table. */
  List<Node> of(Table table, String title) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(title, "title"));
    boolean typed = model.isUnsaved(model.opened());
    nodes.add(
        Parts.label(
            texts.get(
                typed
                    ? "enter.side.unsaved"
                    : model.opened().isEmpty() ? "enter.side.new" : "enter.side.saved"),
            "muted"));
    if (typed) {
      same(nodes);
      refusals(nodes);
    }
    model.tried().ifPresent(tried -> filledIn(table, tried, nodes));
    if (typed) {
      model.tried().ifPresent(tried -> sends(tried, nodes));
    }
    return nodes;
  }

  private void refusals(List<Node> nodes) {
    List<Refusal> all = model.refusals();
    if (all.isEmpty()) {
      return;
    }
    nodes.add(Parts.label(texts.get("enter.side.refused"), "heading"));
    for (Refusal refusal : all) {
      Table of = bench.design().table(refusal.table());
      String where = of.label() + ": " + String.join(", ", of.labelsOf(refusal.fields()));
      nodes.add(
          Parts.card(
              List.of(Parts.prose(where, "strong"), Parts.prose(refusal.message())), "brick-card"));
    }
  }

  /** A row that is there under the same key or name, and what can be done about it. */
  private void same(List<Node> nodes) {
    Optional<RowId> byKey = model.same().existing();
    Optional<RowId> there = byKey.or(model.same()::alike);
    if (there.isEmpty()) {
      return;
    }
    RowId row = there.get();
    nodes.add(Parts.label(texts.get("enter.existing"), "heading"));
    var parts = new ArrayList<Node>();
    parts.add(Parts.prose(model.same().label(row), "strong"));
    for (EnterSame.Difference one : model.same().differences(row)) {
      parts.add(
          Parts.prose(
              texts.get(
                  "enter.existing.differs",
                  one.field().label(),
                  orNothing(one.there()),
                  orNothing(one.typed())),
              "small"));
    }
    if (byKey.isEmpty()) {
      parts.add(Parts.prose(texts.get("enter.existing.both"), "muted", "small"));
    }
    nodes.add(Parts.card(parts, "oak-card"));
    nodes.add(Parts.button(texts.get("enter.existing.open"), () -> model.open(Optional.of(row))));
    nodes.add(Parts.button(texts.get("enter.existing.overwrite"), () -> model.overwrite(row)));
  }

  private String orNothing(String text) {
    return text.isBlank() ? texts.get("list.without") : text;
  }

  private void filledIn(Table table, Tried tried, List<Node> nodes) {
    List<Field> given = table.fields().stream().filter(f -> !EnterPart.isTyped(f)).toList();
    if (given.isEmpty()) {
      return;
    }
    nodes.add(Parts.label(texts.get("enter.side.given"), "heading"));
    for (Field field : given) {
      String text = tried.shown().getOrDefault(field.id(), "–");
      nodes.add(Parts.fact(field.label(), text.length() > 28 ? text.substring(0, 27) + "…" : text));
    }
  }

  /** What one save sends to a database. */
  private void sends(Tried tried, List<Node> nodes) {
    nodes.add(Parts.label(texts.get("enter.side.sends"), "heading"));
    Map<String, Integer> statements = new LinkedHashMap<>();
    for (EnterRows.One one : tried.trial().edit().rows()) {
      String name = bench.design().table(one.table()).name();
      statements.merge((one.row().isEmpty() ? "INSERT INTO " : "UPDATE ") + name, 1, Integer::sum);
    }
    var lines = new ArrayList<Node>();
    statements.forEach(
        (statement, times) ->
            lines.add(
                Parts.label(
                    statement + " …" + (times > 1 ? "  " + Counts.of(times) + " rows" : ""),
                    "mono")));
    lines.add(Parts.label("COMMIT", "mono"));
    nodes.add(Parts.card(lines));
  }
}
