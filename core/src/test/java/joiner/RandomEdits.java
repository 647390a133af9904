package joiner;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.random.RandomGenerator;
import joiner.edit.AddField;
import joiner.edit.AddTable;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.edit.Edit;
import joiner.edit.EditRefusedException;
import joiner.edit.RemoveField;
import joiner.edit.RemoveRelationship;
import joiner.edit.RemoveTable;
import joiner.edit.SetOrigin;
import joiner.edit.SetUnique;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.finding.DesignChecks;
import joiner.finding.Severity;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Noun;
import joiner.model.Origin;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Stamp;
import joiner.model.Summing;
import joiner.model.Table;
import joiner.rows.Rows;

/**
 * What designers do to a design, some of it at random: names, fields, types, keys, rules and whole
 * tables change, and no values but those that go. The same seed does the same.
 */
public final class RandomEdits {
  private final RandomGenerator random;
  private final List<String> done = new ArrayList<>();
  private Draft draft;
  private int number;

  /** Whether the design has no mistake and is to stay so. */
  private final boolean sound;

  private RandomEdits(Draft draft, long seed) {
    this.draft = draft;
    this.random = new Random(seed);
    this.sound = isSound(draft);
  }

  private static boolean isSound(Draft draft) {
    return DesignChecks.run(draft).stream().noneMatch(f -> f.severity() == Severity.ERROR);
  }

  /**
   * A design after some edits.
   *
   * @param draft what became of it
   * @param done the edits, in words
   */
  public record Edited(Draft draft, List<String> done) {}

  /** A design after some edits; a sound one is left sound. */
  public static Edited of(Draft draft, long seed) {
    var edits = new RandomEdits(draft, seed);
    for (int i = edits.random.nextInt(1, 9); i > 0; i--) {
      edits.next();
    }
    return new Edited(edits.draft, List.copyOf(edits.done));
  }

  private void next() {
    List<Table> tables = List.copyOf(draft.design().tables());
    if (tables.isEmpty()) {
      return;
    }
    Table table = tables.get(random.nextInt(tables.size()));
    try {
      for (Edit edit : edits(table)) {
        Draft after = edit.apply(draft);
        if (!sound || isSound(after)) {
          draft = after;
          done.add(edit.name());
        }
      }
    } catch (EditRefusedException e) {
      done.add("(" + e.getMessage() + ")");
    }
  }

  private List<Edit> edits(Table table) {
    Optional<Edit> edit =
        switch (random.nextInt(16)) {
          case 0 -> Optional.of(renamed(table, fresh("t")));
          case 1 -> some(table).map(field -> ChangeField.rename(table, field, "F", fresh("f")));
          case 2 -> some(table).map(f -> new RemoveField(table.id(), f.id(), f.label()));
          case 3 -> Optional.of(new AddField(table.id(), newField()));
          case 4 -> some(table).map(f -> ChangeField.type(table, f, wider(f.type())));
          case 5 -> some(table).map(f -> ChangeField.required(table, f, false));
          case 6 -> some(table).map(f -> ChangeField.defaultValue(table, f, other(f)));
          case 7 -> Optional.of(new RemoveTable(table.id(), table.label()));
          case 8 -> Optional.of(new AddTable(newTable(), Rows.NONE));
          case 9 -> someRelationship().map(r -> new RemoveRelationship(r.id(), r.name()));
          case 10 -> some(table).map(field -> rule(table, field));
          case 11 -> some(table).map(field -> index(table, field));
          case 12 ->
              random.nextBoolean()
                  ? Optional.of(ChangeTable.description(table, random.nextBoolean() ? "" : "It's."))
                  : some(table).map(f -> ChangeField.description(table, f, "Noted -- 'so'"));
          case 13 -> someRelationship().map(this::counted);
          case 14 -> Optional.of(kept(table));
          default ->
              some(table).map(f -> SetUnique.of(table, List.of(f.id()), random.nextBoolean()));
        };
    return random.nextInt(12) == 0 ? swapped(table) : edit.stream().toList();
  }

  /** Two fields of a table change their names. */
  private List<Edit> swapped(Table table) {
    if (table.fields().size() < 2) {
      return List.of();
    }
    Field one = table.fields().get(0);
    Field other = table.fields().get(1);
    return List.of(
        Edit.all(
            "swap " + one.name() + " and " + other.name(),
            List.of(
                ChangeField.rename(table, one, one.label(), "between"),
                ChangeField.rename(table, other, other.label(), one.name()),
                ChangeField.rename(table, one, one.label(), other.name()))));
  }

