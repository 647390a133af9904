package joiner.edit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.meaning.Renaming;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.NamingPolicy;
import joiner.naming.WordList;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/**
 * Identifies the rows of a table by another field than before, with everything that refers to it:
 * fields that hold values of the old key, or of a key made of it, get the type of the new one and
 * its values, row by row; a name that came from the old key comes from the new one. The old key
 * stays unique.
 *
 * <p>Where the number of fields differs, what refers to the key gets new fields in place of those
 * that held it ({@link OtherReference}).
 */
public record ChangeKey(TableId table, List<FieldId> key, String label) implements Edit {
  public ChangeKey {
    key = List.copyOf(key);
  }

  /** The change of a table's primary key. */
  public static ChangeKey of(Table table, List<FieldId> key) {
    return new ChangeKey(table.id(), key, table.label());
  }

  @Override
  public String name() {
    return "change what identifies " + label;
  }

  @Override
  public boolean reachesFar() {
    return true;
  }

  @Override
  public Draft apply(Draft draft) {
    Table before = draft.design().table(table);
    List<FieldId> old = before.primaryKey();
    List<Relationship> referring =
        draft.design().childrenOf(table).stream()
            .filter(down -> down.parentFields().equals(old))
            .toList();
    if (old.equals(key)) {
      return draft;
    }
    if (referring.isEmpty()) {
      return identified(draft, old);
    }
    if (key.size() != 1 || old.size() != 1) {
      if (key.isEmpty()) {
        throw identifiedByNothing(draft.design(), before, old, referring);
      }
      return new KeyOfOtherShape(draft, before, key, referring).led(identified(draft, old));
    }
    Map<Value, String> values = values(draft, before);
    Draft changed = identified(draft, old);
    for (Relationship down : referring) {
      changed = changed.withDesign(led(changed.design(), down));
    }
    var newKey = new Referring(table, key.getFirst());
    Set<Referring> followers = followers(draft.design(), referring);
    for (Referring follower : followers) {
      requireNoOther(draft.design(), follower, followers, referring);
      if (follower.equals(newKey)) {
        throw new EditRefusedException(
            before.field(newKey.field()).label()
                + " refers to what identifies "
                + before.label()
                + " now, so it cannot identify it itself.");
      }
      InFile.requireHeld(draft, follower.table());
      changed = followed(draft, changed, follower, values);
    }
    Design compared = compared(draft, changed.design(), followers);
    return changed.withDesign(Renaming.carry(draft.design(), compared));
  }

  /**
   * The design in which rules that compared the old key of a row with what refers to one compare
   * the new key with it.
   */
  private Design compared(Draft before, Design design, Set<Referring> followers) {
    TableMeaning meaning = before.meaning().of(table);
    FieldId old = meaning.table().primaryKey().getFirst();
    String name = meaning.table().field(key.getFirst()).name();
    var rules = new ArrayList<Rule>();
    for (Constraint.Ruled held : meaning.ruled()) {
      boolean both =
          held.fields().contains(old)
              && held.fields().stream()
                  .anyMatch(field -> followers.contains(new Referring(table, field)));
      rules.add(
          both
              ? held.rule()
                  .withDemand(
                      held.rule()
                          .demand()
                          .withFormulas(
                              formula ->
                                  formula.renamed(
                                      meaning.scope(),
                                      read ->
                                          read instanceof OwnField own && own.field().equals(old)
                                              ? List.of(name)
                                              : read.path()),
                              (over, formula) -> formula))
              : held.rule());
    }
    return design.withTable(table, t -> t.withRules(rules));
  }

  /** Fields that hold values of the old key. */
  private static Set<Referring> followers(Design design, List<Relationship> referring) {
    Set<Referring> followers = new LinkedHashSet<>();
    for (Relationship down : referring) {
      var first = new Referring(down.child(), down.childFields().getFirst());
      followers.add(first);
      followers.addAll(Referring.to(design, first));
    }
    return followers;
  }

  /** A field that refers to two tables cannot follow one of them. */
  private static void requireNoOther(
      Design design, Referring follower, Set<Referring> followers, List<Relationship> referring) {
    for (Relationship up : design.parentsOf(follower.table())) {
      int part = up.childFields().indexOf(follower.field());
      boolean other =
          part >= 0
              && !referring.contains(up)
              && !followers.contains(new Referring(up.parent(), up.parentFields().get(part)));
      if (other) {
        Table child = design.table(follower.table());
        throw new EditRefusedException(
            child.field(follower.field()).label()
                + " of "
                + child.label()
                + " refers to "
                + design.table(up.parent()).label()
                + " too, so it cannot follow. Give "
                + child.label()
                + " a field of its own for each first.");
      }
    }
  }

