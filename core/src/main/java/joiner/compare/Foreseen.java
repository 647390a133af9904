package joiner.compare;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import joiner.edit.Edit;
import joiner.finding.DesignChecks;
import joiner.finding.Finding;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.Counts;
import joiner.naming.WordList;
import joiner.rows.Rows;

/**
 * An edit that was tried on a draft and not made: what there is today, what there would be then.
 *
 * @param after the draft as it would be
 * @param impact what the edit does, and what it breaks
 * @param lines counts of what is touched, today and then
 * @param findings what the design check would find that it does not find now
 * @param back what taking it back by hand would lose; empty where only undo leads back
 * @param living fields that go while what they say lives on elsewhere, as rows of a join table or
 *     as links the other way round
 */
public record Foreseen(
    Edit edit,
    Draft before,
    Draft after,
    Impact impact,
    List<Line> lines,
    List<Finding> findings,
    Optional<String> back,
    Set<FieldOfTable> living) {
  public Foreseen {
    living = Set.copyOf(living);
    lines = List.copyOf(lines);
    findings = List.copyOf(findings);
  }

  /** A field of a table, by their names. */
  public record FieldOfTable(String table, String field) {}

  /** Whether an effect is that a field goes whose values live on. */
  public boolean livesOn(Effect effect) {
    return effect.kind() == Effect.Kind.FIELD_REMOVED
        && living.contains(new FieldOfTable(effect.table().orElse(""), effect.field().orElse("")));
  }

  /**
   * A count of something.
   *
   * @param today empty where it is not there
   * @param then likewise
   * @param becomes what becomes of it, in a few words
   * @param loses whether something goes for good
   */
  public record Line(
      String what, Optional<Long> today, Optional<Long> then, String becomes, boolean loses) {}

  /**
   * Looks at an edit that was tried. Linear in all rows.
   *
   * @param after what it made of the draft
   * @param clock for rules that read it
   */
  public static Foreseen of(Edit edit, Draft before, Draft after, Clock clock) {
    Impact impact = Impact.of(before, after, clock);
    Set<String> known = new HashSet<>();
    DesignChecks.run(before).forEach(finding -> known.add(finding.id() + finding.message()));
    List<Finding> findings =
        DesignChecks.run(after).stream()
            .filter(finding -> !known.contains(finding.id() + finding.message()))
            .toList();
    var counted = new Counted(before, after, new HashSet<>());
    return new Foreseen(
        edit,
        before,
        after,
        impact,
        counted.lines(),
        findings,
        WayBack.of(edit, before, after),
        counted.living());
  }

  /** How often rows refer to others, as far as they are here. */
  static long links(Draft draft) {
    return draft.design().relationships().stream()
        .mapToLong(r -> Counted.links(draft, r).orElse(0L))
        .sum();
  }

  /** Counts of what differs between two drafts. */
  static List<Line> counts(Draft before, Draft after) {
    return new Counted(before, after, new HashSet<>()).lines();
  }

  /** Whether a table goes with what its rows hold. */
  public boolean losesTable() {
    boolean goes =
        before.design().tables().stream()
            .anyMatch(table -> after.design().find(table.id()).isEmpty());
    return goes && lines.stream().anyMatch(Line::loses);
  }

  /** The tables that are there today and are touched, in the order of the design. */
  public List<TableId> touchedToday() {
    return touched(before, after);
  }

  /** The tables that would be there and are touched. */
  public List<TableId> touchedThen() {
    return touched(after, before);
  }

  private static List<TableId> touched(Draft here, Draft there) {
    Set<TableId> ends = new LinkedHashSet<>();
    for (Relationship r : here.design().relationships()) {
      if (!there.design().find(r.id()).equals(Optional.of(r))) {
        ends.add(r.child());
        ends.add(r.parent());
      }
    }
    return here.design().tables().stream()
        .filter(
            table ->
                ends.contains(table.id())
                    || !Objects.equals(there.design().find(table.id()).orElse(null), table))
        .map(Table::id)
        .toList();
  }

  /**
   * Counts of two drafts.
   *
   * @param living filled with the fields whose values live on
   */
  private record Counted(Draft before, Draft after, Set<FieldOfTable> living) {
    List<Line> lines() {
      var lines = new ArrayList<Line>();
      for (Relationship r : before.design().relationships()) {
        Optional<Relationship> now = after.design().find(r.id());
        if (!now.equals(Optional.of(r))) {
          links(r, now, lines);
        }
      }
      for (Relationship r : after.design().relationships()) {
        if (before.design().find(r.id()).isEmpty()) {
          add(lines, says(after, r), Optional.empty(), links(after, r), "new", false);
        }
      }
      for (Table table : before.design().tables()) {
        table(table, after.design().find(table.id()), lines);
      }
      for (Table table : after.design().tables()) {
        if (before.design().find(table.id()).isEmpty()) {
          Optional<Long> rows = Optional.of((long) after.rows().of(table.id()).count());
          add(lines, "Rows of " + table.label(), Optional.empty(), rows, "a new table", false);
        }
      }
      return lines;
    }

    private void links(Relationship r, Optional<Relationship> now, List<Line> lines) {
      Optional<Long> today = links(before, r);
      if (now.isPresent()) {
        Optional<Long> then = links(after, now.get());
        String becomes = today.equals(then) ? "all stay, under other words or keys" : "";
        add(lines, says(before, r), today, then, becomes, isLess(then, today));
        return;
      }
      Optional<Table> join = heir(r);
      boolean turned = join.isEmpty() && turned(r);
      if (join.isPresent() || turned) {
        Table child = before.design().table(r.child());
        r.childFields()
            .forEach(f -> living.add(new FieldOfTable(child.name(), child.field(f).name())));
      }
      String becomes =
          join.map(table -> "each becomes a row of " + table.label())
              .orElse(
                  turned ? "all kept the other way round" : "the relationship goes" + valuesOf(r));
      add(lines, says(before, r), today, Optional.empty(), becomes, false);
    }

    /** Whether the values by which rows refer stay without the relationship. */
    private String valuesOf(Relationship r) {
      boolean stay =
          after
              .design()
              .find(r.child())
              .filter(child -> child.fieldIds().containsAll(r.childFields()))
              .isPresent();
      return stay ? ", its values stay" : "";
    }

    /** A new join table that has a row for each link, and no other. */
    private Optional<Table> heir(Relationship r) {
      return after.design().tables().stream()
          .filter(table -> before.design().find(table.id()).isEmpty())
          .filter(table -> table.kind() instanceof TableKind.Join join && joins(join, r))
          .filter(table -> pairs(table).equals(pairs(r)))
          .findFirst();
    }

    private boolean joins(TableKind.Join join, Relationship r) {
      return after.design().find(join.first()).filter(f -> f.parent().equals(r.child())).isPresent()
          && after
              .design()
              .find(join.second())
              .filter(s -> s.parent().equals(r.parent()))
              .isPresent();
    }

    private Set<List<Optional<String>>> pairs(Table join) {
      var kind = (TableKind.Join) join.kind();
      var fields = new ArrayList<>(after.design().relationship(kind.first()).childFields());
      fields.addAll(after.design().relationship(kind.second()).childFields());
      return tuples(after.rows().of(join.id()), fields);
    }

    private Set<List<Optional<String>>> pairs(Relationship r) {
      var fields = new ArrayList<>(before.design().table(r.child()).primaryKey());
      fields.addAll(r.childFields());
      Set<List<Optional<String>>> pairs = tuples(before.rows().of(r.child()), fields);
      pairs.removeIf(pair -> pair.stream().anyMatch(Optional::isEmpty));
      return pairs;
    }

    private static Set<List<Optional<String>>> tuples(Rows rows, List<FieldId> fields) {
      Set<List<Optional<String>>> tuples = new HashSet<>();
      for (int row = 0; row < rows.count(); row++) {
        tuples.add(rows.row(row, fields));
      }
      return tuples;
    }

    /** Whether a new relationship ties the same tables from the other side, as often. */
    private boolean turned(Relationship r) {
      return after.design().relationships().stream()
          .anyMatch(
              other ->
                  before.design().find(other.id()).isEmpty()
                      && other.child().equals(r.parent())
                      && other.parent().equals(r.child())
                      && links(after, other).equals(links(before, r)));
    }

    /** How many rows refer; empty where they stay in a file. */
    private static Optional<Long> links(Draft draft, Relationship r) {
      if (draft.rows().link(r.child()).isPresent()) {
        return Optional.empty();
      }
      Rows rows = draft.rows().of(r.child());
      long count = 0;
      for (int row = 0; row < rows.count(); row++) {
        int place = row;
        count +=
            r.childFields().stream().allMatch(field -> rows.cell(place, field).isPresent()) ? 1 : 0;
      }
      return Optional.of(count);
    }

    private static String says(Draft draft, Relationship r) {
      return "Links from "
          + draft.design().table(r.child()).noun().singular()
          + " to "
          + draft.design().table(r.parent()).noun().singular();
    }

    private void table(Table table, Optional<Table> now, List<Line> lines) {
      Optional<Long> today = Optional.of((long) before.rows().of(table.id()).count());
      if (now.isEmpty()) {
        add(lines, "Rows of " + table.label(), today, Optional.empty(), "the table goes", true);
        return;
      }
      boolean sameRows = sameCells(table, now.get());
      if (now.get() == table && sameRows) {
        return;
      }
      Optional<Long> then = Optional.of((long) after.rows().of(table.id()).count());
      if (!today.equals(then) || !sameRows) {
        boolean less = isLess(then, today);
        String becomes =
            less ? "rows go" : today.equals(then) ? "as many, with other values" : "rows come";
        add(lines, "Rows of " + table.label(), today, then, becomes, less);
      }
      fields(table, now.get(), lines);
    }

    /** Whether the rows hold the same in all fields that stay. */
    private boolean sameCells(Table table, Table now) {
      Rows old = before.rows().of(table.id());
      Rows then = after.rows().of(table.id());
      if (old == then || old.count() != then.count()) {
        return old == then;
      }
      for (FieldId field : table.fieldIds()) {
        for (int row = 0; now.hasField(field) && row < old.count(); row++) {
          if (!old.cell(row, field).equals(then.cell(row, field))) {
            return false;
          }
        }
      }
      return true;
    }

    private void fields(Table table, Table now, List<Line> lines) {
      boolean lives =
          table.fields().stream()
              .filter(field -> !now.hasField(field.id()))
              .allMatch(f -> living.contains(new FieldOfTable(table.name(), f.name())));
      List<String> gone = others(table, now);
      List<String> come = others(now, table);
      if (!gone.isEmpty() || !come.isEmpty()) {
        var becomes = new ArrayList<String>();
        if (!gone.isEmpty()) {
          String goes = gone.size() == 1 ? " goes" : " go";
          becomes.add(WordList.and(gone) + goes + (lives ? ", what it says lives on" : ""));
        }
        if (!come.isEmpty()) {
          becomes.add(WordList.and(come) + (come.size() == 1 ? " comes" : " come"));
        }
        add(
            lines,
            "Fields of " + table.label(),
            Optional.of((long) table.fields().size()),
            Optional.of((long) now.fields().size()),
            String.join(", ", becomes),
            !gone.isEmpty() && !lives && holds(table, now));
      }
    }

    /** Whether a field that goes has values. */
    private boolean holds(Table table, Table now) {
      Rows rows = before.rows().of(table.id());
      return table.fields().stream()
          .filter(field -> !now.hasField(field.id()))
          .anyMatch(field -> rows.has(field.id()));
    }

    private static List<String> others(Table of, Table than) {
      List<String> others =
          of.fields().stream().filter(f -> !than.hasField(f.id())).map(Field::label).toList();
      int shown = 4;
      if (others.size() <= shown) {
        return others;
      }
      var some = new ArrayList<>(others.subList(0, shown - 1));
      some.add(Counts.of(others.size() - shown + 1, "other", "others"));
      return some;
    }

    private static boolean isLess(Optional<Long> one, Optional<Long> other) {
      return one.isPresent() && other.isPresent() && one.get() < other.get();
    }

    private static void add(
        List<Line> lines,
        String what,
        Optional<Long> today,
        Optional<Long> then,
        String becomes,
        boolean loses) {
      lines.add(new Line(what, today, then, becomes, loses));
    }
  }
}
