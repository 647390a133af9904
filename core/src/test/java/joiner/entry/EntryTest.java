package joiner.entry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.edit.EditRefusedException;
import joiner.edit.EnterRows;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

/** Rows are entered with what nobody types, and what the design forbids is told before. */
class EntryTest {
  private final Draft demo = Pottery.demo();
  private final KnownTrials known = new KnownTrials();

  private Entry entry() {
    return new Entry(demo, Pottery.CLOCK, new Random(7));
  }

  private Table table(String name) {
    return demo.design().table(new TableId(name));
  }

  private Rows rows(Draft draft, String table) {
    return draft.rows().of(new TableId(table));
  }

  private static Entered typed(Entered row, String... cells) {
    Entered typed = row;
    for (int i = 0; i < cells.length; i += 2) {
      typed = typed.with(new FieldId(cells[i]), cells[i + 1]);
    }
    return typed;
  }

  private Entered firing(String... cells) {
    return typed(
        typed(
            Entered.added(new TableId("firing")),
            "firing_id",
            "900",
            "kiln_id",
            "1",
            "loaded_by",
            "1",
            "cone_no",
            "6",
            "started_at",
            "2026-03-13 18:05",
            "ended_at",
            "14.3.2026 6:00",
            "peak_c",
            "1222"),
        cells);
  }

  private EntryTrial trial(Entered entered) {
    return EntryTrial.of(demo, entry().of("a row", entered), known, Pottery.CLOCK);
  }

  private static List<String> messages(EntryTrial trial) {
    return trial.refusals().stream().map(Refusal::message).toList();
  }

  @Test
  void datesAreUnderstoodAsPeopleTypeThem() {
    EntryTrial trial = trial(firing());
    assertThat(messages(trial)).isEmpty();
    Rows after = rows(trial.after(), "firing");
    assertThat(after.count()).isEqualTo(rows(demo, "firing").count() + 1);
    assertThat(after.cell(after.count() - 1, new FieldId("started_at")))
        .contains("2026-03-13T18:05:00");
    assertThat(after.cell(after.count() - 1, new FieldId("ended_at")))
        .contains("2026-03-14T06:00:00");
  }

  @Test
  void everyRefusalIsToldAtOnceWithTheRulesOwnMessage() {
    EntryTrial trial =
        trial(
            firing(
                "ended_at", "2026-03-13 09:15", "loaded_by", "999", "peak_c", "", "cone_no", "x"));
    assertThat(messages(trial))
        .contains(
            "There is no member “999”.",
            "There is no cone “x”.",
            "A firing cannot end before it has started.");
    assertThat(trial.refusals()).allMatch(refusal -> refusal.entered().orElse(-1) == 0);
    assertThat(trial.refusals()).allMatch(refusal -> refusal.field().isPresent());
    EntryTrial hot = trial(firing("peak_c", "1390"));
    assertThat(messages(hot)).isNotEmpty().allMatch(message -> !message.contains("{"));
    EntryTrial wrong = trial(firing("peak_c", "hot"));
    assertThat(messages(wrong))
        .anySatisfy(message -> assertThat(message).startsWith("Peak").contains("“hot”"));
    EntryTrial twice = trial(firing("firing_id", "1"));
    assertThat(messages(twice))
        .anySatisfy(message -> assertThat(message).contains("“1” is taken by another firing"));
  }

  @Test
  void detailsGetTheKeyOfTheirParentAndAreOneChange() {
    RelationshipId made = new RelationshipId("fk_recipe_line_glaze_id");
    Entered glaze =
        typed(Entered.added(new TableId("glaze")), "glaze_id", "900", "name", "Marsh green");
    Entered line = Entered.added(new TableId("recipe_line"));
    Entered whole =
        glaze.with(
            made,
            List.of(
                typed(line, "material_id", "1", "percentage", "60"),
                typed(line, "material_id", "2", "percentage", "30.5")));
    EntryTrial short90 = trial(whole);
    assertThat(short90.edit().rows()).hasSize(3);
    assertThat(short90.edit().rows().get(1).cells().get(new FieldId("glaze_id"))).contains("900");
    assertThat(messages(short90)).as("a recipe makes 100").isNotEmpty();
    EntryTrial full =
        trial(
            glaze.with(
                made,
                List.of(
                    typed(line, "material_id", "1", "percentage", "60"),
                    typed(line, "material_id", "2", "percentage", "40"))));
    assertThat(full.refusals()).noneMatch(r -> r.constraint().contains("100"));
  }

