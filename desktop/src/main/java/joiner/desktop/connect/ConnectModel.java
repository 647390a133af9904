package joiner.desktop.connect;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleIntegerProperty;
import joiner.desktop.map.MapLayout;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.edit.Relating;
import joiner.model.Design;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;

/** What the stage Connect is about and does, without a window: what the map shows, and relating. */
final class ConnectModel {
  /** How many steps the focus may reach. */
  static final int FARTHEST = 3;

  private final Workbench bench;
  private final Computed<Drawn, MapLayout> layout;
  private final IntegerProperty steps = new SimpleIntegerProperty(0);

  /** What is drawn. */
  private record Drawn(Design design, Set<TableId> tables) {}

  ConnectModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.layout =
        new Computed<>(
            bench.runner(),
            texts.get("layout.working"),
            Lane.WORKING,
            Drawn::equals,
            (drawn, progress) -> MapLayout.of(drawn.design(), drawn.tables()));
  }

  /** How far around the chosen table the map goes; 0 for everything. */
  IntegerProperty stepsProperty() {
    return steps;
  }

  /** Where everything lies. */
  ReadOnlyObjectProperty<Answer<MapLayout>> layoutProperty() {
    return layout.answerProperty();
  }

  /** Says whether somebody looks at the map. */
  void look(boolean now) {
    layout.look(now);
  }

  /** Has everything that is to be drawn laid out. */
  void layOut() {
    layout.ask(new Drawn(bench.design(), drawn()));
  }

  /** The tables that are drawn: all, or those that so many relationships lead to. */
  Set<TableId> drawn() {
    Design design = bench.design();
    if (steps.get() == 0 || bench.table().isEmpty()) {
      return new HashSet<>(design.tables().stream().map(Table::id).toList());
    }
    Set<TableId> reached = new HashSet<>(Set.of(bench.table().get().id()));
    for (int step = 0; step < steps.get(); step++) {
      var before = Set.copyOf(reached);
      for (Relationship r : design.relationships()) {
        if (before.contains(r.child()) || before.contains(r.parent())) {
          reached.addAll(List.of(r.child(), r.parent()));
        }
      }
    }
    return reached;
  }

  /** Gives the chosen table a parent, and chooses the relationship. */
  void relate(Table parent) {
    Optional<Table> chosen = bench.table();
    if (chosen.isEmpty()) {
      return;
    }
    TableId child = chosen.get().id();
    List<Relationship> before = bench.design().parentsOf(child);
    bench.apply(() -> Relating.link(bench.design(), chosen.get(), parent));
    bench.design().parentsOf(child).stream()
        .filter(link -> !before.contains(link))
        .findFirst()
        .ifPresent(link -> bench.selectionProperty().set(Selection.of(child, link.id())));
  }
}
