package joiner.meaning;

import joiner.model.ByteSize;
import joiner.model.FieldType;
import joiner.model.MediaType;

/** Types as people read them. */
public final class TypeWords {
  private TypeWords() {}

  /** The type with its size: "text of 40", "whole number of 32 bits". */
  public static String of(FieldType type) {
    return switch (type) {
      case FieldType.Text t -> "text of " + t.maxLength();
      case FieldType.LongText t -> "long text";
      case FieldType.WholeNumber t -> "a whole number of " + t.width().bits() + " bits";
      case FieldType.Counter t -> "a counter of " + t.width().bits() + " bits";
      case FieldType.Decimal t -> "a decimal (" + t.precision() + ", " + t.scale() + ")";
      case FieldType.Money t -> "money (" + t.precision() + ", " + t.scale() + ")";
      case FieldType.AnyNumber t -> "a number";
      case FieldType.TrueFalse t -> "true/false";
      case FieldType.Date t -> "a date";
      case FieldType.Time t -> "a time";
      case FieldType.DateTime t -> t.zoned() ? "a date and time with zone" : "a date and time";
      case FieldType.Uuid t -> "a UUID";
      case FieldType.Content t ->
          "a whole " + file(t) + " of at most " + ByteSize.of(t.mostBytes());
      case FieldType.Email t -> "an e-mail of " + t.maxLength();
      case FieldType.WebAddress t -> "a web address of " + t.maxLength();
      case FieldType.Phone t -> "a phone number of " + t.maxLength();
      case FieldType.Secret t -> "a secret, of which a hash of " + t.maxLength() + " is kept";
      case FieldType.FileReference t -> "a file reference of " + t.maxLength();
      case FieldType.Choice t -> "a choice of " + t.values().size();
      case FieldType.Kept t -> "kept as " + t.standardType();
    };
  }

  /** What a file that is kept whole is: "image", "document", "file". */
  static String file(FieldType.Content type) {
    if (type.media().isEmpty()) {
      return "file";
    }
    if (MediaType.IMAGES.containsAll(type.media())) {
      return "image";
    }
    return MediaType.DOCUMENTS.containsAll(type.media()) ? "document" : "file";
  }

  /** The kind of type without its size: "text", "whole number". */
  public static String kind(FieldType type) {
    return switch (type) {
      case FieldType.Text t -> "text";
      case FieldType.LongText t -> "long text";
      case FieldType.WholeNumber t -> "whole number";
      case FieldType.Counter t -> "counter";
      case FieldType.Decimal t -> "decimal";
      case FieldType.Money t -> "money";
      case FieldType.AnyNumber t -> "number";
      case FieldType.TrueFalse t -> "true/false";
      case FieldType.Date t -> "date";
      case FieldType.Time t -> "time";
      case FieldType.DateTime t -> "date and time";
      case FieldType.Uuid t -> "UUID";
      case FieldType.Content t -> "stored " + file(t);
      case FieldType.Email t -> "e-mail";
      case FieldType.WebAddress t -> "web address";
      case FieldType.Phone t -> "phone number";
      case FieldType.Secret t -> "secret";
      case FieldType.FileReference t -> "file reference";
      case FieldType.Choice t -> "choice";
      case FieldType.Kept t -> t.standardType();
    };
  }
}
