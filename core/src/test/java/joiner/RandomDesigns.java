package joiner;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import java.util.random.RandomGenerator;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.ChoiceId;
import joiner.model.Demand;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.GroupId;
import joiner.model.Hue;
import joiner.model.Index;
import joiner.model.IndexId;
import joiner.model.KeyId;
import joiner.model.Kit;
import joiner.model.KitId;
import joiner.model.KitUse;
import joiner.model.KnownFact;
import joiner.model.Limits;
import joiner.model.Listing;
import joiner.model.MediaType;
import joiner.model.Noun;
import joiner.model.Origin;
import joiner.model.Picking;
import joiner.model.Pin;
import joiner.model.Question;
import joiner.model.QuestionId;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.RuleId;
import joiner.model.Stamp;
import joiner.model.Summing;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.model.UniqueKey;
import joiner.rows.Rows;
import joiner.rows.SampleRows;

/**
 * Designs of every shape that can be built, with names and cells chosen to hurt: quotes, commas,
 * line breaks, other scripts, names that differ only by case, tables without fields, keys that
 * repeat each other. The same seed gives the same design.
 */
public final class RandomDesigns {
  private static final List<String> NAMES =
      List.of(
          "kiln",
          "Kiln",
          "glaze",
          "firing log",
          "piece,glaze",
          "say \"cone\"",
          "it's",
          "select",
          "émail",
          "Глазурь",
          "釉",
          "con",
          "nul.txt",
          "a/b",
          "..",
          "x:y",
          "ﬁring",
          "#stamp",
          "  mug",
          "\uFEFFbowl",
          "line\nbreak",
          "tab\tbed",
          "data",
          "id",
          "name",
          "-",
          "0",
          "é",
          "😀 clay");
  private static final List<String> CELLS =
      List.of(
          "1",
          "-7",
          "3.50",
          "2026-03-14",
          "true",
          "Mara Vell",
          "a,b",
          "a;b",
          "say \"hi\"",
          "\"",
          "''",
          "\n",
          "\r",
          "\r\n",
          "a\rb",
          " lead",
          "trail ",
          "#no comment",
          "\uFEFFmark",
          "é",
          "釉",
          "😀",
          "\\",
          "NULL",
          "-",
          "=1+1",
          "a\tb",
          "\u0000",
          "\u0085",
          "0",
          "half \uD83D pair");
  private static final List<FieldType> TYPES =
      List.of(
          new FieldType.Text(20),
          new FieldType.LongText(),
          new FieldType.WholeNumber(Width.BITS_16),
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
          new FieldType.Counter(Width.BITS_32),
          new FieldType.Email(254),
          new FieldType.Email(60),
          new FieldType.WebAddress(100),
          new FieldType.Phone(30),
          new FieldType.FileReference(80),
          new FieldType.Secret(100),
          new FieldType.Content(List.of(), Integer.MAX_VALUE),
          new FieldType.Content(List.of(MediaType.JPEG, MediaType.PNG), 2_000_000),
          FieldType.Choice.of(List.of("low", "high", "it's", "a,b")),
          FieldType.Choice.of(List.of("low", "high"))
              .withEntry(new ChoiceId("low"), entry -> entry.withText("deep")),
          FieldType.Choice.of(List.of("matt", "gloss", "raku"))
              .withEntry(new ChoiceId("matt"), entry -> entry.withDescription("no \"shine\""))
              .withEntry(new ChoiceId("raku"), entry -> entry.withRetired(true))
              .withEntry(new ChoiceId("gloss"), entry -> entry.withHue(Optional.of(Hue.MOSS)))
              .withGrows(true),
          new FieldType.Choice(List.of()),
          new FieldType.Kept("geojson"));

  private static final KitId KIT = new KitId("kit & co");

  private final RandomGenerator random;

  private RandomDesigns(long seed) {
    this.random = new Random(seed);
  }

  /** A design with rows. */
  public static Draft draft(long seed) {
    return new RandomDesigns(seed).draft();
  }

