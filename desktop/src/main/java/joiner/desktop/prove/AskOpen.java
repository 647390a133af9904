package joiner.desktop.prove;

import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.model.Question;

/** The values that conditions of a question leave open, each with a field to fill it in. */
final class AskOpen {
  private final AskModel model;
  private final Texts texts;
  private final FlowPane node = new FlowPane(12, 6);
  private List<String> shown = List.of();

  AskOpen(AskModel model, Texts texts) {
    this.model = model;
    this.texts = texts;
  }

  FlowPane node() {
    return node;
  }

  /** Puts the keyboard where one is filled in. */
  void focus(Question.Parameter parameter) {
    Optional.ofNullable(node.lookup("#open-" + parameter.name())).ifPresent(Node::requestFocus);
  }

  /** What conditions leave open, to be filled in; whoever types there types on. */
  void show(Question question) {
    List<String> names = question.parameters().stream().map(Question.Parameter::name).toList();
    if (!names.equals(shown)) {
      shown = names;
      node.getChildren().setAll(names.stream().map(this::fillIn).toList());
    }
    for (Question.Parameter parameter : question.parameters()) {
      var typed = (TextField) node.lookup("#open-" + parameter.name());
      if (typed != null && !typed.isFocused()) {
        typed.setText(parameter.text());
      }
    }
  }

  private Node fillIn(String name) {
    var typed = new TextField();
    typed.setId("open-" + name);
    typed.setPrefColumnCount(12);
    String like =
        model.question().parameters().stream()
            .filter(p -> p.name().equals(name))
            .map(p -> texts.get("ask.open.like", p.like().text()))
            .findFirst()
            .orElse("");
    typed.setPromptText(like);
    typed.setAccessibleText(name + ", " + like);
    typed.setOnAction(event -> model.fillIn(name, typed.getText()));
    typed
        .focusedProperty()
        .subscribe(
            (was, is) -> {
              if (was && !is) {
                model.fillIn(name, typed.getText());
              }
            });
    return Parts.row(6, Parts.label(":" + name, "mono"), typed);
  }
}
