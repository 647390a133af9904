package joiner.split;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.stream.IntStream;
import joiner.dependency.AttributeSet;
import joiner.edit.Counters;
import joiner.edit.EditRefusedException;
import joiner.edit.RemoveField;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableKind;
import joiner.model.UniqueKey;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;
import joiner.split.SplitPlan.Group;
import org.jspecify.annotations.Nullable;

/**
 * Makes the tables of a planned split, with their rows, keys and relationships: first those of the
 * determinants, then the split table itself, then its lists.
 */
final class SplitWriter {
  private final SplitWorkspace work;
  private final SplitPlan plan;
  private final SplitChoices choices;
  private final Table table;
  private final Rows rows;
  private final List<FieldId> fields;
  private final Set<FieldId> listed = new HashSet<>();
  private final Map<Group, SplitPart> groups = new LinkedHashMap<>();
  private final Map<FieldId, SplitOrigin> origins = new LinkedHashMap<>();
  private List<Split.Part> listParts = List.of();

  SplitWriter(Draft before, Table table, Rows rows, SplitPlan plan, SplitChoices choices) {
    this.work = new SplitWorkspace(before, table, rows);
    this.table = table;
    this.rows = rows;
    this.plan = plan;
    this.choices = choices;
    this.fields = table.fields().stream().map(Field::id).toList();
    choices.repeats().forEach(r -> r.bases().forEach(base -> listed.addAll(base.fields())));
    choices.lists().forEach(list -> listed.add(list.field()));
  }

  /** Writes everything; gives the design and rows after the split. */
  Draft write() {
    refuseListsThatDecide();
    for (Group group : plan.referredFirst()) {
      groups.put(group, group(group));
    }
    SplitPart main = main();
    trace(main, List.of());
    var lists = new SplitLists(work, choices);
    for (SplitChoices.Repeat repeat : choices.repeats()) {
      List<FieldId> all = repeat.bases().stream().flatMap(b -> b.fields().stream()).toList();
      origins.putAll(lists.repeat(repeat, owner(all, main)));
    }
    for (SplitChoices.CellList list : choices.lists()) {
      origins.putAll(lists.list(list, owner(List.of(list.field()), main)));
    }
    listParts = lists.parts();
    return work.draft();
  }

  /** Where each field of the split table is found after {@link #write}. */
  Map<FieldId, SplitOrigin> origins() {
    return origins;
  }

  /** The tables of the result, the split one first. */
  List<Split.Part> parts() {
    var parts = new ArrayList<Split.Part>();
    Table main = work.now(table);
    parts.add(new Split.Part(main.id(), main.label(), rows.count(), main.fields().size(), 0));
    for (Group group : plan.groups()) {
      SplitPart part = groups.get(group);
      long before = (long) rows.count() * group.decided.size();
      long after = (long) part.count() * part.table().fields().size();
      parts.add(
          new Split.Part(
              part.table().id(),
              part.table().label(),
              part.count(),
              part.table().fields().size(),
              Math.max(0, before - after)));
    }
    parts.addAll(listParts);
    return parts;
  }

  private void refuseListsThatDecide() {
    for (Group group : plan.groups()) {
      for (FieldId field : plan.fieldsOf(group.determinant)) {
        if (listed.contains(field)) {
          throw new EditRefusedException(
              table.field(field).label()
                  + " holds several values and so decides nothing; drop one of the two facts.");
        }
      }
    }
  }

  private Optional<String> cell(int row, int place) {
    return rows.cell(row, fields.get(place));
  }

  private Field fieldAt(int place) {
    return table.field(fields.get(place));
  }

