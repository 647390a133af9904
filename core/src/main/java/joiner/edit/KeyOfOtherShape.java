package joiner.edit;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.expression.Checked;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.meaning.Renaming;
import joiner.meaning.TableMeaning;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.WordList;
import joiner.rows.RowValues;
import joiner.rows.Rows;

/**
 * What refers to a table follows a key of another number of fields, or of several.
 *
 * @param draft as it was before
 * @param before the table with its old key
 * @param key the new one
 * @param referring the relationships that led to the old one
 */
record KeyOfOtherShape(Draft draft, Table before, List<FieldId> key, List<Relationship> referring) {

  /**
   * The change.
   *
   * @param identified the draft in which the table has its new key, and nothing follows yet
   * @throws EditRefusedException where rows have no whole new key, share one, or something that is
   *     about the old fields stands in the way
   */
  Draft led(Draft identified) {
    InFile.requireHeld(draft, before.id());
    requireNoReference();
    Map<List<Value>, List<String>> values = values();
    Draft changed = identified;
    for (Relationship down : referring) {
      changed = new OtherReference(changed, down, key, values).led();
    }
    Draft carried = changed.withDesign(Renaming.carry(draft.design(), changed.design()));
    requireReadable(draft, carried);
    return carried;
  }

  private void requireNoReference() {
    for (FieldId field : key) {
      if (referring.stream()
          .anyMatch(down -> down.isSelfReference() && down.childFields().contains(field))) {
        throw new EditRefusedException(
            before.field(field).label()
                + " refers to what identifies "
                + before.label()
                + " now, so it cannot identify it itself.");
      }
    }
  }

  /** For each value of the old key the new key's, both of several fields. */
  private Map<List<Value>, List<String>> values() {
    List<FieldId> old = before.primaryKey();
    Rows rows = draft.rows().of(before.id());
    var typed = new RowValues(before, rows);
    List<Optional<List<Value>>> from = typed.tuples(old);
    List<Optional<List<Value>>> to = typed.tuples(key);
    Map<List<Value>, List<String>> values = HashMap.newHashMap(rows.count());
    var seen = new HashSet<List<Value>>();
    for (int row = 0; row < rows.count(); row++) {
      boolean whole = to.get(row).filter(seen::add).isPresent();
      List<String> now = rows.row(row, key).stream().map(cell -> cell.orElse("")).toList();
      if (!whole || from.get(row).filter(was -> values.put(was, now) != null).isPresent()) {
        throw new EditRefusedException(
            "Row "
                + (row + 1)
                + " of "
                + before.label()
                + " has "
                + (whole
                    ? "the " + WordList.and(before.labelsOf(old)) + " of another row"
                    : to.get(row).isPresent()
                        ? "the " + WordList.and(before.labelsOf(key)) + " of another row"
                        : "no whole " + WordList.and(before.labelsOf(key)))
                + "; what identifies rows is there, and once only. Mend it first.");
      }
    }
    return values;
  }

  /** Refuses to break a formula that reads, over relationships, a field that would go. */
  private static void requireReadable(Draft before, Draft after) {
    for (Table table : after.design().tables()) {
      TableMeaning was = before.meaning().of(table.id());
      TableMeaning is = after.meaning().of(table.id());
      for (int i = 0; i < is.rules().size(); i++) {
        requireReadable(
            was.rules().get(i).condition(),
            is.rules().get(i).condition(),
            "the rule “" + is.rules().get(i).rule().label() + "” of " + table.label());
      }
      if (was.rowLabel().isPresent() && is.rowLabel().isPresent()) {
        requireReadable(
            was.rowLabel().get(),
            is.rowLabel().get(),
            "what people recognise a row of " + table.label() + " by");
      }
    }
  }

  private static void requireReadable(Checked was, Checked is, String what) {
    if (was instanceof Checked.Sound && is instanceof Checked.Faulty) {
      throw new EditRefusedException(
          "Fields that hold the key now would go, and "
              + what
              + " reads one of them. Change that first.");
    }
  }
}
