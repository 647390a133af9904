package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Region;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.model.Field;

/** What can be done with the fields chosen in the grid, under it. */
final class FieldStrip {
  private static final double LONGEST_LABEL = 180;

  private final FieldsModel model;
  private final FieldGrid grid;
  private final Texts texts;
  private final Label about = Parts.shortened("", "strong");
  private final Button paste;
  private final Button kit;
  private final Button own;
  private final Button type;
  private final Button required;
  private final FlowPane node;

  FieldStrip(FieldsModel model, FieldGrid grid, Texts texts) {
    this.model = model;
    this.grid = grid;
    this.texts = texts;
    about.setId("several-fields");
    type = Parts.button(texts.get("strip.type"), this::pickType);
    required = Parts.button(texts.get("strip.required"), this::toggleRequired);
    var key = Parts.button(texts.get("key.toggle"), this::toggleKey);
    key.setId("toggle-key");
    var remove = Parts.button(texts.get("field.remove"), () -> model.remove(grid.chosen()));
    remove.setId("remove-fields");
    own = Parts.button(texts.get("strip.own"), this::moveToOwnTable);
    own.setId("own-table");
    paste = Parts.button(texts.get("list.paste"), grid::paste);
    paste.setId("paste-fields");
    kit = Parts.button(texts.get("kit.drop"), this::dropKit);
    kit.setId("drop-kit");
    about.setMaxWidth(LONGEST_LABEL);
    node =
        new FlowPane(
            8,
            6,
            about,
            paste,
            kit,
            type,
            required,
            key,
            own,
            Parts.button(texts.get("field.up"), () -> grid.move(-1)),
            Parts.button(texts.get("field.down"), () -> grid.move(1)),
            remove);
    node.setRowValignment(VPos.CENTER);
    node.setMinHeight(Region.USE_PREF_SIZE);
    node.getChildren().forEach(one -> one.managedProperty().bind(one.visibleProperty()));
    model.chosenProperty().subscribe(fields -> show());
  }

  Node node() {
    return node;
  }

  /** Shows what is chosen now. */
  void show() {
    List<Field> chosen = model.chosen();
    about.setText(
        switch (chosen.size()) {
          case 0 -> texts.get("strip.nothing");
          case 1 -> chosen.getFirst().label();
          default -> texts.get("several", chosen.size());
        });
    about.getStyleClass().setAll("label", chosen.isEmpty() ? "muted" : "strong");
    for (Node button : node.getChildren()) {
      if (button instanceof Button) {
        button.setVisible(
            button == paste || button == kit
                ? chosen.isEmpty()
                : chosen.size() > (button == type || button == required ? 1 : 0));
      }
    }
  }

  private void pickType() {
    new Picker<>(texts.get("type.pick"), model.typeOffers())
        .open(type, held -> model.retype(grid.chosen(), held));
  }

  private void dropKit() {
    new Picker<>(texts.get("kit.pick"), model.kits().offers())
        .open(kit.isVisible() ? kit : about, model.kits()::drop);
  }

  private void moveToOwnTable() {
    List<Field> chosen = grid.chosen();
    String usual = texts.get("own.usual", model.table().label());
    new Picker<>(
            texts.get("own.name"),
            typed -> {
              String label = typed.isBlank() ? usual : typed.strip();
              return List.of(new Offers.Offer<>(label, label, texts.get("own.new"), ""));
            })
        .open(own, label -> model.keys().toOwnTable(chosen, label));
  }

  /** Makes all required, or none where all are. */
  private void toggleRequired() {
    List<Field> chosen = grid.chosen();
    model.require(chosen, !chosen.stream().allMatch(model::isRequired));
  }

  private void toggleKey() {
    model.keys().toggle(grid.chosen());
  }

  /** What can be done with the chosen fields, for the finder. */
  List<Command> commands() {
    var commands = new ArrayList<Command>();
    commands.add(Command.of(texts.get("kit.drop"), this::dropKit));
    List<Field> chosen = grid.chosen();
    if (!chosen.isEmpty()) {
      commands.add(Command.of(texts.get("strip.own"), this::moveToOwnTable));
    }
    for (Field field : grid.chosen()) {
      commands.add(Command.of(texts.get("key.command", field.label()), this::toggleKey));
      commands.add(
          new Command(
              texts.get("remove.command", field.label()),
              "",
              Command.Sort.REMOVAL,
              () -> model.remove(List.of(field))));
    }
    if (!model.keys().isCounted()) {
      commands.add(
          Command.of(
              texts.get("key.counter", model.table().label()), model.keys()::identifyByCounter));
    }
    return commands;
  }
}
