package joiner.meaning;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedSet;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Place;
import joiner.expression.Problem;
import joiner.expression.Reference;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Origin;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.Summed;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * Formulas in terms of fields that are entered: where one reads a computed field, what that is
 * worked out by stands in its place. A field that hangs on itself, over whatever rows, is told with
 * the circle. Linear in the formulas as they are written out, each of which is read once.
 */
final class ComputedFields {
  private static final String CIRCLE = "This hangs on itself: ";

  private final Optional<Design> design;
  private final Map<Where, Checked> known = new HashMap<>();

  /** What is being written out, each because the one before reads it. */
  private final SequencedSet<Where> open = new LinkedHashSet<>();

  private record Where(TableId table, FieldId field) {}

  Optional<Design> design() {
    return design;
  }

  /** The computed fields of a design, or of a table that belongs to none yet. */
  ComputedFields(Optional<Design> design) {
    this.design = design;
  }

  /** What a computed field is worked out by. */
  Checked of(Table table, Field field) {
    var at = new Where(table.id(), field.id());
    Checked found = known.get(at);
    if (found != null) {
      return found;
    }
    if (!open.add(at)) {
      return faulty(Place.NOWHERE, circle(table, at));
    }
    Checked written =
        switch (field.origin()) {
          case Origin.Computed(Formula formula) -> written(formula.value(scope(table)), table);
          case Origin.SummedUp by -> summedUp(table, field, by);
          case Origin.Typed t -> throw entered(field);
          case Origin.Generated g -> throw entered(field);
          case Origin.Stamped s -> throw entered(field);
          case Origin.Copied c -> throw entered(field);
        };
    open.remove(at);
    known.put(at, written);
    return written;
  }

  private static IllegalArgumentException entered(Field field) {
    return new IllegalArgumentException(field.name() + " is not worked out");
  }

  private TableScope scope(Table table) {
    return design.map(d -> new TableScope(d, table)).orElse(new TableScope(table));
  }

  private Checked summedUp(Table table, Field field, Origin.SummedUp by) {
    Optional<Relationship> over =
        design.flatMap(d -> d.find(by.over())).filter(r -> r.parent().equals(table.id()));
    return over.map(r -> SummingUp.of(this, design.orElseThrow(), r, field).checked(by))
        .orElseGet(
            () ->
                faulty(Place.NOWHERE, "The rows it sums up do not belong to this table any more."));
  }

  /** A formula of another table in terms of fields that are entered. */
  Checked condition(Formula formula, Table table) {
    return written(formula.condition(scope(table)), table);
  }

  /** A formula of another table in terms of fields that are entered. */
  Checked value(Formula formula, Table table) {
    return written(formula.value(scope(table)), table);
  }

  private String circle(Table table, Where at) {
    String way =
        Stream.concat(open.stream().dropWhile(where -> !where.equals(at)), Stream.of(at))
            .map(where -> label(table, where))
            .collect(Collectors.joining(" → "));
    return CIRCLE + way + ".";
  }

  private String label(Table table, Where where) {
    Table of = design.map(d -> d.table(where.table)).orElse(table);
    String label = of.field(where.field).label();
    return of.id().equals(table.id()) ? label : of.label() + "." + label;
  }

  private static Checked.Faulty faulty(Place place, String message) {
    return new Checked.Faulty(List.of(new Problem(place.span(), message)));
  }

  /** A formula of a table in terms of fields that are entered. */
  Checked written(Checked formula, Table table) {
    if (!(formula instanceof Checked.Sound sound)
        || sound.reads().stream().noneMatch(read -> isComputed(read, table))) {
      return formula;
    }
    var problems = new ArrayList<Problem>();
    Expression tree = written(sound.tree(), table, problems);
    return problems.isEmpty()
        ? new Checked.Sound(tree, sound.type())
        : new Checked.Faulty(problems);
  }

  private boolean isComputed(Reference read, Table table) {
    return switch (read) {
      case OwnField own -> table.field(own.field()).isComputed();
      case FarField far -> end(far).field(far.field()).isComputed();
      case Summed summed -> false; // It is written out already.
      default -> throw new IllegalArgumentException(read.name() + " is no field of a row");
    };
  }

  /** The type of what a formula of a table reads. */
  FieldType type(Reference read, Table table) {
    return switch (read) {
      case OwnField own -> table.field(own.field()).type();
      case FarField far -> end(far).field(far.field()).type();
      case Summed summed -> summed.holds();
      default -> throw new IllegalArgumentException(read.name() + " is no field of a row");
    };
  }

  private Table end(FarField far) {
    return far.table(design.orElseThrow());
  }

  private Expression written(Expression tree, Table table, List<Problem> problems) {
    if (!(tree instanceof Expression.FieldRef(Reference read, Place place))) {
      return tree.withParts(part -> written(part, table, problems));
    }
    if (!isComputed(read, table)) {
      return tree;
    }
    Table of = read instanceof FarField far ? end(far) : table;
    FieldId id = read instanceof FarField far ? far.field() : ((OwnField) read).field();
    return switch (of(of, of.field(id))) {
      case Checked.Faulty(List<Problem> why) -> {
        String message = why.getFirst().message();
        problems.add(
            new Problem(
                place.span(),
                message.startsWith(CIRCLE)
                    ? message
                    : of.field(id).label() + " cannot be worked out: " + message));
        yield tree;
      }
      case Checked.Sound sound ->
          read instanceof FarField far ? lifted(sound.tree(), far) : sound.tree();
    };
  }

  /**
   * What a row works out, as a row says it that leads there; nothing where the way leads nowhere.
   */
  private Expression lifted(Expression tree, FarField way) {
    Relationship last = design.orElseThrow().relationship(way.over().getLast());
    Field key = end(way).field(last.parentFields().getFirst());
    var there =
        new Expression.IsNull(
            new Expression.FieldRef(over(way, OwnField.of(key)), Place.NOWHERE),
            true,
            Place.NOWHERE);
    return new Expression.Case(
        Optional.empty(),
        List.of(new Expression.When(there, read(tree, reference -> over(way, reference)))),
        Optional.empty(),
        Place.NOWHERE);
  }

  private static Expression read(Expression tree, UnaryOperator<Reference> otherwise) {
    return tree instanceof Expression.FieldRef(Reference to, Place place)
        ? new Expression.FieldRef(otherwise.apply(to), place)
        : tree.withParts(part -> read(part, otherwise));
  }

  /** Something of the row a way leads to, from where the way begins. */
  private static Reference over(FarField way, Reference there) {
    List<String> path =
        Stream.concat(way.path().subList(0, way.path().size() - 1).stream(), there.path().stream())
            .toList();
    return switch (there) {
      case OwnField own -> new FarField(way.over(), way.from(), own.field(), path, own.type());
      case FarField far ->
          new FarField(
              Stream.concat(way.over().stream(), far.over().stream()).toList(),
              way.from(),
              far.field(),
              path,
              far.type());
      case Summed summed -> summed.from(way, path);
      default -> throw new IllegalArgumentException(there.name() + " is no field of a row");
    };
  }
}
