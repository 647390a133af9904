package joiner.edit;

import java.util.Optional;
import java.util.stream.Stream;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Pin;
import joiner.model.TableId;

/**
 * Says where the board of a table is wanted on the map.
 *
 * @param label of the table
 * @param pin where; empty: wherever Joiner puts it
 */
public record PinBoard(TableId table, String label, Optional<Pin> pin) implements Edit {
  @Override
  public String name() {
    return pin.isPresent() ? "pin " + label + " on the map" : "let " + label + " go on the map";
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    Stream<Pin> others = design.pins().stream().filter(other -> !other.table().equals(table));
    return draft.withDesign(design.withPins(Stream.concat(others, pin.stream()).toList()));
  }
}
