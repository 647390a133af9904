package joiner.compare;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.expression.Formula;
import joiner.meaning.OriginWords;
import joiner.meaning.TypeWords;
import joiner.model.ChoiceId;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Generator;
import joiner.model.Limits;
import joiner.model.Origin;
import joiner.model.Stamp;
import joiner.model.Table;

/** Tells what became of one field. */
final class FieldEffects {
  private final Table table;
  private final Field before;
  private final Field after;
  private final List<Effect> effects = new ArrayList<>();

  private FieldEffects(Table table, Field before, Field after) {
    this.table = table;
    this.before = before;
    this.after = after;
  }

  static List<Effect> of(Table table, Field before, Field after) {
    var field = new FieldEffects(table, before, after);
    field.add();
    return field.effects;
  }

  private void add() {
    String what = table.label() + " · " + before.label();
    if (!before.name().equals(after.name())) {
      tell(
          Effect.Kind.FIELD_RENAMED,
          Risk.REWRITES,
          what + " is named " + after.name() + " in the database, before " + before.name() + ".");
    }
    if (!before.label().equals(after.label())) {
      tell(Effect.Kind.FIELD_RENAMED, Risk.NONE, what + " is called " + after.label() + ".");
    }
    if (before.type() instanceof FieldType.Choice old
        && after.type() instanceof FieldType.Choice now) {
      choices(what, old, now);
    } else if (!before.type().equals(after.type())) {
      changed(
          TypeChange.risk(before.type(), after.type()),
          what
              + " holds "
              + TypeWords.of(after.type())
              + ", before "
              + TypeWords.of(before.type())
              + ".");
    }
    demands(what);
    if (!before.description().equals(after.description())) {
      changed(Risk.NONE, what + " has another note.");
    }
    if (!before.unit().equals(after.unit())) {
      changed(
          Risk.NONE,
          after.unit().isEmpty()
              ? what + " has no unit any more."
              : what + " is in " + after.unit() + "; its values stay as they are.");
    }
    if (!before.extras().equals(after.extras())) {
      changed(Risk.NONE, what + " has other properties that Joiner keeps for others.");
    }
  }

  private void choices(String what, FieldType.Choice old, FieldType.Choice now) {
    Map<ChoiceId, FieldType.Choice.Entry> left = new LinkedHashMap<>();
    old.entries().forEach(entry -> left.put(entry.id(), entry));
    for (FieldType.Choice.Entry entry : now.entries()) {
      FieldType.Choice.Entry was = left.remove(entry.id());
      if (was == null) {
        changed(Risk.ADDS, what + " may be " + entry.text() + ".");
      } else {
        choice(what, was, entry);
      }
    }
    left.values().forEach(gone -> changed(Risk.REFUSES, what + " may not be " + gone.text() + "."));
    if (old.grows() != now.grows()) {
      changed(
          Risk.NONE,
          what + " has choices that " + (now.grows() ? "grow with the rows." : "do not grow."));
    }
    var stay = new ArrayList<>(old.entries().stream().map(FieldType.Choice.Entry::id).toList());
    List<ChoiceId> come = now.entries().stream().map(FieldType.Choice.Entry::id).toList();
    stay.retainAll(come);
    if (!stay.equals(come.stream().filter(stay::contains).toList())) {
      changed(Risk.NONE, what + " lists its choices in another order.");
    }
  }

  private void choice(String what, FieldType.Choice.Entry was, FieldType.Choice.Entry is) {
    if (!was.text().equals(is.text())) {
      changed(Risk.REWRITES, what + " calls " + was.text() + " now " + is.text() + ".");
    }
    if (was.retired() != is.retired()) {
      changed(
          Risk.NONE,
          what + " offers " + is.text() + (is.retired() ? " no more; rows keep it." : " again."));
    }
    if (!was.description().equals(is.description()) || !was.hue().equals(is.hue())) {
      changed(Risk.NONE, what + " says something else of " + is.text() + ".");
    }
  }

  private void demands(String what) {
    if (before.required() != after.required()) {
      changed(
          after.required() ? Risk.REFUSES : Risk.NONE,
          what + " is " + (after.required() ? "required." : "optional."));
    }
    if (!before.defaultValue().equals(after.defaultValue())) {
      String value =
          after.defaultValue().map(Formula::text).map(t -> "the default " + t).orElse("no default");
      changed(Risk.NONE, what + " has " + value + ".");
    }
    if (!before.origin().equals(after.origin())) {
      origin(what);
    }
    if (!before.limits().equals(after.limits())) {
      boolean looser = after.limits().equals(Limits.NONE);
      changed(
          looser ? Risk.NONE : Risk.REFUSES,
          what + (looser ? " has no limits any more." : " has other limits."));
    }
  }

  private void origin(String what) {
    switch (after.origin()) {
      case Origin.Computed(Formula formula) ->
          changed(
              before.isComputed() ? Risk.REWRITES : Risk.LOSES,
              what + " is worked out: " + formula.text() + ".");
      case Origin.SummedUp summed ->
          changed(
              before.isComputed() ? Risk.REWRITES : Risk.LOSES,
              what + " is summed up over the rows that refer to it.");
      case Origin.Typed(boolean once) ->
          changed(
              Risk.NONE,
              what
                  + (once
                      ? " is entered once and stays."
                      : before.isComputed()
                          ? " is entered, and worked out no more."
                          : " is entered, as people like."));
      case Origin.Generated(Generator by) ->
          changed(Risk.NONE, what + " is made for new rows: " + OriginWords.of(by) + ".");
      case Origin.Copied(Formula formula) ->
          changed(Risk.NONE, what + " is filled in when a row is made: " + formula.text() + ".");
      case Origin.Stamped(Stamp stamp) ->
          changed(Risk.NONE, what + " says " + OriginWords.of(stamp) + ".");
    }
  }

  private void changed(Risk risk, String message) {
    tell(Effect.Kind.FIELD_CHANGED, risk, message);
  }

  private void tell(Effect.Kind kind, Risk risk, String message) {
    effects.add(
        new Effect(kind, Optional.of(table.name()), Optional.of(before.name()), risk, message));
  }
}
