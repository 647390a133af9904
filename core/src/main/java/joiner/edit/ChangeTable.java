package joiner.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.meaning.Renaming;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.GroupId;
import joiner.model.Index;
import joiner.model.IndexId;
import joiner.model.KnownFact;
import joiner.model.Listing;
import joiner.model.Noun;
import joiner.model.Rule;
import joiner.model.RuleId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.NamingPolicy;

/** Changes what a table says of itself; its rows stay. */
public record ChangeTable(String name, TableId table, To to) implements Edit {

  /** What the table becomes. */
  public sealed interface To {
    /** The table as it becomes. */
    Table of(Table table);
  }

  private record Named(String name, String label, Noun noun) implements To {
    @Override
    public Table of(Table table) {
      return table.withNames(name, label, noun);
    }
  }

  private record Described(String description) implements To {
    @Override
    public Table of(Table table) {
      return table.withDescription(description);
    }
  }

  private record Pictured(String icon) implements To {
    @Override
    public Table of(Table table) {
      return table.withIcon(icon);
    }
  }

  private record IdentifiedBy(List<FieldId> key) implements To {
    @Override
    public Table of(Table table) {
      return table.withPrimaryKey(key);
    }
  }

  private record Recognised(Optional<Formula> rowLabel) implements To {
    @Override
    public Table of(Table table) {
      return table.withRowLabel(rowLabel);
    }
  }

  private record OfKind(TableKind kind) implements To {
    @Override
    public Table of(Table table) {
      return table.withKind(kind);
    }
  }

  private record Indexed(Index index) implements To {
    @Override
    public Table of(Table table) {
      return table.withIndexAdded(index);
    }
  }

  private record IndexedOtherwise(Index index) implements To {
    @Override
    public Table of(Table table) {
      return table.withIndexes(
          table.indexes().stream().map(i -> i.id().equals(index.id()) ? index : i).toList());
    }
  }

  private record NotIndexed(IndexId index) implements To {
    @Override
    public Table of(Table table) {
      return table.withIndexes(
          table.indexes().stream().filter(i -> !i.id().equals(index)).toList());
    }
  }

  private record Ruled(Rule rule) implements To {
    @Override
    public Table of(Table table) {
      return table.withRuleAdded(rule);
    }
  }

  private record RuledOtherwise(Rule rule) implements To {
    @Override
    public Table of(Table table) {
      return table.withRules(
          table.rules().stream().map(r -> r.id().equals(rule.id()) ? rule : r).toList());
    }
  }

  private record NotRuled(RuleId rule) implements To {
    @Override
    public Table of(Table table) {
      return table.withRules(table.rules().stream().filter(r -> !r.id().equals(rule)).toList());
    }
  }

  private record Listed(Listing listing) implements To {
    @Override
    public Table of(Table table) {
      return table.withListing(listing);
    }
  }

  private record Known(KnownFact fact) implements To {
    @Override
    public Table of(Table table) {
      return table.withFact(fact);
    }
  }

  private record NotKnown(KnownFact fact) implements To {
    @Override
    public Table of(Table table) {
      return table.withoutFact(fact);
    }
  }

  private record Grouped(List<FieldGroup> groups) implements To {
    @Override
    public Table of(Table table) {
      return table.withGroups(groups);
    }
  }

  private record PutTogether(FieldGroup group) implements To {
    @Override
    public Table of(Table table) {
      var order = new ArrayList<>(table.fieldIds());
      int first = order.indexOf(group.fields().getFirst());
      order.removeAll(group.fields());
      order.addAll(first, group.fields());
      return table.withFields(order.stream().map(table::field).toList()).withGroupAdded(group);
    }
  }

  private record InOrder(List<FieldId> fields) implements To {
    @Override
    public Table of(Table table) {
      return table.withFields(fields.stream().map(table::field).toList());
    }
  }

