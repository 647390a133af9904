package joiner.desktop.shape;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import joiner.desktop.widget.Texts;
import joiner.meaning.ParentRows;
import joiner.model.ByteSize;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.naming.Counts;
import joiner.rows.HeldValues;
import joiner.rows.SeenText;

/** What a field holds, as short as a line of the grid is. */
final class HeldWords {
  private static final DateTimeFormatter DAY =
      DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);
  private static final DateTimeFormatter MONTH =
      DateTimeFormatter.ofPattern("MMM yyyy", Locale.ENGLISH);
  private static final Pattern DATED = Pattern.compile("\\d{4}-\\d{2}-\\d{2}([T ].*)?");
  private static final int LONGEST = 18;

  private final Texts texts;

  HeldWords(Texts texts) {
    this.texts = texts;
  }

  /**
   * In words.
   *
   * @param parents the rows it refers to, if it alone refers to a table
   * @param bad in how many rows the field has something to mend
   */
  String of(Field field, HeldValues values, Optional<ParentRows> parents, long bad) {
    if (values.rows() == 0) {
      return "";
    }
    if (bad > 0) {
      return texts.get("held.bad", bad);
    }
    if (values.blank() == values.rows()) {
      return texts.get("held.nothing");
    }
    var parts = new ArrayList<String>();
    parts.add(main(field, values, parents));
    if (values.blank() > 0) {
      parts.add(texts.get("held.blank", values.blank()));
    }
    return String.join(" · ", parts);
  }

  private String main(Field field, HeldValues values, Optional<ParentRows> parents) {
    if (parents.isPresent()) {
      return referred(values, parents.get());
    }
    if (field.type() instanceof FieldType.Content) {
      long greatest = values.longest() * 3L / 4; // Of every four digits of Base64 three are bytes.
      return texts.get(
          "held.files", values.rows() - values.blank(), ByteSize.about(Math.max(1, greatest)));
    }
    if (values.range().isPresent()) {
      return range(values.range().get());
    }
    int filled = values.rows() - values.blank();
    boolean repeated =
        values.different() < filled && values.different() <= Math.max(HeldValues.NAMED, filled / 3);
    if (repeated) {
      UnaryOperator<String> as = SeenText.of(field).orElse(UnaryOperator.identity());
      return frequent(values.frequent(), as);
    }
    return field.type().length().isPresent()
        ? texts.get("held.longest", values.longest())
        : texts.get("held.different", values.different());
  }

  private String referred(HeldValues values, ParentRows parents) {
    boolean all = values.different() <= HeldValues.NAMED;
    return all
        ? frequent(values.frequent(), text -> label(text, parents))
        : texts.get("held.parents", values.different(), parents.count(), parents.noun().plural());
  }

  private static String frequent(List<HeldValues.Frequent> frequent, UnaryOperator<String> called) {
    return frequent.stream()
        .limit(2)
        .map(one -> cut(called.apply(one.text())) + " " + Counts.of(one.count()))
        .collect(Collectors.joining(" · "));
  }

  private static String label(String text, ParentRows parents) {
    return parents.find(text).map(ParentRows.Parent::label).orElse(text);
  }

  private static String cut(String text) {
    return text.length() <= LONGEST ? text : text.substring(0, LONGEST - 1) + "…";
  }

  private static String range(HeldValues.Range range) {
    Optional<LocalDate> first = day(range.least());
    Optional<LocalDate> last = day(range.greatest());
    if (first.isPresent() && last.isPresent()) {
      boolean far = first.get().plusMonths(2).isBefore(last.get());
      DateTimeFormatter form = far ? MONTH : DAY;
      return ends(form.format(first.get()), form.format(last.get()));
    }
    return ends(range.least(), range.greatest());
  }

  private static String ends(String least, String greatest) {
    return least.equals(greatest) ? least : least + " … " + greatest;
  }

  /** Of moments the day is enough. */
  private static Optional<LocalDate> day(String text) {
    try {
      return DATED.matcher(text).matches()
          ? Optional.of(LocalDate.parse(text.substring(0, 10)))
          : Optional.empty();
    } catch (DateTimeParseException e) {
      return Optional.empty();
    }
  }
}
