package joiner.catalog;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * What a database holds around its tables, which a design has no word for.
 *
 * @param views in an order in which they can be made
 */
public record Surroundings(
    List<View> views, List<Trigger> triggers, List<Exclusion> exclusions, List<Grant> grants) {
  /** Tables alone. */
  public static final Surroundings NONE =
      new Surroundings(List.of(), List.of(), List.of(), List.of());

  public Surroundings {
    views = List.copyOf(views);
    triggers = List.copyOf(triggers);
    exclusions = List.copyOf(exclusions);
    grants = List.copyOf(grants);
  }

  /** What a design does not take along of them, a sentence each; grants are told together. */
  public List<String> notTaken() {
    var told = new ArrayList<String>();
    for (View view : views) {
      told.add("The view " + view.name() + " is not taken along: " + view.definition().strip());
    }
    for (Trigger trigger : triggers) {
      told.add(
          "The trigger "
              + trigger.name()
              + " of "
              + trigger.table()
              + " is not taken along: "
              + trigger.definition().strip());
    }
    for (Exclusion exclusion : exclusions) {
      told.add(
          "What rows of "
              + exclusion.table()
              + " exclude each other by, "
              + exclusion.name()
              + ", is not taken along: "
              + exclusion.definition().strip());
    }
    if (!grants.isEmpty()) {
      Set<String> people = grants.stream().map(Grant::to).collect(Collectors.toSet());
      told.add(
          "What "
              + people.stream().sorted().collect(Collectors.joining(", "))
              + " may do with the tables is not taken along.");
    }
    return told;
  }
}
