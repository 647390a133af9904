package joiner.format;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.model.ChoiceId;
import joiner.model.FieldType;
import joiner.model.Hue;

/**
 * Fixed choices of a field. The standard's {@code enum} lists their texts; what else is said of
 * them stands beside it, entry by entry, as an id alone or as an object.
 */
final class ChoicesJson {
  /** A type of Joiner's own for choices that are not listed yet. */
  static final String NOT_LISTED = "choice";

  private static final String DETAILS = "choices";
  private static final String GROWS = "grows";

  private ChoicesJson() {}

  /**
   * What is known of choices.
   *
   * @param texts in their order; one that is there twice counts once
   */
  static FieldType.Choice read(List<String> texts, Members more) throws UnreadableFileException {
    List<String> different = texts.stream().distinct().toList();
    List<Json> details = more.list(DETAILS);
    boolean grows = more.flag(GROWS);
    boolean said = details.stream().anyMatch(Json.Obj.class::isInstance);
    if (said && details.size() != different.size()) {
      throw more.problem(
          "“choices” says something of "
              + details.size()
              + " choices where “enum” lists "
              + different.size()
              + "; it has one entry for each, in the same order.");
    }
    if (details.size() == different.size()) {
      var entries = new ArrayList<FieldType.Choice.Entry>();
      for (int i = 0; i < details.size(); i++) {
        entries.add(entry(details.get(i), different.get(i), more));
      }
      long ids = entries.stream().map(FieldType.Choice.Entry::id).distinct().count();
      if (ids == entries.size()) {
        return new FieldType.Choice(entries, grows);
      }
      if (said) {
        throw more.problem("two of the “choices” have one id; each has its own.");
      }
    }
    return FieldType.Choice.of(different).withGrows(grows);
  }

  private static FieldType.Choice.Entry entry(Json detail, String text, Members more)
      throws UnreadableFileException {
    if (detail instanceof Json.Text id && !id.text().isBlank()) {
      return new FieldType.Choice.Entry(new ChoiceId(id.text()), text);
    }
    Members members = more.inside(detail, "what is said of a choice");
    String word = members.text("hue");
    Optional<Hue> hue = Hue.of(word);
    if (hue.isEmpty() && !word.isEmpty()) {
      throw members.problem("there is no hue “" + word + "”; use one of " + hues() + ".");
    }
    var id = members.optionalText("id").filter(given -> !given.isBlank()).orElse(idOf(text));
    var entry =
        new FieldType.Choice.Entry(
            new ChoiceId(id), text, members.text("description"), hue, members.flag("retired"));
    if (!members.rest().byProperty().isEmpty()) {
      throw members.problem(
          "a choice has id, description, hue and retired, not "
              + String.join(", ", members.rest().byProperty().keySet())
              + ".");
    }
    return entry;
  }

  private static String idOf(String text) {
    return text.isBlank() ? "blank" : text;
  }

  private static String hues() {
    return String.join(", ", Arrays.stream(Hue.values()).map(Hue::word).toList());
  }

  /** The texts of the standard's {@code categories}; what each means, where it is said. */
  static Optional<FieldType.Choice> categories(List<Json> categories) {
    Map<String, String> meanings = new LinkedHashMap<>();
    for (Json category : categories) {
      switch (category) {
        case Json.Text text -> meanings.put(text.text(), "");
        case Json.Obj object
            when object.get("value").orElse(null) instanceof Json.Text value
                && object.members().size() <= 2 ->
            meanings.put(
                value.text(),
                object.get("label").orElse(null) instanceof Json.Text label ? label.text() : "");
        default -> {
          return Optional.empty(); // Numbers, or more than is understood: kept word for word.
        }
      }
    }
    FieldType.Choice choices =
        FieldType.Choice.of(List.copyOf(meanings.keySet()))
            .withEach(
                entry -> {
                  String meaning = meanings.getOrDefault(entry.text(), "");
                  return meaning.equals(entry.text()) ? entry : entry.withDescription(meaning);
                });
    return categories.isEmpty() ? Optional.empty() : Optional.of(choices);
  }

  static void write(FieldType.Choice choice, Json.Obj constraints, Json.Obj more) {
    if (choice.entries().isEmpty()) {
      more.put("type", NOT_LISTED);
    } else {
      constraints.put("enum", Json.Arr.of(choice.values()));
    }
    if (!choice.entries().equals(FieldType.Choice.of(choice.values()).entries())) {
      var details = new ArrayList<Json>();
      choice.entries().forEach(entry -> details.add(detail(entry)));
      more.put(DETAILS, new Json.Arr(details, 0));
    }
    if (choice.grows()) {
      more.put(GROWS, true);
    }
  }

  /** The id alone where nothing else is said. */
  private static Json detail(FieldType.Choice.Entry entry) {
    if (entry.equals(new FieldType.Choice.Entry(entry.id(), entry.text()))) {
      return new Json.Text(entry.id().value(), 0);
    }
    var json = new Json.Obj();
    if (!entry.id().value().equals(idOf(entry.text()))) {
      json.put("id", entry.id().value());
    }
    json.putIfAny("description", entry.description());
    entry.hue().ifPresent(hue -> json.put("hue", hue.word()));
    if (entry.retired()) {
      json.put("retired", true);
    }
    return json;
  }
}
