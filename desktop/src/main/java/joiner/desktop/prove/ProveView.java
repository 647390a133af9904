package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Faces;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Targets;
import joiner.desktop.work.Workbench;
import joiner.model.Question;
import joiner.model.Table;
import joiner.rows.RowId;

/** The stage Prove, one face at a time; a face is built when it is first shown. */
public final class ProveView implements StageView {
  private final Workbench bench;
  private final Targets targets;
  private final Texts texts = Texts.beside(ProveView.class);
  private final Map<Name, Face> built = new EnumMap<>(Name.class);
  private final Faces<Name> faces =
      new Faces<>(Name.values(), Name.AUDIT, name -> texts.get("face." + name), this::show);
  private final VBox main = new VBox(10);
  private final VBox side = new VBox();
  private Name shown = Name.AUDIT;
  private boolean visible;

  /** The faces, in the order they are offered. */
  private enum Name {
    ENTER,
    AUDIT,
    IF_DELETED,
    ASK
  }

  /**
   * Builds the stage.
   *
   * @param targets whose rows can be asked instead of the sample rows
   */
  public ProveView(Workbench bench, Targets targets) {
    this.bench = bench;
    this.targets = targets;
    main.getStyleClass().add("stage-area");
    side.getStyleClass().add("side-content");
    show(shown);
  }

  private Face face(Name name) {
    return built.computeIfAbsent(
        name,
        n ->
            switch (n) {
              case ENTER -> new EnterFace(bench, texts, this::ifDeleted);
              case AUDIT -> new AuditFace(bench, texts, this::enter);
              case IF_DELETED -> new IfDeletedFace(bench, targets, texts);
              case ASK -> new AskFace(bench, targets, texts);
            });
  }

  private EnterFace enter() {
    faces.show(Name.ENTER);
    return (EnterFace) face(Name.ENTER);
  }

  private void enter(Table table, RowId row) {
    bench.selectionProperty().set(Selection.of(table.id()));
    enter().open(row);
  }

  private AskFace ask() {
    faces.show(Name.ASK);
    return (AskFace) face(Name.ASK);
  }

  private void ifDeleted(EnterFound.Row row) {
    faces.show(Name.IF_DELETED);
    ((IfDeletedFace) face(Name.IF_DELETED)).suppose(new IfDeletedModel.Row(row.id(), row.label()));
  }

  private void show(Name name) {
    face(shown).look(false);
    shown = name;
    Face face = face(name);
    VBox.setVgrow(face.main(), Priority.ALWAYS);
    main.getChildren().setAll(faces.node(), face.main());
    side.getChildren().setAll(face.side());
    face.look(visible);
  }

  @Override
  public Node main() {
    return main;
  }

  @Override
  public Node side() {
    return side;
  }

  @Override
  public void shown(boolean now) {
    visible = now;
    face(shown).look(now);
  }

  @Override
  public List<Command> commands() {
    var commands = new ArrayList<Command>();
    for (Name name : Name.values()) {
      commands.add(Command.of(texts.get("face.go." + name), () -> faces.show(name)));
    }
    bench
        .table()
        .map(table -> texts.get("enter.new.of", table.noun().singular()))
        .ifPresent(words -> commands.add(Command.of(words, () -> enter().begin())));
    commands.add(Command.of(texts.get("ask.new"), () -> ask().begin()));
    for (Question question : bench.design().questions()) {
      commands.add(Command.of(texts.get("ask.open", question.label()), () -> ask().ask(question)));
    }
    return commands;
  }
}
