package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import joiner.compare.Effect;
import joiner.compare.Impact;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.edit.AddField;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.edit.Edit;
import joiner.edit.RemoveField;
import joiner.edit.SetUnique;
import joiner.edit.UsualType;
import joiner.expression.Formula;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.NamingPolicy;

/** The fields of a table as they are shown and typed, without a window. */
final class FieldsModel {
  private final Workbench bench;
  private final Texts texts;
  private Table table = Table.of("none", "none", new Noun("none", "none"));
  private List<Relationship> links = List.of();

  FieldsModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
  }

  /** The table whose fields they are. */
  Table table() {
    return table;
  }

  /**
   * Turns to a table as it is now.
   *
   * @return whether anything about its fields is to be shown otherwise than before
   */
  boolean turnTo(Table shown) {
    List<Relationship> parents = bench.design().parentsOf(shown.id());
    if (shown.equals(table) && parents.equals(links)) {
      return false;
    }
    table = shown;
    links = parents;
    return true;
  }

  private Optional<Relationship> link(Field field) {
    return links.stream().filter(r -> r.childFields().contains(field.id())).findFirst();
  }

  /** What part a field has in keys, in the trade's two letters; empty for none. */
  String tag(Field field) {
    if (table.primaryKey().contains(field.id())) {
      return "PK";
    }
    return link(field).isPresent() ? "FK" : "";
  }

  /** The type in words; of a reference the table it leads to. */
  String type(Field field) {
    return link(field)
        .map(r -> "→ " + bench.design().table(r.parent()).label())
        .orElseGet(
            () -> texts.get("type." + TypeChoice.of(field.type()).map(Enum::name).orElse("Kept")));
  }

  /** Adds a field at the end, with the type its label suggests, and chooses it. */
  void add(String label) {
    String name = NamingPolicy.free(NamingPolicy.nameFor(label), table.fieldsByName().keySet());
    Field field = table.unused(Field.of(name, label, proposedFor(label)));
    bench.apply(new AddField(table.id(), field));
    bench.selectionProperty().set(Selection.of(table.id(), field.id()));
  }

  private static FieldType proposedFor(String label) {
    return UsualType.of(label).map(UsualType::type).orElseGet(TypeChoice.Text::usual);
  }

  /** Gives a field another label; a name that came from the label follows. */
  void relabel(Field field, String label) {
    if (label.isBlank() || label.equals(field.label())) {
      return;
    }
    boolean derived = field.name().equals(NamingPolicy.nameFor(field.label()));
    String name = derived ? freeName(field, NamingPolicy.nameFor(label)) : field.name();
    bench.apply(ChangeField.rename(table, field, label.strip(), name));
  }

  private String freeName(Field field, String name) {
    var taken = new ArrayList<>(table.fieldsByName().keySet());
    taken.remove(field.name());
    return NamingPolicy.free(name, taken);
  }

  void rename(Field field, String name) {
    if (!name.isBlank() && !name.equals(field.name())) {
      bench.apply(ChangeField.rename(table, field, field.label(), name.strip()));
    }
  }

  /** Gives a field a type with a size as typed behind it; none typed: the usual one. */
  void retype(Field field, TypeChoice choice, String size) {
    if (size.isBlank()) {
      retype(field, choice);
      return;
    }
    choice
        .sized(size)
        .ifPresentOrElse(
            type -> bench.apply(ChangeField.type(table, field, type)),
            () ->
                bench.tell(
                    Notice.Sort.REFUSED,
                    texts.get("size.bad", size, texts.get("type." + choice.name()))));
  }

  /** Gives a field the usual size of a type, where that is another than its own. */
  void retype(Field field, TypeChoice choice) {
    if (!Optional.of(choice).equals(TypeChoice.of(field.type()))) {
      bench.apply(ChangeField.type(table, field, choice.usual()));
    }
  }

  /** Gives a field the type and size of another. */
  void retypeAs(Field field, Field other) {
    var type =
        other.type() instanceof FieldType.Counter ? other.type().asReferenced() : other.type();
    if (!type.equals(field.type())) {
      bench.apply(ChangeField.type(table, field, type));
    }
  }

  /**
   * Gives a field another size.
   *
   * @return whether that is a size for its type; if not, it is told
   */
  boolean resize(Field field, String size) {
    if (size.equals(TypeChoice.sizeOf(field.type()))) {
      return true;
    }
    var sized = TypeChoice.of(field.type()).flatMap(choice -> choice.sized(size));
    sized.ifPresentOrElse(
        type -> bench.apply(ChangeField.type(table, field, type)),
        () -> bench.tell(Notice.Sort.REFUSED, texts.get("size.bad", size, type(field))));
    return sized.isPresent();
  }

  void changeDefault(Field field, String text) {
    bench.apply(ChangeField.defaultValue(table, field, Formula.unlessBlank(text)));
  }

  void note(Field field, String text) {
    bench.apply(ChangeField.description(table, field, text.strip()));
  }

  boolean isRequired(Field field) {
    return table.isRequired(field.id());
  }

  boolean isUnique(Field field) {
    return table.isKey(List.of(field.id()));
  }

  /** A field of the primary key stays required. */
  void toggleRequired(Field field) {
    if (!table.primaryKey().contains(field.id())) {
      bench.apply(ChangeField.required(table, field, !field.required()));
    }
  }

  /** A field that is the primary key by itself stays unique. */
  void toggleUnique(Field field) {
    List<FieldId> alone = List.of(field.id());
    if (!table.primaryKey().equals(alone)) {
      bench.apply(SetUnique.of(table, alone, !table.isKey(alone)));
    }
  }

  /** Takes fields into the primary key, or out of it where it has them all. */
  void toggleKey(List<Field> fields) {
    List<FieldId> ids = fields.stream().map(Field::id).toList();
    var key = new ArrayList<>(table.primaryKey());
    if (key.containsAll(ids)) {
      key.removeAll(ids);
    } else {
      ids.stream().filter(Predicate.not(key::contains)).forEach(key::add);
    }
    if (!ids.isEmpty()) {
      bench.apply(ChangeTable.primaryKey(table, key));
    }
  }

  /** Moves a field by so many places; nothing at either end. */
  void move(Field field, int by) {
    int to = table.fields().indexOf(field) + by;
    if (to >= 0 && to < table.fields().size()) {
      bench.apply(ChangeTable.move(table, field, to));
    }
  }

  /** Removes fields as one change, which one undo takes back; tells what went along unseen. */
  void remove(List<Field> gone) {
    if (gone.isEmpty()) {
      return;
    }
    var edits = new ArrayList<Edit>();
    gone.forEach(field -> edits.add(new RemoveField(table.id(), field.id(), field.label())));
    Edit removal = Edit.all(texts.get("undo.remove", gone.size()), edits);
    String along = takenAlong(Impact.of(removal, bench.draft()));
    bench.apply(removal);
    bench.tellDone(texts.get("removed", gone.size()) + along, texts.get("undo"));
  }

  private static String takenAlong(Impact impact) {
    return impact.effects().stream()
        .filter(
            effect ->
                effect.kind() == Effect.Kind.RELATIONSHIP_REMOVED
                    || effect.kind() == Effect.Kind.FORMULA_BROKEN)
        .map(effect -> "\n" + effect.message())
        .collect(Collectors.joining());
  }
}
