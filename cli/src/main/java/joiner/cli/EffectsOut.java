package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import joiner.compare.Effect;

/** Prints what changes do. */
final class EffectsOut {
  private EffectsOut() {}

  static void print(List<Effect> effects, boolean json, PrintWriter out) throws IOException {
    if (json) {
      JsonOut.print(Map.of("changes", effects.stream().map(EffectsOut::document).toList()), out);
    } else {
      effects.forEach(
          effect -> out.println(String.format("%-9s", effect.risk().id()) + effect.message()));
    }
  }

  private static Map<String, Object> document(Effect effect) {
    Map<String, Object> item = new LinkedHashMap<>();
    item.put("kind", effect.kind().id());
    item.put("table", JsonOut.orNull(effect.table()));
    item.put("field", JsonOut.orNull(effect.field()));
    item.put("risk", effect.risk().id());
    item.put("message", effect.message());
    return item;
  }
}
