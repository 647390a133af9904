package joiner.format;

import com.fasterxml.jackson.core.io.JsonStringEncoder;
import java.util.Iterator;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;

/**
 * Writes JSON in one fixed layout: the members of the big objects stand on lines of their own, each
 * field, key, rule and the like on one line, so that a change of one field changes one line.
 */
final class JsonText {
  /** Members whose list items stand on one line each. */
  private static final Set<String> ITEM_PER_LINE =
      Set.of(
          "fields",
          "foreignKeys",
          "areas",
          "pins",
          "questions",
          "indexes",
          "rules",
          "sources",
          "contributors",
          "licenses");

  /** Members that are laid out over several lines. */
  private static final Set<String> OPEN = Set.of("resources", "schema", DataPackage.MORE);

  private static final Pattern HALF_PAIR = Pattern.compile("\\p{Cs}");

  private JsonText() {}

  /** The whole document, ending with a line break. */
  static String document(Json json) {
    var out = new StringBuilder();
    open(json, 0, out);
    return escaped(out.append('\n').toString());
  }

  /** Half a surrogate pair has no bytes in UTF-8; JSON can say it all the same. */
  private static String escaped(String text) {
    return HALF_PAIR
        .matcher(text)
        .replaceAll(half -> String.format("\\\\u%04x", (int) half.group().charAt(0)));
  }

  /** The value on one line. */
  static String line(Json json) {
    var out = new StringBuilder();
    compact(json, out);
    return out.toString();
  }

  private static void open(Json json, int depth, StringBuilder out) {
    if (json instanceof Json.Obj object && !object.members().isEmpty()) {
      out.append("{\n");
      for (Iterator<Map.Entry<String, Json>> it = object.members().entrySet().iterator();
          it.hasNext(); ) {
        Map.Entry<String, Json> member = it.next();
        indent(depth + 1, out);
        string(member.getKey(), out);
        out.append(": ");
        member(member.getKey(), member.getValue(), depth + 1, out);
        out.append(it.hasNext() ? ",\n" : "\n");
      }
      indent(depth, out);
      out.append('}');
    } else {
      compact(json, out);
    }
  }

  private static void member(String name, Json value, int depth, StringBuilder out) {
    if (value instanceof Json.Arr array
        && !array.items().isEmpty()
        && (ITEM_PER_LINE.contains(name) || name.equals("resources"))) {
      items(array, name.equals("resources"), depth, out);
    } else if (OPEN.contains(name)) {
      open(value, depth, out);
    } else {
      compact(value, out);
    }
  }

  private static void items(Json.Arr array, boolean opened, int depth, StringBuilder out) {
    out.append("[\n");
    for (Iterator<Json> it = array.items().iterator(); it.hasNext(); ) {
      Json item = it.next();
      indent(depth + 1, out);
      if (opened) {
        open(item, depth + 1, out);
      } else {
        compact(item, out);
      }
      out.append(it.hasNext() ? ",\n" : "\n");
    }
    indent(depth, out);
    out.append(']');
  }

  private static void compact(Json json, StringBuilder out) {
    switch (json) {
      case Json.Obj object -> {
        out.append('{');
        String before = "";
        for (Map.Entry<String, Json> member : object.members().entrySet()) {
          out.append(before);
          string(member.getKey(), out);
          out.append(": ");
          compact(member.getValue(), out);
          before = ", ";
        }
        out.append('}');
      }
      case Json.Arr array -> {
        out.append('[');
        String before = "";
        for (Json item : array.items()) {
          out.append(before);
          compact(item, out);
          before = ", ";
        }
        out.append(']');
      }
      case Json.Text text -> string(text.text(), out);
      case Json.Num number -> out.append(number.text());
      case Json.Bool bool -> out.append(bool.value());
      case Json.Null none -> out.append("null");
    }
  }

  private static void string(String text, StringBuilder out) {
    out.append('"');
    JsonStringEncoder.getInstance().quoteAsString(text, out);
    out.append('"');
  }

  private static void indent(int depth, StringBuilder out) {
    out.repeat("  ", depth);
  }
}
