package joiner.format;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import joiner.model.FieldId;
import joiner.model.KnownFact;
import joiner.model.Table;

/** What is known of a table beside its keys. */
final class FactsJson {
  private static final String FACTS = "facts";

  private FactsJson() {}

  static List<KnownFact> read(Members more, Map<String, FieldId> ids)
      throws UnreadableFileException {
    var facts = new ArrayList<KnownFact>();
    for (Json json : more.list(FACTS)) {
      Members fact = more.inside(json, "a fact");
      List<FieldId> by = TableJson.ids(fact, "by", fact.texts("by"), ids);
      boolean holds = fact.any("decide").isPresent();
      String what = holds ? "decide" : "not";
      List<FieldId> decided = TableJson.ids(fact, what, fact.texts(what), ids);
      try {
        facts.add(new KnownFact(by, decided, holds));
      } catch (IllegalArgumentException e) {
        throw fact.problem(
            "a fact names fields in “by” and others in “decide” or in “not”, each once.");
      }
    }
    return facts;
  }

  static void write(Table table, Json.Obj more) {
    if (!table.facts().isEmpty()) {
      more.put(
          FACTS, new Json.Arr(table.facts().stream().map(fact -> write(table, fact)).toList(), 0));
    }
  }

  private static Json write(Table table, KnownFact fact) {
    return new Json.Obj()
        .put("by", Json.Arr.of(table.namesOf(fact.determinant())))
        .put(fact.holds() ? "decide" : "not", Json.Arr.of(table.namesOf(fact.dependents())));
  }
}
