package joiner.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.meaning.TableMeaning;
import joiner.model.Demand;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.UniqueKey;
import joiner.naming.NamingPolicy;
import joiner.naming.WordList;
import joiner.rows.RowValues;
import joiner.rows.Rows;

/**
 * Lets one relationship lead to a key of another number of fields: the child gets new fields with
 * the new key's values, which take the place of the old ones in its keys and indexes. The old
 * fields go, unless something else is about them.
 *
 * @param draft in which the parent has its new key already
 * @param down the relationship as it led to the old key
 * @param key the new key of the parent
 * @param values for each value of the old key the new key's
 */
record OtherReference(
    Draft draft, Relationship down, List<FieldId> key, Map<List<Value>, List<String>> values) {

  Draft led() {
    Table child = draft.design().table(down.child());
    InFile.requireHeld(draft, child.id());
    List<Field> fresh = fresh(child);
    List<FieldId> ids = fresh.stream().map(Field::id).toList();
    List<FieldId> going = down.childFields().stream().filter(old -> !isUsed(child, old)).toList();
    var fields = new ArrayList<>(child.fields());
    fields.addAll(child.fieldIds().indexOf(down.childFields().getFirst()), fresh);
    Table grown = keyed(child.withFields(fields), ids);
    Table left = grown;
    Rows rows = rows(child, ids);
    for (FieldId gone : going) {
      left = left.withoutField(gone);
      rows = rows.withoutColumn(gone);
    }
    Table now = left;
    Rows followed = rows;
    Design design =
        draft
            .design()
            .withTable(child.id(), t -> grown)
            .withRelationship(down.id(), r -> r.withEnds(r.child(), ids, r.parent(), key))
            .withTable(child.id(), t -> now);
    return draft.with(design, draft.rows().with(child.id(), r -> followed));
  }

  private boolean is(Relationship r) {
    return r.id().equals(down.id());
  }

  private List<Field> fresh(Table child) {
    Table parent = draft.design().table(down.parent());
    boolean always = down.childFields().stream().allMatch(child::isRequired);
    var fresh = new ArrayList<Field>();
    Table grown = child;
    for (FieldId id : key) {
      Field referred = parent.field(id);
      String wanted = NamingPolicy.referenceTo(parent.name(), referred.name());
      String name =
          NamingPolicy.free(
              down.isSelfReference() ? "other_" + wanted : wanted, grown.fieldsByName().keySet());
      boolean told =
          child.fields().stream()
              .filter(field -> !down.childFields().contains(field.id()))
              .anyMatch(field -> field.label().equals(parent.label()));
      String label = key.size() > 1 || told ? NamingPolicy.labelFor(name) : parent.label();
      Field field =
          grown.unused(Field.of(name, label, referred.type().asReferenced())).withRequired(always);
      grown = grown.withFieldAdded(field);
      fresh.add(field);
    }
    return fresh;
  }

  /** The table with the new fields in place of the old ones in what is about all of them. */
  private Table keyed(Table table, List<FieldId> ids) {
    List<UniqueKey> uniques =
        table.uniqueKeys().stream().map(k -> k.withFields(instead(k.fields(), ids))).toList();
    List<Index> indexes =
        table.indexes().stream().map(i -> i.withFields(instead(i.fields(), ids))).toList();
    List<Rule> rules =
        table.rules().stream().map(rule -> rule.withDemand(instead(rule.demand(), ids))).toList();
    return table
        .withRules(rules)
        .withPrimaryKey(instead(table.primaryKey(), ids))
        .withUniqueKeys(uniques)
        .withIndexes(indexes);
  }

  private Demand instead(Demand demand, List<FieldId> ids) {
    return switch (demand) {
      case Demand.Alone(var per, var where) -> new Demand.Alone(instead(per, ids), where);
      case Demand.Apart(var per, var from, var until, var closed, var gapless) ->
          new Demand.Apart(instead(per, ids), from, until, closed, gapless);
      case Demand.OfRow row -> row;
      case Demand.OfChildren children -> children;
      case Demand.Tree tree -> tree;
      case Demand.Stays(var fields, var when) -> new Demand.Stays(instead(fields, ids), when);
    };
  }

  private List<FieldId> instead(List<FieldId> fields, List<FieldId> ids) {
    if (!fields.containsAll(down.childFields()) || isReferred(fields)) {
      return fields;
    }
    var now = new ArrayList<>(fields);
    int place = now.indexOf(down.childFields().getFirst());
    now.addAll(place, ids);
    now.removeAll(down.childFields());
    return List.copyOf(now);
  }

  /** Whether another relationship leads to those fields of the child. */
  private boolean isReferred(List<FieldId> fields) {
    return draft.design().childrenOf(down.child()).stream()
        .anyMatch(r -> !is(r) && r.parentFields().equals(fields));
  }

  /** Whether anything but the relationship, and what is about all its fields, is about a field. */
  private boolean isUsed(Table child, FieldId field) {
    Design design = draft.design();
    boolean related =
        design.relationships().stream().anyMatch(r -> !is(r) && r.standsOn(child.id(), field));
    boolean keyed =
        Stream.of(
                Stream.of(child.primaryKey()),
                child.uniqueKeys().stream().map(UniqueKey::fields),
                child.indexes().stream().map(Index::fields))
            .flatMap(lists -> lists)
            .anyMatch(list -> list.contains(field) && !list.containsAll(down.childFields()));
    TableMeaning meaning = draft.meaning().of(child);
    boolean read =
        Stream.concat(
                meaning.rules().stream().map(held -> held.condition()), meaning.rowLabel().stream())
            .anyMatch(formula -> reads(formula, field));
    return related || keyed || read || !child.kind().without(field).equals(child.kind());
  }

  private static boolean reads(Checked formula, FieldId field) {
    return formula instanceof Checked.Sound sound && TableMeaning.fieldsOf(sound).contains(field);
  }

  private Rows rows(Table child, List<FieldId> ids) {
    Rows rows = draft.rows().of(child.id());
    List<Optional<List<Value>>> tuples = new RowValues(child, rows).tuples(down.childFields());
    List<List<Optional<String>>> columns =
        ids.stream().<List<Optional<String>>>map(i -> new ArrayList<>()).toList();
    for (int row = 0; row < rows.count(); row++) {
      List<String> now = now(child, rows, row, tuples.get(row));
      for (int i = 0; i < ids.size(); i++) {
        columns.get(i).add(now.isEmpty() ? Optional.empty() : Optional.of(now.get(i)));
      }
    }
    for (int i = 0; i < ids.size(); i++) {
      rows = rows.withColumn(ids.get(i), columns.get(i));
    }
    return rows;
  }

  /** The new key of the row's parent; empty where it refers to none. */
  private List<String> now(Table child, Rows rows, int row, Optional<List<Value>> tuple) {
    List<Optional<String>> cells = rows.row(row, down.childFields());
    if (cells.stream().allMatch(Optional::isEmpty)) {
      return List.of();
    }
    return tuple
        .flatMap(old -> Optional.ofNullable(values.get(old)))
        .orElseThrow(
            () ->
                new EditRefusedException(
                    child.label()
                        + " row "
                        + (row + 1)
                        + " has "
                        + WordList.and(child.labelsOf(down.childFields()))
                        + " "
                        + String.join(", ", cells.stream().map(c -> c.orElse("nothing")).toList())
                        + ", which leads nowhere, so it is not known what it is to become. Mend it"
                        + " first."));
  }
}
