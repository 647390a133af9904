package joiner.outline;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import joiner.edit.TypeChoice;
import joiner.model.FieldType;
import joiner.model.MediaType;
import org.jspecify.annotations.Nullable;

/**
 * A type as people and scripts write it: "decimal 8.2", "varchar(40)", "yes/no". The words of SQL
 * are those of ISO/IEC 9075-2, 6.1; what else is common to several engines is from memory.
 */
final class TypeText {
  private static final Pattern WITH_SIZE =
      Pattern.compile("(.*?)\\s*\\(?\\s*(\\d+(?:\\s*[.,]\\s*\\d+)?|max)\\s*\\)?");

  /** "stored image", "stored file (pdf, png) 2 MB". */
  private static final Pattern STORED =
      Pattern.compile(
          "stored (image|document|file)(?:\\s*\\(([a-z, ]*)\\))?(?:\\s+(\\d[\\d.]*\\s*[a-z]*))?");

  private static final Pattern CHOICES =
      Pattern.compile("(?:choice|choices|enum|one of)\\s*[(:]?\\s*(.+?)\\)?");

  /** Words that are as often the end of a label. */
  private static final List<String> NOUNS =
      List.of(
          "date",
          "time",
          "text",
          "number",
          "phone",
          "e-mail",
          "email",
          "file",
          "money",
          "choice",
          "amount",
          "flag",
          "link",
          "website",
          "web address",
          "telephone",
          "phone number",
          "attachment",
          "image",
          "document",
          "long",
          "short",
          "key");

  private TypeText() {}

  /** Whether a text that is a type may as well be the last words of a label. */
  static boolean isNoun(String text) {
    return NOUNS.contains(text.strip().toLowerCase(Locale.ROOT));
  }

  /** The type that a text names; empty if it names none. */
  static Optional<FieldType> read(String text) {
    String plain = text.strip().toLowerCase(Locale.ROOT).replace('_', ' ');
    Optional<FieldType> alone = named(plain, "");
    if (alone.isPresent()) {
      return alone;
    }
    Matcher stored = STORED.matcher(plain);
    if (stored.matches()) {
      return stored(stored.group(1), stored.group(2), stored.group(3));
    }
    Matcher choices = CHOICES.matcher(text.strip());
    boolean bracketed = text.strip().endsWith(")");
    if (choices.matches() && (bracketed || choices.group(1).matches(".*[,|/].*"))) {
      return choices(choices.group(1));
    }
    Matcher sized = WITH_SIZE.matcher(plain);
    return sized.matches()
        ? named(sized.group(1).strip(), sized.group(2).replaceAll("\\s", "").replace(',', '.'))
        : Optional.empty();
  }

  /** The type with a size that stands by itself. */
  static Optional<FieldType> read(String text, String size) {
    return size.isBlank() ? read(text) : read(text + " " + size).or(() -> read(text));
  }

  private static Optional<FieldType> stored(
      String kind, @Nullable String endings, @Nullable String size) {
    TypeChoice choice =
        switch (kind) {
          case "image" -> TypeChoice.StoredImage;
          case "document" -> TypeChoice.StoredDocument;
          default -> TypeChoice.StoredFile;
        };
    Optional<FieldType> sized = sized(choice, size == null ? "" : size);
    if (endings == null) {
      return sized;
    }
    List<MediaType> media =
        Arrays.stream(endings.split(","))
            .flatMap(ending -> MediaType.endingIn(ending.strip()).stream())
            .toList();
    return media.isEmpty()
        ? Optional.empty()
        : sized.map(type -> new FieldType.Content(media, ((FieldType.Content) type).mostBytes()));
  }

  private static Optional<FieldType> choices(String text) {
    List<String> values =
        Arrays.stream(text.split("[,|/]"))
            .map(value -> value.strip().replaceAll("^['\"]|['\"]$", "").strip())
            .filter(value -> !value.isEmpty())
            .distinct()
            .toList();
    return values.isEmpty() ? Optional.empty() : Optional.of(FieldType.Choice.of(values));
  }

  private static Optional<FieldType> named(String word, String size) {
    return switch (word) {
      case "text",
          "string",
          "str",
          "varchar",
          "character varying",
          "char",
          "character",
          "nvarchar",
          "nchar",
          "varchar2",
          "nvarchar2",
          "tinytext" ->
          size.equals("max") ? usual(TypeChoice.LongText) : sized(TypeChoice.Text, size);
      case "long text", "longtext", "clob", "nclob", "memo", "mediumtext", "ntext" ->
          usual(TypeChoice.LongText);
      case "whole number", "whole", "int", "integer", "int4", "mediumint" ->
          bits(TypeChoice.WholeNumber, size, "32");
      case "smallint", "int2", "tinyint", "short" -> bits(TypeChoice.WholeNumber, "", "16");
      case "bigint", "int8", "long" -> bits(TypeChoice.WholeNumber, "", "64");
      case "percentage", "percent" -> sized(TypeChoice.Percentage, size);
      case "decimal", "numeric", "dec" -> sized(TypeChoice.Decimal, size);
      case "number" ->
          size.isEmpty() ? usual(TypeChoice.AnyNumber) : sized(TypeChoice.Decimal, size);
      case "float", "double", "real", "double precision" -> usual(TypeChoice.AnyNumber);
      case "money", "currency" -> sized(TypeChoice.Money, size);
      case "true/false", "yes/no", "bool", "boolean", "bit", "logical" ->
          usual(TypeChoice.TrueFalse);
      case "date" -> usual(TypeChoice.Date);
      case "time" -> usual(TypeChoice.Time);
      case "date and time",
          "datetime",
          "date time",
          "timestamp",
          "datetime2",
          "timestamp without time zone" ->
          usual(TypeChoice.DateTime);
      case "date, time, zone", "timestamptz", "timestamp with time zone", "datetimeoffset" ->
          usual(TypeChoice.ZonedDateTime);
      case "uuid", "guid", "uniqueidentifier" -> usual(TypeChoice.Uuid);
      case "counter", "serial", "identity", "autonumber", "autoincrement", "auto increment" ->
          bits(TypeChoice.Counter, size, "32");
      case "bigserial" -> bits(TypeChoice.Counter, "", "64");
      case "e-mail", "email" -> sized(TypeChoice.Email, size);
      case "web address", "url", "uri", "website" -> sized(TypeChoice.WebAddress, size);
      case "phone", "phone number", "telephone" -> sized(TypeChoice.Phone, size);
      case "blob", "bytea", "binary", "varbinary", "longblob", "mediumblob", "raw" ->
          usual(TypeChoice.StoredFile);
      case "image", "document" -> sized(TypeChoice.FileReference, size);
      case "secret" -> sized(TypeChoice.Secret, size);
      case "file", "file reference", "attachment" -> sized(TypeChoice.FileReference, size);
      case "choice", "choices" -> size.isEmpty() ? usual(TypeChoice.Choice) : Optional.empty();
      default -> Optional.empty();
    };
  }

  private static Optional<FieldType> usual(TypeChoice choice) {
    return Optional.of(choice.usual());
  }

  private static Optional<FieldType> sized(TypeChoice choice, String size) {
    return size.isEmpty() ? usual(choice) : choice.sized(size);
  }

  /** In some engines a number behind says how wide the column is printed, which is no size. */
  private static Optional<FieldType> bits(TypeChoice choice, String size, String usual) {
    return choice.sized(size).or(() -> choice.sized(usual));
  }
}
