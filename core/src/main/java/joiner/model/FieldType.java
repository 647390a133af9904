package joiner.model;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import joiner.expression.Kind;
import joiner.expression.ValueType;
import joiner.expression.Width;

/**
 * What values a field holds. A closed set: every {@code switch} over it is exhaustive. Lengths
 * count Unicode code points.
 */
public sealed interface FieldType {

  /** Text that carries a maximum length. */
  sealed interface Sized extends FieldType {
    /** The greatest number of code points allowed. */
    int maxLength();

    /** The same kind of text with another maximum length. */
    Sized withMaxLength(int maxLength);
  }

  /** Text of at most {@code maxLength} code points. */
  record Text(int maxLength) implements Sized {
    public Text {
      requireLength(maxLength);
    }

    @Override
    public Text withMaxLength(int length) {
      return new Text(length);
    }
  }

  /** Text without a limit. */
  record LongText() implements FieldType {}

  /** A whole number of the given width. */
  record WholeNumber(Width width) implements FieldType {}

  /** An exact number with {@code precision} digits in all, {@code scale} of them decimals. */
  record Decimal(int precision, int scale) implements FieldType {
    public Decimal {
      requirePrecision(precision, scale);
    }
  }

  /** A number without a stated precision, as third-party data may declare it. */
  record AnyNumber() implements FieldType {}

  /** An amount of money; exact, with {@code scale} decimals. */
  record Money(int precision, int scale) implements FieldType {
    public Money {
      requirePrecision(precision, scale);
    }
  }

  /** True or false. */
  record TrueFalse() implements FieldType {}

  /** A calendar date, ISO 8601. */
  record Date() implements FieldType {}

  /** A time of day, ISO 8601. */
  record Time() implements FieldType {}

  /** A date with a time of day; {@code zoned} ones carry their offset from UTC. */
  record DateTime(boolean zoned) implements FieldType {}

  /** A universally unique identifier, RFC 9562. */
  record Uuid() implements FieldType {}

  /** A generated whole number that counts up and is never reused. */
  record Counter(Width width) implements FieldType {}

  /** An e-mail address. */
  record Email(int maxLength) implements Sized {
    public Email {
      requireLength(maxLength);
    }

    @Override
    public Email withMaxLength(int length) {
      return new Email(length);
    }
  }

  /** A web address. */
  record WebAddress(int maxLength) implements Sized {
    public WebAddress {
      requireLength(maxLength);
    }

    @Override
    public WebAddress withMaxLength(int length) {
      return new WebAddress(length);
    }
  }

  /** A phone number, kept as text. */
  record Phone(int maxLength) implements Sized {
    public Phone {
      requireLength(maxLength);
    }

    @Override
    public Phone withMaxLength(int length) {
      return new Phone(length);
    }
  }

  /**
   * A secret of which only a hash is ever kept, by the program that checks it; Joiner holds no
   * value of it, neither in rows nor in files nor in scripts.
   */
  record Secret(int maxLength) implements Sized {
    public Secret {
      requireLength(maxLength);
    }

    @Override
    public Secret withMaxLength(int length) {
      return new Secret(length);
    }
  }

  /** A reference to a file, kept as its path or address. */
  record FileReference(int maxLength) implements Sized {
    public FileReference {
      requireLength(maxLength);
    }

    @Override
    public FileReference withMaxLength(int length) {
      return new FileReference(length);
    }
  }

  /**
   * A whole file, kept in the database itself. As text it stands in Base64 (RFC 4648, section 4).
   *
   * @param media what kinds of file it may be; none listed: any
   * @param mostBytes the greatest size allowed, in bytes
   */
  record Content(List<MediaType> media, int mostBytes) implements FieldType {
    public Content {
      media = media.stream().distinct().sorted().toList();
      if (mostBytes < 1) {
        throw new IllegalArgumentException("a file has at least 1 byte, not " + mostBytes);
      }
    }

    /** Whether every file that the other allows is allowed here too. */
    public boolean takesAll(Content other) {
      return other.mostBytes <= mostBytes
          && (media.isEmpty() || !other.media.isEmpty() && media.containsAll(other.media));
    }
  }

