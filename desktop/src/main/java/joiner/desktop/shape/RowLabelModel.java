package joiner.desktop.shape;

import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeTable;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.meaning.LabelPieces;
import joiner.meaning.RowLabels;
import joiner.meaning.TableMeaning;
import joiner.model.Table;
import joiner.rows.Rows;

/** The text by which people recognise a row, and what it gives for the rows that are there. */
final class RowLabelModel {
  /** Rows whose labels are shown. */
  private static final int SHOWN = 5;

  /** Rows that are compared; more tell little more. */
  private static final int COMPARED = 500;

  private final Workbench bench;
  private final Texts texts;

  RowLabelModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
  }

  /**
   * What a label gives.
   *
   * @param labels of the first rows
   * @param remark how many rows share one, or what is wrong; empty where each has its own
   * @param isWrong whether it cannot be read
   */
  record Gives(List<String> labels, String remark, boolean isWrong) {}

  /** What a label would give. */
  Gives gives(Table table, String text) {
    Optional<Formula> label = Formula.unlessBlank(text);
    Draft draft =
        bench.draft().withDesign(bench.design().withTable(table.id(), t -> t.withRowLabel(label)));
    TableMeaning meaning = draft.meaning().of(table.id());
    if (meaning.rowLabel().orElse(null) instanceof Checked.Faulty faulty) {
      return new Gives(List.of(), faulty.problems().getFirst().message(), true);
    }
    Rows rows = draft.rows().of(table.id());
    var labels = new RowLabels(meaning, new FormulaRows(draft, bench.clock()), bench.clock());
    int sharing = labels.shared(COMPARED).rows();
    return new Gives(
        IntStream.range(0, Math.min(SHOWN, rows.count())).mapToObj(labels::of).toList(),
        sharing == 0 ? "" : texts.get("label.shared", sharing, Math.min(COMPARED, rows.count())),
        false);
  }

  /** The pieces to be added; what is typed can be one as it is. */
  Offers<LabelPieces.Piece> pieces(Table table) {
    List<Offers.Offer<LabelPieces.Piece>> all =
        LabelPieces.of(bench.design(), table).stream()
            .map(piece -> Offers.Offer.of(piece, piece.words()))
            .toList();
    return typed ->
        Stream.concat(Offers.narrowed(all, typed).stream(), asTyped(table, typed)).toList();
  }

  private Stream<Offers.Offer<LabelPieces.Piece>> asTyped(Table table, String typed) {
    if (typed.isEmpty()) {
      return Stream.of();
    }
    var fixed = new Offers.Offer<>(LabelPieces.fixed(typed), typed, texts.get("label.fixed"), "");
    return LabelPieces.conditional(bench.design(), table, typed)
        .map(piece -> new Offers.Offer<>(piece, typed, texts.get("label.conditional"), ""))
        .map(first -> Stream.of(first, fixed))
        .orElse(Stream.of(fixed));
  }

  /** Adds a piece at the end of a table's label. */
  void add(Table table, LabelPieces.Piece piece) {
    bench.apply(
        ChangeTable.rowLabel(table, Optional.of(LabelPieces.with(table.rowLabel(), piece))));
  }
}
