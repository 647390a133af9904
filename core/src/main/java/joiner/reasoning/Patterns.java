package joiner.reasoning;

import com.ibm.icu.text.UnicodeSet;
import com.microsoft.z3.CharSort;
import com.microsoft.z3.Context;
import com.microsoft.z3.ReExpr;
import com.microsoft.z3.SeqSort;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.expression.LikePattern;
import joiner.shape.PatternTree;

/** Patterns as the solver has them; empty where one is too large or has characters it lacks. */
final class Patterns {
  /** A set of more ranges is not written out. */
  private static final int MOST_RANGES = 60;

  private static final int MOST_REPEATS = 400;

  private final Logic logic;
  private final Context z3;

  Patterns(Logic logic) {
    this.logic = logic;
    this.z3 = logic.z3();
  }

  Optional<ReExpr<SeqSort<CharSort>>> of(PatternTree tree) {
    return switch (tree) {
      case PatternTree.One one -> set(one.set());
      case PatternTree.Having having -> Optional.empty();
      case PatternTree.Sequence sequence -> all(sequence.parts()).map(this::joined);
      case PatternTree.Choice choice -> all(choice.branches()).map(this::any);
      case PatternTree.Repeat repeat -> repeated(repeat);
    };
  }

  private Optional<List<ReExpr<SeqSort<CharSort>>>> all(List<PatternTree> parts) {
    var all = new ArrayList<ReExpr<SeqSort<CharSort>>>();
    for (PatternTree part : parts) {
      Optional<ReExpr<SeqSort<CharSort>>> made = of(part);
      if (made.isEmpty()) {
        return Optional.empty();
      }
      all.add(made.get());
    }
    return Optional.of(all);
  }

  private ReExpr<SeqSort<CharSort>> text(String text) {
    return z3.mkToRe(logic.literal(text));
  }

  private ReExpr<SeqSort<CharSort>> joined(List<ReExpr<SeqSort<CharSort>>> parts) {
    return parts.isEmpty()
        ? text("")
        : parts.size() == 1 ? parts.getFirst() : z3.mkConcat(array(parts));
  }

  private ReExpr<SeqSort<CharSort>> any(List<ReExpr<SeqSort<CharSort>>> branches) {
    return branches.size() == 1 ? branches.getFirst() : z3.mkUnion(array(branches));
  }

  @SuppressWarnings("unchecked") // An array of a generic type is made of its raw one.
  private static ReExpr<SeqSort<CharSort>>[] array(List<ReExpr<SeqSort<CharSort>>> all) {
    return all.toArray(ReExpr[]::new);
  }

  private Optional<ReExpr<SeqSort<CharSort>>> repeated(PatternTree.Repeat repeat) {
    if (repeat.least() > MOST_REPEATS || repeat.most().orElse(0) > MOST_REPEATS) {
      return Optional.empty();
    }
    return of(repeat.part())
        .map(
            part ->
                repeat.most().isPresent()
                    ? z3.mkLoop(part, repeat.least(), repeat.most().get())
                    : repeat.least() == 0 ? z3.mkStar(part) : z3.mkLoop(part, repeat.least()));
  }

  private Optional<ReExpr<SeqSort<CharSort>>> set(UnicodeSet set) {
    var ranges = new ArrayList<ReExpr<SeqSort<CharSort>>>();
    for (int i = 0; i < set.getRangeCount(); i++) {
      int last = Math.min(set.getRangeEnd(i), Logic.LAST_CHARACTER);
      if (set.getRangeStart(i) <= last) {
        String from = Character.toString(set.getRangeStart(i));
        ranges.add(z3.mkRange(logic.literal(from), logic.literal(Character.toString(last))));
      }
    }
    return ranges.isEmpty() || ranges.size() > MOST_RANGES
        ? Optional.empty()
        : Optional.of(any(ranges));
  }

  private ReExpr<SeqSort<CharSort>> anyOne() {
    return z3.mkRange(
        logic.literal(Character.toString(0)),
        logic.literal(Character.toString(Logic.LAST_CHARACTER)));
  }

  ReExpr<SeqSort<CharSort>> of(LikePattern pattern) {
    return joined(
        pattern.parts().stream()
            .map(
                part ->
                    switch (part) {
                      case LikePattern.Part.AnyText any -> z3.mkStar(anyOne());
                      case LikePattern.Part.AnyOne one -> anyOne();
                      case LikePattern.Part.Exactly exactly ->
                          text(Character.toString(exactly.codePoint()));
                    })
            .toList());
  }
}