  /**
   * One of a short list of fixed choices kept in the design itself; no doubles. A list without
   * entries is not decided yet and demands nothing.
   *
   * @param grows whether who enters rows may add to it
   */
  record Choice(List<Entry> entries, boolean grows) implements FieldType {
    /** Code points there is room for while nobody knows the choices. */
    private static final int NOT_LISTED = 40;

    /**
     * One of the choices.
     *
     * @param id stays the same for its whole life
     * @param text what the field holds
     * @param description what it means; may be empty
     * @param hue what marks it for the eye
     * @param retired whether it is kept for old rows and no longer offered
     */
    public record Entry(
        ChoiceId id, String text, String description, Optional<Hue> hue, boolean retired) {
      /** One that is offered, with nothing more said of it. */
      public Entry(ChoiceId id, String text) {
        this(id, text, "", Optional.empty(), false);
      }

      Entry withId(ChoiceId other) {
        return new Entry(other, text, description, hue, retired);
      }

      public Entry withText(String other) {
        return new Entry(id, other, description, hue, retired);
      }

      public Entry withDescription(String other) {
        return new Entry(id, text, other, hue, retired);
      }

      public Entry withHue(Optional<Hue> other) {
        return new Entry(id, text, description, other, retired);
      }

      public Entry withRetired(boolean other) {
        return new Entry(id, text, description, hue, other);
      }
    }

    public Choice {
      entries = List.copyOf(entries);
      boolean doubled =
          entries.stream().map(Entry::text).distinct().count() != entries.size()
              || entries.stream().map(Entry::id).distinct().count() != entries.size();
      if (doubled) {
        throw new IllegalArgumentException("choices must be different texts: " + texts(entries));
      }
    }

    /** Choices that only a change of the design adds to. */
    public Choice(List<Entry> entries) {
      this(entries, false);
    }

    /** New choices of those texts. */
    public static Choice of(List<String> texts) {
      var taken = new HashSet<String>();
      return new Choice(texts.stream().map(text -> fresh(text, taken)).toList());
    }

    /** A new one whose id is none of those taken, and is taken from then on. */
    private static Entry fresh(String text, Set<String> taken) {
      String id = Taken.free(text.isBlank() ? "blank" : text, taken);
      taken.add(id);
      return new Entry(new ChoiceId(id), text);
    }

    private static List<String> texts(List<Entry> entries) {
      return entries.stream().map(Entry::text).toList();
    }

    /** The texts, in their order. */
    public List<String> values() {
      return texts(entries);
    }

    /** The texts that are offered, in their order. */
    public List<String> offered() {
      return texts(entries.stream().filter(entry -> !entry.retired).toList());
    }

    /** The texts that are kept for old rows, in their order. */
    public List<String> retired() {
      return texts(entries.stream().filter(Entry::retired).toList());
    }

    /** The choice of that text. */
    public Optional<Entry> find(String text) {
      return entries.stream().filter(entry -> entry.text.equals(text)).findFirst();
    }

    /** The same with one more at the end. */
    public Choice withAdded(String text) {
      return relisted(Stream.concat(values().stream(), Stream.of(text)).toList());
    }

    /** The same where more may be added, or not. */
    public Choice withGrows(boolean other) {
      return new Choice(entries, other);
    }

    /** The same with one of the choices changed. */
    public Choice withEntry(ChoiceId id, UnaryOperator<Entry> change) {
      return withEach(entry -> entry.id.equals(id) ? change.apply(entry) : entry);
    }

    /** The same with every choice changed. */
    public Choice withEach(UnaryOperator<Entry> change) {
      return new Choice(entries.stream().map(change).toList(), grows);
    }

    /** Choices of those texts; those that are there already are the same ones. */
    private Choice relisted(List<String> texts) {
      Map<String, Entry> kept = new HashMap<>();
      entries.forEach(entry -> kept.put(entry.text, entry));
      kept.keySet().retainAll(Set.copyOf(texts));
      var taken = new HashSet<String>();
      kept.values().forEach(entry -> taken.add(entry.id.value()));
      return new Choice(
          texts.stream()
              .map(text -> kept.containsKey(text) ? kept.get(text) : fresh(text, taken))
              .toList(),
          grows);
    }

    /** A type that comes after another; choices that are there already are the same ones. */
    public static FieldType after(FieldType before, FieldType now) {
      return before instanceof Choice old && now instanceof Choice listed
          ? old.relisted(listed.values())
          : now;
    }