  private static EditRefusedException identifiedByNothing(
      Design design, Table before, List<FieldId> old, List<Relationship> referring) {
    List<String> tables =
        referring.stream().map(down -> design.table(down.child()).label()).distinct().toList();
    return new EditRefusedException(
        before.label()
            + " cannot be identified by nothing while "
            + WordList.and(tables)
            + (tables.size() == 1 ? " refers" : " refer")
            + " to "
            + WordList.and(before.labelsOf(old))
            + ". Give it a counter as its key, or remove the relationships first.");
  }

  /** The new key, and the old one unique. */
  private Draft identified(Draft draft, List<FieldId> old) {
    Table before = draft.design().table(table);
    Draft changed = ChangeTable.primaryKey(before, key).apply(draft);
    boolean kept = old.isEmpty() || changed.design().table(table).isUnique(old);
    return kept ? changed : SetUnique.of(changed.design().table(table), old, true).apply(changed);
  }

  /**
   * For each value of the old key the new key's.
   *
   * @throws EditRefusedException where rows have no new key, or share one or an old one
   */
  private Map<Value, String> values(Draft draft, Table before) {
    InFile.requireHeld(draft, table);
    Rows rows = draft.rows().of(table);
    FieldId from = before.primaryKey().getFirst();
    FieldId to = key.getFirst();
    Map<Value, String> values = HashMap.newHashMap(rows.count());
    var seen = new HashSet<Value>();
    for (int row = 0; row < rows.count(); row++) {
      Optional<String> cell = rows.cell(row, to);
      Value now = ValueReader.valueOrNull(cell, before.field(to).type());
      if (cell.isEmpty() || now.equals(Value.NULL) || !seen.add(now)) {
        throw new EditRefusedException(
            "Row "
                + (row + 1)
                + " of "
                + before.label()
                + (cell.isEmpty()
                    ? " has no " + before.field(to).label()
                    : " has the "
                        + before.field(to).label()
                        + " "
                        + cell.get()
                        + (now.equals(Value.NULL) ? ", which does not fit" : " of another row"))
                + "; what identifies rows is there, and once only. Mend it first.");
      }
      Value old = ValueReader.valueOrNull(rows.cell(row, from), before.field(from).type());
      if (!old.equals(Value.NULL) && values.put(old, cell.get()) != null) {
        throw new EditRefusedException(
            "Row "
                + (row + 1)
                + " of "
                + before.label()
                + " has the "
                + before.field(from).label()
                + " of another row, so it is not known which of them is referred to. Mend it"
                + " first.");
      }
    }
    return values;
  }

  /** The relationship, leading to the new key. */
  private Design led(Design design, Relationship down) {
    RelationshipId id = down.id();
    return design.withRelationship(
        id, r -> r.withEnds(r.child(), r.childFields(), r.parent(), key));
  }

  private Draft followed(Draft before, Draft draft, Referring follower, Map<Value, String> values) {
    Table child = draft.design().table(follower.table());
    Field field = child.field(follower.field());
    Table parent = before.design().table(table);
    Field oldKey = parent.field(parent.primaryKey().getFirst());
    Field newKey = parent.field(key.getFirst());
    FieldType type = newKey.type().asReferenced();
    Rows rows = draft.rows().of(child.id());
    var cells = new ArrayList<Optional<String>>(rows.count());
    for (int row = 0; row < rows.count(); row++) {
      int at = row + 1;
      cells.add(
          rows.cell(row, field.id())
              .map(cell -> followed(cell, field, type, values, child.label() + " row " + at)));
    }
    String name = renamed(parent, oldKey, newKey, child, field);
    Design design =
        draft
            .design()
            .withTable(
                child.id(), t -> t.withField(field.id(), f -> f.withType(type).withName(name)));
    return draft.with(design, draft.rows().with(child.id(), r -> r.withColumn(field.id(), cells)));
  }

  /** What is no value of its field stays as it was typed, unless it would be one now. */
  private static String followed(
      String cell, Field field, FieldType type, Map<Value, String> values, String place) {
    Value old = ValueReader.valueOrNull(Optional.of(cell), field.type());
    String now = values.get(old);
    if (now != null) {
      return now;
    }
    boolean wouldMean = !ValueReader.valueOrNull(Optional.of(cell), type).equals(Value.NULL);
    if (wouldMean || !old.equals(Value.NULL)) {
      throw new EditRefusedException(
          place
              + " has the "
              + field.label()
              + " "
              + cell
              + ", which leads nowhere, so it is not known what it is to become. Mend it first.");
    }
    return cell;
  }

  /** A name that came from the old key comes from the new one. */
  private static String renamed(
      Table parent, Field oldKey, Field newKey, Table child, Field field) {
    boolean derived =
        field.name().equals(oldKey.name())
            || field.name().equals(NamingPolicy.referenceTo(parent.name(), oldKey.name()));
    if (!derived) {
      return field.name();
    }
    var taken = new ArrayList<>(child.fieldsByName().keySet());
    taken.remove(field.name());
    return NamingPolicy.free(NamingPolicy.referenceTo(parent.name(), newKey.name()), taken);
  }
}
