package joiner.edit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * A relationship that names and types suggest, without looking at rows: a field is called after a
 * table or its key and is of the key's type (common practice, no source).
 *
 * @param reason why, as a clause
 */
public record NamedReference(TableId child, FieldId field, TableId parent, String reason) {

  /** What names suggest for a table, without what is there; linear in fields and tables. */
  public static List<NamedReference> of(Design design, TableId table) {
    Table child = design.table(table);
    Set<FieldId> tied = new HashSet<>();
    design.parentsOf(table).forEach(up -> tied.addAll(up.childFields()));
    var found = new ArrayList<NamedReference>();
    for (Field field : child.fields()) {
      boolean own = child.primaryKey().equals(List.of(field.id()));
      if (!own && !tied.contains(field.id()) && !field.isComputed()) {
        design.tables().stream()
            .flatMap(parent -> suggested(child, field, parent))
            .findFirst()
            .or(() -> agent(design, child, field))
            .ifPresent(found::add);
      }
    }
    return found;
  }

  private static Stream<NamedReference> suggested(Table child, Field field, Table parent) {
    if (parent.primaryKey().size() != 1 || parent.equals(child)) {
      return Stream.empty();
    }
    Field key = parent.field(parent.primaryKey().getFirst());
    String name = field.name().toLowerCase(Locale.ROOT);
    String of = parent.name().toLowerCase(Locale.ROOT);
    String keys = key.name().toLowerCase(Locale.ROOT);
    String full = keys.contains(of) ? keys : of + "_" + keys;
    boolean asKey = name.equals(full) || name.endsWith("_" + full);
    boolean asTable = name.equals(of) || name.endsWith("_" + of);
    if (!sameType(field.type(), key.type()) || !asKey && !asTable) {
      return Stream.empty();
    }
    String reason =
        asKey
            ? "it is called as the key of " + parent.label() + " is, and of its type"
            : "it is called after " + parent.label() + " and of its key's type";
    return Stream.of(new NamedReference(child.id(), field.id(), parent.id(), reason));
  }

  private static boolean sameType(FieldType one, FieldType key) {
    return one.asReferenced().getClass().equals(key.asReferenced().getClass());
  }

  /** "Loaded by" tells who did something: one of those that others are said to be done by. */
  private static Optional<NamedReference> agent(Design design, Table child, Field field) {
    if (!field.name().endsWith("_by")) {
      return Optional.empty();
    }
    return design.relationships().stream()
        .filter(r -> r.childFields().size() == 1)
        .filter(
            r -> design.table(r.child()).field(r.childFields().getFirst()).name().endsWith("_by"))
        .map(Relationship::parent)
        .map(design::table)
        .filter(
            parent -> sameType(field.type(), parent.field(parent.primaryKey().getFirst()).type()))
        .findFirst()
        .map(
            parent ->
                new NamedReference(
                    child.id(),
                    field.id(),
                    parent.id(),
                    "its name tells by whom, as others do that refer to " + parent.label()));
  }

  /** The change that makes it a relationship. */
  public Edit edit(Design design) {
    return Relating.by(
        design, design.table(child), design.table(child).field(field), design.table(parent));
  }
}
