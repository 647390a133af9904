package joiner.desktop.gather;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.desktop.map.MapView;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Request;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Workbench;
import joiner.discovery.Contradiction;
import joiner.map.MapLayout;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.split.Split;

/** What a table becomes: the tables, what is open, and the proof. */
final class SplitPanel {
  private static final int SHOWN = 4;

  private final Texts texts;
  private final SplitBench split;
  private final Workbench bench;
  private final Runnable splitting;
  private final MapView map = new MapView(selection -> {});
  private final VBox node = new VBox(6);

  SplitPanel(Texts texts, SplitBench split, Workbench bench, Runnable splitting) {
    this.texts = texts;
    this.split = split;
    this.bench = bench;
    this.splitting = splitting;
    map.setId("split-map");
    map.setMinSize(0, 120);
    VBox.setVgrow(map, Priority.ALWAYS);
  }

  Node node() {
    return node;
  }

  void show(SplitBench.State state) {
    if (state.refusal().isPresent()) {
      node.getChildren()
          .setAll(
              Parts.label(texts.get("split.refused"), "title"),
              Parts.card(List.of(Parts.prose(state.refusal().get())), "attention"));
    } else if (state.preview().isEmpty()) {
      node.getChildren().setAll(Parts.label(texts.get("split.waiting"), "muted"));
    } else {
      show(state.preview().get());
    }
  }

  private void show(SplitBench.Preview preview) {
    if (preview.split().open().isEmpty()) {
      node.getChildren().setAll(split(preview));
      draw(preview);
    } else {
      node.getChildren().setAll(open(preview));
    }
  }

  /** What has to be settled before there can be a split. */
  private List<Node> open(SplitBench.Preview preview) {
    List<Split.Open> all = preview.split().open();
    var cards = new VBox(6);
    all.forEach(open -> cards.getChildren().add(open(open, preview.table())));
    var scroll = Parts.scroll(cards);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    var button = Parts.button(texts.get("split.do.open"), () -> {}, "main");
    button.setDisable(true);
    int left = all.stream().mapToInt(open -> open.contradictions().size()).sum();
    return List.of(
        titled(
            texts.get("settle.title"), Parts.shortened(texts.get("settle.why"), "muted", "small")),
        scroll,
        Parts.row(10, button, Parts.label(texts.get("settle.left", left), "oak")));
  }

  /** The tables it becomes, with the proof. */
  private List<Node> split(SplitBench.Preview preview) {
    Split result = preview.split();
    int parts = result.parts().size();
    int arriving = preview.arriving(bench.design()).size();
    String changes =
        result.changedCells() == 0
            ? texts.get("split.unchanged")
            : texts.get("split.changed", result.changedCells());
    return List.of(
        titled(
            texts.get("split.title", preview.table().label(), parts),
            Parts.prose(proof(result), "muted", "small")),
        map,
        split.made().isPresent()
            ? made(split.made().get())
            : Parts.row(10, button(parts, arriving), Parts.shortened(changes, "muted", "small")));
  }

  private Node button(int parts, int arriving) {
    var button = Parts.button(texts.get("split.do", arriving), () -> {}, "main");
    button.setId("split");
    button.setDisable(parts < 2);
    button.setOnAction(
        event -> {
          button.setDisable(true); // A second press would split once more.
          splitting.run();
        });
    return button;
  }

  /** What stands in the place of the button once the source is in the design. */
  private Node made(TableId table) {
    var show =
        Parts.button(
            texts.get("split.go"),
            () -> {
              bench.selectionProperty().set(Selection.of(table));
              bench.stageProperty().set(Stage.CONNECT);
            });
    show.setId("split-show");
    String label = bench.design().table(table).label();
    return Parts.row(10, show, Parts.shortened(texts.get("split.made", label), "muted", "small"));
  }

  private static Node titled(String title, Node below) {
    return new VBox(2, Parts.label(title, "title"), below);
  }

  private String proof(Split result) {
    Split.Proof proof = result.proof().orElseThrow();
    return proof.holds()
        ? texts.get("split.proof", result.cellsBefore(), result.cellsAfter(), proof.rows())
        : texts.get("split.lossy", proof.differing());
  }

  private void draw(SplitBench.Preview preview) {
    Map<TableId, MapLayout.Brief> boards = new LinkedHashMap<>();
    Map<TableId, Integer> rows = new HashMap<>();
    preview.split().parts().forEach(part -> rows.put(part.table(), part.rows()));
    Set<TableId> shown = new LinkedHashSet<>(rows.keySet());
    shown.addAll(preview.arriving(bench.design()));
    for (TableId table : shown) {
      int count = rows.getOrDefault(table, 0);
      boards.put(
          table,
          new MapLayout.Brief(
              preview.shortName(table, shown),
              rows.containsKey(table) ? texts.get("split.rows", count) : texts.get("split.asis")));
    }
    bench
        .runner()
        .start(
            Request.of(
                this,
                texts.get("split.drawing"),
                progress -> MapLayout.brief(preview.design(), boards),
                map::show,
                bench::tell));
  }

  private Node open(Split.Open open, Table table) {
    String determinant = String.join(", ", table.labelsOf(open.decision().determinant()));
    String decided = table.field(open.decision().decided()).label();
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.label(texts.get("settle.fact", determinant, decided), "strong"));
    for (Contradiction contradiction : open.contradictions().stream().limit(SHOWN).toList()) {
      nodes.add(
          Parts.prose(
              texts.get(
                  "settle.one",
                  String.join(", ", contradiction.determinant()),
                  contradiction.values().size()),
              "small"));
      var choices = new FlowPane(6, 4);
      for (Contradiction.Value value : contradiction.values()) {
        String text = value.text().isEmpty() ? texts.get("settle.empty") : value.text();
        choices
            .getChildren()
            .add(
                Parts.button(
                    texts.get("settle.keep", text, value.rows().size()),
                    () -> split.settle(open, contradiction, value.text())));
      }
      nodes.add(choices);
    }
    int more = open.contradictions().size() - SHOWN;
    if (more > 0) {
      nodes.add(Parts.label(texts.get("settle.more", more), "muted", "small"));
    }
    var majority =
        Parts.button(texts.get("settle.majority"), () -> split.settleByMajority(open), "plain");
    majority.setId("settle-majority");
    nodes.add(
        Parts.row(
            6, majority, Parts.button(texts.get("settle.drop"), () -> split.drop(open), "plain")));
    return Parts.card(nodes, "attention");
  }
}
