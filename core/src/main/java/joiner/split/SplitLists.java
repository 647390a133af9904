package joiner.split;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import joiner.edit.Counters;
import joiner.edit.EditRefusedException;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.ReferentialAction;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableKind;
import joiner.model.UniqueKey;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;

/**
 * Writes the lists of a split table as tables: one row for each value, numbered in order, that
 * belongs to the row it was taken from; values that are a lookup are referred to.
 */
final class SplitLists {
  private static final Pattern COUNTED = Pattern.compile("[1-9]\\d{0,8} \\S(?s:.*)");

  private final SplitWorkspace work;
  private final SplitChoices choices;
  private final Table table;
  private final Rows rows;
  private final List<Split.Part> parts = new ArrayList<>();

  SplitLists(SplitWorkspace work, SplitChoices choices) {
    this.work = work;
    this.choices = choices;
    this.table = work.table();
    this.rows = work.rows();
  }

  /**
   * The table a list belongs to.
   *
   * @param path from the split table
   */
  record Owner(SplitWriter.SplitPart part, List<RelationshipId> path) {}

  /**
   * One kind of value in a list.
   *
   * @param field it becomes
   * @param lookup the field of the split table whose values are to be a lookup, if they are
   */
  private record Item(Field field, Optional<FieldId> lookup) {}

  /** A list as it is collected: for each row the owner's row, the position and the values. */
  private static final class Collected {
    private final List<Integer> owners = new ArrayList<>();
    private final List<Integer> positions = new ArrayList<>();
    private final List<List<Optional<String>>> values = new ArrayList<>();

    void add(int owner, int position, List<Optional<String>> of) {
      owners.add(owner);
      positions.add(position);
      values.add(of);
    }

    boolean always(int item) {
      return !values.isEmpty() && values.stream().allMatch(row -> row.get(item).isPresent());
    }
  }

  /** The list as it was written. */
  private record Written(
      RelationshipId toOwner, FieldId position, List<SplitOrigin.Value> values) {}

  /** The tables written. */
  List<Split.Part> parts() {
    return List.copyOf(parts);
  }

  /** Writes numbered fields; gives where each is found. */
  Map<FieldId, SplitOrigin> repeat(SplitChoices.Repeat repeat, Owner owner) {
    int size = repeat.bases().getFirst().fields().size();
    var items = new ArrayList<Item>();
    for (SplitChoices.Repeat.Base base : repeat.bases()) {
      FieldType type = widest(base.fields().stream().map(table::field).toList());
      Field field = Field.of(freeName(base.label(), items), base.label(), type);
      items.add(
          new Item(
              field, Optional.of(base.fields().getFirst()).filter(choices.lookups()::contains)));
    }
    String label = repeat.bases().getFirst().label();
    Written written =
        write(label, items, collect(repeat, owner, size), owner, repeat.bases().size() * size);
    Map<FieldId, SplitOrigin> origins = new HashMap<>();
    for (int i = 0; i < repeat.bases().size(); i++) {
      for (int place = 0; place < size; place++) {
        origins.put(
            repeat.bases().get(i).fields().get(place),
            new SplitOrigin.Numbered(
                owner.path(),
                written.toOwner(),
                written.position(),
                place + 1,
                written.values().get(i)));
      }
    }
    return origins;
  }

  private Collected collect(SplitChoices.Repeat repeat, Owner owner, int size) {
    var collected = new Collected();
    for (int row = 0; row < owner.part().count(); row++) {
      int from = owner.part().origin()[row];
      for (int place = 0; place < size; place++) {
        var values = new ArrayList<Optional<String>>();
        for (SplitChoices.Repeat.Base base : repeat.bases()) {
          values.add(rows.cell(from, base.fields().get(place)));
        }
        if (values.stream().anyMatch(Optional::isPresent)) {
          collected.add(row, place + 1, values);
        }
      }
    }
    return collected;
  }

  /** Writes a field whose cells hold several values; gives where it is found. */
  Map<FieldId, SplitOrigin> list(SplitChoices.CellList list, Owner owner) {
    Field whole = table.field(list.field());
    var collected = new Collected();
    int longest = 1;
    for (int row = 0; row < owner.part().count(); row++) {
      String cell = rows.cell(owner.part().origin()[row], list.field()).orElse("");
      String[] pieces =
          cell.isEmpty() ? new String[0] : cell.split(Pattern.quote(list.separator()), -1);
      for (int place = 0; place < pieces.length; place++) {
        List<Optional<String>> values = values(pieces[place], list, whole);
        longest = Math.max(longest, values.getLast().map(String::length).orElse(0));
        collected.add(row, place + 1, values);
      }
    }
    var items = new ArrayList<Item>();
    if (list.counted()) {
      var quantity = Field.of("quantity", "Quantity", new FieldType.WholeNumber(Width.BITS_32));
      items.add(new Item(quantity, Optional.empty()));
    }
    var type = new FieldType.Text(FieldType.roomyLength(longest));
    items.add(
        new Item(
            Field.of(freeName(whole.label(), items), whole.label(), type),
            Optional.of(list.field()).filter(choices.lookups()::contains)));
    Written written = write(whole.label(), items, collected, owner, 1);
    return Map.of(
        list.field(),
        new SplitOrigin.Listed(
            owner.path(),
            written.toOwner(),
            written.position(),
            list.separator(),
            written.values()));
  }

