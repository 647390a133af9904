package joiner.change;

import java.util.List;
import java.util.Optional;
import joiner.expression.Formula;
import joiner.model.AreaId;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.KnownFact;
import joiner.model.Listing;
import joiner.model.Noun;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.model.UniqueKey;

/** What a table says beside its fields; each part as in {@link Table}. */
public record TableFacts(
    String name,
    String label,
    Noun noun,
    String icon,
    String description,
    Optional<AreaId> area,
    TableKind kind,
    List<FieldId> primaryKey,
    List<UniqueKey> uniqueKeys,
    List<Index> indexes,
    Optional<Formula> rowLabel,
    List<Rule> rules,
    List<FieldGroup> groups,
    Listing listing,
    List<KnownFact> facts,
    Extras extras) {
  public TableFacts {
    primaryKey = List.copyOf(primaryKey);
    uniqueKeys = List.copyOf(uniqueKeys);
    indexes = List.copyOf(indexes);
    rules = List.copyOf(rules);
    groups = List.copyOf(groups);
    facts = List.copyOf(facts);
  }

  static TableFacts of(Table table) {
    return new TableFacts(
        table.name(),
        table.label(),
        table.noun(),
        table.icon(),
        table.description(),
        table.area(),
        table.kind(),
        table.primaryKey(),
        table.uniqueKeys(),
        table.indexes(),
        table.rowLabel(),
        table.rules(),
        table.groups(),
        table.listing(),
        table.facts(),
        table.extras());
  }

  Table with(TableId id, List<Field> fields) {
    return new Table(
        id,
        name,
        label,
        noun,
        icon,
        description,
        area,
        kind,
        fields,
        primaryKey,
        uniqueKeys,
        indexes,
        rowLabel,
        rules,
        groups,
        listing,
        facts,
        extras);
  }
}
