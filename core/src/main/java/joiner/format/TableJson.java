package joiner.format;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import joiner.expression.Formula;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.GroupId;
import joiner.model.Index;
import joiner.model.IndexId;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.RuleId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.model.UniqueKey;
import joiner.naming.NamingPolicy;

/** A table as a Data Package resource with a Table Schema. */
final class TableJson {
  private static final String FORMAT = "csv";
  private static final String MEDIA_TYPE = "text/csv";

  private TableJson() {}

  /** A table with the parts of its resource that are not the table's own. */
  record Read(
      Table table,
      List<Json> foreignKeys,
      List<String> paths,
      Optional<Json> inline,
      Optional<Json> link) {}

  static Read read(Members resource, Path file) throws UnreadableFileException {
    String name =
        resource
            .optionalText("name")
            .filter(n -> !n.isBlank())
            .orElseThrow(() -> resource.problem("a resource needs a “name”."));
    Members schema = resource.object("schema");
    Members more = resource.object(DataPackage.MORE);
    var fields = new ArrayList<Field>();
    var singles = new ArrayList<String>();
    for (Json json : schema.list("fields")) {
      FieldJson.Read read = FieldJson.read(json, file);
      fields.add(read.field());
      if (read.unique()) {
        singles.add(read.field().name());
      }
    }
    Map<String, FieldId> ids = new LinkedHashMap<>();
    fields.forEach(field -> ids.put(field.name(), field.id()));
    List<UniqueKey> uniques = UniqueKeysJson.read(name, singles, schema, more, ids, file);
    List<FieldId> primary = ids(schema, "primaryKey", schema.texts("primaryKey"), ids);
    List<Json> foreign = schema.list("foreignKeys");
    Table table;
    try {
      table = table(resource, schema, more, name, fields, primary, uniques, ids, file);
    } catch (IllegalArgumentException e) {
      throw schema.problem(e.getMessage() + ".");
    }
    List<String> paths = resource.texts("path");
    Optional<Json> inline = resource.any("data");
    Optional<Json> link = more.any(LinkJson.PROPERTY);
    return new Read(withExtras(table, resource, schema, more, paths), foreign, paths, inline, link);
  }

  private static Table table(
      Members resource,
      Members schema,
      Members more,
      String name,
      List<Field> fields,
      List<FieldId> primary,
      List<UniqueKey> uniques,
      Map<String, FieldId> ids,
      Path file)
      throws UnreadableFileException {
    String label = resource.optionalText("title").orElse(NamingPolicy.labelFor(name));
    List<String> said = more.texts("noun");
    Noun noun = Noun.ofLabel(label);
    if (!said.isEmpty()) {
      String plural = said.size() > 1 ? said.get(1) : NamingPolicy.plural(said.getFirst());
      noun = new Noun(said.getFirst(), plural);
    }
    return new Table(
        new TableId(more.optionalText("id").orElse(name)),
        name,
        label,
        noun,
        more.text("icon"),
        resource.text("description"),
        more.optionalText("area").filter(area -> !area.isBlank()).map(AreaId::new),
        kind(more, ids),
        fields,
        primary,
        uniques,
        indexes(more, ids, file),
        more.optionalText("rowLabel").map(Formula::new),
        rules(more, ids, file),
        groups(more, ids, file),
        ListingJson.read(more, ids),
        FactsJson.read(more, ids),
        Extras.NONE);
  }

  private static TableKind kind(Members more, Map<String, FieldId> ids)
      throws UnreadableFileException {
    String kind = more.text("kind");
    return switch (kind) {
      case "" -> new TableKind.Plain();
      case "lookup" ->
          new TableKind.Lookup(field(more, "sortBy", ids), field(more, "retired", ids));
      case "join" -> {
        List<String> sides = more.texts("joins");
        if (sides.size() != 2) {
          throw more.problem("a join table names two relationships in “joins”.");
        }
        yield new TableKind.Join(
            new RelationshipId(sides.get(0)), new RelationshipId(sides.get(1)));
      }
      default -> throw more.problem("“kind” is lookup or join, not “" + kind + "”.");
    };
  }

  private static Optional<FieldId> field(Members more, String what, Map<String, FieldId> ids)
      throws UnreadableFileException {
    Optional<String> name = more.optionalText(what);
    return name.isEmpty()
        ? Optional.empty()
        : Optional.of(ids(more, what, List.of(name.get()), ids).getFirst());
  }

