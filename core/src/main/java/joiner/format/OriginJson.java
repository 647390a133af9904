package joiner.format;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import joiner.expression.Formula;
import joiner.model.Generator;
import joiner.model.Origin;
import joiner.model.RelationshipId;
import joiner.model.Stamp;
import joiner.model.Summing;

/** Where the values of a field come from, as members of its own part. */
final class OriginJson {
  private static final String COMPUTED = "computed";
  private static final String SUMMED = "summedUp";
  private static final String STAMPED = "stamped";
  private static final String GENERATED = "generated";
  private static final String ONCE = "once";
  private static final String COPIED = "asItWas";

  private OriginJson() {}

  static Origin read(Members more) throws UnreadableFileException {
    Optional<String> formula = more.optionalText(COMPUTED);
    if (formula.isPresent()) {
      return new Origin.Computed(new Formula(formula.get()));
    }
    Members summed = more.object(SUMMED);
    Optional<String> how = summed.optionalText("how");
    if (how.isPresent()) {
      return summedUp(summed, how.get());
    }
    Optional<String> stamp = more.optionalText(STAMPED);
    if (stamp.isPresent()) {
      return new Origin.Stamped(one(Stamp.values(), stamp.get(), "a stamp is one of ", more));
    }
    Optional<String> copied = more.optionalText(COPIED);
    if (copied.isPresent()) {
      return new Origin.Copied(new Formula(copied.get()));
    }
    Members generated = more.object(GENERATED);
    Optional<Generator> by = GeneratorJson.read(generated);
    if (by.isPresent()) {
      return new Origin.Generated(by.get());
    }
    return more.flag(ONCE) ? Origin.ONCE : Origin.TYPED;
  }

  /** The one of that word. */
  static <E extends Enum<E>> E one(E[] all, String word, String said, Members at)
      throws UnreadableFileException {
    return Arrays.stream(all)
        .filter(known -> word(known).equals(word))
        .findFirst()
        .orElseThrow(
            () ->
                at.problem(
                    said
                        + Arrays.stream(all).map(OriginJson::word).collect(Collectors.joining(", "))
                        + ", not “"
                        + word
                        + "”."));
  }

  private static Origin summedUp(Members summed, String how) throws UnreadableFileException {
    Summing summing = one(Summing.values(), how, "rows are summed up by ", summed);
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

  static String word(Enum<?> known) {
    return known.name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  static void write(Origin origin, Json.Obj more) {
    switch (origin) {
      case Origin.Typed(boolean once) -> {
        if (once) {
          more.put(ONCE, true);
        }
      }
      case Origin.Generated(Generator by) -> more.put(GENERATED, GeneratorJson.written(by));
      case Origin.Copied(Formula formula) -> more.put(COPIED, formula.text());
      case Origin.Stamped(Stamp stamp) -> more.put(STAMPED, word(stamp));
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
