package joiner.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.catalog.Column;
import joiner.catalog.Sequence;
import joiner.catalog.SqlExpression;
import joiner.catalog.Trigger;
import joiner.engine.Dialect;
import joiner.engine.NumberingUpkeep;
import joiner.engine.Upkeep;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Generator;
import joiner.model.Origin;
import joiner.model.Relationship;
import joiner.model.Stamp;
import joiner.model.Table;
import joiner.naming.ConstraintNaming;
import joiner.shape.CodedNumber;

/**
 * What an engine does of itself so that values nobody types are kept in one table; what it cannot
 * do is a shortfall.
 */
final class TableUpkeep {
  private final Design design;
  private final TableMeaning meaning;
  private final Table table;
  private final Dialect dialect;
  private final ConstraintNames names;
  private final Unmade unmade;
  private final List<Trigger> triggers = new ArrayList<>();
  private final List<Sequence> numbers = new ArrayList<>();

  /** Is told of what is not kept, and why. */
  interface Unmade {
    /** Of a field whose values are not made. */
    void tell(Field field, String subject, String why);

    /** Of the table. */
    void tell(String subject, String why);
  }

  /**
   * Nothing yet.
   *
   * @param unmade told of what is not kept, and why
   */
  TableUpkeep(
      Design design, TableMeaning meaning, Dialect dialect, ConstraintNames names, Unmade unmade) {
    this.design = design;
    this.meaning = meaning;
    this.table = meaning.table();
    this.dialect = dialect;
    this.names = names;
    this.unmade = unmade;
  }

  List<Trigger> triggers() {
    return triggers;
  }

  /** The tables of the last numbers. */
  List<Sequence> numbers() {
    return numbers;
  }

  /** What makes the values of a column, as its default; empty: nothing does, or a trigger. */
  Optional<SqlExpression> generated(Field field) {
    if (!(field.origin() instanceof Origin.Generated(Generator by))
        || by instanceof Generator.Coded) {
      return Optional.empty();
    }
    Optional<SqlExpression> made = dialect.generated(by).map(SqlExpression::varying);
    if (made.isEmpty()) {
      unmade.tell(
          field,
          "what makes " + field.label(),
          dialect.engine() + " makes no such values; whoever adds a row brings one.");
    }
    return made;
  }

  /** Whether a trigger fills a column once its row is there, so that it may be empty until then. */
  boolean isFilledLater(Field field) {
    boolean numbers = dialect.upkeep().filter(NumberingUpkeep.class::isInstance).isPresent();
    boolean filled =
        field.origin() instanceof Origin.Generated(Generator.Coded coded)
            ? numbers
            : field.origin() instanceof Origin.Copied;
    return filled && dialect.fillsLater();
  }

  /**
   * Makes the triggers.
   *
   * @param columns as the engine has them
   * @param relationships in which the table is the child
   */
  void keep(List<Column> columns, List<Relationship> relationships) {
    List<Field> kept =
        table.fields().stream()
            .filter(field -> !field.isComputed())
            .filter(field -> columns.stream().anyMatch(c -> c.name().equals(field.name())))
            .toList();
    changes(kept, columns);
    kept.forEach(this::number);
    copies(kept);
    relationships.stream().filter(Relationship::parentNeedsChild).forEach(r -> children(r, kept));
  }

  /** That each parent has a row of this table. */
  private void children(Relationship r, List<Field> kept) {
    Table parent = design.table(r.parent());
    List<FieldId> row = parent.primaryKey().isEmpty() ? r.parentFields() : parent.primaryKey();
    boolean entered =
        r.childFields().stream().map(table::field).allMatch(kept::contains)
            && Stream.concat(row.stream(), r.parentFields().stream())
                .noneMatch(key -> parent.field(key).isComputed());
    List<Trigger> made =
        !entered
            ? List.of()
            : dialect
                .upkeep()
                .map(
                    upkeep ->
                        upkeep.needing(
                            names.take(ConstraintNaming.needing(parent.name(), table.name())),
                            names.take(ConstraintNaming.leaving(parent.name(), table.name())),
                            new Upkeep.Needed(
                                parent.name(),
                                parent.namesOf(row),
                                parent.namesOf(r.parentFields()),
                                table.name(),
                                table.namesOf(r.childFields()),
                                demand(parent))))
                .orElse(List.of());
    triggers.addAll(made);
    if (made.isEmpty()) {
      unmade.tell(
          "that " + demand(parent),
          entered
              ? dialect.engine() + " looks at no transaction as a whole; an audit finds such rows."
              : "one of the fields that relate them is worked out.");
    }
  }

  private String demand(Table parent) {
    return "each " + parent.noun().singular() + " has " + table.noun().indefinite();
  }

