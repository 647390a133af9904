package joiner.database;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.random.RandomGenerator;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Limits;
import joiner.model.MediaType;
import joiner.model.Noun;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.UniqueKey;
import joiner.rows.SampleRows;

/**
 * Generated designs without a mistake in them, under names that are hard on engines: all types,
 * keys of one and two fields, references to them, circles among them, defaults of every kind. The
 * same seed gives the same design. Names stay within the Basic Multilingual Plane, beyond which
 * MariaDB has none.
 */
final class SoundDesigns {
  private static final List<String> NAMES =
      List.of(
          "kiln",
          "Firing log",
          "piece,glaze",
          "say \"cone\"",
          "it's",
          "select",
          "order",
          "émail",
          "Глазурь",
          "釉",
          "[shelf]",
          "a`b",
          "a.b",
          "two  blanks",
          "100%",
          "under_score",
          "value",
          "check",
          "n".repeat(60));

  private static final List<FieldType> TYPES =
      List.of(
          new FieldType.Text(20),
          new FieldType.LongText(),
          new FieldType.WholeNumber(Width.BITS_16),
          new FieldType.WholeNumber(Width.BITS_32),
          new FieldType.WholeNumber(Width.BITS_64),
          new FieldType.Decimal(9, 3),
          new FieldType.AnyNumber(),
          new FieldType.Money(12, 2),
          new FieldType.TrueFalse(),
          new FieldType.Date(),
          new FieldType.Time(),
          new FieldType.DateTime(false),
          new FieldType.DateTime(true),
          new FieldType.Uuid(),
          new FieldType.Email(60),
          new FieldType.WebAddress(100),
          new FieldType.Phone(30),
          new FieldType.FileReference(80),
          new FieldType.Content(MediaType.IMAGES, 2_000_000),
          FieldType.Choice.of(List.of("low", "it's", "a\\b")),
          new FieldType.Kept("geojson"));

  private final RandomGenerator random;
  private final Set<String> tableNames = new HashSet<>();

  private SoundDesigns(long seed) {
    this.random = new Random(seed);
  }

  static Draft draft(long seed) {
    return new SoundDesigns(seed).draft();
  }

  private Draft draft() {
    var tables = new ArrayList<Table>();
    for (int i = random.nextInt(1, 5); i > 0; i--) {
      tables.add(table(fresh(tableNames)));
    }
    var references = new ArrayList<Relationship>();
    for (int i = random.nextInt(5); i > 0; i--) {
      reference(tables, references);
    }
    return new Draft(
        Design.of("d", "D", "", List.of(), tables, references, joiner.model.Extras.NONE),
        SampleRows.NONE);
  }

  private Table table(String name) {
    Set<String> names = new HashSet<>();
    var key = new ArrayList<Field>();
    switch (random.nextInt(4)) {
      case 0 -> key.add(field(names, new FieldType.Counter(Width.BITS_32)));
      case 1 -> key.add(field(names, new FieldType.Text(20)));
      case 2 -> key.add(field(names, new FieldType.Uuid()));
      default -> {
        key.add(field(names, new FieldType.WholeNumber(Width.BITS_64)));
        key.add(field(names, new FieldType.Date()));
      }
    }
    var fields = new ArrayList<>(key);
    for (int i = random.nextInt(7); i > 0; i--) {
      FieldType type = pick(TYPES);
      fields.add(dressed(field(names, type).withRequired(chance())));
    }
    if (chance()) {
      computed(names, fields);
    }
    Table table =
        Table.of(name, name, new Noun("row", "rows"))
            .withFields(fields)
            .withPrimaryKey(key.stream().map(Field::id).toList())
            .withDescription(chance() ? "It's \"noted\";\n-- so." : "");
    List<FieldId> some = some(fields);
    if (!some.isEmpty()) {
      table = table.withUniqueKeys(List.of(new UniqueKey("uq_" + name, some)));
    }
    some = some(fields);
    if (!some.isEmpty()) {
      // Sometimes the index would like to be called like a table.
      table =
          table.withIndexes(
              List.of(
                  new Index(chance() ? name : "ix_" + name, some)
                      .withDescending(chance() ? Set.of() : Set.of(some.getLast()))));
    }
    return chance()
        ? table.withRules(
            List.of(
                new Rule(
                    "ck " + name,
                    "Some",
                    key.getFirst().name().isEmpty() ? "1 = 1" : "1 + 1 = 2",
                    "")))
        : table;
  }

  /** A field worked out from one of the others, with the type that goes with it. */
  private void computed(Set<String> names, List<Field> fields) {
    Field from = pick(fields);
    String read = Formula.naming(from.name()).text();
    switch (from.type()) {
      case FieldType.WholeNumber whole ->
          fields.add(worked(names, whole, pick(List.of("ABS(" + read + ")", read + " + " + read))));
      case FieldType.Sized text ->
          fields.add(
              worked(
                  names,
                  new FieldType.Text(text.maxLength() + 1),
                  pick(List.of(read + " || '!'", "COALESCE(" + read + ", '-')"))));
      case FieldType.TrueFalse truth ->
          fields.add(worked(names, truth, pick(List.of("NOT " + read, read + " IS NULL"))));
      case FieldType.Date date -> fields.add(worked(names, date, read + " + INTERVAL '1' DAY"));
      default -> {}
    }
  }

