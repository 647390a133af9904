package joiner.edit;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.expression.Width;
import joiner.model.ByteSize;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.MediaType;
import joiner.model.SpanUnit;

/**
 * The types as a designer chooses among them, each with the size it starts with and how its size is
 * typed.
 */
public enum TypeChoice {
  Text("40", size -> new FieldType.Text(number(size))),
  LongText("", size -> new FieldType.LongText()),
  WholeNumber("32", size -> new FieldType.WholeNumber(Width.ofBits(number(size)))),
  Decimal("8.2", size -> new FieldType.Decimal(digits(size), decimals(size))),
  Money("10.2", size -> new FieldType.Money(digits(size), decimals(size))),
  Percentage("5.2", size -> new FieldType.Decimal(digits(size), decimals(size))),
  TimeSpan("min", size -> counted(size)),
  AnyNumber("", size -> new FieldType.AnyNumber()),
  TrueFalse("", size -> new FieldType.TrueFalse()),
  Date("", size -> new FieldType.Date()),
  Time("", size -> new FieldType.Time()),
  DateTime("", size -> new FieldType.DateTime(false)),
  ZonedDateTime("", size -> new FieldType.DateTime(true)),
  Uuid("", size -> new FieldType.Uuid()),
  Counter("32", size -> new FieldType.Counter(Width.ofBits(number(size)))),
  Email("80", size -> new FieldType.Email(number(size))),
  WebAddress("200", size -> new FieldType.WebAddress(number(size))),
  Phone("24", size -> new FieldType.Phone(number(size))),
  Secret("100", size -> new FieldType.Secret(number(size))),
  Image("200", size -> new FieldType.FileReference(number(size))),
  Document("200", size -> new FieldType.FileReference(number(size))),
  FileReference("200", size -> new FieldType.FileReference(number(size))),
  StoredImage("2 MB", size -> new FieldType.Content(MediaType.IMAGES, bytes(size))),
  StoredDocument("10 MB", size -> new FieldType.Content(MediaType.DOCUMENTS, bytes(size))),
  StoredFile("10 MB", size -> new FieldType.Content(List.of(), bytes(size))),
  Choice("", size -> FieldType.Choice.of(choices(size)));

  private static final String PERCENT = "%";

  private final String usualSize;
  private final Function<String, FieldType> maker;

  TypeChoice(String usualSize, Function<String, FieldType> maker) {
    this.usualSize = usualSize;
    this.maker = maker;
  }

  /** The type with its usual size. */
  public FieldType usual() {
    return maker.apply(usualSize);
  }

  /** The type with a size as typed; empty if that is no size for it. */
  public Optional<FieldType> sized(String size) {
    try {
      return Optional.of(maker.apply(size.strip()));
    } catch (IllegalArgumentException e) {
      return Optional.empty();
    }
  }

  /** A type that is of this choice with another size; what else is said of it stays. */
  public Optional<FieldType> resized(FieldType now, String size) {
    Optional<FieldType> sized = sized(size);
    return now instanceof FieldType.Content(var media, int most)
        ? sized.map(type -> new FieldType.Content(media, ((FieldType.Content) type).mostBytes()))
        : sized;
  }

  /**
   * The unit that goes with a size as typed: a percentage is a decimal number in %, a time span a
   * whole number of a unit of time. Empty for types that have none of their own.
   */
  public Optional<String> unit(String size) {
    return switch (this) {
      case Percentage -> Optional.of(PERCENT);
      case TimeSpan -> SpanUnit.of(size.isBlank() ? usualSize : size.strip()).map(SpanUnit::sign);
      default -> Optional.empty();
    };
  }

  /**
   * The pattern that goes with it: an image or a document is a file of a kind that ends so. Empty
   * for types that have none of their own.
   */
  public Optional<String> pattern() {
    return switch (this) {
      case Image ->
          Optional.of(endingIn("avif", "gif", "heic", "jpeg", "jpg", "png", "svg", "webp"));
      case Document -> Optional.of(endingIn("docx", "md", "odt", "pdf", "rtf", "txt"));
      default -> Optional.empty();
    };
  }

