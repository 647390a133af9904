package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import joiner.audit.Anomaly;
import joiner.audit.AuditReport;
import joiner.audit.Hint;
import joiner.audit.Violation;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Failure;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Verdict;
import joiner.desktop.work.Workbench;
import joiner.edit.HandOver;
import joiner.entry.Mends;
import joiner.meaning.Draft;
import joiner.meaning.Links;
import joiner.meaning.ParentRows;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.rows.Rows;

/** What the face Audit is about, without a window: what in the rows breaks the design. */
final class AuditModel {
  private static final int MOST_OFFERED = 200;

  private final Workbench bench;
  private Optional<Line> chosen = Optional.empty();

  /**
   * Something about rows of a table: what breaks it, a hint, or why they could not be read.
   *
   * @param violation what breaks it, if that is what it says
   * @param anomaly what is said again and again, if that is what it says
   * @param rows their numbers, from 1; none where they could not be read, or none show it
   */
  record Line(
      TableId table,
      List<FieldId> fields,
      String message,
      List<Integer> rows,
      Optional<Violation> violation,
      Optional<SaidAgain.Told> anomaly) {
    Line {
      fields = List.copyOf(fields);
      rows = List.copyOf(rows);
    }

    static Line of(Violation v) {
      return new Line(
          v.table(), v.fields(), v.message(), v.rows(), Optional.of(v), Optional.empty());
    }

    static Line of(Hint h) {
      return new Line(
          h.table(), List.of(h.field()), h.message(), h.rows(), Optional.empty(), Optional.empty());
    }

    static Line of(AuditReport.Unread unread) {
      return new Line(
          unread.table(),
          List.of(),
          unread.message(),
          List.of(),
          Optional.empty(),
          Optional.empty());
    }

    /** Whether it says that rows could not be read. */
    boolean isUnread() {
      return rows.isEmpty() && violation.isEmpty() && anomaly.isEmpty();
    }

    Optional<Violation.Kind> kind() {
      return violation.map(Violation::kind);
    }

    /** Whether it speaks of the same as one of an audit before. */
    private boolean isAbout(Line before) {
      return table.equals(before.table)
          && fields.equals(before.fields)
          && kind().equals(before.kind())
          && anomaly.isPresent() == before.anomaly.isPresent();
    }
  }

  /** What there is to show. */
  sealed interface Shown {
    /** Lines, and the one that is looked at. */
    record Lines(List<Line> lines, Line chosen, Verdict.State state, long clean) implements Shown {}

    /** Nothing was found as yet, for it is being looked. */
    record Looking() implements Shown {}

    /** The audit failed. */
    record Failed(String why) implements Shown {}

    /** Everything is as it should be. */
    record Clean() implements Shown {}

    /** There are no rows. */
    record NoRows() implements Shown {}
  }

  /** What is wrong, of which draft, and in which rows it is to be put right. */
  private record Asked(Draft draft, Violation violation, List<Integer> rows) {
    boolean isAs(Asked other) {
      return draft == other.draft && violation.equals(other.violation) && rows.equals(other.rows);
    }
  }

  /** The one row that is to be put right; empty: all alike. */
  private Optional<Integer> only = Optional.empty();

  /**
   * How rows can be put right.
   *
   * @param rows which, by their numbers from 1
   * @param elsewhere rows that could point to any other
   */
  record Ways(
      Draft draft,
      Violation violation,
      List<Integer> rows,
      List<Mends.Mend> mends,
      Optional<Mends.Elsewhere> elsewhere) {}

  /**
   * How many rows find what they refer to.
   *
   * @param referring rows that refer to something
   * @param found those of them that find it
   */
  record Up(Relationship over, int referring, int found) {}

  /** The tables that rows of a table refer to, those that rows do not find first. */
  record Above(Draft draft, TableId table, List<Up> ups) {}

  private record Of(Draft draft, TableId table) {
    boolean isAs(Of other) {
      return draft == other.draft && table.equals(other.table);
    }
  }

  private final Computed<Of, Above> above;
  private final Computed<Asked, Ways> ways;
  private final SaidAgain saidAgain;
  private final Texts texts;

  AuditModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    this.above =
        new Computed<>(
            bench.runner(),
            texts.get("ways.working"),
            Lane.WORKING,
            Of::isAs,
            (of, progress) -> above(of));
    this.saidAgain = new SaidAgain(bench, texts);
    this.ways =
        new Computed<>(
            bench.runner(),
            texts.get("ways.working"),
            Lane.WORKING,
            Asked::isAs,
            (asked, progress) -> {
              List<Integer> rows = asked.rows;
              return new Ways(
                  asked.draft,
                  asked.violation,
                  rows,
                  Mends.of(asked.draft, asked.violation, rows, bench.clock()),
                  Mends.elsewhere(asked.draft, asked.violation, rows, bench.clock()));
            });
  }

  ReadOnlyObjectProperty<Answer<Ways>> waysProperty() {
    return ways.answerProperty();
  }

  private static Above above(Of of) {
    Rows rows = of.draft.rows().of(of.table);
    var links = new Links(of.draft);
    var ups = new ArrayList<Up>();
    for (Relationship over : of.draft.design().parentsOf(of.table)) {
      int[] parents = links.parents(over);
      int referring = 0;
      int found = 0;
      for (int row = 0; row < rows.count(); row++) {
        int at = row;
        boolean refers =
            over.childFields().stream().allMatch(field -> rows.cell(at, field).isPresent());
        referring += refers ? 1 : 0;
        found += refers && parents[row] != Links.NONE ? 1 : 0;
      }
      ups.add(new Up(over, referring, found));
    }
    ups.sort(Comparator.comparing(up -> up.found == up.referring));
    return new Above(of.draft, of.table, List.copyOf(ups));
  }

  ReadOnlyObjectProperty<Answer<Above>> aboveProperty() {
    return above.answerProperty();
  }

  /** What rows of a table refer to, as far as it is known and true now. */
  List<Up> above(TableId table) {
    above.ask(new Of(bench.draft(), table));
    return above.answer().current().filter(a -> a.draft == bench.draft()).stream()
        .filter(a -> a.table.equals(table))
        .flatMap(a -> a.ups.stream())
        .toList();
  }

  /** What is said again and again. */
  SaidAgain saidAgain() {
    return saidAgain;
  }

  void look(boolean now) {
    ways.look(now);
    saidAgain.look(now);
    above.look(now);
  }

  private Line line(SaidAgain.Told told) {
    Anomaly anomaly = told.anomaly();
    return new Line(
        anomaly.table(),
        anomaly.fields(),
        saidAgain.message(told),
        told.rows(),
        Optional.empty(),
        Optional.of(told));
  }

  /** Looks for ways to put something right, once the audit is of the design as it stands. */
  void seek(Violation violation) {
    if (bench.verdict().isCurrent()) {
      ways.ask(new Asked(bench.draft(), violation, rows(violation)));
    }
  }

  /** The rows that are to be put right. */
  List<Integer> rows(Violation violation) {
    return only.filter(violation.rows()::contains).map(List::of).orElse(violation.rows());
  }

  /** Puts one row right from now on, or all alike. */
  void only(Optional<Integer> row) {
    only = row;
  }

  /** The ways for that, as far as they are known and true now. */
  Optional<Ways> ways(Violation violation) {
    return ways.answer()
        .current()
        .filter(w -> w.draft == bench.draft() && w.violation.equals(violation))
        .filter(w -> w.rows.equals(rows(violation)));
  }

  /** Puts rows right, once it was seen what follows where that reaches far. */
  void mend(Mends.Mend mend) {
    bench.propose(mend::edit, () -> {});
  }

  /** Rows that could be pointed to. */
  Offers<ParentRows.Parent> takers(Mends.Elsewhere elsewhere) {
    ParentRows parents = ParentRows.of(bench.draft(), elsewhere.over(), bench.clock());
    return typed ->
        parents.meantBy(typed, MOST_OFFERED).stream()
            .map(
                parent ->
                    new Offers.Offer<>(
                        parent, parent.label(), String.join(" · ", parent.shown()), ""))
            .toList();
  }

  /** Lets rows point to another row. */
  void point(Mends.Elsewhere elsewhere, ParentRows.Parent to) {
    Rows parents = bench.draft().rows().of(elsewhere.over().parent());
    String what = Counts.of(elsewhere.rows().size(), "row", "rows") + " to " + to.label();
    bench.propose(
        () -> new HandOver(what, elsewhere.over().id(), elsewhere.rows(), parents.id(to.row())),
        () -> {});
  }

  /** What there is to show now. */
  Shown shown() {
    Verdict verdict = bench.verdict();
    var lines = new ArrayList<Line>();
    verdict.audit().unread().forEach(u -> lines.add(Line.of(u)));
    verdict.audit().violations().forEach(v -> lines.add(Line.of(v)));
    verdict.audit().hints().forEach(h -> lines.add(Line.of(h)));
    saidAgain.told().forEach(told -> lines.add(line(told)));
    lines.removeIf(line -> !isThere(line));
    if (lines.isEmpty()) {
      return switch (verdict.state()) {
        case CHECKING -> new Shown.Looking();
        case FAILED -> new Shown.Failed(verdict.failure().map(Failure::message).orElse(""));
        case CURRENT -> !bench.draft().rows().isEmpty() ? new Shown.Clean() : new Shown.NoRows();
      };
    }
    Line now = again(lines);
    chosen = Optional.of(now);
    return new Shown.Lines(List.copyOf(lines), now, verdict.state(), clean(verdict));
  }

  /** A line of an earlier audit may speak of what is not there any more. */
  boolean isThere(Line line) {
    return bench.design().has(line.table(), line.fields());
  }

  /** What was looked at before, else something of the chosen table, else the first. */
  private Line again(List<Line> lines) {
    Optional<TableId> table = bench.selectionProperty().get().table();
    return chosen
        .flatMap(before -> lines.stream().filter(line -> line.isAbout(before)).findFirst())
        .or(
            () ->
                lines.stream().filter(line -> table.equals(Optional.of(line.table()))).findFirst())
        .orElse(lines.getFirst());
  }

  private static long clean(Verdict verdict) {
    return verdict.audit().tables().stream()
        .filter(t -> t.violations().isEmpty() && t.hints().isEmpty())
        .count();
  }

  /** Looks at a line; the other stages follow. */
  void choose(Line line) {
    chosen = Optional.of(line);
    bench
        .selectionProperty()
        .set(
            line.fields().isEmpty()
                ? Selection.of(line.table())
                : Selection.of(line.table(), line.fields().getFirst()));
  }
}
