package joiner.edit;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Extras;
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
  public Draft apply(Draft draft) {
    Design design = draft.design();
    Table pair = design.table(join);
    if (!(pair.kind() instanceof TableKind.Join kind)) {
      throw new EditRefusedException(pair.label() + " is no join table.");
    }
    Relationship child = design.relationship(toChild);
    Relationship parent =
        design.relationship(kind.first().equals(toChild) ? kind.second() : kind.first());
    requireOnlyPair(pair, child, parent);
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
    var key = new java.util.ArrayList<FieldId>();
    Rows rows = changed.rows().of(one.id());
    for (int part = 0; part < parent.parentFields().size(); part++) {
      Field field =
          foreignKeyField(
              changed.design().table(one.id()),
              other.field(parent.parentFields().get(part)),
              other);
      key.add(field.id());
      changed = new AddField(one.id(), field).apply(changed);
      int index = part;
      List<FieldId> oneKey = child.parentFields();
      List<Optional<String>> values =
          java.util.stream.IntStream.range(0, rows.count())
              .mapToObj(
                  row ->
                      Optional.ofNullable(links.get(rows.row(row, oneKey)))
                          .flatMap(link -> link.get(index)))
              .toList();
      changed =
          changed.withRows(changed.rows().with(one.id(), r -> r.withColumn(field.id(), values)));
    }
    String name = ConstraintNaming.reference(one.name(), List.of(other.name()));
    var relationship =
        new Relationship(
            new RelationshipId(name),
            name,
            one.id(),
            key,
            other.id(),
            parent.parentFields(),
            child.parentRole(),
            parent.parentRole(),
            false,
            ReferentialAction.NO_ACTION,
            parent.onUpdate(),
            Extras.NONE);
    Draft related = new AddRelationship(relationship).apply(changed);
    return related.withDesign(
        related
            .design()
            .withTable(
                one.id(),
                t ->
                    t.withIndexAdded(
                        new Index(
                            ConstraintNaming.index(one.name(), List.of(other.name())), key))));
  }

  private static Field foreignKeyField(Table one, Field key, Table other) {
    String wanted =
        key.name().contains(other.name()) ? key.name() : other.name() + "_" + key.name();
    String name = NamingPolicy.free(wanted, one.fieldsByName().keySet());
    return one.unused(Field.of(name, NamingPolicy.labelFor(name), key.type().asReferenced()));
  }
}
