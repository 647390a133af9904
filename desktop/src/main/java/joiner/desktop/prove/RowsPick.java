package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.PasswordField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Targets;
import joiner.desktop.work.Workbench;
import joiner.engine.Dialects;

/**
 * Says whose rows are looked at, and lets one pick others: the samples, or a database the design
 * was shipped to or looked at. Where one is somebody there, a password is asked for.
 */
final class RowsPick extends HBox {
  private final Workbench bench;
  private final Targets targets;
  private final Texts texts;
  private final Consumer<RowsOf> picked;
  private final Button button;
  private final PasswordField password = new PasswordField();
  private Optional<RowsOf.Live> asked = Optional.empty();

  /**
   * The samples are looked at.
   *
   * @param id by which the button is found; its password has the same with {@code -password}
   */
  RowsPick(String id, Workbench bench, Targets targets, Texts texts, Consumer<RowsOf> picked) {
    super(6);
    this.bench = bench;
    this.targets = targets;
    this.texts = texts;
    this.picked = picked;
    this.button = Parts.button(RowsOf.SAMPLES.words(texts), () -> {}, "picked");
    button.setId(id);
    button.setOnAction(
        event ->
            new Picker<>(texts.get("rows.prompt"), Offers.among(all(), of -> of.words(texts)))
                .open(button, this::pick));
    password.setId(id + "-password");
    password.setPrefColumnCount(12);
    password.setOnAction(event -> enter());
    password.addEventHandler(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            pick(RowsOf.SAMPLES);
            button.requestFocus();
            event.consume();
          }
        });
    forget();
    getChildren().setAll(button, password);
  }

  /** Shows whose rows are looked at; who is asked for a password goes on typing it. */
  void show(RowsOf of) {
    button.setText(of.words(texts));
    if (!password.isFocused() && asked.filter(live -> !live.equals(of)).isPresent()) {
      forget();
    }
  }

  private void forget() {
    asked = Optional.empty();
    Parts.toggle(password, false);
  }

  /** The sample rows and all databases the design was shipped to or looked at. */
  private List<RowsOf> all() {
    var all = new ArrayList<RowsOf>();
    all.add(RowsOf.SAMPLES);
    for (Targets.Known known : targets.of(bench.keeper().folder())) {
      targets.target(known).ifPresent(target -> all.add(new RowsOf.Live(known, target)));
    }
    return all;
  }

  private void pick(RowsOf of) {
    asked = Optional.empty();
    boolean named = of instanceof RowsOf.Live live && !live.known().user().isEmpty();
    Parts.toggle(password, named);
    if (of instanceof RowsOf.Live live && named) {
      asked = Optional.of(live);
      String prompt = texts.get("rows.password", of.words(texts));
      password.setPromptText(prompt);
      password.setAccessibleText(prompt);
      password.setText(targets.passwordOf(live.known()));
      password.requestFocus();
    }
    if (!named || !password.getText().isEmpty()) {
      take(of);
    }
  }

  /** From now on these are looked at; before a password was typed the others still are. */
  private void take(RowsOf of) {
    asked = Optional.of(of).filter(RowsOf.Live.class::isInstance).map(RowsOf.Live.class::cast);
    picked.accept(of);
    show(of);
  }

  /** Connects as whoever typed the password. */
  private void enter() {
    asked.ifPresent(
        live ->
            Dialects.named(live.known().engine())
                .map(dialect -> targets.target(dialect, live.known(), password.getText()))
                .ifPresent(target -> take(new RowsOf.Live(live.known(), target))));
  }
}
