package joiner.meaning;

import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.SqlText;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Generator;
import joiner.model.Origin;
import joiner.model.Relationship;
import joiner.model.Stamp;
import joiner.model.Summing;
import joiner.model.Table;
import joiner.shape.CodedNumber;
import joiner.shape.RandomCode;

/** From where the values of a table's fields may come without anybody typing them. */
public final class ReadyOrigins {
  static final String ENTERED_ONCE = "entered once";
  private static final int DIGITS = 4;

  /** What a random code is long enough for at first: rows, and the chance that two are the same. */
  private static final long USUAL_ROWS = 10_000;

  private static final double USUAL_CHANCE = 1e-3;

  private ReadyOrigins() {}

  /**
   * Something to be taken as it is.
   *
   * @param words as in "Litres of its kiln" or "number of its pieces"
   */
  public record Ready(String words, Origin origin) {}

  /**
   * What can be carried from the parents of a table, summed up over its children and told of its
   * dates; counts come first. Linear in the fields of the tables around it.
   *
   * @param typed words that are looked for, in which a language may be named
   */
  public static List<Ready> of(Design design, Table table, String typed) {
    List<Relationship> children =
        design.childrenOf(table.id()).stream()
            .sorted(Comparator.comparing(over -> over.child().equals(table.id())))
            .toList();
    return Stream.of(
            children.stream().map(over -> ready(design, Summing.COUNT, over, Optional.empty())),
            design.parentsOf(table.id()).stream().flatMap(over -> carried(design, over)),
            design.parentsOf(table.id()).stream().flatMap(over -> copied(design, over)),
            children.stream().flatMap(over -> summed(design, over)),
            DateWords.of(table, typed),
            ofItself(table))
        .flatMap(some -> some)
        .toList();
  }

  /** What rows hold of themselves. */
  private static Stream<Ready> ofItself(Table table) {
    List<CodedNumber.Part> parts =
        List.of(
            new CodedNumber.Part.Fixed(initial(table) + "-"),
            new CodedNumber.Part.Year(false),
            new CodedNumber.Part.Fixed("-"),
            new CodedNumber.Part.Counter(DIGITS));
    return Stream.concat(
            Arrays.stream(Stamp.values()).map(Origin.Stamped::new),
            Stream.of(
                new Origin.Generated(
                    new Generator.Coded(new CodedNumber(parts, CodedNumber.Restart.YEARLY))),
                new Origin.Generated(new Generator.Uuid(true)),
                new Origin.Generated(new Generator.Uuid(false)),
                new Origin.Generated(
                    new Generator.Drawn(
                        RandomCode.against(RandomCode.PLAIN, USUAL_ROWS, USUAL_CHANCE))),
                Origin.ONCE))
        .map(origin -> new Ready(words(origin), origin));
  }

  private static String initial(Table table) {
    return table.name().substring(0, 1).toUpperCase(Locale.ROOT);
  }

  private static String words(Origin origin) {
    return switch (origin) {
      case Origin.Generated(Generator.Coded(CodedNumber number)) ->
          "a coded number, " + OriginWords.shown(number);
      case Origin.Generated(Generator by) -> OriginWords.of(by);
      case Origin.Stamped(Stamp stamp) -> OriginWords.of(stamp);
      default -> ENTERED_ONCE;
    };
  }

  private static Stream<Ready> carried(Design design, Relationship over) {
    Table parent = design.table(over.parent());
    String whose = " of its " + SummingWords.told(design, over, parent.noun().singular());
    return parent.fields().stream()
        .filter(field -> !over.parentFields().contains(field.id()))
        .filter(field -> !(field.type() instanceof FieldType.Content))
        .map(
            field ->
                new Ready(field.label() + whose, new Origin.Computed(path(design, over, field))));
  }

  private static Stream<Ready> copied(Design design, Relationship over) {
    return carried(design, over)
        .map(
            ready ->
                new Ready(
                    ready.words() + ", as it was",
                    new Origin.Copied(((Origin.Computed) ready.origin()).formula())));
  }

  private static Formula path(Design design, Relationship over, Field field) {
    List<String> path = TableScope.path(design, List.of(over), field);
    return new Formula(SqlText.iso().write(new Expression.Name(path, Place.NOWHERE)));
  }

  private static Stream<Ready> summed(Design design, Relationship over) {
    Table child = design.table(over.child());
    Set<FieldId> references = new HashSet<>(child.primaryKey());
    design.parentsOf(child.id()).forEach(up -> references.addAll(up.childFields()));
    return child.fields().stream()
        .filter(field -> !references.contains(field.id()))
        .flatMap(
            field ->
                ways(field.type()).stream()
                    .map(
                        how ->
                            ready(design, how, over, Optional.of(Formula.naming(field.name())))));
  }

  /** How values of a type are usually summed up. */
  private static List<Summing> ways(FieldType type) {
    Kind kind = type.kind();
    if (kind == Kind.WHOLE || kind == Kind.NUMBER) {
      return List.of(Summing.SUM, Summing.AVERAGE, Summing.LEAST, Summing.GREATEST);
    }
    return switch (kind) {
      case DATE, DATE_TIME, ZONED, TIME -> List.of(Summing.LEAST, Summing.GREATEST);
      case TEXT -> type instanceof FieldType.Content ? List.of() : List.of(Summing.JOINED);
      case BOOLEAN -> List.of(Summing.ANY, Summing.ALL);
      default -> List.of();
    };
  }

  private static Ready ready(Design design, Summing how, Relationship over, Optional<Formula> of) {
    var origin = new Origin.SummedUp(how, over.id(), of);
    return new Ready(SummingWords.of(design, origin), origin);
  }
}