  private static String freeName(String label, List<Item> others) {
    var taken = new HashSet<>(Set.of("position"));
    others.forEach(item -> taken.add(item.field().name()));
    return NamingPolicy.free(NamingPolicy.nameFor(label), taken);
  }

  private static List<Optional<String>> values(
      String piece, SplitChoices.CellList list, Field whole) {
    if (piece.isEmpty() || list.counted() && !COUNTED.matcher(piece).matches()) {
      throw new EditRefusedException(
          "“"
              + piece
              + "” in "
              + whole.label()
              + (list.counted() ? " is no number with a thing behind it." : " is empty.")
              + " Mend the cell, or drop the fact.");
    }
    int blank = piece.indexOf(' ');
    return list.counted()
        ? List.of(Optional.of(piece.substring(0, blank)), Optional.of(piece.substring(blank + 1)))
        : List.of(Optional.of(piece));
  }

  /** Adds the table of a list. */
  private Written write(
      String label, List<Item> items, Collected collected, Owner owner, int fieldsBefore) {
    Table parent = work.now(owner.part().table());
    String name =
        work.freeTableName(
            parent.name() + "_" + NamingPolicy.singular(NamingPolicy.nameFor(label)));
    String shown = NamingPolicy.labelFor(name);
    var taken = new HashSet<String>();
    items.forEach(item -> taken.add(item.field().name()));
    List<Field> links = links(parent, taken);
    Field position = position(taken);
    var fields = new ArrayList<>(links);
    fields.add(position);
    Map<FieldId, Table> lookups = new LinkedHashMap<>();
    List<Field> values = new ArrayList<>();
    for (int i = 0; i < items.size(); i++) {
      values.add(value(items.get(i), i, collected, fields, lookups));
      fields.add(values.getLast());
    }
    var key = new ArrayList<>(links.stream().map(Field::id).toList());
    key.add(position.id());
    Table detail =
        Table.of(name, shown, Noun.ofLabel(shown))
            .withArea(table.area())
            .withFields(fields)
            .withPrimaryKey(key);
    work.add(detail, contents(detail, parent, collected));
    part(detail, (long) owner.part().count() * fieldsBefore);
    RelationshipId toOwner =
        work.relate(
            detail,
            links.stream().map(Field::id).toList(),
            parent,
            r ->
                r.withRoles("belongs to", "has")
                    .withActions(ReferentialAction.CASCADE, r.onUpdate()));
    return new Written(toOwner, position.id(), origins(detail, values, lookups));
  }

  /** Which piece of its list a row is. */
  private static Field position(Set<String> taken) {
    String name = NamingPolicy.free("position", taken);
    return Field.of(name, "Position", new FieldType.WholeNumber(Width.BITS_16)).withRequired(true);
  }

  private static List<Field> links(Table parent, Set<String> taken) {
    var links = new ArrayList<Field>();
    for (FieldId id : parent.primaryKey()) {
      Field key = parent.field(id);
      String name = NamingPolicy.free(NamingPolicy.referenceTo(parent.name(), key.name()), taken);
      taken.add(name);
      links.add(Field.of(name, parent.label(), key.type().asReferenced()).withRequired(true));
    }
    return links;
  }

  /** The field of a value; where it is a lookup, the lookup is made and its keys are put in. */
  private Field value(
      Item item, int place, Collected collected, List<Field> others, Map<FieldId, Table> lookups) {
    Field value = item.field().withRequired(collected.always(place));
    if (item.lookup().isEmpty()) {
      return value;
    }
    boolean natural = choices.naturalKeys().contains(List.of(item.lookup().get()));
    Table lookup = lookup(value, place, natural, collected);
    Field key = lookup.field(lookup.primaryKey().getFirst());
    var taken = new HashSet<String>();
    others.forEach(field -> taken.add(field.name()));
    String name = natural ? value.name() : NamingPolicy.free(key.name(), taken);
    Field link =
        Field.of(name, value.label(), key.type().asReferenced()).withRequired(value.required());
    lookups.put(link.id(), lookup);
    return link;
  }

  private Rows contents(Table detail, Table parent, Collected collected) {
    Rows owners = work.draft().rows().of(parent.id());
    var cells = new ArrayList<List<Optional<String>>>();
    for (int i = 0; i < collected.owners.size(); i++) {
      var row = new ArrayList<>(owners.row(collected.owners.get(i), parent.primaryKey()));
      row.add(Optional.of(String.valueOf(collected.positions.get(i))));
      row.addAll(collected.values.get(i));
      cells.add(row);
    }
    return Rows.of(detail.fields().stream().map(Field::id).toList(), cells);
  }

