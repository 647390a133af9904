package joiner.split;

import java.util.stream.Collectors;
import joiner.edit.Edit;
import joiner.edit.EditRefusedException;
import joiner.meaning.Draft;
import joiner.model.Table;
import joiner.model.TableId;

/** Splits a table by what has been confirmed about it, with all its rows, as one change. */
public record SplitTable(TableId table, String label, SplitChoices choices) implements Edit {
  @Override
  public String name() {
    return "split " + label;
  }

  @Override
  public Draft apply(Draft draft) {
    Split split = Split.of(draft, table, choices);
    return split
        .after()
        .orElseThrow(
            () -> {
              Split.Open first = split.open().getFirst();
              Table owner = draft.design().table(table);
              return new EditRefusedException(
                  first.contradictions().size()
                      + " contradictions are not settled: "
                      + owner.labelsOf(first.decision().determinant()).stream()
                          .collect(Collectors.joining(" and "))
                      + " should decide "
                      + owner.field(first.decision().decided()).label()
                      + ", but "
                      + String.join(", ", first.contradictions().getFirst().determinant())
                      + " has "
                      + first.contradictions().getFirst().values().size()
                      + " values. Choose one, or drop the dependency.");
            });
  }
}
