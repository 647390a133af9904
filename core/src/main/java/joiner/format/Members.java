package joiner.format;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import joiner.model.Extras;

/** Reads the members of one JSON object and remembers which were understood. */
final class Members {
  private final Json.Obj object;
  private final Path file;
  private final Set<String> read = new LinkedHashSet<>();

  Members(Json json, Path file, String what) throws UnreadableFileException {
    this.file = file;
    if (!(json instanceof Json.Obj found)) {
      throw new UnreadableFileException(
          file, json.line(), what + " must be an object, not " + json.kind() + ".");
    }
    this.object = found;
  }

  int line() {
    return object.line();
  }

  Optional<Json> any(String name) {
    read.add(name);
    return object.get(name).filter(value -> !(value instanceof Json.Null));
  }

  String text(String name) throws UnreadableFileException {
    return optionalText(name).orElse("");
  }

  Optional<String> optionalText(String name) throws UnreadableFileException {
    Optional<Json> value = any(name);
    if (value.isEmpty()) {
      return Optional.empty();
    }
    if (value.get() instanceof Json.Text text) {
      return Optional.of(text.text());
    }
    throw wrong(name, value.get(), "a text");
  }

  /** A text or number, as text. */
  Optional<String> scalar(String name) throws UnreadableFileException {
    Optional<Json> value = any(name);
    return value.isEmpty() ? Optional.empty() : Optional.of(scalar(name, value.get()));
  }

  private String scalar(String name, Json value) throws UnreadableFileException {
    return switch (value) {
      case Json.Text text -> text.text();
      case Json.Num number -> number.text();
      case Json.Bool bool -> String.valueOf(bool.value());
      case Json.Obj o -> throw wrong(name, o, "a single value");
      case Json.Arr a -> throw wrong(name, a, "a single value");
      case Json.Null n -> throw wrong(name, n, "a single value");
    };
  }

  boolean flag(String name) throws UnreadableFileException {
    Optional<Json> value = any(name);
    if (value.isEmpty()) {
      return false;
    }
    if (value.get() instanceof Json.Bool bool) {
      return bool.value();
    }
    throw wrong(name, value.get(), "true or false");
  }

  Optional<Integer> number(String name) throws UnreadableFileException {
    return number(name, Integer::parseInt);
  }

  Optional<Long> longNumber(String name) throws UnreadableFileException {
    return number(name, Long::parseLong);
  }

  private <T> Optional<T> number(String name, Function<String, T> parse)
      throws UnreadableFileException {
    Optional<Json> value = any(name);
    if (value.isEmpty()) {
      return Optional.empty();
    }
    if (value.get() instanceof Json.Num number) {
      try {
        return Optional.of(parse.apply(number.text()));
      } catch (NumberFormatException e) {
        throw wrong(name, number, "a whole number");
      }
    }
    throw wrong(name, value.get(), "a whole number");
  }

  List<Json> list(String name) throws UnreadableFileException {
    Optional<Json> value = any(name);
    if (value.isEmpty()) {
      return List.of();
    }
    if (value.get() instanceof Json.Arr array) {
      return array.items();
    }
    throw wrong(name, value.get(), "a list");
  }

  /** The items of a list; none of anything else, which stays unread. */
  List<Json> listIfAny(String name) {
    return object.get(name).orElse(null) instanceof Json.Arr array ? array.items() : List.of();
  }

  /** The members of an item of a list. */
  Members inside(Json item, String what) throws UnreadableFileException {
    return new Members(item, file, what);
  }

  /** A list of texts; a single text counts as a list of one. */
  List<String> texts(String name) throws UnreadableFileException {
    Optional<Json> value = any(name);
    if (value.isPresent() && value.get() instanceof Json.Text text) {
      return List.of(text.text());
    }
    var texts = new ArrayList<String>();
    for (Json item : list(name)) {
      texts.add(scalar(name, item));
    }
    return texts;
  }

  Members object(String name) throws UnreadableFileException {
    return new Members(
        any(name).orElseGet(() -> new Json.Obj(new LinkedHashMap<>(), object.line())), file, name);
  }

  /** Everything not asked for so far, as JSON text. */
  Extras rest() {
    Map<String, String> rest = new LinkedHashMap<>();
    object
        .members()
        .forEach(
            (name, value) -> {
              if (!read.contains(name)) {
                rest.put(name, JsonText.line(value));
              }
            });
    return new Extras(rest);
  }

  UnreadableFileException wrong(String name, Json found, String expected) {
    return new UnreadableFileException(
        file, found.line(), "“" + name + "” must be " + expected + ", not " + found.kind() + ".");
  }

  UnreadableFileException problem(String message) {
    return new UnreadableFileException(file, object.line(), message);
  }
}
