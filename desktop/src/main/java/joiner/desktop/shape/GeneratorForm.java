package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Control;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.model.Field;
import joiner.model.Generator;
import joiner.naming.Counts;
import joiner.shape.CheckDigit;
import joiner.shape.CodedNumber;
import joiner.shape.RandomCode;

/**
 * What makes a value for each new row, with an example while one types.
 *
 * @param change told of another generator
 */
record GeneratorForm(OriginsModel model, Texts texts, Field field, Consumer<Generator> change) {
  List<Node> of(Generator generator) {
    return switch (generator) {
      case Generator.Uuid(boolean timed) -> uuid(timed);
      case Generator.Coded(CodedNumber number) -> coded(number);
      case Generator.Drawn(RandomCode code) -> drawn(code);
    };
  }

  private List<Node> uuid(boolean timed) {
    Node choice =
        choice(
            "uuid",
            List.of(true, false),
            timed,
            one -> texts.get(one ? "generator.timed" : "generator.byChance"),
            one -> change.accept(new Generator.Uuid(one)));
    return List.of(
        choice,
        Parts.prose(
            texts.get(timed ? "generator.timed.why" : "generator.byChance.why"), "muted", "small"));
  }

  private List<Node> coded(CodedNumber number) {
    TextField form = new TextField(number.form());
    form.getStyleClass().add("mono");
    Label example = Parts.prose("", "small");
    example.setId("generator-example");
    form.textProperty().subscribe(text -> tell(example, text, number));
    TypedText.settle(
        form,
        number::form,
        text -> {
          try {
            change.accept(
                new Generator.Coded(CodedNumber.read(text, number.restart(), number.check())));
          } catch (IllegalArgumentException refused) {
            form.setText(number.form()); // The example has said why.
          }
        });
    var nodes = new ArrayList<Node>();
    nodes.add(beside("form", form));
    nodes.add(example);
    nodes.add(
        choice(
            "restart",
            Arrays.stream(CodedNumber.Restart.values())
                .filter(restart -> remade(number, restart, number.check()).isPresent())
                .toList(),
            number.restart(),
            restart -> texts.get("generator.restart." + restart.name()),
            restart -> remade(number, restart, number.check()).ifPresent(this::make)));
    List<Optional<CheckDigit>> checks =
        Stream.concat(
                Stream.of(Optional.<CheckDigit>empty()),
                Arrays.stream(CheckDigit.values()).map(Optional::of))
            .toList();
    nodes.add(
        choice(
            "check",
            checks,
            number.check(),
            by -> texts.get("generator.check." + by.map(Enum::name).orElse("NONE")),
            by -> remade(number, number.restart(), by).ifPresent(this::make)));
    nodes.add(Parts.prose(texts.get("generator.coded.why"), "muted", "small"));
    return nodes;
  }

  private void make(CodedNumber number) {
    change.accept(new Generator.Coded(number));
  }

  private static Optional<CodedNumber> remade(
      CodedNumber number, CodedNumber.Restart restart, Optional<CheckDigit> check) {
    try {
      return Optional.of(CodedNumber.read(number.form(), restart, check));
    } catch (IllegalArgumentException refused) {
      return Optional.empty();
    }
  }

  private void tell(Label example, String form, CodedNumber now) {
    example.getStyleClass().removeAll("muted", "brick");
    try {
      CodedNumber number = CodedNumber.read(form, now.restart(), now.check());
      Optional<String> next = model.next(field, number);
      example.setText(
          next.map(
                  text ->
                      texts.get(
                          number.period().isEmpty() ? "generator.next" : "generator.next.period",
                          text,
                          Counts.of(number.greatest())))
              .orElseGet(() -> texts.get("generator.full", Counts.of(number.greatest()))));
      example.getStyleClass().add(next.isPresent() ? "muted" : "brick");
    } catch (IllegalArgumentException refused) {
      example.setText(refused.getMessage());
      example.getStyleClass().add("brick");
    }
  }

  private List<Node> drawn(RandomCode code) {
    TextField alphabet =
        TypedText.of(
            code.alphabet(), text -> redrawn(() -> new RandomCode(text.strip(), code.length())));
    alphabet.getStyleClass().add("mono");
    TextField length =
        TypedText.of(
            String.valueOf(code.length()),
            text -> redrawn(() -> new RandomCode(code.alphabet(), Integer.parseInt(text.strip()))));
    var nodes = new ArrayList<Node>();
    nodes.add(beside("alphabet", alphabet));
    nodes.add(beside("length", length));
    for (long rows : List.of(1_000L, 100_000L)) {
      nodes.add(
          Parts.fact(texts.get("generator.clash", Counts.of(rows)), chance(code.clash(rows))));
    }
    return nodes;
  }

  private interface Making {
    RandomCode code();
  }

  private void redrawn(Making making) {
    try {
      change.accept(new Generator.Drawn(making.code()));
    } catch (NumberFormatException notANumber) {
      model.refuse(texts.get("generator.length.bad"));
    } catch (IllegalArgumentException refused) {
      model.refuse(refused.getMessage());
    }
  }

  /** As in "1 in 4,000"; what is next to certain is said so. */
  private String chance(double chance) {
    long one = chance <= 0 ? Long.MAX_VALUE : Math.round(1 / chance);
    return one <= 1
        ? texts.get("generator.clash.sure")
        : texts.get("generator.clash.of", Counts.of(one));
  }

  private <T> Node choice(
      String key, List<T> things, T now, Function<T, String> words, Consumer<T> picked) {
    return beside(key, Picker.button(texts.get("generator." + key), things, now, words, picked));
  }

  private Node beside(String key, Control control) {
    control.setId("generator-" + key);
    return Parts.beside(texts.get("generator." + key), control);
  }
}
