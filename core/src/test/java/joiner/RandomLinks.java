package joiner;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.UniqueKey;
import joiner.rows.Rows;
import joiner.rows.SampleRows;

/**
 * Small designs that are all relationships: every action, keys of one and two fields, references to
 * unique keys, self references, circles, one-to-one, several ways between two tables, parents that
 * must have a child; with rows that refer to each other without a fault, some of them without the
 * child they must have.
 */
public final class RandomLinks {
  private static final int MOST_ROWS = 7;

  private final Random random;
  private final List<Table> tables = new ArrayList<>();
  private final List<Relationship> relationships = new ArrayList<>();

  private RandomLinks(long seed) {
    this.random = new Random(seed);
  }

  /**
   * Groups of tables that know nothing of each other.
   *
   * @param groups how many
   */
  public static Draft draft(long seed, int groups) {
    var links = new RandomLinks(seed);
    for (int group = 0; group < groups; group++) {
      links.group("g" + group + "_");
    }
    Design design =
        Design.of("links", "Links", "", List.of(), links.tables, links.relationships, Extras.NONE);
    SampleRows rows = SampleRows.NONE;
    for (Table table : links.tables) {
      rows = rows.with(table.id(), none -> links.rows(table));
    }
    return new Draft(design, rows);
  }

  private void group(String prefix) {
    int first = tables.size();
    int count = random.nextInt(2, 6);
    for (int i = 0; i < count; i++) {
      tables.add(table(prefix + List.of("kiln", "glaze", "firing", "piece", "shelf").get(i)));
    }
    for (int i = random.nextInt(1, 2 * count); i > 0; i--) {
      reference(first + random.nextInt(count), first + random.nextInt(count));
    }
  }

  private Table table(String name) {
    var fields = new ArrayList<Field>();
    fields.add(whole("id").withRequired(true));
    boolean pair = random.nextInt(4) == 0;
    if (pair) {
      fields.add(whole("no").withRequired(true));
    }
    fields.add(Field.of("mark", "Mark", new FieldType.Text(12)).withRequired(true));
    List<FieldId> key = fields.stream().limit(pair ? 2 : 1).map(Field::id).toList();
    return Table.of(name, name, new Noun(name, name + "s"))
        .withFields(fields)
        .withPrimaryKey(key)
        .withUniqueKeys(
            List.of(new UniqueKey("uq_" + name + "_mark", List.of(new FieldId("mark")))));
  }

  private static Field whole(String name) {
    return Field.of(name, name, new FieldType.WholeNumber(Width.BITS_32));
  }

  private void reference(int childPlace, int parentPlace) {
    Table child = tables.get(childPlace);
    Table parent = tables.get(parentPlace);
    List<FieldId> key = random.nextInt(5) == 0 ? List.of(new FieldId("mark")) : parent.primaryKey();
    boolean required = parentPlace < childPlace && random.nextInt(3) == 0;
    ReferentialAction action = action(required);
    var fields = new ArrayList<FieldId>();
    for (FieldId part : key) {
      String name = "r" + relationships.size() + "_" + part.value();
      Field field = Field.of(name, name, parent.field(part).type()).withRequired(required);
      if (action == ReferentialAction.SET_DEFAULT) {
        field = field.withDefault(Optional.of(new Formula(value(part, random.nextInt(3)))));
      }
      child = child.withFieldAdded(field);
      fields.add(field.id());
    }
    if (random.nextInt(4) == 0 && !required && action != ReferentialAction.SET_DEFAULT) {
      child =
          child.withUniqueKeyAdded(
              new UniqueKey("uq_" + child.name() + "_r" + relationships.size(), fields));
    }
    tables.set(childPlace, child);
    relationships.add(
        Relationship.of(
                "fk_" + child.name() + "_r" + relationships.size(),
                child.id(),
                fields,
                parent.id(),
                key)
            .withActions(action, ReferentialAction.NO_ACTION)
            .withParentNeedsChild(random.nextInt(4) == 0));
  }

  private ReferentialAction action(boolean required) {
    return switch (random.nextInt(8)) {
      case 0, 1, 2 -> ReferentialAction.CASCADE;
      case 3, 4 -> required ? ReferentialAction.CASCADE : ReferentialAction.SET_NULL;
      case 5 -> required ? ReferentialAction.NO_ACTION : ReferentialAction.SET_DEFAULT;
      case 6 -> ReferentialAction.RESTRICT;
      default -> ReferentialAction.NO_ACTION;
    };
  }

  /** A key of the row of that number; numbers of rows are part of every key. */
  private static String value(FieldId part, int row) {
    return switch (part.value()) {
      case "mark" -> "'m" + row + "'";
      case "no" -> String.valueOf(row % 2);
      default -> String.valueOf(row);
    };
  }

  private int count(TableId table) {
    return 1 + Math.floorMod(table.hashCode(), MOST_ROWS);
  }

  private Rows rows(Table table) {
    int count = count(table.id());
    List<Relationship> up =
        relationships.stream().filter(r -> r.child().equals(table.id())).toList();
    var rows = new ArrayList<List<Optional<String>>>();
    var taken = up.stream().map(r -> (Set<Integer>) new HashSet<Integer>()).toList();
    for (int row = 0; row < count; row++) {
      var cells = new java.util.HashMap<FieldId, Optional<String>>();
      for (FieldId own : List.of(new FieldId("id"), new FieldId("no"), new FieldId("mark"))) {
        cells.put(own, Optional.of(value(own, row).replace("'", "")));
      }
      for (int i = 0; i < up.size(); i++) {
        Relationship r = up.get(i);
        Optional<Integer> to = parent(table, r, taken.get(i));
        for (int part = 0; part < r.childFields().size(); part++) {
          FieldId of = r.parentFields().get(part);
          cells.put(r.childFields().get(part), to.map(place -> value(of, place).replace("'", "")));
        }
      }
      rows.add(table.fieldIds().stream().map(cells::get).toList());
    }
    return Rows.of(table.fieldIds(), rows);
  }

  /** A row to refer to; none where it is optional or each that there is has one already. */
  private Optional<Integer> parent(Table child, Relationship r, Set<Integer> taken) {
    boolean required = child.isRequired(r.childFields().getFirst());
    if (!required && random.nextInt(3) == 0) {
      return Optional.empty();
    }
    boolean once = child.isUnique(r.childFields());
    List<Integer> free =
        IntStream.range(0, count(r.parent()))
            .boxed()
            .filter(place -> !once || !taken.contains(place))
            .collect(Collectors.toList());
    if (free.isEmpty()) {
      return Optional.empty();
    }
    int to = free.get(random.nextInt(free.size()));
    taken.add(to);
    return Optional.of(to);
  }
}