  private static List<Index> indexes(Members more, Map<String, FieldId> ids, Path file)
      throws UnreadableFileException {
    var indexes = new ArrayList<Index>();
    for (Json json : more.list("indexes")) {
      var index = new Members(json, file, "an index");
      String name = index.text("name");
      var id = new IndexId(index.optionalText("id").orElse(name));
      indexes.add(
          new Index(
              id,
              name,
              ids(index, "fields", index.texts("fields"), ids),
              Set.copyOf(ids(index, "descending", index.texts("descending"), ids))));
    }
    return indexes;
  }

  private static List<FieldGroup> groups(Members more, Map<String, FieldId> ids, Path file)
      throws UnreadableFileException {
    var groups = new ArrayList<FieldGroup>();
    for (Json json : more.list("groups")) {
      var group = new Members(json, file, "a group");
      String label = group.text("name");
      groups.add(
          new FieldGroup(
              new GroupId(group.optionalText("id").orElse(label)),
              label,
              group.text("kind"),
              ids(group, "fields", group.texts("fields"), ids),
              KitJson.use(group, ids)));
    }
    return groups;
  }

  private static List<Rule> rules(Members more, Map<String, FieldId> ids, Path file)
      throws UnreadableFileException {
    var rules = new ArrayList<Rule>();
    for (Json json : more.list("rules")) {
      var rule = new Members(json, file, "a rule");
      String name = rule.text("name");
      rules.add(
          new Rule(
              new RuleId(rule.optionalText("id").orElse(name)),
              name,
              rule.optionalText("label").orElse(NamingPolicy.labelFor(name)),
              DemandJson.read(rule, ids),
              rule.text("message")));
    }
    return rules;
  }

  static List<FieldId> ids(Members at, String what, List<String> names, Map<String, FieldId> ids)
      throws UnreadableFileException {
    var found = new ArrayList<FieldId>();
    for (String name : names) {
      FieldId id = ids.get(name);
      if (id == null) {
        throw at.problem(
            "“"
                + what
                + "” names the field “"
                + name
                + "”, which is not there; the fields are "
                + String.join(", ", ids.keySet())
                + ".");
      }
      found.add(id);
    }
    return found;
  }

  private static Table withExtras(
      Table table, Members resource, Members schema, Members more, List<String> paths)
      throws UnreadableFileException {
    resource.any("type");
    Map<String, String> extras = new LinkedHashMap<>();
    if (!paths.isEmpty()) {
      extras.put(
          "path",
          JsonText.line(
              paths.size() == 1 ? new Json.Text(paths.getFirst(), 0) : Json.Arr.of(paths)));
    }
    extras.putAll(resource.rest().byProperty());
    extras.remove("format", JsonText.line(new Json.Text(FORMAT, 0)));
    extras.remove("mediatype", JsonText.line(new Json.Text(MEDIA_TYPE, 0)));
    schema.rest().byProperty().forEach((key, value) -> extras.put("schema/" + key, value));
    more.rest()
        .byProperty()
        .forEach((key, value) -> extras.put(DataPackage.MORE + "/" + key, value));
    return table.withExtras(new Extras(extras));
  }

  /**
   * The resource of a table.
   *
   * @param paths where its rows stand; none: it can have no rows yet, or they stay elsewhere
   * @param link where they stay, if so
   */
  static Json write(
      Design design,
      Table table,
      List<String> paths,
      Optional<Json> link,
      List<Relationship> foreign) {
    var resource = new Json.Obj();
    resource.put("name", table.name()).put("type", "table");
    switch (paths.size()) {
      case 0 -> resource.put("data", new Json.Arr(List.of(), 0));
      case 1 -> resource.put("path", paths.getFirst());
      default -> resource.put("path", Json.Arr.of(paths));
    }
    if (!paths.isEmpty()) {
      resource.put("format", FORMAT).put("mediatype", MEDIA_TYPE);
    }
    resource.put("title", table.label());
    resource.putIfAny("description", table.description());
    var schema = new Json.Obj();
    var more = new Json.Obj();
    writeMore(design, table, more);
    link.ifPresent(json -> more.put(LinkJson.PROPERTY, json));
    writeSchema(design, table, foreign, schema);
    Map<String, String> extras = new LinkedHashMap<>(table.extras().byProperty());
    extras.remove("path");
    ExtrasJson.write(
        new Extras(extras), resource, Map.of("schema", schema, DataPackage.MORE, more));
    resource.put("schema", schema);
    if (!more.members().isEmpty()) {
      resource.put(DataPackage.MORE, more);
    }
    return resource;
  }

