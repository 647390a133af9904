package joiner.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import joiner.Pottery;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogIndex;
import joiner.catalog.CatalogTable;
import joiner.catalog.Check;
import joiner.catalog.Column;
import joiner.catalog.ForeignKey;
import joiner.catalog.Key;
import joiner.catalog.SqlExpression;
import joiner.catalog.SqlType;
import joiner.catalog.Surroundings;
import joiner.catalog.View;
import joiner.ddl.Lowered;
import joiner.ddl.RowsChoice;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.model.ReferentialAction;
import org.junit.jupiter.api.Test;

/** What was promised is there, or each thing that is not is told. */
class VerificationTest {
  private static final Catalog PROMISE =
      Lowered.of(Pottery.demo(), Dialects.H2, RowsChoice.NONE).catalog();

  private static Verification verify(Catalog found, Dialect dialect) {
    return Verification.of(PROMISE, found, dialect, SqlExpression::equals);
  }

  /** As H2 gives names back. */
  private static Catalog stored() {
    return withViews(PROMISE.tables().stream().map(VerificationTest::stored).toList());
  }

  /** Those tables, with the views that were promised. */
  private static Catalog withViews(List<CatalogTable> tables) {
    List<View> views =
        PROMISE.around().views().stream()
            .map(view -> new View(stored(view.name()), false, view.definition()))
            .toList();
    return new Catalog(tables, List.of(), new Surroundings(views, List.of(), List.of(), List.of()));
  }

  private static String stored(String name) {
    return Dialects.H2.identifiers().stored(name);
  }

  private static List<String> stored(List<String> names) {
    return names.stream().map(VerificationTest::stored).toList();
  }

  private static CatalogTable stored(CatalogTable t) {
    return new CatalogTable(
        stored(t.name()),
        t.columns().stream()
            .map(
                c ->
                    new Column(
                        stored(c.name()),
                        c.type(),
                        c.required(),
                        c.defaultValue(),
                        c.counts(),
                        c.generated(),
                        c.comment()))
            .toList(),
        t.primaryKey().map(k -> new Key("", stored(k.columns()))),
        t.uniqueKeys().stream().map(k -> new Key("", stored(k.columns()))).toList(),
        t.foreignKeys().stream()
            .map(
                k ->
                    new ForeignKey(
                        "lost",
                        stored(k.columns()),
                        stored(k.parent()),
                        stored(k.parentColumns()),
                        k.onDelete(),
                        k.onUpdate(),
                        false))
            .toList(),
        t.checks().stream().map(c -> new Check(stored(c.name()), c.condition())).toList(),
        t.indexes().stream().map(i -> new CatalogIndex("", stored(i.columns()), Set.of())).toList(),
        t.comment());
  }

  private static List<String> after(String table, UnaryOperator<CatalogTable> change) {
    var tables = new ArrayList<CatalogTable>();
    for (CatalogTable one : stored().tables()) {
      tables.add(one.name().equals(table) ? change.apply(one) : one);
    }
    return verify(withViews(tables), Dialects.H2).differences();
  }

  private static CatalogTable with(
      CatalogTable t,
      List<Column> columns,
      Optional<Key> primary,
      List<Key> uniques,
      List<ForeignKey> references,
      List<Check> checks,
      List<CatalogIndex> indexes) {
    return new CatalogTable(
        t.name(), columns, primary, uniques, references, checks, indexes, t.comment());
  }

  private static List<String> withColumn(String table, String name, UnaryOperator<Column> change) {
    return after(
        table,
        t ->
            with(
                t,
                t.columns().stream().map(c -> c.name().equals(name) ? change.apply(c) : c).toList(),
                t.primaryKey(),
                t.uniqueKeys(),
                t.foreignKeys(),
                t.checks(),
                t.indexes()));
  }

  @Test
  void namesAreComparedAsTheEngineKeepsThem() {
    Verification whole = verify(stored(), Dialects.H2);
    assertThat(whole.differences()).isEmpty();
    assertThat(whole.holds()).isTrue();
    assertThat(whole.counts().get("tables")).isEqualTo(new Verification.Count(16, 16));
    assertThat(whole.counts().get("relationships with their actions").found()).isEqualTo(22);
    assertThat(verify(stored(), Dialects.POSTGRESQL).counts().get("tables").found())
        .as("PostgreSQL would give them back in small letters")
        .isZero();
  }

  @Test
  void aMissingTableIsToldOnce() {
    List<CatalogTable> tables = new ArrayList<>(stored().tables());
    tables.removeIf(t -> t.name().equals("LOCKER"));
    assertThat(verify(withViews(tables), Dialects.H2).differences())
        .containsExactly("The table locker is missing.");
    assertThat(verify(new Catalog(stored().tables()), Dialects.H2).differences())
        .containsExactly(
            "The view firing_view is missing.",
            "The view glaze_view is missing.",
            "The view piece_view is missing.",
            "The view firings_by_member is missing.",
            "The view course_income is missing.");
  }