  private record Counted(Field counter) implements To {
    @Override
    public Table of(Table table) {
      var fields = new ArrayList<>(List.of(counter));
      fields.addAll(table.fields());
      return table.withFields(fields).withPrimaryKey(List.of(counter.id()));
    }
  }

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
        "rename " + table.label() + " to " + label, table.id(), new Named(name, label, noun));
  }

  /** Says by which fields a row is identified. */
  public static ChangeTable primaryKey(Table table, List<FieldId> key) {
    String fields = key.isEmpty() ? "nothing" : String.join(" and ", table.labelsOf(key));
    return new ChangeTable(
        "identify " + table.label() + " by " + fields,
        table.id(),
        new IdentifiedBy(List.copyOf(key)));
  }

  /** Says how people recognise a row. */
  public static ChangeTable rowLabel(Table table, Optional<Formula> rowLabel) {
    return new ChangeTable(
        "change the row label of " + table.label(), table.id(), new Recognised(rowLabel));
  }

  /** Says what the table is for. */
  public static ChangeTable kind(Table table, TableKind kind) {
    return new ChangeTable(
        "change what " + table.label() + " is for", table.id(), new OfKind(kind));
  }

  /** Adds an index. */
  public static ChangeTable addIndex(Table table, Index index) {
    return new ChangeTable(
        "index " + String.join(", ", table.labelsOf(index.fields())) + " of " + table.label(),
        table.id(),
        new Indexed(index));
  }

  /** Removes an index. */
  public static ChangeTable removeIndex(Table table, Index index) {
    return new ChangeTable(
        "remove the index " + index.name(), table.id(), new NotIndexed(index.id()));
  }

  /** Adds a rule. */
  public static ChangeTable addRule(Table table, Rule rule) {
    return new ChangeTable("add the rule " + rule.label(), table.id(), new Ruled(rule));
  }

  /** Puts a changed rule in the place of the one with its id. */
  public static ChangeTable changeRule(Table table, Rule rule) {
    return new ChangeTable("change the rule " + rule.label(), table.id(), new RuledOtherwise(rule));
  }

  /** Removes a rule. */
  public static ChangeTable removeRule(Table table, Rule rule) {
    return new ChangeTable("remove the rule " + rule.label(), table.id(), new NotRuled(rule.id()));
  }

  /** Gives a table another picture; none where it is empty. */
  public static ChangeTable icon(Table table, String icon) {
    return new ChangeTable("picture " + table.label(), table.id(), new Pictured(icon));
  }

  /** Lets an index of a table have its fields in another order or direction. */
  public static ChangeTable index(Table table, Index index) {
    return new ChangeTable(
        "change the index " + index.name(), table.id(), new IndexedOtherwise(index));
  }

  /** Gives a table another note. */
  public static ChangeTable description(Table table, String description) {
    return new ChangeTable(
        "change the description of " + table.label(), table.id(), new Described(description));
  }

  /** Moves a field of a table to another place, counted from 0. */
  public static ChangeTable move(Table table, Field field, int place) {
    var fields = new ArrayList<>(table.fieldIds());
    fields.remove(field.id());
    fields.add(place, field.id());
    return new ChangeTable("move " + field.label(), table.id(), new InOrder(List.copyOf(fields)));
  }

  /** Lists the fields of a table in another order. */
  public static ChangeTable order(Table table, String what, List<FieldId> fields) {
    return new ChangeTable("move " + what, table.id(), new InOrder(List.copyOf(fields)));
  }

  /** Lets fields be read as one thing; they come together where the first of them stands. */
  public static ChangeTable group(Table table, List<FieldId> fields, String label) {
    var together = new FieldGroup(new GroupId(label), label, "", inOrder(table, fields));
    return new ChangeTable("group " + label, table.id(), new PutTogether(together));
  }

  private static List<FieldId> inOrder(Table table, List<FieldId> fields) {
    return table.fieldIds().stream().filter(fields::contains).toList();
  }

  /**
   * Lists the rows of a table otherwise for whoever enters them.
   *
   * @param what the change, as people call it
   */
  public static ChangeTable list(Table table, String what, Listing listing) {
    return new ChangeTable(what, table.id(), new Listed(listing));
  }

  /** Keeps what somebody knows of the business: what decides what, or does not. */
  public static ChangeTable know(Table table, KnownFact fact) {
    return new ChangeTable("say that " + fact.words(table), table.id(), new Known(fact));
  }

  /** Says no longer whether some fields decide others. */
  public static ChangeTable forget(Table table, KnownFact fact) {
    return new ChangeTable(
        "say no longer that " + fact.words(table), table.id(), new NotKnown(fact));
  }

  /** Calls a group otherwise. */
  public static ChangeTable renameGroup(Table table, GroupId group, String label) {
    return new ChangeTable(
        "call the group " + label,
        table.id(),
        new Grouped(
            table.groups().stream()
                .map(there -> there.id().equals(group) ? there.withLabel(label) : there)
                .toList()));
  }

  /** Lets the fields of a group stand each for itself again. */
  public static ChangeTable ungroup(Table table, FieldGroup group) {
    return new ChangeTable(
        "ungroup " + group.label(),
        table.id(),
        new Grouped(
            table.groups().stream().filter(there -> !there.id().equals(group.id())).toList()));
  }

  /** Gives a table a counter as its first field and primary key; its rows have no value in it. */
  static ChangeTable counted(Table table, Field counter) {
    return new ChangeTable(
        "identify " + table.label() + " by a counter", table.id(), new Counted(counter));
  }

  /** The same change under another name. */
  public ChangeTable called(String other) {
    return new ChangeTable(other, table, to);
  }

  @Override
  public Draft apply(Draft draft) {
    Table changed = to.of(draft.design().table(table));
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
    Design before = draft.design();
    Design after = before.withTable(table, t -> changed);
    boolean renamed = !before.table(table).name().equals(changed.name());
    return draft.withDesign(renamed ? Renaming.carry(before, after) : after);
  }
}
