package joiner.source;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.StreamReadFeature;
import java.io.IOException;
import java.nio.file.Path;
import joiner.format.UnreadableFileException;

/**
 * JSON documents, and lines of JSON, read as a stream. An array of records is a table; so is each
 * array within a record, whose rows belong to it. A document that is one record with nothing but
 * arrays gives a table for each.
 */
final class JsonDocument implements SourceReader {
  private static final JsonFactory JSON =
      JsonFactory.builder()
          .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
          .enable(StreamReadFeature.INCLUDE_SOURCE_IN_LOCATION)
          .build();

  @Override
  public Understood read(Path file, ReadingOptions options, TableSinks sinks, ProblemLog problems)
      throws IOException, UnreadableFileException {
    String stem = Source.stem(String.valueOf(file.getFileName()));
    boolean wrapper = onlyArrays(file);
    var rows = new NestedRows(sinks);
    var walk = new Walk(file, options, problems, rows);
    try (JsonParser json = JSON.createParser(file.toFile())) {
      try {
        boolean any = false;
        while (json.nextToken() != null) {
          any = true;
          if (wrapper) {
            walk.arraysOf(json);
          } else {
            walk.top(json, stem);
          }
        }
        if (!any) {
          throw new UnreadableFileException(
              file, 1, "the file is empty; it needs a JSON document.");
        }
      } catch (JsonProcessingException e) {
        int line = e.getLocation() == null ? 0 : e.getLocation().getLineNr();
        if (!walk.rowsSeen()) {
          throw new UnreadableFileException(
              file, line, "this is not JSON (" + e.getOriginalMessage() + ").");
        }
        problems.add(
            SourceProblem.inLine(
                file,
                line,
                "the JSON breaks off here ("
                    + e.getOriginalMessage()
                    + "); what stands before it was read. Mend this place."));
      } catch (NestedRows.TooDeepException e) {
        throw new UnreadableFileException(file, 0, e.getMessage() + "; take the part you need.");
      }
    }
    return new Understood("JSON", -1);
  }

  /** Whether the document is one record of which every value is an array. */
  private static boolean onlyArrays(Path file) throws IOException {
    try (JsonParser json = JSON.createParser(file.toFile())) {
      if (json.nextToken() != JsonToken.START_OBJECT) {
        return false;
      }
      boolean any = false;
      while (json.nextToken() == JsonToken.FIELD_NAME) {
        if (json.nextToken() != JsonToken.START_ARRAY) {
          return false;
        }
        any = true;
        json.skipChildren();
      }
      return any && json.nextToken() == null;
    } catch (JsonProcessingException e) {
      return false; // The reading itself will say where it breaks.
    }
  }

  /** Goes through the tokens. */
  private static final class Walk {
    private final Path file;
    private final ReadingOptions options;
    private final ProblemLog problems;
    private final NestedRows rows;
    private NestedRows.@org.jspecify.annotations.Nullable Section top;
    private boolean seen;

    Walk(Path file, ReadingOptions options, ProblemLog problems, NestedRows rows) {
      this.file = file;
      this.options = options;
      this.problems = problems;
      this.rows = rows;
    }

    boolean rowsSeen() {
      return seen;
    }

    void arraysOf(JsonParser json) throws IOException {
      while (json.nextToken() == JsonToken.FIELD_NAME) {
        NestedRows.Section section = rows.top(json.currentName());
        json.nextToken();
        array(json, section);
      }
    }

    void top(JsonParser json, String name) throws IOException {
      if (top == null) {
        top = rows.top(name);
      }
      if (json.currentToken() == JsonToken.START_ARRAY) {
        array(json, top);
      } else {
        row(json, top);
      }
    }

    private void array(JsonParser json, NestedRows.Section section) throws IOException {
      while (json.nextToken() != JsonToken.END_ARRAY) {
        row(json, section);
      }
    }

    /** One row: the value at hand, which may be a record, an array or plain. */
    private void row(JsonParser json, NestedRows.Section section) throws IOException {
      options.checkStopped();
      long line = json.currentTokenLocation().getLineNr();
      switch (json.currentToken()) {
        case START_OBJECT -> record(json, section, "");
        case START_ARRAY -> detail(json, section, "item");
        default -> plain(json, section, section.valueHeader());
      }
      section.endRow(line);
      seen = true;
    }

    private void record(JsonParser json, NestedRows.Section section, String path)
        throws IOException {
      while (json.nextToken() == JsonToken.FIELD_NAME) {
        String header = path + json.currentName();
        switch (json.nextToken()) {
          case START_OBJECT -> record(json, section, header + ".");
          case START_ARRAY -> detail(json, section, header);
          default -> plain(json, section, header);
        }
      }
    }

    private void detail(JsonParser json, NestedRows.Section parent, String name)
        throws IOException {
      NestedRows.Section section = parent.detail(name);
      while (json.nextToken() != JsonToken.END_ARRAY) {
        section.belongsTo(parent);
        row(json, section);
      }
    }

    private void plain(JsonParser json, NestedRows.Section section, String header)
        throws IOException {
      String text = json.currentToken() == JsonToken.VALUE_NULL ? "" : json.getText();
      if (text.startsWith("=") && text.length() > 1) {
        problems.add(
            SourceProblem.inLine(
                file,
                json.currentTokenLocation().getLineNr(),
                "a formula stands where a value is expected; it was kept as text, not computed."));
      }
      section.cell(header, text);
    }
  }
}
