package joiner.split;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import joiner.dependency.AttributeSet;
import joiner.dependency.Dependency;
import joiner.dependency.Scheme;
import joiner.edit.EditRefusedException;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.split.SplitChoices.Decision;
import org.jspecify.annotations.Nullable;

/**
 * Which fields go to which table, by the confirmed decisions alone: one table for each determinant
 * of a minimal cover, determinants that decide each other sharing one, and what is left stays
 * (third normal form by synthesis, with the rows of the split table as the key).
 */
final class SplitPlan {
  private final List<FieldId> fields;
  private final Scheme scheme;
  private final List<Group> groups = new ArrayList<>();
  private final AttributeSet staying;

  /** A determinant with what it decides. */
  static final class Group {
    final AttributeSet determinant;
    AttributeSet decided;

    /** Whether its rows are identified by the determinant itself. */
    boolean natural;

    /** Whether tables that refer to it keep the fields of the determinant, for another use. */
    boolean shared;

    Group(AttributeSet determinant, AttributeSet decided, boolean natural) {
      this.determinant = determinant;
      this.decided = decided;
      this.natural = natural;
    }

    AttributeSet all() {
      return determinant.union(decided);
    }
  }

  SplitPlan(Table table, SplitChoices choices) {
    this.fields = table.fields().stream().map(Field::id).toList();
    this.scheme =
        new Scheme(
            fields.stream().map(FieldId::toString).toList(),
            choices.decisions().stream().map(this::dependency).toList());
    for (Dependency dependency : scheme.minimalCover()) {
      add(dependency.from(), dependency.to(), choices);
    }
    for (FieldId lookup : choices.lookups()) {
      AttributeSet place = AttributeSet.of(place(lookup));
      boolean listed =
          choices.baseBeginning(lookup).isPresent()
              || choices.lists().stream().anyMatch(list -> list.field().equals(lookup));
      if (!listed && groups.stream().noneMatch(g -> g.determinant.equals(place))) {
        add(place, AttributeSet.EMPTY, choices);
      }
    }
    shareEquivalent();
    this.staying = staying();
    groups.sort(Comparator.comparing((Group group) -> group.determinant.places().min().orElse(0)));
    settleShared();
  }

  private void add(AttributeSet from, AttributeSet to, SplitChoices choices) {
    groups.add(new Group(from, to, choices.naturalKeys().contains(fieldsOf(from))));
  }

  private Dependency dependency(Decision decision) {
    AttributeSet from = AttributeSet.EMPTY;
    for (FieldId field : decision.determinant()) {
      from = from.with(place(field));
    }
    return new Dependency(from, AttributeSet.of(place(decision.decided())));
  }

  int place(FieldId field) {
    int place = fields.indexOf(field);
    if (place < 0) {
      throw new EditRefusedException("There is no field " + field + " any more.");
    }
    return place;
  }

  List<FieldId> fieldsOf(AttributeSet set) {
    return set.places().mapToObj(fields::get).toList();
  }

  private void shareEquivalent() {
    for (int i = 0; i < groups.size(); i++) {
      for (int j = groups.size() - 1; j > i; j--) {
        Group one = groups.get(i);
        Group other = groups.get(j);
        if (scheme.closure(one.determinant).containsAll(other.determinant)
            && scheme.closure(other.determinant).containsAll(one.determinant)) {
          one.decided = one.decided.union(other.all()).minus(one.determinant);
          groups.remove(j);
        }
      }
    }
  }

  /** What the split table keeps: a key of all fields by the decisions. */
  private AttributeSet staying() {
    AttributeSet all = AttributeSet.first(fields.size());
    AttributeSet kept = all;
    for (Group group : groups) {
      for (int place : group.decided.places().toArray()) {
        AttributeSet fewer = kept.without(place);
        if (scheme.closure(fewer).containsAll(all)) {
          kept = fewer;
        }
      }
    }
    return kept;
  }

  /** Settles which determinants stay where they are referred from, until nothing changes. */
  private void settleShared() {
    boolean changed = true;
    while (changed) {
      changed = share(staying, null);
      for (Group group : groups) {
        changed |= share(group.all(), group);
      }
    }
  }

  /**
   * Determinants that share a field within one table, or meet its own without being part of it or
   * where it is the key, leave their fields there.
   */
  private boolean share(AttributeSet table, @Nullable Group own) {
    boolean changed = false;
    List<Group> within = references(table, own);
    for (Group one : within) {
      boolean shares =
          within.stream().anyMatch(other -> other != one && meet(one, other.determinant));
      boolean straddles =
          own != null
              && meet(one, own.determinant)
              && (own.natural || !own.determinant.containsAll(one.determinant));
      if ((shares || straddles) && !one.shared) {
        one.shared = true;
        one.natural = true;
        changed = true;
      }
    }
    return changed;
  }

  private static boolean meet(Group group, AttributeSet set) {
    return !group.determinant.intersection(set).isEmpty();
  }

  /** Fields that stay. */
  AttributeSet stayingFields() {
    return staying;
  }

  /** The groups, those with determinants further left first. */
  List<Group> groups() {
    return groups;
  }

  /**
   * The groups a table of those fields refers to: those whose determinant it holds, but for
   * determinants within another one.
   *
   * @param own the group whose table it is; null for the split table
   */
  List<Group> references(AttributeSet table, @Nullable Group own) {
    List<Group> held =
        groups.stream()
            .filter(group -> group != own && table.containsAll(group.determinant))
            .toList();
    return held.stream()
        .filter(
            group ->
                held.stream()
                    .noneMatch(
                        other ->
                            other != group && other.determinant.containsAll(group.determinant)))
        .toList();
  }

  /** Groups in an order in which each refers only to earlier ones. */
  List<Group> referredFirst() {
    Set<Group> done = new LinkedHashSet<>();
    groups.forEach(group -> place(group, done));
    return List.copyOf(done);
  }

  private void place(Group group, Set<Group> done) {
    if (!done.contains(group)) {
      references(group.all(), group).forEach(other -> place(other, done));
      done.add(group);
    }
  }

  /** Whether the tables always join back to the split one, by the decisions alone. */
  boolean isLossless() {
    List<AttributeSet> parts =
        groups.stream().map(Group::all).collect(Collectors.toCollection(ArrayList::new));
    parts.add(staying);
    return scheme.isLossless(parts);
  }
}
