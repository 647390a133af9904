package joiner.meaning;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.expression.Expression.Comparison;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Limits;
import joiner.model.Table;
import joiner.naming.ConstraintNaming;
import joiner.rows.ReadValue;
import joiner.rows.ValueReader;
import joiner.shape.TextPattern;

/** Finds what a field's type and limits demand of its values. */
final class FieldConstraints {
  private final Table table;
  private final Field field;
  private final List<Constraint.OfField> found = new ArrayList<>();

  private FieldConstraints(Table table, Field field) {
    this.table = table;
    this.field = field;
  }

  static List<Constraint.OfField> of(Table table, Field field) {
    var constraints = new FieldConstraints(table, field);
    constraints.add();
    return List.copyOf(constraints.found);
  }

  private void add() {
    found.add(new Constraint.OfType(name("type"), field));
    boolean listed =
        field.type() instanceof FieldType.Choice(var entries, var g) && !entries.isEmpty();
    if (!listed) { // A list allows no longer value than its longest.
      OptionalInt most = field.type().length();
      most.ifPresent(n -> found.add(new Constraint.Longest(name("most_length"), field, n)));
    }
    boolean secret = field.type() instanceof FieldType.Secret; // No row here has one.
    if (table.isRequired(field.id()) && !secret) {
      found.add(new Constraint.Required(name("required"), field));
    }
    if (field.type() instanceof FieldType.Choice choice) {
      list(choice.values());
    }
    if (field.type() instanceof FieldType.Content content) {
      content(content);
    }
    Limits limits = field.limits();
    list(limits.allowed());
    for (Comparison side : Limits.SIDES) {
      limits.bound(side).ifPresent(text -> bound(side, text));
    }
    limits.pattern().ifPresent(this::pattern);
    limits
        .minLength()
        .ifPresent(least -> found.add(new Constraint.Shortest(name("length"), field, least)));
  }

  private void content(FieldType.Content content) {
    if (content.mostBytes() < Integer.MAX_VALUE) {
      found.add(new Constraint.MostBytes(name("bytes"), field, content.mostBytes()));
    }
    if (!content.media().isEmpty()) {
      found.add(new Constraint.OfMedia(name("media"), field, content.media()));
    }
  }

  private String name(String what) {
    return ConstraintNaming.check(table.name(), field.name(), what);
  }

  private void list(List<String> texts) {
    if (texts.isEmpty()) {
      return;
    }
    var values = new LinkedHashSet<Value>();
    texts.forEach(text -> values.add(ValueReader.valueOrNull(Optional.of(text), field.type())));
    found.add(new Constraint.Listed(name("choices"), field, texts, values));
  }

  private void bound(Comparison side, String text) {
    Optional<Value> bound =
        ValueReader.bound(text, field.type()) instanceof ReadValue.Fits fits
            ? Optional.of(fits.value())
            : Optional.empty();
    found.add(new Constraint.Bounded(name(Conditions.bound(side)), field, side, text, bound));
  }

  private void pattern(String text) {
    found.add(new Constraint.Matching(name("pattern"), field, text, TextPattern.of(text)));
  }
}
