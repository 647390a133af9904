package joiner.desktop.shape;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Progress;
import joiner.desktop.work.Workbench;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * Something worked out in the background for each field of the shown table, and after a change only
 * for fields for which something changed.
 *
 * @param <T> what is worked out
 */
final class ByField<T> {
  private final Workbench bench;
  private final Reasons reasons;
  private final Computed<Question, Map<Reason, T>> worked;
  private Map<FieldId, Reason> asked = Map.of();

  /** All that the result for a field hangs on: equal reasons have equal results. */
  record Reason(TableId table, FieldId field, Object hangsOn) {}

  /** What results hang on. */
  interface Reasons {
    /** What the result for a field hangs on; empty: there is none. Quick. */
    Optional<Object> of(Draft draft, Table table, Field field);
  }

  private record Question(Draft draft, Map<FieldId, Reason> reasons) {}

  /** An object that equals itself only; rows and tables are not compared by what they hold. */
  record Same(Object object) {
    @Override
    public boolean equals(Object other) {
      return other instanceof Same that && object == that.object;
    }

    @Override
    public int hashCode() {
      return System.identityHashCode(object);
    }
  }

  /** What a field that is worked out hangs on besides the rows. */
  static Same workedOutIn(Draft draft, Table table) {
    boolean fromHere = table.fields().stream().noneMatch(other -> other.origin().reachesOut());
    return fromHere ? new Same(table) : new Same(draft.design());
  }

  /** What it is worked out from. */
  record Input(Draft draft, Table table, Field field) {}

  /**
   * Of no table yet.
   *
   * @param title what is being done, as people read it
   */
  ByField(Workbench bench, String title, Reasons reasons, BiFunction<Input, Progress, T> work) {
    this.bench = bench;
    this.reasons = reasons;
    this.worked =
        new Computed<>(
            bench.runner(),
            title,
            Lane.WORKING,
            (left, right) -> left.reasons.equals(right.reasons),
            (question, progress) -> work(question, work, progress));
  }

  private Map<Reason, T> work(
      Question question, BiFunction<Input, Progress, T> work, Progress progress) {
    Map<Reason, T> known = worked.answer().latest().orElseGet(Map::of);
    Map<Reason, T> found = new HashMap<>();
    for (Reason reason : question.reasons.values()) {
      Table table = question.draft.design().table(reason.table());
      T before = known.get(reason);
      found.put(
          reason,
          before != null
              ? before
              : work.apply(
                  new Input(question.draft, table, table.field(reason.field())), progress));
    }
    return found;
  }

  /** Told when something is known. */
  void whenKnown(Runnable then) {
    worked.answerProperty().subscribe(answer -> then.run());
  }

  /** Says whether somebody looks. */
  void look(boolean now) {
    worked.look(now);
  }

  /** Turns to a table as it is now. */
  void turnTo(Table table) {
    Map<FieldId, Reason> wanted = new HashMap<>();
    for (Field field : table.fields()) {
      reasons
          .of(bench.draft(), table, field)
          .ifPresent(on -> wanted.put(field.id(), new Reason(table.id(), field.id(), on)));
    }
    asked = wanted;
    worked.ask(new Question(bench.draft(), wanted));
  }

  /** The result for a field; empty while it is worked out, or where there is none. */
  Optional<T> of(FieldId field) {
    return Optional.ofNullable(asked.get(field))
        .flatMap(reason -> worked.answer().latest().map(found -> found.get(reason)));
  }
}
