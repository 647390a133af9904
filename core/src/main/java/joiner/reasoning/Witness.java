package joiner.reasoning;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import joiner.expression.Evaluator;
import joiner.expression.Reference;
import joiner.expression.Value;

/**
 * A row that shows something of a rule, as far as the rule reads it.
 *
 * @param values by what is read, in the order of the rule
 */
public record Witness(Map<Reference, Value> values) {
  public Witness {
    values = Collections.unmodifiableMap(new LinkedHashMap<>(values));
  }

  /** Each value as text, by what formulas call it; NULL is empty. */
  public Map<String, String> texts() {
    Map<String, String> texts = new LinkedHashMap<>();
    values.forEach(
        (reference, value) ->
            texts.put(reference.name(), value instanceof Value.Null ? "" : Evaluator.show(value)));
    return texts;
  }
}
