package joiner.format;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import joiner.expression.Formula;
import joiner.model.Origin;
import joiner.model.RelationshipId;
import joiner.model.Summing;

/** Where the values of a field come from, as members of its own part. */
final class OriginJson {
  private static final String COMPUTED = "computed";
  private static final String SUMMED = "summedUp";

  private OriginJson() {}

  static Origin read(Members more) throws UnreadableFileException {
    Optional<String> formula = more.optionalText(COMPUTED);
    if (formula.isPresent()) {
      return new Origin.Computed(new Formula(formula.get()));
    }
    Members summed = more.object(SUMMED);
    Optional<String> how = summed.optionalText("how");
    return how.isPresent() ? summedUp(summed, how.get()) : Origin.TYPED;
  }

  private static Origin summedUp(Members summed, String how) throws UnreadableFileException {
    Summing summing =
        Arrays.stream(Summing.values())
            .filter(known -> word(known).equals(how))
            .findFirst()
            .orElseThrow(
                () ->
                    summed.problem(
                        "rows are summed up by "
                            + Arrays.stream(Summing.values())
                                .map(OriginJson::word)
                                .collect(Collectors.joining(", "))
                            + ", not “"
                            + how
                            + "”."));
    String over =
        summed
            .optionalText("over")
            .orElseThrow(() -> summed.problem("“over” says which relationship is summed up."));
    var read =
        new Origin.SummedUp(
            summing,
            new RelationshipId(over),
            summed.optionalText("of").map(Formula::new),
            summed.optionalText("where").map(Formula::new),
            summed.optionalText("by").map(Formula::new),
            summed.optionalText("between").orElse(Origin.SummedUp.COMMA));
    if (!summed.rest().byProperty().isEmpty()) {
      throw summed.problem(
          "what sums rows up has how, over, of, where, by and between, not "
              + String.join(", ", summed.rest().byProperty().keySet())
              + ".");
    }
    return read;
  }

  static String word(Summing how) {
    return how.name().toLowerCase(Locale.ROOT);
  }

  static void write(Origin origin, Json.Obj more) {
    switch (origin) {
      case Origin.Typed typed -> {}
      case Origin.Computed(Formula formula) -> more.put(COMPUTED, formula.text());
      case Origin.SummedUp summed -> {
        var json = new Json.Obj();
        json.put("how", word(summed.how()));
        json.put("over", summed.over().value());
        summed.of().ifPresent(formula -> json.put("of", formula.text()));
        summed.where().ifPresent(formula -> json.put("where", formula.text()));
        summed.by().ifPresent(formula -> json.put("by", formula.text()));
        if (!summed.between().equals(Origin.SummedUp.COMMA)) {
          json.put("between", summed.between());
        }
        more.put(SUMMED, json);
      }
    }
  }
}
