package joiner.desktop.shape;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.desktop.widget.Texts;
import joiner.meaning.Draft;
import joiner.meaning.ParentRows;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.HeldValues;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

class HeldWordsTest {
  private static final Draft DEMO = Pottery.demo();
  private final HeldWords words = new HeldWords(Texts.beside(ShapeView.class));

  private String said(String table, String field) {
    Table of = DEMO.design().table(new TableId(table));
    Field about = of.field(new FieldId(field));
    Optional<ParentRows> parents =
        ParentRows.reference(DEMO, of.id(), about.id())
            .map(r -> ParentRows.of(DEMO, r, Pottery.CLOCK));
    HeldValues held = HeldValues.of(DEMO.rows().of(of.id()), about, () -> true);
    return words.of(about, held, parents, 0);
  }

  private String said(FieldType type, String... cells) {
    Field field = Field.of("held", "Held", type);
    Rows rows =
        Rows.of(List.of(field.id()), Stream.of(cells).map(c -> List.of(Optional.of(c))).toList());
    return words.of(field, HeldValues.of(rows, field, () -> true), Optional.empty(), 0);
  }

  @Test
  void rangesFrequentValuesAndReferencesAreTold() {
    assertThat(said("firing", "firing_id")).isEqualTo("1 … 48");
    assertThat(said("firing", "kiln_id")).isEqualTo("4 of 4 kilns");
    assertThat(said("firing", "started_at")).matches("Jan 2025 … \\w{3} 2026");
    assertThat(said("glaze", "surface")).contains("gloss").contains(" · ");
    assertThat(said("firing", "peak_c")).endsWith("empty");
    assertThat(said("member", "card_no")).isEqualTo("longest 6");
  }

  @Test
  void daysCloseTogetherAreToldAsDays() {
    assertThat(said(new FieldType.Date(), "2026-03-14", "2026-03-18"))
        .isEqualTo("14 Mar 2026 … 18 Mar 2026");
    assertThat(said(new FieldType.Date(), "2026-03-14")).isEqualTo("14 Mar 2026");
  }

  @Test
  void whatIsMissingOrWrongComesFirst() {
    assertThat(said(new FieldType.Text(9))).isEmpty();
    assertThat(said(new FieldType.Text(9), "", "")).isEqualTo("nothing yet");
    Field field = Field.of("held", "Held", new FieldType.Text(9));
    Rows rows = Rows.of(List.of(field.id()), List.of(List.of(Optional.of("x"))));
    HeldValues held = HeldValues.of(rows, field, () -> true);
    assertThat(words.of(field, held, Optional.empty(), 1)).isEqualTo("1 does not fit");
  }
}
