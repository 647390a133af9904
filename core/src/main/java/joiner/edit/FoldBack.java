package joiner.edit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import joiner.expression.Formula;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.meaning.Renaming;
import joiner.model.Demand;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.IndexId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableKind;
import joiner.model.UniqueKey;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;
import joiner.rows.RowValues;
import joiner.rows.Rows;

/**
 * Folds a table into the one whose rows each have at most one of its: its fields move there, with
 * their values, references, keys, indexes and rules. It is refused where rows would have nowhere to
 * go, or others refer to them. The way back from {@link ToOwnTable}.
 *
 * @param tie the relationship by which it belongs to the other table
 */
public record FoldBack(RelationshipId tie, String label, String into) implements Edit {
  /** The change that folds the child of a relationship into its parent. */
  public static FoldBack of(Design design, Relationship tie) {
    return new FoldBack(
        tie.id(), design.table(tie.child()).label(), design.table(tie.parent()).label());
  }

  @Override
  public String name() {
    return "fold " + label + " into " + into;
  }

  /** Whether a child looks as if it could be folded; its rows may stand against it. */
  public static boolean fits(Design design, Relationship tie) {
    Table child = design.table(tie.child());
    return !tie.isSelfReference()
        && child.kind() instanceof TableKind.Plain
        && child.isUnique(tie.childFields())
        && design.childrenOf(tie.child()).stream().allMatch(Relationship::isSelfReference);
  }

  @Override
  public boolean reachesFar() {
    return true;
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    Relationship r = design.relationship(tie);
    Table from = design.table(r.child());
    Table to = design.table(r.parent());
    requireFoldable(draft, r, from, to);
    Map<Integer, Integer> places = places(draft, r, from, to);
    boolean everywhere = r.parentNeedsChild() && places.size() == draft.rows().of(to.id()).count();
    Map<FieldId, FieldId> fields = new LinkedHashMap<>();
    Table grown = grown(r, from, to, everywhere, fields);
    List<Relationship> kept = relationships(design, r, from, fields);
    Design folded =
        design.withTable(to.id(), t -> grown).withRelationships(kept).withoutTable(from.id());
    Table ruled = ruled(design, r, from, folded, folded.table(to.id()), fields, everywhere);
    Rows rows = rows(draft, r, from, to, fields, places);
    return draft.with(
        folded.withTable(to.id(), t -> ruled),
        draft.rows().with(to.id(), before -> rows).without(from.id()));
  }

  private void requireFoldable(Draft draft, Relationship r, Table from, Table to) {
    InFile.requireHeld(draft, from.id());
    InFile.requireHeld(draft, to.id());
    if (r.isSelfReference() || !from.isUnique(r.childFields())) {
      throw new EditRefusedException(
          "One "
              + to.noun().singular()
              + " may have several "
              + from.noun().plural()
              + ", which do not fit into one row. Only what is one-to-one can be folded.");
    }
    if (!(from.kind() instanceof TableKind.Plain)) {
      throw new EditRefusedException(
          label + " is a list or a join of others, not a part of " + into + ".");
    }
    for (Relationship referring : draft.design().childrenOf(from.id())) {
      throw new EditRefusedException(
          draft.design().table(referring.child()).label()
              + " refers to "
              + label
              + "; let it refer to "
              + into
              + " first.");
    }
  }

  /** For each row of the table, from 0, where its row of the other table stands. */
  private Map<Integer, Integer> places(Draft draft, Relationship r, Table from, Table to) {
    Map<List<Value>, Integer> byKey = new HashMap<>();
    var parents = new RowValues(to, draft.rows().of(to.id()));
    List<Optional<List<Value>>> keys = parents.tuples(r.parentFields());
    for (int row = 0; row < keys.size(); row++) {
      int place = row;
      keys.get(row).ifPresent(key -> byKey.putIfAbsent(key, place));
    }
    Map<Integer, Integer> places = new LinkedHashMap<>();
    var taken = new HashSet<Integer>();
    List<Optional<List<Value>>> own =
        new RowValues(from, draft.rows().of(from.id())).tuples(r.childFields());
    for (int row = 0; row < own.size(); row++) {
      Optional<Integer> place = own.get(row).map(byKey::get);
      if (place.isEmpty() || !taken.add(place.get())) {
        throw new EditRefusedException(
            "Row "
                + (row + 1)
                + " of "
                + label
                + (place.isEmpty() ? " belongs to no " : " is a second one of its ")
                + to.noun().singular()
                + ", so it has nowhere to go. Mend or remove it first.");
      }
      places.put(row, place.get());
    }
    return places;
  }