  private Draft draft() {
    var tables = new ArrayList<Table>();
    var names = new HashSet<String>();
    for (int i = random.nextInt(6); i >= 0; i--) {
      tables.add(table(fresh(names)));
    }
    var relationships = relationships(tables);
    joins(tables, relationships);
    Design design =
        Design.of(
                pick(NAMES),
                text(),
                text(),
                areas(),
                tables,
                relationships,
                new Extras(chance() ? Map.of("studio:oven", "[1, \"a\"]") : Map.of()))
            .withKits(kits())
            .withPins(
                tables.stream()
                    .filter(table -> random.nextInt(4) == 0)
                    .map(table -> new Pin(table.id(), random.nextInt(1001), random.nextInt(1001)))
                    .toList());
    return new Draft(design.withQuestions(questions(design)), rows(design));
  }

  /** Questions that may or may not be asked: what they name need not be there. */
  private List<Question> questions(Design design) {
    if (chance() || design.tables().isEmpty()) {
      return List.of();
    }
    Question one = RandomQuestions.of(design, random.nextLong());
    String name = pick(NAMES);
    return List.of(
        one.withNames(new QuestionId(chance() ? name : "q1"), name, text()),
        RandomQuestions.of(design, random.nextLong()));
  }

  private List<Area> areas() {
    var areas = new ArrayList<Area>();
    // Some areas were renamed since, and one has the id that another would get by its name.
    Map<String, String> formerly = Map.of("Firing", "Stock", "People & co", "Firing");
    for (String name : List.of("Firing", "People & co")) {
      if (chance()) {
        boolean renamed = areas.isEmpty() && chance();
        String id = renamed ? formerly.get(name) : "People & co".equals(name) ? name : "a1";
        areas.add(new Area(new AreaId(id), name, random.nextInt(Area.HUES)));
      }
    }
    return areas;
  }

  private Table table(String name) {
    var fields = new ArrayList<Field>();
    var names = new HashSet<String>();
    for (int i = random.nextInt(6); i > 0; i--) {
      fields.add(field(fresh(names)));
    }
    List<FieldId> ids = fields.stream().map(Field::id).toList();
    String label = text();
    return new Table(
        new TableId(chance() ? name : "t" + random.nextInt(1_000_000)),
        name,
        label,
        new Noun(text(), text()),
        pick(List.of("", "sun", "users")),
        text(),
        Optional.of(pick(List.of("", "", "Firing", "Stock", "a1")))
            .filter(area -> !area.isEmpty())
            .map(AreaId::new),
        kind(ids),
        fields,
        some(ids),
        keys(name, fields),
        named(ids, this::index),
        chance() ? Optional.of(new Formula("name || ''")) : Optional.empty(),
        rules(ids),
        groups(ids),
        new Listing(
            some(ids),
            some(ids),
            some(ids).stream().map(field -> new Listing.By(field, chance())).toList()),
        facts(ids),
        Extras.NONE);
  }

  private List<KnownFact> facts(List<FieldId> ids) {
    List<FieldId> by = some(ids);
    List<FieldId> others = ids.stream().filter(id -> !by.contains(id)).toList();
    return by.isEmpty() || others.isEmpty()
        ? List.of()
        : List.of(new KnownFact(by, others, chance()));
  }

  private List<FieldGroup> groups(List<FieldId> ids) {
    List<FieldId> some = some(ids);
    return some.isEmpty() || chance()
        ? List.of()
        : List.of(
            new FieldGroup(
                new GroupId(chance() ? "g" : "Kiln & co"),
                "Kiln & co",
                pick(List.of("", "address")),
                some,
                chance()
                    ? Optional.of(KitUse.of(KIT, Map.of(new FieldId("k1"), some.getFirst())))
                    : Optional.empty()));
  }

  private List<Kit> kits() {
    return chance() ? List.of() : List.of(new Kit(KIT, text() + "k", List.of(field("k1"))));
  }