  @Test
  void everythingAboutAColumnIsCompared() {
    assertThat(
            withColumn(
                "FIRING",
                "STARTED_AT",
                c -> new Column("OTHER", c.type(), c.required(), c.defaultValue(), false, "")))
        .contains("The field firing.started_at is missing.");
    assertThat(
            withColumn(
                "FIRING",
                "STARTED_AT",
                c ->
                    new Column(
                        c.name(), new SqlType.Date(), c.required(), c.defaultValue(), false, "")))
        .contains("firing.started_at should be timestamp and is date.");
    assertThat(
            withColumn(
                "FIRING",
                "STARTED_AT",
                c -> new Column(c.name(), c.type(), false, Optional.empty(), false, c.comment())))
        .containsExactly(
            "firing.started_at should be required and may be empty.",
            "firing.started_at should have the default LOCALTIMESTAMP and has none.");
    assertThat(
            withColumn(
                "FIRING",
                "FIRING_ID",
                c -> new Column(c.name(), c.type(), true, Optional.empty(), false, c.comment())))
        .containsExactly("firing.firing_id should count up by itself and does not.");
    assertThat(
            withColumn(
                "MATERIAL",
                "PRICE_PER_100G",
                c -> new Column(c.name(), c.type(), false, Optional.empty(), false, c.comment())))
        .containsExactly("material.price_per_100g should be computed and is not.");
  }

  @Test
  void keysReferencesChecksAndIndexesAreComparedByWhatTheySay() {
    assertThat(
            after(
                "MEMBER",
                t ->
                    with(
                        t,
                        t.columns(),
                        Optional.empty(),
                        List.of(),
                        t.foreignKeys().stream()
                            .map(
                                k ->
                                    new ForeignKey(
                                        k.name(),
                                        k.columns(),
                                        k.parent(),
                                        k.parentColumns(),
                                        ReferentialAction.CASCADE,
                                        k.onUpdate(),
                                        false))
                            .toList(),
                        List.of(),
                        List.of())))
        .anyMatch(d -> d.equals("member should be identified by [member_id] and is by []."))
        .anyMatch(d -> d.startsWith("member lacks the unique key ["))
        .anyMatch(d -> d.startsWith("member lacks the foreign key fk_member_"))
        .anyMatch(d -> d.startsWith("member lacks the check "));
  }

  @Test
  void aPairOfColumnsMayBeGivenBackInAnyOrderAndAKeyOnceOnly() {
    ForeignKey key = tying("fk", List.of("a", "b"), List.of("x", "y"));
    ForeignKey turned = tying("other", List.of("b", "a"), List.of("y", "x"));
    ForeignKey crossed = tying("fk", List.of("a", "b"), List.of("y", "x"));
    assertThat(references(List.of(key), List.of(turned))).isEmpty();
    assertThat(references(List.of(key), List.of(crossed))).hasSize(1);
    assertThat(references(List.of(key, key), List.of(turned))).hasSize(1);
    assertThat(references(List.of(key, key), List.of(turned, key))).isEmpty();
  }

  private static ForeignKey tying(String name, List<String> columns, List<String> parentColumns) {
    return new ForeignKey(
        name,
        columns,
        "p",
        parentColumns,
        ReferentialAction.NO_ACTION,
        ReferentialAction.NO_ACTION,
        false);
  }

  private static List<String> references(List<ForeignKey> promised, List<ForeignKey> found) {
    return Verification.of(
            new Catalog(List.of(referring(promised))),
            new Catalog(List.of(referring(found))),
            Dialects.SQLITE,
            SqlExpression::equals)
        .differences();
  }

  private static CatalogTable referring(List<ForeignKey> keys) {
    return new CatalogTable(
        "t", List.of(), Optional.empty(), List.of(), keys, List.of(), List.of(), "");
  }

  @Test
  void aUniqueKeyThatSaysTheSameAsThePrimaryKeyIsKeptByIt() {
    var key = new Key("k", List.of("a"));
    var both =
        new CatalogTable(
            "t", List.of(), Optional.of(key), List.of(key), List.of(), List.of(), List.of(), "");
    var one =
        new CatalogTable(
            "t", List.of(), Optional.of(key), List.of(), List.of(), List.of(), List.of(), "");
    assertThat(
            Verification.of(
                    new Catalog(List.of(both)),
                    new Catalog(List.of(one)),
                    Dialects.SQLITE,
                    SqlExpression::equals)
                .holds())
        .isTrue();
  }

  @Test
  void rowsAreCountedToo() {
    Verification counted =
        verify(stored(), Dialects.H2).withRows(Map.of("kiln", 3), Map.of("kiln", 2));
    assertThat(counted.differences()).containsExactly("kiln should have 3 rows and has 2.");
    assertThat(counted.counts().get("tables with all their rows"))
        .isEqualTo(new Verification.Count(1, 0));
  }

  @Test
  void notesCountOnlyWhereTheEngineKeepsThem() {
    var noted =
        new CatalogTable(
            "t", List.of(), Optional.empty(), List.of(), List.of(), List.of(), List.of(), "Note");
    for (Dialect dialect : Dialects.ALL) {
      assertThat(
              Verification.of(
                      new Catalog(List.of(noted)),
                      new Catalog(
                          List.of(
                              new CatalogTable(
                                  dialect.identifiers().stored("t"),
                                  List.of(),
                                  Optional.empty(),
                                  List.of(),
                                  List.of(),
                                  List.of(),
                                  List.of(),
                                  ""))),
                      dialect,
                      SqlExpression::equals)
                  .holds())
          .as(dialect.engine())
          .isEqualTo(!dialect.showsComments());
    }
  }
}
