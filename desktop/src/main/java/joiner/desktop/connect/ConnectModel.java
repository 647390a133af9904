package joiner.desktop.connect;

import java.nio.file.Path;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
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

  private final ObjectProperty<Optional<Detail>> detail =
      new SimpleObjectProperty<>(Optional.empty());
  private int width;
  private int height;

  /**
   * What is drawn.
   *
   * @param detail how much is told; empty for as much as fits
   * @param width of the window if it matters, in steps of {@link #STEP} pixels
   */
  private record Drawn(
      Design design, Set<TableId> tables, Optional<Detail> detail, int width, int height) {
    MapLayout laidOut() {
      return detail
          .map(told -> MapLayout.of(design, tables, told))
          .orElseGet(
              () ->
                  width == 0 // Nobody has looked yet.
                      ? MapLayout.of(design, tables)
                      : MapLayout.fitting(design, tables, width * STEP, height * STEP));
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
    Set<TableId> tables = drawn();
    Detail told = detail.get().orElse(Detail.FIELDS);
    Request.Work<Path> work =
        progress -> {
          MapLayout whole = MapLayout.of(design, tables, told);
          new MapPicture(whole, theme, design.title()).write(file, format);
          return file;
        };
    bench.runner().start(Request.of(this, texts.get("save.working"), work, done, bench::tell));
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
        new Drawn(bench.design(), drawn(), detail.get(), fits ? width : 0, fits ? height : 0));
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

  /** The tables that are drawn: all, or those that so many relationships lead to. */
  Set<TableId> drawn() {
    Design design = bench.design();
    if (steps.get() == 0 || bench.table().isEmpty()) {
      return new HashSet<>(design.tables().stream().map(Table::id).toList());
    }
    return Neighbours.of(design, bench.table().get().id(), steps.get());
  }
}
