package joiner.catalog;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Types as engines spell them, taken apart. */
class SpelledTypeTest {
  @ParameterizedTest
  @CsvSource({
    "VARCHAR(40),varchar,40",
    "varchar(4),varchar,4",
    "'numeric(9, 2)',numeric,9 2",
    "varchar2(40 CHAR),varchar2,40",
    "timestamp(6) with  time zone,timestamp with time zone,6",
    "interval day(0) to second(6),interval day to second,0",
    "nvarchar(MAX) COLLATE x,nvarchar max collate x,''",
    " double precision ,double precision,''"
  })
  void nameAndNumbers(String spelled, String name, String numbers) {
    List<Integer> expected =
        Arrays.stream(numbers.split(" ")).filter(n -> !n.isEmpty()).map(Integer::valueOf).toList();
    assertThat(SpelledType.of(spelled)).contains(new SpelledType(name, expected));
  }

  @Test
  void whatHasAnotherFormIsNone() {
    assertThat(SpelledType.of("enum('raw', 'fired')")).isEmpty();
    assertThat(SpelledType.of("number(12345678901)")).isEmpty();
  }
}
