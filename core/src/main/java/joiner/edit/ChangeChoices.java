package joiner.edit;

import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.FieldType.Choice;
import joiner.model.Hue;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * Changes what is said of a field's choices. What rows hold stays as it is; {@link RenameChoice}
 * calls one otherwise.
 */
public record ChangeChoices(String name, TableId table, FieldId field, UnaryOperator<Choice> change)
    implements Edit {
  /** Keeps a choice for the rows that hold it and offers it no more, or offers it again. */
  public static ChangeChoices retired(
      Table table, Field field, Choice.Entry entry, boolean retired) {
    return of(
        table,
        field,
        (retired ? "retire the choice " : "restore the choice ") + entry.text(),
        choice -> choice.withEntry(entry.id(), e -> e.withRetired(retired)));
  }

  /** Says what a choice means. */
  public static ChangeChoices described(
      Table table, Field field, Choice.Entry entry, String description) {
    return of(
        table,
        field,
        "describe the choice " + entry.text(),
        choice -> choice.withEntry(entry.id(), e -> e.withDescription(description)));
  }

  /** Marks a choice for the eye. */
  public static ChangeChoices marked(
      Table table, Field field, Choice.Entry entry, Optional<Hue> hue) {
    return of(
        table,
        field,
        "mark the choice " + entry.text(),
        choice -> choice.withEntry(entry.id(), e -> e.withHue(hue)));
  }

  /** Lets who enters rows add choices, or not. */
  public static ChangeChoices growing(Table table, Field field, boolean grows) {
    return of(
        table,
        field,
        (grows ? "let the choices of " : "keep the choices of ")
            + field.label()
            + (grows ? " grow" : " as they are"),
        choice -> choice.withGrows(grows));
  }

  /** Adds a choice at the end. */
  public static ChangeChoices added(Table table, Field field, String text) {
    return of(table, field, "add the choice " + text, choice -> added(field, choice, text));
  }

  private static Choice added(Field field, Choice choice, String text) {
    requireChoice(field, choice.values(), text);
    return choice.withAdded(text);
  }

  /** Refuses a text that no choice can be beside the others of the field. */
  static void requireChoice(Field field, List<String> others, String text) {
    if (text.isBlank() || text.contains("\n")) {
      throw new EditRefusedException("A choice is a text of one line.");
    }
    if (others.contains(text)) {
      throw new EditRefusedException(field.label() + " has the choice " + text + " already.");
    }
  }

  private static ChangeChoices of(
      Table table, Field field, String name, UnaryOperator<Choice> change) {
    return new ChangeChoices(name, table.id(), field.id(), change);
  }

  @Override
  public Draft apply(Draft draft) {
    Field choosing = draft.design().table(table).field(field);
    if (!(choosing.type() instanceof FieldType.Choice choice)) {
      throw new EditRefusedException(choosing.label() + " has no fixed choices.");
    }
    Choice changed = change.apply(choice);
    return draft.withDesign(
        draft.design().withTable(table, t -> t.withField(field, f -> f.withType(changed))));
  }
}
