package joiner.format;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Limits;
import joiner.model.MediaType;
import joiner.model.Origin;

/** A field as a Table Schema field descriptor. */
final class FieldJson {
  private FieldJson() {}

  /** A field with what its descriptor says about the table. */
  record Read(Field field, boolean unique) {}

  static Read read(Json json, Path file) throws UnreadableFileException {
    var members = new Members(json, file, "a field");
    String name =
        members
            .optionalText("name")
            .filter(n -> !n.isBlank())
            .orElseThrow(() -> members.problem("a field needs a “name”."));
    Members more = members.object(DataPackage.MORE);
    Members constraints = members.object("constraints");
    FieldType type = type(members, constraints, more);
    Limits limits = limits(constraints, more, type);
    Origin origin = OriginJson.read(more);
    boolean required = constraints.flag("required") || more.flag("required");
    boolean unique = constraints.flag("unique");
    String label = members.optionalText("title").orElse(name);
    String description = members.text("description");
    String unit = more.text("unit");
    Optional<Formula> defaultValue = more.optionalText("default").map(Formula::new);
    var id = new FieldId(more.optionalText("id").orElse(name));
    members.any("type");
    Map<String, String> extras = new LinkedHashMap<>(members.rest().byProperty());
    keepUnused(members, constraints, type, extras);
    constraints
        .rest()
        .byProperty()
        .forEach((key, value) -> extras.put("constraints/" + key, value));
    more.rest()
        .byProperty()
        .forEach((key, value) -> extras.put(DataPackage.MORE + "/" + key, value));
    return new Read(
        new Field(
            id,
            name,
            label,
            type,
            required,
            defaultValue,
            limits,
            description,
            unit,
            origin,
            new Extras(extras)),
        unique);
  }

  /** A format or length that the type does not carry is kept word for word. */
  private static void keepUnused(
      Members members, Members constraints, FieldType type, Map<String, String> extras) {
    boolean carried =
        type instanceof FieldType.Uuid
            || type instanceof FieldType.Content
            || type instanceof FieldType.Email
            || type instanceof FieldType.WebAddress;
    if (!carried) {
      members.any("format").ifPresent(format -> extras.put("format", JsonText.line(format)));
    }
    if (!(type instanceof FieldType.Sized)) {
      constraints
          .any("maxLength")
          .ifPresent(length -> extras.put("constraints/maxLength", JsonText.line(length)));
    }
  }

  private static FieldType type(Members members, Members constraints, Members more)
      throws UnreadableFileException {
    String standard = members.optionalText("type").orElse("string");
    String own = more.text("type");
    try {
      return switch (standard) {
        case "string" -> text(members, constraints, more, own);
        case "integer" -> {
          Width width = Width.ofBits(more.number("bits").orElse(64));
          yield own.equals("counter")
              ? new FieldType.Counter(width)
              : new FieldType.WholeNumber(width);
        }
        case "number" -> number(more, own);
        case "boolean" -> new FieldType.TrueFalse();
        case "date" -> new FieldType.Date();
        case "time" -> new FieldType.Time();
        case "datetime" -> new FieldType.DateTime(own.equals("zoned"));
        default -> new FieldType.Kept(standard);
      };
    } catch (IllegalArgumentException e) {
      throw members.problem(e.getMessage() + ".");
    }
  }

  private static FieldType number(Members more, String own) throws UnreadableFileException {
    if (own.isEmpty()) {
      return new FieldType.AnyNumber();
    }
    int precision = more.number("precision").orElse(12);
    int scale = more.number("scale").orElse(2);
    return own.equals("money")
        ? new FieldType.Money(precision, scale)
        : new FieldType.Decimal(precision, scale);
  }

