package joiner.format;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.naming.ConstraintNaming;

/** A relationship as a Table Schema foreign key of its child. */
final class RelationshipJson {
  private RelationshipJson() {}

  static Relationship read(Json json, Table child, Map<String, Table> tables, Path file)
      throws UnreadableFileException {
    var members = new Members(json, file, "a foreign key");
    Members reference = members.object("reference");
    Members more = members.object(DataPackage.MORE);
    String resource = reference.text("resource");
    Optional<Table> parent =
        resource.isEmpty() ? Optional.of(child) : Optional.ofNullable(tables.get(resource));
    if (parent.isEmpty()) {
      throw reference.problem(
          "the foreign key refers to “"
              + resource
              + "”, which is not there; the tables are "
              + String.join(", ", tables.keySet())
              + ".");
    }
    List<String> names = members.texts("fields");
    List<FieldId> childFields = TableJson.ids(members, "fields", names, ids(child));
    List<FieldId> parentFields =
        TableJson.ids(reference, "fields", reference.texts("fields"), ids(parent.get()));
    if (childFields.isEmpty() || childFields.size() != parentFields.size()) {
      throw members.problem("a foreign key pairs as many fields as it refers to, at least one.");
    }
    String name = more.optionalText("name").orElse(ConstraintNaming.reference(child.name(), names));
    var relationship =
        new Relationship(
            new RelationshipId(more.optionalText("id").orElse(name)),
            name,
            child.id(),
            childFields,
            parent.get().id(),
            parentFields,
            more.optionalText("childRole").orElse("belongs to"),
            more.optionalText("parentRole").orElse("has"),
            more.flag("parentNeedsChild"),
            action(more, "onDelete"),
            action(more, "onUpdate"),
            PickingJson.read(more, ids(parent.get())),
            Extras.NONE);
    return withExtras(relationship, members, reference, more);
  }

  private static Relationship withExtras(
      Relationship r, Members members, Members reference, Members more) {
    Map<String, String> extras = new LinkedHashMap<>(members.rest().byProperty());
    reference.rest().byProperty().forEach((key, value) -> extras.put("reference/" + key, value));
    more.rest()
        .byProperty()
        .forEach((key, value) -> extras.put(DataPackage.MORE + "/" + key, value));
    return r.withExtras(new Extras(extras));
  }

  private static Map<String, FieldId> ids(Table table) {
    Map<String, FieldId> ids = new LinkedHashMap<>();
    for (Field field : table.fields()) {
      ids.put(field.name(), field.id());
    }
    return ids;
  }

  private static ReferentialAction action(Members more, String name)
      throws UnreadableFileException {
    String text = more.text(name);
    if (text.isEmpty()) {
      return ReferentialAction.NO_ACTION;
    }
    for (ReferentialAction action : ReferentialAction.values()) {
      if (action.sql().equals(text)) {
        return action;
      }
    }
    throw more.problem(
        "“"
            + name
            + "” is NO ACTION, RESTRICT, CASCADE, SET NULL or SET DEFAULT, not “"
            + text
            + "”.");
  }

  static Json write(Design design, Relationship r) {
    Table child = design.table(r.child());
    Table parent = design.table(r.parent());
    var json = new Json.Obj().put("fields", Json.Arr.of(child.namesOf(r.childFields())));
    var reference = new Json.Obj();
    if (!r.isSelfReference()) {
      reference.put("resource", parent.name());
    }
    reference.put("fields", Json.Arr.of(parent.namesOf(r.parentFields())));
    var more = new Json.Obj();
    String usual = ConstraintNaming.reference(child.name(), child.namesOf(r.childFields()));
    if (!r.id().value().equals(r.name())) {
      more.put("id", r.id().value());
    }
    if (!r.name().equals(usual)) {
      more.put("name", r.name());
    }
    more.put("childRole", r.childRole()).put("parentRole", r.parentRole());
    if (r.parentNeedsChild()) {
      more.put("parentNeedsChild", true);
    }
    writeAction(more, "onDelete", r.onDelete());
    writeAction(more, "onUpdate", r.onUpdate());
    PickingJson.write(r.picking(), parent, more);
    ExtrasJson.write(r.extras(), json, Map.of("reference", reference, DataPackage.MORE, more));
    return json.put("reference", reference).put(DataPackage.MORE, more);
  }

  private static void writeAction(Json.Obj more, String name, ReferentialAction action) {
    if (action != ReferentialAction.NO_ACTION) {
      more.put(name, action.sql());
    }
  }
}
