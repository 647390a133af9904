package joiner.outline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.Random;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.edit.EditRefusedException;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;

class OutlineTest {
  private static final Draft EMPTY = new Draft(Design.empty("x", "X"), SampleRows.NONE);

  private static List<OutlinedField> fields(String text) {
    Outline outline = Outline.read(text);
    assertThat(outline.tables()).hasSize(1);
    assertThat(outline.tables().getFirst().label()).isEmpty();
    return outline.tables().getFirst().fields();
  }

  private static List<String> labels(String text) {
    return fields(text).stream().map(OutlinedField::label).toList();
  }

  @Test
  void namesAloneAreFieldsHoweverTheyAreListed() {
    List<String> wanted = List.of("Name", "Food safe", "Start date");
    assertThat(labels("Name\nFood safe\nStart date")).isEqualTo(wanted);
    assertThat(labels("Name, Food safe, Start date")).isEqualTo(wanted);
    assertThat(labels("Name; Food safe; Start date")).isEqualTo(wanted);
    assertThat(labels("- Name\n- Food safe\n\n- Start date\n")).isEqualTo(wanted);
    assertThat(labels("1. Name\n2. Food safe\n3. Start date")).isEqualTo(wanted);
    assertThat(labels("Name, Food safe\nStart date")).isEqualTo(wanted);
    assertThat(labels("Potter's name, kiln's age")).containsExactly("Potter's name", "kiln's age");
    assertThat(Outline.read(" \n ").tables()).isEmpty();
  }

  @Test
  void whatStandsBehindANameIsUnderstoodFromTheEnd() {
    OutlinedField price = fields("unit price decimal 8.2 not null default 0").getFirst();
    assertThat(price.label()).isEqualTo("unit price");
    assertThat(price.type()).contains(new FieldType.Decimal(8, 2));
    assertThat(price.required()).isTrue();
    assertThat(price.defaultText()).isEqualTo("0");
    OutlinedField name = fields("name varchar(60) unique").getFirst();
    assertThat(name.type()).contains(new FieldType.Text(60));
    assertThat(name.unique()).isTrue();
    OutlinedField kiln = fields("fired in → Kiln, required").getFirst();
    assertThat(kiln.refersTo()).contains("Kiln");
    assertThat(kiln.label()).isEqualTo("fired in");
  }

  @Test
  void aBlockOfASpreadsheetIsReadByItsHeadingsInAnyOrder() {
    List<OutlinedField> read =
        fields(
            """
            Required\tField\tData type\tLength\tComment
            yes\tMark\tvarchar\t6\tScratched into the foot
            \tGrams\tinteger\t\t
            x\tSurface\tenum('gloss','matt')\t\t
            """);
    assertThat(read).extracting(OutlinedField::label).containsExactly("Mark", "Grams", "Surface");
    assertThat(read).extracting(OutlinedField::required).containsExactly(true, false, true);
    assertThat(read.getFirst().type()).contains(new FieldType.Text(6));
    assertThat(read.getFirst().note()).isEqualTo("Scratched into the foot");
    assertThat(read.get(1).type()).contains(new FieldType.WholeNumber(Width.BITS_32));
    assertThat(read.get(2).type()).contains(FieldType.Choice.of(List.of("gloss", "matt")));
  }

  @Test
  void withoutHeadingsColumnsAreKnownByWhatTheyHold() {
    List<OutlinedField> read =
        fields("Mark\ttext\t6\tyes\nGrams\tint\t\tno\nMade on\tdate\t\tyes\n");
    assertThat(read).extracting(OutlinedField::label).containsExactly("Mark", "Grams", "Made on");
    assertThat(read).extracting(OutlinedField::required).containsExactly(true, false, true);
    assertThat(read.getFirst().type()).contains(new FieldType.Text(6));
    List<OutlinedField> turned = fields("text(6);Mark\nint;Grams\ndate;Made on");
    assertThat(turned).extracting(OutlinedField::label).containsExactly("Mark", "Grams", "Made on");
    List<OutlinedField> bars = fields("| Mark | text 6 |\n| Grams | int |");
    assertThat(bars).extracting(OutlinedField::label).containsExactly("Mark", "Grams");
  }

  @Test
  void nullableIsTheContraryOfRequired() {
    List<OutlinedField> read = fields("Name\tType\tNullable\nMark\ttext\tNO\nGrams\tint\tYES");
    assertThat(read).extracting(OutlinedField::required).containsExactly(true, false);
  }

  @Test
  void tablesStandBeforeAColonOrAboveWhatIsIndented() {
    for (String text :
        List.of(
            "Glaze: name, food safe, surface\nKiln: name, litres",
            "Glaze\n  name\n  food safe\n  surface\nKiln\n  name\n  litres",
            "Glaze:\n- name\n- food safe\n- surface\nKiln:\n- name\n- litres",
            "Glaze\n\tname\n\tfood safe\n\tsurface\nKiln\n\tname, litres")) {
      Outline outline = Outline.read(text);
      assertThat(outline.tables())
          .as(text)
          .extracting(OutlinedTable::label)
          .containsExactly(Optional.of("Glaze"), Optional.of("Kiln"));
      assertThat(outline.tables().getFirst().fields())
          .as(text)
          .extracting(OutlinedField::label)
          .containsExactly("name", "food safe", "surface");
    }
  }

  @Test
  void whatIsNotUnderstoodIsTold() {
    Outline outline =
        Outline.read("Name\tType\tColour\nMark\twidget\tred\n\ttext\tblue\nGrams\tint\t");
    assertThat(outline.tables().getFirst().fields())
        .extracting(OutlinedField::label)
        .containsExactly("Mark", "Grams");
    assertThat(String.join("\n", outline.remarks()))
        .contains("Colour")
        .contains("widget")
        .contains("without a label");
  }

