package joiner.split;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import joiner.Tries;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import joiner.split.SplitChoices.Decision;
import org.junit.jupiter.api.Test;

/**
 * Splits joined back by plain nested loops over the tables they wrote, which know nothing of how
 * they were made: every row has to give the values it had, and the proof has to agree.
 */
class SplitJoinsBackTest {
  private static final TableId LOG = new TableId("log");
  private static final List<String> FIELDS = List.of("no", "kiln", "room", "member", "mail", "day");

  /** A firing log in which a kiln decides its room, a room its day, and a member the mail. */
  private static Draft log(Random random) {
    Table table =
        Table.of("log", "Log", new Noun("log", "logs"))
            .withFields(FIELDS.stream().map(f -> Field.of(f, f, new FieldType.Text(40))).toList());
    var builder = new Rows.Builder(table.fieldIds());
    int rows = 1 + random.nextInt(25);
    for (int row = 0; row < rows; row++) {
      int kiln = random.nextInt(5);
      int room = kiln % 3;
      int member = random.nextInt(6);
      List<String> cells =
          List.of("n" + row, "k" + kiln, "r" + room, "m" + member, "e" + member, "d" + room % 2);
      for (int i = 0; i < cells.size(); i++) {
        boolean blank = i == 5 && random.nextInt(4) == 0 && room == 2;
        builder.cell(i, blank ? "" : cells.get(i));
      }
      builder.endRow();
    }
    return new Draft(
        Design.empty("studio", "Studio").withTableAdded(table),
        new SampleRows(Map.of(LOG, builder.build())));
  }

  private static Decision decision(String determinant, String decided) {
    return new Decision(List.of(new FieldId(determinant)), new FieldId(decided));
  }

  private static SplitChoices choices(Random random) {
    var decisions = new ArrayList<Decision>();
    var natural = new HashSet<List<FieldId>>();
    for (Decision one :
        List.of(decision("kiln", "room"), decision("member", "mail"), decision("mail", "member"))) {
      if (random.nextInt(3) > 0) {
        decisions.add(one);
      }
      if (random.nextBoolean()) {
        natural.add(one.determinant());
      }
    }
    return new SplitChoices(
            decisions, List.of(), List.of(), List.of(), List.of(), List.of(), Set.of())
        .withNaturalKeys(natural);
  }

  /** All values a row stands for, without the keys that only tie tables together. */
  private static List<String> values(Draft draft, TableId table, int row) {
    var values = new ArrayList<String>();
    collect(draft, table, row, values);
    values.sort(null);
    return values;
  }

  private static void collect(Draft draft, TableId id, int row, List<String> values) {
    Table table = draft.design().table(id);
    Rows rows = draft.rows().of(id);
    var links = new HashSet<FieldId>();
    for (Relationship link : draft.design().parentsOf(id)) {
      links.addAll(link.childFields());
      follow(draft, link, rows.row(row, link.childFields()), values);
    }
    for (Field field : table.fields()) {
      if (!links.contains(field.id()) && !(field.type() instanceof FieldType.Counter)) {
        rows.cell(row, field.id()).ifPresent(values::add);
      }
    }
  }

  private static void follow(
      Draft draft, Relationship link, List<Optional<String>> key, List<String> values) {
    Rows parents = draft.rows().of(link.parent());
    int met = 0;
    for (int row = 0; row < parents.count(); row++) {
      if (parents.row(row, link.parentFields()).equals(key)) {
        collect(draft, link.parent(), row, values);
        met++;
      }
    }
    boolean empty = key.stream().allMatch(Optional::isEmpty);
    assertThat(met).as("parents of " + key).isEqualTo(empty ? 0 : 1);
  }

  @Test
  void everyRowGivesTheValuesItHad() {
    Tries.of(400)
        .forEach(
            seed -> {
              var random = new Random(seed);
              Draft before = log(random);
              Split split = Split.of(before, LOG, choices(random));
              assertThat(split.open()).as("seed " + seed).isEmpty();
              Draft after = split.after().orElseThrow();
              Rows rows = before.rows().of(LOG);
              assertThat(after.rows().of(LOG).count()).isEqualTo(rows.count());
              for (int row = 0; row < rows.count(); row++) {
                assertThat(values(after, LOG, row))
                    .as("seed " + seed + " row " + (row + 1))
                    .isEqualTo(values(before, LOG, row));
              }
              assertThat(split.proof().orElseThrow().holds()).isTrue();
            });
  }

  /** What the proof says of tables that were tampered with: it has to see every changed cell. */
  @Test
  void theProofSeesACellThatIsNotWhatItWas() {
    Tries.of(100)
        .forEach(
            seed -> {
              var random = new Random(seed);
              Draft before = log(random);
              SplitChoices choices = choices(random);
              Table log = before.design().table(LOG);
              Rows rows = before.rows().of(LOG);
              var writer = new SplitWriter(before, log, rows, new SplitPlan(log, choices), choices);
              Draft after = writer.write();
              assertThat(new Rejoin(after, LOG, writer.origins()).differing(rows)).isZero();
              var tables = List.copyOf(after.design().tables());
              Table table = tables.get(random.nextInt(tables.size()));
              List<Field> own =
                  table.fields().stream().filter(f -> f.type() instanceof FieldType.Text).toList();
              int row = random.nextInt(after.rows().of(table.id()).count());
              FieldId field = own.get(random.nextInt(own.size())).id();
              Draft wrong =
                  after.withRows(
                      after
                          .rows()
                          .with(table.id(), r -> r.withCell(row, field, Optional.of("wrong"))));
              assertThat(new Rejoin(wrong, LOG, writer.origins()).differing(rows))
                  .as("seed " + seed + ": " + table.name() + "." + field + " row " + (row + 1))
                  .isPositive();
            });
  }
}
