package joiner.finding;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import joiner.edit.ChangeRelationship;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.NamingPolicy;

/** Several relationships between the same two tables are told apart by their words. */
final class TiedTwice implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("tied-twice", Severity.WARNING, Topic.CONNECT);

  private record Pair(TableId child, TableId parent) {}

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    Map<Pair, List<Relationship>> pairs =
        design.design().relationships().stream()
            .collect(
                Collectors.groupingBy(
                    r -> new Pair(r.child(), r.parent()), LinkedHashMap::new, Collectors.toList()));
    pairs.values().stream().filter(ties -> ties.size() > 1).forEach(t -> run(design, t, found));
  }

  private static void run(CheckedDesign design, List<Relationship> ties, Consumer<Finding> found) {
    Map<String, Relationship> known = new HashMap<>();
    for (Relationship r : ties) {
      Relationship same = known.putIfAbsent(r.childRole().toLowerCase(Locale.ROOT), r);
      if (same != null) {
        Table child = design.design().table(r.child());
        Table parent = design.design().table(r.parent());
        String verb = verb(child, r);
        found.accept(
            FINDING.about(
                r,
                "Two relationships say the same: each "
                    + child.noun().singular()
                    + " "
                    + r.childRole()
                    + " a "
                    + parent.noun().singular()
                    + ", by "
                    + String.join(", ", child.labelsOf(same.childFields()))
                    + " and by "
                    + String.join(", ", child.labelsOf(r.childFields()))
                    + ".",
                "Whoever asks across both tables cannot tell which of them is meant; one is too"
                    + " many, or each needs a verb of its own.",
                new Remedy(
                    "Say “" + verb + "”",
                    ChangeRelationship.roles(r, verb, r.parentRole() + " as " + lower(child, r)))));
      }
    }
  }

  /** A verb from what the fields are called. */
  private static String verb(Table child, Relationship r) {
    String name = lower(child, r);
    return name.endsWith(" by") ? "is " + name : "has as " + name;
  }

  private static String lower(Table child, Relationship r) {
    String name = child.field(r.childFields().getFirst()).name().replaceFirst("_id$", "");
    return NamingPolicy.labelFor(name).toLowerCase(Locale.ROOT);
  }
}
