package joiner.desktop.connect;

import java.nio.file.Path;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleObjectProperty;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Request;
import joiner.desktop.work.Workbench;
import joiner.map.Detail;
import joiner.map.MapLayout;
import joiner.map.MapPicture;
import joiner.map.Matrix;
import joiner.map.Neighbours;
import joiner.map.PictureTheme;
import joiner.map.Scope;
import joiner.map.Spot;
import joiner.map.Ways;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Table;
import joiner.model.TableId;

/** What the stage Connect is about and does, without a window: what the map shows, and relating. */
final class ConnectModel {
  /** How many steps the focus may reach. */
  static final int FARTHEST = 3;

  private final Workbench bench;
  private final Texts texts;
  private final Computed<Drawn, MapLayout> layout;
  private final Computed<Design, Matrix> matrix;
  private final BooleanProperty asMatrix = new SimpleBooleanProperty();
  private final IntegerProperty steps = new SimpleIntegerProperty(0);
  private final ObjectProperty<Optional<Scope.Areas>> areas =
      new SimpleObjectProperty<>(Optional.empty());

  /** Which areas are folded; empty as long as nobody said anything of it. */
  private Optional<Set<AreaId>> folded = Optional.empty();

  private final Set<TableId> hidden = new LinkedHashSet<>();
  private Optional<Between> between = Optional.empty();

  /** The ends of the ways that alone are shown. */
  record Between(TableId from, TableId to) {}

  /** From so many tables on a map begins with its areas folded. */
  private static final int MANY = 60;

  private final ObjectProperty<Optional<Detail>> detail =
      new SimpleObjectProperty<>(Optional.empty());
  private int width;
  private int height;

  /**
   * What is drawn.
   *
   * @param scopes what may be shown; the first unless another fits better
   * @param detail how much is told; empty for as much as fits
   * @param width of the window if it matters, in steps of {@link #STEP} pixels
   */
  private record Drawn(
      Design design, List<Scope> scopes, Optional<Detail> detail, int width, int height) {
    MapLayout laidOut() {
      return detail
          .map(told -> MapLayout.of(design, scopes.getFirst(), told))
          .orElseGet(
              () ->
                  width == 0 // Nobody has looked yet.
                      ? MapLayout.of(design, scopes.getFirst(), Detail.FIELDS)
                      : MapLayout.fitting(design, scopes, width * STEP, height * STEP));
    }
  }

  /** A window that grows by less has no other layout. */
  private static final int STEP = 40;

  ConnectModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    this.layout =
        new Computed<>(
            bench.runner(),
            texts.get("layout.working"),
            Lane.WORKING,
            Drawn::equals,
            (drawn, progress) -> drawn.laidOut());
    this.matrix =
        new Computed<>(
            bench.runner(),
            texts.get("matrix.working"),
            Lane.WORKING,
            (one, other) -> one == other,
            (design, progress) -> Matrix.of(design));
  }

  /** Who refers to whom. */
  ReadOnlyObjectProperty<Answer<Matrix>> matrixProperty() {
    return matrix.answerProperty();
  }

  /** Whether the matrix is what is looked at, else the map. */
  BooleanProperty asMatrixProperty() {
    return asMatrix;
  }

  /** How far around the chosen table the map goes; 0 for everything. */
  IntegerProperty stepsProperty() {
    return steps;
  }

  /** Where everything lies. */
  ReadOnlyObjectProperty<Answer<MapLayout>> layoutProperty() {
    return layout.answerProperty();
  }

  /** Writes what is drawn into a file, in the background. */
  void save(Path file, MapPicture.Format format, PictureTheme theme, Consumer<Path> done) {
    Design design = bench.design();
    Scope scope = arranged();
    Detail told = detail.get().orElse(Detail.FIELDS);
    Request.Work<Path> work =
        progress -> {
          MapLayout whole = MapLayout.of(design, scope, told);
          new MapPicture(whole, theme, design.title()).write(file, format);
          return file;
        };
    bench.runner().start(Request.of(this, texts.get("save.working"), work, done, bench::tell));
  }

  /** How what is seen is arranged, so that what is written looks as it does. */
  Scope arranged() {
    return layout.answer().latest().flatMap(this::shownBy).orElseGet(() -> scopes().getFirst());
  }

  /** By what a layout was made, of what it may be. */
  private Optional<Scope> shownBy(MapLayout shown) {
    boolean standsIn =
        shown.others().stream().anyMatch(other -> other.spot() instanceof Spot.StandIn);
    Scope.Areas areasShown =
        standsIn
            ? Scope.Areas.STAND_INS
            : shown.regions().isEmpty() ? Scope.Areas.MIXED : Scope.Areas.REGIONS;
    return scopes().stream().filter(scope -> scope.areas() == areasShown).findFirst();
  }

  /** Says whether somebody looks at the map. */
  void look(boolean now) {
    layout.look(now);
    matrix.look(now);
  }

  /** Has everything that is to be drawn laid out. */
  void layOut() {
    if (asMatrix.get()) {
      matrix.ask(bench.design());
      return;
    }
    boolean fits = detail.get().isEmpty();
    layout.ask(
        new Drawn(bench.design(), scopes(), detail.get(), fits ? width : 0, fits ? height : 0));
  }

  /** How areas are told apart on the map; empty for as more is told of the tables. */
  ObjectProperty<Optional<Scope.Areas>> areasProperty() {
    return areas;
  }

  /** What the map may show, what is preferred first. */
  private List<Scope> scopes() {
    Set<TableId> tables = drawn();
    Set<AreaId> closed = folded(tables);
    return areas.get().map(List::of).orElseGet(() -> fitting(tables, closed)).stream()
        .map(way -> new Scope(tables, way, closed))
        .toList();
  }

  /** Who folds areas wants to see areas; of many tables only one layout is worked out. */
  private static List<Scope.Areas> fitting(Set<TableId> tables, Set<AreaId> closed) {
    if (tables.size() > MANY) {
      return List.of(Scope.Areas.REGIONS);
    }
    return closed.isEmpty()
        ? List.of(Scope.Areas.REGIONS, Scope.Areas.STAND_INS, Scope.Areas.MIXED)
        : List.of(Scope.Areas.REGIONS, Scope.Areas.STAND_INS);
  }

  private Set<AreaId> folded(Set<TableId> tables) {
    return folded.orElseGet(() -> tables.size() > MANY ? allAreas() : Set.of());
  }

  private Set<AreaId> allAreas() {
    return bench.design().areas().stream().map(Area::id).collect(Collectors.toSet());
  }

  /** Folds an area to one board, or unfolds it. */
  void fold(AreaId area, boolean folds) {
    Set<AreaId> now = new HashSet<>(folded(drawn()));
    if (folds) {
      now.add(area);
    } else {
      now.remove(area);
    }
    folded = Optional.of(now);
  }

  /** Folds all areas, or unfolds them. */
  void foldAll(boolean folds) {
    folded = Optional.of(folds ? allAreas() : Set.of());
  }

  /** Whether somebody wants a table's board at a place. */
  boolean isPinned(TableId table) {
    return bench.design().pins().stream().anyMatch(pin -> pin.table().equals(table));
  }

  /** Takes a table off the map. */
  void hide(TableId table) {
    hidden.add(table);
  }

  /** Puts all tables that were taken off the map back. */
  void showHidden() {
    hidden.clear();
  }

  /** Tables that were taken off the map and are there still. */
  List<TableId> hidden() {
    return hidden.stream().filter(id -> bench.design().find(id).isPresent()).toList();
  }

  /**
   * Shows only what leads from one table to the other.
   *
   * @return whether anything does; else all stays as it was
   */
  boolean showWays(TableId from, TableId to) {
    boolean leads = !Ways.between(bench.design(), from, to).isEmpty();
    if (leads) {
      between = Optional.of(new Between(from, to));
    }
    return leads;
  }

  /** Shows what leads elsewhere, too. */
  void showAllWays() {
    between = Optional.empty();
  }

  /** The two tables, if only what leads from one to the other is shown. */
  Optional<Between> between() {
    return between.filter(
        ends ->
            bench.design().find(ends.from()).isPresent()
                && bench.design().find(ends.to()).isPresent());
  }

  /** The tables whose name holds all words of a text, those that begin with it first. */
  List<TableId> named(String text) {
    String wanted = text.strip().toLowerCase(Locale.ROOT);
    if (wanted.isEmpty()) {
      return List.of();
    }
    List<String> words = List.of(wanted.split("\\s+"));
    return bench.design().tables().stream()
        .filter(table -> words.stream().allMatch(names(table)::contains))
        .sorted(Comparator.comparing((Table table) -> !names(table).startsWith(wanted)))
        .map(Table::id)
        .toList();
  }

  private static String names(Table table) {
    return (table.label() + " " + table.name()).toLowerCase(Locale.ROOT);
  }

  /** How much is told of each table; empty for as much as fits. */
  ObjectProperty<Optional<Detail>> detailProperty() {
    return detail;
  }

  /** Says how large the map is in the window, in pixels. */
  boolean resize(double wide, double high) {
    int before = 31 * width + height;
    width = (int) (wide / STEP);
    height = (int) (high / STEP);
    return before != 31 * width + height;
  }

  /**
   * The tables that are drawn: all, those that so many relationships lead to, or those that lie
   * between two; without those that were taken off.
   */
  Set<TableId> drawn() {
    Design design = bench.design();
    Set<TableId> tables =
        between()
            .map(ends -> Ways.between(design, ends.from(), ends.to()))
            .filter(on -> !on.isEmpty()) // The relationship may be gone.
            .orElseGet(() -> around(design));
    tables.removeAll(hidden);
    return tables;
  }

  private Set<TableId> around(Design design) {
    return steps.get() == 0 || bench.table().isEmpty()
        ? new HashSet<>(design.tables().stream().map(Table::id).toList())
        : Neighbours.of(design, bench.table().get().id(), steps.get());
  }
}
