package joiner.desktop.connect;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import joiner.desktop.map.MapView;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.edit.EditRefusedException;
import joiner.edit.Relate;
import joiner.edit.Relate.Side;
import joiner.edit.Relate.Types;
import joiner.meaning.Draft;
import joiner.meaning.TypeWords;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Quantity;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.SampleRows;

/**
 * Two tables that are about to be tied, without a window. Nothing of it is in the design until it
 * is done; tables that go meanwhile end it.
 */
final class RelateModel {
  private static final String USUAL_PARENT = "has";
  private static final String USUAL_CHILD = "belongs to";

  private final Workbench bench;
  private final ReadOnlyObjectWrapper<Optional<Wish>> wish =
      new ReadOnlyObjectWrapper<>(Optional.empty());

  /** What a sentence says beside its tables. */
  record Words(String verb, Quantity quantity) {}

  /**
   * What is to be tied, as far as it is said.
   *
   * @param other the second table; empty until it is picked
   * @param by fields that refer; empty for new ones
   * @param key what is referred to; empty for the primary key
   */
  record Wish(
      TableId one,
      Optional<TableId> other,
      Words ofOne,
      Words ofOther,
      List<FieldId> by,
      List<FieldId> key,
      ReferentialAction onDelete,
      Types types) {
    Wish withTables(TableId first, Optional<TableId> second) {
      return new Wish(first, second, ofOne, ofOther, List.of(), List.of(), onDelete, types);
    }

    Wish withOne(Words words) {
      return withWords(words, ofOther);
    }

    Wish withOther(Words words) {
      return withWords(ofOne, words);
    }

    /** Who refers to whom may change with the number words; fields chosen for it then go. */
    private Wish withWords(Words first, Words second) {
      boolean same =
          first.quantity.isPlural() == ofOne.quantity.isPlural()
              && second.quantity.isPlural() == ofOther.quantity.isPlural();
      return new Wish(
          one,
          other,
          first,
          second,
          same ? by : List.of(),
          same ? key : List.of(),
          onDelete,
          types);
    }

    Wish withEnds(List<FieldId> fields, List<FieldId> referred) {
      return new Wish(one, other, ofOne, ofOther, fields, referred, onDelete, types);
    }

    Wish withRest(ReferentialAction action, Types giving) {
      return new Wish(one, other, ofOne, ofOther, by, key, action, giving);
    }
  }

  RelateModel(Workbench bench) {
    this.bench = bench;
    bench
        .historyProperty()
        .subscribe(history -> wish.get().filter(w -> !isThere(w)).ifPresent(w -> leave()));
  }

  private boolean isThere(Wish of) {
    return bench.design().find(of.one()).isPresent()
        && of.other().filter(other -> bench.design().find(other).isEmpty()).isEmpty();
  }

  /** What is to be tied; empty while nothing is. */
  ReadOnlyObjectProperty<Optional<Wish>> wishProperty() {
    return wish.getReadOnlyProperty();
  }

  /**
   * Begins with two tables: the second sentence is that of the one that refers.
   *
   * @param parent the one referred to
   */
  void begin(TableId parent, Optional<TableId> child) {
    wish.set(
        Optional.of(
            new Wish(
                parent,
                child,
                new Words(USUAL_PARENT, Quantity.ANY_NUMBER),
                new Words(USUAL_CHILD, Quantity.AT_MOST_ONE),
                List.of(),
                List.of(),
                ReferentialAction.NO_ACTION,
                Types.OF_KEY)));
  }

  /**
   * Begins with two ends that were pointed at: a field that is a key is referred to by the other
   * one; of two boards the second refers to the first.
   */
  void begin(MapView.End from, MapView.End to) {
    boolean turned = !isKey(from) && isKey(to);
    MapView.End parent = turned ? to : from;
    MapView.End child = turned ? from : to;
    begin(parent.table(), Optional.of(child.table()));
    boolean pair = parent.field().isPresent() && child.field().isPresent() && isKey(parent);
    Wish begun = wish.get().orElseThrow();
    boolean refers = pair && isFree(child);
    if (refers) {
      List<FieldId> key = List.of(parent.field().orElseThrow());
      boolean primary = key.equals(table(parent.table()).primaryKey());
      change(begun.withEnds(List.of(child.field().orElseThrow()), primary ? List.of() : key));
    }
  }

  /** Begins with what was said already. */
  void begin(Relate said) {
    begin(said.one().table(), Optional.of(said.other().table()));
    change(
        wish.get()
            .orElseThrow()
            .withOne(new Words(said.one().verb(), said.one().quantity()))
            .withOther(new Words(said.other().verb(), said.other().quantity())));
  }

  private boolean isKey(MapView.End end) {
    return end.field().filter(field -> table(end.table()).isKey(List.of(field))).isPresent();
  }

