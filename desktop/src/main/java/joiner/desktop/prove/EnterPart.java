package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import joiner.meaning.Draft;
import joiner.meaning.ParentRows;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Origin;
import joiner.model.Relationship;
import joiner.model.Table;

/** What is entered at one place: a field, or a reference of one field or several. */
sealed interface EnterPart {
  List<FieldId> fields();

  /** What people call it: the field, or the table that several fields together lead to. */
  default String label(Table of) {
    return this instanceof To to && fields().size() > 1
        ? to.parent().label()
        : of.field(fields().getLast()).label();
  }

  /** A value of its own. */
  record Own(Field field) implements EnterPart {
    @Override
    public List<FieldId> fields() {
      return List.of(field.id());
    }
  }

  /** A row of another table. */
  record To(Relationship over, Table parent) implements EnterPart {
    @Override
    public List<FieldId> fields() {
      return over.childFields();
    }
  }

  /** The parts of a table's row, in the order of its fields. */
  static List<EnterPart> of(Draft draft, Table table) {
    var parts = new ArrayList<EnterPart>();
    Set<FieldId> referring = new LinkedHashSet<>();
    List<Relationship> up = draft.design().parentsOf(table.id());
    up.stream()
        .filter(r -> r.childFields().size() > 1)
        .forEach(r -> referring.addAll(r.childFields()));
    for (Field field : table.fields()) {
      Optional<Relationship> over = ParentRows.readIn(draft, table.id(), field.id());
      if (over.isPresent()) {
        parts.add(new To(over.get(), draft.design().table(over.get().parent())));
      } else if (!referring.contains(field.id())) {
        parts.add(new Own(field));
      }
    }
    return parts;
  }

  /** Whether people type the field at all. */
  static boolean isTyped(Field field) {
    return field.origin() instanceof Origin.Typed && !(field.type() instanceof FieldType.Counter)
        || field.origin() instanceof Origin.Copied;
  }
}
