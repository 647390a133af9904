package joiner.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Quantity;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.NamingPolicy;
import joiner.naming.WordList;

/**
 * Ties two tables as two sentences say: "Each member makes any number of pieces. Each piece is made
 * by exactly one member." Who refers to whom follows from the number words: the side of which there
 * are many refers to the one; of two ones the second refers to the first; of two manies a join
 * table does to both.
 *
 * @param one the side the first sentence begins with
 * @param other the side the second sentence begins with
 * @param by fields of the side that refers, in the order of the key; empty for new ones
 * @param key a key of the side that is referred to; empty for its primary key
 * @param types which side gives way where fields that are there are of another type than the key
 */
public record Relate(
    Side one,
    Side other,
    List<FieldId> by,
    List<FieldId> key,
    ReferentialAction onDelete,
    Types types)
    implements Edit {
  public Relate {
    by = List.copyOf(by);
    key = List.copyOf(key);
  }

  /**
   * A side, with what its sentence says: each row of the table does that with so many of the other.
   *
   * @param label of the table, for people
   * @param verb verb phrase, as in "is made by"
   */
  public record Side(TableId table, String label, String verb, Quantity quantity) {
    /** The side of a table. */
    public static Side of(Table table, String verb, Quantity quantity) {
      return new Side(table.id(), table.label(), verb.strip(), quantity);
    }
  }

  /** Which types stay. */
  public enum Types {
    /** The fields get the key's. */
    OF_KEY,
    /** The key gets the fields', and so does all that refers to it. */
    OF_FIELDS
  }

  /** What the sentences come to. */
  public enum Shape {
    ONE_TO_MANY,
    ONE_TO_ONE,
    MANY_TO_MANY
  }

  /** What the sentences come to. */
  public Shape shape() {
    if (one.quantity.isPlural() && other.quantity.isPlural()) {
      return Shape.MANY_TO_MANY;
    }
    return one.quantity.isPlural() || other.quantity.isPlural()
        ? Shape.ONE_TO_MANY
        : Shape.ONE_TO_ONE;
  }

  /** The side that refers to the other, first of all where a join table comes between. */
  public Side child() {
    return one.quantity.isPlural() || !other.quantity.isPlural() ? other : one;
  }

  /** The side that is referred to. */
  public Side parent() {
    return child() == other ? one : other;
  }

  /** What is referred to of the table that is. */
  public List<FieldId> referred(Table parent) {
    return key.isEmpty() ? parent.primaryKey() : key;
  }

  @Override
  public String name() {
    return "relate " + one.label + " and " + other.label;
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    Table child = design.table(child().table);
    Table parent = design.table(parent().table);
    List<FieldId> referred = referred(parent);
    requireKey(parent, referred);
    if (!by.isEmpty()) {
      requireFields(design, child, parent, referred);
    }
    Draft changed = by.isEmpty() ? draft : typed(draft, child, parent, referred);
    List<FieldId> fields = by;
    if (by.isEmpty()) {
      List<Field> fresh = fresh(child, parent, referred);
      for (Field field : fresh) {
        changed = new AddField(child.id(), field).apply(changed);
      }
      fields = fresh.stream().map(Field::id).toList();
    }
    return switch (shape()) {
      case MANY_TO_MANY -> joined(tied(changed, fields, parent, referred), draft);
      case ONE_TO_MANY, ONE_TO_ONE -> tied(changed, fields, parent, referred);
    };
  }

  private static void requireKey(Table parent, List<FieldId> key) {
    if (key.isEmpty()) {
      throw new EditRefusedException(
          parent.label() + " has no primary key yet; say first what identifies a row.");
    }
    if (!parent.isKey(key)) {
      String fields = WordList.and(parent.labelsOf(key));
      String primary = WordList.and(parent.labelsOf(parent.primaryKey()));
      throw new EditRefusedException(
          "Several rows of "
              + parent.label()
              + " may have the same "
              + fields
              + ", so nothing can refer to one of them by it. Make it unique first"
              + (primary.isEmpty() ? "." : ", or refer to " + primary + "."));
    }
  }

  private void requireFields(Design design, Table child, Table parent, List<FieldId> referred) {
    if (by.size() != referred.size()) {
      throw new EditRefusedException(
          "A row of "
              + parent.label()
              + " is told by "
              + WordList.and(parent.labelsOf(referred))
              + (referred.size() == 1 ? "" : " together")
              + "; "
              + WordList.and(child.labelsOf(by))
              + " cannot say all of it.");
    }
    for (Relationship there : design.parentsOf(child.id())) {
      if (there.childFields().equals(by) && there.parent().equals(parent.id())) {
        throw new EditRefusedException(
            WordList.and(child.labelsOf(by)) + " refers to " + parent.label() + " already.");
      }
    }
    if (child.equals(parent) && by.equals(referred)) {
      throw new EditRefusedException("Each row would refer to itself.");
    }
  }

  /** The draft in which the fields have the types of the key, or the other way round. */
  private Draft typed(Draft draft, Table child, Table parent, List<FieldId> referred) {
    Draft changed = draft;
    for (int i = 0; i < by.size(); i++) {
      Design design = changed.design();
      Field own = design.table(child.id()).field(by.get(i));
      Field far = design.table(parent.id()).field(referred.get(i));
      FieldType wanted = far.type().asReferenced();
      if (!wanted.equals(own.type().asReferenced())) {
        List<Edit> edits =
            types == Types.OF_KEY
                ? List.of(ChangeField.type(design.table(child.id()), own, wanted))
                : CarriedType.sized(design, design.table(parent.id()), far, own.type());
        for (Edit edit : edits) {
          changed = edit.apply(changed);
        }
      }
    }
    return changed;
  }

  private List<Field> fresh(Table child, Table parent, List<FieldId> referred) {
    Table growing = child;
    var fields = new ArrayList<Field>();
    for (FieldId id : referred) {
      Field far = parent.field(id);
      String name = name(growing, parent, far, referred.size());
      String label = NamingPolicy.labelFor(name.replaceFirst("_id$", ""));
      Field field =
          growing
              .unused(Field.of(name, label, far.type().asReferenced()))
              .withRequired(child().quantity == Quantity.EXACTLY_ONE);
      growing = growing.withFieldAdded(field);
      fields.add(field);
    }
    return fields;
  }

  /** Named after the key; where that name is taken, or a row refers to its like, after the role. */
  private String name(Table child, Table parent, Field far, int parts) {
    String usual = NamingPolicy.referenceTo(parent.name(), far.name());
    boolean free = child.fieldNamed(usual).isEmpty() && !child.id().equals(parent.id());
    if (free) {
      return usual;
    }
    String role = role(child().verb);
    String wanted = role.isEmpty() ? "other_" + usual : parts == 1 ? role : role + "_" + far.name();
    return NamingPolicy.free(wanted, child.fieldsByName().keySet());
  }

  /** What a verb phrase says beside that something is: "is loaded by" gives loaded_by. */
  private static String role(String verb) {
    String said =
        verb.strip().replaceFirst("(?i)^(is|was|are|were|has been|gets?)\\s+", "").strip();
    boolean plain = said.isEmpty() || said.equals("belongs to") || said.equals("has");
    return plain ? "" : NamingPolicy.nameFor(said);
  }

  private Draft tied(Draft draft, List<FieldId> fields, Table parent, List<FieldId> referred) {
    Draft changed = draft;
    TableId child = child().table;
    if (shape() == Shape.ONE_TO_ONE && !changed.design().table(child).isUnique(fields)) {
      changed = SetUnique.of(changed.design().table(child), fields, true).apply(changed);
    }
    Table grown = changed.design().table(child);
    String constraint = Relating.constraint(changed.design(), grown, fields);
    var made =
        Relationship.of(constraint, child, fields, parent.id(), referred)
            .withRoles(child().verb, parent().verb)
            .withActions(onDelete, ReferentialAction.NO_ACTION)
            .withParentNeedsChild(needsOther(parent()));
    changed = new Several("", Relating.tie(grown, made)).apply(changed);
    boolean required = child().quantity == Quantity.EXACTLY_ONE;
    boolean follows = by.isEmpty() || shape() == Shape.MANY_TO_MANY;
    RelationshipId id = made(draft.design(), changed.design()).orElseThrow().id();
    return follows ? changed : new SetParentRequired(id, "", required).apply(changed);
  }

  private static boolean needsOther(Side side) {
    return side.quantity == Quantity.ONE_OR_MANY || side.quantity == Quantity.EXACTLY_ONE;
  }

  /** The join table in the place of the reference that was made last. */
  private Draft joined(Draft tied, Draft before) {
    Relationship last = made(before.design(), tied.design()).orElseThrow();
    Draft joined = new ToManyToMany(last.id(), "").apply(tied);
    Table join =
        joined.design().tables().stream()
            .filter(table -> before.design().find(table.id()).isEmpty())
            .findFirst()
            .orElseThrow();
    var kind = (TableKind.Join) join.kind();
    Design design = joined.design();
    List<RelationshipId> ends = List.of(kind.first(), kind.second());
    List<Side> sides = List.of(child(), parent());
    for (int i : IntStream.range(0, 2).toArray()) {
      boolean needs = needsOther(sides.get(i));
      design = design.withRelationship(ends.get(i), r -> r.withParentNeedsChild(needs));
    }
    return joined.withDesign(design);
  }

  /** The relationship that the edit made, or the first of the two of its join table. */
  public static Optional<Relationship> made(Design before, Design after) {
    return after.relationships().stream().filter(r -> before.find(r.id()).isEmpty()).findFirst();
  }
}
