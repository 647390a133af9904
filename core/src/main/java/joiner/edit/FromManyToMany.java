package joiner.edit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;

/**
 * Turns many-to-many back into one-to-many: the join table goes and one side gets a foreign key. It
 * is refused where a row of that side has several links, or where the join table holds more than
 * the pair.
 *
 * @param join the join table
 * @param toChild the relationship from the join table to the side that gets the foreign key
 */
public record FromManyToMany(TableId join, RelationshipId toChild, String name) implements Edit {
  @Override
  public boolean reachesFar() {
    return true;
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    Table pair = design.table(join);
    if (!(pair.kind() instanceof TableKind.Join kind)) {
      throw new EditRefusedException(pair.label() + " is no join table.");
    }
    Relationship child = design.relationship(toChild);
    Relationship parent =
        design.relationship(kind.first().equals(toChild) ? kind.second() : kind.first());
    InFile.requireHeld(draft, pair.id());
    InFile.requireHeld(draft, child.parent());
    requireOnlyPair(pair, child, parent);
    requireUnreferred(design, pair);
    Map<List<Optional<String>>, List<Optional<String>>> links = links(draft, pair, child, parent);
    return collapse(draft, child, parent, links);
  }

  private static void requireOnlyPair(Table pair, Relationship child, Relationship parent) {
    List<String> more =
        pair.fields().stream()
            .filter(
                f ->
                    !child.childFields().contains(f.id()) && !parent.childFields().contains(f.id()))
            .map(Field::label)
            .toList();
    if (!more.isEmpty()) {
      throw new EditRefusedException(
          pair.label()
              + " also holds "
              + String.join(", ", more)
              + ", which would be lost; move or remove it first.");
    }
  }

  private static void requireUnreferred(Design design, Table pair) {
    for (Relationship referring : design.childrenOf(pair.id())) {
      throw new EditRefusedException(
          design.table(referring.child()).label()
              + " refers to the links of "
              + pair.label()
              + ", which would go; remove the relationship "
              + referring.name()
              + " first.");
    }
  }

  private static Map<List<Optional<String>>, List<Optional<String>>> links(
      Draft draft, Table pair, Relationship child, Relationship parent) {
    Rows rows = draft.rows().of(pair.id());
    Map<List<Optional<String>>, List<Optional<String>>> links = new HashMap<>();
    for (int row = 0; row < rows.count(); row++) {
      List<Optional<String>> from = rows.row(row, child.childFields());
      if (links.putIfAbsent(from, rows.row(row, parent.childFields())) != null) {
        String singular = draft.design().table(child.parent()).noun().singular();
        String key = String.join(", ", from.stream().map(part -> part.orElse("")).toList());
        throw new EditRefusedException(
            "Row "
                + (row + 1)
                + " of "
                + pair.label()
                + " is a second link of "
                + singular
                + " "
                + key
                + "; a foreign key holds one. Remove the extra links first.");
      }
    }
    return links;
  }

  private Draft collapse(
      Draft draft,
      Relationship child,
      Relationship parent,
      Map<List<Optional<String>>, List<Optional<String>>> links) {
    Table one = draft.design().table(child.parent());
    Table other = draft.design().table(parent.parent());
    Draft changed = new RemoveTable(join, "").apply(draft);
    List<FieldId> oneKey = child.parentFields();
    Rows rows = changed.rows().of(one.id());
    var key = new ArrayList<FieldId>();
    for (int part = 0; part < parent.parentFields().size(); part++) {
      Table growing = changed.design().table(one.id());
      Field field = foreignKeyField(growing, other.field(parent.parentFields().get(part)), other);
      key.add(field.id());
      var values = new ArrayList<Optional<String>>(rows.count());
      for (int row = 0; row < rows.count(); row++) {
        int index = part;
        values.add(
            Optional.ofNullable(links.get(rows.row(row, oneKey))).flatMap(l -> l.get(index)));
      }
      changed = new AddField(one.id(), field).apply(changed);
      changed =
          changed.withRows(changed.rows().with(one.id(), r -> r.withColumn(field.id(), values)));
    }
    Table grown = changed.design().table(one.id());
    var index = new Index(ConstraintNaming.index(one.name(), List.of(other.name())), key);
    return Edit.all(
            name,
            List.of(
                new AddRelationship(direct(changed.design(), one, key, child, parent)),
                ChangeTable.addIndex(grown, index)))
        .apply(changed);
  }

  /** The relationship that takes the place of the two of the join table. */
  private static Relationship direct(
      Design design, Table one, List<FieldId> key, Relationship child, Relationship parent) {
    String other = design.table(parent.parent()).name();
    String name =
        NamingPolicy.free(
            ConstraintNaming.reference(one.name(), List.of(other)),
            design.relationships().stream().map(Relationship::name).toList());
    return design.unused(
        Relationship.of(name, one.id(), key, parent.parent(), parent.parentFields())
            .withRoles(child.parentRole(), parent.parentRole())
            .withActions(ReferentialAction.NO_ACTION, parent.onUpdate())
            .withPicking(parent.picking()));
  }

  private static Field foreignKeyField(Table one, Field key, Table other) {
    String wanted =
        key.name().contains(other.name()) ? key.name() : other.name() + "_" + key.name();
    String name = NamingPolicy.free(wanted, one.fieldsByName().keySet());
    return one.unused(Field.of(name, NamingPolicy.labelFor(name), key.type().asReferenced()));
  }
}
