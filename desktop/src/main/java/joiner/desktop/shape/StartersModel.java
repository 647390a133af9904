package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyLongProperty;
import javafx.beans.property.ReadOnlyLongWrapper;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Request;
import joiner.desktop.work.Selection;
import joiner.desktop.work.StarterHome;
import joiner.desktop.work.Workbench;
import joiner.edit.AddStarters;
import joiner.meaning.Draft;
import joiner.meaning.TypeWords;
import joiner.model.Area;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.WordList;

/** Tables to begin with: which there are, and which of them and of their fields are picked. */
final class StartersModel {
  private final Workbench bench;
  private final Texts texts;
  private final ReadOnlyLongWrapper changes = new ReadOnlyLongWrapper();
  private List<Draft> starters = List.of();

  /** Of each picked table the fields that are left out. */
  private final Map<Line, Set<FieldId>> picked = new LinkedHashMap<>();

  private boolean withParents = true;

  /**
   * A table, or the heading of those that follow.
   *
   * @param from the design it comes from
   * @param heading of a group; empty for a table
   */
  record Line(int from, String heading, Optional<TableId> table) {}

  StartersModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
  }

  /** Counts up when anything is to be shown anew. */
  ReadOnlyLongProperty changesProperty() {
    return changes.getReadOnlyProperty();
  }

  /** Reads the starters in the background, unless they are there. */
  void read() {
    if (starters.isEmpty()) {
      bench
          .runner()
          .start(
              Request.of(
                  this,
                  texts.get("starters.reading"),
                  progress -> StarterHome.read(),
                  this::show,
                  bench::tell));
    }
  }

  private void show(List<Draft> found) {
    starters = List.copyOf(found);
    changed();
  }

  private void changed() {
    changes.set(changes.get() + 1);
  }

  private Design design(Line line) {
    return starters.get(line.from).design();
  }

  Table table(Line line) {
    return design(line).table(line.table.orElseThrow());
  }

  /** All tables by their groups. */
  List<Line> lines() {
    var lines = new ArrayList<Line>();
    for (int i = 0; i < starters.size(); i++) {
      Design design = starters.get(i).design();
      for (Area area : design.areas()) {
        lines.add(new Line(i, area.name(), Optional.empty()));
        add(lines, i, Optional.of(area));
      }
      if (design.tables().stream().anyMatch(table -> table.area().isEmpty())) {
        lines.add(new Line(i, design.title(), Optional.empty()));
        add(lines, i, Optional.empty());
      }
    }
    return lines;
  }

  private void add(List<Line> lines, int from, Optional<Area> area) {
    starters.get(from).design().tables().stream()
        .filter(table -> table.area().equals(area.map(Area::id)))
        .forEach(table -> lines.add(new Line(from, "", Optional.of(table.id()))));
  }

  boolean isPicked(Line line) {
    return picked.containsKey(line);
  }

  /** Whether a table is not picked but comes along with one that is. */
  boolean comesAlong(Line line) {
    return !isPicked(line) && line.table().filter(id -> all(line.from).contains(id)).isPresent();
  }

  void pick(Line line, boolean on) {
    if (on) {
      picked.putIfAbsent(line, Set.of());
    } else {
      picked.remove(line);
    }
    changed();
  }

  /** Whether tables that the picked ones refer to come along. */
  boolean withParents() {
    return withParents;
  }

  void bringParents(boolean on) {
    withParents = on;
    changed();
  }

  boolean isWanted(Line line, Field field) {
    return !picked.getOrDefault(line, Set.of()).contains(field.id());
  }

  /** Whether a field comes with its table in any case. */
  boolean isFixed(Line line, Field field) {
    return table(line).primaryKey().contains(field.id());
  }

  /** Takes a field in or leaves it out; its table is picked with it. */
  void want(Line line, Field field, boolean on) {
    Set<FieldId> out = new HashSet<>(picked.getOrDefault(line, Set.of()));
    if (on) {
      out.remove(field.id());
    } else {
      out.add(field.id());
    }
    picked.put(line, Set.copyOf(out));
    changed();
  }

  /** What a field holds, in words. */
  String holds(Line line, Field field) {
    return design(line).parentsOf(line.table().orElseThrow()).stream()
        .filter(up -> up.childFields().contains(field.id()))
        .map(Relationship::parent)
        .map(parent -> "→ " + design(line).table(parent).label())
        .findFirst()
        .orElseGet(() -> TypeWords.of(field.type()));
  }

  /** The tables of a design that come, those the picked ones refer to among them. */
  private Set<TableId> all(int from) {
    Set<TableId> own =
        picked.keySet().stream()
            .filter(line -> line.from == from)
            .map(line -> line.table().orElseThrow())
            .collect(Collectors.toSet());
    return withParents && !own.isEmpty()
        ? AddStarters.withParents(starters.get(from).design(), own)
        : own;
  }

  /** How many tables would come. */
  int count() {
    int count = 0;
    for (int i = 0; i < starters.size(); i++) {
      count += all(i).size();
    }
    return count;
  }

  /** What would be called otherwise because its name is taken, in a sentence; or nothing. */
  String renamed() {
    var taken = new ArrayList<String>();
    for (int i = 0; i < starters.size(); i++) {
      Design design = starters.get(i).design();
      all(i).stream()
          .map(design::table)
          .filter(table -> bench.design().tableNamed(table.name()).isPresent())
          .map(Table::label)
          .forEach(taken::add);
    }
    return taken.isEmpty()
        ? ""
        : texts.get("starters.renamed", WordList.and(taken.stream().sorted().toList()));
  }

  /** Adds what is picked; says whether it did. */
  boolean add() {
    boolean added = false;
    int before = bench.design().tables().size();
    for (int i = 0; i < starters.size(); i++) {
      Set<TableId> all = all(i);
      if (!all.isEmpty()) {
        Draft from = starters.get(i);
        Map<TableId, Set<FieldId>> wanted = new LinkedHashMap<>();
        for (TableId id : all) {
          wanted.put(id, wanted(new Line(i, "", Optional.of(id)), from.design().table(id)));
        }
        added |= bench.apply(() -> new AddStarters(from, wanted));
      }
    }
    if (added) {
      picked.clear();
      bench.design().tables().stream()
          .skip(before)
          .findFirst()
          .ifPresent(first -> bench.selectionProperty().set(Selection.of(first.id())));
      changed();
    }
    return added;
  }

  private Set<FieldId> wanted(Line line, Table table) {
    return table.fields().stream()
        .filter(field -> isWanted(line, field))
        .map(Field::id)
        .collect(Collectors.toSet());
  }
}