  /** Endings in small letters or capitals, in a form that every engine reads. */
  private static String endingIn(String... endings) {
    return Arrays.stream(endings)
        .map(
            ending ->
                ending
                    .chars()
                    .mapToObj(
                        letter -> "[" + (char) letter + Character.toUpperCase((char) letter) + "]")
                    .collect(Collectors.joining()))
        .collect(Collectors.joining("|", ".+\\.(", ")"));
  }

  private static FieldType counted(String unit) {
    return SpanUnit.of(unit)
        .map(span -> new FieldType.WholeNumber(Width.BITS_32))
        .orElseThrow(() -> new IllegalArgumentException("no unit of time: " + unit));
  }

  private static int bytes(String size) {
    return ByteSize.read(size)
        .orElseThrow(() -> new IllegalArgumentException("no size of a file: " + size));
  }

  private static int number(String text) {
    return Integer.parseInt(text);
  }

  private static int digits(String text) {
    return number(text.split("[.,]")[0].strip());
  }

  private static int decimals(String text) {
    String[] parts = text.split("[.,]");
    return parts.length > 1 ? number(parts[1].strip()) : 0;
  }

  private static List<String> choices(String text) {
    return Arrays.stream(text.split(","))
        .map(String::strip)
        .filter(choice -> !choice.isEmpty())
        .toList();
  }

  /** How a type's size is typed; empty for types without one. */
  public static String sizeOf(FieldType type) {
    return switch (type) {
      case FieldType.Sized t -> String.valueOf(t.maxLength());
      case FieldType.WholeNumber t -> String.valueOf(t.width().bits());
      case FieldType.Counter t -> String.valueOf(t.width().bits());
      case FieldType.Decimal t -> t.precision() + "." + t.scale();
      case FieldType.Money t -> t.precision() + "." + t.scale();
      case FieldType.Choice t -> String.join(", ", t.values());
      case FieldType.LongText t -> "";
      case FieldType.AnyNumber t -> "";
      case FieldType.TrueFalse t -> "";
      case FieldType.Date t -> "";
      case FieldType.Time t -> "";
      case FieldType.DateTime t -> "";
      case FieldType.Uuid t -> "";
      case FieldType.Content t -> ByteSize.of(t.mostBytes());
      case FieldType.Kept t -> t.standardType();
    };
  }

  /** How the size of a field is typed; empty for types without one. */
  public static String sizeOf(Field field) {
    return of(field).filter(choice -> choice == TimeSpan).isPresent()
        ? field.unit()
        : sizeOf(field.type());
  }

  /**
   * The choice a field belongs to, by its type and its unit; empty for types that are not offered.
   */
  public static Optional<TypeChoice> of(Field field) {
    if (field.type() instanceof FieldType.Decimal && field.unit().equals(PERCENT)) {
      return Optional.of(Percentage);
    }
    if (field.type() instanceof FieldType.FileReference) {
      return Stream.of(Image, Document)
          .filter(kind -> kind.pattern().equals(field.limits().pattern()))
          .findFirst()
          .or(() -> Optional.of(FileReference));
    }
    boolean span =
        field.type() instanceof FieldType.WholeNumber && SpanUnit.ofSign(field.unit()).isPresent();
    return span ? Optional.of(TimeSpan) : of(field.type());
  }

  private static TypeChoice stored(List<MediaType> media) {
    if (!media.isEmpty() && MediaType.IMAGES.containsAll(media)) {
      return StoredImage;
    }
    return !media.isEmpty() && MediaType.DOCUMENTS.containsAll(media) ? StoredDocument : StoredFile;
  }

  /** The choice a type belongs to; empty for types the grid does not offer. */
  public static Optional<TypeChoice> of(FieldType type) {
    if (type instanceof FieldType.DateTime moment && moment.zoned()) {
      return Optional.of(ZonedDateTime);
    }
    if (type instanceof FieldType.Content content) {
      return Optional.of(stored(content.media()));
    }
    return Arrays.stream(values())
        .filter(choice -> choice.name().equals(type.getClass().getSimpleName()))
        .findFirst();
  }
}
