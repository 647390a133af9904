package joiner.edit;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.Kind;
import joiner.meaning.DefaultReading;
import joiner.meaning.Draft;
import joiner.meaning.ParentRows;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.WordList;
import joiner.rows.Rows;

/**
 * Turns a table that others pick from into fixed choices of the fields that refer to it; the rows
 * hold what people recognised the picked rows by. Rows become choices in the order in which they
 * are offered, retired ones retired ones, a field named description what choices mean. Refused
 * where the table holds more than that, which would be lost. The way back from {@link
 * ChoicesToLookup}.
 */
public record LookupToChoices(TableId lookup, String label) implements Edit {
  /** What rows are called by may hang on the day; a change is the same whenever it is made. */
  private static final Clock CLOCK = Clock.fixed(Instant.EPOCH, ZoneOffset.UTC);

  @Override
  public String name() {
    return "turn " + label + " into fixed choices";
  }

  @Override
  public boolean reachesFar() {
    return true;
  }

  @Override
  public Draft apply(Draft draft) {
    Table table = draft.design().table(lookup);
    InFile.requireHeld(draft, lookup);
    List<Relationship> referring = referring(draft, table);
    // All refer to the same key, so the rows are the same for each.
    ParentRows listed = ParentRows.of(draft, referring.getFirst(), CLOCK);
    requireNothingElse(draft, table, listed);
    FieldType choice = choice(table, draft.rows().of(lookup), listed);
    Draft changed = draft;
    for (Relationship down : referring) {
      InFile.requireHeld(draft, down.child());
      changed = chosen(changed, down, listed, choice);
    }
    return new RemoveTable(lookup, label).apply(changed);
  }

  private List<Relationship> referring(Draft draft, Table table) {
    List<Relationship> referring = draft.design().childrenOf(lookup);
    boolean simple =
        table.primaryKey().size() == 1
            && !referring.isEmpty()
            && referring.stream()
                .allMatch(
                    down ->
                        down.parentFields().equals(table.primaryKey()) && !down.isSelfReference());
    if (!simple || !draft.design().parentsOf(lookup).isEmpty()) {
      throw new EditRefusedException(
          label
              + " is no plain list: only a table that is identified by one field, that others refer"
              + " to, and that refers to none itself can become fixed choices.");
    }
    return referring;
  }

  /** Refuses to lose what the table holds beside its key and what its rows are recognised by. */
  private void requireNothingElse(Draft draft, Table table, ParentRows listed) {
    Stream<FieldId> shown =
        draft.meaning().of(table).rowLabel().stream()
            .filter(Checked.Sound.class::isInstance)
            .map(Checked.Sound.class::cast)
            .flatMap(sound -> TableMeaning.fieldsOf(sound).stream());
    Rows rows = draft.rows().of(lookup);
    List<FieldId> kept =
        Stream.of(table.primaryKey().stream(), shown, carried(table)).flatMap(ids -> ids).toList();
    List<String> more =
        table.fields().stream()
            .filter(field -> !kept.contains(field.id()))
            .filter(field -> rows.count() == 0 || rows.has(field.id()))
            .map(Field::label)
            .toList();
    if (!more.isEmpty()) {
      throw new EditRefusedException(
          label
              + " also holds "
              + WordList.and(more)
              + ", which fixed choices cannot; move or remove it first.");
    }
  }

  /** What choices can have too. */
  private static Stream<FieldId> carried(Table table) {
    Stream<FieldId> description = description(table).map(Field::id).stream();
    return table.kind() instanceof TableKind.Lookup(var sortBy, var retired)
        ? Stream.of(
                description,
                sortBy.stream().filter(by -> isPlace(table.field(by))),
                retired.stream())
            .flatMap(ids -> ids)
        : description;
  }

  /** Whether a field says nothing but in what order rows are offered. */
  private static boolean isPlace(Field field) {
    return field.name().equals(ChoicesToLookup.PLACE) && field.type().kind() == Kind.WHOLE;
  }

  private static Optional<Field> description(Table table) {
    return table
        .fieldNamed(ChoicesToLookup.DESCRIPTION)
        .filter(field -> field.type().kind() == Kind.TEXT);
  }

  /** What the rows are called, in the order in which they are offered. */
  private FieldType choice(Table table, Rows rows, ParentRows listed) {
    Set<String> keys = new HashSet<>();
    Map<String, ParentRows.Parent> parents = new LinkedHashMap<>();
    for (ParentRows.Parent parent : listed.all()) {
      keys.add(parent.key());
      parents.put(parent.label(), parent);
    }
    if (Math.min(keys.size(), parents.size()) < listed.count()) {
      throw new EditRefusedException(
          "Two rows of "
              + label
              + " are called the same, which choices cannot be; give them different names.");
    }
    Optional<Field> meaning = description(table);
    return FieldType.Choice.of(List.copyOf(parents.keySet()))
        .withEach(
            entry -> {
              ParentRows.Parent parent = parents.get(entry.text());
              return entry
                  .withDescription(meaning.flatMap(f -> rows.cell(parent.row(), f.id())).orElse(""))
                  .withRetired(parent.retired());
            });
  }

  private static Draft chosen(Draft draft, Relationship down, ParentRows listed, FieldType choice) {
    Table child = draft.design().table(down.child());
    Field field = child.field(down.childFields().getFirst());
    Rows rows = draft.rows().of(child.id());
    var cells = new ArrayList<Optional<String>>(rows.count());
    for (int row = 0; row < rows.count(); row++) {
      cells.add(
          rows.cell(row, field.id())
              .map(cell -> listed.find(cell).map(ParentRows.Parent::label).orElse(cell)));
    }
    Field chosen = field.withType(choice);
    Optional<DefaultReading> before = DefaultReading.of(field);
    Field defaulted =
        before
            .filter(reading -> reading.sort() == DefaultReading.Sort.CONSTANT)
            .flatMap(reading -> listed.find(reading.words()))
            .map(
                parent ->
                    chosen.withDefault(
                        DefaultReading.of(chosen, parent.label()).getFirst().value()))
            .orElse(chosen);
    Draft untied = new RemoveRelationship(down.id(), down.name()).apply(draft);
    return untied.with(
        untied.design().withTable(child.id(), t -> t.withField(field.id(), f -> defaulted)),
        untied.rows().with(child.id(), r -> r.withColumn(field.id(), cells)));
  }
}