  @Test
  void aRowThatIsThereIsChangedWhereItIs() {
    Rows before = rows(demo, "kiln");
    Entered kiln = typed(Entered.changed(new TableId("kiln"), before.id(1)), "litres", "64");
    EntryTrial trial = trial(kiln);
    assertThat(messages(trial)).isEmpty();
    Rows after = rows(trial.after(), "kiln");
    assertThat(after.count()).isEqualTo(before.count());
    assertThat(after.cell(1, new FieldId("litres"))).contains("64");
    assertThat(after.cell(1, new FieldId("name"))).isEqualTo(before.cell(1, new FieldId("name")));
  }

  @Test
  void whatIsWorkedOutIsShownWhileOneTypes() {
    Table piece = table("piece");
    Entered first = Entered.changed(piece.id(), rows(demo, "piece").id(0));
    Map<FieldId, String> shown = trial(first).shown(first, Pottery.CLOCK);
    assertThat(shown).containsKey(new FieldId("mark"));
    piece.fields().stream()
        .filter(field -> !field.isComputed())
        .forEach(
            field ->
                assertThat(Optional.ofNullable(shown.get(field.id())))
                    .isEqualTo(rows(demo, "piece").cell(0, field.id())));
  }

  private TakingIn take(
      List<Map<FieldId, String>> rows, TakingIn.Missing missing, String... match) {
    Table kiln = table("kiln");
    List<FieldId> by = TakingIn.fields(kiln, List.of(match)).stream().map(Field::id).toList();
    return TakingIn.of(demo, kiln, rows, by, missing, Pottery.CLOCK, new Random(7));
  }

  private static Map<FieldId, String> row(String... cells) {
    Map<FieldId, String> row = new LinkedHashMap<>();
    for (int i = 0; i < cells.length; i += 2) {
      row.put(new FieldId(cells[i]), cells[i + 1]);
    }
    return row;
  }

  @Test
  void rowsOfAFileMatchThoseThatAreThere() {
    Rows kilns = rows(demo, "kiln");
    TakingIn taken =
        take(
            List.of(
                row("name", "Big Tom", "litres", "250"),
                row("name", "Little Ann", "litres", "60"),
                row("name", "New one", "litres", "99")),
            TakingIn.Missing.LEAVE,
            "Name");
    assertThat(taken.added()).isEqualTo(1);
    assertThat(taken.updated()).isEqualTo(1);
    assertThat(taken.unchanged()).isEqualTo(1);
    assertThat(taken.missing()).isEqualTo(kilns.count() - 2);
    assertThat(taken.lines()).containsExactly(1, 3);
    Draft after = taken.edit().apply(demo);
    assertThat(rows(after, "kiln").count()).isEqualTo(kilns.count() + 1);
    assertThat(rows(after, "kiln").cell(0, new FieldId("litres"))).contains("250");
  }

  @Test
  void rowsThatNoneMatchesCanGo() {
    TakingIn taken = take(List.of(row("name", "Big Tom")), TakingIn.Missing.DELETE, "name");
    Draft after = taken.edit().apply(demo);
    assertThat(rows(after, "kiln").count()).isEqualTo(1);
    EntryTrial trial = EntryTrial.of(demo, taken.edit(), known, Pottery.CLOCK);
    assertThat(trial.refusals()).as("firings refer to kilns that went").isNotEmpty();
    assertThat(trial.refusals()).allMatch(refusal -> refusal.entered().isEmpty());
    assertThatThrownBy(() -> take(List.of(row("name", "Big Tom")), TakingIn.Missing.RETIRE, "name"))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("no field that says which rows are retired");
  }

  @Test
  void columnsThatAreNoFieldsAreTold() {
    assertThatThrownBy(() -> TakingIn.fields(table("kiln"), List.of("name", "Colour")))
        .hasMessageContaining("Kiln has no field Colour");
    assertThatThrownBy(() -> TakingIn.fields(table("kiln"), List.of("name", "Name")))
        .hasMessageContaining("Two columns are Name");
    assertThatThrownBy(() -> take(List.of(row("fuel", "gas")), TakingIn.Missing.LEAVE, "fuel"))
        .hasMessageContaining("no match by it is certain");
  }

  /** The same rows as a change and its taking back. */
  @Test
  void whatIsEnteredIsOneChange() {
    EnterRows edit = entry().of("a firing", firing());
    Draft after = edit.apply(demo);
    assertThat(joiner.change.Changes.between(demo, after).inverse().applyTo(after)).isEqualTo(demo);
    assertThat(Audit.of(after, Pottery.CLOCK).total()).isZero();
  }
}
