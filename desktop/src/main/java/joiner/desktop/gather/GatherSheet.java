package joiner.desktop.gather;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.TextField;
import javafx.scene.control.TextFormatter;
import javafx.scene.layout.VBox;
import joiner.dependency.AttributeSet;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.discovery.ColumnProfile;
import joiner.discovery.Fact;
import joiner.discovery.FoundMultivalued;
import joiner.meaning.TypeWords;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.source.SourceProblem;

/** The side sheet of Gather: a column, a fact, or the source as a whole. */
final class GatherSheet {
  private static final int SHOWN = 8;

  private final Texts texts;
  private final VBox side;
  private @org.jspecify.annotations.Nullable Runnable shown;

  GatherSheet(Texts texts, VBox side) {
    this.texts = texts;
    this.side = side;
  }

  /** Shows a column from now on. */
  void pick(SplitBench split, int column) {
    shown = () -> show(split, column);
    shown.run();
  }

  /** Shows a fact from now on. */
  void pick(SplitBench split, Fact fact) {
    shown = () -> show(split, fact);
    shown.run();
  }

  /** Shows the source as a whole from now on. */
  void pickNothing() {
    shown = null;
  }

  /** Shows again what is picked, after something has changed. */
  void refresh(SplitBench split) {
    if (shown == null) {
      show(split);
    } else {
      shown.run();
    }
  }

  void showNothing() {
    side.getChildren()
        .setAll(
            Parts.label(texts.get("sources"), "title"), Parts.label(texts.get("none"), "muted"));
  }

  /** The source: what was wrong in it, and what identifies the rows of its tables. */
  private void show(SplitBench split) {
    var nodes = new ArrayList<Node>();
    if (split.isWhole()) {
      nodes.add(Parts.label(texts.get("keys.title"), "title"));
      nodes.add(Parts.prose(texts.get("keys.why"), "muted", "small"));
      for (List<Integer> determinant : split.determinants()) {
        nodes.add(naturalKey(split, determinant));
      }
      multivalued(split, nodes);
    }
    nodes.add(Parts.label(texts.get("asis"), split.isWhole() ? "heading" : "title"));
    var rows = new CheckBox(texts.get(split.isWhole() ? "asis.rows" : "asis.stay"));
    rows.setSelected(split.takesRows());
    rows.setOnAction(event -> split.takeRows(rows.isSelected()));
    var first = new TextField(String.valueOf(split.firstNumber()));
    first.setPrefColumnCount(5);
    first.setAccessibleText(texts.get("asis.first"));
    first.setTextFormatter(
        new TextFormatter<>(
            change -> change.getControlNewText().matches("\\d{0,9}") ? change : null));
    first
        .textProperty()
        .subscribe(text -> split.numberFrom(text.isEmpty() ? 1 : Long.parseLong(text)));
    nodes.add(rows);
    nodes.add(Parts.row(8, Parts.label(texts.get("asis.first"), "muted"), Parts.spring(), first));
    problems(split.profiled().source().problems(), nodes);
    side.getChildren().setAll(nodes);
  }

  private void multivalued(SplitBench split, List<Node> nodes) {
    if (!split.multivalued().isEmpty()) {
      nodes.add(Parts.label(texts.get("multivalued"), "heading"));
    }
    for (FoundMultivalued found : split.multivalued().stream().limit(SHOWN).toList()) {
      String blocks =
          found.blocks().stream()
              .map(block -> headers(split, block))
              .collect(Collectors.joining(" | "));
      String said =
          found.determinant().isEmpty()
              ? texts.get("multivalued.always", blocks)
              : texts.get("multivalued.each", headers(split, found.determinant()), blocks);
      nodes.add(Parts.card(List.of(Parts.prose(said, "small")), "attention"));
    }
  }

  private static String headers(SplitBench split, AttributeSet columns) {
    return columns
        .places()
        .mapToObj(split.cells().headers()::get)
        .collect(Collectors.joining(", "));
  }

  private Node naturalKey(SplitBench split, List<Integer> determinant) {
    String label =
        determinant.stream()
            .map(split.cells().headers()::get)
            .map(header -> header.replaceAll("[\\s_#.-]*\\d+$", ""))
            .collect(Collectors.joining(", "));
    var tick = new CheckBox(texts.get("keys.natural", label));
    tick.setSelected(split.isNatural(determinant));
    tick.setOnAction(event -> split.identify(determinant, tick.isSelected()));
    return tick;
  }

