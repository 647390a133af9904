package joiner.compare;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.Function;
import joiner.change.TableFacts;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.expression.Kernel;
import joiner.expression.Scope;
import joiner.meaning.DemandWords;
import joiner.meaning.Draft;
import joiner.meaning.Renaming;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.KnownFact;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.UniqueKey;

/** Tells what became of what a table says beside its fields. */
final class TableEffects {
  private final Draft before;
  private final Draft after;
  private final Table old;
  private final Table now;
  private final List<Effect> effects = new ArrayList<>();

  private TableEffects(Draft before, Draft after, TableId id) {
    this.before = before;
    this.after = after;
    this.old = before.design().table(id);
    this.now = after.design().table(id);
  }

  /** What became of a table of two drafts, which says something else than before. */
  static List<Effect> of(Draft one, Draft other, TableId id, TableFacts before, TableFacts after) {
    var table = new TableEffects(one, other, id);
    table.names(before, after);
    table.keys(before, after);
    table.indexes(before, after);
    table.rules(before, after);
    table.rest(before, after);
    return table.effects;
  }

  private void names(TableFacts before, TableFacts after) {
    if (!before.name().equals(after.name())) {
      tell(
          Effect.Kind.TABLE_RENAMED,
          Risk.REWRITES,
          before.label()
              + " is named "
              + after.name()
              + " in the database, before "
              + before.name()
              + ".");
    }
    if (!before.label().equals(after.label())) {
      tell(
          Effect.Kind.TABLE_RENAMED,
          Risk.NONE,
          "The table " + before.label() + " is called " + after.label() + ".");
    }
  }

  private void keys(TableFacts before, TableFacts after) {
    if (!before.primaryKey().equals(after.primaryKey())) {
      tell(
          Effect.Kind.KEY_CHANGED,
          after.primaryKey().isEmpty() ? Risk.NONE : Risk.REFUSES,
          now.label()
              + " is identified by "
              + fields(now, after.primaryKey())
              + ", before by "
              + fields(old, before.primaryKey())
              + ".");
    }
    each(
        before.uniqueKeys(),
        after.uniqueKeys(),
        UniqueKey::id,
        key -> unique(Risk.REFUSES, now, key, " may occur once only."),
        key -> unique(Risk.NONE, old, key, " may repeat."),
        this::changedKey);
  }

  private void changedKey(UniqueKey one, UniqueKey other) {
    if (one.fields().equals(other.fields())) {
      String named = " are kept unique by " + other.name() + ", before by " + one.name() + ".";
      unique(Risk.NONE, now, other, named);
    } else {
      unique(Risk.REFUSES, now, other, " may occur once only; the key had other fields.");
    }
  }

  private void unique(Risk risk, Table table, UniqueKey key, String says) {
    tell(Effect.Kind.KEY_CHANGED, risk, table.label() + ": " + fields(table, key.fields()) + says);
  }

  private void indexes(TableFacts before, TableFacts after) {
    each(
        before.indexes(),
        after.indexes(),
        Index::id,
        index -> index(Risk.ADDS, index, " is added."),
        index -> index(Risk.NONE, index, " is removed."),
        this::changedIndex);
  }

  private void changedIndex(Index one, Index other) {
    if (!one.descending().equals(other.descending()) && one.fields().equals(other.fields())) {
      index(Risk.ADDS, other, " stands in another direction.");
    } else if (one.fields().equals(other.fields())) {
      index(Risk.NONE, other, " was named " + one.name() + " before.");
    } else {
      index(Risk.ADDS, other, " is of other fields.");
    }
  }

  private void index(Risk risk, Index index, String says) {
    tell(
        Effect.Kind.INDEX_CHANGED, risk, "The index " + index.name() + " of " + now.label() + says);
  }

  private void rules(TableFacts before, TableFacts after) {
    each(
        before.rules(),
        after.rules(),
        Rule::id,
        rule -> rule(Risk.REFUSES, rule, " is added: " + words(rule)),
        rule -> rule(Risk.NONE, rule, " is removed."),
        this::changedRule);
  }

