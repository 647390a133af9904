package joiner.desktop.shape;

import java.util.List;
import java.util.Locale;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.meaning.DefaultReading;
import joiner.model.Field;

/** What may be meant by what is typed as the default of a field. */
record DefaultOffers(Texts texts, Field field) implements Offers<DefaultReading> {
  @Override
  public List<Offer<DefaultReading>> of(String typed) {
    return DefaultReading.of(field, typed).stream().map(this::offer).toList();
  }

  private Offer<DefaultReading> offer(DefaultReading reading) {
    String sort = reading.sort().name().toLowerCase(Locale.ROOT);
    String words = reading.words().isEmpty() ? texts.get("default.none") : reading.words();
    return new Offer<>(reading, words, texts.get("default." + sort), "");
  }
}
