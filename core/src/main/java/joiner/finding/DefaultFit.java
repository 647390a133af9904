package joiner.finding;

import java.util.List;
import java.util.Optional;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Kind;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.model.Field;
import joiner.rows.ReadValue;
import joiner.rows.ValueReader;

/** Decides whether a default expression gives a value of its field. */
final class DefaultFit {
  private DefaultFit() {}

  /** Why it does not fit, as the end of a sentence; empty if it fits. */
  static Optional<String> misfit(Field field, List<Constraint.OfField> constraints, Checked given) {
    return switch (given) {
      case Checked.Faulty faulty -> Optional.of(faulty.problems().getFirst().message());
      case Checked.Sound sound -> ofKind(field, constraints, sound);
    };
  }

  private static Optional<String> ofKind(
      Field field, List<Constraint.OfField> constraints, Checked.Sound sound) {
    Kind wanted = field.type().kind();
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
      return ofValue(field, constraints, evaluator.evaluate(sound.tree(), reference -> Value.NULL));
    } catch (EvaluationException e) {
      return Optional.of(e.getMessage() + ".");
    }
  }

  private static Optional<String> ofValue(
      Field field, List<Constraint.OfField> constraints, Value value) {
    if (value instanceof Value.Null) {
      return Optional.empty();
    }
    return switch (ValueReader.read(Evaluator.show(value), field.type())) {
      case ReadValue.Unfit unfit -> Optional.of(unfit.expected() + " was expected.");
      case ReadValue.Fits fits -> broken(constraints, fits.value());
    };
  }

  private static Optional<String> broken(List<Constraint.OfField> constraints, Value value) {
    return constraints.stream()
        .filter(Constraint.OfValue.class::isInstance)
        .map(Constraint.OfValue.class::cast)
        .filter(constraint -> !constraint.isKeptBy(value))
        .map(constraint -> "it must " + constraint.demand() + ".")
        .findFirst();
  }
}
