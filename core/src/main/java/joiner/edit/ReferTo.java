package joiner.edit;

import java.util.List;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * Lets fields refer to the primary key of a table, each by a relationship of its own, as {@link
 * Relating#by} does; those that do already stay as they are.
 */
public record ReferTo(String name, TableId child, List<FieldId> fields, TableId parent)
    implements Edit {
  public ReferTo {
    fields = List.copyOf(fields);
  }

  @Override
  public Draft apply(Draft draft) {
    Draft changed = draft;
    for (FieldId field : fields) {
      Table table = changed.design().table(child);
      boolean already =
          changed.design().parentsOf(child).stream()
              .anyMatch(up -> up.childFields().contains(field) && up.parent().equals(parent));
      if (!already) {
        changed =
            Relating.by(changed.design(), table, table.field(field), changed.design().table(parent))
                .apply(changed);
      }
    }
    return changed;
  }
}
