package joiner.edit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.expression.Formula;
import joiner.expression.Scope;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.KnownFact;
import joiner.model.Noun;
import joiner.model.Origin;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;
import joiner.naming.WordList;
import joiner.rows.Rows;

/**
 * Moves what some fields decide out of a table: to the table they refer to, where they refer to
 * one, else to a new table whose key they are, with each value once. The join of both has what the
 * table had (lossless, by Heath's theorem: I. J. Heath, “Unacceptable File Operations in a
 * Relational Data Base”, 1971; from memory). Formulas of the table go on reading what was moved;
 * keys and indexes that had it go.
 *
 * @param determinant fields that decide
 * @param dependents fields they decide
 * @param label of the new table, if there is to be one
 */
public record SplitOff(
    TableId table, List<FieldId> determinant, List<FieldId> dependents, String label)
    implements Edit {
  public SplitOff {
    determinant = List.copyOf(determinant);
    dependents = List.copyOf(dependents);
  }

  /** The split that ends what a fact does to a table; what decides names a new table. */
  public static SplitOff of(Design design, TableId table, KnownFact fact) {
    Table of = design.table(table);
    String label =
        refers(design, table, fact.determinant())
            .map(over -> design.table(over.parent()).label())
            .orElseGet(() -> String.join(" ", of.labelsOf(fact.determinant())));
    return new SplitOff(table, fact.determinant(), fact.dependents(), label);
  }

  @Override
  public String name() {
    return "split off " + label;
  }

  @Override
  public boolean reachesFar() {
    return true;
  }

  /** The relationship by which the fields refer to a table, if they do. */
  public static Optional<Relationship> refers(
      Design design, TableId table, List<FieldId> determinant) {
    return design.parentsOf(table).stream()
        .filter(r -> r.childFields().equals(determinant) && !r.isSelfReference())
        .findFirst();
  }

  @Override
  public Draft apply(Draft draft) {
    Table from = draft.design().table(table);
    InFile.requireHeld(draft, table);
    Optional<Relationship> known = refers(draft.design(), table, determinant);
    Optional<Relationship> bound = inTheWay(draft.design());
    if (bound.isPresent()) {
      throw new EditRefusedException(
          "The relationship "
              + bound.get().name()
              + " stands on "
              + WordList.and(from.labelsOf(dependents))
              + " and cannot go along; change it first.");
    }
    Map<List<Optional<String>>, List<Optional<String>>> values = values(draft, from);
    Draft added =
        known.isPresent()
            ? intoParent(draft, from, known.get(), values)
            : intoNew(draft, from, values);
    Scope scope = draft.meaning().of(from).scope();
    Design read = added.design().withTable(table, t -> reading(scope, t, moved(added, known)));
    Rows rows = added.rows().of(table);
    Design left = read;
    for (FieldId gone : dependents) {
      rows = rows.withoutColumn(gone);
      left = left.withTable(table, t -> t.withoutField(gone));
    }
    Rows kept = rows;
    return added.with(left, added.rows().with(table, all -> kept));
  }

  /** A relationship that stands on what is decided and could not go along, if there is one. */
  public Optional<Relationship> inTheWay(Design design) {
    boolean intoParent = refers(design, table, determinant).isPresent();
    return design.relationships().stream()
        .filter(
            r -> {
              boolean up =
                  r.child().equals(table)
                      && r.childFields().stream().anyMatch(dependents::contains);
              boolean along = up && !intoParent && dependents.containsAll(r.childFields());
              boolean down =
                  r.parent().equals(table)
                      && r.parentFields().stream().anyMatch(dependents::contains);
              return down || (up && !along);
            })
        .findFirst();
  }

  /** What is decided, by what decides it. */
  private Map<List<Optional<String>>, List<Optional<String>>> values(Draft draft, Table from) {
    Rows rows = draft.rows().of(table);
    Map<List<Optional<String>>, List<Optional<String>>> values = new LinkedHashMap<>();
    for (int row = 0; row < rows.count(); row++) {
      List<Optional<String>> key = rows.row(row, determinant);
      List<Optional<String>> decided = rows.row(row, dependents);
      boolean whole = key.stream().allMatch(Optional::isPresent);
      if (!whole && decided.stream().anyMatch(Optional::isPresent)) {
        throw new EditRefusedException(
            "Row "
                + (row + 1)
                + " of "
                + from.label()
                + " has no "
                + WordList.and(from.labelsOf(determinant))
                + ", so that its "
                + WordList.and(from.labelsOf(dependents))
                + " would be lost; fill it in first.");
      }
      List<Optional<String>> before = whole ? values.putIfAbsent(key, decided) : null;
      if (before != null && !before.equals(decided)) {
        throw new EditRefusedException(
            WordList.and(from.labelsOf(determinant))
                + " does not decide "
                + WordList.and(from.labelsOf(dependents))
                + ": row "
                + (row + 1)
                + " says something else than a row before; put them right first.");
      }
    }
    return values;
  }

  private Draft intoNew(
      Draft draft, Table from, Map<List<Optional<String>>, List<Optional<String>>> values) {
    Design design = draft.design();
    Set<String> names = design.tables().stream().map(Table::name).collect(Collectors.toSet());
    String name = NamingPolicy.free(NamingPolicy.nameFor(label), names);
    List<Field> fields =
        Stream.concat(
                determinant.stream()
                    .map(from::field)
                    .map(f -> f.withType(f.type().asReferenced()).withRequired(true)),
                dependents.stream().map(from::field))
            .toList();
    Table own =
        design
            .unused(Table.of(name, label, Noun.ofLabel(label)))
            .withArea(from.area())
            .withFields(fields)
            .withPrimaryKey(determinant)
            .withFacts(known(from));
    List<List<Optional<String>>> rows =
        values.entrySet().stream()
            .map(e -> Stream.concat(e.getKey().stream(), e.getValue().stream()).toList())
            .toList();
    Draft added = new AddTable(own, Rows.of(own.fieldIds(), rows)).apply(draft);
    String tied =
        NamingPolicy.free(
            ConstraintNaming.reference(from.name(), from.namesOf(determinant)),
            design.relationships().stream().map(Relationship::name).toList());
    var relationships = new ArrayList<Relationship>();
    for (Relationship r : added.design().relationships()) {
      boolean along = r.child().equals(table) && dependents.containsAll(r.childFields());
      relationships.add(
          along ? r.withEnds(own.id(), r.childFields(), r.parent(), r.parentFields()) : r);
    }
    relationships.add(
        added
            .design()
            .unused(Relationship.of(tied, table, determinant, own.id(), own.primaryKey())));
    return added.withDesign(added.design().withRelationships(relationships));
  }

  /** What is known of fields that go along, beside what the new key says. */
  private List<KnownFact> known(Table from) {
    return from.facts().stream().filter(fact -> !fact.isOf(determinant)).toList();
  }

  /** The fields join the row that the determinant leads to; rows nobody refers to have none. */
  private Draft intoParent(
      Draft draft,
      Table from,
      Relationship known,
      Map<List<Optional<String>>, List<Optional<String>>> values) {
    Table parent = draft.design().table(known.parent());
    InFile.requireHeld(draft, parent.id());
    Table grown = parent;
    Rows rows = draft.rows().of(parent.id());
    boolean all = true;
    for (int i = 0; i < dependents.size(); i++) {
      Field field = from.field(dependents.get(i));
      String free = NamingPolicy.free(field.name(), grown.fieldsByName().keySet());
      Field fresh = grown.unused(field.withName(free));
      var texts = new ArrayList<Optional<String>>();
      for (int row = 0; row < rows.count(); row++) {
        List<Optional<String>> decided = values.get(rows.row(row, known.parentFields()));
        texts.add(decided == null ? Optional.empty() : decided.get(i));
        all &= texts.getLast().isPresent();
      }
      grown = grown.withFieldAdded(all ? fresh : fresh.withRequired(false));
      rows = rows.withColumn(fresh.id(), texts);
    }
    Table now = grown;
    Rows filled = rows;
    return draft.with(
        draft.design().withTable(parent.id(), t -> now),
        draft.rows().with(parent.id(), before -> filled));
  }

  /** By which path each moved field is read from the table now. */
  private Map<FieldId, List<String>> moved(Draft added, Optional<Relationship> known) {
    Map<FieldId, List<String>> paths = new LinkedHashMap<>();
    if (determinant.size() == 1) {
      Relationship over =
          known.orElseGet(() -> refers(added.design(), table, determinant).orElseThrow());
      Table parent = added.design().table(over.parent());
      String way = added.design().table(table).field(determinant.getFirst()).name();
      List<Field> last =
          parent
              .fields()
              .subList(parent.fields().size() - dependents.size(), parent.fields().size());
      for (int i = 0; i < dependents.size(); i++) {
        paths.put(dependents.get(i), List.of(way, last.get(i).name()));
      }
    }
    return paths;
  }

  /** The table with its formulas reading what was moved where it is now. */
  private static Table reading(Scope scope, Table table, Map<FieldId, List<String>> paths) {
    UnaryOperator<Formula> renamed =
        formula ->
            formula.renamed(
                scope,
                read ->
                    read instanceof OwnField own && paths.containsKey(own.field())
                        ? paths.get(own.field())
                        : read.path());
    return table
        .withRowLabel(table.rowLabel().map(renamed))
        .withRules(
            table.rules().stream()
                .map(r -> r.withDemand(r.demand().withFormulas(renamed, (over, f) -> f)))
                .toList())
        .withFields(
            table.fields().stream()
                .map(
                    field ->
                        field.origin() instanceof Origin.Computed(Formula formula)
                            ? field.withOrigin(new Origin.Computed(renamed.apply(formula)))
                            : field)
                .toList());
  }
}