  private static void writeSchema(
      Design design, Table table, List<Relationship> foreign, Json.Obj schema) {
    List<List<FieldId>> single =
        table.uniqueKeys().stream()
            .map(UniqueKey::fields)
            .filter(fields -> fields.size() == 1)
            .toList();
    schema.put(
        "fields",
        new Json.Arr(
            table.fields().stream()
                .map(f -> FieldJson.write(f, single.contains(List.of(f.id()))))
                .toList(),
            0));
    if (!table.primaryKey().isEmpty()) {
      schema.put("primaryKey", Json.Arr.of(table.namesOf(table.primaryKey())));
    }
    UniqueKeysJson.writeStandard(table, schema);
    if (!foreign.isEmpty()) {
      schema.put(
          "foreignKeys",
          new Json.Arr(foreign.stream().map(r -> RelationshipJson.write(design, r)).toList(), 0));
    }
  }

  private static void writeMore(Design design, Table table, Json.Obj more) {
    if (!table.id().value().equals(table.name())) {
      more.put("id", table.id().value());
    }
    Noun usual = Noun.ofLabel(table.label());
    if (!table.noun().equals(usual)) {
      more.put("noun", Json.Arr.of(List.of(table.noun().singular(), table.noun().plural())));
    }
    more.putIfAny("icon", table.icon());
    design.areaOf(table).ifPresent(area -> more.put("area", area.name()));
    switch (table.kind()) {
      case TableKind.Plain plain -> {}
      case TableKind.Lookup lookup -> {
        more.put("kind", "lookup");
        lookup.sortBy().ifPresent(field -> more.put("sortBy", table.field(field).name()));
        lookup.retired().ifPresent(field -> more.put("retired", table.field(field).name()));
      }
      case TableKind.Join join -> {
        more.put("kind", "join");
        more.put("joins", Json.Arr.of(List.of(join.first().value(), join.second().value())));
      }
    }
    table.rowLabel().ifPresent(label -> more.put("rowLabel", label.text()));
    UniqueKeysJson.writeOrder(table, more);
    if (!table.indexes().isEmpty()) {
      more.put(
          "indexes",
          new Json.Arr(table.indexes().stream().map(index -> write(table, index)).toList(), 0));
    }
    if (!table.rules().isEmpty()) {
      more.put(
          "rules",
          new Json.Arr(table.rules().stream().map(rule -> write(table, rule)).toList(), 0));
    }
    if (!table.groups().isEmpty()) {
      more.put(
          "groups",
          new Json.Arr(table.groups().stream().map(group -> write(table, group)).toList(), 0));
    }
    ListingJson.write(table, more);
    FactsJson.write(table, more);
  }

  /** A thing with its name, and its id where that is another. */
  static Json.Obj named(String id, String name) {
    var json = new Json.Obj();
    if (!id.equals(name)) {
      json.put("id", id);
    }
    return json.put("name", name);
  }

  private static Json write(Table table, Index index) {
    Json.Obj json =
        named(index.id().value(), index.name())
            .put("fields", Json.Arr.of(table.namesOf(index.fields())));
    if (!index.descending().isEmpty()) {
      List<FieldId> down = index.fields().stream().filter(index.descending()::contains).toList();
      json.put("descending", Json.Arr.of(table.namesOf(down)));
    }
    return json;
  }

  private static Json write(Table table, FieldGroup group) {
    Json.Obj json = named(group.id().value(), group.label());
    json.putIfAny("kind", group.kind());
    json.put("fields", Json.Arr.of(table.namesOf(group.fields())));
    KitJson.write(table, group, json);
    return json;
  }

  private static Json write(Table table, Rule rule) {
    Json.Obj json = named(rule.id().value(), rule.name());
    if (!rule.label().equals(NamingPolicy.labelFor(rule.name()))) {
      json.put("label", rule.label());
    }
    DemandJson.write(rule.demand(), json, table);
    return json.put("message", rule.message());
  }
}