  private static FieldType text(Members members, Members constraints, Members more, String own)
      throws UnreadableFileException {
    String format = members.text("format");
    if (format.equals("uuid")) {
      return new FieldType.Uuid();
    }
    Optional<Integer> length = constraints.number("maxLength");
    if (format.equals("email")) {
      return new FieldType.Email(length.orElse(DataPackage.EMAIL_LENGTH));
    }
    if (format.equals("uri")) {
      return new FieldType.WebAddress(length.orElse(DataPackage.ADDRESS_LENGTH));
    }
    if (own.equals("phone")) {
      return new FieldType.Phone(length.orElse(30));
    }
    if (own.equals("secret")) {
      return new FieldType.Secret(length.orElse(DataPackage.HASH_LENGTH));
    }
    if (format.equals("binary")) {
      return content(more);
    }
    if (own.equals("file")) {
      return new FieldType.FileReference(length.orElse(DataPackage.ADDRESS_LENGTH));
    }
    List<String> choices = constraints.texts("enum");
    boolean listed = !choices.isEmpty() && length.isEmpty();
    if (listed || own.equals(ChoicesJson.NOT_LISTED)) {
      return ChoicesJson.read(choices, more);
    }
    Optional<FieldType.Choice> categories = ChoicesJson.categories(members.listIfAny("categories"));
    if (categories.isPresent() && choices.isEmpty()) {
      members.any("categories");
      return categories.get();
    }
    return length.<FieldType>map(FieldType.Text::new).orElseGet(FieldType.LongText::new);
  }

  private static FieldType content(Members more) throws UnreadableFileException {
    var media = new ArrayList<MediaType>();
    for (String iana : more.texts("media")) {
      media.add(
          MediaType.named(iana)
              .orElseThrow(
                  () ->
                      more.problem(
                          "“"
                              + iana
                              + "” is no kind of file that is known here; there are "
                              + Arrays.stream(MediaType.values())
                                  .map(MediaType::iana)
                                  .collect(Collectors.joining(", "))
                              + ".")));
    }
    return new FieldType.Content(media, more.number("bytes").orElse(Integer.MAX_VALUE));
  }

  private static Limits limits(Members constraints, Members more, FieldType type)
      throws UnreadableFileException {
    constraints.any("maxLength");
    Optional<Integer> minLength = constraints.number("minLength");
    List<String> allowed = type instanceof FieldType.Choice ? List.of() : constraints.texts("enum");
    constraints.any("enum");
    return new Limits(
        constraints.scalar("minimum"),
        constraints.scalar("maximum"),
        constraints.scalar("exclusiveMinimum"),
        constraints.scalar("exclusiveMaximum"),
        constraints.optionalText("pattern"),
        minLength.map(OptionalInt::of).orElse(OptionalInt.empty()),
        allowed,
        shown(constraints, more));
  }

  /** How texts are seen that are kept without their marks; only said beside their pattern. */
  private static Optional<String> shown(Members constraints, Members more)
      throws UnreadableFileException {
    Optional<String> shown = more.optionalText("shown");
    if (shown.isPresent() && constraints.optionalText("pattern").isEmpty()) {
      throw more.problem("“shown” says how texts of a “pattern” are seen, and there is none.");
    }
    return shown;
  }

  static Json write(Field field, boolean unique) {
    var json = new Json.Obj();
    var more = new Json.Obj();
    var constraints = new Json.Obj();
    if (!field.id().value().equals(field.name())) {
      more.put("id", field.id().value());
    }
    json.put("name", field.name());
    writeType(field.type(), json, constraints, more);
    if (!field.label().equals(field.name())) {
      json.put("title", field.label());
    }
    json.putIfAny("description", field.description());
    OriginJson.write(field.origin(), more);
    if (field.required()) { // Computed values stand in no file, where others would miss them.
      (field.isComputed() ? more : constraints).put("required", true);
    }
    if (unique) {
      constraints.put("unique", true);
    }
    writeLimits(field, constraints);
    field.limits().shown().ifPresent(seen -> more.put("shown", seen));
    more.putIfAny("unit", field.unit());
    field.defaultValue().ifPresent(formula -> more.put("default", formula.text()));
    Map<String, String> extras = new LinkedHashMap<>(field.extras().byProperty());
    extras
        .entrySet()
        .removeIf(extra -> !CellForm.isCarriedBy(field.type(), extra.getKey(), extra.getValue()));
    ExtrasJson.write(
        new Extras(extras), json, Map.of("constraints", constraints, DataPackage.MORE, more));
    if (!constraints.members().isEmpty()) {
      json.put("constraints", constraints);
    }
    if (!more.members().isEmpty()) {
      json.put(DataPackage.MORE, more);
    }
    return json;
  }

