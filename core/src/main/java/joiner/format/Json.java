package joiner.format;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** A JSON value that knows the line it was read from (from 1; 0 for values made here). */
sealed interface Json {
  int line();

  /** An object; the order of its members is kept. */
  record Obj(Map<String, Json> members, int line) implements Json {
    Obj() {
      this(new LinkedHashMap<>(), 0);
    }

    Optional<Json> get(String name) {
      return Optional.ofNullable(members.get(name));
    }

    Obj put(String name, Json value) {
      members.put(name, value);
      return this;
    }

    Obj put(String name, String value) {
      return put(name, new Text(value, 0));
    }

    /** Adds the text unless it is empty. */
    Obj putIfAny(String name, String value) {
      return value.isEmpty() ? this : put(name, value);
    }

    Obj put(String name, boolean value) {
      return put(name, new Bool(value, 0));
    }

    Obj put(String name, long value) {
      return put(name, new Num(String.valueOf(value), 0));
    }
  }

  /** An array. */
  record Arr(List<Json> items, int line) implements Json {
    static Arr of(List<String> texts) {
      return new Arr(texts.stream().<Json>map(text -> new Text(text, 0)).toList(), 0);
    }
  }

  /** A string. */
  record Text(String text, int line) implements Json {}

  /** A number, as written. */
  record Num(String text, int line) implements Json {}

  /** true or false. */
  record Bool(boolean value, int line) implements Json {}

  /** null. */
  record Null(int line) implements Json {}

  /** As it is called in messages. */
  default String kind() {
    return switch (this) {
      case Obj o -> "an object";
      case Arr a -> "a list";
      case Text t -> "the text “" + t.text() + "”";
      case Num n -> "the number " + n.text();
      case Bool b -> String.valueOf(b.value());
      case Null n -> "null";
    };
  }
}
