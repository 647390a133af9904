package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.KeptValues;
import joiner.Pottery;
import joiner.finding.DesignChecks;
import joiner.finding.Finding;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Origin;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

/** Values that are carried as they were. */
class FillInTest {
  private static final TableId BATCH = new TableId("batch");
  private static final FieldId PRICE = new FieldId("price_then");
  private static final FieldId SELLER = new FieldId("from_id_name_then");
  private static final Draft DRAFT =
      with(
          with(
              with(
                  KeptValues.batches(),
                  "supplier",
                  Map.of("supplier_id", "1", "name", "Clay Barn")),
              "clay",
              Map.of("clay_id", "7", "price", "12.5", "from_id", "1")),
          "batch",
          Map.of("batch_id", "1", "clay_id", "7"));

  private static Draft with(Draft draft, String table, Map<String, String> cells) {
    Map<FieldId, String> row = new HashMap<>();
    cells.forEach((name, text) -> row.put(new FieldId(name), text));
    return draft.withRows(draft.rows().with(new TableId(table), rows -> rows.withRow(row)));
  }

  private static Draft filled(Draft draft) {
    Rows rows = draft.rows().of(BATCH);
    return new FillIn(BATCH, rows.id(0), Pottery.CLOCK).apply(draft);
  }

  private static Optional<String> cell(Draft draft, FieldId field) {
    return draft.rows().of(BATCH).cell(0, field);
  }

  @Test
  void anEmptyCellGetsWhatTheParentSaysAndKeepsIt() {
    Draft once = filled(DRAFT);
    assertThat(cell(once, PRICE)).contains("12.5");
    assertThat(cell(once, SELLER)).contains("Clay Barn");
    Draft dearer =
        ChangeRows.cell(
                once.design().table(new TableId("clay")),
                once.rows().of(new TableId("clay")),
                0,
                once.design().table(new TableId("clay")).field(new FieldId("price")),
                Optional.of("20"))
            .apply(once);
    assertThat(cell(filled(dearer), PRICE)).contains("12.5");
  }

  @Test
  void itHasTheTypeOfWhatItIsFilledWith() {
    assertThat(DRAFT.design().table(BATCH).field(PRICE).type())
        .isEqualTo(new FieldType.Decimal(8, 2));
    assertThat(DRAFT.design().table(BATCH).field(SELLER).type()).isEqualTo(new FieldType.Text(40));
  }

  @Test
  void aNameGoesAlongAndAWayThatIsGoneIsFound() {
    var clay = DRAFT.design().table(new TableId("clay"));
    Field price = clay.field(new FieldId("price"));
    Draft renamed = ChangeField.rename(clay, price, "Cost", "cost").apply(DRAFT);
    Origin.Copied by = (Origin.Copied) renamed.design().table(BATCH).field(PRICE).origin();
    assertThat(by.formula().text()).isEqualTo("clay_id.cost");
    Draft gone = new RemoveField(clay.id(), price.id(), "price").apply(DRAFT);
    List<Finding> found =
        DesignChecks.run(gone).stream()
            .filter(finding -> finding.field().equals(Optional.of(PRICE)))
            .toList();
    assertThat(found)
        .singleElement()
        .extracting(Finding::message)
        .asString()
        .contains("price_then is filled from clay_id.price");
    Draft entered = found.getFirst().remedies().getFirst().edit().apply(gone);
    assertThat(entered.design().table(BATCH).field(PRICE).origin()).isEqualTo(Origin.TYPED);
  }
}