  private void problems(List<SourceProblem> problems, List<Node> nodes) {
    if (problems.isEmpty()) {
      return;
    }
    nodes.add(Parts.label(texts.get("problems", problems.size()), "heading"));
    for (SourceProblem problem : problems.stream().limit(SHOWN).toList()) {
      nodes.add(Parts.card(List.of(Parts.prose(problem.toString(), "small")), "attention"));
    }
  }

  /** A column: what it becomes and why. */
  private void show(SplitBench split, int column) {
    ColumnProfile profile = split.profiles().get(column);
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(profile.header(), "title"));
    nodes.add(
        Parts.label(
            texts.get("column.place", column + 1, split.profiled().source().name()),
            "muted",
            "small"));
    var kept = new CheckBox(texts.get("column.keep"));
    kept.setSelected(split.isKept(column));
    kept.setOnAction(event -> split.keep(column, kept.isSelected()));
    nodes.add(kept);
    becomes(profile, nodes);
    evidence(profile, nodes);
    side.getChildren().setAll(nodes);
  }

  private void becomes(ColumnProfile profile, List<Node> nodes) {
    Field field = profile.field(java.util.Set.of());
    nodes.add(Parts.label(texts.get("becomes"), "heading"));
    nodes.add(Parts.fact(texts.get("column.label"), field.label()));
    nodes.add(Parts.fact(texts.get("column.name"), field.name(), "mono"));
    nodes.add(Parts.fact(texts.get("column.type"), TypeWords.kind(profile.type())));
    if (profile.type() instanceof FieldType.Sized sized) {
      nodes.add(
          Parts.fact(
              texts.get("column.length"),
              texts.get("column.length.seen", sized.maxLength(), profile.longest())));
    }
    nodes.add(
        Parts.fact(
            texts.get("column.required"),
            profile.blank() == 0
                ? texts.get("column.required.yes")
                : texts.get("column.required.no", profile.blank())));
    nodes.add(
        Parts.fact(
            texts.get("column.unique"),
            profile.unique()
                ? texts.get("column.unique.yes")
                : SourceGrid.different(texts, profile)));
    if (!profile.min().isEmpty()) {
      nodes.add(Parts.fact(texts.get("column.least"), profile.min()));
      nodes.add(Parts.fact(texts.get("column.greatest"), profile.max()));
    }
  }

  private void evidence(ColumnProfile profile, List<Node> nodes) {
    nodes.add(Parts.label(texts.get("column.evidence"), "heading"));
    nodes.add(
        Parts.prose(
            texts.get(
                "column.agree",
                profile.agreeing(),
                profile.rows() - profile.blank(),
                profile.form().words()),
            "small"));
    for (ColumnProfile.Note note : profile.notes().stream().sorted().toList()) {
      nodes.add(Parts.prose(texts.get("note." + note.name().toLowerCase(Locale.ROOT)), "small"));
    }
    if (profile.choices()) {
      nodes.add(Parts.prose(texts.get("column.choices", profile.distinct()), "small"));
    } else if (profile.lookup()) {
      nodes.add(Parts.prose(texts.get("column.lookup", profile.distinct()), "small"));
    }
    if (!profile.disagreeing().isEmpty()) {
      nodes.add(Parts.label(texts.get("column.disagreeing"), "heading"));
      for (ColumnProfile.Disagreeing value : profile.disagreeing().stream().limit(SHOWN).toList()) {
        nodes.add(Parts.fact(texts.get("column.row", value.row()), value.text(), "mono"));
      }
    }
  }

  /** A fact: why it was found. */
  private void show(SplitBench split, Fact fact) {
    var words = new FactWords(texts, split.cells().headers(), split.cells().rows());
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(words.title(fact), "title"));
    nodes.add(
        Parts.label(texts.get("fact.score", Math.round(100 * fact.score())), "muted", "small"));
    nodes.add(Parts.label(texts.get("fact.why"), "heading"));
    for (String reason : fact.reasons()) {
      nodes.add(Parts.prose("· " + reason, "small"));
    }
    if (fact instanceof Fact.Decides decides) {
      nodes.add(Parts.label(texts.get("fact.key"), "heading"));
      List<Integer> determinant = decides.determinant().places().boxed().toList();
      String label =
          determinant.stream().map(split.cells().headers()::get).collect(Collectors.joining(", "));
      var tick = new CheckBox(texts.get("keys.natural", label));
      tick.setSelected(split.isNatural(determinant));
      tick.setOnAction(event -> split.identify(determinant, tick.isSelected()));
      nodes.add(tick);
    }
    side.getChildren().setAll(nodes);
  }
}
