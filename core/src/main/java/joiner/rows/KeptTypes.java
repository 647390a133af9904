package joiner.rows;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import java.io.IOException;
import java.util.regex.Pattern;
import joiner.expression.Value;

/** Lexical checks of the Data Package types that are kept as text (Table Schema, version 2). */
final class KeptTypes {
  private static final Pattern YEAR = Pattern.compile("-?\\d{4,9}");
  private static final Pattern YEAR_MONTH = Pattern.compile("-?\\d{4,9}-(0[1-9]|1[0-2])");
  private static final Pattern DURATION =
      Pattern.compile(
          "-?P(?=.)(\\d+Y)?(\\d+M)?(\\d+W)?(\\d+D)?(T(?=.)(\\d+H)?(\\d+M)?(\\d+(\\.\\d+)?S)?)?");
  private static final Pattern GEO_POINT =
      Pattern.compile("\\s*-?\\d+(\\.\\d+)?\\s*,\\s*-?\\d+(\\.\\d+)?\\s*");
  private static final JsonFactory JSON = new JsonFactory();

  private KeptTypes() {}

  static ReadValue read(String text, String standardType) {
    return switch (standardType) {
      case "year" -> check(YEAR.matcher(text).matches(), text, "a year like 2026");
      case "yearmonth" -> check(YEAR_MONTH.matcher(text).matches(), text, "a month like 2026-03");
      case "duration" -> check(DURATION.matcher(text).matches(), text, "a duration like P1DT2H");
      case "geopoint" ->
          check(GEO_POINT.matcher(text).matches(), text, "a point like 90.50, 45.50");
      case "object", "geojson" ->
          check(isJson(text, JsonToken.START_OBJECT), text, "a JSON object");
      case "array" -> check(isJson(text, JsonToken.START_ARRAY), text, "a JSON array");
      default -> new ReadValue.Fits(new Value.Text(text));
    };
  }

  private static ReadValue check(boolean good, String text, String expected) {
    return good ? new ReadValue.Fits(new Value.Text(text)) : new ReadValue.Unfit(expected);
  }

  private static boolean isJson(String text, JsonToken first) {
    try (JsonParser parser = JSON.createParser(text)) {
      if (parser.nextToken() != first) {
        return false;
      }
      parser.skipChildren();
      return parser.nextToken() == null;
    } catch (IOException e) {
      return false;
    }
  }
}