  private static void writeType(
      FieldType type, Json.Obj json, Json.Obj constraints, Json.Obj more) {
    switch (type) {
      case FieldType.Text t -> {
        json.put("type", "string");
        constraints.put("maxLength", t.maxLength());
      }
      case FieldType.LongText t -> json.put("type", "string");
      case FieldType.Choice t -> {
        json.put("type", "string");
        ChoicesJson.write(t, constraints, more);
      }
      case FieldType.Email t -> sized(json, constraints, "email", t, DataPackage.EMAIL_LENGTH);
      case FieldType.WebAddress t -> sized(json, constraints, "uri", t, DataPackage.ADDRESS_LENGTH);
      case FieldType.Phone t -> own(json, constraints, more, "phone", t);
      case FieldType.Secret t -> own(json, constraints, more, "secret", t);
      case FieldType.FileReference t -> own(json, constraints, more, "file", t);
      case FieldType.WholeNumber t -> whole(json, more, t.width());
      case FieldType.Counter t -> {
        more.put("type", "counter");
        whole(json, more, t.width());
      }
      case FieldType.Decimal t -> decimal(json, more, "decimal", t.precision(), t.scale());
      case FieldType.Money t -> decimal(json, more, "money", t.precision(), t.scale());
      case FieldType.AnyNumber t -> json.put("type", "number");
      case FieldType.TrueFalse t -> json.put("type", "boolean");
      case FieldType.Date t -> json.put("type", "date");
      case FieldType.Time t -> json.put("type", "time");
      case FieldType.DateTime t -> {
        json.put("type", "datetime");
        if (t.zoned()) {
          more.put("type", "zoned");
        }
      }
      case FieldType.Uuid t -> json.put("type", "string").put("format", "uuid");
      case FieldType.Content t -> content(json, more, t);
      case FieldType.Kept t -> json.put("type", t.standardType());
    }
  }

  private static void sized(
      Json.Obj json, Json.Obj constraints, String format, FieldType.Sized type, int usual) {
    json.put("type", "string").put("format", format);
    if (type.maxLength() != usual) {
      constraints.put("maxLength", type.maxLength());
    }
  }

  private static void own(
      Json.Obj json, Json.Obj constraints, Json.Obj more, String name, FieldType.Sized type) {
    json.put("type", "string");
    constraints.put("maxLength", type.maxLength());
    more.put("type", name);
  }

  private static void content(Json.Obj json, Json.Obj more, FieldType.Content type) {
    json.put("type", "string").put("format", "binary");
    if (type.mostBytes() < Integer.MAX_VALUE) {
      more.put("bytes", type.mostBytes());
    }
    if (!type.media().isEmpty()) {
      var names = new ArrayList<Json>();
      type.media().forEach(media -> names.add(new Json.Text(media.iana(), 0)));
      more.put("media", new Json.Arr(names, 0));
    }
  }

  private static void whole(Json.Obj json, Json.Obj more, Width width) {
    json.put("type", "integer");
    if (width != Width.BITS_64) {
      more.put("bits", width.bits());
    }
  }

  private static void decimal(Json.Obj json, Json.Obj more, String name, int precision, int scale) {
    json.put("type", "number");
    more.put("type", name).put("precision", precision).put("scale", scale);
  }

  private static void writeLimits(Field field, Json.Obj constraints) {
    Limits limits = field.limits();
    limits.minimum().ifPresent(text -> constraints.put("minimum", bound(text, field.type())));
    limits.maximum().ifPresent(text -> constraints.put("maximum", bound(text, field.type())));
    limits
        .above()
        .ifPresent(text -> constraints.put("exclusiveMinimum", bound(text, field.type())));
    limits
        .below()
        .ifPresent(text -> constraints.put("exclusiveMaximum", bound(text, field.type())));
    limits.pattern().ifPresent(text -> constraints.put("pattern", text));
    limits.minLength().ifPresent(least -> constraints.put("minLength", least));
    if (!limits.allowed().isEmpty()) {
      var items = new ArrayList<Json>();
      limits.allowed().forEach(text -> items.add(bound(text, field.type())));
      constraints.put("enum", new Json.Arr(items, 0));
    }
  }

  /** A bound in the JSON type of its field. */
  private static Json bound(String text, FieldType type) {
    boolean numeric =
        type.kind() == joiner.expression.Kind.WHOLE || type.kind() == joiner.expression.Kind.NUMBER;
    return numeric && text.matches("-?(0|[1-9]\\d*)(\\.\\d+)?([eE][+-]?\\d+)?")
        ? new Json.Num(text, 0)
        : new Json.Text(text, 0);
  }
}
