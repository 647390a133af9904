package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.change.Change;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

class HistoryTest {
  /** Edits of every kind, one after the other, on designs of every kind. */
  @Test
  void everyStepIsTakenBackAndMadeAgainWhole() {
    Tries.of(150)
        .forEach(
            seed -> {
              var random = new Random(seed);
              History history = History.startingWith(RandomDesigns.draft(seed));
              var states = new ArrayList<>(List.of(history.present()));
              for (int i = 0; i < 12; i++) {
                History next = attempt(history, random);
                if (next != history) {
                  history = next;
                  states.add(history.present());
                }
              }
              for (Draft state : states.reversed()) {
                assertThat(history.present()).isEqualTo(state);
                history = history.undone();
              }
              assertThat(history.undoName()).isEmpty();
              for (Draft state : states.subList(1, states.size())) {
                history = history.redone();
                assertThat(history.present()).isEqualTo(state);
              }
              assertThat(history.redoName()).isEmpty();
            });
  }

  private static History attempt(History history, Random random) {
    Design design = history.present().design();
    List<Edit> possible = new ArrayList<>();
    possible.add(new ChangeTitle("Studio " + random.nextInt(5)));
    for (Table table : design.tables()) {
      possible.add(new RemoveTable(table.id(), table.label()));
      possible.add(MoveToArea.of(table, "Area " + random.nextInt(3)));
      possible.add(ChangeTable.relabel(design, table, "Bench " + random.nextInt(9)));
      possible.add(Counters.identify(table));
      for (Field field : table.fields()) {
        possible.add(new RemoveField(table.id(), field.id(), field.label()));
        possible.add(ChangeField.required(table, field, !field.required()));
        possible.add(SetUnique.of(table, List.of(field.id()), random.nextBoolean()));
        possible.add(ChangeTable.move(table, field, random.nextInt(table.fields().size())));
        Rows rows = history.present().rows().of(table.id());
        if (rows.count() > 3) {
          possible.add(ChangeRows.cell(table, rows, 0, field, Optional.of("clay")));
          possible.add(ChangeRows.removed(table, rows, Set.of(0, 2, 3)));
        }
      }
      if (!table.fields().isEmpty()) {
        possible.add(ChangeRows.added(table));
      }
    }
    for (Relationship r : design.relationships()) {
      possible.add(new RemoveRelationship(r.id(), r.name()));
      Reading.of(design, r)
          .forEach(reading -> reading.options().forEach(option -> possible.add(option.edit())));
    }
    try {
      return history.after(possible.get(random.nextInt(possible.size())));
    } catch (EditRefusedException refused) {
      return history;
    }
  }

  @Test
  void aStepKeepsTheCellThatChangedAndNotItsColumn() {
    Draft demo = Pottery.demo();
    Table kiln = demo.design().table(new TableId("kiln"));
    var name = new FieldId("name");
    History history =
        History.startingWith(demo)
            .after(
                ChangeRows.cell(
                    kiln, demo.rows().of(kiln.id()), 0, kiln.field(name), Optional.of("Ann")));
    assertThat(history.steps().getFirst().changes().list())
        .singleElement()
        .isInstanceOf(Change.CellChanged.class);
  }

  @Test
  void equalEditsAreEqual() {
    Draft demo = Pottery.demo();
    Table kiln = demo.design().table(new TableId("kiln"));
    Rows rows = demo.rows().of(kiln.id());
    Field name = kiln.field(new FieldId("name"));
    assertThat(MoveToArea.of(kiln, "Ovens")).isEqualTo(MoveToArea.of(kiln, "Ovens"));
    assertThat(ChangeField.required(kiln, name, true))
        .isEqualTo(ChangeField.required(kiln, name, true))
        .isNotEqualTo(ChangeField.required(kiln, name, false));
    assertThat(ChangeRows.cell(kiln, rows, 1, name, Optional.of("Ann")))
        .isEqualTo(ChangeRows.cell(kiln, rows, 1, name, Optional.of("Ann")));
  }
}
