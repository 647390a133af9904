package joiner.desktop.prove;

import java.time.Clock;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.IntFunction;
import java.util.stream.IntStream;
import joiner.deletion.Chain;
import joiner.deletion.Deletions;
import joiner.deletion.Outcome;
import joiner.desktop.prove.IfDeletedModel.Among;
import joiner.desktop.prove.IfDeletedModel.Input;
import joiner.desktop.prove.IfDeletedModel.Instead;
import joiner.desktop.prove.IfDeletedModel.Line;
import joiner.desktop.prove.IfDeletedModel.Row;
import joiner.desktop.prove.IfDeletedModel.Told;
import joiner.desktop.widget.Texts;
import joiner.edit.ChangeRows;
import joiner.edit.DeleteRows;
import joiner.edit.Edit;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.meaning.RowLabels;
import joiner.model.FieldId;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.Counts;
import joiner.naming.WordList;
import joiner.rows.RowId;
import joiner.rows.Rows;

/** Works out, off the window's thread, what a delete would do and what could be done instead. */
final class IfDeletedTelling {
  /** So many rows are offered by their labels. */
  private static final int MOST_OFFERED = 20_000;

  private static final int MOST_EXAMPLES = 4;

  private final Input input;
  private final Among among;
  private final Draft draft;
  private final Table table;
  private final Texts texts;
  private final Clock clock;
  private final Deletions deletions;
  private final FormulaRows values;
  private final Map<TableId, RowLabels> labels = new HashMap<>();

  IfDeletedTelling(Input input, Among among, Clock clock, Texts texts) {
    this.input = input;
    this.among = among;
    this.draft = among.draft();
    this.table = draft.design().table(input.table());
    this.texts = texts;
    this.clock = clock;
    this.deletions = new Deletions(draft, clock);
    this.values = new FormulaRows(draft, clock);
  }

  Told told() {
    boolean any = input.chosen().isEmpty();
    BitSet suppose = any ? worst() : places();
    Chain chain = Chain.of(draft, deletions, table.id(), suppose);
    List<Line> lines =
        suppose.isEmpty() ? List.of() : chain.steps().stream().map(this::line).toList();
    boolean refused = chain.outcome().verdict() == Outcome.Verdict.REFUSED || suppose.isEmpty();
    boolean live = input.of() instanceof RowsOf.Live; // Nothing is changed there.
    Optional<Edit> deletion =
        refused || live
            ? Optional.empty()
            : Optional.of(deletions.edit(lines.getFirst().example(), chain.outcome()));
    return new Told(
        draft,
        input.of(),
        !among.all(),
        table,
        suppose,
        any,
        chain,
        lines,
        rows(),
        deletion,
        live ? List.of() : instead(suppose, chain));
  }

  private BitSet worst() {
    var rows = new BitSet();
    deletions
        .worst(table.id(), Math.min(IfDeletedModel.MOST_LOOKED, among.first()))
        .ifPresent(rows::set);
    return rows;
  }

  private BitSet places() {
    var places = new BitSet();
    Rows rows = draft.rows().of(table.id());
    for (RowId id : input.chosen()) {
      OptionalInt place = rows.place(id);
      place.ifPresent(places::set);
    }
    return places;
  }

  private String label(TableId of, int row) {
    return labels
        .computeIfAbsent(of, id -> new RowLabels(draft.meaning().of(id), values, clock))
        .of(row);
  }

  private List<Row> rows() {
    Rows rows = draft.rows().of(table.id());
    IntFunction<Row> named = row -> new Row(rows.id(row), label(table.id(), row));
    return IntStream.range(0, Math.min(MOST_OFFERED, among.first())).mapToObj(named).toList();
  }

  private Line line(Chain.Step step) {
    Table of = draft.design().table(step.table());
    return new Line(
        step.depth(),
        of.label(),
        of.noun(),
        step.rows().cardinality(),
        step.fate(),
        happens(step),
        because(step),
        examples(step),
        step.by());
  }

  private String happens(Chain.Step step) {
    if (step.by().isEmpty()) {
      return texts.get("deleted.fate.first");
    }
    String key = "deleted.fate." + step.fate();
    return texts.get(key, draft.design().table(step.by().get().parent()).noun().singular());
  }

  private String because(Chain.Step step) {
    if (step.by().isEmpty()) {
      return texts.get("deleted.because.first");
    }
    Relationship by = step.by().get();
    Table child = draft.design().table(by.child());
    String fields = WordList.and(child.labelsOf(by.childFields()));
    boolean required = by.childFields().stream().allMatch(child::isRequired);
    String sort =
        by.onDelete() == ReferentialAction.SET_NULL && required
            ? "forbidden"
            : by.onDelete().name();
    return texts.get("deleted.because." + sort, fields);
  }

  private String examples(Chain.Step step) {
    List<String> some =
        step.rows().stream()
            .limit(MOST_EXAMPLES)
            .mapToObj(row -> label(step.table(), row))
            .toList();
    return String.join(", ", some) + (step.rows().cardinality() > MOST_EXAMPLES ? " …" : "");
  }

  private List<Instead> instead(BitSet suppose, Chain chain) {
    var all = new ArrayList<Instead>();
    retire(suppose).ifPresent(all::add);
    for (Chain.Step step : chain.steps()) {
      boolean refers = step.depth() == 1 && step.by().isPresent();
      if (refers && draft.rows().of(table.id()).count() > suppose.cardinality()) {
        all.add(handOver(step));
      }
      if (step.fate() == Chain.Fate.REFUSE) {
        first(step).ifPresent(all::add);
      }
    }
    return all;
  }

  /** Rows that are no longer offered stay as they are. */
  private Optional<Instead> retire(BitSet suppose) {
    if (suppose.isEmpty()
        || !(table.kind() instanceof TableKind.Lookup(var sort, Optional<FieldId> retired))
        || retired.isEmpty()) {
      return Optional.empty();
    }
    Rows rows = draft.rows().of(table.id());
    List<Edit> edits =
        suppose.stream()
            .<Edit>mapToObj(
                row ->
                    ChangeRows.cell(
                        table, rows, row, table.field(retired.get()), Optional.of("true")))
            .toList();
    String name = texts.get("deleted.retire.name", suppose.cardinality(), table.label());
    return Optional.of(
        new Instead.Now(
            texts.get("deleted.retire", table.field(retired.get()).label()),
            Edit.all(name, edits)));
  }

  private Instead handOver(Chain.Step step) {
    Relationship over = step.by().orElseThrow();
    Table child = draft.design().table(over.child());
    return new Instead.To(
        texts.get(
            "deleted.hand",
            Counts.of(step.rows().cardinality(), child.noun().singular(), child.noun().plural()),
            WordList.and(child.labelsOf(over.childFields())),
            table.noun().singular()),
        over,
        DeleteRows.ids(draft.rows().of(over.child()), step.rows()));
  }

  /** Those that stand against it are deleted first, where that can be done. */
  private Optional<Instead> first(Chain.Step step) {
    var outcome = deletions.of(step.table(), step.rows());
    if (outcome.verdict() == Outcome.Verdict.REFUSED) {
      return Optional.empty();
    }
    Table child = draft.design().table(step.table());
    String rows =
        Counts.of(step.rows().cardinality(), child.noun().singular(), child.noun().plural());
    return Optional.of(
        new Instead.Now(
            texts.get("deleted.before", rows, outcome.count()), deletions.edit(rows, outcome)));
  }
}
