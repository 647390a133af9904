package joiner.desktop.shape;

import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Workbench;
import joiner.edit.DropKit;
import joiner.edit.LeaveKit;
import joiner.edit.MakeKit;
import joiner.edit.StandardKits;
import joiner.edit.TakeFromKit;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.Kit;
import joiner.model.KitUse;
import joiner.model.Table;
import joiner.model.TableId;

/** Kits of fields: dropped into the table that is chosen, made of its fields, let go again. */
final class KitsModel {
  private final Workbench bench;
  private final Texts texts;
  private final Supplier<Table> shown;

  /**
   * Kits of a design.
   *
   * @param shown the table, as it is now
   */
  KitsModel(Workbench bench, Texts texts, Supplier<Table> shown) {
    this.bench = bench;
    this.texts = texts;
    this.shown = shown;
  }

  /** What can be dropped in, each with its fields; what the table has already is not offered. */
  Offers<Kit> offers() {
    List<Offers.Offer<Kit>> all =
        StandardKits.of(bench.design()).stream()
            .filter(kit -> !uses(shown.get(), kit))
            .map(kit -> new Offers.Offer<>(kit, kit.label(), fields(kit), ""))
            .toList();
    return typed -> Offers.narrowed(all, typed);
  }

  private static String fields(Kit kit) {
    return String.join(", ", kit.fields().stream().map(Field::label).toList());
  }

  private static boolean uses(Table table, Kit kit) {
    return table.groups().stream().anyMatch(group -> group.isOf(kit.id()));
  }

  void drop(Kit kit) {
    bench.apply(() -> new DropKit(shown.get().id(), kit));
  }

  /** Makes a kit of fields of the table. */
  void make(List<Field> fields, String label) {
    List<FieldId> ids =
        shown.get().fields().stream().filter(fields::contains).map(Field::id).toList();
    if (bench.apply(() -> new MakeKit(shown.get().id(), ids, label))) {
      bench.tellDone(texts.get("kit.made", label, ids.size()), texts.get("undo"));
    }
  }

  /** The kit that a group comes from. */
  Optional<Kit> of(FieldGroup group) {
    return group.use().map(KitUse::kit).flatMap(bench.design()::find);
  }

  /** How many tables have a kit. */
  long tables(Kit kit) {
    return bench.design().tables().stream().filter(table -> uses(table, kit)).count();
  }

  /** The tables that a kit can be dropped into yet. */
  Offers<TableId> others(Kit kit) {
    return Offers.among(
        bench.design().tables().stream().filter(table -> !uses(table, kit)).map(Table::id).toList(),
        id -> bench.design().table(id).label());
  }

  /** Drops a kit into another table than the one that is chosen. */
  void drop(Kit kit, TableId into) {
    if (bench.apply(() -> new DropKit(into, kit))) {
      bench.tellDone(
          texts.get("kit.dropped", kit.label(), bench.design().table(into).label()),
          texts.get("undo"));
    }
  }

  /** The field of a kit that a field of the table is. */
  Optional<Field> ofKit(Kit kit, Field own) {
    return shown.get().groups().stream()
        .filter(group -> group.isOf(kit.id()))
        .flatMap(group -> group.use().stream())
        .flatMap(use -> use.ofKit(own.id()).stream())
        .flatMap(id -> kit.find(id).stream())
        .findFirst();
  }

  /** Takes a field out of a kit; in the tables it stays, or goes everywhere with its values. */
  void take(Kit kit, Field ofKit, boolean everywhere) {
    long tables = tables(kit);
    if (bench.apply(() -> new TakeFromKit(kit, ofKit, everywhere))) {
      String done = everywhere ? "kit.removed" : "kit.taken";
      bench.tellDone(texts.get(done, ofKit.label(), kit.label(), tables), texts.get("undo"));
    }
  }

  void leave(Kit kit) {
    bench.apply(LeaveKit.of(shown.get(), kit));
  }
}
