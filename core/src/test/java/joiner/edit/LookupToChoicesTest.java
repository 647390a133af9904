package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.audit.Audit;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.model.ChoiceId;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

class LookupToChoicesTest {
  private static final Draft DEMO = Pottery.demo();
  private static final TableId CONE = new TableId("cone");

  private static Draft without(Draft draft, TableId table, String... fields) {
    return Stream.of(fields)
        .map(FieldId::new)
        .reduce(
            draft,
            (d, id) -> new RemoveField(table, id, id.value()).apply(d),
            (one, other) -> other);
  }

  private static List<Optional<String>> cells(Draft draft, String table, String field) {
    Rows rows = draft.rows().of(new TableId(table));
    return IntStream.range(0, rows.count())
        .mapToObj(row -> rows.cell(row, new FieldId(field)))
        .toList();
  }

  @Test
  void aListIsFixedChoicesOfAllThatReferToIt() {
    Draft plain = without(DEMO, CONE, "end_c", "fire");
    Draft changed = new LookupToChoices(CONE, "Cone").apply(plain);
    assertThat(changed.design().find(CONE)).isEmpty();
    for (String table : List.of("firing", "glaze")) {
      FieldType type =
          changed.design().table(new TableId(table)).field(new FieldId("cone_no")).type();
      assertThat(((FieldType.Choice) type).values()).hasSize(12).contains("04", "4");
      assertThat(cells(changed, table, "cone_no")).isEqualTo(cells(DEMO, table, "cone_no"));
    }
    assertThat(Audit.of(changed, Pottery.CLOCK).violations()).isEmpty();
  }

  @Test
  void rowsHoldTheWordsOfWhatWasPickedByNumberAndSoDoesTheDefault() {
    Draft plain = without(DEMO, CONE, "end_c", "fire");
    Draft counted = Counters.identify(plain.design().table(CONE)).apply(plain);
    Table glaze = counted.design().table(new TableId("glaze"));
    Draft defaulted =
        ChangeField.defaultValue(
                glaze, glaze.field(new FieldId("cone_no")), Optional.of(new Formula("3")))
            .apply(counted);
    Draft changed = new LookupToChoices(CONE, "Cone").apply(defaulted);
    assertThat(cells(changed, "glaze", "cone_no")).isEqualTo(cells(DEMO, "glaze", "cone_no"));
    Field now = changed.design().table(glaze.id()).field(new FieldId("cone_no"));
    String third = DEMO.rows().of(CONE).cell(2, new FieldId("cone_no")).orElseThrow();
    assertThat(now.defaultValue()).contains(new Formula("'" + third + "'"));
  }

  @Test
  void whatWouldBeLostStandsInTheWay() {
    assertThatThrownBy(() -> new LookupToChoices(CONE, "Cone").apply(DEMO))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("End temperature and Fire");
    assertThatThrownBy(() -> new LookupToChoices(new TableId("glaze"), "Glaze").apply(DEMO))
        .hasMessageContaining("no plain list");
  }

  /** Law: choices that become a table and choices again are the same, and so is every cell. */
  @Test
  void thereAndBackAgain() {
    var back = new AtomicInteger();
    Tries.of(300).forEach(seed -> thereAndBack(RandomDesigns.draft(seed), seed, back));
    thereAndBack(DEMO, 0, back);
    assertThat(back.get()).isGreaterThan(30);
  }

  private static void thereAndBack(Draft draft, long seed, AtomicInteger count) {
    for (Table table : draft.design().tables()) {
      for (Field field : table.fields()) {
        boolean refers =
            draft.design().parentsOf(table.id()).stream()
                .anyMatch(r -> r.childFields().contains(field.id()));
        if (field.type() instanceof FieldType.Choice choice
            && !refers
            && draft.design().childrenOf(table.id()).stream()
                .noneMatch(r -> r.parentFields().contains(field.id()))) {
          Draft apart = new ChoicesToLookup(table.id(), field.id(), field.label()).apply(draft);
          TableId list = List.copyOf(apart.design().tables()).getLast().id();
          Draft again = new LookupToChoices(list, "List").apply(apart);
          count.incrementAndGet();
          FieldType type = again.design().table(table.id()).field(field.id()).type();
          assertThat(unmarked(type)).as("seed %d, %s", seed, field).isEqualTo(unmarked(choice));
          assertThat(again.rows().of(table.id())).isEqualTo(draft.rows().of(table.id()));
        }
      }
    }
  }

  /**
   * All that is said of choices that a table can hold too: not their ids, nor marks for the eye.
   */
  private static List<FieldType.Choice.Entry> unmarked(FieldType type) {
    return ((FieldType.Choice) type)
        .entries().stream()
            .map(
                entry ->
                    new FieldType.Choice.Entry(
                        new ChoiceId(entry.text().isBlank() ? "blank" : entry.text()),
                        entry.text(),
                        entry.description(),
                        Optional.empty(),
                        entry.retired()))
            .toList();
  }
}
