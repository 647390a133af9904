package joiner.compare;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.function.Function;
import java.util.stream.Collectors;
import joiner.meaning.Draft;
import joiner.model.Area;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.UniqueKey;

/**
 * Finds which things of two drafts are the same ones: those of one id; of the others those of one
 * name; of tables left on both sides those that share most of their fields' names, and of fields
 * left in a table those whose type nothing else left there has. The last two are guesses. Rules,
 * keys and indexes left over are the same if they say the same.
 */
final class Matching {
  /** Two tables with at least this share of field names in common may be one. */
  private static final double ALIKE = 0.6;

  /** A field name that so many tables left over have says nothing about which is which. */
  private static final int COMMON = 20;

  private final Draft one;
  private final Draft other;
  private final Identities identities = new Identities();
  private final List<Effect> guesses = new ArrayList<>();

  private Matching(Draft one, Draft other) {
    this.one = one;
    this.other = other;
  }

  static Comparison.Matched of(Draft one, Draft other) {
    var matching = new Matching(one, other);
    matching.areas();
    matching.tables();
    matching.relationships();
    return new Comparison.Matched(matching.identities.of(other), List.copyOf(matching.guesses));
  }

  private void areas() {
    var here = new ArrayList<>(one.design().areas());
    var there = new ArrayList<>(other.design().areas());
    pair(here, there, Area::id, (left, right) -> {});
    pair(here, there, Area::name, (left, right) -> identities.area(right.id(), left.id()));
  }

  private void tables() {
    Map<Table, Table> pairs = new LinkedHashMap<>();
    var here = new ArrayList<>(one.design().tables());
    var there = new ArrayList<>(other.design().tables());
    pair(here, there, Table::id, pairs::put);
    pair(here, there, Table::name, pairs::put);
    alike(here, there, pairs);
    pairs.forEach(
        (left, right) -> {
          identities.table(right.id(), left.id());
          fields(left, right);
          parts(left, right);
        });
  }

  /** Takes things of one mark out of both lists. */
  private static <T> void pair(
      List<T> here, List<T> there, Function<T, Object> mark, BiConsumer<T, T> same) {
    pair(here, there, mark, mark, same);
  }

  private static <T> void pair(
      List<T> here,
      List<T> there,
      Function<T, Object> markHere,
      Function<T, Object> markThere,
      BiConsumer<T, T> same) {
    Map<Object, T> byMark = HashMap.newHashMap(here.size());
    here.forEach(thing -> byMark.putIfAbsent(markHere.apply(thing), thing));
    var matched = new HashSet<T>();
    there.removeIf(
        thing -> {
          T known = byMark.remove(markThere.apply(thing));
          if (known != null) {
            matched.add(known);
            same.accept(known, thing);
          }
          return known != null;
        });
    here.removeIf(matched::contains);
  }

  private record Likeness(Table here, Table there, int shared, int all) {
    double share() {
      return (double) shared / all;
    }
  }

  private void alike(List<Table> here, List<Table> there, Map<Table, Table> pairs) {
    List<Likeness> likenesses = likenesses(here, there);
    likenesses.sort(Comparator.comparingDouble(Likeness::share).reversed());
    var taken = new HashSet<Table>();
    for (Likeness likeness : likenesses) {
      if (likeness.share() >= ALIKE
          && !taken.contains(likeness.here)
          && !taken.contains(likeness.there)) {
        taken.addAll(List.of(likeness.here, likeness.there));
        pairs.put(likeness.here, likeness.there);
        guess(
            likeness.here,
            Optional.empty(),
            "The table "
                + likeness.there.label()
                + " is taken for "
                + likeness.here.label()
                + " under another name: "
                + likeness.shared
                + " of "
                + likeness.all
                + " fields have the same names.");
      }
    }
  }

  private static List<Likeness> likenesses(List<Table> here, List<Table> there) {
    Map<String, List<Table>> withField = new HashMap<>();
    there.forEach(
        table ->
            table
                .fieldsByName()
                .keySet()
                .forEach(f -> withField.computeIfAbsent(f, n -> new ArrayList<>()).add(table)));
    var likenesses = new ArrayList<Likeness>();
    for (Table table : here) {
      Set<String> names = table.fieldsByName().keySet();
      Map<Table, Integer> shared = new LinkedHashMap<>();
      for (String name : names) {
        List<Table> sharing = withField.getOrDefault(name, List.of());
        if (sharing.size() <= COMMON) {
          sharing.forEach(candidate -> shared.merge(candidate, 1, Integer::sum));
        }
      }
      shared.forEach(
          (candidate, count) ->
              likenesses.add(
                  new Likeness(
                      table, candidate, count, names.size() + candidate.fields().size() - count)));
    }
    return likenesses;
  }

