package joiner.compare;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Collectors;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.Rows;

/**
 * Tells what another state of a design has otherwise, in sentences. Things are the same ones if
 * they have the same id. Linear in fields and cells.
 */
public final class Differences {
  private final Draft ours;
  private final Draft theirs;
  private final List<String> found = new ArrayList<>();

  private Differences(Draft ours, Draft theirs) {
    this.ours = ours;
    this.theirs = theirs;
  }

  /** What theirs has otherwise than ours; empty: nothing. */
  public static List<String> between(Draft ours, Draft theirs) {
    return new Differences(ours, theirs).run();
  }

  private List<String> run() {
    Design before = ours.design();
    Design after = theirs.design();
    if (!before.title().equals(after.title())) {
      found.add("The design is called " + after.title() + ", here " + before.title() + ".");
    }
    pairs(
        before.tables(),
        after.tables(),
        Table::id,
        table -> found.add("The table " + table.label() + " is there, here it is not."),
        table -> found.add("The table " + table.label() + " is not there, here it is."),
        this::table);
    pairs(
        before.relationships(),
        after.relationships(),
        Relationship::id,
        r -> found.add("The relationship " + r.name() + " is there, here it is not."),
        r -> found.add("The relationship " + r.name() + " is not there, here it is."),
        (left, right) -> {
          if (!left.equals(right)) {
            found.add("The relationship " + right.name() + " is another one.");
          }
        });
    if (found.isEmpty() && !before.equals(after)) {
      found.add("The order or the notes of the design are others.");
    }
    return List.copyOf(found);
  }

  private interface One<T> {
    void tell(T thing);
  }

  private interface Two<T> {
    void tell(T left, T right);
  }

  private static <T> void pairs(
      Collection<T> left,
      Collection<T> right,
      Function<T, Object> id,
      One<T> added,
      One<T> gone,
      Two<T> both) {
    Map<Object, T> before =
        left.stream()
            .collect(Collectors.toMap(id, thing -> thing, (a, b) -> a, LinkedHashMap::new));
    for (T thing : right) {
      T known = before.remove(id.apply(thing));
      if (known == null) {
        added.tell(thing);
      } else {
        both.tell(known, thing);
      }
    }
    before.values().forEach(gone::tell);
  }

  private void table(Table before, Table after) {
    String name = after.label();
    if (!before.label().equals(after.label()) || !before.name().equals(after.name())) {
      found.add("The table " + before.label() + " is called " + name + ".");
    }
    pairs(
        before.fields(),
        after.fields(),
        Field::id,
        field -> found.add(name + " has the field " + field.label() + ", here it has not."),
        field -> found.add(name + " has not the field " + field.label() + ", here it has."),
        (left, right) -> field(name, left, right));
    if (!sameBesideFields(before, after)) {
      found.add("Keys, rules, indexes or notes of " + name + " are others.");
    }
    rows(before, after);
  }

  private static boolean sameBesideFields(Table before, Table after) {
    return before.primaryKey().equals(after.primaryKey())
        && before.uniqueKeys().equals(after.uniqueKeys())
        && before.indexes().equals(after.indexes())
        && before.rules().equals(after.rules())
        && before.rowLabel().equals(after.rowLabel())
        && before.kind().equals(after.kind())
        && before.area().equals(after.area())
        && before.noun().equals(after.noun())
        && before.description().equals(after.description());
  }

  private void field(String table, Field before, Field after) {
    var other = new ArrayList<String>();
    differ(other, "name", before.name(), after.name());
    differ(other, "label", before.label(), after.label());
    differ(other, "type", before.type(), after.type());
    differ(other, "whether it is required", before.required(), after.required());
    differ(other, "default", before.defaultValue(), after.defaultValue());
    differ(other, "limits", before.limits(), after.limits());
    differ(other, "note", before.description(), after.description());
    if (!other.isEmpty()) {
      found.add(table + " · " + before.label() + " has another " + String.join(", ", other) + ".");
    }
  }

  private static void differ(List<String> other, String what, Object before, Object after) {
    if (!Objects.equals(before, after)) {
      other.add(what);
    }
  }

  private void rows(Table before, Table after) {
    Rows here = ours.rows().of(before.id());
    Rows there = theirs.rows().of(after.id());
    if (here.count() != there.count()) {
      found.add(
          after.label()
              + " has "
              + Counts.of(there.count(), "row", "rows")
              + ", here "
              + Counts.of(here.count())
              + ".");
      return;
    }
    long cells = 0;
    for (Field field : after.fields()) {
      boolean known = before.hasField(field.id());
      if (known && !here.identity(field.id()).equals(there.identity(field.id()))) {
        for (int row = 0; row < here.count(); row++) {
          cells += here.cell(row, field.id()).equals(there.cell(row, field.id())) ? 0 : 1;
        }
      }
    }
    if (cells > 0) {
      found.add(
          after.label()
              + ": "
              + Counts.of(cells, "cell is another", "cells are others")
              + " there.");
    }
  }
}
