package joiner.desktop.ship;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.PasswordField;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import joiner.database.Target;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.ShownAs;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Targets;
import joiner.desktop.work.Workbench;
import joiner.engine.Dialect;

/** Where the database is: one known from before, or a server with a user and a password. */
final class PlaceForm {
  private final Workbench bench;
  private final Targets targets;
  private final Texts texts;
  private final VBox node = new VBox(8);
  private final ComboBox<Targets.Known> known = new ComboBox<>();
  private final TextField address = new TextField();
  private final TextField user = new TextField();
  private final PasswordField password = new PasswordField();
  private final Label result = Parts.prose("");
  private final FlowPane deeds;
  private Dialect dialect;

  /**
   * What can be done with a place.
   *
   * @param tries is run to see whether it can be reached
   * @param compares is run to see what differs there
   * @param audits is run to see which rows there break the design
   * @param changed is told when another place is meant
   */
  record Deeds(Runnable tries, Runnable compares, Runnable audits, Runnable changed) {}

  PlaceForm(Workbench bench, Targets targets, Dialect dialect, Texts texts, Deeds can) {
    this.bench = bench;
    this.targets = targets;
    this.dialect = dialect;
    this.texts = texts;
    address.setId("place-address");
    user.setId("place-user");
    password.setId("place-password");
    result.setId("place-result");
    known.setId("place-known");
    known.setMaxWidth(Double.MAX_VALUE);
    known.setAccessibleText(texts.get("place.known"));
    known.setConverter(new ShownAs<>(this::words));
    known.setOnAction(event -> Optional.ofNullable(known.getValue()).ifPresent(this::fill));
    for (TextField typed : List.of(address, user, password)) {
      typed.textProperty().subscribe((before, now) -> say("")); // It was said of another place.
    }
    address.textProperty().subscribe((before, now) -> can.changed().run());
    deeds =
        new FlowPane(
            8,
            8,
            deed("place-try", "place.try", can.tries()),
            deed("place-differs", "place.differs", can.compares()),
            deed("place-audit", "place.audit", can.audits()));
  }

  private Node deed(String id, String key, Runnable run) {
    var button = Parts.button(texts.get(key), run);
    button.setId(id);
    return button;
  }

  Node node() {
    return node;
  }

  private String words(Targets.Known one) {
    return one.user().isEmpty() ? one.place() : texts.get("place.as", one.place(), one.user());
  }

  /** Asks for a place of that engine. */
  void show(Dialect other) {
    if (other != dialect) {
      dialect = other;
      address.clear();
      user.clear();
      password.clear();
    }
    say("");
    List<Targets.Known> before = targets.of(bench.keeper().folder(), dialect);
    known.getItems().setAll(before);
    known.setPromptText(texts.get("place.known"));
    var nodes = new ArrayList<Node>();
    if (isServer()) {
      nodes.add(Parts.label(texts.get("place.server"), "heading"));
    } else if (!before.isEmpty()) {
      nodes.add(Parts.label(texts.get("place.file"), "heading"));
    }
    if (!before.isEmpty()) {
      nodes.add(known);
    }
    if (isServer()) {
      address.setPromptText(texts.get("place.address.example", port()));
      nodes.add(labelled("place.address", address));
      nodes.add(labelled("place.user", user));
      nodes.add(labelled("place.password", password));
      nodes.add(Parts.prose(texts.get("place.password.why"), "muted", "small"));
    }
    if (!nodes.isEmpty()) {
      nodes.add(deeds);
      nodes.add(result);
    }
    node.getChildren().setAll(nodes);
    node.setManaged(!nodes.isEmpty());
    if (address.getText().isEmpty() && !before.isEmpty()) {
      fill(before.getFirst());
    }
    known.setValue(place().filter(before::contains).orElse(null));
  }

  private String port() {
    return String.valueOf(dialect.port().orElse(0));
  }

  private Node labelled(String key, TextField field) {
    return Parts.labelled(texts.get(key), field);
  }

  private void fill(Targets.Known one) {
    address.setText(one.place());
    user.setText(one.user());
    password.setText(targets.passwordOf(one));
  }

  /** Whether the engine is reached by an address rather than a file. */
  boolean isServer() {
    return dialect.fileEnding().isEmpty();
  }

  /** The place as it is typed; empty where no address is. */
  Optional<Targets.Known> place() {
    String typed = address.getText().strip();
    return typed.isEmpty()
        ? Optional.empty()
        : Optional.of(new Targets.Known(dialect.id(), typed, user.getText().strip()));
  }

  /** What to connect to; empty where no address is typed. */
  Optional<Target> target() {
    return place().map(place -> targets.target(dialect, place, password.getText()));
  }

  /** Shows what became of the last attempt. */
  void say(String words, String... styles) {
    result.getStyleClass().removeAll("spruce", "brick", "muted");
    result.getStyleClass().addAll(styles);
    result.setText(words);
    result.setManaged(!words.isEmpty());
    result.setVisible(!words.isEmpty()); // It would keep its place over what moves there.
  }
}
