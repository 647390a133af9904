package joiner.desktop.shape;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.TestBench;
import joiner.expression.Kind;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Generator;
import joiner.model.Kit;
import joiner.model.Origin;
import joiner.model.Stamp;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.shape.CodedNumber;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Values that are made, stamped and entered once, without a window. */
class GivenValuesTest {
  @TempDir private Path folder;
  private final Texts texts = Texts.beside(ShapeView.class);
  private TestBench test;
  private FieldsModel fields;
  private SampleModel rows;

  @BeforeEach
  void open() {
    test = new TestBench(Pottery.demo(), folder.resolve("kept"));
    rows = new SampleModel(test.bench, texts);
    fields = new FieldsModel(test.bench, texts);
    test.choose("locker");
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private Table table() {
    return test.table("locker");
  }

  private Field field(String name) {
    return table().fieldNamed(name).orElseThrow();
  }

  private Field add(String label, String words) {
    fields.add(label);
    Field added = table().fields().getLast();
    fields.origins().give(List.of(added), words);
    return table().fields().getLast();
  }

  private Field first(Kind kind) {
    return table().fields().stream()
        .filter(f -> f.type().kind() == kind && f.origin() == Origin.TYPED)
        .findFirst()
        .orElseThrow();
  }

  private Optional<String> cell(int row, Field field) {
    return test.bench.draft().rows().of(table().id()).cell(row, field.id());
  }

  @Test
  void aFieldIsStampedByTheWordsForIt() {
    Field changed = add("Changed at", "when the row is changed");
    assertThat(changed.origin()).isEqualTo(new Origin.Stamped(Stamp.CHANGED_AT));
    assertThat(changed.type()).isEqualTo(new FieldType.DateTime(false));
    assertThat(fields.origins().words(changed)).isEqualTo("when the row is changed");
    Field by = add("Made by", "who makes the row");
    rows.turnTo(table());
    rows.edits().add();
    int last = test.bench.draft().rows().of(table().id()).count() - 1;
    assertThat(cell(last, changed)).isPresent();
    assertThat(cell(last, by)).isPresent();
    rows.turnTo(table());
    rows.edits().type(0, first(Kind.TEXT), "Shelf cracked");
    assertThat(cell(0, changed)).isPresent();
    assertThat(cell(0, by)).isEmpty();
    assertThat(cell(1, changed)).isEmpty();
    test.bench.undo();
    assertThat(cell(0, changed)).isEmpty();
  }

  @Test
  void numbersGoOnInNewRowsAndTheirFormIsTheFieldsPattern() {
    Field code = add("Code", "a coded number, L-YYYY-0001");
    assertThat(code.type()).isEqualTo(new FieldType.Text(11));
    assertThat(code.limits().pattern()).contains("L-[0-9]{4}-[0-9]{4}");
    assertThat(table().isKey(List.of(code.id()))).isTrue();
    CodedNumber number = ((Generator.Coded) ((Origin.Generated) code.origin()).by()).number();
    String first = fields.origins().next(code, number).orElseThrow();
    rows.turnTo(table());
    rows.edits().add();
    Rows now = test.bench.draft().rows().of(table().id());
    assertThat(cell(now.count() - 1, code)).contains(first);
    assertThat(fields.origins().next(code, number).orElseThrow()).isGreaterThan(first);
    fields.give(List.of(code), new DefaultOffers.Given.Entered());
    assertThat(field(code.name()).limits().pattern()).isEmpty();
    assertThat(cell(now.count() - 1, code)).contains(first);
  }

  @Test
  void eachTargetSaysHowItKeepsAField() {
    Field code = add("Code", "a coded number, L-YYYY-0001");
    List<OriginsModel.Target> targets = fields.origins().targets(code);
    assertThat(targets)
        .filteredOn(OriginsModel.Target::falls)
        .extracting("engine")
        .contains("H2", "DuckDB")
        .doesNotContain("PostgreSQL", "MariaDB", "SQLite");
    fields.origins().give(List.of(code), "entered once");
    Field once = field(code.name());
    assertThat(once.origin()).isEqualTo(Origin.ONCE);
    assertThat(once.limits().pattern()).isEmpty();
  }

  @Test
  void aKitIsDroppedInMadeAndLetGo() {
    KitsModel kits = fields.kits();
    Kit stamps = kits.offers().of("stam").getFirst().thing();
    kits.drop(stamps);
    assertThat(table().fields()).extracting(Field::label).contains("Made at", "Changed by");
    assertThat(kits.offers().of("stam")).isEmpty();
    FieldGroup group = table().groups().getLast();
    assertThat(kits.of(group)).contains(stamps);
    assertThat(fields.groups().kind(group)).isEqualTo(texts.get("kit"));
    test.choose("kiln");
    kits.drop(kits.offers().of("stam").getFirst().thing());
    assertThat(kits.tables(stamps)).isEqualTo(4);
    kits.drop(stamps, test.table("cone").id());
    assertThat(test.newest()).contains("Stamps is in Cone now");
    test.bench.undo();
    kits.leave(stamps);
    assertThat(kits.tables(stamps)).isEqualTo(3);
    Table kiln = test.table("kiln");
    List<Field> two = List.of(kiln.fields().get(3), kiln.fields().get(4));
    kits.make(two, "Size");
    assertThat(test.bench.design().kits()).extracting(Kit::label).containsExactly("Stamps", "Size");
    kits.make(List.of(kiln.fields().getFirst()), "Key");
    assertThat(test.newest()).contains("identifies rows");
    assertThat(test.bench.design().kits()).hasSize(2);
  }

  @Test
  void oneWordIsAConstantFirstAndSeveralAreWhatTheyName() {
    fields.add("Mark");
    Field mark = table().fields().getLast();
    assertThat(words(mark, "random")).last().isEqualTo("a random code of 8");
    assertThat(words(mark, "a random").getFirst()).startsWith("a random");
    assertThat(words(mark, "order of time")).first().isEqualTo("a UUID, in order of time");
    fields.origins().give(List.of(mark), "a UUID, in order of time");
    assertThat(field(mark.name()).type()).isEqualTo(new FieldType.Uuid());
    assertThat(new FieldId(mark.name())).isEqualTo(mark.id());
  }

  private List<String> words(Field field, String typed) {
    return fields.origins().offers(field).of(typed).stream().map(Offers.Offer::words).toList();
  }
}
