package joiner.format;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldType;
import org.jspecify.annotations.Nullable;

/**
 * How the values of one field are spelled in a file of rows, as its descriptor says: missing
 * values, words for true and false, the decimal mark, the order of day and month (Table Schema of
 * the Data Package standard, version 2). In memory every value has the default spelling; text that
 * does not have the form it should have stays as it stands.
 */
final class CellForm {
  /** Spelled as Joiner spells it: an empty cell is NULL, everything else stands as it is. */
  static final CellForm OWN = new CellForm(List.of(""), Spelling.PLAIN);

  private static final Set<String> OF_TRUTH = Set.of("trueValues", "falseValues");
  private static final Set<String> OF_NUMBERS = Set.of("decimalChar", "groupChar", "bareNumber");

  private final List<String> missing;
  private final Spelling spelling;

  private CellForm(List<String> missing, Spelling spelling) {
    this.missing = missing;
    this.spelling = spelling;
  }

  /** Between the spelling of a file and the default one; what has not the form gives empty. */
  interface Spelling {
    /** Everything stands as it is. */
    Spelling PLAIN =
        new Spelling() {
          @Override
          public Optional<String> read(String cell) {
            return Optional.of(cell);
          }

          @Override
          public Optional<String> write(String text) {
            return Optional.of(text);
          }
        };

    Optional<String> read(String cell);

    Optional<String> write(String text);
  }

  /**
   * The form of a field.
   *
   * @param missing texts that mean NULL in this table
   */
  static CellForm of(Field field, List<String> missing, Path file) throws UnreadableFileException {
    Map<String, Json> properties = new LinkedHashMap<>();
    for (Map.Entry<String, String> extra : field.extras().byProperty().entrySet()) {
      if (isCarriedBy(field.type(), extra.getKey(), extra.getValue())) {
        properties.put(extra.getKey(), ExtrasJson.parse(extra.getValue()));
      }
    }
    var members = new Members(new Json.Obj(properties, 0), file, "a field");
    List<String> own = properties.containsKey("missingValues") ? missingValues(members) : missing;
    Spelling spelling = spelling(field, members, file);
    return own.equals(List.of("")) && spelling == Spelling.PLAIN
        ? OWN
        : new CellForm(own, spelling);
  }

  /** Texts that mean NULL; an item is a text or an object with a value and a label. */
  static List<String> missingValues(Members members) throws UnreadableFileException {
    var values = new ArrayList<String>();
    for (Json item : members.list("missingValues")) {
      values.add(item instanceof Json.Obj object ? valueOf(object) : text(members, item));
    }
    return List.copyOf(values);
  }

  private static String valueOf(Json.Obj object) {
    return object
        .get("value")
        .map(value -> value instanceof Json.Text t ? t.text() : "")
        .orElse("");
  }

  private static String text(Members members, Json item) throws UnreadableFileException {
    if (item instanceof Json.Text text) {
      return text.text();
    }
    throw members.wrong("missingValues", item, "a list of texts");
  }

  private static Spelling spelling(Field field, Members members, Path file)
      throws UnreadableFileException {
    return switch (field.type()) {
      case FieldType.TrueFalse t -> truth(members);
      case FieldType.WholeNumber t -> number(members);
      case FieldType.Counter t -> number(members);
      case FieldType.Decimal t -> number(members);
      case FieldType.Money t -> number(members);
      case FieldType.AnyNumber t -> number(members);
      case FieldType.Date t -> time(field, members, file);
      case FieldType.Time t -> time(field, members, file);
      case FieldType.DateTime t -> time(field, members, file);
      case FieldType.Text t -> Spelling.PLAIN;
      case FieldType.LongText t -> Spelling.PLAIN;
      case FieldType.Choice t -> Spelling.PLAIN;
      case FieldType.Email t -> Spelling.PLAIN;
      case FieldType.WebAddress t -> Spelling.PLAIN;
      case FieldType.Phone t -> Spelling.PLAIN;
      case FieldType.Secret t -> Spelling.PLAIN;
      case FieldType.FileReference t -> Spelling.PLAIN;
      case FieldType.Content t -> Spelling.PLAIN;
      case FieldType.Uuid t -> Spelling.PLAIN;
      case FieldType.Kept t -> Spelling.PLAIN;
    };
  }

  private static Spelling truth(Members members) throws UnreadableFileException {
    List<String> yes = members.texts("trueValues");
    List<String> no = members.texts("falseValues");
    return yes.isEmpty() && no.isEmpty() ? Spelling.PLAIN : new Truth(yes, no);
  }

  private static Spelling number(Members members) throws UnreadableFileException {
    String decimal = members.optionalText("decimalChar").orElse(".");
    String group = members.text("groupChar");
    boolean bare =
        members.any("bareNumber").map(v -> !(v instanceof Json.Bool b) || b.value()).orElse(true);
    return decimal.equals(".") && group.isEmpty() && bare
        ? Spelling.PLAIN
        : new Marks(decimal, group, bare);
  }

