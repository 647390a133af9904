package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Workbench;
import joiner.meaning.ParentRows;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;

/** What a row can refer to, and what it is called; as soon as that is known, by names. */
final class EnterPicks {
  private static final int MOST_OFFERED = 200;

  private final Workbench bench;
  private final Texts texts;
  private final Function<RelationshipId, Optional<ParentRows>> parents;

  /**
   * Picks from some rows.
   *
   * @param parents the rows that a relationship leads to, once they are known
   */
  EnterPicks(Workbench bench, Texts texts, Function<RelationshipId, Optional<ParentRows>> parents) {
    this.bench = bench;
    this.texts = texts;
    this.parents = parents;
  }

  /** What somebody picks to refer to. */
  sealed interface Pick {
    /** No row. */
    record None() implements Pick {}

    /** A row that is there. */
    record There(ParentRows.Parent parent) implements Pick {}

    /**
     * A row that is to be entered first.
     *
     * @param text what was typed to find it
     */
    record Fresh(String text) implements Pick {}
  }

  /** Rows to refer to; the first refers to none, the last is to be entered. */
  Offers<Pick> offers(Relationship over, boolean optional) {
    Optional<ParentRows> rows = parents.apply(over.id());
    Table parent = bench.design().table(over.parent());
    return typed -> {
      var offers = new ArrayList<Offers.Offer<Pick>>();
      if (optional && typed.isBlank()) {
        offers.add(Offers.Offer.of(new Pick.None(), texts.get("enter.nobody")));
      }
      for (ParentRows.Parent row :
          rows.map(all -> all.meantBy(typed, MOST_OFFERED)).orElse(List.of())) {
        String shown =
            String.join(" · ", row.shown())
                + (row.offered()
                    ? ""
                    : " " + texts.get(row.retired() ? "enter.retired" : "enter.notOffered"));
        offers.add(new Offers.Offer<>(new Pick.There(row), row.label(), shown.strip(), ""));
      }
      if (!over.isSelfReference()) {
        String words =
            typed.isBlank()
                ? texts.get("enter.fresh", parent.noun().singular())
                : texts.get("enter.fresh.named", parent.noun().singular(), typed.strip());
        offers.add(new Offers.Offer<>(new Pick.Fresh(typed.strip()), words, "", ""));
      }
      return offers;
    };
  }

  /** What a reference is called that some cells make. */
  String label(Relationship over, List<String> cells) {
    if (cells.stream().allMatch(String::isEmpty)) {
      return "";
    }
    String key = String.join(" · ", cells);
    Optional<ParentRows> rows = parents.apply(over.id());
    if (rows.isEmpty()) {
      return key; // People read names as soon as they are known.
    }
    Optional<ParentRows.Parent> parent =
        cells.size() == 1
            ? rows.get().find(cells.getFirst())
            : rows.get().all().stream().filter(p -> p.cells().equals(cells)).findFirst();
    return parent.map(ParentRows.Parent::label).orElseGet(() -> texts.get("enter.missing", key));
  }

  /** The cells that let a row refer to another, or to none. */
  static Map<FieldId, String> cells(Relationship over, Optional<List<String>> key) {
    Map<FieldId, String> cells = new LinkedHashMap<>();
    for (int i = 0; i < over.childFields().size(); i++) {
      int at = i;
      cells.put(over.childFields().get(i), key.map(of -> of.get(at)).orElse(""));
    }
    return cells;
  }
}
