package joiner.source;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.discovery.Fact;
import joiner.discovery.FactSearch;
import joiner.finding.DesignChecks;
import joiner.finding.Severity;
import joiner.meaning.Draft;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.SampleRows;
import joiner.split.Split;
import joiner.split.SplitChoices;
import org.junit.jupiter.api.Test;

class SourceImportTest {
  private static final Draft EMPTY = new Draft(Design.empty("studio", "Studio"), SampleRows.NONE);

  private static ProfiledSource pasted(String block) throws Exception {
    return ProfiledSource.of(
        SourceFile.pasted("kiln log", block.replace('|', '\n'), ReadingOptions.DETECT));
  }

  private static SourceImport imported(String block, ImportOptions options) throws Exception {
    return SourceImport.of(pasted(block), EMPTY.design(), options);
  }

  private static Table only(SourceImport imported) {
    return imported.tables().getFirst().table();
  }

  private static List<String> texts(SourceImport imported, int field) {
    SourceImport.Imported table = imported.tables().getFirst();
    return IntStream.range(0, table.rows().count())
        .mapToObj(row -> table.rows().cell(row, table.table().fields().get(field).id()).orElse(""))
        .toList();
  }

  @Test
  void aColumnThatSaysItIdentifiesBecomesTheKey() throws Exception {
    Table table = only(imported("Kiln no\tName|K1\tEmber|K2\tBig Tom", ImportOptions.ALL));
    assertThat(table.namesOf(table.primaryKey())).containsExactly("kiln_no");
    assertThat(table.name()).isEqualTo("kiln_log");
  }

  @Test
  void otherRowsAreNumberedFromWhereTold() throws Exception {
    SourceImport usual = imported("Kiln\tCone|Ember\t6|Ember\t6", ImportOptions.ALL);
    assertThat(texts(usual, 0)).containsExactly("1", "2");
    assertThat(only(usual).fields().getFirst().type()).isInstanceOf(FieldType.Counter.class);
    SourceImport later =
        imported("Kiln\tCone|Ember\t6|Ember\t6", new ImportOptions(true, 100, "", Map.of()));
    assertThat(texts(later, 0)).containsExactly("100", "101");
  }

  @Test
  void theDefinitionComesWithoutRowsAndColumnsCanStayOut() throws Exception {
    SourceImport imported =
        imported(
            "Kiln\tCone\tNote|Ember\t6\tx|Ash\t4\ty",
            new ImportOptions(false, 1, "Firing", Map.of(0, Set.of(2))));
    assertThat(imported.tables().getFirst().rows().count()).isZero();
    assertThat(only(imported).fields()).extracting(Field::label).doesNotContain("Note");
    assertThat(only(imported).area()).contains(new AreaId("Firing"));
  }

  @Test
  void valuesAreWrittenForTheirTypeAndTheRestStaysAsItIs() throws Exception {
    var block = new StringBuilder("Day\tPeak");
    for (int i = 10; i < 30; i++) {
      block.append("|").append(i).append("/03/2026\t1.0").append(i).append(",5");
    }
    SourceImport imported = imported(block + "|soon\thot", ImportOptions.ALL);
    assertThat(texts(imported, 1)).startsWith("2026-03-10").endsWith("soon");
    assertThat(texts(imported, 2)).startsWith("1010.5").endsWith("hot");
    assertThat(only(imported).fields().get(1).type()).isEqualTo(new FieldType.Date());
  }

  @Test
  void twoColumnsOfOneNameBothBecomeFields() throws Exception {
    Table table = only(imported("Kiln\tKiln\tkiln_log_id|a\tb\tc|d\te\tf", ImportOptions.ALL));
    assertThat(table.fields())
        .extracting(Field::name)
        .contains("kiln", "kiln_2", "kiln_log_id")
        .doesNotHaveDuplicates();
  }

  @Test
  void nestedBookingsBecomeASoundDesign() throws Exception {
    ProfiledSource source =
        ProfiledSource.of(
            SourceFile.read(Pottery.folder("sources/course bookings.json"), ReadingOptions.DETECT));
    Draft draft = SourceImport.of(source, EMPTY.design(), ImportOptions.ALL).edit().apply(EMPTY);
    assertSound(draft);
    assertThat(draft.design().relationships())
        .extracting(r -> r.child() + " → " + r.parent())
        .containsExactlyInAnyOrder(
            "course_booking_session → course_booking",
            "session_material → course_booking_session",
            "course_booking_booking → course_booking");
  }

  /** Splitting the header of a nested source keeps its sections tied to it. */
  @Test
  void sectionsStayWithTheirHeaderThroughASplit() throws Exception {
    ProfiledSource source =
        ProfiledSource.of(
            SourceFile.read(Pottery.folder("sources/course bookings.json"), ReadingOptions.DETECT));
    SourceImport imported = SourceImport.of(source, EMPTY.design(), ImportOptions.ALL);
    Draft draft = imported.edit().apply(EMPTY);
    List<Fact> plausible =
        FactSearch.of(
                source.source().tables().getFirst().cells(),
                source.profiles().getFirst(),
                () -> false)
            .facts()
            .stream()
            .filter(fact -> fact.score() >= FactSearch.PLAUSIBLE)
            .toList();
    var columns = imported.tables().getFirst().columns();
    Split split =
        Split.of(
            draft,
            new TableId("course_booking"),
            SplitChoices.of(plausible, column -> Optional.ofNullable(columns.get(column))));
    assertThat(split.proof().orElseThrow().holds()).isTrue();
    Draft after = split.after().orElseThrow();
    assertSound(after);
    assertThat(after.design().tableNamed("course")).isPresent();
    assertThat(after.rows().of(new TableId("course")).count()).isEqualTo(4);
  }

  private static void assertSound(Draft draft) {
    assertThat(DesignChecks.run(draft))
        .filteredOn(finding -> finding.severity() == Severity.ERROR)
        .isEmpty();
    assertThat(Audit.of(draft, Pottery.CLOCK, () -> false).total()).isZero();
  }
}
