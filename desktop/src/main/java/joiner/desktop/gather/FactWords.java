package joiner.desktop.gather;

import java.util.List;
import java.util.stream.Collectors;
import joiner.desktop.widget.Texts;
import joiner.discovery.Fact;

/** Facts as people read them. */
final class FactWords {
  private final Texts texts;
  private final List<String> headers;
  private final int rows;

  FactWords(Texts texts, List<String> headers, int rows) {
    this.texts = texts;
    this.headers = headers;
    this.rows = rows;
  }

  String title(Fact fact) {
    return switch (fact) {
      case Fact.Decides f -> texts.get("fact.decides", determinant(f), headers.get(f.dependent()));
      case Fact.Repeats f ->
          texts.get(
              "fact.repeats",
              f.bases().stream().map(Fact.Repeats.Base::label).collect(Collectors.joining(", ")),
              f.bases().getFirst().columns().size());
      case Fact.HoldsSeveral f -> texts.get("fact.list", headers.get(f.column()));
      case Fact.IsLookup f -> texts.get("fact.lookup", lookup(f));
      case Fact.SameThing f -> texts.get("fact.same", f.other(), f.keep());
    };
  }

  private String determinant(Fact.Decides fact) {
    return fact.determinant().places().mapToObj(headers::get).collect(Collectors.joining(", "));
  }

  /** A lookup of numbered columns goes by the name without a number. */
  private String lookup(Fact.IsLookup fact) {
    return fact.id().contains(".lookup")
        ? headers.get(fact.column()).replaceAll("[\\s_#.-]*\\d+$", "")
        : headers.get(fact.column());
  }

  String evidence(Fact fact) {
    return switch (fact) {
      case Fact.Decides f when f.exceptions() > 0 ->
          texts.get("fact.contradicted", rows - f.exceptions(), rows, f.exceptions());
      case Fact.Decides f -> texts.get("fact.agrees", rows);
      case Fact.HoldsSeveral f ->
          texts.get(f.counted() ? "fact.list.counted" : "fact.list.plain", f.separator().strip());
      case Fact.SameThing f ->
          texts.get("fact.same.rows", headers.get(f.column()), f.otherRows(), f.keepRows());
      case Fact.Repeats f -> f.reasons().getFirst();
      case Fact.IsLookup f -> f.reasons().getFirst();
    };
  }

  boolean contradicted(Fact fact) {
    return fact instanceof Fact.Decides decides && decides.exceptions() > 0;
  }
}
