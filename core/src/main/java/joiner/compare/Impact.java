package joiner.compare;

import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import joiner.audit.Audit;
import joiner.audit.KnownAudit;
import joiner.audit.Violation;
import joiner.edit.Edit;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.Problem;
import joiner.expression.Value;
import joiner.expression.ValueType;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Table;

/**
 * What an edit would do, before it is made.
 *
 * @param effects what it changes, then what it breaks
 * @param kept how many rows of the tables it touches stay as they are or with other values
 */
public record Impact(List<Effect> effects, long kept) {
  public Impact {
    effects = List.copyOf(effects);
  }

  /**
   * What an edit would do to a draft, without looking whether its rows keep the design.
   *
   * @throws joiner.edit.EditRefusedException if the edit is refused
   */
  public static Impact of(Edit edit, Draft before) {
    return of(before, edit.apply(before));
  }

  private static Impact of(Draft before, Draft after) {
    var effects = new ArrayList<>(Effects.between(before, after));
    effects.addAll(brokenFormulas(before, after));
    return new Impact(effects, kept(before, after));
  }

  /**
   * What an edit would do to a draft and to whether its rows keep the design; rules are looked at
   * with that clock. Linear in all rows.
   *
   * @throws joiner.edit.EditRefusedException if the edit is refused
   */
  public static Impact of(Edit edit, Draft before, Clock clock) {
    return of(before, edit.apply(before), clock);
  }

  /** What leads from one draft to another, and to rows that no longer keep the design. */
  static Impact of(Draft before, Draft after, Clock clock) {
    Impact impact = of(before, after);
    var effects = new ArrayList<>(impact.effects());
    effects.addAll(brokenRows(before, after, clock));
    return new Impact(effects, impact.kept());
  }

  private static long kept(Draft before, Draft after) {
    long kept = 0;
    for (Table table : after.design().tables()) {
      if (before.design().find(table.id()).filter(old -> old != table).isPresent()) {
        kept += Math.min(before.rows().of(table.id()).count(), after.rows().of(table.id()).count());
      }
    }
    return kept;
  }

  private static List<Effect> brokenFormulas(Draft before, Draft after) {
    var broken = new ArrayList<Effect>();
    for (Table table : after.design().tables()) {
      Optional<Table> old = before.design().find(table.id()).filter(was -> was != table);
      if (old.isPresent()) {
        Map<String, Checked> known = formulas(before.meaning().of(old.get()));
        formulas(after.meaning().of(table))
            .forEach(
                (name, now) -> {
                  if (now instanceof Checked.Faulty faulty
                      && known.get(name) instanceof Checked.Sound) {
                    broken.add(
                        new Effect(
                            Effect.Kind.FORMULA_BROKEN,
                            Optional.of(old.get().name()),
                            Optional.empty(),
                            Risk.REFUSES,
                            name
                                + " of "
                                + old.get().label()
                                + " can no longer be read: "
                                + faulty.problems().getFirst().message()));
                  }
                });
      }
    }
    return broken;
  }

  private static Checked asFormula(Constraint.Ruled ruled) {
    var sound =
        new Checked.Sound(
            new Expression.Literal(Value.TRUE, Kind.BOOLEAN, Place.NOWHERE),
            ValueType.of(Kind.BOOLEAN));
    return ruled
        .fault()
        .<Checked>map(why -> new Checked.Faulty(List.of(new Problem(Place.NOWHERE.span(), why))))
        .orElse(sound);
  }

  /** The formulas of a table by what they are. */
  private static Map<String, Checked> formulas(TableMeaning meaning) {
    Map<String, Checked> formulas = new LinkedHashMap<>();
    meaning
        .ruled()
        .forEach(ruled -> formulas.put("The rule " + ruled.rule().label(), asFormula(ruled)));
    meaning.rowLabel().ifPresent(label -> formulas.put("The row label", label));
    for (Field field : meaning.table().fields()) {
      meaning
          .defaultOf(field.id())
          .ifPresent(value -> formulas.put("The default of " + field.label(), value));
    }
    return formulas;
  }

  /** What the audit finds that it did not find before; only what the edit touches is looked at. */
  private static List<Effect> brokenRows(Draft before, Draft after, Clock clock) {
    BooleanSupplier never = () -> false;
    var known = new KnownAudit();
    Set<Violation> old =
        Audit.of(before, clock, known, never).violations().collect(Collectors.toSet());
    return Audit.of(after, clock, known, never)
        .violations()
        .filter(violation -> !old.contains(violation))
        .map(violation -> broken(after.design().table(violation.table()), violation))
        .toList();
  }

  private static Effect broken(Table table, Violation violation) {
    return new Effect(
        Effect.Kind.ROWS_BROKEN,
        Optional.of(table.name()),
        violation.fields().stream().findFirst().map(f -> table.field(f).name()),
        Risk.REFUSES,
        table.label() + ": " + violation.message());
  }
}
