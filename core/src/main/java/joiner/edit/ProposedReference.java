package joiner.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import joiner.discovery.FoundInclusion;
import joiner.discovery.InclusionSearch;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;
import joiner.rows.EncodedTable;
import joiner.rows.TableRows;

/**
 * A relationship that the rows of a design suggest: fields of one table hold values of another's
 * key.
 *
 * @param child the table that would refer
 * @param parent the table it would refer to
 * @param found the fields by place in what was compared, with how many rows match
 */
public record ProposedReference(
    TableId child,
    List<FieldId> childFields,
    TableId parent,
    List<FieldId> parentFields,
    FoundInclusion found) {
  public ProposedReference {
    childFields = List.copyOf(childFields);
    parentFields = List.copyOf(parentFields);
  }

  /**
   * What the rows suggest for one table, best covered first, without relationships that are there.
   * Numbers match other numbers by accident, so a field of numbers must be named after the table.
   *
   * @param stop asked often; once true the search ends with what it has
   */
  public static List<ProposedReference> of(Draft draft, TableId table, BooleanSupplier stop) {
    Table child = draft.design().table(table);
    List<Field> fields =
        child.fields().stream().filter(f -> !(f.type() instanceof FieldType.Counter)).toList();
    var tables = new ArrayList<EncodedTable>();
    var columns = new ArrayList<List<FieldId>>();
    var owners = new ArrayList<Table>();
    add(draft, child, fields.stream().map(Field::id).toList(), tables, columns, owners);
    for (Table parent : draft.design().tables()) {
      if (!parent.equals(child)) {
        List<FieldId> keys = parent.keys().stream().flatMap(List::stream).distinct().toList();
        add(draft, parent, keys, tables, columns, owners);
      }
    }
    var proposals = new ArrayList<ProposedReference>();
    for (FoundInclusion found :
        new InclusionSearch(InclusionSearch.usual().least(), stop).search(tables)) {
      if (found.fromTable() == 0 && found.inTable() != 0) {
        Table parent = owners.get(found.inTable());
        var proposal =
            new ProposedReference(
                child.id(),
                found.from().stream().map(columns.getFirst()::get).toList(),
                parent.id(),
                found.in().stream().map(columns.get(found.inTable())::get).toList(),
                found);
        if (proposal.makesSense(draft, child, parent)) {
          proposals.add(proposal);
        }
      }
    }
    return proposals;
  }

  private static void add(
      Draft draft,
      Table table,
      List<FieldId> fields,
      List<EncodedTable> tables,
      List<List<FieldId>> columns,
      List<Table> owners) {
    tables.add(EncodedTable.of(new TableRows(table, fields, draft.rows().of(table.id()))));
    columns.add(fields);
    owners.add(table);
  }

  private boolean makesSense(Draft draft, Table from, Table to) {
    boolean there =
        draft.design().relationships().stream()
            .anyMatch(
                r ->
                    r.child().equals(child)
                        && r.childFields().stream().anyMatch(childFields::contains));
    if (there || !to.isUnique(parentFields)) {
      return false;
    }
    for (int i = 0; i < childFields.size(); i++) {
      Field one = from.field(childFields.get(i));
      Field other = to.field(parentFields.get(i));
      boolean sameKind = one.type().getClass().equals(other.type().asReferenced().getClass());
      boolean text = one.type() instanceof FieldType.Sized;
      boolean named =
          one.name().toLowerCase(Locale.ROOT).contains(to.name().toLowerCase(Locale.ROOT));
      if (!sameKind || !text && !named) {
        return false;
      }
    }
    return true;
  }

  /** The change that makes it a relationship; rows without a match become orphans to mend. */
  public Edit edit(Draft draft) {
    Table from = draft.design().table(child);
    Table to = draft.design().table(parent);
    String name =
        NamingPolicy.free(
            ConstraintNaming.reference(from.name(), from.namesOf(childFields)),
            draft.design().relationships().stream()
                .map(Relationship::name)
                .collect(Collectors.toSet()));
    var edits = new ArrayList<Edit>();
    if (!from.isKey(childFields)) {
      edits.add(ChangeTable.addIndex(from, new Index(name.replaceFirst("^fk", "ix"), childFields)));
    }
    edits.add(
        new AddRelationship(
            Relationship.of(name, child, childFields, parent, parentFields)
                .withRoles("has", "is given to")));
    return Edit.all("relate " + from.label() + " to " + to.label(), edits);
  }
}