  private SplitPart group(Group group) {
    int[] rowOf = new int[rows.count()];
    int[] origin = number(group, rowOf);
    boolean blank =
        IntStream.of(origin)
            .anyMatch(
                row -> group.determinant.places().anyMatch(place -> cell(row, place).isEmpty()));
    group.natural &= !blank;
    String label = label(group);
    String name = work.freeTableName(NamingPolicy.singular(NamingPolicy.nameFor(label)));
    String shown = NamingPolicy.labelFor(name);
    var slots = new ArrayList<Slot>();
    if (!group.natural) {
      Field counter = Counters.field(name, shown, namesOf(group.all()));
      slots.add(new Slot(-1, null, counter, row -> SplitWorkspace.key(rowOf[row])));
    }
    var key = new ArrayList<FieldId>();
    for (Slot slot : slots(group.all(), group, slots)) {
      boolean identifies =
          slot.refers() == null
              ? group.determinant.contains(slot.place())
              : !slot.refers().shared && group.determinant.containsAll(slot.refers().determinant);
      Field field = nameLike(slot, group, label);
      slots.add(slot.with(identifies ? field.withRequired(!blank) : field));
      if (identifies) {
        key.add(field.id());
      }
    }
    Table made = made(Table.of(name, shown, Noun.ofLabel(shown)), slots, key, group);
    work.add(made, rowsOf(slots, origin));
    return new SplitPart(made, slots, relate(made, slots, group.all(), group), origin, rowOf);
  }

  /** The table of a group: identified by what decides, or by a counter beside that. */
  private Table made(Table bare, List<Slot> slots, List<FieldId> key, Group group) {
    List<UniqueKey> beside =
        group.natural
            ? List.of()
            : List.of(new UniqueKey(ConstraintNaming.unique(bare.name(), List.of()), key));
    Table made =
        bare.withArea(table.area())
            .withFields(slots.stream().map(Slot::field).toList())
            .withPrimaryKey(group.natural ? key : List.of(slots.getFirst().field().id()))
            .withUniqueKeys(beside)
            .withRowLabel(rowLabel(key, slots));
    return group.decided.isEmpty()
        ? made.withKind(new TableKind.Lookup(Optional.of(key.getFirst()), Optional.empty()))
        : made;
  }

  /** What the rows of a group are: what all its labels begin with, or what decides. */
  private String label(Group group) {
    List<String> determinant = table.labelsOf(plan.fieldsOf(group.determinant));
    var common = new ArrayList<>(List.of(determinant.getFirst().split(" ")));
    for (String label : table.labelsOf(plan.fieldsOf(group.all()))) {
      List<String> words = List.of(label.split(" "));
      int same = 0;
      while (same < Math.min(common.size(), words.size())
          && common.get(same).equalsIgnoreCase(words.get(same))) {
        same++;
      }
      common.subList(same, common.size()).clear();
    }
    if (!common.isEmpty()) {
      return String.join(" ", common);
    }
    String whole = String.join(" ", determinant);
    String named = whole.replaceFirst("(?i)[ _-]+(id|no|nr|number|code|key|name)\\.?$", "");
    return named.isBlank() ? whole : named;
  }

  private static Optional<Formula> rowLabel(List<FieldId> key, List<Slot> slots) {
    return slots.stream()
        .filter(slot -> slot.field().id().equals(key.getFirst()))
        .filter(slot -> slot.field().type() instanceof FieldType.Sized)
        .map(slot -> Formula.naming(slot.field().name()))
        .findFirst();
  }

  /**
   * Numbers the different determinants in the order of the rows; gives the first row of each. A row
   * without any value for the group, or for those it refers to, refers to none.
   */
  private int[] number(Group group, int[] rowOf) {
    int[] determinant = group.determinant.places().toArray();
    Map<List<Optional<String>>, Integer> seen = new HashMap<>();
    var origin = new ArrayList<Integer>();
    for (int row = 0; row < rows.count(); row++) {
      int at = row;
      boolean nothing =
          group.all().places().allMatch(place -> cell(at, place).isEmpty())
              && plan.references(group.all(), group).stream()
                  .allMatch(other -> groups.get(other).rowOf()[at] < 0);
      if (nothing) {
        rowOf[row] = -1;
        continue;
      }
      var key = new ArrayList<Optional<String>>(determinant.length);
      for (int place : determinant) {
        key.add(cell(row, place));
      }
      Integer known = seen.putIfAbsent(key, origin.size());
      rowOf[row] = known == null ? origin.size() : known;
      if (known == null) {
        origin.add(row);
      }
    }
    return origin.stream().mapToInt(i -> i).toArray();
  }

