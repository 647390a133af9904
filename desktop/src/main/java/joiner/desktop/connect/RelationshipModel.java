package joiner.desktop.connect;

import java.time.Clock;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import joiner.deletion.Deletions;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeRelationship;
import joiner.edit.Counters;
import joiner.edit.Edit;
import joiner.edit.FoldBack;
import joiner.edit.NamedReference;
import joiner.edit.ProposedReference;
import joiner.edit.Reading;
import joiner.edit.RemoveRelationship;
import joiner.edit.TurnRound;
import joiner.edit.WithinParent;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;

/** What the side sheet of Connect is about and does, without a window. */
final class RelationshipModel {
  private final Workbench bench;
  private final Texts texts;

  /** Rows whose deletion is tried. */
  private static final int MOST_DELETED = 1_000;

  private final Computed<Asked, List<ProposedReference>> proposed;
  private final Computed<Tried, Deletes> deletes;

  /** A table whose rows are compared with all others. */
  private record Asked(Draft draft, TableId table) {
    boolean isSame(Asked other) {
      return table.equals(other.table)
          && draft.rows() == other.draft.rows()
          && draft.design() == other.draft.design();
    }
  }

  /** What the sheet is about. */
  sealed interface About {
    /** Nothing is chosen. */
    record Nothing() implements About {}

    /** A table, with a sentence for each of its relationships, read from its side. */
    record OfTable(Table table, List<Sentence> sentences) implements About {}

    /**
     * A relationship, read from both sides.
     *
     * @param pair what there is to say of a join table; empty where the child is none
     */
    record OfRelationship(
        Relationship relationship,
        Table child,
        Table parent,
        List<Reading> readings,
        Optional<Pair> pair)
        implements About {}
  }

  /** A relationship as it is read from one side. */
  record Sentence(Relationship relationship, Reading reading) {}

  /**
   * What a join table says beside tying two rows.
   *
   * @param key labels of what identifies a pair
   * @param onceOnly whether a pair occurs once
   * @param more labels of what else is noted of a pair
   */
  record Pair(List<String> key, boolean onceOnly, List<String> more) {}

  RelationshipModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    this.proposed =
        new Computed<>(
            bench.runner(),
            texts.get("rows.looking"),
            Lane.WORKING,
            Asked::isSame,
            (asked, progress) ->
                ProposedReference.of(asked.draft(), asked.table(), progress::stopped));
    this.deletes =
        new Computed<>(
            bench.runner(),
            texts.get("today.looking"),
            Lane.WORKING,
            Tried::isSame,
            (tried, progress) -> Deletes.of(tried.draft(), tried.relationship(), bench.clock()));
  }

  /** Says whether somebody looks at the sheet. */
  void look(boolean now) {
    proposed.look(now);
    deletes.look(now);
  }

  /** What the sheet is about now. */
  About about() {
    Selection selection = bench.selectionProperty().get();
    Optional<Relationship> chosen = selection.relationship().flatMap(bench.design()::find);
    return chosen
        .map(this::about)
        .or(() -> bench.table().map(this::about))
        .orElseGet(About.Nothing::new);
  }

  private About about(Table table) {
    List<Sentence> sentences =
        bench.design().relationships().stream()
            .filter(r -> r.child().equals(table.id()) || r.parent().equals(table.id()))
            .map(r -> new Sentence(r, fromTheSideOf(table, r)))
            .toList();
    return new About.OfTable(table, sentences);
  }

  /** A relationship is read from its parent, and from its child where that is the table. */
  private Reading fromTheSideOf(Table table, Relationship r) {
    boolean join = bench.design().table(r.child()).kind() instanceof TableKind.Join;
    return Reading.of(bench.design(), r).get(r.child().equals(table.id()) && !join ? 1 : 0);
  }

  private About about(Relationship r) {
    Table child = bench.design().table(r.child());
    Optional<Pair> pair =
        child.kind() instanceof TableKind.Join ? Optional.of(pair(child)) : Optional.empty();
    return new About.OfRelationship(
        r, child, bench.design().table(r.parent()), Reading.of(bench.design(), r), pair);
  }

  private static Pair pair(Table join) {
    List<String> more =
        join.fields().stream()
            .filter(f -> !join.primaryKey().contains(f.id()))
            .map(Field::label)
            .toList();
    return new Pair(join.labelsOf(join.primaryKey()), join.isUnique(join.primaryKey()), more);
  }

  /** References that the rows of a table suggest; those of now once they are found. */
  ReadOnlyObjectProperty<Answer<List<ProposedReference>>> proposalsProperty() {
    return proposed.answerProperty();
  }

  /** Compares the rows of a table with those of all others. */
  void propose(Table table) {
    proposed.ask(new Asked(bench.draft(), table.id()));
  }

  void stopProposing() {
    proposed.stop();
  }

  /** Whether proposals speak of what is there; else newer ones are underway. */
  boolean areOfNow(List<ProposedReference> proposals) {
    Design design = bench.design();
    return proposals.stream()
        .allMatch(
            p ->
                design.has(p.child(), p.childFields()) && design.has(p.parent(), p.parentFields()));
  }

  Table table(TableId id) {
    return bench.design().table(id);
  }

  /** What the names of a table's fields suggest. */
  List<NamedReference> named(Table table) {
    return NamedReference.of(bench.design(), table.id());
  }

  void take(NamedReference named) {
    bench.apply(() -> named.edit(bench.design()));
  }

  void take(ProposedReference proposal) {
    bench.apply(() -> proposal.edit(bench.draft()));
  }

  /** Chooses a relationship. */
  void choose(Relationship r) {
    bench.selectionProperty().set(Selection.of(r.child(), r.id()));
  }

  /** Takes another number word; what takes the place of the relationship is chosen then. */
  void read(Reading.Option option) {
    Selection before = bench.selectionProperty().get();
    var known = List.copyOf(bench.design().relationships());
    bench.propose(
        option::edit,
        () -> {
          if (before.relationship().flatMap(bench.design()::find).isEmpty()) {
            bench.design().relationships().stream()
                .filter(r -> !known.contains(r))
                .findFirst()
                .ifPresent(this::choose);
          }
        });
  }

  /** Lets what is referred to refer instead. */
  void turnRound(Relationship r) {
    var known = List.copyOf(bench.design().relationships());
    bench.propose(
        () -> new TurnRound(r.id()),
        () ->
            bench.design().relationships().stream()
                .filter(now -> !known.contains(now))
                .findFirst()
                .ifPresent(this::choose));
  }

  /** Gives a sentence another verb phrase. */
  void reword(Reading reading, String verb) {
    bench.apply(reading.reworded(verb));
  }

  /**
   * What deleting single rows of a relationship's parent would do today.
   *
   * @param parent the table
   * @param today by what the relationship may say of it
   */
  record Deletes(Table parent, Map<ReferentialAction, Deletions.Today> today) {
    private static Deletes of(Draft draft, Relationship r, Clock clock) {
      Map<ReferentialAction, Deletions.Today> today = new EnumMap<>(ReferentialAction.class);
      var deletions = new Deletions(draft, clock);
      for (ReferentialAction action : ReferentialAction.values()) {
        today.put(action, deletions.supposing(r, action).today(r.parent(), MOST_DELETED));
      }
      return new Deletes(draft.design().table(r.parent()), today);
    }
  }

  /** A relationship whose parent's rows would be deleted. */
  private record Tried(Draft draft, Relationship relationship) {
    boolean isSame(Tried other) {
      return relationship.equals(other.relationship)
          && draft.rows() == other.draft.rows()
          && draft.design() == other.draft.design();
    }
  }

  /** What deleting rows would do; that of now once it is found. */
  ReadOnlyObjectProperty<Answer<Deletes>> deletesProperty() {
    return deletes.answerProperty();
  }

  /** Works out what deleting a row of a relationship's parent would do. */
  void lookAtDeletes(Relationship r) {
    deletes.ask(new Tried(bench.draft(), r));
  }

  /** A sentence for each thing a delete would do. */
  List<String> says(Deletes of, ReferentialAction action, Texts texts) {
    Deletions.Today today = of.today().get(action);
    var lines = new ArrayList<String>();
    String rows = of.parent().noun().plural();
    if (today.taking() > 0) {
      lines.add(
          today.least() == today.most()
              ? texts.get("today.taking", today.most())
              : texts.get("today.taking.range", today.least(), today.most()));
    }
    if (today.unlinking() > 0) {
      lines.add(texts.get("today.unlinking", today.unlinking(), today.rows(), rows));
    }
    if (today.bereaving() > 0) {
      lines.add(texts.get("today.bereaving", today.bereaving(), today.rows(), rows));
    }
    if (today.refused() > 0) {
      String referring =
          today
              .by()
              .flatMap(bench.design()::find)
              .map(by -> table(by.child()).noun().plural())
              .orElse("");
      lines.add(texts.get("today.refused", today.refused(), today.rows(), rows, referring));
    }
    if (lines.isEmpty() && today.rows() > 0) {
      lines.add(texts.get("today.nothing"));
    }
    return lines;
  }

  /** What else a relationship can be made, with all that follows. */
  record Other(Kind what, Edit edit) {
    enum Kind {
      /** One table of both. */
      FOLD,
      /** A table for itself of a join table. */
      OWN_KEY,
      /** Rows that are identified within their parent. */
      WITHIN
    }
  }

  /** What else the relationship can be made, as its keys allow. */
  List<Other> others(About.OfRelationship about) {
    Design design = bench.design();
    Relationship r = about.relationship();
    var others = new ArrayList<Other>();
    if (FoldBack.fits(design, r)) {
      others.add(new Other(Other.Kind.FOLD, FoldBack.of(design, r)));
    }
    if (about.child().kind() instanceof TableKind.Join) {
      others.add(new Other(Other.Kind.OWN_KEY, Counters.identifyPairs(about.child())));
    } else if (WithinParent.fits(design, r)) {
      others.add(new Other(Other.Kind.WITHIN, WithinParent.of(design, r)));
    }
    return others;
  }

  /** Goes where fields are chosen that get a table of their own. */
  void pullOut() {
    bench.stageProperty().set(Stage.SHAPE);
    bench.tell(Notice.Sort.HINT, texts.get("pull.hint"));
  }

  /** Makes it something else, once it was seen what follows. */
  void make(Other other) {
    bench.propose(other::edit, () -> bench.selectionProperty().set(standing()));
  }

  /** What is there still of what was chosen. */
  private Selection standing() {
    Selection now = bench.selectionProperty().get();
    boolean stands = now.table().flatMap(bench.design()::find).isPresent();
    return stands ? now : Selection.NONE;
  }

  void onDelete(Relationship r, ReferentialAction action) {
    bench.apply(ChangeRelationship.onDelete(r, action));
  }

  void remove(Relationship r) {
    bench.apply(new RemoveRelationship(r.id(), r.name()));
    bench.selectionProperty().set(Selection.of(r.child()));
  }
}
