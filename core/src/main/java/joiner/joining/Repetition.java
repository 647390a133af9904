package joiner.joining;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * Whether joins can repeat a row within a line, by what the design says alone: a role is settled
 * where a row of the counted role and the rows that the line tells apart leave it one row at most.
 * Where all roles are, no row comes twice. It is the closure of functional dependencies along the
 * joins (Armstrong, "Dependency Structures of Data Base Relationships", 1974).
 */
final class Repetition {
  private final Bound bound;

  Repetition(Bound bound) {
    this.bound = bound;
  }

  /** The roles by which a row of a role can come several times in one line; the nearest first. */
  List<Integer> of(int role) {
    Set<Integer> settled = settled(role);
    var open = new ArrayList<Integer>();
    var ahead = new ArrayList<>(List.of(role));
    var seen = new HashSet<>(ahead);
    for (int i = 0; i < ahead.size(); i++) {
      for (int beside : bound.beside(ahead.get(i))) {
        if (seen.add(beside)) {
          ahead.add(beside);
          if (!settled.contains(beside)) {
            open.add(beside);
          }
        }
      }
    }
    return unsettled(role, open);
  }

  /** Of some roles those that neither a role nor others of them settle. */
  private List<Integer> unsettled(int role, List<Integer> open) {
    var left = new ArrayList<>(open);
    for (int one : open) {
      var others = new HashSet<>(left);
      others.remove(one);
      others.add(role);
      if (closure(others, others).contains(one)) {
        left.remove(Integer.valueOf(one));
      }
    }
    return left;
  }

  /** Whether no two combinations of rows make the same line. */
  boolean eachCombinationIsALine() {
    return closure(Set.copyOf(bound.apart()), Set.of()).size() == bound.roles().size();
  }

  /** Roles of which there is one row at most for rows of some roles. */
  Set<Integer> settledBy(List<Integer> roles) {
    return closure(Set.copyOf(roles), Set.of());
  }

  /** Of the roles that are told apart those that no other settles. */
  List<Integer> essential() {
    var essential = new ArrayList<>(bound.apart());
    for (int role : bound.apart()) {
      List<Integer> others = essential.stream().filter(r -> r != role).toList();
      if (settledBy(others).contains(role)) {
        essential.remove(Integer.valueOf(role));
      }
    }
    return essential;
  }

  /** Roles of which a line has one row at most for each row of a role. */
  private Set<Integer> settled(int role) {
    Set<Integer> there = closure(Set.of(role), Set.of(role));
    var from = new HashSet<>(there);
    from.addAll(bound.apart());
    return closure(from, there);
  }

  /**
   * What rows of some roles settle. A row that is told apart may be missing, and then it says
   * nothing of the one that it would have been joined to.
   *
   * @param there roles that have a row
   */
  private Set<Integer> closure(Set<Integer> from, Set<Integer> there) {
    var settled = new HashSet<>(from);
    var present = new HashSet<>(there);
    var ahead = new ArrayList<>(from);
    for (int i = 0; i < ahead.size(); i++) {
      int role = ahead.get(i);
      for (int beside : bound.beside(role)) {
        boolean outwards =
            bound.roles().get(role).from() == beside && bound.roles().get(role).kept();
        boolean known = !outwards || present.contains(role);
        if (known && bound.isToOne(role, beside) && settled.add(beside)) {
          ahead.add(beside);
          if (present.contains(role)
              && (outwards
                  || !(bound.roles().get(beside).from() == role
                      && bound.roles().get(beside).kept()))) {
            present.add(beside);
          }
        }
      }
    }
    return settled;
  }

  /**
   * Two roles that a question shows side by side though nothing pairs their rows but that they
   * belong to the same row.
   *
   * @param meeting the role both belong to
   */
  record Pairing(int one, int other, int meeting) {}

  /** The first such pair. */
  Optional<Pairing> pairing() {
    List<Integer> shown =
        bound.shown().stream()
            .flatMap(column -> Bound.rolesOf(column.of()).stream())
            .distinct()
            .toList();
    for (int one : shown) {
      for (int other : shown) {
        if (one < other) {
          Optional<Pairing> found = pairing(one, other);
          if (found.isPresent()) {
            return found;
          }
        }
      }
    }
    return Optional.empty();
  }

  /** The way from one to the other leads up to something many refer to and down again. */
  private Optional<Pairing> pairing(int one, int other) {
    List<Integer> way = way(one, other);
    boolean up = false;
    for (int i = 1; i < way.size(); i++) {
      boolean toOne = bound.isToOne(way.get(i - 1), way.get(i));
      boolean manyBack = !bound.isToOne(way.get(i), way.get(i - 1));
      if (!toOne && up) {
        return Optional.of(new Pairing(one, other, way.get(i - 1)));
      }
      up |= toOne && manyBack;
    }
    return Optional.empty();
  }

  private List<Integer> way(int from, int to) {
    var up = new ArrayList<Integer>();
    for (int at = from; at != Bound.NONE; at = bound.roles().get(at).from()) {
      up.add(at);
    }
    var down = new ArrayList<Integer>();
    for (int at = to; at != Bound.NONE; at = bound.roles().get(at).from()) {
      if (up.contains(at)) {
        List<Integer> way = new ArrayList<>(up.subList(0, up.indexOf(at) + 1));
        way.addAll(down.reversed());
        return way;
      }
      down.add(at);
    }
    throw new IllegalStateException("roles form a tree");
  }
}
