package joiner.compare;

import java.util.List;
import java.util.Optional;
import joiner.edit.ChoicesToLookup;
import joiner.edit.Edit;
import joiner.edit.EditRefusedException;
import joiner.edit.FoldBack;
import joiner.edit.FromManyToMany;
import joiner.edit.LookupToChoices;
import joiner.edit.Relate;
import joiner.edit.SetChildUnique;
import joiner.edit.ToManyToMany;
import joiner.edit.ToOwnTable;
import joiner.edit.TurnRound;
import joiner.meaning.Draft;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableKind;
import joiner.naming.Counts;

/**
 * What taking a change back by hand would lose, once more was done after it than undo should take
 * back: the edit that leads back is tried on the draft as it would be.
 */
final class WayBack {
  private WayBack() {}

  /** What it would lose, as a sentence; empty where no single edit leads back. */
  static Optional<String> of(Edit edit, Draft before, Draft after) {
    return edit(edit, before, after).map(back -> says(back, before, after));
  }

  private static Optional<Edit> edit(Edit edit, Draft before, Draft after) {
    Optional<Relationship> made = Relate.made(before.design(), after.design());
    Optional<Table> table =
        after.design().tables().stream()
            .filter(t -> before.design().find(t.id()).isEmpty())
            .findFirst();
    return switch (edit) {
      case ToManyToMany to ->
          table
              .filter(t -> t.kind() instanceof TableKind.Join)
              .map(
                  t ->
                      new FromManyToMany(
                          t.id(), ((TableKind.Join) t.kind()).first(), "undo it by hand"));
      case FromManyToMany from -> made.map(r -> new ToManyToMany(r.id(), "undo it by hand"));
      case TurnRound turn -> made.map(r -> new TurnRound(r.id()));
      case ToOwnTable own ->
          table.flatMap(
              t ->
                  after.design().parentsOf(t.id()).stream()
                      .filter(r -> r.parent().equals(own.table()))
                      .findFirst()
                      .map(r -> FoldBack.of(after.design(), r)));
      case ChoicesToLookup choices -> table.map(t -> new LookupToChoices(t.id(), t.label()));
      case SetChildUnique set ->
          Optional.of(new SetChildUnique(set.relationship(), set.name(), !set.unique()));
      default -> Optional.empty();
    };
  }

  private static String says(Edit back, Draft before, Draft after) {
    try {
      Draft again = back.apply(after);
      List<Foreseen.Line> lost =
          Foreseen.counts(before, again).stream().filter(Foreseen.Line::loses).toList();
      if (lost.isEmpty() && Foreseen.links(again) < Foreseen.links(before)) {
        return "Taken back by hand later "
            + Counts.of(Foreseen.links(before) - Foreseen.links(again), "link", "links")
            + " would be lost; undo loses nothing.";
      }
      if (lost.isEmpty()) {
        return "Taken back by hand later, as it would stand then, no row, value or link is lost.";
      }
      Foreseen.Line line = lost.getFirst();
      return "Taken back by hand later something is lost: "
          + line.what()
          + ", "
          + Counts.of(line.today().orElse(0L))
          + " today, would be "
          + Counts.of(line.then().orElse(0L))
          + "; undo loses nothing.";
    } catch (EditRefusedException refused) {
      return "By hand it could not be taken back later: " + refused.getMessage();
    }
  }
}
