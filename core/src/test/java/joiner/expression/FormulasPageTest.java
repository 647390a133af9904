package joiner.expression;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import joiner.Pottery;
import org.junit.jupiter.api.Test;

/** What the page about formulas shows is so. */
class FormulasPageTest {
  private static final Pattern EXAMPLE = Pattern.compile("\\| `(.+)` \\| (.+) \\|");

  @Test
  void everyExampleGivesWhatItSays() throws IOException {
    String page = Files.readString(Path.of("../docs/formulas.md"));
    int examples = 0;
    for (String line : page.substring(page.indexOf("## Functions")).lines().toList()) {
      Matcher example = EXAMPLE.matcher(line);
      if (example.matches()) {
        String formula = example.group(1).replace("\\|", "|");
        Checked checked = new Formula(formula).constant();
        assertThat(checked).as(formula).isInstanceOf(Checked.Sound.class);
        Value value =
            new Evaluator(Pottery.CLOCK)
                .evaluate(((Checked.Sound) checked).tree(), reference -> Value.NULL);
        assertThat(Evaluator.show(value)).as(formula).isEqualTo(example.group(2));
        examples++;
      }
    }
    for (Expression.Function function : Expression.Function.values()) {
      assertThat(page).contains(function + "(");
    }
    assertThat(examples).isGreaterThan(25);
  }
}