  private static Spelling time(Field field, Members members, Path file)
      throws UnreadableFileException {
    String format = members.text("format");
    if (format.isEmpty() || format.equals("default") || format.equals("any")) {
      return Spelling.PLAIN;
    }
    try {
      return new TimeFormat(format, field.type());
    } catch (IllegalArgumentException e) {
      throw new UnreadableFileException(
          file,
          0,
          "the format “" + format + "” of the field " + field.name() + " " + e.getMessage() + ".");
    }
  }

  /**
   * Whether a property kept with a field belongs to fields of that type. One that does not, as the
   * words for true after a change to a number, would make the descriptor wrong.
   */
  static boolean isCarriedBy(FieldType type, String property, String json) {
    if (OF_TRUTH.contains(property)) {
      return type instanceof FieldType.TrueFalse;
    }
    if (OF_NUMBERS.contains(property)) {
      return switch (type) {
        case FieldType.WholeNumber t -> true;
        case FieldType.Counter t -> true;
        case FieldType.Decimal t -> true;
        case FieldType.Money t -> true;
        case FieldType.AnyNumber t -> true;
        default -> false;
      };
    }
    boolean timeFormat = property.equals("format") && json.contains("%");
    return !timeFormat
        || type instanceof FieldType.Date
        || type instanceof FieldType.Time
        || type instanceof FieldType.DateTime;
  }

  /** Properties of a field that this class understands, whether or not its type carries them. */
  static boolean understands(String property, String json) {
    return OF_TRUTH.contains(property)
        || OF_NUMBERS.contains(property)
        || property.equals("missingValues")
        || (property.equals("format") && json.contains("%"));
  }

  /** The field's kept properties without those that say how its values are spelled. */
  static Extras withoutForms(Extras extras) {
    Map<String, String> kept = new LinkedHashMap<>(extras.byProperty());
    kept.entrySet().removeIf(extra -> understands(extra.getKey(), extra.getValue()));
    return new Extras(kept);
  }

  /** The value a cell stands for, in the default spelling; {@code null} for NULL. */
  @Nullable String read(String cell) {
    if (missing.contains(cell)) {
      return null;
    }
    return spelling.read(cell).orElse(cell);
  }

  /** Whether a cell has the form its descriptor says. */
  boolean hasForm(String cell) {
    return missing.contains(cell) || spelling.read(cell).isPresent();
  }

  /** Whether the empty cell is no missing value here, which Joiner cannot tell from NULL. */
  boolean tellsEmptyFromMissing() {
    return !missing.contains("");
  }

  /**
   * The cell that stands for a value; empty where none would be read back as it, as for the text
   * “-” where that means NULL.
   */
  Optional<String> write(Optional<String> value) {
    if (value.isEmpty()) {
      return Optional.of(missing.isEmpty() || missing.contains("") ? "" : missing.getFirst());
    }
    String cell = spelling.write(value.get()).orElse(value.get());
    return Optional.of(cell).filter(written -> value.get().equals(read(written)));
  }

  /** Words for true and false. */
  private record Truth(List<String> yes, List<String> no) implements Spelling {
    @Override
    public Optional<String> read(String cell) {
      if (yes.contains(cell)) {
        return Optional.of("true");
      }
      return no.contains(cell) ? Optional.of("false") : Optional.empty();
    }

    @Override
    public Optional<String> write(String text) {
      return switch (text) {
        case "true" -> yes.stream().findFirst();
        case "false" -> no.stream().findFirst();
        default -> Optional.empty();
      };
    }
  }

  /** The decimal mark, the mark between thousands, and whether other signs may stand around. */
  private record Marks(String decimal, String group, boolean bare) implements Spelling {
    private static final Pattern NUMBER =
        Pattern.compile("[+-]?(\\d+(\\.\\d*)?|\\.\\d+)([eE][+-]?\\d{1,3})?");
    private static final Pattern AROUND = Pattern.compile("^[^\\d+.-]+|[^\\d.]+$");

    @Override
    public Optional<String> read(String cell) {
      String number = group.isEmpty() ? cell : cell.replace(group, "");
      if (!bare) {
        number = AROUND.matcher(number).replaceAll("");
      }
      boolean foreignPoint = !decimal.equals(".") && number.contains(".");
      number = number.replace(decimal, ".");
      return foreignPoint || !NUMBER.matcher(number).matches()
          ? Optional.empty()
          : Optional.of(number);
    }

    @Override
    public Optional<String> write(String text) {
      return NUMBER.matcher(text).matches()
          ? Optional.of(text.replace(".", decimal))
          : Optional.empty();
    }
  }
}
