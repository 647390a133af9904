package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.expression.Formula;
import joiner.finding.DesignChecks;
import joiner.finding.Finding;
import joiner.meaning.Draft;
import joiner.meaning.TableInWords;
import joiner.meaning.WorkedOut;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class ToCompoundTest {
  private static final TableId SUPPLIER = new TableId("supplier");

  private static Draft withField(String label) {
    Draft demo = Pottery.demo();
    Field field = Field.of("whole", label, new FieldType.Text(40));
    return new AddField(SUPPLIER, field).apply(demo);
  }

  private static CompoundFields kind(String kind) {
    return CompoundFields.all().stream()
        .filter(one -> one.kind().equals(kind))
        .findFirst()
        .orElseThrow();
  }

  private static Draft compound(String label, String kind) {
    return new ToCompound(SUPPLIER, new FieldId("whole"), kind(kind)).apply(withField(label));
  }

  private static FieldGroup group(Draft draft) {
    return draft.design().table(SUPPLIER).groups().getFirst();
  }

  @Test
  void anAddressIsItsPartsUnderTheWordsOfItsField() {
    Draft draft = compound("Delivery address", "address");
    Table supplier = draft.design().table(SUPPLIER);
    FieldGroup group = group(draft);
    assertThat(group.label()).isEqualTo("Delivery address");
    assertThat(supplier.labelsOf(group.fields()))
        .containsExactly(
            "Delivery street",
            "Delivery postcode",
            "Delivery place",
            "Delivery region",
            "Delivery country");
    assertThat(supplier.namesOf(group.fields())).startsWith("delivery_street");
    assertThat(supplier.fieldIds()).endsWith(group.fields().toArray(FieldId[]::new));
    assertThat(TableInWords.of(draft, SUPPLIER).text())
        .contains("Delivery region and Delivery country are its Delivery address.");
    assertThat(compound("Address", "address").design().table(SUPPLIER).fieldNamed("street"))
        .isPresent();
  }

  @Test
  void theFullNameOfAPersonIsWorkedOut() {
    Draft draft = compound("Contact name", "person name");
    Table supplier = draft.design().table(SUPPLIER);
    Field full = supplier.fieldNamed("contact_full_name").orElseThrow();
    assertThat(group(draft).fields()).endsWith(full.id());
    assertThat(full.type()).isEqualTo(new FieldType.Text(20 + 1 + 60 + 1 + 60));
    assertThat(fullName(draft, "Dr", "Mara", "Vell")).isEqualTo("Dr Mara Vell");
    assertThat(fullName(draft, "", "Mara", "Vell")).isEqualTo("Mara Vell");
    assertThat(fullName(draft, "", "", "Vell")).isEqualTo("Vell");
  }

  private static String fullName(Draft draft, String... parts) {
    List<String> names = List.of("contact_title", "contact_given_name", "contact_family_name");
    Draft filled = draft;
    for (int i = 0; i < parts.length; i++) {
      Table table = draft.design().table(SUPPLIER);
      FieldId id = table.fieldNamed(names.get(i)).orElseThrow().id();
      Optional<String> text = Optional.of(parts[i]);
      filled = filled.withRows(filled.rows().with(SUPPLIER, r -> r.withCell(0, id, text)));
    }
    Table table = filled.design().table(SUPPLIER);
    return WorkedOut.of(filled, table, Pottery.CLOCK)
        .cell(
            filled.rows().of(SUPPLIER), 0, table.fieldNamed("contact_full_name").orElseThrow().id())
        .orElseThrow();
  }

  @Test
  void theFirstPartKeepsTheValuesAndTheRoomOfTheField() {
    Draft before = withField("Address");
    Rows rows = before.rows().of(SUPPLIER);
    Draft filled =
        before
            .withRows(
                before
                    .rows()
                    .with(
                        SUPPLIER,
                        r -> r.withCell(0, new FieldId("whole"), Optional.of("1 Quay Lane"))))
            .withDesign(
                before
                    .design()
                    .withTable(
                        SUPPLIER,
                        t ->
                            t.withField(
                                new FieldId("whole"), f -> f.withType(new FieldType.Text(200)))));
    Draft draft = new ToCompound(SUPPLIER, new FieldId("whole"), kind("address")).apply(filled);
    FieldId first = group(draft).fields().getFirst();
    assertThat(draft.rows().of(SUPPLIER).cell(0, first)).contains("1 Quay Lane");
    assertThat(draft.design().table(SUPPLIER).field(first).type())
        .isEqualTo(new FieldType.Text(200));
    assertThat(rows.count()).isEqualTo(draft.rows().of(SUPPLIER).count());
  }

  @Test
  void whatWasSaidOfTheFieldAndStillFitsStays() {
    Draft before = withField("Address");
    FieldId whole = new FieldId("whole");
    Draft said =
        before.withDesign(
            before
                .design()
                .withTable(
                    SUPPLIER,
                    t ->
                        t.withField(
                            whole,
                            f ->
                                f.withDescription("where we fetch it")
                                    .withRequired(true)
                                    .withDefault(Optional.of(new Formula("'here'"))))));
    Field street =
        new ToCompound(SUPPLIER, whole, kind("address"))
            .apply(said)
            .design()
            .table(SUPPLIER)
            .field(whole);
    assertThat(street.description()).isEqualTo("where we fetch it");
    assertThat(street.required()).isTrue();
    assertThat(street.defaultValue()).contains(new Formula("'here'"));
    Field day =
        new ToCompound(SUPPLIER, whole, kind("period"))
            .apply(said)
            .design()
            .table(SUPPLIER)
            .field(whole);
    assertThat(day.defaultValue()).isEmpty(); // No day is called so.
  }

  @Test
  void aPeriodDoesNotEndBeforeItBegins() {
    Draft draft = compound("Contract period", "period");
    Rule rule = draft.design().table(SUPPLIER).rules().getLast();
    assertThat(rule.condition().orElseThrow().text())
        .isEqualTo("contract_last_day >= contract_first_day");
    List<FieldId> days = group(draft).fields();
    Draft wrong =
        draft.withRows(
            draft
                .rows()
                .with(
                    SUPPLIER,
                    r ->
                        r.withCell(0, days.get(0), Optional.of("2026-05-02"))
                            .withCell(0, days.get(1), Optional.of("2026-05-01"))));
    assertThat(Audit.of(wrong, Pottery.CLOCK).violations())
        .anyMatch(violation -> violation.fields().containsAll(days));
  }

  static List<CompoundFields> kinds() {
    return CompoundFields.all();
  }

  /** No kind brings anything with it that the checks of a design mind. */
  @ParameterizedTest
  @MethodSource("kinds")
  void eachKindIsSound(CompoundFields kind) {
    Set<String> before =
        Set.copyOf(DesignChecks.run(Pottery.demo()).stream().map(Finding::id).toList());
    for (String label : List.of(kind.label(), "Main " + kind.kind(), "Whatever")) {
      assertThat(DesignChecks.run(compound(label, kind.kind())))
          .as(label)
          .extracting(Finding::id)
          .isSubsetOf(before);
    }
  }

  @Test
  void keysReferencesAndPartsOfGroupsStayOneField() {
    Draft demo = Pottery.demo();
    for (String field : List.of("supplier_id")) {
      assertThatThrownBy(
              () -> new ToCompound(SUPPLIER, new FieldId(field), kind("address")).apply(demo))
          .isInstanceOf(EditRefusedException.class)
          .hasMessageContaining("has to stay one field");
    }
    Draft once = compound("Address", "address");
    assertThatThrownBy(
            () -> new ToCompound(SUPPLIER, new FieldId("whole"), kind("period")).apply(once))
        .hasMessageContaining("in a group already");
  }

  @Test
  void groupsComeTogetherLoseRemovedFieldsAndGoAlongToATableOfTheirOwn() {
    Table supplier = Pottery.demo().design().table(SUPPLIER);
    List<FieldId> ends = List.of(new FieldId("website"), new FieldId("name"));
    Draft grouped = ChangeTable.group(supplier, ends, "Known by").apply(Pottery.demo());
    assertThat(
            grouped.design().table(SUPPLIER).namesOf(grouped.design().table(SUPPLIER).fieldIds()))
        .startsWith("supplier_id", "name", "website");
    assertThat(group(grouped).fields()).containsExactlyInAnyOrderElementsOf(ends);
    Draft without =
        new RemoveField(SUPPLIER, new FieldId("name"), "Name")
            .apply(
                grouped.withDesign(
                    grouped.design().withTable(SUPPLIER, t -> t.withRowLabel(Optional.empty()))));
    assertThat(group(without).fields()).containsExactly(new FieldId("website"));
    Draft address = compound("Address", "address");
    var all = new ArrayList<>(group(address).fields());
    Draft apart = new ToOwnTable(SUPPLIER, all, "Address").apply(address);
    assertThat(apart.design().table(new TableId("address")).groups()).hasSize(1);
    assertThat(apart.design().table(SUPPLIER).groups()).isEmpty();
    Draft back =
        FoldBack.of(apart.design(), apart.design().parentsOf(new TableId("address")).getFirst())
            .apply(apart);
    assertThat(back.design().table(SUPPLIER).labelsOf(group(back).fields()))
        .isEqualTo(address.design().table(SUPPLIER).labelsOf(all));
  }
}
