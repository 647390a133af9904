package joiner.meaning;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import joiner.expression.Reference;
import joiner.expression.Scope;
import joiner.model.Field;
import joiner.model.OwnField;
import joiner.model.Table;

/** The names that formulas of one table may use: its fields. */
final class TableScope implements Scope {
  private final String label;
  private final Map<String, Reference> exact = new LinkedHashMap<>();
  private final Map<String, Reference> folded = new LinkedHashMap<>();

  TableScope(Table table) {
    this.label = table.label();
    for (Field field : table.fields()) {
      var own = OwnField.of(field);
      exact.put(own.name(), own);
      folded.putIfAbsent(own.name().toLowerCase(Locale.ROOT), own);
    }
  }

  @Override
  public String label() {
    return label;
  }

  @Override
  public Collection<String> names() {
    return exact.keySet();
  }

  @Override
  public Optional<Reference> find(String name) {
    return Optional.ofNullable(exact.get(name))
        .or(() -> Optional.ofNullable(folded.get(name.toLowerCase(Locale.ROOT))));
  }
}
