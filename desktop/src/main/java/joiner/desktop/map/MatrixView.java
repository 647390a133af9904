package joiner.desktop.map;

import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.paint.Paint;
import javafx.scene.text.TextAlignment;
import joiner.desktop.work.Selection;
import joiner.map.Ink;
import joiner.map.Joints;
import joiner.map.MapDrawing;
import joiner.map.Matrix;
import joiner.model.TableId;

/**
 * Who refers to whom, as a matrix: rows refer to columns. A click or Enter on a joint chooses the
 * relationship, the next one on several; on an empty cell it relates the two tables. Arrow keys
 * move the cell, the wheel scrolls. Only what is in sight is drawn.
 */
public final class MatrixView extends Drawn {
  private static final double CELL = 30;
  private static final double SIDE = 150;
  private static final double TOP = 116;
  private static final double SLANT = -45;
  private static final Letters BOLD = new Letters("IBM Plex Sans SemiBold");
  private static final Letters PLAIN = new Letters("IBM Plex Sans");

  private final MapPainter pen = painter();
  private final MapColors colors = colors();
  private final MapView.Deeds deeds;
  private final BiFunction<TableId, List<Matrix.Tie>, String> words;
  private Matrix matrix = Matrix.EMPTY;
  private Selection selection = Selection.NONE;
  private double left;
  private double top;
  private int row = -1;
  private int column = -1;

  /**
   * A matrix that tells what is done on it.
   *
   * @param words what ties say, of the table that refers
   */
  public MatrixView(MapView.Deeds deeds, BiFunction<TableId, List<Matrix.Tie>, String> words) {
    super("matrix", AccessibleRole.TABLE_VIEW);
    this.deeds = deeds;
    this.words = words;
    setOnMouseMoved(this::hover);
    setOnMouseClicked(this::click);
    setOnScroll(this::scroll);
    setOnKeyPressed(this::key);
  }

  @Override
  void resized() {
    scrollTo(left, top);
  }

  /** Shows another matrix, at the place that was in sight. */
  public void show(Matrix other) {
    matrix = other;
    row = Math.min(row, other.tables().size() - 1);
    column = Math.min(column, other.tables().size() - 1);
    scrollTo(left, top);
  }

  /** Marks what is chosen, and brings its row into sight. */
  public void mark(Selection chosen) {
    selection = chosen;
    chosen
        .table()
        .flatMap(matrix::place)
        .ifPresent(
            place -> {
              if (row != place) {
                row = place;
                reveal();
              }
            });
    redraw();
  }

  /** The matrix shown. */
  public Matrix shown() {
    return matrix;
  }

  /** The cell that the keys are at: its row and its column, -1 for none. */
  public int[] cell() {
    return new int[] {row, column};
  }

  private double most(double shown) {
    return Math.max(0, matrix.tables().size() * CELL - shown + 12);
  }

  private void scrollTo(double x, double y) {
    left = Math.clamp(x, 0, most(getWidth() - SIDE));
    top = Math.clamp(y, 0, most(getHeight() - TOP));
    redraw();
  }

  private void scroll(ScrollEvent event) {
    boolean sideways = event.isShiftDown() && event.getDeltaX() == 0;
    scrollTo(
        left - (sideways ? event.getDeltaY() : event.getDeltaX()),
        top - (sideways ? 0 : event.getDeltaY()));
    event.consume();
  }

  private int rowAt(double y) {
    int at = (int) Math.floor((y - TOP + top) / CELL);
    return y >= TOP && at < matrix.tables().size() ? at : -1;
  }

  private int columnAt(double x) {
    int at = (int) Math.floor((x - SIDE + left) / CELL);
    return x >= SIDE && at < matrix.tables().size() ? at : -1;
  }

  private void hover(MouseEvent event) {
    int overRow = rowAt(event.getY());
    int overColumn = columnAt(event.getX());
    if (overRow >= 0 && overColumn >= 0 && (overRow != row || overColumn != column)) {
      row = overRow;
      column = overColumn;
      redraw();
    }
  }

