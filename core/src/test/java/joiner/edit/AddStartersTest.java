package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.Collection;
import java.util.Currency;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.Tries;
import joiner.audit.Audit;
import joiner.finding.DesignChecks;
import joiner.finding.Severity;
import joiner.format.DesignFolder;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;

/** Tables to begin with. */
class AddStartersTest {
  private static final Draft STARTERS = open();
  private static final Draft NOTHING = new Draft(Design.empty("studio", "Studio"), SampleRows.NONE);

  private static Draft open() {
    try {
      return DesignFolder.open(
              Pottery.folder("saltmarsh-pottery").resolve("../../starters/business").normalize())
          .draft();
    } catch (Exception e) {
      throw new IllegalStateException(e);
    }
  }

  private static AddStarters add(Collection<TableId> tables) {
    return new AddStarters(
        STARTERS,
        tables.stream()
            .collect(
                Collectors.toMap(
                    id -> id, id -> new HashSet<>(STARTERS.design().table(id).fieldIds()))));
  }

  private static Set<TableId> ids(String... names) {
    return Arrays.stream(names).map(TableId::new).collect(Collectors.toSet());
  }

  private static List<String> column(Draft draft, String table, String field) {
    Rows rows = draft.rows().of(new TableId(table));
    return IntStream.range(0, rows.count())
        .mapToObj(row -> rows.cell(row, new FieldId(field)).orElse(""))
        .toList();
  }

  @Test
  void thereAreThirtyAndMoreWithoutAnythingToConsider() {
    assertThat(STARTERS.design().tables()).hasSizeGreaterThanOrEqualTo(30);
    assertThat(STARTERS.design().areas()).hasSizeGreaterThan(5);
    assertThat(DesignChecks.run(STARTERS)).isEmpty();
    assertThat(Audit.of(STARTERS, Pottery.CLOCK).violations()).isEmpty();
    assertThat(STARTERS.design().tables()).noneMatch(table -> table.description().isBlank());
  }

  /** ISO 3166-1, 639-1 and 4217, as the JDK has them; later JDKs may know more. */
  @Test
  void codesAreThoseOfIsoAsTheJdkKnowsThem() {
    assertThat(Locale.getISOCountries()).containsAll(column(STARTERS, "country", "country_code"));
    assertThat(column(STARTERS, "country", "country_code")).hasSizeGreaterThan(240);
    for (String code : column(STARTERS, "currency", "currency_code")) {
      assertThat(Currency.getInstance(code).getCurrencyCode()).isEqualTo(code);
    }
    List<String> codes = column(STARTERS, "currency", "currency_code");
    List<String> decimals = column(STARTERS, "currency", "decimals");
    assertThat(decimals.get(codes.indexOf("JPY"))).isEqualTo("0");
    assertThat(decimals.get(codes.indexOf("EUR"))).isEqualTo("2");
    assertThat(Locale.getISOLanguages()).containsAll(column(STARTERS, "language", "language_code"));
  }

  @Test
  void aTableComesWithAllItRefersToOrWithout() {
    Set<TableId> all = AddStarters.withParents(STARTERS.design(), ids("order_line"));
    assertThat(all)
        .containsAll(ids("sales_order", "product", "unit", "person", "address", "country"))
        .doesNotContainAnyElementsOf(ids("invoice", "task"));
    Draft whole = add(all).apply(NOTHING);
    assertThat(whole.design().tables()).hasSameSizeAs(all);
    assertThat(whole.design().table(new TableId("country")).area()).isPresent();
    assertThat(column(whole, "country", "country_code")).contains("DE", "FR");
    Draft alone = add(ids("person")).apply(NOTHING);
    Table person = alone.design().table(new TableId("person"));
    assertThat(person.hasField(new FieldId("address_id"))).isFalse();
    assertThat(person.hasField(new FieldId("family_name"))).isTrue();
    assertThat(alone.design().relationships()).isEmpty();
  }

  @Test
  void onlyThePickedFieldsComeAndNoRuleSpeaksOfOthers() {
    TableId loan = new TableId("loan");
    Draft some =
        new AddStarters(STARTERS, Map.of(loan, Set.of(new FieldId("lent_on")))).apply(NOTHING);
    Table table = some.design().table(loan);
    assertThat(table.namesOf(table.fieldIds())).containsExactly("loan_id", "lent_on");
    assertThat(table.rules()).isEmpty();
    assertThatThrownBy(() -> new AddStarters(STARTERS, Map.of()).apply(NOTHING))
        .hasMessageContaining("No table is picked");
  }

  @Test
  void namesThatAreTakenStayWithWhoHasThem() {
    Draft demo = Pottery.demo();
    Draft both = add(ids("course", "supplier", "organisation")).apply(demo);
    for (Table table : demo.design().tables()) {
      assertThat(both.design().table(table.id())).isEqualTo(table);
    }
    assertThat(both.design().tables()).hasSize(demo.design().tables().size() + 3);
    assertThat(both.design().tableNamed("course_2")).isPresent();
    Draft twice = add(ids("course")).apply(both);
    assertThat(twice.design().tableNamed("course_3")).isPresent();
  }

  /** Whatever is picked, in whatever order, what comes of it is sound. */
  @Test
  void anyPickIsSound() {
    List<Table> all = List.copyOf(STARTERS.design().tables());
    Tries.of(40)
        .forEach(
            seed -> {
              var random = new Random(seed);
              Map<TableId, Set<FieldId>> picked =
                  all.stream()
                      .filter(table -> random.nextInt(3) == 0)
                      .collect(
                          Collectors.toMap(
                              Table::id,
                              table ->
                                  table.fieldIds().stream()
                                      .filter(field -> random.nextInt(4) > 0)
                                      .collect(Collectors.toSet())));
              if (picked.isEmpty()) {
                return;
              }
              Draft draft = new AddStarters(STARTERS, picked).apply(Pottery.demo());
              assertThat(
                      DesignChecks.run(draft).stream()
                          .filter(f -> f.severity() == Severity.ERROR)
                          .map(f -> f.message()))
                  .as("seed %d: %s", seed, picked)
                  .isEmpty();
              assertThat(Audit.of(draft, Pottery.CLOCK).violations()).isEmpty();
            });
  }
}
