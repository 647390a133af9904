package joiner.edit;

import java.util.ArrayList;
import java.util.List;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.UniqueKey;
import joiner.naming.ConstraintNaming;

/** Says whether the values of some fields together occur once. */
public record SetUnique(TableId table, List<FieldId> fields, String label, boolean unique)
    implements Edit {
  public SetUnique {
    fields = List.copyOf(fields);
  }

  /** Makes fields of a table unique together, or no longer so. */
  public static SetUnique of(Table table, List<FieldId> fields, boolean unique) {
    return new SetUnique(table.id(), fields, String.join(" and ", table.labelsOf(fields)), unique);
  }

  @Override
  public String name() {
    return unique ? "make " + label + " unique" : "let " + label + " repeat";
  }

  @Override
  public Draft apply(Draft draft) {
    return draft.withDesign(draft.design().withTable(table, this::changed));
  }

  private Table changed(Table before) {
    var keys = new ArrayList<>(before.uniqueKeys());
    keys.removeIf(key -> key.fields().size() == fields.size() && key.fields().containsAll(fields));
    Table without = before.withUniqueKeys(keys);
    String name = ConstraintNaming.unique(before.name(), before.namesOf(fields));
    return unique ? without.withUniqueKeyAdded(new UniqueKey(name, fields)) : without;
  }
}