  /** Whether a field can come to refer to something. */
  private boolean isFree(MapView.End end) {
    FieldId field = end.field().orElseThrow();
    return !isKey(end)
        && bench.design().parentsOf(end.table()).stream()
            .noneMatch(up -> up.childFields().contains(field));
  }

  /** Says something else. */
  void change(Wish other) {
    wish.set(Optional.of(other));
  }

  /** Ends it with nothing done. */
  void leave() {
    wish.set(Optional.empty());
  }

  Table table(TableId id) {
    return bench.design().table(id);
  }

  List<Table> tables() {
    return List.copyOf(bench.design().tables());
  }

  /** The change; empty while a table is missing. */
  Optional<Relate> edit(Wish of) {
    return of.other()
        .map(
            other ->
                new Relate(
                    Side.of(table(of.one()), of.ofOne().verb(), of.ofOne().quantity()),
                    Side.of(table(other), of.ofOther().verb(), of.ofOther().quantity()),
                    of.by(),
                    of.key(),
                    of.onDelete(),
                    of.types()));
  }

  /**
   * What would come of it.
   *
   * @param made the relationship, or the first of its join table's; empty where it is refused
   * @param draft with it
   * @param refused why it cannot be
   */
  record Outcome(Optional<Relationship> made, Draft draft, Optional<String> refused) {}

  /** Tables with more rows are looked at only when it is made, in the background. */
  private static final int MOST_ROWS = 20_000;

  /** What would come of a change; with many rows only what its structure is, so it is quick. */
  Outcome outcome(Relate edit) {
    boolean many =
        Stream.of(edit.child(), edit.parent())
            .anyMatch(side -> bench.draft().rows().of(side.table()).count() > MOST_ROWS);
    Draft now = many ? bench.draft().withRows(SampleRows.NONE) : bench.draft();
    try {
      Draft after = edit.apply(now);
      return new Outcome(Relate.made(now.design(), after.design()), after, Optional.empty());
    } catch (EditRefusedException refused) {
      return new Outcome(Optional.empty(), now, Optional.of(refused.getMessage()));
    }
  }

  /** The keys of the table that is referred to, its primary key first. */
  List<List<FieldId>> keys(Relate edit) {
    return table(edit.parent().table()).keys();
  }

  /** What can refer to a key: nothing that is there, or fields that refer to nothing yet. */
  List<List<FieldId>> ends(Relate edit) {
    var ends = new ArrayList<List<FieldId>>();
    ends.add(List.of());
    Table child = table(edit.child().table());
    Table parent = table(edit.parent().table());
    List<FieldId> key = edit.referred(parent);
    List<Relationship> up = bench.design().parentsOf(child.id());
    if (key.size() == 1) {
      child.fields().stream()
          .filter(field -> field.type().asReferenced().equals(field.type()))
          .filter(field -> !child.equals(parent) || !key.contains(field.id()))
          .filter(field -> up.stream().noneMatch(r -> r.childFields().contains(field.id())))
          .map(field -> List.of(field.id()))
          .forEach(ends::add);
    } else {
      sameNamed(child, parent, key).ifPresent(ends::add);
    }
    return ends;
  }

  /** Fields called as those of a key of several are. */
  private static Optional<List<FieldId>> sameNamed(Table child, Table parent, List<FieldId> key) {
    var fields = new ArrayList<FieldId>();
    for (FieldId part : key) {
      child
          .fieldNamed(parent.field(part).name())
          .or(() -> child.fieldNamed(parent.name() + "_" + parent.field(part).name()))
          .map(Field::id)
          .ifPresent(fields::add);
    }
    return fields.size() == key.size() && !child.equals(parent)
        ? Optional.of(fields)
        : Optional.empty();
  }

  /** The types that differ between fields that are there and the key; empty where none does. */
  Optional<String[]> differing(Relate edit) {
    Table child = table(edit.child().table());
    Table parent = table(edit.parent().table());
    List<FieldId> key = edit.referred(parent);
    for (int i = 0; i < Math.min(edit.by().size(), key.size()); i++) {
      Field own = child.field(edit.by().get(i));
      Field far = parent.field(key.get(i));
      if (!own.type().asReferenced().equals(far.type().asReferenced())) {
        return Optional.of(
            new String[] {
              own.label(), TypeWords.of(far.type().asReferenced()),
              far.label(), TypeWords.of(own.type())
            });
      }
    }
    return Optional.empty();
  }

  /** Makes it so, and chooses what was made. */
  void make() {
    Optional<Relate> edit = wish.get().flatMap(this::edit);
    if (edit.isEmpty()) {
      return;
    }
    Design before = bench.design();
    bench.propose(
        edit::get,
        () -> {
          leave();
          Relate.made(before, bench.design())
              .ifPresent(r -> bench.selectionProperty().set(Selection.of(r.child(), r.id())));
        });
  }
}
