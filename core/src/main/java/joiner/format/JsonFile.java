package joiner.format;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;

/** Reads JSON text into a tree that remembers lines. */
final class JsonFile {
  private static final JsonFactory FACTORY = JsonFactory.builder().build();

  private JsonFile() {}

  /** Reads a whole file. */
  static Json read(Path file, Path shownAs) throws IOException, UnreadableFileException {
    String text;
    try {
      text = Files.readString(file);
    } catch (MalformedInputException e) {
      throw new UnreadableFileException(
          shownAs, 0, "the file is not UTF-8 text; save it as UTF-8.");
    }
    return parse(text, shownAs);
  }

  /** Reads a text; {@code shownAs} is the file named in errors. */
  static Json parse(String text, Path shownAs) throws UnreadableFileException {
    try (JsonParser parser = FACTORY.createParser(text)) {
      if (parser.nextToken() == null) {
        throw new UnreadableFileException(shownAs, 1, "the file is empty; restore it from a copy.");
      }
      Json value = value(parser, shownAs);
      if (parser.nextToken() != null) {
        throw new UnreadableFileException(
            shownAs,
            parser.currentTokenLocation().getLineNr(),
            "there is text after the end; remove it.");
      }
      return value;
    } catch (JsonProcessingException e) {
      int line = e.getLocation() == null ? 0 : e.getLocation().getLineNr();
      throw new UnreadableFileException(
          shownAs,
          line,
          "this is not JSON ("
              + e.getOriginalMessage()
              + "); mend the line or restore the file from a copy.");
    } catch (UnreadableFileException e) {
      throw e;
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }

  private static Json value(JsonParser parser, Path file)
      throws IOException, UnreadableFileException {
    int line = parser.currentTokenLocation().getLineNr();
    return switch (parser.currentToken()) {
      case START_OBJECT -> object(parser, file, line);
      case START_ARRAY -> array(parser, file, line);
      case VALUE_STRING -> new Json.Text(parser.getText(), line);
      case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> new Json.Num(parser.getText(), line);
      case VALUE_TRUE -> new Json.Bool(true, line);
      case VALUE_FALSE -> new Json.Bool(false, line);
      default -> new Json.Null(line);
    };
  }

  private static Json object(JsonParser parser, Path file, int line)
      throws IOException, UnreadableFileException {
    var members = new LinkedHashMap<String, Json>();
    while (parser.nextToken() != JsonToken.END_OBJECT) {
      String name = parser.currentName();
      int at = parser.currentTokenLocation().getLineNr();
      parser.nextToken();
      if (members.put(name, value(parser, file)) != null) {
        throw new UnreadableFileException(
            file, at, "“" + name + "” stands here twice; remove one of them.");
      }
    }
    return new Json.Obj(members, line);
  }

  private static Json array(JsonParser parser, Path file, int line)
      throws IOException, UnreadableFileException {
    var items = new ArrayList<Json>();
    while (parser.nextToken() != JsonToken.END_ARRAY) {
      items.add(value(parser, file));
    }
    return new Json.Arr(items, line);
  }
}
