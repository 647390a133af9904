package joiner.desktop.shape;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.expression.Formula;
import joiner.model.Field;

/** What a computed field is worked out by, with what that gives while it is typed. */
final class ComputedForm {
  private final FieldsModel fields;
  private final SheetModel model;
  private final Texts texts;

  ComputedForm(FieldsModel fields, SheetModel model, Texts texts) {
    this.fields = fields;
    this.model = model;
    this.texts = texts;
  }

  List<Node> of(SheetModel.About.OfField of) {
    Field field = of.field();
    String now = field.origin().workedOutBy().map(Formula::text).orElse("");
    var formula = new TextArea(now);
    formula.setId("field-formula");
    formula.setWrapText(true);
    formula.setPrefRowCount(3);
    formula.getStyleClass().add("mono");
    TypedText.settle(
        formula, () -> now, text -> fields.give(List.of(field), DefaultOffers.WORKED_OUT + text));
    TypedText.leaveWithTab(formula);
    Label gives = Parts.prose("", "muted", "small");
    gives.setId("formula-gives");
    formula
        .textProperty()
        .subscribe(text -> gives.setText(fields.tells(field, new Formula(text.strip()))));
    Label rows = Parts.prose(model.examples(of), "muted", "small");
    rows.setId("formula-examples");
    Button entered =
        Parts.button(
            texts.get("worked.enter"),
            () -> fields.give(List.of(field), new DefaultOffers.Given.Entered()));
    entered.setId("formula-entered");
    return List.of(Parts.labelled(texts.get("worked.by"), formula), gives, rows, entered);
  }
}