  /** A text that gives its table its name is called the name of its rows. */
  private Field nameLike(Slot slot, Group group, String tableLabel) {
    Field field = slot.field();
    boolean names =
        slot.place() >= 0
            && group.determinant.equals(AttributeSet.of(slot.place()))
            && field.type() instanceof FieldType.Text
            && field.label().equals(tableLabel)
            && mostlyWords(slot.place())
            && group.decided.places().noneMatch(place -> fieldAt(place).name().equals("name"));
    return names ? field.withId(new FieldId("name")).withName("name").withLabel("Name") : field;
  }

  private boolean mostlyWords(int place) {
    long words =
        IntStream.range(0, rows.count())
            .filter(row -> cell(row, place).orElse("").matches(".*\\p{L}{2}.*"))
            .count();
    return words * 2 > rows.count();
  }

  private Set<String> namesOf(AttributeSet places) {
    var names = new HashSet<String>();
    places.places().forEach(place -> names.add(fieldAt(place).name()));
    return names;
  }

  /** The fields of a table: those it holds, and references in the place of determinants. */
  private List<Slot> slots(AttributeSet held, @Nullable Group own, List<Slot> before) {
    Map<Integer, Group> referring = new HashMap<>();
    for (Group group : plan.references(held, own)) {
      if (!group.natural && !group.shared) {
        group.determinant.places().forEach(place -> referring.put(place, group));
      }
    }
    Set<String> taken = new HashSet<>();
    before.forEach(slot -> taken.add(slot.field().name()));
    held.places()
        .filter(place -> !referring.containsKey(place))
        .forEach(place -> taken.add(fieldAt(place).name()));
    var slots = new ArrayList<Slot>();
    Set<Group> done = new HashSet<>();
    for (int place : held.places().toArray()) {
      Group group = referring.get(place);
      if (group == null && !listed.contains(fields.get(place))) {
        slots.add(new Slot(place, null, fieldAt(place), row -> cell(row, place)));
      } else if (group != null && done.add(group)) {
        slots.add(reference(group, taken));
        taken.add(slots.getLast().field().name());
      }
    }
    for (Group group : plan.references(held, own)) {
      if (!group.natural && group.shared) {
        slots.add(reference(group, taken));
        taken.add(slots.getLast().field().name());
      }
    }
    return slots;
  }

  private Slot reference(Group group, Set<String> taken) {
    SplitPart part = groups.get(group);
    Field key = part.table().field(part.table().primaryKey().getFirst());
    boolean always = IntStream.of(part.rowOf()).allMatch(row -> row >= 0);
    Field field =
        Field.of(
                NamingPolicy.free(key.name(), taken),
                part.table().label(),
                key.type().asReferenced())
            .withRequired(always);
    return new Slot(-1, group, field, row -> SplitWorkspace.key(part.rowOf()[row]));
  }

  private static Rows rowsOf(List<Slot> slots, int[] origin) {
    var builder = new Rows.Builder(slots.stream().map(slot -> slot.field().id()).toList());
    for (int row : origin) {
      for (int i = 0; i < slots.size(); i++) {
        builder.cell(i, slots.get(i).text().apply(row).orElse(null));
      }
      builder.endRow();
    }
    return builder.build();
  }

  /** Relates a table to those whose determinants it holds. */
  private Map<Group, RelationshipId> relate(
      Table child, List<Slot> slots, AttributeSet held, @Nullable Group own) {
    Map<Group, RelationshipId> references = new LinkedHashMap<>();
    for (Group group : plan.references(held, own)) {
      List<FieldId> link =
          slots.stream()
              .filter(
                  slot ->
                      group.natural
                          ? slot.place() >= 0 && group.determinant.contains(slot.place())
                          : slot.refers() == group)
              .map(slot -> slot.field().id())
              .toList();
      Table parent = groups.get(group).table();
      references.put(
          group, work.relate(child, link, parent, r -> r.withRoles("has", "is given to")));
    }
    return references;
  }

