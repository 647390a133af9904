package joiner.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import joiner.catalog.SqlType;
import joiner.expression.Width;
import joiner.model.ReferentialAction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** What holds of every description of an engine. */
class DialectTest {
  /** Actions that change or remove rows of the child. */
  private static final Set<ReferentialAction> OF_CHILDREN =
      Set.of(ReferentialAction.CASCADE, ReferentialAction.SET_NULL, ReferentialAction.SET_DEFAULT);

  private static List<Dialect> all() {
    return Dialects.reached().toList();
  }

  private static Stream<SqlType> types() {
    return Stream.of(
        new SqlType.Varchar(40),
        new SqlType.LongText(),
        new SqlType.Whole(Width.BITS_16),
        new SqlType.Whole(Width.BITS_32),
        new SqlType.Whole(Width.BITS_64),
        new SqlType.Decimal(9, 2),
        new SqlType.Decimal(5, 0),
        new SqlType.AnyNumber(),
        new SqlType.TrueFalse(),
        new SqlType.Date(),
        new SqlType.Time(),
        new SqlType.Timestamp(false),
        new SqlType.Timestamp(true),
        new SqlType.Uuid());
  }

  /** A law: what an engine spells, it understands as what it keeps. */
  @ParameterizedTest
  @MethodSource("all")
  void whatIsSpelledIsUnderstood(Dialect dialect) {
    types()
        .forEach(
            type -> {
              assertThat(dialect.understand(dialect.spell(type)))
                  .as("%s as %s", dialect.spell(type), dialect.engine())
                  .isEqualTo(dialect.keptAs(type));
            });
  }

  @ParameterizedTest
  @MethodSource("all")
  void whatIsKeptAsSomethingElseIsTold(Dialect dialect) {
    types()
        .filter(type -> !dialect.keptAs(type).equals(type))
        .forEach(
            type ->
                assertThat(dialect.typeLoss(type).or(() -> dialect.typeCheck("x", type)))
                    .as("%s", type)
                    .isPresent());
    assertThat(dialect.understand("geometry", List.of())).isEqualTo(new SqlType.Other("geometry"));
    assertThat(dialect.spell(new SqlType.Other("geometry"))).isEqualTo("geometry");
  }

  @ParameterizedTest
  @MethodSource("all")
  void anEngineIsFoundByItsWordAndByItsUrl(Dialect dialect) {
    assertThat(Dialects.named(dialect.id()))
        .isEqualTo(Optional.of(dialect).filter(Dialects.ALL::contains));
    assertThat(Dialects.ofUrl(dialect.jdbcPrefix() + "//localhost/studio")).contains(dialect);
    assertThat(dialect.identifiers().isReserved("SELECT")).isTrue();
    assertThat(dialect.identifiers().isReserved("kiln")).isFalse();
    assertThat(Dialects.ofUrl("jdbc:nothing:x")).isEmpty();
    assertThat(Dialects.named("nothing")).isEmpty();
  }

  @ParameterizedTest
  @MethodSource("all")
  void anActionIsSaidOrItsLossIsTold(Dialect dialect) {
    for (Dialect.Event event : Dialect.Event.values()) {
      for (ReferentialAction action : ReferentialAction.values()) {
        ReferentialAction kept = dialect.keptAs(event, action);
        boolean said = !dialect.action(event, kept).isEmpty();
        boolean refuses = kept == ReferentialAction.NO_ACTION || kept == ReferentialAction.RESTRICT;
        assertThat(said || refuses).as("%s %s", event, action).isTrue();
        boolean same = kept == action || refuses && !OF_CHILDREN.contains(action);
        assertThat(same || dialect.actionLoss(event, action).isPresent())
            .as("%s %s", event, action)
            .isTrue();
      }
    }
  }

  @Test
  void mariaDbTellsWhatItDoesNotKeep() {
    Dialect maria = Dialects.MARIADB;
    assertThat(maria.actionLoss(Dialect.Event.DELETE, ReferentialAction.SET_DEFAULT)).isPresent();
    assertThat(maria.indexLoss(List.of(new SqlType.Varchar(768)))).isEmpty();
    assertThat(maria.indexLoss(List.of(new SqlType.Varchar(769)))).isPresent();
    assertThat(maria.indexLoss(List.of(new SqlType.Varchar(761), new SqlType.Date()))).isPresent();
    assertThat(maria.indexLoss(List.of(new SqlType.LongText()))).isPresent();
    assertThat(maria.refusedInChecks())
        .containsExactlyInAnyOrder(InCheck.CLOCK, InCheck.COUNTER, InCheck.MOVED_BY_REFERENCE);
    assertThat(maria.foundDefault("NULL")).isEmpty();
    assertThat(maria.foundDefault("'it''s \\\\é\\nx\\'y'").orElseThrow().sql())
        .isEqualTo("'it''s \\é\nx''y'");
    assertThat(maria.foundDefault("a \\ b").orElseThrow().sql()).isEqualTo("a \\ b");
  }
}
