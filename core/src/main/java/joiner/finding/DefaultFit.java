package joiner.finding;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Kind;
import joiner.expression.RuleLanguage;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.rows.ReadValue;
import joiner.rows.ValueReader;

/** Decides whether a default expression gives a value of its field. */
final class DefaultFit {
  private DefaultFit() {}

  /** Why it does not fit, as the end of a sentence; empty if it fits. */
  static Optional<String> misfit(Field field, String text) {
    return switch (RuleLanguage.constant(text)) {
      case Checked.Faulty faulty -> Optional.of(faulty.problems().getFirst().message());
      case Checked.Sound sound -> ofKind(field, sound);
    };
  }

  private static Optional<String> ofKind(Field field, Checked.Sound sound) {
    Kind wanted = Kind.of(field.type());
    Kind given = sound.kind();
    boolean fits =
        given == Kind.NULL
            || given == wanted
            || (wanted == Kind.NUMBER && given == Kind.WHOLE)
            || (wanted == Kind.UUID && given == Kind.TEXT);
    if (!fits) {
      return Optional.of("it is " + given.words() + ", the field holds " + wanted.words() + ".");
    }
    if (sound.readsClock()) {
      return Optional.empty();
    }
    try {
      var evaluator = new Evaluator(java.time.Clock.systemUTC());
      return ofValue(field, evaluator.evaluate(sound.tree(), name -> Value.NULL));
    } catch (EvaluationException e) {
      return Optional.of(e.getMessage() + ".");
    }
  }

  private static Optional<String> ofValue(Field field, Value value) {
    if (value instanceof Value.Null) {
      return Optional.empty();
    }
    String shown = Evaluator.show(value);
    if (ValueReader.read(shown, field.type()) instanceof ReadValue.Unfit unfit) {
      return Optional.of(unfit.expected() + " was expected.");
    }
    List<String> choices =
        field.type() instanceof FieldType.Choice c ? c.values() : field.limits().allowed();
    if (!choices.isEmpty() && !choices.contains(shown)) {
      return Optional.of("it is not one of " + String.join(", ", choices) + ".");
    }
    OptionalInt length = field.type().length();
    return length.isPresent() && shown.codePointCount(0, shown.length()) > length.getAsInt()
        ? Optional.of("it is longer than the " + length.getAsInt() + " characters allowed.")
        : Optional.empty();
  }
}
