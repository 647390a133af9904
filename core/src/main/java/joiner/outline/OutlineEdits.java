package joiner.outline;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import joiner.edit.AddField;
import joiner.edit.AddTable;
import joiner.edit.ChangeTable;
import joiner.edit.Edit;
import joiner.edit.EditRefusedException;
import joiner.edit.Relating;
import joiner.edit.SetUnique;
import joiner.meaning.DefaultReading;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;

/** Adds what an outline says to a design. */
public record OutlineEdits(Outline outline, Optional<TableId> into) implements Edit {
  /**
   * Adds all of an outline.
   *
   * @param into the table that gets the fields that belong to none
   */
  public OutlineEdits {
    if (into.isEmpty() && outline.tables().stream().anyMatch(t -> t.label().isEmpty())) {
      throw new EditRefusedException(
          "These fields belong to no table; choose one, or write its name and a colon before"
              + " them.");
    }
  }

  @Override
  public String name() {
    long tables = outline.tables().stream().filter(table -> table.label().isPresent()).count();
    int fields = outline.tables().stream().mapToInt(table -> table.fields().size()).sum();
    String added = fields + (fields == 1 ? " field" : " fields");
    return tables == 0
        ? "add " + added
        : "add " + tables + (tables == 1 ? " table" : " tables") + " with " + added;
  }

  /** A table of the outline, and where it stands in the design. */
  private record Placed(OutlinedTable outlined, TableId table, List<FieldId> fields) {}

  @Override
  public Draft apply(Draft draft) {
    Draft changed = draft;
    var placed = new ArrayList<Placed>();
    for (OutlinedTable outlined : outline.tables()) {
      TableId table = into.orElse(new TableId("none"));
      if (outlined.label().isPresent()) {
        AddTable added = table(changed.design(), outlined.label().get());
        changed = added.apply(changed);
        table = added.table().id();
      }
      var fields = new ArrayList<FieldId>();
      for (OutlinedField field : outlined.fields()) {
        Field made = field(changed.design().table(table), field);
        changed = new AddField(table, made).apply(changed);
        fields.add(made.id());
      }
      placed.add(new Placed(outlined, table, fields));
    }
    for (Placed one : placed) {
      changed = keyed(changed, one);
    }
    for (Placed one : placed) { // Once all tables have their keys.
      changed = related(changed, one);
    }
    return changed;
  }

  private static AddTable table(Design design, String written) {
    String label = capital(written);
    Set<String> names = new HashSet<>();
    design.tables().forEach(table -> names.add(table.name()));
    String name = NamingPolicy.free(NamingPolicy.nameFor(label), names);
    return new AddTable(design.unused(Table.of(name, label, Noun.ofLabel(label))), Rows.NONE);
  }

  private static String capital(String label) {
    return label.isEmpty() ? label : Character.toUpperCase(label.charAt(0)) + label.substring(1);
  }

  private static Field field(Table table, OutlinedField written) {
    boolean isName = written.label().matches("[a-z0-9]+(_[a-z0-9]+)*");
    String label = isName ? NamingPolicy.labelFor(written.label()) : capital(written.label());
    String name =
        NamingPolicy.free(NamingPolicy.nameFor(written.label()), table.fieldsByName().keySet());
    Field field =
        Field.of(name, label, written.typeOrUsual())
            .withUnit(written.usualUnit())
            .withRequired(written.required())
            .withDescription(written.note());
    Field made = table.unused(field);
    return written.defaultText().isBlank()
        ? made
        : made.withDefault(DefaultReading.of(made, written.defaultText()).getFirst().value());
  }

  private static Draft keyed(Draft draft, Placed placed) {
    Draft changed = draft;
    var key = new ArrayList<FieldId>();
    for (int i = 0; i < placed.fields().size(); i++) {
      OutlinedField written = placed.outlined().fields().get(i);
      FieldId id = placed.fields().get(i);
      if (written.key()) {
        key.add(id);
      }
      if (written.unique()) {
        Table table = changed.design().table(placed.table());
        changed = SetUnique.of(table, List.of(id), true).apply(changed);
      }
    }
    Table table = changed.design().table(placed.table());
    return key.isEmpty() || !table.primaryKey().isEmpty()
        ? changed
        : ChangeTable.primaryKey(table, key).apply(changed);
  }

  private static Draft related(Draft draft, Placed placed) {
    Draft changed = draft;
    for (int i = 0; i < placed.fields().size(); i++) {
      Optional<String> wanted = placed.outlined().fields().get(i).refersTo();
      if (wanted.isPresent()) {
        Design design = changed.design();
        Table child = design.table(placed.table());
        Table parent = named(design, wanted.get());
        Edit tie = Relating.by(design, child, child.field(placed.fields().get(i)), parent);
        changed = tie.apply(changed);
      }
    }
    return changed;
  }

  private static Table named(Design design, String wanted) {
    String lower = wanted.toLowerCase(Locale.ROOT);
    return design.tables().stream()
        .filter(
            table ->
                table.label().toLowerCase(Locale.ROOT).equals(lower)
                    || table.name().equals(lower)
                    || table.noun().plural().equals(lower))
        .findFirst()
        .orElseThrow(
            () ->
                new EditRefusedException(
                    "There is no table " + wanted + " to refer to; write it down too."));
  }
}
