package joiner.desktop.preview;

import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.beans.property.ReadOnlyObjectProperty;
import joiner.compare.Effect;
import joiner.compare.Foreseen;
import joiner.compare.Risk;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Workbench;
import joiner.map.MapLayout;
import joiner.model.Design;
import joiner.model.TableId;

/** The change that is proposed, tried in the background. */
final class PreviewModel {
  /** More boards could not be read side by side. */
  private static final int MOST_BOARDS = 6;

  private final Workbench bench;
  private final Computed<Workbench.Proposal, Shown> tried;

  /**
   * What is shown of a change.
   *
   * @param today boards of what is touched; empty where there are too many to be read
   * @param then likewise
   */
  record Shown(Foreseen foreseen, Optional<MapLayout> today, Optional<MapLayout> then) {
    /** What the change does that counts do not tell, the gravest first. */
    List<Effect> effects() {
      return foreseen.impact().effects().stream()
          .filter(effect -> effect.kind() != Effect.Kind.ORDER_CHANGED)
          .filter(effect -> !isCounted(effect) && !foreseen.livesOn(effect))
          .sorted(Comparator.comparing(Effect::risk).reversed())
          .toList();
    }

    private static boolean isCounted(Effect effect) {
      return switch (effect.kind()) {
        case TABLE_REMOVED, FIELD_REMOVED -> effect.risk() != Risk.LOSES;
        case TABLE_ADDED, FIELD_ADDED, RELATIONSHIP_ADDED, RELATIONSHIP_REMOVED, INDEX_CHANGED ->
            true;
        case ROWS_CHANGED -> effect.risk() == Risk.ADDS;
        default -> false;
      };
    }
  }

  PreviewModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.tried =
        new Computed<>(
            bench.runner(),
            texts.get("working"),
            Lane.WORKING,
            (one, other) -> one == other,
            (proposal, progress) -> shown(proposal, bench));
  }

  private static Shown shown(Workbench.Proposal proposal, Workbench bench) {
    Foreseen foreseen =
        Foreseen.of(proposal.edit(), proposal.before(), proposal.after(), bench.clock());
    Design today = foreseen.before().design();
    Design then = foreseen.after().design();
    return new Shown(
        foreseen,
        boards(today, foreseen.touchedToday(), then, false),
        boards(then, foreseen.touchedThen(), today, true));
  }

  private static Optional<MapLayout> boards(
      Design design, List<TableId> touched, Design other, boolean isThen) {
    Set<TableId> tables = new HashSet<>(touched);
    return tables.isEmpty() || tables.size() > MOST_BOARDS
        ? Optional.empty()
        : Optional.of(MapLayout.beside(design, tables, other, isThen));
  }

  ReadOnlyObjectProperty<Answer<Shown>> shownProperty() {
    return tried.answerProperty();
  }

  /** Tries a change. */
  void ask(Workbench.Proposal proposal) {
    tried.ask(proposal);
  }

  void accept() {
    bench.accept();
  }

  void leave() {
    bench.dismiss();
  }
}
