package joiner.desktop.prove;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Workbench;
import joiner.entry.Entered;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.RowId;
import org.kordamp.ikonli.feather.Feather;

/** The rows that refer to the open one, as lines of controls. */
final class EnterDetails {
  private static final double WIDTH = 120;
  private static final double LEAST_WIDTH = 84;
  private static final double MOMENT = 158;
  private static final int MOST_ROWS = 30;
  private static final int MOST_COLUMNS = 5;
  private static final int MORE_ROWS = 100;

  private final Workbench bench;
  private final Texts texts;
  private final EnterModel model;
  private final EnterBelow below;
  private final EnterControls controls;
  private final Consumer<Relationship> add;
  private final Runnable again;

  /** How many rows are shown where somebody wants more than the last ones. */
  private final Map<RelationshipId, Integer> most = new HashMap<>();

  /** Where somebody wants all fields. */
  private final Set<RelationshipId> wide = new HashSet<>();

  /**
   * Lines of a form.
   *
   * @param add adds a row and goes to it
   * @param again shows all lines anew
   */
  EnterDetails(
      Workbench bench,
      Texts texts,
      EnterModel model,
      EnterControls controls,
      Consumer<Relationship> add,
      Runnable again) {
    this.bench = bench;
    this.texts = texts;
    this.model = model;
    this.below = model.below();
    this.controls = controls;
    this.add = add;
    this.again = again;
  }

  /** By what the controls of a row are found. */
  static String style(Relationship over, int place) {
    return "below-" + over.id().value() + "-" + place;
  }

  /** The rows that refer to the open one over a relationship. */
  Node of(Relationship over) {
    Table child = bench.design().table(over.child());
    List<Entered> rows = below.rows(over);
    Button more =
        Parts.button(texts.get("enter.add", child.noun().indefinite()), () -> add.accept(over));
    more.setId("add-" + over.name());
    var heading = Parts.label(heading(over, child, rows.size()), "strong");
    var box = new VBox(6, Parts.row(8, heading, Parts.spring(), more));
    List<EnterPart> all =
        model.parts(child).stream()
            .filter(part -> part.fields().stream().noneMatch(over.childFields()::contains))
            .filter(part -> !(part instanceof EnterPart.Own own) || EnterPart.isTyped(own.field()))
            .toList();
    List<EnterPart> parts =
        wide.contains(over.id()) ? all : all.stream().limit(MOST_COLUMNS).toList();
    if (!rows.isEmpty() && !parts.isEmpty()) {
      box.getChildren().add(sideways(grid(over, child, rows, parts)));
    }
    box.getChildren().add(controls.refusals(() -> below.refusals(over), "\n"));
    Pane further = further(over, rows.size(), all.size());
    if (!further.getChildren().isEmpty()) {
      box.getChildren().add(further);
    }
    return box;
  }

  /** What shows earlier rows, and more or fewer fields, where there are any. */
  private Pane further(Relationship over, int rows, int fields) {
    var further = new FlowPane(8, 4);
    int hidden = rows - most(over);
    if (hidden > 0) {
      Button earlier =
          Parts.button(
              texts.get("enter.more", Counts.of(Math.min(hidden, MORE_ROWS)), Counts.of(hidden)),
              () -> {
                most.put(over.id(), most(over) + MORE_ROWS);
                again.run();
              });
      earlier.setId("more-" + over.name());
      further.getChildren().add(earlier);
    }
    if (rows > 0 && fields > MOST_COLUMNS) {
      String words =
          wide.contains(over.id())
              ? texts.get("enter.fields.fewer")
              : texts.get("enter.fields.all", fields);
      Button width =
          Parts.button(
              words,
              () -> {
                if (!wide.remove(over.id())) {
                  wide.add(over.id());
                }
                again.run();
              });
      width.setId("fields-" + over.name());
      further.getChildren().add(width);
    }
    return further;
  }

  private int most(Relationship over) {
    return most.getOrDefault(over.id(), MOST_ROWS);
  }

  /** How many there are, and as what where they could refer in several ways. */
  private String heading(Relationship over, Table child, int rows) {
    String counted = Counts.of(rows, child.noun().singular(), child.noun().plural());
    boolean several = below.all().stream().filter(r -> r.child().equals(over.child())).count() > 1;
    return several
        ? texts.get(
            "enter.below.as", counted, String.join(", ", child.labelsOf(over.childFields())))
        : counted;
  }

  /** What is wider than there is room scrolls by itself. */
  private static Node sideways(Node wide) {
    var scroll = new ScrollPane(wide);
    scroll.setVbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    scroll.setFitToWidth(true);
    scroll.setMinWidth(0);
    scroll.setMinHeight(Region.USE_PREF_SIZE);
    return scroll;
  }

  private Node grid(Relationship over, Table child, List<Entered> rows, List<EnterPart> parts) {
    var grid = new GridPane(6, 4);
    grid.setPadding(new Insets(0, 0, 10, 0)); // Room for a bar below.
    for (int column = 0; column < parts.size(); column++) {
      grid.add(Parts.label(parts.get(column).label(child), "muted", "small"), column, 0);
    }
    int first = Math.max(0, rows.size() - most(over));
    for (int place = first; place < rows.size(); place++) {
      line(grid, place - first + 1, over, child, place, parts);
      Optional<RowId> saved = rows.get(place).row();
      Button last =
          saved.isPresent() ? deeper(over, child, saved.get(), place) : remove(over, child, place);
      grid.add(last, parts.size(), place - first + 1);
    }
    return grid;
  }

  private void line(
      GridPane grid, int line, Relationship over, Table child, int place, List<EnterPart> parts) {
    var at =
        new EnterControls.At(
            "below-" + over.name() + "-" + place,
            false,
            field -> text(over, place, field),
            typed -> below.type(over, place, typed));
    for (int column = 0; column < parts.size(); column++) {
      EnterPart part = parts.get(column);
      String name = child.field(part.fields().getLast()).label();
      Region control = controls.of(child, part, name, at);
      boolean moment =
          part instanceof EnterPart.Own(Field field) && field.type().kind().isDayWithTime();
      control.setPrefWidth(moment ? MOMENT : WIDTH);
      control.setMinWidth(moment ? MOMENT : LEAST_WIDTH);
      control.getStyleClass().add(style(over, place));
      grid.add(control, column, line);
    }
  }

  /** Opens a row with all its fields and what is below it. */
  private Button deeper(Relationship over, Table child, RowId row, int place) {
    Button open =
        Parts.iconButton(
            Feather.CHEVRON_RIGHT,
            texts.get("enter.deeper", child.noun().singular()),
            () -> model.trips().openBelow(child.id(), row));
    open.setId("open-" + over.name() + "-" + place);
    return open;
  }

  private Button remove(Relationship over, Table child, int place) {
    Button remove = Parts.button("×", () -> below.remove(over, place), "plain");
    remove.setAccessibleText(texts.get("enter.remove", child.noun().singular()));
    return remove;
  }

  private String text(Relationship over, int place, FieldId field) {
    List<Entered> rows = below.rows(over);
    return place < rows.size() ? below.text(rows.get(place), field) : "";
  }
}
