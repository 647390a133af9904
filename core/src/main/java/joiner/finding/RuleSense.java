package joiner.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import joiner.edit.ChangeTable;
import joiner.meaning.Draft;
import joiner.meaning.TableMeaning;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.naming.WordList;
import joiner.reasoning.Note;
import joiner.reasoning.Reasoner;
import joiner.reasoning.Understood;

/**
 * Whether rules make sense, by what the solver knows of them. It is no check among the others, for
 * loading the solver takes longer than all of these; whoever has the time asks it beside them.
 */
public final class RuleSense {
  private static final TableFinding NEVER =
      new TableFinding("rule-never", Severity.ERROR, Topic.GUARD);
  private static final TableFinding CONTRADICTS =
      new TableFinding("rules-contradict", Severity.ERROR, Topic.GUARD);
  private static final TableFinding REFUSES_DEFAULT =
      new TableFinding("rule-refuses-default", Severity.WARNING, Topic.GUARD);
  private static final TableFinding UNKNOWN =
      new TableFinding("rule-only-unknown", Severity.WARNING, Topic.GUARD);
  private static final TableFinding ALWAYS =
      new TableFinding("rule-always", Severity.ADVICE, Topic.GUARD);
  private static final TableFinding IMPLIED =
      new TableFinding("rule-implied", Severity.ADVICE, Topic.GUARD);

  private final Table table;
  private final List<Finding> found = new ArrayList<>();

  private RuleSense(Table table) {
    this.table = table;
  }

  /** Ids of what it finds, the worst first. */
  public static List<String> ids() {
    return List.of(
        NEVER.id(),
        CONTRADICTS.id(),
        REFUSES_DEFAULT.id(),
        UNKNOWN.id(),
        ALWAYS.id(),
        IMPLIED.id());
  }

  /** Whether there is a rule to ask about, so that a solver is wanted. */
  public static boolean hasRules(Draft draft) {
    return draft.design().tables().stream().anyMatch(table -> !table.rules().isEmpty());
  }

  /** What makes no sense of the rules of a table. */
  public static List<Finding> of(TableMeaning meaning, Reasoner reasoner) {
    if (meaning.table().rules().isEmpty()) {
      return List.of();
    }
    return of(meaning.table(), reasoner.rules(meaning));
  }

  /** What makes no sense of the rules of a table, of which that is known. */
  public static List<Finding> of(Table table, List<Understood> understood) {
    var sense = new RuleSense(table);
    understood.forEach(sense::look);
    return sense.found;
  }

  private static String named(Rule rule) {
    return "The rule " + rule.label();
  }

  private String ofTable(Rule rule) {
    return named(rule) + " of " + table.label();
  }

  private Remedy without(Rule rule) {
    return new Remedy("Remove the rule", ChangeTable.removeRule(table, rule));
  }

  private void look(Understood known) {
    Rule rule = known.rule();
    String others = WordList.and(known.by().stream().map(Rule::label).toList());
    switch (known.verdict()) {
      case NEVER ->
          add(
              NEVER,
              ofTable(rule) + " can never be met.",
              "Whatever is entered is refused; change its condition or remove it.",
              without(rule));
      case CONTRADICTS ->
          add(
              CONTRADICTS,
              ofTable(rule) + " cannot be met together with " + others + ".",
              "No row keeps all of them; change one or remove it.",
              without(rule));
      case ALWAYS ->
          add(
              ALWAYS,
              ofTable(rule) + " is always met.",
              known.notes().isEmpty()
                  ? "Nothing its fields can hold breaks it, so that it guards nothing."
                  : known.notes().stream().map(Note::words).collect(Collectors.joining(" ")),
              without(rule));
      case IMPLIED ->
          add(
              IMPLIED,
              ofTable(rule) + " follows from " + others + ".",
              known.notes().stream().anyMatch(note -> note.kind() == Note.Kind.EQUAL)
                  ? "Both say the same; one of them is enough."
                  : "It refuses no row that would not be refused anyway.",
              without(rule));
      case FINE, UNDECIDED -> {}
    }
    known.notes().forEach(note -> look(rule, note));
  }

  private void look(Rule rule, Note note) {
    switch (note.kind()) {
      case REFUSES_DEFAULT ->
          note.field()
              .ifPresent(
                  id ->
                      found.add(
                          REFUSES_DEFAULT.about(
                              table,
                              table.field(id),
                              ofTable(rule)
                                  + " refuses the default of "
                                  + table.field(id).label()
                                  + ".",
                              "Who leaves the field as it comes is refused; change one of them.")));
      case NEVER_TRUE ->
          add(
              UNKNOWN,
              ofTable(rule) + " is true of no row.",
              "A row only passes because a value is missing, which makes the rule unknown; it"
                  + " refuses everything that is filled in.");
      case REQUIRES, EMPTIES, EQUAL, OTHER -> {}
    }
  }

  private void add(TableFinding finding, String message, String why, Remedy... remedies) {
    found.add(finding.about(table, message, why, remedies));
  }
}