    /** The same choices under the ids that others have: by id, else by text. */
    public Choice known(Choice others) {
      Map<String, ChoiceId> byText = new HashMap<>();
      others.entries.stream()
          .filter(entry -> !has(entry.id))
          .forEach(entry -> byText.put(entry.text, entry.id));
      return new Choice(
          entries.stream()
              .map(e -> others.has(e.id) ? e : e.withId(byText.getOrDefault(e.text, e.id)))
              .toList(),
          grows);
    }

    private boolean has(ChoiceId id) {
      return entries.stream().anyMatch(entry -> entry.id.equals(id));
    }

    /** Code points of the longest choice. */
    public int longest() {
      return values().stream()
          .mapToInt(v -> v.codePointCount(0, v.length()))
          .max()
          .orElse(NOT_LISTED);
    }
  }

  /**
   * A type of the Data Package standard that Joiner keeps but does not model ({@code duration},
   * {@code geojson}, …). Its values are kept as text.
   */
  record Kept(String standardType) implements FieldType {}

  /**
   * The type a foreign key to a key of this type has: a counter is referred to by a plain number.
   */
  default FieldType asReferenced() {
    return this instanceof Counter counter ? new WholeNumber(counter.width()) : this;
  }

  /** What formulas know of the field's values. */
  default ValueType valueType() {
    return switch (this) {
      case Sized t -> ValueType.of(Kind.TEXT);
      case LongText t -> ValueType.of(Kind.TEXT);
      case Choice t -> ValueType.of(Kind.TEXT);
      case Kept t -> ValueType.of(Kind.TEXT);
      case WholeNumber t -> ValueType.whole(t.width());
      case Counter t -> ValueType.whole(t.width());
      case Decimal t -> ValueType.number(t.scale());
      case Money t -> ValueType.number(t.scale());
      case AnyNumber t -> ValueType.of(Kind.NUMBER);
      case TrueFalse t -> ValueType.of(Kind.BOOLEAN);
      case Date t -> ValueType.of(Kind.DATE);
      case Time t -> ValueType.of(Kind.TIME);
      case DateTime t -> ValueType.of(t.zoned() ? Kind.ZONED : Kind.DATE_TIME);
      case Uuid t -> ValueType.of(Kind.UUID);
      case Content t -> ValueType.of(Kind.BYTES);
    };
  }

  /** The kind of its values, as formulas compare and compute with them. */
  default Kind kind() {
    return valueType().kind();
  }

  /** The maximum length of text types, otherwise empty. */
  default OptionalInt length() {
    return switch (this) {
      case Sized sized -> OptionalInt.of(sized.maxLength());
      case Choice choice -> OptionalInt.of(choice.longest());
      case LongText t -> OptionalInt.empty();
      case WholeNumber t -> OptionalInt.empty();
      case Decimal t -> OptionalInt.empty();
      case AnyNumber t -> OptionalInt.empty();
      case Money t -> OptionalInt.empty();
      case TrueFalse t -> OptionalInt.empty();
      case Date t -> OptionalInt.empty();
      case Time t -> OptionalInt.empty();
      case DateTime t -> OptionalInt.empty();
      case Uuid t -> OptionalInt.empty();
      case Content t -> OptionalInt.empty();
      case Counter t -> OptionalInt.empty();
      case Kept t -> OptionalInt.empty();
    };
  }

  /**
   * The length to allow where the longest value seen is that long: a quarter of head-room, rounded
   * up to a multiple of 5, and never below 4.
   */
  static int roomyLength(int longest) {
    return Math.max(4, (int) Math.ceil(longest * 1.25 / 5) * 5);
  }

  /** Refuses a length below 1. */
  private static void requireLength(int maxLength) {
    if (maxLength < 1) {
      throw new IllegalArgumentException("a text is at least 1 long, not " + maxLength);
    }
  }

  /** Refuses a precision outside 1 … 38 or a scale outside 0 … precision. */
  private static void requirePrecision(int precision, int scale) {
    if (precision < 1 || precision > 38 || scale < 0 || scale > precision) {
      throw new IllegalArgumentException(
          "a decimal has 1 to 38 digits and no more decimals than digits, not ("
              + precision
              + ", "
              + scale
              + ")");
    }
  }
}
