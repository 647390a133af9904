package joiner.desktop.prove;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyObjectProperty;
import joiner.audit.Anomalies;
import joiner.audit.Anomaly;
import joiner.audit.Anomaly.Disagreement;
import joiner.audit.Anomaly.Said;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeTable;
import joiner.edit.SplitOff;
import joiner.entry.Settling;
import joiner.entry.Settling.Settled;
import joiner.meaning.Draft;
import joiner.meaning.ParentRows;
import joiner.model.FieldId;
import joiner.model.KnownFact;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.rows.Rows;

/** What rows say again and again, where somebody knows it or all rows show it; and what follows. */
final class SaidAgain {
  /**
   * Something that is said again and again, as people read it.
   *
   * @param who what decides, in the rows that say it twice; empty where none do
   * @param what what it decides there
   * @param last what decides in the row with which all is gone; empty where there is none
   * @param rows that show it, from 1
   * @param disputes where rows contradict it, the first ones
   * @param byMost how many rows change when each says what most others say
   */
  record Told(
      Anomaly anomaly,
      String who,
      String what,
      String last,
      List<Integer> rows,
      List<Dispute> disputes,
      int byMost) {
    /** How many disputes there are beyond those that are told. */
    int further() {
      return anomaly.disagreements().size() - disputes.size();
    }
  }

  /**
   * Rows that disagree, as people read it.
   *
   * @param who what decides in them
   * @param said what they say, in the order of the disagreement
   */
  record Dispute(Disagreement of, String who, List<String> said) {}

  private static final int MOST_DISPUTES = 3;

  /** What is said again and again in the rows of a draft. */
  private record Repeated(Draft draft, List<Told> told) {}

  private final Workbench bench;
  private final Texts texts;
  private final Computed<Draft, Repeated> repeated;

  SaidAgain(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    this.repeated =
        new Computed<>(
            bench.runner(),
            texts.get("anomaly.working"),
            Lane.WORKING,
            (one, other) -> one == other,
            (draft, progress) ->
                new Repeated(
                    draft,
                    Anomalies.of(draft, progress::stopped).stream()
                        .map(anomaly -> new Names(draft, anomaly, bench.clock()).told())
                        .toList()));
    repeated.look(false); // It takes long, and nobody may look.
  }

  /** Tells when something else is known. */
  ReadOnlyObjectProperty<? extends Answer<?>> changedProperty() {
    return repeated.answerProperty();
  }

  void look(boolean now) {
    repeated.look(now);
    if (now) {
      repeated.ask(bench.draft());
    }
  }

  /** As far as it is known of the rows as they are. */
  List<Told> told() {
    repeated.ask(bench.draft());
    return current().stream().flatMap(r -> r.told.stream()).toList();
  }

  /** Whether it is known of the rows as they are. */
  boolean isLooked() {
    return current().isPresent();
  }

  private Optional<Repeated> current() {
    return repeated.answer().current().filter(r -> r.draft == bench.draft());
  }

  /** What is the matter, in a sentence. */
  String message(Told told) {
    Anomaly anomaly = told.anomaly;
    Table table = bench.design().table(anomaly.table());
    String fact = anomaly.fact().words(table);
    if (!anomaly.disagreements().isEmpty()) {
      return texts.get("anomaly.message.disputed", fact, Counts.of(told.rows.size()));
    }
    return texts.get("anomaly.message", fact, table.noun().singular());
  }

  /** Splits a table, once it was seen what follows. */
  void split(Anomaly anomaly) {
    bench.propose(() -> anomaly.split(bench.draft()), () -> {});
  }

  /** Keeps in the design what decides what, or that it does not. */
  void know(TableId table, KnownFact fact) {
    bench.apply(ChangeTable.know(bench.design().table(table), fact));
  }

  /** Says no longer whether it is so. */
  void forget(TableId table, KnownFact fact) {
    bench.apply(ChangeTable.forget(bench.design().table(table), fact));
  }

  /** Lets all rows of a dispute say what some of them say. */
  void settle(Told told, Dispute dispute, Said said) {
    Settled settled = Settling.with(bench.draft(), told.anomaly, dispute.of, said);
    bench.propose(settled::edit, () -> {});
  }

  /** Lets rows say what most of those that are decided by the same say. */
  void settleByMost(Told told) {
    Settling.byMost(bench.draft(), told.anomaly)
        .ifPresent(settled -> bench.propose(settled::edit, () -> {}));
  }

  /** What fields of rows hold; people read names of rows, not keys. */
  private static final class Names {
    private final Anomaly anomaly;
    private final Rows rows;
    private final Optional<ParentRows> byParents;
    private final Optional<ParentRows> ofParents;

    Names(Draft draft, Anomaly anomaly, Clock clock) {
      this.anomaly = anomaly;
      this.rows = draft.rows().of(anomaly.table());
      this.byParents = parents(draft, anomaly.table(), anomaly.determinant(), clock);
      this.ofParents = parents(draft, anomaly.table(), anomaly.dependents(), clock);
    }

    private static Optional<ParentRows> parents(
        Draft draft, TableId table, List<FieldId> fields, Clock clock) {
      return SplitOff.refers(draft.design(), table, fields)
          .map(over -> ParentRows.of(draft, over, clock));
    }

    Told told() {
      Optional<Integer> first = anomaly.update().stream().findFirst();
      return new Told(
          anomaly,
          first.map(this::who).orElse(""),
          first.map(this::what).orElse(""),
          anomaly.delete().isPresent() ? who(anomaly.delete().getAsInt()) : "",
          anomaly.numbers(),
          anomaly.disagreements().stream().limit(MOST_DISPUTES).map(this::dispute).toList(),
          anomaly.disagreements().stream()
              .mapToInt(of -> of.most().map(of::others).orElse(0))
              .sum());
    }

    private Dispute dispute(Disagreement of) {
      return new Dispute(
          of,
          who(of.rows().getFirst()),
          of.said().stream().map(said -> what(said.rows().getFirst())).toList());
    }

    private String who(int row) {
      return named(byParents, row, anomaly.determinant());
    }

    private String what(int row) {
      return named(ofParents, row, anomaly.dependents());
    }

    private String named(Optional<ParentRows> parents, int row, List<FieldId> fields) {
      return parents
          .flatMap(all -> all.find(rows, row))
          .map(ParentRows.Parent::label)
          .orElseGet(
              () ->
                  fields.stream()
                      .map(field -> rows.cell(row, field).orElse("–"))
                      .collect(Collectors.joining(" · ")));
    }
  }
}