  private TableKind kind(List<FieldId> ids) {
    return chance() && !ids.isEmpty()
        ? new TableKind.Lookup(
            chance() ? Optional.of(pick(ids)) : Optional.empty(),
            chance() ? Optional.of(pick(ids)) : Optional.empty())
        : new TableKind.Plain();
  }

  private List<UniqueKey> keys(String table, List<Field> fields) {
    var keys = new ArrayList<>(named(fields.stream().map(Field::id).toList(), this::key));
    if (!fields.isEmpty() && chance()) {
      Field one = pick(fields);
      keys.add(new UniqueKey("uq_" + table + "_" + one.name(), List.of(one.id())));
    }
    return keys;
  }

  /** A key, by chance under another name than it was made with. */
  private UniqueKey key(String name, List<FieldId> fields) {
    UniqueKey key = new UniqueKey(name, fields);
    return chance() ? key.withId(new KeyId("k" + name)) : key;
  }

  private Index index(String name, List<FieldId> fields) {
    Index index =
        new Index(name, fields)
            .withDescending(chance() ? java.util.Set.of() : java.util.Set.of(pick(fields)));
    return chance() ? index.withId(new IndexId("i" + name)) : index;
  }

  private <T> List<T> named(
      List<FieldId> ids, java.util.function.BiFunction<String, List<FieldId>, T> make) {
    var made = new ArrayList<T>();
    for (int i = 0; i < 3 && !ids.isEmpty(); i++) {
      List<FieldId> some = some(ids);
      if (!some.isEmpty() && chance()) {
        made.add(make.apply("key " + i, some));
      }
    }
    return made;
  }

  private List<Rule> rules(List<FieldId> ids) {
    return chance()
        ? List.of(
            new Rule("rule", text(), "name <> ''", text()).withId(new RuleId("first")),
            new Rule("r2", "R2", demand(ids), ""))
        : List.of();
  }

  /** Of some the relationship is not there, and a few speak of fields that are gone. */
  private Demand demand(List<FieldId> ids) {
    var over = new RelationshipId(text() + "r");
    FieldId gone = new FieldId("gone");
    return switch (random.nextInt(8)) {
      case 0 -> new Demand.OfChildren(over, formula(), formula(), number(), number());
      case 1 -> new Demand.Alone(some(ids), new Formula(text()));
      case 2 ->
          new Demand.Apart(
              some(ids),
              ids.isEmpty() ? gone : pick(ids),
              ids.isEmpty() || chance() ? gone : pick(ids),
              chance(),
              chance());
      case 3 -> new Demand.Tree(over);
      case 4 -> new Demand.Stays(some(ids), new Formula(text()));
      default -> new Demand.OfRow(new Formula(text()));
    };
  }

  private Optional<String> number() {
    return chance() ? Optional.of(String.valueOf(random.nextInt(100))) : Optional.empty();
  }

  private Field field(String name) {
    FieldType type = pick(TYPES);
    return new Field(
        new FieldId(chance() ? name : "f" + random.nextInt(1_000_000) + name),
        name,
        text(),
        type,
        chance(),
        chance() ? Optional.of(new Formula(text())) : Optional.empty(),
        type instanceof FieldType.Choice || chance() ? Limits.NONE : limits(),
        text(),
        chance() ? "" : text(),
        origin(),
        new Extras(chance() ? Map.of("rdfType", "\"http://example.org/é\"") : Map.of()));
  }

  private Origin origin() {
    return switch (random.nextInt(12)) {
      case 0, 1 -> new Origin.Computed(new Formula(chance() ? "name || ''" : text()));
      case 2 ->
          new Origin.SummedUp(
              pick(List.of(Summing.values())),
              new RelationshipId(text() + "r"),
              formula(),
              formula(),
              formula(),
              chance() ? Origin.SummedUp.COMMA : text());
      case 3 -> new Origin.Stamped(pick(List.of(Stamp.values())));
      case 4 -> new Origin.Generated(RandomCodes.generator(random));
      case 5 -> chance() ? Origin.ONCE : new Origin.Copied(new Formula(text() + "c"));
      default -> Origin.TYPED;
    };
  }

