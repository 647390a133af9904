package joiner.edit;

import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.Noun;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.NamingPolicy;

/** Changes what a table says of itself; its fields and rows stay. */
public record ChangeTable(String name, TableId table, UnaryOperator<Table> change) implements Edit {

  /**
   * Gives a table another label, and the name and nouns that go with it as long as nobody chose
   * others.
   */
  public static ChangeTable relabel(Design design, Table table, String label) {
    var taken = new java.util.HashSet<String>();
    design.tables().stream().filter(t -> t != table).forEach(t -> taken.add(t.name()));
    boolean derivedName = isDerived(table.name(), NamingPolicy.nameFor(table.label()));
    boolean derivedNoun = table.noun().equals(Noun.ofLabel(table.label()));
    return rename(
        table,
        derivedName ? NamingPolicy.free(NamingPolicy.nameFor(label), taken) : table.name(),
        label,
        derivedNoun ? Noun.ofLabel(label) : table.noun());
  }

  /** Whether a name is the derived one, perhaps with a number that made it free. */
  private static boolean isDerived(String name, String derived) {
    return name.equals(derived) || name.matches(java.util.regex.Pattern.quote(derived) + "_\\d+");
  }

  /** Gives a table other names. */
  public static ChangeTable rename(Table table, String name, String label, Noun noun) {
    return new ChangeTable(
        "rename " + table.label() + " to " + label,
        table.id(),
        t -> t.withNames(name, label, noun));
  }

  /** Moves a table to another area. */
  public static ChangeTable area(Table table, String area) {
    return new ChangeTable(
        "move " + table.label() + " to " + area, table.id(), t -> t.withArea(area));
  }

  /** Says by which fields a row is identified. */
  public static ChangeTable primaryKey(Table table, List<FieldId> key) {
    String fields = key.isEmpty() ? "nothing" : String.join(" and ", table.labelsOf(key));
    return new ChangeTable(
        "identify " + table.label() + " by " + fields, table.id(), t -> t.withPrimaryKey(key));
  }

  /** Says how people recognise a row. */
  public static ChangeTable rowLabel(Table table, Optional<Formula> rowLabel) {
    return new ChangeTable(
        "change the row label of " + table.label(), table.id(), t -> t.withRowLabel(rowLabel));
  }

  /** Says what the table is for. */
  public static ChangeTable kind(Table table, TableKind kind) {
    return new ChangeTable(
        "change what " + table.label() + " is for", table.id(), t -> t.withKind(kind));
  }

  /** Adds an index. */
  public static ChangeTable addIndex(Table table, Index index) {
    return new ChangeTable(
        "index " + String.join(", ", table.labelsOf(index.fields())) + " of " + table.label(),
        table.id(),
        t -> t.withIndexAdded(index));
  }

  /** Removes an index. */
  public static ChangeTable removeIndex(Table table, Index index) {
    return new ChangeTable(
        "remove the index " + index.name(),
        table.id(),
        t -> t.withIndexes(t.indexes().stream().filter(i -> !i.equals(index)).toList()));
  }

  /** Adds a rule. */
  public static ChangeTable addRule(Table table, Rule rule) {
    return new ChangeTable(
        "add the rule " + rule.label(), table.id(), t -> t.withRules(append(t.rules(), rule)));
  }

  /** Puts a changed rule in the place of the one of that name. */
  public static ChangeTable changeRule(Table table, String name, Rule rule) {
    return new ChangeTable(
        "change the rule " + rule.label(),
        table.id(),
        t -> t.withRules(t.rules().stream().map(r -> r.name().equals(name) ? rule : r).toList()));
  }

  /** Removes a rule. */
  public static ChangeTable removeRule(Table table, Rule rule) {
    return new ChangeTable(
        "remove the rule " + rule.label(),
        table.id(),
        t -> t.withRules(t.rules().stream().filter(r -> !r.name().equals(rule.name())).toList()));
  }

  private static <T> List<T> append(List<T> list, T last) {
    var longer = new java.util.ArrayList<>(list);
    longer.add(last);
    return longer;
  }

  @Override
  public Draft apply(Draft draft) {
    Table changed = change.apply(draft.design().table(table));
    boolean taken =
        draft
            .design()
            .tableNamed(changed.name())
            .filter(other -> !other.id().equals(table))
            .isPresent();
    if (taken) {
      throw new EditRefusedException(
          "There is another table " + changed.name() + "; choose another name.");
    }
    if (changed.name().isBlank()) {
      throw new EditRefusedException("A table needs a name; type one.");
    }
    return draft.withDesign(draft.design().withTable(table, t -> changed));
  }
}
