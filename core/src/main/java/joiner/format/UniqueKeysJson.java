package joiner.format;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import joiner.model.FieldId;
import joiner.model.KeyId;
import joiner.model.Table;
import joiner.model.UniqueKey;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;

/**
 * Unique keys as the standard states them, a constraint of one field or a list of several, and
 * beside it their names and order where these are not the usual ones. What the standard's part says
 * counts; somebody may have edited only that.
 */
final class UniqueKeysJson {
  private UniqueKeysJson() {}

  /**
   * The unique keys of a table.
   *
   * @param singles names of the fields that say themselves that they are unique
   */
  static List<UniqueKey> read(
      String table,
      List<String> singles,
      Members schema,
      Members more,
      Map<String, FieldId> ids,
      Path file)
      throws UnreadableFileException {
    var stated = new ArrayList<List<String>>();
    singles.forEach(single -> stated.add(List.of(single)));
    for (Json json : schema.list("uniqueKeys")) {
      var key = new Members(new Json.Obj(Map.of("uniqueKeys", json), json.line()), file, "a key");
      stated.add(key.texts("uniqueKeys"));
    }
    var keys = new ArrayList<UniqueKey>();
    for (Json json : more.list("uniqueKeys")) {
      var named = new Members(json, file, "a unique key");
      List<String> fields = named.texts("fields");
      if (stated.remove(fields)) {
        String name = named.text("name");
        var id = new KeyId(named.optionalText("id").orElse(name));
        keys.add(new UniqueKey(id, name, TableJson.ids(named, "fields", fields, ids)));
      }
    }
    List<String> names = more.texts("uniqueNames"); // As designs of the first format name them.
    for (int i = 0; i < stated.size(); i++) {
      String usual = usualName(table, stated.get(i));
      String name = i < names.size() ? names.get(i) : usual;
      keys.add(
          new UniqueKey(free(name, keys), TableJson.ids(schema, "uniqueKeys", stated.get(i), ids)));
    }
    return keys;
  }

  private static String free(String name, List<UniqueKey> keys) {
    var taken = new HashSet<String>();
    keys.forEach(key -> taken.addAll(List.of(key.name(), key.id().value())));
    return NamingPolicy.free(name, taken);
  }

  private static String usualName(String table, List<String> fields) {
    return ConstraintNaming.unique(table, fields);
  }

  private static UniqueKey usual(Table table, List<FieldId> fields, List<UniqueKey> before) {
    return new UniqueKey(free(usualName(table.name(), table.namesOf(fields)), before), fields);
  }

  /** What the standard says of several fields together. */
  static void writeStandard(Table table, Json.Obj schema) {
    List<Json> several = new ArrayList<>();
    for (List<FieldId> fields : beyondSingles(table)) {
      several.add(Json.Arr.of(table.namesOf(fields)));
    }
    if (!several.isEmpty()) {
      schema.put("uniqueKeys", new Json.Arr(several, 0));
    }
  }

  /** Keys of several fields, and further keys of a field that is unique already. */
  private static List<List<FieldId>> beyondSingles(Table table) {
    var singles = new HashSet<List<FieldId>>();
    return table.uniqueKeys().stream()
        .map(UniqueKey::fields)
        .filter(fields -> fields.size() > 1 || !singles.add(fields))
        .toList();
  }

  /** Names and order, where they would not be read back from the standard's part. */
  static void writeOrder(Table table, Json.Obj more) {
    var readBack = new ArrayList<UniqueKey>();
    for (FieldId field : table.fieldIds()) {
      if (table.uniqueKeys().stream().anyMatch(key -> key.fields().equals(List.of(field)))) {
        readBack.add(usual(table, List.of(field), readBack));
      }
    }
    beyondSingles(table).forEach(fields -> readBack.add(usual(table, fields, readBack)));
    if (!readBack.equals(table.uniqueKeys())) {
      more.put(
          "uniqueKeys",
          new Json.Arr(
              table.uniqueKeys().stream()
                  .<Json>map(
                      key ->
                          TableJson.named(key.id().value(), key.name())
                              .put("fields", Json.Arr.of(table.namesOf(key.fields()))))
                  .toList(),
              0));
    }
  }
}
