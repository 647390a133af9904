package joiner.desktop.widget;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;

/** What there is to pick for a text typed so far, the likeliest first. */
public interface Offers<T> {
  /**
   * Something to pick.
   *
   * @param words what it is called
   * @param detail what it means, or an example; may be empty
   * @param group what it is one of; may be empty
   */
  record Offer<T>(T thing, String words, String detail, String group) {
    /** Something that says all there is to say. */
    public static <T> Offer<T> of(T thing, String words) {
      return new Offer<>(thing, words, "", "");
    }
  }

  /** What is offered once that was typed. */
  List<Offer<T>> of(String typed);

  /** Always the same things, by their words. */
  static <T> Offers<T> among(List<T> things, Function<T, String> words) {
    List<Offer<T>> all = things.stream().map(t -> Offer.of(t, words.apply(t))).toList();
    return typed -> narrowed(all, typed);
  }

  /** Those whose words hold a text; those that begin with it first, else in their order. */
  static <T> List<Offer<T>> narrowed(List<Offer<T>> all, String typed) {
    String wanted = typed.strip().toLowerCase(Locale.ROOT);
    return all.stream()
        .filter(offer -> lower(offer).contains(wanted))
        .sorted(Comparator.comparing(offer -> !lower(offer).startsWith(wanted)))
        .toList();
  }

  private static String lower(Offer<?> offer) {
    return offer.words().toLowerCase(Locale.ROOT);
  }
}