  private void click(MouseEvent event) {
    requestFocus();
    int atRow = rowAt(event.getY());
    int atColumn = columnAt(event.getX());
    if (atRow >= 0 && atColumn >= 0) {
      row = atRow;
      column = atColumn;
      take();
    } else if (atRow >= 0 && event.getX() < SIDE) {
      deeds.pick(Selection.of(matrix.tables().get(atRow).id()));
    }
  }

  private void key(KeyEvent event) {
    if (event.isControlDown() || event.isAltDown() || event.isMetaDown()) {
      return;
    }
    int last = matrix.tables().size() - 1;
    if (last < 0) {
      return;
    }
    KeyCode code = event.getCode();
    switch (code) {
      case UP -> row = Math.max(0, row - 1);
      case DOWN -> row = Math.min(last, row + 1);
      case LEFT -> column = Math.max(0, column - 1);
      case RIGHT -> column = Math.min(last, column + 1);
      case HOME -> column = 0;
      case END -> column = last;
      case PAGE_UP -> row = Math.max(0, row - 10);
      case PAGE_DOWN -> row = Math.min(last, row + 10);
      case ENTER, SPACE -> {
        if (row >= 0 && column >= 0) {
          take();
        }
      }
      default -> {
        return;
      }
    }
    row = Math.max(0, row);
    column = Math.max(0, column);
    reveal();
    tell();
    event.consume();
  }

  /** What a reader of the screen hears of the cell. */
  private void tell() {
    List<Matrix.Tie> ties = matrix.at(row, column);
    String refers = matrix.tables().get(row).label();
    String to = matrix.tables().get(column).label();
    setAccessibleText(
        ties.isEmpty() ? refers + " · " + to : words.apply(matrix.tables().get(row).id(), ties));
  }

  private void reveal() {
    scrollTo(
        column < 0 ? left : revealed(left, column, getWidth() - SIDE),
        row < 0 ? top : revealed(top, row, getHeight() - TOP));
  }

  /** The least scrolling by which a place is in sight. */
  private static double revealed(double now, int place, double shown) {
    double least = (place + 1) * CELL - shown;
    return Math.clamp(now, least, Math.max(least, place * CELL));
  }

  /** Chooses what is there, the next one of several; relates where nothing is. */
  private void take() {
    List<Matrix.Tie> ties = matrix.at(row, column);
    TableId child = matrix.tables().get(row).id();
    if (ties.isEmpty()) {
      TableId parent = matrix.tables().get(column).id();
      deeds.relate(
          new MapView.End(parent, Optional.empty()), new MapView.End(child, Optional.empty()));
      return;
    }
    int now = -1;
    for (int i = 0; i < ties.size(); i++) {
      if (selection.relationship().equals(Optional.of(ties.get(i).relationship().id()))) {
        now = i;
      }
    }
    deeds.pick(Selection.of(child, ties.get((now + 1) % ties.size()).relationship().id()));
  }

  @Override
  void paint() {
    GraphicsContext g = canvas().getGraphicsContext2D();
    g.setTransform(1, 0, 0, 1, 0, 0);
    g.setFill(colors.of(Ink.PAPER));
    g.fillRect(0, 0, getWidth(), getHeight());
    g.setTextBaseline(VPos.CENTER);
    int first = (int) (top / CELL);
    int lastRow = Math.min(matrix.tables().size() - 1, (int) ((top + getHeight() - TOP) / CELL));
    int begin = (int) (left / CELL);
    int lastColumn =
        Math.min(matrix.tables().size() - 1, (int) ((left + getWidth() - SIDE) / CELL));
    g.save();
    g.beginPath();
    g.rect(SIDE, TOP, getWidth() - SIDE, getHeight() - TOP);
    g.clip();
    cells(g, first, lastRow, begin, lastColumn);
    circles(g);
    g.restore();
    heads(g, first, lastRow, begin, lastColumn);
  }

  private double x(int place) {
    return SIDE + place * CELL - left;
  }

  private double y(int place) {
    return TOP + place * CELL - top;
  }

  private boolean isChosen(int place) {
    return selection.table().equals(Optional.of(matrix.tables().get(place).id()));
  }

