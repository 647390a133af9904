package joiner.meaning;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import joiner.expression.Formula;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Kit;
import joiner.model.KitUse;
import joiner.model.Noun;
import joiner.model.Origin;
import joiner.model.OwnField;
import joiner.model.Table;

/**
 * The fields of a kit as a table has them, and the other way round: a table may call them by other
 * names than the kit, and formulas among them go by those.
 */
public final class KitFields {
  private KitFields() {}

  /** What a table's field is when it is as the kit has it; its name stays its own. */
  public static Field inTable(Kit kit, Field ofKit, Table table, KitUse use, Field own) {
    Map<FieldId, FieldId> fields = use.fields();
    Function<FieldId, Optional<String>> names =
        id -> Optional.ofNullable(fields.get(id)).map(table::field).map(Field::name);
    return renamed(Kit.inStep(ofKit, own), asTable(kit), names);
  }

  /** What a kit has, where its field is to be as a table has it; the name stays the table's. */
  public static Field inKit(Kit kit, Table table, KitUse use, Field own) {
    Function<FieldId, Optional<String>> names =
        id -> use.ofKit(id).flatMap(kit::find).map(Field::name);
    return renamed(own.withExtras(Extras.NONE), table, names);
  }

  private static Field renamed(Field field, Table read, Function<FieldId, Optional<String>> names) {
    var scope = new TableScope(read);
    UnaryOperator<Formula> carried =
        formula ->
            formula.renamed(
                scope,
                reference ->
                    reference instanceof OwnField own
                        ? names.apply(own.field()).map(List::of).orElse(reference.path())
                        : reference.path());
    return switch (field.origin()) {
      case Origin.Computed(Formula formula) ->
          field.withOrigin(new Origin.Computed(carried.apply(formula)));
      default -> field; // Nothing else reads fields of its own row.
    };
  }

  private static Table asTable(Kit kit) {
    return Table.of(kit.id().value(), kit.label(), new Noun(kit.label(), kit.label()))
        .withFields(kit.fields());
  }
}