  private List<SplitOrigin.Value> origins(
      Table detail, List<Field> values, Map<FieldId, Table> lookups) {
    var origins = new ArrayList<SplitOrigin.Value>();
    for (Field value : values) {
      Table lookup = lookups.get(value.id());
      if (lookup == null) {
        origins.add(new SplitOrigin.Value(List.of(), detail.id(), value.id()));
      } else {
        RelationshipId link =
            work.relate(
                detail, List.of(value.id()), lookup, r -> r.withRoles("has", "is given to"));
        origins.add(
            new SplitOrigin.Value(List.of(link), lookup.id(), lookup.fields().getLast().id()));
      }
    }
    return origins;
  }

  private Table lookup(Field value, int place, boolean natural, Collected collected) {
    String name = work.freeLookupName(NamingPolicy.singular(value.name()));
    String label = NamingPolicy.labelFor(name);
    Field text = Field.of("name", "Name", value.type()).withRequired(true);
    Field counter = Counters.field(name, label, Set.of("name"));
    Map<String, Integer> numbers = new LinkedHashMap<>();
    for (List<Optional<String>> row : collected.values) {
      row.get(place).ifPresent(v -> numbers.putIfAbsent(v, numbers.size()));
    }
    List<Field> fields = natural ? List.of(text) : List.of(counter, text);
    Table lookup =
        Table.of(name, label, Noun.ofLabel(label))
            .withArea(table.area())
            .withFields(fields)
            .withPrimaryKey(List.of(fields.getFirst().id()))
            .withUniqueKeys(
                natural
                    ? List.of()
                    : List.of(
                        new UniqueKey(
                            ConstraintNaming.unique(name, List.of()), List.of(text.id()))))
            .withRowLabel(
                Optional.of(new Formula("name"))
                    .filter(n -> text.type() instanceof FieldType.Sized))
            .withKind(new TableKind.Lookup(Optional.of(text.id()), Optional.empty()));
    work.add(lookup, contents(fields, numbers.keySet()));
    part(lookup, collected.values.size());
    if (!natural) {
      collected.values.replaceAll(
          row -> {
            var keyed = new ArrayList<>(row);
            keyed.set(place, row.get(place).flatMap(v -> SplitWorkspace.key(numbers.get(v))));
            return keyed;
          });
    }
    return lookup;
  }

  private static Rows contents(List<Field> fields, Collection<String> values) {
    var builder = new Rows.Builder(fields.stream().map(Field::id).toList());
    int row = 0;
    for (String value : values) {
      if (fields.size() == 2) {
        builder.cell(0, SplitWorkspace.key(row++).orElseThrow());
      }
      builder.cell(fields.size() - 1, value);
      builder.endRow();
    }
    return builder.build();
  }

  private void part(Table made, long cellsBefore) {
    int count = work.draft().rows().of(made.id()).count();
    long cells = (long) count * made.fields().size();
    parts.add(
        new Split.Part(
            made.id(),
            made.label(),
            count,
            made.fields().size(),
            Math.max(0, cellsBefore - cells)));
  }

  /** A type that holds the values of all those fields. */
  private FieldType widest(List<Field> of) {
    List<FieldType> types = of.stream().filter(this::used).map(Field::type).distinct().toList();
    if (types.size() <= 1) {
      return types.isEmpty() ? of.getFirst().type() : types.getFirst();
    }
    boolean sameKind = types.stream().map(FieldType::getClass).distinct().count() == 1;
    if (sameKind && types.getFirst() instanceof FieldType.Sized first) {
      return first.withMaxLength(
          types.stream()
              .mapToInt(type -> ((FieldType.Sized) type).maxLength())
              .max()
              .orElseThrow());
    }
    if (sameKind && types.getFirst() instanceof FieldType.WholeNumber) {
      return new FieldType.WholeNumber(Width.BITS_64);
    }
    return types.stream().allMatch(SplitLists::isNumber)
        ? new FieldType.AnyNumber()
        : new FieldType.Text(Math.max(40, longest(of)));
  }

  private boolean used(Field field) {
    return IntStream.range(0, rows.count()).anyMatch(row -> rows.cell(row, field.id()).isPresent());
  }

  private int longest(List<Field> of) {
    return of.stream()
        .flatMapToInt(
            field ->
                IntStream.range(0, rows.count())
                    .map(row -> rows.cell(row, field.id()).map(String::length).orElse(0)))
        .max()
        .orElse(0);
  }

  private static boolean isNumber(FieldType type) {
    return type instanceof FieldType.WholeNumber
        || type instanceof FieldType.Decimal
        || type instanceof FieldType.AnyNumber;
  }
}
