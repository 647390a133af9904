package joiner.desktop.prove;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Tooltip;
import javafx.stage.FileChooser;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Workbench;
import joiner.format.AnswerCsv;
import joiner.format.AnswerSheet;

/** Saves the lines of an answer. */
final class AskSaving {
  private final Workbench bench;
  private final Texts texts;
  private final AskModel model;
  private final Button button;
  private final CheckBox sheets = new CheckBox();

  AskSaving(Workbench bench, Texts texts, AskModel model) {
    this.bench = bench;
    this.texts = texts;
    this.model = model;
    this.button = Parts.button(texts.get("ask.save"), this::save);
    sheets.setText(texts.get("ask.sheets"));
    sheets.setTooltip(new Tooltip(texts.get("ask.sheets.why")));
  }

  Node button() {
    return button;
  }

  /** Whether texts that a spreadsheet would take for formulas are made harmless. */
  Node forSheets() {
    return sheets;
  }

  private void save() {
    Optional<AskModel.Told> told = model.told();
    if (told.isEmpty()) {
      return;
    }
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("ask.save"));
    chooser.setInitialFileName(model.question().name() + ".csv");
    chooser
        .getExtensionFilters()
        .addAll(
            new FileChooser.ExtensionFilter("CSV", "*.csv"),
            new FileChooser.ExtensionFilter(texts.get("ask.workbook"), "*.xlsx"));
    var file = chooser.showSaveDialog(button.getScene().getWindow());
    if (file == null) {
      return;
    }
    try {
      write(told.get().answer(), file.toPath());
      bench.tell(Notice.Sort.DONE, texts.get("ask.saved", file.getName()));
    } catch (IOException e) {
      bench.tell(Notice.Sort.REFUSED, texts.get("ask.unsaved", file.getName(), e.getMessage()));
    }
  }

  /** As a workbook where the file is called so, as CSV elsewhere. */
  private void write(joiner.joining.Answer answer, Path file) throws IOException {
    if (file.toString().toLowerCase(Locale.ROOT).endsWith(".xlsx")) {
      try (OutputStream out = Files.newOutputStream(file)) {
        AnswerSheet.write(answer, out);
      }
    } else {
      Files.writeString(file, AnswerCsv.of(answer, sheets.isSelected()), StandardCharsets.UTF_8);
    }
  }
}
