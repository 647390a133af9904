package joiner.edit;

import java.util.List;
import java.util.function.BiFunction;
import java.util.function.UnaryOperator;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Scope;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.model.ChoiceId;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.OwnField;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * Calls one of a field's choices otherwise; the rows that hold it, the default and the table's
 * rules go along.
 *
 * @param before what it was called
 * @param after what it is called, a text that no other choice has
 */
public record RenameChoice(
    TableId table, FieldId field, ChoiceId choice, String before, String after) implements Edit {
  @Override
  public String name() {
    return "call " + before + " now " + after;
  }

  @Override
  public Draft apply(Draft draft) {
    Table old = draft.design().table(table);
    Field choosing = old.field(field);
    if (!(choosing.type() instanceof FieldType.Choice choices)) {
      throw new EditRefusedException(choosing.label() + " has no fixed choices.");
    }
    List<String> others = choices.values().stream().filter(text -> !text.equals(before)).toList();
    ChangeChoices.requireChoice(choosing, others, after);
    Field renamed =
        choosing
            .withType(choices.withEntry(choice, entry -> entry.withText(after)))
            .withDefault(choosing.defaultValue().map(this::defaulting));
    Scope scope = draft.meaning().of(old).scope();
    var reads = OwnField.of(choosing);
    UnaryOperator<Formula> carried = f -> f.comparing(scope, reads, before, after);
    BiFunction<RelationshipId, Formula, Formula> ofOthers =
        (over, formula) ->
            draft.design().find(over).filter(r -> r.child().equals(table)).isPresent()
                ? carried.apply(formula)
                : formula;
    Table now =
        old.withField(field, f -> renamed)
            .withRules(
                old.rules().stream()
                    .map(rule -> rule.withDemand(rule.demand().withFormulas(carried, ofOthers)))
                    .toList())
            .withRowLabel(old.rowLabel().map(carried));
    return draft.with(
        draft.design().withTable(table, t -> now),
        draft.rows().replaced(table, field, before, after));
  }

  private Formula defaulting(Formula value) {
    boolean same =
        value.constant() instanceof Checked.Sound(Expression.Literal literal, var kind)
            && literal.value().equals(new Value.Text(before));
    return same ? new Formula("'" + after.replace("'", "''") + "'") : value;
  }
}