  /** A field of a parent that counts its children. */
  private Edit counted(Relationship over) {
    Table parent = draft.design().table(over.parent());
    Field field = Field.of(fresh("n"), "N", new FieldType.WholeNumber(Width.BITS_64));
    var by = new Origin.SummedUp(Summing.COUNT, over.id(), Optional.empty());
    return new AddField(parent.id(), field.withOrigin(by));
  }

  /** A field that comes, or one that is there, whose values nobody types. */
  private Edit kept(Table table) {
    Origin by =
        switch (random.nextInt(4)) {
          case 0 -> Origin.ONCE;
          case 1 -> new Origin.Stamped(Stamp.values()[random.nextInt(Stamp.values().length)]);
          default -> new Origin.Generated(RandomCodes.generator(random));
        };
    List<Field> free =
        table.fields().stream()
            .filter(field -> !field.origin().equals(Origin.TYPED) && !field.isComputed())
            .toList();
    if (!free.isEmpty() && random.nextBoolean()) {
      Field field = free.get(random.nextInt(free.size()));
      return SetOrigin.by(table, field, random.nextBoolean() ? Origin.TYPED : by);
    }
    Field field = newField();
    return Edit.all(
        "add and keep " + field.name(),
        List.of(
            new AddField(table.id(), field.withRequired(false)), SetOrigin.by(table, field, by)));
  }

  private static Edit renamed(Table table, String name) {
    return ChangeTable.rename(table, name, name, new Noun("one", "some"));
  }

  private Edit rule(Table table, Field about) {
    if (!table.rules().isEmpty() && random.nextBoolean()) {
      return ChangeTable.removeRule(table, table.rules().getFirst());
    }
    String quoted = "\"" + about.name().replace("\"", "\"\"") + "\"";
    String condition = quoted + " IS NULL OR " + quoted + " = " + quoted;
    return ChangeTable.addRule(table, new Rule(fresh("ck"), "Same", condition, ""));
  }

  private Edit index(Table table, Field field) {
    if (!table.indexes().isEmpty() && random.nextBoolean()) {
      return ChangeTable.removeIndex(table, table.indexes().getFirst());
    }
    return ChangeTable.addIndex(table, new Index(fresh("ix"), List.of(field.id())));
  }

  private Optional<Field> some(Table table) {
    return table.fields().isEmpty()
        ? Optional.empty()
        : Optional.of(table.fields().get(random.nextInt(table.fields().size())));
  }

  private Optional<Relationship> someRelationship() {
    List<Relationship> all = List.copyOf(draft.design().relationships());
    return all.isEmpty() ? Optional.empty() : Optional.of(all.get(random.nextInt(all.size())));
  }

  private String fresh(String start) {
    return start + "_new_" + ++number;
  }

  private Field newField() {
    String name = fresh("f");
    return switch (random.nextInt(4)) {
      case 0 -> Field.of(name, name, new FieldType.Text(12));
      case 1 ->
          Field.of(name, name, new FieldType.WholeNumber(Width.BITS_32))
              .withRequired(true)
              .withDefault(Optional.of(new Formula("7")));
      case 2 -> Field.of(name, name, new FieldType.Date()).withDescription("A day");
      default -> Field.of(name, name, new FieldType.TrueFalse());
    };
  }

  private Table newTable() {
    String name = fresh("t");
    Field key = Field.of("id", "Id", new FieldType.Counter(Width.BITS_32)).withRequired(true);
    return Table.of(name, name, new Noun("new one", "new ones"))
        .withFields(List.of(key, newField()))
        .withPrimaryKey(List.of(key.id()));
  }

  /** A type that takes all values of another. */
  private static FieldType wider(FieldType type) {
    return switch (type) {
      case FieldType.Text t -> new FieldType.Text(t.maxLength() + 7);
      case FieldType.Email t -> new FieldType.Text(t.maxLength());
      case FieldType.WholeNumber t -> new FieldType.WholeNumber(Width.BITS_64);
      case FieldType.Decimal t -> new FieldType.Decimal(t.precision() + 3, t.scale() + 1);
      case FieldType.Money t -> new FieldType.Decimal(t.precision() + 2, t.scale());
      case FieldType.LongText t -> new FieldType.Text(400);
      case FieldType.Choice t -> new FieldType.Text(t.longest() + 5);
      default -> type;
    };
  }

  private Optional<Formula> other(Field field) {
    Optional<Formula> value =
        switch (field.type()) {
          case FieldType.Text t -> Optional.of(new Formula("'x'"));
          case FieldType.WholeNumber t -> Optional.of(new Formula("3"));
          case FieldType.Date t -> Optional.of(new Formula("CURRENT_DATE"));
          case FieldType.TrueFalse t -> Optional.of(new Formula("TRUE"));
          default -> Optional.empty();
        };
    return value.filter(formula -> random.nextBoolean());
  }
}
