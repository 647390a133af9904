package joiner.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import joiner.catalog.SqlType;
import joiner.expression.Width;
import joiner.model.ReferentialAction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** What holds of every description of an engine. */
class DialectTest {
  private static final Pattern SPELLED = Pattern.compile("([^(]+?)(?:\\(([0-9, ]+)\\))?");

  private static List<Dialect> all() {
    return Dialects.ALL;
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
              Matcher parts = SPELLED.matcher(dialect.spell(type));
              assertThat(parts.matches()).isTrue();
              List<Integer> numbers =
                  parts.group(2) == null
                      ? List.of()
                      : Arrays.stream(parts.group(2).split(", ")).map(Integer::valueOf).toList();
              assertThat(dialect.understand(parts.group(1), numbers))
                  .as("%s as %s", dialect.spell(type), dialect.engine())
                  .isEqualTo(dialect.keptAs(type));
            });
  }

  @ParameterizedTest
  @MethodSource("all")
  void whatIsKeptAsSomethingElseIsTold(Dialect dialect) {
    types()
        .filter(type -> !dialect.keptAs(type).equals(type))
        .forEach(type -> assertThat(dialect.typeLoss(type)).as("%s", type).isPresent());
    assertThat(dialect.understand("geometry", List.of())).isEqualTo(new SqlType.Other("geometry"));
    assertThat(dialect.spell(new SqlType.Other("geometry"))).isEqualTo("geometry");
  }

  @ParameterizedTest
  @MethodSource("all")
  void anEngineIsFoundByItsWordAndByItsUrl(Dialect dialect) {
    assertThat(Dialects.named(dialect.id())).contains(dialect);
    assertThat(Dialects.ofUrl(dialect.jdbcPrefix() + "//localhost/studio")).contains(dialect);
    assertThat(dialect.identifiers().isReserved("SELECT")).isTrue();
    assertThat(dialect.identifiers().isReserved("kiln")).isFalse();
    assertThat(Dialects.ofUrl("jdbc:nothing:x")).isEmpty();
    assertThat(Dialects.named("nothing")).isEmpty();
  }

  @ParameterizedTest
  @MethodSource("all")
  void anActionIsSaidOrItsLossIsTold(Dialect dialect) {
    for (ReferentialAction action : ReferentialAction.values()) {
      boolean said = !dialect.action(action).isEmpty();
      assertThat(said || action == ReferentialAction.NO_ACTION).as("%s", action).isTrue();
    }
    assertThat(dialect.actionLoss(ReferentialAction.CASCADE)).isEmpty();
  }

  @Test
  void mariaDbTellsWhatItDoesNotKeep() {
    Dialect maria = Dialects.MARIADB;
    assertThat(maria.actionLoss(ReferentialAction.SET_DEFAULT)).isPresent();
    assertThat(maria.indexLoss(List.of(new SqlType.Varchar(768)))).isEmpty();
    assertThat(maria.indexLoss(List.of(new SqlType.Varchar(769)))).isPresent();
    assertThat(maria.indexLoss(List.of(new SqlType.Varchar(761), new SqlType.Date()))).isPresent();
    assertThat(maria.indexLoss(List.of(new SqlType.LongText()))).isPresent();
    assertThat(maria.refusedInChecks()).containsExactlyInAnyOrder(InCheck.values());
    assertThat(maria.foundDefault("NULL")).isEmpty();
    assertThat(maria.foundDefault("'it''s \\\\é\\nx\\'y'").orElseThrow().sql())
        .isEqualTo("'it''s \\é\nx''y'");
    assertThat(maria.foundDefault("a \\ b").orElseThrow().sql()).isEqualTo("a \\ b");
  }
}
