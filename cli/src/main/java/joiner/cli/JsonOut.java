package joiner.cli;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.util.DefaultPrettyPrinter;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.util.Collection;
import java.util.Map;
import java.util.Optional;

/** Prints one JSON document made of maps, lists, texts, numbers and truth values. */
final class JsonOut {
  private JsonOut() {}

  static void print(Object document, PrintWriter out) throws IOException {
    var text = new StringWriter();
    try (JsonGenerator json = new JsonFactory().createGenerator(text)) {
      json.setPrettyPrinter(new DefaultPrettyPrinter());
      write(document, json);
    }
    out.println(text);
  }

  private static void write(Object value, JsonGenerator json) throws IOException {
    switch (value) {
      case Map<?, ?> map -> {
        json.writeStartObject();
        for (Map.Entry<?, ?> entry : map.entrySet()) {
          json.writeFieldName(String.valueOf(entry.getKey()));
          write(entry.getValue(), json);
        }
        json.writeEndObject();
      }
      case Collection<?> list -> {
        json.writeStartArray();
        for (Object item : list) {
          write(item, json);
        }
        json.writeEndArray();
      }
      case Integer number -> json.writeNumber(number);
      case Long number -> json.writeNumber(number);
      case Double number -> json.writeNumber(number);
      case Boolean truth -> json.writeBoolean(truth);
      case None none -> json.writeNull();
      default -> json.writeString(String.valueOf(value));
    }
  }

  /** A value, or JSON's null where there is none. */
  static Object orNull(Optional<String> value) {
    return value.isPresent() ? value.get() : None.NONE;
  }

  /** Stands for JSON's null. */
  enum None {
    NONE
  }
}
