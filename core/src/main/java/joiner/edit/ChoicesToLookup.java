package joiner.edit;

import java.util.List;
import java.util.Optional;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;

/** Turns fixed choices into a lookup table keyed by the choice itself; no stored value changes. */
public record ChoicesToLookup(TableId table, FieldId field, String label) implements Edit {
  @Override
  public String name() {
    return "turn the choices of " + label + " into a lookup table";
  }

  @Override
  public Draft apply(Draft draft) {
    Table owner = draft.design().table(table);
    Field choosing = owner.field(field);
    if (!(choosing.type() instanceof FieldType.Choice choice)) {
      throw new EditRefusedException(choosing.label() + " has no fixed choices.");
    }
    var text = new FieldType.Text(Math.max(choice.longest(), 1));
    Field key = Field.of("name", "Name", text).withRequired(true);
    Table lookup = lookup(draft.design(), owner, choosing, key);
    Rows rows =
        Rows.of(
            List.of(key.id()), choice.values().stream().map(v -> List.of(Optional.of(v))).toList());
    Draft with = new AddTable(lookup, rows).apply(draft);
    List<String> about = List.of(choosing.name());
    var index = new Index(ConstraintNaming.index(owner.name(), about), List.of(field));
    Draft indexed =
        with.withDesign(
            with.design()
                .withTable(
                    table, t -> t.withField(field, f -> f.withType(text)).withIndexAdded(index)));
    String constraint = ConstraintNaming.reference(owner.name(), about);
    return new AddRelationship(
            Relationship.of(constraint, table, List.of(field), lookup.id(), List.of(key.id()))
                .withRoles("has", "is given to"))
        .apply(indexed);
  }

  /** The table of the choices, beside the one that chooses. */
  private static Table lookup(Design design, Table owner, Field choosing, Field key) {
    String name =
        NamingPolicy.free(choosing.name(), design.tables().stream().map(Table::name).toList());
    return design.unused(
        Table.of(name, choosing.label(), Noun.ofLabel(choosing.label()))
            .withArea(owner.area())
            .withFields(List.of(key))
            .withPrimaryKey(List.of(key.id()))
            .withRowLabel(Optional.of(new Formula("name")))
            .withKind(new TableKind.Lookup(Optional.of(key.id()), Optional.empty())));
  }
}