  private void cells(GraphicsContext g, int first, int lastRow, int begin, int lastColumn) {
    g.setLineWidth(1);
    for (int r = first; r <= lastRow; r++) {
      for (int c = begin; c <= lastColumn; c++) {
        boolean lit = r == row || c == column || isChosen(r) || isChosen(c);
        g.setFill(colors.of(Ink.BOARD));
        g.fillRect(x(c), y(r), CELL, CELL);
        if (lit || r == c) {
          g.setGlobalAlpha(lit ? 0.12 : 0.35);
          g.setFill(lit ? colors.of(Ink.SPRUCE) : colors.of(Ink.LINE));
          g.fillRect(x(c), y(r), CELL, CELL);
          g.setGlobalAlpha(1);
        }
        g.setStroke(colors.of(Ink.LINE));
        g.strokeRect(x(c) + 0.5, y(r) + 0.5, CELL, CELL);
        ties(g, matrix.at(r, c), x(c), y(r));
      }
    }
    if (row >= 0 && column >= 0) {
      g.setStroke(colors.of(Ink.SPRUCE));
      g.setLineWidth(2);
      g.strokeRect(x(column) + 0.5, y(row) + 0.5, CELL, CELL);
    }
  }

  private void ties(GraphicsContext g, List<Matrix.Tie> ties, double x, double y) {
    if (ties.isEmpty()) {
      return;
    }
    Matrix.Tie tie = ties.getFirst();
    boolean chosen =
        ties.stream()
            .anyMatch(t -> selection.relationship().equals(Optional.of(t.relationship().id())));
    if (chosen) {
      g.setGlobalAlpha(0.3);
      g.setFill(colors.of(Ink.SPRUCE));
      g.fillRect(x + 1, y + 1, CELL - 1, CELL - 1);
      g.setGlobalAlpha(1);
    }
    double middle = y + CELL / 2 + (ties.size() > 1 ? 2 : 0);
    Joints.draw(pen, x + CELL / 2 + 2, middle, -1, true, tie.ends().parentRequired());
    Joints.draw(
        pen, x + CELL / 2 + 2, middle, 1, tie.ends().childUnique(), tie.ends().childRequired());
    if (ties.size() > 1) {
      write(g, BOLD, String.valueOf(ties.size()), 11, colors.of(Ink.OAK), x + CELL - 9, y + 7);
    }
  }

  /** Tables that need each other are boxed: no order of loading is right for them. */
  private void circles(GraphicsContext g) {
    g.setStroke(colors.of(Ink.OAK));
    g.setLineWidth(2);
    for (int[] circle : matrix.circles()) {
      double size = (circle[1] - circle[0] + 1) * CELL;
      g.strokeRect(x(circle[0]), y(circle[0]), size, size);
    }
  }

  private void heads(GraphicsContext g, int first, int lastRow, int begin, int lastColumn) {
    g.save();
    g.beginPath();
    g.rect(0, TOP, SIDE, getHeight() - TOP);
    g.clip();
    for (int r = first; r <= lastRow; r++) {
      boolean lit = r == row || isChosen(r);
      Letters letters = lit ? BOLD : PLAIN;
      String name = MapDrawing.fitting(pen, lit, 12, matrix.tables().get(r).label(), SIDE - 24);
      double wide = letters.width(name, 12);
      write(g, letters, name, 12, colors.of(Ink.TEXT), SIDE - 10 - wide, y(r) + CELL / 2);
    }
    g.restore();
    g.save();
    g.beginPath();
    g.rect(SIDE - 20, 0, getWidth() - SIDE + 20, TOP);
    g.clip();
    for (int c = begin; c <= lastColumn; c++) {
      boolean lit = c == column || isChosen(c);
      Letters letters = lit ? BOLD : PLAIN;
      String name = MapDrawing.fitting(pen, lit, 12, matrix.tables().get(c).label(), TOP * 1.25);
      g.save();
      g.translate(x(c) + CELL / 2 + 2, TOP - 8);
      g.rotate(SLANT);
      write(g, letters, name, 12, colors.of(Ink.TEXT), 0, 0);
      g.restore();
    }
    g.restore();
  }

  private static void write(
      GraphicsContext g,
      Letters letters,
      String text,
      double size,
      Paint paint,
      double x,
      double y) {
    g.setFont(letters.font(size));
    g.setFill(paint);
    g.setTextAlign(TextAlignment.LEFT);
    g.fillText(text, x, y);
  }
}
