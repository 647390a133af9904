package joiner.format;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import joiner.model.Design;
import joiner.model.Pin;
import joiner.model.Table;

/** Where boards of the map are wanted; tables are told by their names. */
final class PinJson {
  private static final String PINS = "pins";

  private PinJson() {}

  static List<Pin> read(Members more, Map<String, Table> tables, Path file)
      throws UnreadableFileException {
    var pins = new ArrayList<Pin>();
    for (Json json : more.list(PINS)) {
      var pin = new Members(json, file, "a pin");
      Table table = tables.get(pin.text("table"));
      if (table == null) {
        throw pin.problem("There is no table " + pin.text("table") + " to be pinned.");
      }
      try {
        pins.add(new Pin(table.id(), pin.number("across").orElse(0), pin.number("down").orElse(0)));
      } catch (IllegalArgumentException refused) {
        throw pin.problem(refused.getMessage() + ".");
      }
    }
    return pins;
  }

  static void write(Design design, Json.Obj more) {
    List<Json> pins =
        design.pins().stream()
            .<Json>map(
                pin ->
                    new Json.Obj()
                        .put("table", design.table(pin.table()).name())
                        .put("across", pin.across())
                        .put("down", pin.down()))
            .toList();
    if (!pins.isEmpty()) {
      more.put(PINS, new Json.Arr(pins, 0));
    }
  }
}
