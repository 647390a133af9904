package joiner.edit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.Reference;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Noun;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Summed;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;
import joiner.naming.WordList;
import joiner.rows.Rows;

/**
 * Moves fields of a table to a table of their own, one-to-one: it is identified by the first one's
 * key, and has a row for each row that holds anything in those fields. References, keys, indexes
 * and rules that are about those fields alone go along; it is refused where something is about them
 * and about fields that stay. {@link FoldBack} is the way back.
 *
 * @param label of the new table
 */
public record ToOwnTable(TableId table, List<FieldId> fields, String label) implements Edit {
  public ToOwnTable {
    fields = List.copyOf(fields);
  }

  @Override
  public String name() {
    return "move fields to the table " + label;
  }

  @Override
  public boolean reachesFar() {
    return true;
  }

  @Override
  public Draft apply(Draft draft) {
    Table from = draft.design().table(table);
    requireKeyed(from);
    InFile.requireHeld(draft, table);
    TableMeaning meaning = draft.meaning().of(from);
    requireNothingBetween(draft, meaning);
    Table own = own(draft.design(), meaning);
    Draft changed = new AddTable(own, rows(draft, from, own)).apply(draft);
    var relationships = new ArrayList<Relationship>();
    for (Relationship r : draft.design().relationships()) {
      relationships.add(
          r.child().equals(table) && fields.containsAll(r.childFields())
              ? r.withEnds(own.id(), r.childFields(), r.parent(), r.parentFields())
              : r);
    }
    relationships.add(tie(draft.design(), from, own));
    Design design =
        changed.design().withRelationships(relationships).withTable(table, t -> rest(meaning));
    Rows left = changed.rows().of(table);
    for (FieldId gone : fields) {
      left = left.withoutColumn(gone);
    }
    Rows kept = left;
    return changed.with(design, changed.rows().with(table, rows -> kept));
  }

  private void requireKeyed(Table from) {
    if (from.primaryKey().isEmpty()) {
      throw new EditRefusedException(
          "Nothing identifies the rows of "
              + from.label()
              + " yet, so what is moved could not be found again. Say first what does.");
    }
    List<FieldId> keys = fields.stream().filter(from.primaryKey()::contains).toList();
    if (!keys.isEmpty()) {
      throw new EditRefusedException(
          WordList.and(from.labelsOf(keys))
              + " identifies the rows of "
              + from.label()
              + " and has to stay there.");
    }
  }

  /** Refuses where something is about fields that go and about others too. */
  private void requireNothingBetween(Draft draft, TableMeaning meaning) {
    Design design = draft.design();
    Table from = meaning.table();
    for (Relationship up : design.parentsOf(table)) {
      require(isWhole(up.childFields()), "the relationship " + up.name());
    }
    for (Relationship down : design.childrenOf(table)) {
      require(
          down.parentFields().stream().noneMatch(fields::contains),
          "the relationship " + down.name());
      require(
          down.picking().fields().stream().noneMatch(fields::contains)
              && draft.meaning().offered(down).map(this::readsNone).orElse(true),
          "how " + from.noun().plural() + " are picked for " + design.table(down.child()).label());
    }
    requireOfNoKind(design, from);
    from.uniqueKeys()
        .forEach(
            key ->
                require(
                    isWhole(key.fields()),
                    "that " + WordList.and(from.labelsOf(key.fields())) + " are unique together"));
    from.indexes().forEach(index -> require(isWhole(index.fields()), "the index " + index.name()));
    meaning
        .ruled()
        .forEach(held -> require(isWhole(held.fields()), "the rule “" + held.rule().label() + "”"));
    meaning
        .rowLabel()
        .ifPresent(label -> require(readsNone(label), "what people recognise a row by"));
    for (Table other : design.tables()) {
      TableMeaning there = draft.meaning().of(other);
      there
          .rules()
          .forEach(
              held ->
                  require(
                      readsNoneFromAfar(design, held.condition()),
                      "the rule “" + held.rule().label() + "” of " + other.label()));
      there
          .rowLabel()
          .ifPresent(
              label ->
                  require(
                      readsNoneFromAfar(design, label),
                      "what people recognise a row of " + other.label() + " by"));
    }
  }

  /** What makes a table a join table or a lookup stays with it. */
  private void requireOfNoKind(Design design, Table from) {
    switch (from.kind()) {
      case TableKind.Plain plain -> {}
      case TableKind.Lookup(var sortBy, var retired) ->
          require(
              Stream.concat(sortBy.stream(), retired.stream()).noneMatch(fields::contains),
              "how its rows are offered");
      case TableKind.Join(var first, var second) ->
          require(
              Stream.of(first, second)
                  .map(design::relationship)
                  .flatMap(side -> side.childFields().stream())
                  .noneMatch(fields::contains),
              "which pair a row is");
    }
  }

  private static void require(boolean holds, String what) {
    if (!holds) {
      throw new EditRefusedException(
          "These fields cannot have a table of their own while "
              + what
              + " is about one of them and about what stays. Choose more fields, or change that"
              + " first.");
    }
  }

  /** Whether all of some fields go, or none. */
  private boolean isWhole(List<FieldId> some) {
    return fields.containsAll(some) || some.stream().noneMatch(fields::contains);
  }