  /** The table with the fields of the other; fills in what each is there. */
  private Table grown(
      Relationship r, Table from, Table to, boolean everywhere, Map<FieldId, FieldId> fields) {
    Table grown = to;
    for (int i = 0; i < r.childFields().size(); i++) {
      fields.put(r.childFields().get(i), r.parentFields().get(i));
    }
    for (Field field : from.fields()) {
      if (!fields.containsKey(field.id())) {
        Field fresh = moved(from, grown, field, everywhere);
        grown = grown.withFieldAdded(fresh);
        fields.put(field.id(), fresh.id());
      }
    }
    for (UniqueKey key : keys(from)) {
      List<FieldId> there = key.fields().stream().map(fields::get).toList();
      if (!grown.isUnique(there)) {
        grown = grown.withUniqueKeyAdded(new UniqueKey(key.name(), there));
      }
    }
    for (FieldGroup group : from.groups()) {
      grown =
          grown.withGroupAdded(group.withFields(group.fields().stream().map(fields::get).toList()));
    }
    for (Index index : from.indexes()) {
      grown = grown.withIndexAdded(index.under(fields::get).withId(new IndexId(index.name())));
    }
    return grown;
  }

  private static List<UniqueKey> keys(Table from) {
    var keys = new ArrayList<UniqueKey>();
    if (!from.primaryKey().isEmpty()) {
      keys.add(
          new UniqueKey(
              ConstraintNaming.unique(from.name(), from.namesOf(from.primaryKey())),
              from.primaryKey()));
    }
    keys.addAll(from.uniqueKeys());
    return keys;
  }

  /** Where some rows have nothing to put there, the field is no longer required. */
  private static Field moved(Table from, Table grown, Field field, boolean everywhere) {
    boolean taken =
        grown.fields().stream().anyMatch(other -> other.label().equalsIgnoreCase(field.label()));
    String label =
        taken ? from.label() + " " + field.label().toLowerCase(Locale.ROOT) : field.label();
    var names = grown.fieldsByName().keySet();
    String name =
        names.contains(field.name())
            ? NamingPolicy.free(from.name() + "_" + field.name(), names)
            : field.name();
    boolean required = everywhere && from.isRequired(field.id());
    return grown.unused(
        field
            .withName(name)
            .withLabel(label)
            .withType(field.type().asReferenced())
            .withRequired(required));
  }

  private static List<Relationship> relationships(
      Design design, Relationship tie, Table from, Map<FieldId, FieldId> fields) {
    return design.relationships().stream()
        .filter(r -> !r.id().equals(tie.id()))
        .map(
            r ->
                r.child().equals(from.id())
                    ? r.withEnds(
                        tie.parent(),
                        r.childFields().stream().map(fields::get).toList(),
                        r.parent(),
                        r.parentFields())
                    : r)
        .toList();
  }

  /** The rules go along; rows that have nothing of what moved keep them. */
  private Table ruled(
      Design before,
      Relationship r,
      Table from,
      Design after,
      Table into,
      Map<FieldId, FieldId> fields,
      boolean everywhere) {
    String nothing =
        from.fields().stream()
            .filter(field -> !r.childFields().contains(field.id()))
            .map(field -> into.field(fields.get(field.id())).name())
            .map(name -> Formula.naming(name).text() + " IS NULL")
            .collect(Collectors.joining(" AND "));
    Table ruled = into;
    for (Rule rule : from.rules()) {
      UnaryOperator<Formula> moved =
          formula -> Renaming.folded(formula, before, r, after, into, fields);
      Demand there =
          rule.demand()
              .withFormulas(moved, (over, formula) -> formula)
              .under(field -> fields.getOrDefault(field, field), UnaryOperator.identity());
      Demand demand =
          everywhere || nothing.isEmpty() || !(there instanceof Demand.OfRow(Formula condition))
              ? there
              : new Demand.OfRow(new Formula(nothing + " OR (" + condition.text() + ")"));
      List<String> names = ruled.rules().stream().map(Rule::name).toList();
      ruled =
          ruled.withRuleAdded(
              rule.withName(NamingPolicy.free(rule.name(), names)).withDemand(demand));
    }
    return ruled;
  }

  private static Rows rows(
      Draft draft,
      Relationship r,
      Table from,
      Table to,
      Map<FieldId, FieldId> fields,
      Map<Integer, Integer> places) {
    Rows own = draft.rows().of(from.id());
    Rows rows = draft.rows().of(to.id());
    for (Field field : from.fields()) {
      if (!r.childFields().contains(field.id())) {
        var cells = new ArrayList<Optional<String>>();
        for (int row = 0; row < rows.count(); row++) {
          cells.add(Optional.empty());
        }
        places.forEach((row, place) -> cells.set(place, own.cell(row, field.id())));
        rows = rows.withColumn(fields.get(field.id()), cells);
      }
    }
    return rows;
  }
}
