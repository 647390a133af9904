package joiner.edit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableKind;
import joiner.naming.NamingPolicy;
import joiner.rows.RowValues;
import joiner.rows.Rows;

/**
 * Turns a relationship round: what was referred to refers, and every link that was there is there
 * still. It is refused where a row has several links, which one reference cannot hold.
 */
public record TurnRound(RelationshipId relationship) implements Edit {
  private static final int SHOWN = 3;

  @Override
  public String name() {
    return "turn the relationship " + relationship + " round";
  }

  @Override
  public boolean reachesFar() {
    return true;
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    Relationship r = design.relationship(relationship);
    Table child = design.table(r.child());
    Table parent = design.table(r.parent());
    require(draft, r, child, parent);
    List<FieldId> key = child.primaryKey();
    Map<List<Value>, Integer> links = links(draft, r, child, parent);
    boolean unique = child.isUnique(r.childFields());
    List<Optional<List<Value>>> keys = tuples(draft, parent, r.parentFields());
    Draft changed = new RemoveRelationship(r.id(), r.name()).apply(draft);
    var fields = new ArrayList<FieldId>();
    for (FieldId part : key) {
      Table growing = changed.design().table(parent.id());
      Field field = fresh(growing, child, child.field(part));
      fields.add(field.id());
      changed = new AddField(parent.id(), field).apply(changed);
      List<Optional<String>> cells = cells(draft, child, part, keys, links);
      changed =
          changed.withRows(
              changed.rows().with(parent.id(), rows -> rows.withColumn(field.id(), cells)));
    }
    for (FieldId gone : r.childFields()) {
      changed = new RemoveField(child.id(), gone, "").apply(changed);
    }
    return tied(changed, r, parent, fields, key, unique);
  }

  private static void require(Draft draft, Relationship r, Table child, Table parent) {
    InFile.requireHeld(draft, parent.id());
    if (child.kind() instanceof TableKind.Join) {
      throw new EditRefusedException(
          child.label() + " joins two tables; neither of its relationships has another way round.");
    }
    ToManyToMany.requireMovable(draft, r);
  }

  private static List<Optional<List<Value>>> tuples(
      Draft draft, Table table, List<FieldId> fields) {
    return new RowValues(table, draft.rows().of(table.id())).tuples(fields);
  }

  /**
   * For each key of the parent the row of the child that refers to it.
   *
   * @throws EditRefusedException naming those to which several rows refer, or a row that refers to
   *     nothing
   */
  private static Map<List<Value>, Integer> links(
      Draft draft, Relationship r, Table child, Table parent) {
    Map<List<Value>, Integer> links = new HashMap<>();
    var several = new ArrayList<String>();
    List<Optional<List<Value>>> refers = tuples(draft, child, r.childFields());
    List<Optional<List<Value>>> there = tuples(draft, parent, r.parentFields());
    var known = new HashSet<List<Value>>();
    there.forEach(key -> key.ifPresent(known::add));
    Rows rows = draft.rows().of(child.id());
    for (int row = 0; row < refers.size(); row++) {
      Optional<List<Value>> to = refers.get(row);
      if (to.isPresent()) {
        String says = String.join(", ", texts(rows, row, r.childFields()));
        if (!known.contains(to.get())) {
          throw new EditRefusedException(
              "Row %d of %s refers to “%s”, which is no row of %s; mend it first."
                  .formatted(row + 1, child.label(), says, parent.label()));
        }
        if (links.putIfAbsent(to.get(), row) != null && !several.contains(says)) {
          several.add(says);
        }
      }
    }
    if (!several.isEmpty()) {
      String more = several.size() > SHOWN ? " and %d more".formatted(several.size() - SHOWN) : "";
      throw new EditRefusedException(
          "Several "
              + child.noun().plural()
              + " refer to "
              + parent.noun().singular()
              + " "
              + String.join("; ", several.stream().limit(SHOWN).toList())
              + more
              + ", and turned round a "
              + parent.noun().singular()
              + " could refer to one of them only. Make both sides many instead, or remove the"
              + " extra links first.");
    }
    return links;
  }

  private static List<String> texts(Rows rows, int row, List<FieldId> fields) {
    return rows.row(row, fields).stream().map(cell -> cell.orElse("")).toList();
  }

  private static List<Optional<String>> cells(
      Draft draft,
      Table child,
      FieldId part,
      List<Optional<List<Value>>> keys,
      Map<List<Value>, Integer> links) {
    Rows rows = draft.rows().of(child.id());
    return keys.stream()
        .map(key -> key.map(links::get).flatMap(row -> rows.cell(row, part)))
        .toList();
  }

  private static Field fresh(Table growing, Table child, Field key) {
    String wanted = NamingPolicy.referenceTo(child.name(), key.name());
    String name = NamingPolicy.free(wanted, growing.fieldsByName().keySet());
    String label = NamingPolicy.labelFor(name.replaceFirst("_id$", ""));
    return growing.unused(Field.of(name, label, key.type().asReferenced()));
  }

  private static Draft tied(
      Draft draft,
      Relationship r,
      Table parent,
      List<FieldId> fields,
      List<FieldId> key,
      boolean unique) {
    Table grown = draft.design().table(parent.id());
    String name = Relating.constraint(draft.design(), grown, fields);
    var turned =
        Relationship.of(name, parent.id(), fields, r.child(), key)
            .withRoles(r.parentRole(), r.childRole())
            .withActions(
                r.onDelete() == ReferentialAction.SET_NULL
                    ? ReferentialAction.SET_NULL
                    : ReferentialAction.NO_ACTION,
                r.onUpdate());
    Draft keyed = unique ? SetUnique.of(grown, fields, true).apply(draft) : draft;
    return new Several("", Relating.tie(keyed.design().table(parent.id()), turned)).apply(keyed);
  }
}
