package joiner.finding;

import java.util.Optional;
import java.util.function.Consumer;
import joiner.edit.SetOrigin;
import joiner.expression.Formula;
import joiner.meaning.TableMeaning;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.Origin;
import joiner.model.Table;

/**
 * What fills a field when its row is made is a value some row keeps, for triggers read tables; what
 * a single engine cannot do is told where that engine is chosen.
 */
final class OriginNotKept implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("origin-not-kept", Severity.WARNING, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign checked, Consumer<Finding> found) {
    for (Table table : checked.design().tables()) {
      for (Field field : table.fields()) {
        if (field.origin() instanceof Origin.Copied(Formula formula)) {
          run(checked, checked.meaning(table), field, formula, found);
        }
      }
    }
  }

  private static void run(
      CheckedDesign checked,
      TableMeaning meaning,
      Field field,
      Formula formula,
      Consumer<Finding> found) {
    Optional<Field> end = meaning.far(formula).map((FarField far) -> far.end(checked.design()));
    if (end.filter(Field::isComputed).isPresent()) {
      found.accept(
          FINDING.about(
              meaning.table(),
              field,
              "No engine fills "
                  + FieldCheck.named(meaning.table(), field)
                  + " in: "
                  + end.get().label()
                  + " is worked out and kept in no row.",
              "Whoever adds a row would have to bring the value.",
              new Remedy(
                  "Show it always as it is now",
                  SetOrigin.by(meaning.table(), field, new Origin.Computed(formula)))));
    }
  }
}