  private SplitPart main() {
    int[] origin = IntStream.range(0, rows.count()).toArray();
    AttributeSet staying = plan.stayingFields();
    var slots = new ArrayList<Slot>();
    boolean keyStays =
        !table.primaryKey().isEmpty() && table.primaryKey().stream().allMatch(this::stays);
    if (!keyStays) {
      Field counter = Counters.field(table.name(), table.label(), namesOf(staying));
      slots.add(new Slot(-1, null, counter, SplitWorkspace::key));
    }
    slots.addAll(slots(staying, null, slots));
    for (Field field : table.fields()) {
      if (slots.stream().noneMatch(slot -> slot.field().id().equals(field.id()))) {
        refuseIfUsed(field);
        work.change(new RemoveField(table.id(), field.id(), field.label()));
      }
    }
    work.change(
        table,
        t -> {
          Table laid = t.withFields(slots.stream().map(Slot::field).toList());
          return keyStays ? laid : laid.withPrimaryKey(List.of(slots.getFirst().field().id()));
        },
        rowsOf(slots, origin));
    Table now = work.now(table);
    return new SplitPart(now, slots, relate(now, slots, staying, null), origin, origin);
  }

  /** Whether a field stays as it is and does not give way to a reference or a list. */
  private boolean stays(FieldId field) {
    int place = plan.place(field);
    return plan.stayingFields().contains(place)
        && !listed.contains(field)
        && plan.references(plan.stayingFields(), null).stream()
            .noneMatch(
                group -> !group.natural && !group.shared && group.determinant.contains(place));
  }

  private void refuseIfUsed(Field field) {
    boolean related =
        work.draft().design().relationships().stream()
            .anyMatch(r -> r.standsOn(table.id(), field.id()));
    if (related) {
      throw new EditRefusedException(
          "A relationship stands on "
              + field.label()
              + "; remove it first, or leave the field out.");
    }
    if (!table.rules().isEmpty()) {
      throw new EditRefusedException(
          table.label()
              + " has rules that may speak of "
              + field.label()
              + "; remove them first and write them anew for the tables it becomes.");
    }
  }

  /** Notes where each field is found, following the references from the split table. */
  private void trace(SplitPart part, List<RelationshipId> path) {
    for (Slot slot : part.slots()) {
      if (slot.place() >= 0) {
        origins.putIfAbsent(
            fields.get(slot.place()), new SplitOrigin.Stored(path, slot.field().id()));
      }
    }
    part.references()
        .forEach((group, relationship) -> trace(groups.get(group), longer(path, relationship)));
  }

  private static List<RelationshipId> longer(List<RelationshipId> path, RelationshipId step) {
    var longer = new ArrayList<>(path);
    longer.add(step);
    return longer;
  }

  /** The table that a list belongs to. */
  private SplitLists.Owner owner(List<FieldId> list, SplitPart main) {
    AttributeSet places = AttributeSet.EMPTY;
    for (FieldId field : list) {
      places = places.with(plan.place(field));
    }
    if (plan.stayingFields().containsAll(places)) {
      return new SplitLists.Owner(main, List.of());
    }
    return within(main, List.of(), places)
        .orElseThrow(
            () ->
                new EditRefusedException(
                    "The list "
                        + table.field(list.getFirst()).label()
                        + " would be torn apart: only some of its fields are decided. Drop those"
                        + " decisions."));
  }

  private Optional<SplitLists.Owner> within(
      SplitPart part, List<RelationshipId> path, AttributeSet places) {
    for (var entry : part.references().entrySet()) {
      List<RelationshipId> longer = longer(path, entry.getValue());
      SplitPart parent = groups.get(entry.getKey());
      if (entry.getKey().decided.containsAll(places)) {
        return Optional.of(new SplitLists.Owner(parent, longer));
      }
      Optional<SplitLists.Owner> deeper = within(parent, longer, places);
      if (deeper.isPresent()) {
        return deeper;
      }
    }
    return Optional.empty();
  }

  /**
   * A field of a new table.
   *
   * @param place of the field of the split table it takes over; −1: it is new
   * @param refers the group it refers to, if it does
   * @param text its value for a row of the split table
   */
  record Slot(int place, @Nullable Group refers, Field field, IntFunction<Optional<String>> text) {
    Slot with(Field other) {
      return new Slot(place, refers, other, text);
    }
  }

  /**
   * A table of the result.
   *
   * @param slots its fields with where their values come from
   * @param references the groups it refers to, each with the relationship
   * @param origin for each row the row of the split table it was taken from
   * @param rowOf for each row of the split table its row here; −1: none
   */
  record SplitPart(
      Table table,
      List<Slot> slots,
      Map<Group, RelationshipId> references,
      int[] origin,
      int[] rowOf) {
    int count() {
      return origin.length;
    }
  }
}