  private Field worked(Set<String> names, FieldType type, String formula) {
    return field(names, type)
        .withRequired(chance())
        .withOrigin(new joiner.model.Origin.Computed(new Formula(formula)));
  }

  private Field field(Set<String> names, FieldType type) {
    String name = fresh(names);
    return Field.of(name, name, type).withDescription(chance() ? "It's its note\\" : "");
  }

  private Field dressed(Field field) {
    Field dressed =
        chance()
            ? field.withDefault(
                Optional.of(defaults(field.type()))
                    .filter(some -> !some.isEmpty())
                    .map(some -> new Formula(pick(some))))
            : field;
    return chance() ? dressed.withLimits(limits(field.type())) : dressed;
  }

  private static List<String> defaults(FieldType type) {
    return switch (type) {
      case FieldType.Email t -> List.of("'mara@example.org'");
      case FieldType.WebAddress t -> List.of("'https://example.org/a?b=c%20d'");
      case FieldType.Choice t -> List.of("'it''s'", "'a\\b'");
      case FieldType.Sized t -> List.of("'it''s'", "'é\n\\x'", "''", "'a' || 'b'", "'釉 🏺'");
      case FieldType.LongText t -> List.of("'%s \" ` -- ;'");
      case FieldType.Kept t -> List.of("'{}'");
      case FieldType.WholeNumber t -> List.of("1 + 1", "-5", "0", "7 / 2");
      case FieldType.Counter t -> List.of("1");
      case FieldType.Decimal t -> List.of("1.50", "-0.125", "2");
      case FieldType.Money t -> List.of("1.50", "-2.25");
      case FieldType.AnyNumber t -> List.of("1.5", "-3");
      case FieldType.TrueFalse t -> List.of("TRUE", "FALSE", "NOT TRUE");
      case FieldType.Date t ->
          List.of("CURRENT_DATE", "DATE '2026-01-31'", "CURRENT_DATE + INTERVAL '14' DAY");
      case FieldType.Time t -> List.of("TIME '09:00'", "TIME '23:59:59'");
      case FieldType.DateTime t ->
          t.zoned()
              ? List.of("CURRENT_TIMESTAMP")
              : List.of("LOCALTIMESTAMP", "TIMESTAMP '2026-01-31 10:00'");
      case FieldType.Content t -> List.of();
      case FieldType.Uuid t -> List.of("'6f9619ff-8b86-4011-b42d-00c04fc964ff'");
    };
  }

  private Limits limits(FieldType type) {
    return switch (type) {
      case FieldType.WholeNumber t -> Limits.between("-9", "99");
      case FieldType.Decimal t -> Limits.between("-1.5", "99.25");
      case FieldType.Money t -> Limits.between("-100", "1000");
      case FieldType.Date t -> Limits.between("2000-01-01", "2999-12-31");
      case FieldType.Text t ->
          new Limits(
              Optional.empty(),
              Optional.empty(),
              Optional.empty(),
              Optional.empty(),
              chance() ? Optional.of("(.|\\n)*") : Optional.empty(),
              chance() ? OptionalInt.of(0) : OptionalInt.empty(),
              List.of());
      default -> Limits.NONE;
    };
  }

  private void reference(List<Table> tables, List<Relationship> references) {
    int at = random.nextInt(tables.size());
    int referred = random.nextInt(tables.size());
    Table parent = tables.get(referred);
    // Only what comes before can be required, or no first row could ever be entered.
    boolean required = referred < at && chance();
    var names = new HashSet<String>();
    tables.get(at).fields().forEach(field -> names.add(field.name().toLowerCase(Locale.ROOT)));
    var link = new ArrayList<FieldId>();
    for (FieldId id : parent.primaryKey()) {
      String name = fresh(names);
      Field field =
          Field.of(name, name, parent.field(id).type().asReferenced()).withRequired(required);
      tables.set(at, tables.get(at).withFieldAdded(field));
      link.add(field.id());
    }
    // The parent may be the child itself, which has grown.
    TableId to = parent.id();
    references.add(
        Relationship.of(
                "fk " + references.size(), tables.get(at).id(), link, to, parent.primaryKey())
            .withActions(action(required), action(required)));
  }

  private ReferentialAction action(boolean required) {
    List<ReferentialAction> all =
        List.of(
            ReferentialAction.NO_ACTION,
            ReferentialAction.RESTRICT,
            ReferentialAction.CASCADE,
            ReferentialAction.SET_NULL);
    return pick(required ? all.subList(0, 3) : all);
  }

  private List<FieldId> some(List<Field> fields) {
    var ids = new ArrayList<FieldId>();
    for (Field field : fields) {
      boolean short_ =
          !(field.type() instanceof FieldType.LongText || field.type() instanceof FieldType.Kept);
      if (short_ && random.nextInt(3) == 0) {
        ids.add(field.id());
      }
    }
    return ids.size() > 3 ? ids.subList(0, 3) : ids;
  }

  /** Different also where case makes no difference. */
  private String fresh(Set<String> taken) {
    String name = pick(NAMES);
    while (!taken.add(name.toLowerCase(Locale.ROOT))) {
      name = pick(NAMES).substring(0, 1) + random.nextInt(1000);
    }
    return name;
  }

  private boolean chance() {
    return random.nextBoolean();
  }

  private <T> T pick(List<T> all) {
    return all.get(random.nextInt(all.size()));
  }
}