  private void fields(Table left, Table right) {
    var here = new ArrayList<>(left.fields());
    var there = new ArrayList<>(right.fields());
    BiConsumer<Field, Field> same =
        (l, r) -> {
          identities.field(right.id(), r.id(), l.id());
          if (l.type() instanceof FieldType.Choice known
              && r.type() instanceof FieldType.Choice found) {
            identities.choices(right.id(), r.id(), found.known(known));
          }
        };
    pair(here, there, Field::id, same);
    pair(here, there, Field::name, same);
    Map<FieldType, List<Field>> ofType = there.stream().collect(Collectors.groupingBy(Field::type));
    Map<FieldType, List<Field>> rivals = here.stream().collect(Collectors.groupingBy(Field::type));
    for (Field field : here) {
      List<Field> candidates = ofType.getOrDefault(field.type(), List.of());
      if (candidates.size() == 1 && rivals.getOrDefault(field.type(), List.of()).size() == 1) {
        same.accept(field, candidates.getFirst());
        guess(
            left,
            Optional.of(field),
            left.label()
                + " · "
                + candidates.getFirst().label()
                + " is taken for "
                + field.label()
                + " under another name: no other field left has its type.");
      }
    }
  }

  /** What a table says beside its fields, which are matched by now. */
  private void parts(Table left, Table right) {
    TableId id = right.id();
    pair(
        new Marks<>(
            UniqueKey::id, UniqueKey::name, UniqueKey::fields, k -> identities.of(id, k.fields())),
        left.uniqueKeys(),
        right.uniqueKeys(),
        (l, r) -> identities.uniqueKey(id, r.id(), l.id()));
    pair(
        new Marks<>(Index::id, Index::name, Index::fields, i -> identities.of(id, i.fields())),
        left.indexes(),
        right.indexes(),
        (l, r) -> identities.index(id, r.id(), l.id()));
    pair(
        new Marks<>(Rule::id, Rule::name, Rule::demand, r -> identities.of(id, r.demand())),
        left.rules(),
        right.rules(),
        (l, r) -> identities.rule(id, r.id(), l.id()));
  }

  /** By what things are the same ones: first by id, then by name, then by what they say. */
  private record Marks<T>(
      Function<T, Object> id,
      Function<T, Object> name,
      Function<T, Object> saysHere,
      Function<T, Object> saysThere) {}

  private static <T> void pair(
      Marks<T> marks, Collection<T> here, Collection<T> there, BiConsumer<T, T> same) {
    var left = new ArrayList<>(here);
    var right = new ArrayList<>(there);
    pair(left, right, marks.id, same);
    pair(left, right, marks.name, same);
    pair(left, right, marks.saysHere, marks.saysThere, same);
  }

  private void guess(Table table, Optional<Field> field, String message) {
    guesses.add(
        new Effect(
            field.isPresent() ? Effect.Kind.FIELD_RENAMED : Effect.Kind.TABLE_RENAMED,
            Optional.of(table.name()),
            field.map(Field::name),
            Risk.NONE,
            message));
  }

  private record Ends(
      TableId child, List<FieldId> childFields, TableId parent, List<FieldId> parentFields) {}

  private void relationships() {
    pair(
        new Marks<>(Relationship::id, Relationship::name, Matching::ends, this::endsThere),
        one.design().relationships(),
        other.design().relationships(),
        (left, right) -> identities.relationship(right.id(), left.id()));
  }

  private static Ends ends(Relationship r) {
    return new Ends(r.child(), r.childFields(), r.parent(), r.parentFields());
  }

  private Ends endsThere(Relationship r) {
    return new Ends(
        identities.of(r.child()),
        identities.of(r.child(), r.childFields()),
        identities.of(r.parent()),
        identities.of(r.parent(), r.parentFields()));
  }
}
