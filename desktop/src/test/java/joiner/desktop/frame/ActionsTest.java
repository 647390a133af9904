package joiner.desktop.frame;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import joiner.desktop.widget.Command;
import org.junit.jupiter.api.Test;

/** What the finder offers first for what is typed. */
class ActionsTest {
  private static Actions.Found command(String name, Command.Sort sort) {
    return Actions.Found.of(new Command(name, "", sort, () -> {}));
  }

  private static final List<Actions.Found> ALL =
      List.of(
          command("Go to Shape", Command.Sort.DEED),
          command("Add a table", Command.Sort.DEED),
          command("Remove the table Customer", Command.Sort.REMOVAL),
          command("Table Customer", Command.Sort.TABLE),
          command("Field Customer of Piece", Command.Sort.FIELD),
          command("Field Kiln of Firing", Command.Sort.FIELD),
          command("Table Firing", Command.Sort.TABLE),
          command("Table Kiln firing plan", Command.Sort.TABLE));

  private static List<String> typed(String text) {
    return Actions.matching(ALL, text, 60).stream().map(Command::name).toList();
  }

  @Test
  void aTableComesFirstAndWhatRemovesItLast() {
    assertThat(typed("table cust")).containsExactly("Table Customer", "Remove the table Customer");
    assertThat(typed("cust"))
        .containsExactly("Table Customer", "Field Customer of Piece", "Remove the table Customer");
  }

  @Test
  void evenTheWordsOfARemovalDoNotBringItBeforeAnythingElse() {
    assertThat(typed("remove")).containsExactly("Remove the table Customer");
    assertThat(typed("table")).endsWith("Remove the table Customer");
  }

  @Test
  void wordsThatBeginSoComeBeforeThoseThatHoldItSomewhere() {
    assertThat(typed("firing")).startsWith("Table Firing", "Table Kiln firing plan");
    assertThat(typed("ape")).containsExactly("Go to Shape");
  }

  @Test
  void everyWordTypedHasToBeThereAndNothingTypedOffersDeeds() {
    assertThat(typed("table xyz")).isEmpty();
    assertThat(typed("")).startsWith("Go to Shape", "Add a table").hasSameSizeAs(ALL);
    assertThat(Actions.matching(ALL, "", 3)).hasSize(3);
  }
}