  private boolean readsNone(Checked formula) {
    return !(formula instanceof Checked.Sound sound)
        || TableMeaning.fieldsOf(sound).stream().noneMatch(fields::contains);
  }

  /** Whether a formula reads none of the fields from another row. */
  private boolean readsNoneFromAfar(Design design, Checked formula) {
    return !(formula instanceof Checked.Sound sound)
        || sound.reads().stream().noneMatch(read -> isFromAfar(design, read));
  }

  private boolean isFromAfar(Design design, Reference read) {
    return read instanceof Summed summed && summedUpFromAfar(design, summed)
        || read instanceof FarField far
            && (fields.contains(far.field())
                    && design.relationship(far.over().getLast()).parent().equals(table)
                || far.over().stream()
                    .map(design::relationship)
                    .anyMatch(
                        r ->
                            r.child().equals(table)
                                && r.childFields().stream().anyMatch(fields::contains)
                                && !far.over().getFirst().equals(r.id())));
  }

  private boolean summedUpFromAfar(Design design, Summed summed) {
    return design.relationship(summed.children()).child().equals(table)
        || summed.parts().stream()
            .flatMap(part -> part.reads().stream())
            .anyMatch(read -> isFromAfar(design, read));
  }

  private Table own(Design design, TableMeaning meaning) {
    Table from = meaning.table();
    Set<String> names = design.tables().stream().map(Table::name).collect(Collectors.toSet());
    String name = NamingPolicy.free(NamingPolicy.nameFor(label), names);
    List<Field> moved = fields.stream().map(from::field).toList();
    Table own =
        design
            .unused(Table.of(name, label, Noun.ofLabel(label)))
            .withArea(from.area())
            .withFields(moved);
    var key = new ArrayList<FieldId>();
    var all = new ArrayList<Field>();
    for (FieldId id : from.primaryKey()) {
      Field referred = from.field(id);
      String wanted = NamingPolicy.referenceTo(from.name(), referred.name());
      String free = NamingPolicy.free(wanted, own.fieldsByName().keySet());
      String labelled = from.primaryKey().size() == 1 ? from.label() : NamingPolicy.labelFor(free);
      Field field =
          own.unused(Field.of(free, labelled, referred.type().asReferenced())).withRequired(true);
      own = own.withFieldAdded(field);
      key.add(field.id());
      all.add(field);
    }
    all.addAll(moved);
    return own.withFields(all)
        .withPrimaryKey(key)
        .withUniqueKeys(from.uniqueKeys().stream().filter(k -> goes(k.fields())).toList())
        .withIndexes(from.indexes().stream().filter(i -> goes(i.fields())).toList())
        .withRules(rules(meaning, true))
        .withGroups(from.groups())
        .withListing(from.listing())
        .withFacts(from.facts());
  }

  private boolean goes(List<FieldId> some) {
    return fields.containsAll(some);
  }

  /** The rules that go along, or those that stay: who reads none of the fields stays. */
  private List<Rule> rules(TableMeaning meaning, boolean going) {
    return meaning.ruled().stream()
        .filter(held -> (!held.fields().isEmpty() && goes(held.fields())) == going)
        .map(Constraint.Ruled::rule)
        .toList();
  }

  private Table rest(TableMeaning meaning) {
    Table rest = meaning.table().withRules(rules(meaning, false));
    for (FieldId gone : fields) {
      rest = rest.withoutField(gone);
    }
    return rest;
  }

  /** A row for each that holds anything in the fields. */
  private Rows rows(Draft draft, Table from, Table own) {
    Rows rows = draft.rows().of(table);
    List<FieldId> read = Stream.concat(from.primaryKey().stream(), fields.stream()).toList();
    List<List<Optional<String>>> moved =
        IntStream.range(0, rows.count())
            .filter(row -> fields.stream().anyMatch(f -> rows.cell(row, f).isPresent()))
            .mapToObj(row -> rows.row(row, read))
            .toList();
    requireIdentified(from, moved);
    return Rows.of(own.fieldIds(), moved);
  }

  /** Rows whose key is missing or not their own could not be told apart again. */
  private static void requireIdentified(Table from, List<List<Optional<String>>> rows) {
    var seen = new HashSet<List<Optional<String>>>();
    int parts = from.primaryKey().size();
    for (List<Optional<String>> row : rows) {
      List<Optional<String>> key = row.subList(0, parts);
      if (key.stream().anyMatch(Optional::isEmpty) || !seen.add(key)) {
        throw new EditRefusedException(
            "A row of "
                + from.label()
                + " has "
                + (seen.contains(key) ? "the key of another row" : "no key")
                + ", so what is moved could not be found again. Mend its "
                + WordList.and(from.labelsOf(from.primaryKey()))
                + " first.");
      }
    }
  }

  private Relationship tie(Design design, Table from, Table own) {
    String name =
        NamingPolicy.free(
            ConstraintNaming.reference(own.name(), own.namesOf(own.primaryKey())),
            design.relationships().stream().map(Relationship::name).toList());
    boolean always = fields.stream().anyMatch(from::isRequired);
    return design.unused(
        Relationship.of(name, own.id(), own.primaryKey(), table, from.primaryKey())
            .withParentNeedsChild(always)
            .withActions(ReferentialAction.CASCADE, ReferentialAction.NO_ACTION));
  }
}