  private Optional<Formula> formula() {
    return chance() ? Optional.of(new Formula(text() + "f")) : Optional.empty();
  }

  private Limits limits() {
    Limits plain = plainLimits();
    return plain.pattern().isPresent() && chance()
        ? plain.withMarks("[A-Z]{2}\\d+", "[A-Z]{2}-\\d+")
        : plain;
  }

  private Limits plainLimits() {
    Function<String, Optional<String>> maybe =
        value -> chance() ? Optional.of(value) : Optional.empty();
    return new Limits(
        maybe.apply("1"),
        maybe.apply("2026-03-14"),
        maybe.apply("-0.50"),
        maybe.apply("9"),
        maybe.apply("[A-Z]{2}\\d+"),
        chance() ? OptionalInt.of(3) : OptionalInt.empty(),
        List.of());
  }

  private List<Relationship> relationships(List<Table> tables) {
    var relationships = new ArrayList<Relationship>();
    for (int i = 0; i < 5; i++) {
      Table child = pick(tables);
      Table parent = pick(tables);
      if (!child.fields().isEmpty() && !parent.fields().isEmpty()) {
        relationships.add(
            new Relationship(
                new RelationshipId(chance() ? "r" + i : "fk " + i),
                "fk " + i,
                child.id(),
                List.of(pick(child.fieldIds())),
                parent.id(),
                List.of(pick(parent.fieldIds())),
                text(),
                text(),
                chance(),
                pick(List.of(ReferentialAction.values())),
                pick(List.of(ReferentialAction.values())),
                chance() ? Picking.USUAL : picking(parent),
                Extras.NONE));
      }
    }
    return relationships;
  }

  private Picking picking(Table parent) {
    return new Picking(
        chance() ? List.of() : List.of(pick(parent.fieldIds())),
        chance() ? List.of() : List.of(pick(parent.fieldIds())),
        chance()
            ? Optional.empty()
            : Optional.of(new Formula(pick(parent.fields()).name() + " IS NULL")),
        chance() ? OptionalInt.empty() : OptionalInt.of(1 + random.nextInt(9)),
        chance());
  }

  private static void joins(List<Table> tables, List<Relationship> relationships) {
    for (int i = 0; i < tables.size(); i++) {
      Table table = tables.get(i);
      List<Relationship> own =
          relationships.stream().filter(r -> r.child().equals(table.id())).toList();
      if (own.size() == 2) {
        tables.set(i, table.withKind(new TableKind.Join(own.get(1).id(), own.get(0).id())));
      }
    }
  }

  private SampleRows rows(Design design) {
    Map<TableId, Rows> rows = new LinkedHashMap<>();
    for (Table table : design.tables()) {
      if (!table.fields().isEmpty() && chance()) {
        var cells = new ArrayList<List<Optional<String>>>();
        for (int i = random.nextInt(4); i > 0; i--) {
          cells.add(table.fields().stream().map(field -> cell()).toList());
        }
        rows.put(table.id(), Rows.of(table.fieldIds(), cells));
      }
    }
    return new SampleRows(rows);
  }

  private Optional<String> cell() {
    return random.nextInt(3) == 0 ? Optional.empty() : Optional.of(pick(CELLS));
  }

  private String text() {
    return pick(List.of("", "Kiln", "a \"b\"", "é\n釉", "half \uD83D pair", "Date joined"));
  }

  private String fresh(Set<String> taken) {
    String name = pick(NAMES);
    while (!taken.add(name)) {
      name = name + random.nextInt(10);
    }
    return name;
  }

  private List<FieldId> some(List<FieldId> ids) {
    var some = new ArrayList<>(ids);
    java.util.Collections.shuffle(some, new Random(random.nextLong()));
    return List.copyOf(some.subList(0, some.isEmpty() ? 0 : random.nextInt(some.size() + 1)));
  }

  private <T> T pick(List<T> list) {
    return list.get(random.nextInt(list.size()));
  }

  private boolean chance() {
    return random.nextBoolean();
  }
}
