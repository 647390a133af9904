package joiner.compare;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.expression.Formula;
import joiner.finding.TypeWords;
import joiner.model.Field;
import joiner.model.Limits;
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
    if (!before.type().equals(after.type())) {
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
    if (!before.extras().equals(after.extras())) {
      changed(Risk.NONE, what + " has other properties that Joiner keeps for others.");
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
    if (!before.limits().equals(after.limits())) {
      boolean looser = after.limits().equals(Limits.NONE);
      changed(
          looser ? Risk.NONE : Risk.REFUSES,
          what + (looser ? " has no limits any more." : " has other limits."));
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
