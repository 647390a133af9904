package joiner.format;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.Kit;
import joiner.model.KitId;
import joiner.model.KitUse;
import joiner.model.Table;

/** Kits of the design, and which fields of a table come from one. */
final class KitJson {
  private static final String KITS = "kits";
  private static final String KIT = "kit";
  private static final String FIELDS = "fields";
  private static final String FROM = "from";

  private KitJson() {}

  static List<Kit> read(Members more, Path file) throws UnreadableFileException {
    var kits = new ArrayList<Kit>();
    for (Json json : more.list(KITS)) {
      var kit = new Members(json, file, "a kit");
      String label = kit.text("name");
      var fields = new ArrayList<Field>();
      for (Json field : kit.list(FIELDS)) {
        fields.add(FieldJson.read(field, file).field());
      }
      try {
        kits.add(new Kit(new KitId(kit.optionalText("id").orElse(label)), label, fields));
      } catch (IllegalArgumentException refused) {
        throw kit.problem(refused.getMessage() + ".");
      }
    }
    return kits;
  }

  static void write(List<Kit> kits, Json.Obj more) {
    if (!kits.isEmpty()) {
      more.put(KITS, new Json.Arr(kits.stream().map(KitJson::write).toList(), 0));
    }
  }

  private static Json write(Kit kit) {
    List<Json> fields = kit.fields().stream().map(field -> FieldJson.write(field, false)).toList();
    return TableJson.named(kit.id().value(), kit.label()).put(FIELDS, new Json.Arr(fields, 0));
  }

  /**
   * The kit that a group's fields come from.
   *
   * @param ids of the table's fields, by name
   */
  static Optional<KitUse> use(Members group, Map<String, FieldId> ids)
      throws UnreadableFileException {
    Optional<String> kit = group.optionalText(KIT);
    if (kit.isEmpty()) {
      return Optional.empty();
    }
    Map<FieldId, FieldId> fields = new LinkedHashMap<>();
    for (Json json : group.list(FROM)) {
      Members pair = group.inside(json, "a field of a kit");
      List<String> own = List.of(pair.text("field"));
      fields.put(new FieldId(pair.text("is")), TableJson.ids(pair, "field", own, ids).getFirst());
    }
    return Optional.of(KitUse.of(new KitId(kit.get()), fields));
  }

  static void write(Table table, FieldGroup group, Json.Obj json) {
    group
        .use()
        .ifPresent(
            use -> {
              var pairs = new ArrayList<Json>();
              use.fields()
                  .forEach(
                      (ofKit, own) ->
                          pairs.add(
                              new Json.Obj()
                                  .put("field", table.field(own).name())
                                  .put("is", ofKit.value())));
              json.put(KIT, use.kit().value()).put(FROM, new Json.Arr(pairs, 0));
            });
  }
}
