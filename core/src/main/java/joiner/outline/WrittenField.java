package joiner.outline;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import joiner.model.FieldType;

/** Reads a field written in one piece: "price decimal 8.2 required", "kiln → Kiln". */
final class WrittenField {
  private static final int ANY_CASE = Pattern.CASE_INSENSITIVE;
  private static final Pattern DEFAULT =
      Pattern.compile("(.+?)\\s+default\\s+(.+)", ANY_CASE | Pattern.DOTALL);
  private static final Pattern ARROW =
      Pattern.compile("(.*?)\\s*(?:→|->|\\breferences\\b|\\brefers to\\b)\\s*(.+)", ANY_CASE);
  private static final Pattern REQUIRED =
      Pattern.compile("(.+?)[\\s,]*(?:\\bnot null|\\brequired|\\bmandatory|[*!])", ANY_CASE);
  private static final Pattern OPTIONAL =
      Pattern.compile("(.+?)[\\s,]*(?:\\bnull|\\bnullable|\\boptional|\\?)", ANY_CASE);
  private static final Pattern UNIQUE = Pattern.compile("(.+?)[\\s,]*\\bunique", ANY_CASE);
  private static final Pattern KEY =
      Pattern.compile("(.+?)[\\s,]*(?:\\bprimary key|\\(?\\bpk\\)?)", ANY_CASE);

  /** After these words no noun of the label follows. */
  private static final Pattern ENDED = Pattern.compile(".*\\s(?:on|at|by|in|from|to)", ANY_CASE);

  private WrittenField() {}

  /** The field; what follows its label is taken off from the end, as long as it is understood. */
  static OutlinedField read(String text) {
    String rest = text.strip();
    var field = OutlinedField.of(rest);
    Matcher with = DEFAULT.matcher(rest);
    if (with.matches()) {
      field = field.withDefault(with.group(2).strip());
      rest = with.group(1);
    }
    for (boolean more = true; more; ) {
      Matcher required = REQUIRED.matcher(rest);
      Matcher optional = OPTIONAL.matcher(rest);
      Matcher unique = UNIQUE.matcher(rest);
      Matcher key = KEY.matcher(rest);
      more = true;
      if (required.matches()) {
        field = field.withRequired(true);
        rest = required.group(1);
      } else if (key.matches()) {
        field = field.withKey(true);
        rest = key.group(1);
      } else if (unique.matches()) {
        field = field.withUnique(true);
        rest = unique.group(1);
      } else if (optional.matches()) {
        rest = optional.group(1);
      } else {
        more = false;
      }
    }
    Matcher arrow = ARROW.matcher(rest);
    if (arrow.matches()) {
      String table = arrow.group(2).strip();
      String label = arrow.group(1).isBlank() ? table : arrow.group(1).strip();
      return field.referringTo(table).withLabel(label);
    }
    return typed(field, rest.strip());
  }

  private static OutlinedField typed(OutlinedField field, String text) {
    for (int blank = text.indexOf(' '); blank > 0; blank = text.indexOf(' ', blank + 1)) {
      String said = text.substring(blank + 1).strip().replaceAll("^\\((.*)\\)$", "$1");
      Optional<FieldType> type = TypeText.read(said);
      String label = text.substring(0, blank).strip();
      if (type.isPresent() && (!TypeText.isNoun(said) || ENDED.matcher(label).matches())) {
        return field.withLabel(label).withType(type.get());
      }
    }
    return field.withLabel(text);
  }
}