  private void changes(List<Field> kept, List<Column> columns) {
    List<Field> staying = kept.stream().filter(field -> field.origin().stays()).toList();
    List<Field> following = kept.stream().filter(TableUpkeep::follows).toList();
    if (staying.isEmpty() && following.isEmpty()) {
      return;
    }
    var followed = new ArrayList<Upkeep.Followed>();
    for (Field field : following) {
      columns.stream()
          .filter(column -> column.name().equals(field.name()))
          .findFirst()
          .flatMap(Column::defaultValue)
          .ifPresent(now -> followed.add(new Upkeep.Followed(field.name(), now.sql())));
    }
    var what =
        new Upkeep.Kept(
            table.name(),
            staying.stream().map(Field::name).toList(),
            followed,
            kept.stream().filter(field -> !follows(field)).map(Field::name).toList(),
            table.namesOf(table.primaryKey()));
    Optional<Upkeep> upkeep = dialect.upkeep();
    List<Trigger> made =
        upkeep
            .map(u -> u.keeping(names.take(ConstraintNaming.keeping(table.name())), what))
            .orElse(List.of());
    triggers.addAll(made);
    if (made.isEmpty()) {
      String why =
          upkeep.isEmpty() ? dialect.upkeepLoss() : dialect.engine() + " needs a key for it";
      staying.forEach(field -> unmade.tell(field, "that " + field.label() + " stays", why + "."));
      following.forEach(
          field -> unmade.tell(field, "the stamp " + field.label() + " on changes", why + "."));
    }
  }

  private static boolean follows(Field field) {
    return field.origin() instanceof Origin.Stamped(Stamp stamp) && stamp.follows();
  }

  private void copies(List<Field> kept) {
    List<Field> filled = kept.stream().filter(f -> f.origin() instanceof Origin.Copied).toList();
    if (filled.isEmpty()) {
      return;
    }
    var copied = new ArrayList<Upkeep.Copied>();
    for (Field field : filled) {
      Optional<FarField> far = meaning.far(((Origin.Copied) field.origin()).formula());
      if (far.isPresent() && !far.get().end(design).isComputed()) {
        copied.add(copied(field, far.get()));
      } else {
        unfilled(field, "what fills it is no field that is entered in a row it refers to");
      }
    }
    Optional<Upkeep> upkeep = dialect.upkeep();
    List<Trigger> made =
        copied.isEmpty() || upkeep.isEmpty()
            ? List.of()
            : upkeep
                .get()
                .copying(
                    names.take(ConstraintNaming.copying(table.name())),
                    table.name(),
                    copied,
                    table.namesOf(table.primaryKey()));
    triggers.addAll(made);
    if (made.isEmpty() && !copied.isEmpty()) {
      String why =
          upkeep.isEmpty() ? dialect.upkeepLoss() : dialect.engine() + " needs a key for it";
      filled.forEach(field -> unfilled(field, why));
    }
  }

  private void unfilled(Field field, String why) {
    unmade.tell(
        field,
        "the filling in of " + field.label(),
        why + "; whoever adds a row brings the value.");
  }

  /** The query over the relationships that lead to a field. */
  private Upkeep.Copied copied(Field field, FarField far) {
    List<Relationship> way = far.over().stream().map(design::relationship).toList();
    var select = new StringBuilder("SELECT t").append(way.size()).append('.');
    select.append(dialect.name(far.end(design).name())).append(" AS made FROM ");
    for (int i = 0; i < way.size(); i++) {
      Table parent = design.table(way.get(i).parent());
      select.append(i == 0 ? "" : " JOIN ");
      select.append(dialect.name(parent.name())).append(" t").append(i + 1);
      select.append(i == 0 ? "" : " ON " + same(way.get(i), i));
    }
    Relationship first = way.getFirst();
    Table parent = design.table(first.parent());
    return new Upkeep.Copied(
        field.name(),
        select.toString(),
        first.parentFields().stream().map(key -> "t1." + name(parent, key)).toList(),
        table.namesOf(first.childFields()));
  }

  /** That the row of a place refers to that of the next, places from 1. */
  private String same(Relationship up, int place) {
    Table child = design.table(up.child());
    Table parent = design.table(up.parent());
    return IntStream.range(0, up.childFields().size())
        .mapToObj(
            k ->
                "t%d.%s = t%d.%s"
                    .formatted(
                        place + 1,
                        name(parent, up.parentFields().get(k)),
                        place,
                        name(child, up.childFields().get(k))))
        .collect(Collectors.joining(" AND "));
  }

  private String name(Table of, FieldId field) {
    return dialect.name(of.field(field).name());
  }

  private void number(Field field) {
    if (!(field.origin() instanceof Origin.Generated(Generator.Coded(CodedNumber form)))) {
      return;
    }
    Optional<Upkeep> upkeep = dialect.upkeep();
    if (!(upkeep.orElse(null) instanceof NumberingUpkeep numbering)) {
      unnumbered(
          field,
          upkeep.isEmpty()
              ? dialect.upkeepLoss()
              : "Joiner writes no triggers for it on " + dialect.engine());
      return;
    }
    String numbersOf = names.take(ConstraintNaming.numbers(table.name(), field.name()));
    var numbered = new NumberingUpkeep.Numbered(table.name(), field.name(), numbersOf, form);
    String name = names.take(ConstraintNaming.numbering(table.name(), field.name()));
    triggers.addAll(numbering.numbering(name, numbered));
    numbers.add(new Sequence(numbersOf, 1, Optional.of(numbering.soFar(numbered))));
  }

  private void unnumbered(Field field, String why) {
    unmade.tell(
        field, "the numbering of " + field.label(), why + "; whoever adds a row brings a number.");
  }
}
