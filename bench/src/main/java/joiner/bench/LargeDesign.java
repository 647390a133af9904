package joiner.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Limits;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.SampleRows;

/** A generated design; the same numbers give the same design. */
final class LargeDesign {
  private LargeDesign() {}

  /**
   * A design of so many tables of so many fields each, tied by so many relationships, without rows.
   */
  static Draft of(int tables, int fields, int relationships) {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(20260314L);
    var made = new ArrayList<Table>();
    for (int t = 0; t < tables; t++) {
      made.add(table(t, fields - relationships / tables - 1));
    }
    var tied = new ArrayList<Relationship>();
    for (int r = 0; r < relationships; r++) {
      int child = r % tables == 0 ? 1 + random.nextInt(tables - 1) : r % tables;
      int parent = random.nextInt(Math.max(0, child - 40), child);
      Field link =
          Field.of("link_" + r + "_id", "Link " + r, new FieldType.WholeNumber(Width.BITS_32))
              .withRequired(r % 3 == 0);
      Table owner = made.get(child);
      var indexes = new ArrayList<>(owner.indexes());
      indexes.add(new Index("ix_link_" + r, List.of(link.id())));
      made.set(child, owner.withFieldAdded(link).withIndexes(indexes));
      tied.add(
          Relationship.of(
              "fk_link_" + r,
              new TableId("table_" + child),
              List.of(link.id()),
              new TableId("table_" + parent),
              List.of(new FieldId("table_" + parent + "_id"))));
    }
    Design design =
        Design.of(
            "large",
            "Large",
            "",
            List.of(new Area("One", 0), new Area("Two", 1)),
            made,
            tied,
            Extras.NONE);
    return new Draft(design, SampleRows.NONE);
  }

  private static Table table(int number, int plain) {
    String name = "table_" + number;
    var fields = new ArrayList<Field>();
    fields.add(
        Field.of(name + "_id", "Number", new FieldType.Counter(Width.BITS_32)).withRequired(true));
    for (int f = 0; f < plain; f++) {
      fields.add(field(number, f));
    }
    return Table.of(name, "Table " + number, new Noun("row", "rows"))
        .withArea(Optional.of(new AreaId(number % 2 == 0 ? "One" : "Two")))
        .withFields(fields)
        .withPrimaryKey(List.of(fields.getFirst().id()))
        .withRowLabel(Optional.of(new Formula("f_" + number + "_0")))
        .withRules(
            List.of(
                new Rule(
                    "rule_" + number,
                    "Rule",
                    "f_" + number + "_1 > 0 OR f_" + number + "_3 IS NULL",
                    "No.")));
  }

  private static Field field(int table, int number) {
    String name = "f_" + table + "_" + number;
    return switch (number % 6) {
      case 0 ->
          Field.of(name, name, new FieldType.Text(40)).withDescription("A text of some length");
      case 1 ->
          Field.of(name, name, new FieldType.WholeNumber(Width.BITS_32))
              .withDefault(Optional.of(new Formula("1")))
              .withLimits(Limits.between("0", "999"));
      case 2 -> Field.of(name, name, new FieldType.Decimal(10, 2));
      case 3 ->
          Field.of(name, name, new FieldType.Date())
              .withDefault(Optional.of(new Formula("CURRENT_DATE")));
      case 4 -> Field.of(name, name, FieldType.Choice.of(List.of("low", "mid", "high")));
      default -> Field.of(name, name, new FieldType.TrueFalse()).withRequired(true);
    };
  }
}
