package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.edit.CompoundFields;
import joiner.edit.TypeChoice;
import joiner.model.Design;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * What a field may hold, as it is typed: a type, with its size behind it ("decimal 8.2"), or a row
 * of another table, with an arrow before it ("→ kiln").
 */
final class TypeOffers implements Offers<TypeOffers.Held> {
  private static final Pattern ARROW = Pattern.compile("^\\s*(→|->|>)\\s*");

  /** In their order. */
  private static final List<String> GROUPS =
      List.of("text", "number", "truth", "time", "identity", "file");

  /** What a field may hold. */
  sealed interface Held {
    /**
     * Values of a type.
     *
     * @param size as typed; empty: the usual one
     */
    record OfType(TypeChoice choice, String size) implements Held {}

    /** A row of a table, by its key. */
    record RowOf(TableId table) implements Held {}

    /** Several fields that come together. */
    record Several(CompoundFields kind) implements Held {}
  }

  private final Texts texts;
  private final List<Offer<Held>> types = new ArrayList<>();
  private final List<Offer<Held>> tables = new ArrayList<>();

  TypeOffers(Texts texts, Design design) {
    this.texts = texts;
    for (String group : GROUPS) {
      for (TypeChoice choice : TypeChoice.values()) {
        if (group(choice).equals(group)) {
          types.add(offer(choice, ""));
        }
      }
    }
    for (CompoundFields kind : CompoundFields.all()) {
      String parts =
          String.join(", ", kind.parts().stream().map(CompoundFields.Part::label).toList());
      types.add(
          new Offer<>(
              new Held.Several(kind), kind.label(), parts, texts.get("type.group.several")));
    }
    for (Table table : design.tables()) {
      tables.add(
          new Offer<>(
              new Held.RowOf(table.id()),
              "→ " + table.label(),
              texts.get("type.toTable", table.noun().indefinite()),
              texts.get("type.group.tables")));
    }
  }

  private Offer<Held> offer(TypeChoice choice, String size) {
    return new Offer<>(
        new Held.OfType(choice, size),
        texts.get("type." + choice.name()),
        size.isEmpty() ? texts.get("type.example." + choice.name()) : size,
        texts.get("type.group." + group(choice)));
  }

  private static String group(TypeChoice choice) {
    return switch (choice) {
      case Text,
          LongText,
          Email,
          WebAddress,
          Phone,
          Secret,
          Image,
          Document,
          FileReference,
          Choice ->
          "text";
      case StoredImage, StoredDocument, StoredFile -> "file";
      case WholeNumber, Decimal, Money, Percentage, AnyNumber -> "number";
      case TrueFalse -> "truth";
      case Date, Time, DateTime, ZonedDateTime, TimeSpan -> "time";
      case Uuid, Counter -> "identity";
    };
  }

  @Override
  public List<Offer<Held>> of(String typed) {
    var arrow = ARROW.matcher(typed);
    if (arrow.find()) {
      return narrowedTables(typed.substring(arrow.end()));
    }
    List<Offer<Held>> named = Offers.narrowed(types, typed);
    if (typed.isBlank()) {
      return Stream.concat(named.stream(), tables.stream()).toList();
    }
    List<Offer<Held>> rows = narrowedTables(typed);
    return named.isEmpty() && rows.isEmpty()
        ? sized(typed)
        : Stream.concat(named.stream(), rows.stream()).toList();
  }

  /** Tables whose labels begin with a text first. */
  private List<Offer<Held>> narrowedTables(String typed) {
    String wanted = typed.strip().toLowerCase(Locale.ROOT);
    List<Offer<Held>> begin = Offers.narrowed(tables, "→ " + wanted);
    return Stream.concat(begin.stream(), Offers.narrowed(tables, wanted).stream())
        .distinct()
        .toList();
  }

  /** Types named by the first words of a text; the rest is their size. */
  private List<Offer<Held>> sized(String typed) {
    for (int end = typed.lastIndexOf(' '); end > 0; end = typed.lastIndexOf(' ', end - 1)) {
      List<Offer<Held>> named = Offers.narrowed(types, typed.substring(0, end));
      if (!named.isEmpty()) {
        String size = typed.substring(end).strip();
        return named.stream()
            .map(Offer::thing)
            .filter(Held.OfType.class::isInstance)
            .map(Held.OfType.class::cast)
            .map(of -> offer(of.choice(), size))
            .toList();
      }
    }
    return List.of();
  }

  /** What is offered for a field that holds this already. */
  static Optional<Held> now(Optional<TableId> parent, Optional<TypeChoice> type) {
    return parent
        .<Held>map(Held.RowOf::new)
        .or(() -> type.map(choice -> new Held.OfType(choice, "")));
  }
}
