package joiner.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.catalog.Column;
import joiner.catalog.Sequence;
import joiner.catalog.SqlExpression;
import joiner.catalog.Trigger;
import joiner.engine.Dialect;
import joiner.engine.Upkeep;
import joiner.model.Field;
import joiner.model.Generator;
import joiner.model.Origin;
import joiner.model.Stamp;
import joiner.model.Table;
import joiner.naming.ConstraintNaming;
import joiner.shape.CodedNumber;

/**
 * What an engine does of itself so that values nobody types are kept in one table; what it cannot
 * do is a shortfall.
 */
final class TableUpkeep {
  private final Table table;
  private final Dialect dialect;
  private final ConstraintNames names;
  private final Unmade unmade;
  private final List<Trigger> triggers = new ArrayList<>();
  private final List<Sequence> numbers = new ArrayList<>();

  /** Is told of what is not kept, and why. */
  interface Unmade {
    void tell(Field field, String subject, String why);
  }

  /**
   * Nothing yet.
   *
   * @param unmade told of what is not kept, and why
   */
  TableUpkeep(Table table, Dialect dialect, ConstraintNames names, Unmade unmade) {
    this.table = table;
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
    return field.origin() instanceof Origin.Generated(Generator.Coded coded)
        && dialect.fillsLater();
  }

  /**
   * Makes the triggers.
   *
   * @param columns as the engine has them
   */
  void keep(List<Column> columns) {
    List<Field> kept =
        table.fields().stream()
            .filter(field -> !field.isComputed())
            .filter(field -> columns.stream().anyMatch(c -> c.name().equals(field.name())))
            .toList();
    changes(kept, columns);
    kept.forEach(this::number);
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

  private void number(Field field) {
    if (!(field.origin() instanceof Origin.Generated(Generator.Coded(CodedNumber form)))) {
      return;
    }
    Optional<Upkeep> upkeep = dialect.upkeep();
    if (upkeep.isEmpty()) {
      unnumbered(field, dialect.upkeepLoss());
      return;
    }
    String numbersOf = names.take(ConstraintNaming.numbers(table.name(), field.name()));
    var numbered = new Upkeep.Numbered(table.name(), field.name(), numbersOf, form);
    String name = names.take(ConstraintNaming.numbering(table.name(), field.name()));
    List<Trigger> made = upkeep.get().numbering(name, numbered);
    if (made.isEmpty()) {
      unnumbered(field, "Joiner writes no triggers for it on " + dialect.engine());
      return;
    }
    triggers.addAll(made);
    numbers.add(new Sequence(numbersOf, 1, Optional.of(upkeep.get().soFar(numbered))));
  }

  private void unnumbered(Field field, String why) {
    unmade.tell(
        field, "the numbering of " + field.label(), why + "; whoever adds a row brings a number.");
  }
}
