package joiner.format;

import java.nio.file.Path;
import java.util.Map;
import joiner.model.Extras;

/** Puts properties that were kept word for word back where they stood. */
final class ExtrasJson {
  private ExtrasJson() {}

  /** A property named {@code part/name} goes into that part, any other into the object itself. */
  static void write(Extras extras, Json.Obj json, Map<String, Json.Obj> parts) {
    extras
        .byProperty()
        .forEach(
            (property, text) -> {
              int slash = property.indexOf('/');
              Json.Obj part = slash > 0 ? parts.get(property.substring(0, slash)) : null;
              if (part != null) {
                part.put(property.substring(slash + 1), parse(text));
              } else {
                json.put(property, parse(text));
              }
            });
  }

  static Json parse(String text) {
    try {
      return JsonFile.parse(text, Path.of("kept property"));
    } catch (UnreadableFileException e) {
      throw new IllegalArgumentException("a kept property is not JSON: " + text, e);
    }
  }
}
