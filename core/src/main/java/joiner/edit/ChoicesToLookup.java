package joiner.edit;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.FieldType.Choice.Entry;
import joiner.model.Index;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;

/**
 * Turns fixed choices into a lookup table keyed by the choice itself; no stored value changes. What
 * is said of choices, that some are retired and an order that is not the alphabet's become fields;
 * marks for the eye stay behind.
 */
public record ChoicesToLookup(TableId table, FieldId field, String label) implements Edit {
  /** What holds of a choice what a lookup table has a field for. */
  static final String DESCRIPTION = "description";

  /** Where it stands among those offered. */
  static final String PLACE = "place";

  private static final String RETIRED = "retired";

  @Override
  public String name() {
    return "turn the choices of " + label + " into a lookup table";
  }

  @Override
  public boolean reachesFar() {
    return true;
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
    Map<Field, Function<Entry, String>> columns = columns(key, choice);
    Table lookup = lookup(draft.design(), owner, choosing, List.copyOf(columns.keySet()));
    Rows rows =
        Rows.of(
            lookup.fieldIds(),
            choice.entries().stream()
                .map(entry -> columns.values().stream().map(of -> cell(of.apply(entry))).toList())
                .toList());
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

  private static Optional<String> cell(String text) {
    return Optional.of(text).filter(given -> !given.isEmpty());
  }

  /** The fields of the table, each with what it holds of a choice; the key always comes first. */
  private static Map<Field, Function<Entry, String>> columns(Field key, FieldType.Choice choice) {
    Map<Field, Function<Entry, String>> columns = new LinkedHashMap<>();
    columns.put(key, Entry::text);
    if (choice.entries().stream().anyMatch(entry -> !entry.description().isEmpty())) {
      columns.put(
          Field.of(DESCRIPTION, "Description", new FieldType.LongText()), Entry::description);
    }
    List<String> texts = choice.values();
    if (!texts.equals(texts.stream().sorted().toList())) {
      Map<String, Integer> places = new HashMap<>();
      texts.forEach(text -> places.put(text, places.size() + 1));
      var number = new FieldType.WholeNumber(Width.BITS_16);
      columns.put(
          Field.of(PLACE, "Place", number).withRequired(true),
          entry -> String.valueOf(places.get(entry.text())));
    }
    if (choice.entries().stream().anyMatch(Entry::retired)) {
      columns.put(
          Field.of(RETIRED, "Retired", new FieldType.TrueFalse()).withRequired(true),
          entry -> String.valueOf(entry.retired()));
    }
    return columns;
  }

  /** The table of the choices, beside the one that chooses. */
  private static Table lookup(Design design, Table owner, Field choosing, List<Field> fields) {
    String name =
        NamingPolicy.free(choosing.name(), design.tables().stream().map(Table::name).toList());
    Field key = fields.getFirst();
    Optional<FieldId> place = named(fields, PLACE).or(() -> Optional.of(key.id()));
    return design.unused(
        Table.of(name, choosing.label(), Noun.ofLabel(choosing.label()))
            .withArea(owner.area())
            .withFields(fields)
            .withPrimaryKey(List.of(key.id()))
            .withRowLabel(Optional.of(new Formula("name")))
            .withKind(new TableKind.Lookup(place, named(fields, RETIRED))));
  }

  private static Optional<FieldId> named(List<Field> fields, String name) {
    return fields.stream().filter(f -> f.name().equals(name)).map(Field::id).findFirst();
  }
}