  @Test
  void tablesAreAddedWithTheirKeysAndReferences() {
    Draft made =
        new OutlineEdits(
                Outline.read(
                    """
                    Piece: piece no counter pk, mark text 6 unique required, kiln → Kiln, made on
                    Kiln: kiln no counter pk, name required, litres
                    """),
                Optional.empty())
            .apply(EMPTY);
    Table piece = made.design().tableNamed("piece").orElseThrow();
    assertThat(piece.primaryKey()).containsExactly(new FieldId("piece_no"));
    assertThat(piece.isKey(List.of(new FieldId("mark")))).isTrue();
    assertThat(piece.field(new FieldId("made_on")).type()).isEqualTo(new FieldType.Date());
    assertThat(made.design().parentsOf(piece.id()))
        .singleElement()
        .satisfies(r -> assertThat(r.parent()).isEqualTo(new TableId("kiln")));
    assertThat(piece.field(new FieldId("kiln")).type())
        .isEqualTo(new FieldType.WholeNumber(Width.BITS_32));
  }

  @Test
  void namesThatAreTakenGetNumbersAndDefaultsAreReadAsPeopleMeanThem() {
    Draft demo = Pottery.demo();
    TableId kiln = new TableId("kiln");
    Draft made =
        new OutlineEdits(Outline.read("name\nbought on date default today"), Optional.of(kiln))
            .apply(demo);
    List<Field> fields = made.design().table(kiln).fields();
    assertThat(fields.get(fields.size() - 2).name()).isEqualTo("name_2");
    assertThat(fields.getLast().label()).isEqualTo("Bought on");
    assertThat(fields.getLast().defaultValue()).contains(new Formula("CURRENT_DATE"));
  }

  @Test
  void fieldsNeedATableAndReferencesOneThatIsThere() {
    Outline alone = Outline.read("name, litres");
    assertThatThrownBy(() -> new OutlineEdits(alone, Optional.empty()))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("belong to no table");
    Outline far = Outline.read("Piece: stand → Shelf");
    assertThatThrownBy(() -> new OutlineEdits(far, Optional.empty()).apply(EMPTY))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("Shelf");
  }

  /** Law: copied fields come back, with type, size, required, unique, default and note. */
  @Test
  void copiedFieldsComeBack() {
    Tries.of(200).forEach(OutlineTest::comeBack);
  }

  private static void comeBack(long seed) {
    Draft draft = RandomDesigns.draft(seed);
    for (Table table : draft.design().tables()) {
      List<Field> fields =
          table.fields().stream()
              .filter(field -> OutlineTest.isPlain(draft.design(), table, field))
              .toList();
      if (fields.isEmpty()) {
        continue;
      }
      Outline read = Outline.read(FieldText.write(draft.design(), table, fields));
      assertThat(read.remarks()).as("seed %d", seed).isEmpty();
      Draft with =
          new OutlineEdits(read, Optional.of(new TableId("copy")))
              .apply(
                  EMPTY.withDesign(
                      EMPTY
                          .design()
                          .withTableAdded(Table.of("copy", "Copy", new Noun("copy", "copies")))));
      Table copy = with.design().table(new TableId("copy"));
      assertThat(copy.fields()).as("seed %d", seed).hasSameSizeAs(fields);
      for (int i = 0; i < fields.size(); i++) {
        Field one = fields.get(i);
        Field other = copy.fields().get(i);
        assertThat(other.type())
            .as("seed %d, %s", seed, one)
            .isEqualTo(FieldType.Choice.after(other.type(), one.type()));
        assertThat(other.required()).isEqualTo(one.required());
        assertThat(copy.isUnique(List.of(other.id())))
            .as("seed %d, %s", seed, one)
            .isEqualTo(table.isUnique(List.of(one.id())) || onlyKeyOf(copy, other));
        assertThat(other.description()).isEqualTo(one.description());
      }
    }
  }

  private static boolean onlyKeyOf(Table copy, Field field) {
    return copy.primaryKey().equals(List.of(field.id()));
  }

  /** What a line of cells can hold: no references, no kept types, no blanks within blanks. */
  private static boolean isPlain(Design design, Table table, Field field) {
    boolean refers =
        design.parentsOf(table.id()).stream().anyMatch(r -> r.childFields().contains(field.id()));
    boolean plainChoice =
        !(field.type() instanceof FieldType.Choice choice)
            || choice.values().stream().allMatch(v -> v.matches("[\\p{L}\\p{N}]+"));
    return !refers
        && plainChoice
        && !(field.type() instanceof FieldType.Kept)
        && field.label().equals(field.label().strip().replaceAll("\\s+", " "))
        && field.description().equals(field.description().strip().replaceAll("\\s+", " "));
  }

  /** Law: whatever is pasted, it is read without failing, and no line is lost without a word. */
  @Test
  void whateverIsPastedIsRead() {
    String letters = "ab ,;|\t\n:-→'()8.2*!? xNtext requiredé\u0000";
    Tries.of(500)
        .forEach(
            seed -> {
              var random = new Random(seed);
              String text =
                  random
                      .ints(random.nextInt(80), 0, letters.length())
                      .mapToObj(i -> letters.substring(i, i + 1))
                      .collect(java.util.stream.Collectors.joining());
              Outline outline = Outline.read(text);
              assertThat(outline.tables())
                  .allSatisfy(
                      table ->
                          assertThat(table.fields())
                              .allSatisfy(field -> assertThat(field.label()).isNotBlank()));
            });
  }
}
