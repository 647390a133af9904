package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Workbench;
import joiner.edit.EnterRows;
import joiner.entry.Entered;
import joiner.entry.Refusal;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.rows.RowId;
import joiner.rows.Rows;

/** The rows that refer to the open row, as they are typed. */
final class EnterBelow {
  private final EnterModel model;
  private final Workbench bench;
  private final Texts texts;

  /** Which rows refer to the open one, over each relationship. */
  private final Map<RelationshipId, List<RowId>> referring = new HashMap<>();

  private Optional<Draft> referringOf = Optional.empty();
  private Optional<RowId> referringTo = Optional.empty();

  EnterBelow(EnterModel model, Workbench bench, Texts texts) {
    this.model = model;
    this.bench = bench;
    this.texts = texts;
  }

  /** Relationships over which rows refer to those of the table, itself not among them. */
  List<Relationship> all() {
    return model.table().stream()
        .flatMap(table -> bench.design().childrenOf(table.id()).stream())
        .filter(r -> !r.isSelfReference())
        .filter(r -> bench.draft().rows().link(r.child()).isEmpty())
        .toList();
  }

  /** The rows that refer to the open row: those that are there as they are typed, then new ones. */
  List<Entered> rows(Relationship over) {
    List<Entered> typed = model.entered().details().getOrDefault(over.id(), List.of());
    var all = new ArrayList<Entered>();
    for (RowId id : referring(over)) {
      all.add(
          typed.stream()
              .filter(row -> row.row().equals(Optional.of(id)))
              .findFirst()
              .orElseGet(() -> Entered.changed(over.child(), id)));
    }
    typed.stream().filter(row -> row.row().isEmpty()).forEach(all::add);
    return all;
  }

  /** They are looked for once for a row of a draft, in time linear in the rows. */
  private List<RowId> referring(Relationship over) {
    boolean known =
        referringOf.filter(of -> of == bench.draft()).isPresent()
            && referringTo.equals(model.opened());
    if (!known) {
      referring.clear();
      referringOf = Optional.of(bench.draft());
      referringTo = model.opened();
    }
    return referring.computeIfAbsent(over.id(), id -> findReferring(over));
  }

  private List<RowId> findReferring(Relationship over) {
    if (model.opened().isEmpty()) {
      return List.of();
    }
    Rows children = bench.draft().rows().of(over.child());
    List<String> key =
        over.parentFields().stream()
            .map(f -> model.kept(Entered.changed(model.entered().table(), model.opened().get()), f))
            .toList();
    return IntStream.range(0, children.count())
        .filter(
            row ->
                IntStream.range(0, key.size())
                    .allMatch(
                        i ->
                            !key.get(i).isEmpty()
                                && children
                                    .cell(row, over.childFields().get(i))
                                    .filter(key.get(i)::equals)
                                    .isPresent()))
        .mapToObj(children::id)
        .toList();
  }

  /** What a cell of a row below holds as it is typed. */
  String text(Entered row, FieldId field) {
    String typed = row.cells().get(field);
    return typed != null ? typed : model.kept(row, field);
  }

  /** Types into a row below. */
  void type(Relationship over, int place, Map<FieldId, String> cells) {
    List<Entered> all = new ArrayList<>(rows(over));
    all.set(place, model.typed(all.get(place), cells));
    type(over, all);
  }

  /** Adds a row below. */
  void add(Relationship over) {
    List<Entered> all = new ArrayList<>(rows(over));
    all.add(Entered.added(over.child()));
    type(over, all);
  }

  /** Takes a new row below away again. */
  void remove(Relationship over, int place) {
    List<Entered> all = new ArrayList<>(rows(over));
    all.remove(place);
    type(over, all);
  }

  /** Rows below count where something is typed in them, or they are new. */
  private void type(Relationship over, List<Entered> all) {
    List<Entered> typed =
        all.stream().filter(row -> row.row().isEmpty() || !row.cells().isEmpty()).toList();
    Entered now = model.entered();
    Map<RelationshipId, List<Entered>> details = new LinkedHashMap<>(now.details());
    if (typed.isEmpty()) {
      details.remove(over.id());
    } else {
      details.put(over.id(), typed);
    }
    model.entered(new Entered(now.table(), now.row(), now.cells(), details));
  }

  /** Why rows below are refused, each with its place among those that are shown. */
  List<String> refusals(Relationship over) {
    List<Entered> rows = rows(over);
    List<Entered> typed = model.entered().details().getOrDefault(over.id(), List.of());
    var all = new ArrayList<String>();
    for (Refusal refusal : model.refusals()) {
      if (refusal.table().equals(over.child()) && refusal.entered().isPresent()) {
        EnterRows.One one =
            model.tried().orElseThrow().trial().edit().rows().get(refusal.entered().getAsInt());
        long sameBefore =
            model.tried().orElseThrow().trial().edit().rows().stream()
                .limit(refusal.entered().getAsInt())
                .filter(o -> o.table().equals(over.child()) && o.row().isEmpty())
                .count();
        int place =
            one.row().isPresent()
                ? IntStream.range(0, rows.size())
                    .filter(i -> rows.get(i).row().equals(one.row()))
                    .findFirst()
                    .orElse(0)
                : rows.size()
                    - (int) typed.stream().filter(r -> r.row().isEmpty()).count()
                    + (int) sameBefore;
        all.add(texts.get("enter.refused.below", place + 1, refusal.message()));
      }
    }
    return all;
  }
}