  private void changedRule(Rule one, Rule other) {
    if (!one.demand().equals(other.demand())) {
      boolean same = meansTheSame(one, other);
      rule(
          same ? Risk.NONE : Risk.REFUSES,
          other,
          (same ? " is written anew and means the same: " : " becomes: ") + words(other));
    }
    if (!one.name().equals(other.name())) {
      String named = " is named " + other.name() + " in the database, before " + one.name() + ".";
      rule(Risk.NONE, other, named);
    }
    if (!one.label().equals(other.label()) || !one.message().equals(other.message())) {
      rule(Risk.NONE, other, " has other words.");
    }
  }

  /** Whether the condition as it was, with the names of now, says what is said now. */
  private boolean meansTheSame(Rule one, Rule other) {
    if (one.condition().isEmpty() || other.condition().isEmpty()) {
      return false;
    }
    Formula carried = Renaming.carry(one.condition().get(), before.design(), old, after.design());
    Scope scope = after.meaning().of(now).scope();
    return carried.equals(other.condition().get())
        || (carried.condition(scope) instanceof Checked.Sound was
            && other.condition().get().condition(scope) instanceof Checked.Sound is
            && Kernel.same(was.tree(), is.tree()));
  }

  private String words(Rule rule) {
    return DemandWords.of(after.design(), now, rule.demand());
  }

  private void rule(Risk risk, Rule rule, String says) {
    tell(Effect.Kind.RULE_CHANGED, risk, "The rule " + rule.label() + " of " + now.label() + says);
  }

  private void facts(List<KnownFact> before, List<KnownFact> after) {
    before.stream()
        .filter(fact -> !after.contains(fact))
        .forEach(
            fact -> say("Of " + old.label() + " it is not said that " + fact.words(old) + "."));
    after.stream()
        .filter(fact -> !before.contains(fact))
        .forEach(fact -> say("Of " + now.label() + " it is said that " + fact.words(now) + "."));
  }

  private void rest(TableFacts before, TableFacts after) {
    if (!before.rowLabel().equals(after.rowLabel())) {
      say(
          "A row of "
              + now.label()
              + " is recognised by "
              + after.rowLabel().map(Formula::text).orElse("nothing")
              + ".");
    }
    if (!before.icon().equals(after.icon())) {
      say(now.label() + " is pictured otherwise.");
    }
    if (!before.groups().equals(after.groups())) {
      say(now.label() + " reads its fields in other groups.");
    }
    if (!before.listing().equals(after.listing())) {
      say(now.label() + " lists its rows otherwise.");
    }
    facts(before.facts(), after.facts());
    if (!before.kind().equals(after.kind())) {
      say(now.label() + " is for another purpose.");
    }
    if (!before.noun().equals(after.noun())) {
      say("A row of " + now.label() + " is called " + after.noun().singular() + ".");
    }
    if (!before.area().equals(after.area())) {
      say(
          now.label()
              + (after
                  .area()
                  .map(area -> " stands in " + this.after.design().area(area).name() + ".")
                  .orElse(" stands in no area.")));
    }
    if (!before.description().equals(after.description())) {
      say(now.label() + " has another note.");
    }
    if (!before.extras().equals(after.extras())) {
      say(now.label() + " has other properties that Joiner keeps for others.");
    }
  }

  private void say(String message) {
    tell(Effect.Kind.TABLE_CHANGED, Risk.NONE, message);
  }

  private void tell(Effect.Kind kind, Risk risk, String message) {
    effects.add(new Effect(kind, Optional.of(old.name()), Optional.empty(), risk, message));
  }

  private static String fields(Table table, List<FieldId> fields) {
    return fields.isEmpty() ? "nothing" : String.join(" and ", table.labelsOf(fields));
  }

  /** Things with an id that came, went, or are others. */
  private static <T> void each(
      Collection<T> before,
      Collection<T> after,
      Function<T, Object> id,
      Consumer<T> came,
      Consumer<T> went,
      BiConsumer<T, T> changed) {
    Map<Object, T> left = new LinkedHashMap<>();
    before.forEach(thing -> left.put(id.apply(thing), thing));
    for (T thing : after) {
      T known = left.remove(id.apply(thing));
      if (known == null) {
        came.accept(thing);
      } else if (!known.equals(thing)) {
        changed.accept(known, thing);
      }
    }
    left.values().forEach(went);
  }
}
