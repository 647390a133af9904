package joiner.format;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.expression.Formula;
import joiner.model.FieldId;
import joiner.model.Picking;
import joiner.model.Table;

/** How parents are picked over a relationship, as the member {@code picking} of its own part. */
final class PickingJson {
  static final String NAME = "picking";

  private PickingJson() {}

  /**
   * What is said of it; the usual way where nothing is.
   *
   * @param fields the parent's, by name
   */
  static Picking read(Members more, Map<String, FieldId> fields) throws UnreadableFileException {
    Members members = more.object(NAME);
    Optional<Integer> atOnce = members.number("atOnce").filter(n -> n > 0);
    var picking =
        new Picking(
            TableJson.ids(members, "shown", members.texts("shown"), fields),
            TableJson.ids(members, "order", members.texts("order"), fields),
            members.optionalText("only").map(Formula::new),
            atOnce.map(OptionalInt::of).orElse(OptionalInt.empty()),
            members.flag("mayAdd"));
    if (!members.rest().byProperty().isEmpty()) {
      throw members.problem(
          "a picking has shown, order, only, atOnce and mayAdd, not "
              + String.join(", ", members.rest().byProperty().keySet())
              + ".");
    }
    return picking;
  }

  static void write(Picking picking, Table parent, Json.Obj more) {
    var json = new Json.Obj();
    putNames(json, "shown", picking.shown(), parent);
    putNames(json, "order", picking.order(), parent);
    picking.only().ifPresent(condition -> json.put("only", condition.text()));
    picking.atOnce().ifPresent(most -> json.put("atOnce", most));
    if (picking.mayAdd()) {
      json.put("mayAdd", true);
    }
    if (!json.members().isEmpty()) {
      more.put(NAME, json);
    }
  }

  private static void putNames(Json.Obj json, String name, List<FieldId> ids, Table parent) {
    List<FieldId> there = ids.stream().filter(parent::hasField).toList();
    if (!there.isEmpty()) {
      json.put(name, Json.Arr.of(parent.namesOf(there)));
    }
  }
}
