package joiner.finding;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import joiner.edit.AddField;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Origin;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Summing;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.Rows;

/**
 * Two tables fan out from one, both hold something to add up, and the rows that are there have
 * several in both: a question through the one in the middle counts each of them as often as there
 * are rows of the other (the fan trap of Connolly and Begg, Database Systems, on problems with
 * entity–relationship models; from memory). Where the one in the middle holds a sum already, nobody
 * has to ask so.
 */
final class Fan implements WholeCheck {
  /** Every engine adds up to so many. */
  private static final int MOST_DIGITS = 18;

  private static final TableFinding FINDING =
      new TableFinding("fan", Severity.ADVICE, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  /** A way to add something up: which relationship leads to it, and the rows that have several. */
  private record Branch(Relationship over, Field field, BitSet any, BitSet several) {
    boolean multiplies(Branch other) {
      return several.intersects(other.any) || any.intersects(other.several);
    }

    int multiplied(Branch other) {
      var rows = (BitSet) several.clone();
      rows.and(other.any);
      var others = (BitSet) any.clone();
      others.and(other.several);
      rows.or(others);
      return rows.cardinality();
    }
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    for (Table table : design.design().tables()) {
      List<Branch> branches = branches(design, table);
      for (int i = 1; i < branches.size(); i++) {
        if (branches.getFirst().multiplies(branches.get(i))) {
          report(design, table, branches.getFirst(), branches.get(i), found);
          break; // More of them would say the same.
        }
      }
    }
  }

  /** One branch for each table that nothing was summed up of, and is summed up in. */
  private static List<Branch> branches(CheckedDesign design, Table table) {
    if (design.childrenOf(table.id()).size() < 2) {
      return List.of();
    }
    Set<RelationshipId> summed = new HashSet<>();
    for (Field field : table.fields()) {
      if (field.origin() instanceof Origin.SummedUp up) {
        summed.add(up.over());
      }
    }
    var branches = new ArrayList<Branch>();
    var children = new HashSet<>(Set.of(table.id()));
    for (Relationship down : design.childrenOf(table.id())) {
      Optional<Field> adds = Additive.of(design, design.design().table(down.child()));
      if (adds.isPresent() && !summed.contains(down.id()) && children.add(down.child())) {
        branches.add(branch(design, down, adds.get()));
      }
    }
    return branches.size() < 2 ? List.of() : branches;
  }

  private static Branch branch(CheckedDesign design, Relationship down, Field adds) {
    Rows children = design.rows(design.design().table(down.child()));
    Rows parents = design.rows(design.design().table(down.parent()));
    Map<List<String>, Integer> counts = new HashMap<>();
    for (int row = 0; row < children.count(); row++) {
      key(children, row, down.childFields()).ifPresent(key -> counts.merge(key, 1, Integer::sum));
    }
    var any = new BitSet();
    var several = new BitSet();
    for (int row = 0; row < parents.count() && !counts.isEmpty(); row++) {
      int count =
          key(parents, row, down.parentFields()).map(key -> counts.getOrDefault(key, 0)).orElse(0);
      any.set(row, count > 0);
      several.set(row, count > 1);
    }
    return new Branch(down, adds, any, several);
  }

  /** The key of a row as it is written; to count rows that is enough. */
  private static Optional<List<String>> key(Rows rows, int row, List<FieldId> fields) {
    List<String> key = fields.stream().flatMap(field -> rows.cell(row, field).stream()).toList();
    return key.size() == fields.size() ? Optional.of(key) : Optional.empty();
  }

  private static void report(
      CheckedDesign design, Table table, Branch one, Branch other, Consumer<Finding> found) {
    Table first = design.design().table(one.over.child());
    Table second = design.design().table(other.over.child());
    found.accept(
        FINDING.about(
            other.over,
            "Adding up "
                + one.field.label()
                + " of "
                + first.noun().plural()
                + " and "
                + other.field.label()
                + " of "
                + second.noun().plural()
                + " in one question through "
                + table.noun().plural()
                + " counts rows more than once, today for "
                + Counts.of(one.multiplied(other), table.noun().singular(), table.noun().plural())
                + ".",
            "Each row of the one meets each of the other; ask them apart, or keep the sum of one with "
                + table.noun().indefinite()
                + ".",
            remedy(table, first, one),
            remedy(table, second, other)));
  }

  /** A type that sums of such values fit in. */
  private static FieldType ofSum(FieldType type) {
    return switch (type) {
      case FieldType.WholeNumber whole -> new FieldType.WholeNumber(Width.BITS_64);
      case FieldType.Decimal decimal -> new FieldType.Decimal(MOST_DIGITS, decimal.scale());
      case FieldType.Money money -> new FieldType.Money(MOST_DIGITS, money.scale());
      default -> type;
    };
  }

  private static Remedy remedy(Table table, Table child, Branch branch) {
    Formula each = Formula.naming(branch.field.name());
    String name = "sum_" + child.name() + "_" + branch.field.name();
    Field sum =
        Field.of(
                name,
                branch.field.label() + " of " + child.noun().plural(),
                ofSum(branch.field.type()))
            .withUnit(branch.field.unit())
            .withOrigin(new Origin.SummedUp(Summing.SUM, branch.over.id(), Optional.of(each)));
    return new Remedy(
        "Keep "
            + branch.field.label()
            + " of its "
            + child.noun().plural()
            + " with "
            + table.noun().indefinite(),
        new AddField(table.id(), sum));
  }
}
