package joiner.desktop.connect;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import joiner.desktop.map.MapLayout;
import joiner.desktop.map.MapView;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.ShownAs;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Background;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.edit.Relating;
import joiner.model.Design;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import org.kordamp.ikonli.feather.Feather;

/** The stage Connect: the map, what it is focused on, and the relationship chosen. */
public final class ConnectView implements StageView {
  private static final int FARTHEST = 3;

  private final Workbench bench;
  private final Background background;
  private final Texts texts = Texts.beside(ConnectView.class);
  private final MapView map;
  private final ComboBox<Integer> focus = new ComboBox<>();
  private final ComboBox<Table> relate = new ComboBox<>();
  private final StackPane main;
  private final RelationshipSheet sheet;
  private Design drawn = Design.empty("none", "none");
  private Set<TableId> drawnTables = Set.of();
  private long newest;

  /** Builds the stage. */
  public ConnectView(Workbench bench, Background background) {
    this.bench = bench;
    this.background = background;
    this.map = new MapView(bench.selectionProperty()::set);
    this.sheet = new RelationshipSheet(bench, background, texts);
    var tools = tools();
    StackPane.setAlignment(tools, Pos.BOTTOM_LEFT);
    StackPane.setMargin(tools, new Insets(0, 0, 14, 16));
    var empty = Parts.prose(texts.get("empty"), "muted");
    this.main = new StackPane(map, empty, tools);
    tools.setMaxSize(HBox.USE_PREF_SIZE, HBox.USE_PREF_SIZE);
    bench.historyProperty().subscribe(value -> empty.setVisible(bench.design().tables().isEmpty()));
    bench.historyProperty().subscribe(value -> layOut());
    bench.selectionProperty().subscribe(value -> selected());
  }

  @Override
  public Node main() {
    return main;
  }

  @Override
  public Node side() {
    return sheet.node();
  }

  private HBox tools() {
    focus.getItems().setAll(0, 1, 2, FARTHEST);
    focus.setValue(0);
    focus.setId("focus");
    focus.setAccessibleText(texts.get("focus"));
    focus.setConverter(new ShownAs<>(this::focusWords));
    focus.valueProperty().subscribe(value -> layOut());
    relate.setId("relate");
    relate.setPromptText(texts.get("relate.none"));
    relate.setConverter(new ShownAs<>(Table::label));
    relate.setOnAction(event -> relate());
    var fit = Parts.button(texts.get("fit"), map::fit);
    return Parts.row(
        8,
        focus,
        fit,
        Parts.iconButton(Feather.PLUS, texts.get("larger"), () -> map.zoom(1.25)),
        Parts.iconButton(Feather.MINUS, texts.get("smaller"), () -> map.zoom(0.8)),
        relate);
  }

  private String focusWords(Integer steps) {
    String table = bench.table().map(Table::label).orElse("");
    return steps == 0
        ? texts.get("focus") + " " + texts.get("focus.all")
        : texts.get("focus.step", steps, table);
  }

  private void selected() {
    map.mark(bench.selectionProperty().get());
    Optional<Table> table = bench.table();
    relate.setVisible(table.isPresent());
    relate.getItems().setAll(bench.design().tables());
    table.ifPresent(
        t -> {
          relate.setPromptText(texts.get("relate", t.label()));
          relate.setTooltip(new Tooltip(texts.get("relate.hint", t.label())));
        });
    if (focus.getValue() > 0) {
      layOut();
    }
  }

  private void relate() {
    Table parent = relate.getValue();
    if (parent != null && bench.table().isPresent()) {
      Table child = bench.table().get();
      bench.apply(() -> Relating.link(bench.design(), child, parent));
      List<Relationship> links = bench.design().parentsOf(child.id());
      if (!links.isEmpty()) {
        bench.selectionProperty().set(Selection.of(child.id(), links.getLast().id()));
      }
      javafx.application.Platform.runLater(() -> relate.setValue(null));
    }
  }

  private void layOut() {
    Design design = bench.design();
    Set<TableId> shown = shown(design);
    if (design.equals(drawn) && shown.equals(drawnTables)) {
      return;
    }
    drawn = design;
    drawnTables = shown;
    long ticket = ++newest;
    background.compute(
        () -> MapLayout.of(design, shown),
        layout -> {
          if (ticket == newest) {
            map.show(layout);
            map.mark(bench.selectionProperty().get());
          }
        },
        failure -> bench.tell(texts.get("layout.failed", String.valueOf(failure))));
  }

  private Set<TableId> shown(Design design) {
    Integer steps = focus.getValue();
    if (steps == null || steps == 0 || bench.table().isEmpty()) {
      return new HashSet<>(design.tables().stream().map(Table::id).toList());
    }
    Set<TableId> reached = new HashSet<>(Set.of(bench.table().get().id()));
    for (int step = 0; step < steps; step++) {
      var before = Set.copyOf(reached);
      for (Relationship r : design.relationships()) {
        if (before.contains(r.child()) || before.contains(r.parent())) {
          reached.addAll(List.of(r.child(), r.parent()));
        }
      }
    }
    return reached;
  }
}
