package joiner.desktop.connect;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import joiner.Pottery;
import joiner.desktop.map.MapLayout;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Selection;
import joiner.desktop.work.TestBench;
import joiner.edit.ProposedReference;
import joiner.edit.Reading;
import joiner.edit.RemoveRelationship;
import joiner.edit.RemoveTable;
import joiner.model.Quantity;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Connect without a window: what the map shows, relating, readings, what rows suggest. */
class ConnectModelTest {
  @TempDir private Path folder;
  private TestBench test;
  private ConnectModel model;
  private RelationshipModel sheet;

  @BeforeEach
  void open() {
    test = new TestBench(Pottery.demo(), folder);
    model = new ConnectModel(test.bench, Texts.beside(ConnectView.class));
    sheet = new RelationshipModel(test.bench, Texts.beside(ConnectView.class));
    model.look(true);
    sheet.look(true);
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private Relationship firingToKiln() {
    return test.design().parentsOf(new TableId("firing")).stream()
        .filter(r -> r.parent().equals(new TableId("kiln")))
        .findFirst()
        .orElseThrow();
  }

  @Test
  void theFocusReachesAsFarAsSoManySteps() {
    assertThat(model.drawn()).hasSize(test.design().tables().size());
    test.choose("kiln");
    model.stepsProperty().set(1);
    Set<TableId> near = model.drawn();
    Set<TableId> expected = new java.util.HashSet<>(Set.of(new TableId("kiln")));
    for (Relationship r : test.design().relationships()) {
      if (r.child().value().equals("kiln") || r.parent().value().equals("kiln")) {
        expected.addAll(List.of(r.child(), r.parent()));
      }
    }
    assertThat(near).isEqualTo(expected);
    model.stepsProperty().set(ConnectModel.FARTHEST);
    assertThat(model.drawn()).containsAll(near).hasSizeGreaterThan(near.size());
    test.bench.selectionProperty().set(Selection.NONE);
    assertThat(model.drawn()).hasSize(test.design().tables().size());
  }

  @Test
  void everyTableThatIsDrawnHasItsPlace() {
    model.layOut();
    test.window.until(() -> model.layoutProperty().get().current().isPresent());
    Answer<MapLayout> before = model.layoutProperty().get();
    model.layOut();
    assertThat(model.layoutProperty().get() == before).as("nothing is laid out twice").isTrue();
  }

  @Test
  void aRelationshipThatIsMadeIsChosen() {
    Table kiln = test.choose("kiln");
    int before = test.design().relationships().size();
    model.relate(test.table("cone"));
    assertThat(test.design().relationships()).hasSize(before + 1);
    Selection selection = test.bench.selectionProperty().get();
    Relationship made = test.design().relationship(selection.relationship().orElseThrow());
    assertThat(made.child()).isEqualTo(kiln.id());
    assertThat(made.parent()).isEqualTo(new TableId("cone"));
  }

  @Test
  void theSheetFollowsWhatIsChosen() {
    assertThat(sheet.about()).isInstanceOf(RelationshipModel.About.Nothing.class);
    test.choose("firing");
    var table = (RelationshipModel.About.OfTable) sheet.about();
    assertThat(table.sentences())
        .extracting(sentence -> sentence.reading().sentence())
        .anyMatch(s -> s.startsWith("Each firing ") && s.contains("kiln"));
    sheet.choose(firingToKiln());
    var about = (RelationshipModel.About.OfRelationship) sheet.about();
    assertThat(about.parent().id()).isEqualTo(new TableId("kiln"));
    assertThat(about.readings()).hasSize(2);
    assertThat(about.pair()).isEmpty();
    test.bench.apply(new RemoveRelationship(firingToKiln().id(), "it"));
    assertThat(sheet.about())
        .as("what is gone is not spoken of")
        .isInstanceOf(RelationshipModel.About.OfTable.class);
  }

  @Test
  void aJoinTableTellsOfItsPairs() {
    Relationship side =
        test.design().parentsOf(new TableId("piece_glaze")).stream().findFirst().orElseThrow();
    sheet.choose(side);
    var about = (RelationshipModel.About.OfRelationship) sheet.about();
    RelationshipModel.Pair pair = about.pair().orElseThrow();
    assertThat(pair.key()).hasSizeGreaterThanOrEqualTo(2);
    assertThat(pair.onceOnly()).isTrue();
  }

  private Reading.Option option(Quantity quantity) {
    var about = (RelationshipModel.About.OfRelationship) sheet.about();
    return about.readings().stream()
        .flatMap(reading -> reading.options().stream())
        .filter(option -> option.quantity() == quantity)
        .findFirst()
        .orElseThrow();
  }

  @Test
  void whatTakesThePlaceOfARelationshipIsChosenThen() {
    Relationship toKiln = firingToKiln();
    sheet.choose(toKiln);
    var about = (RelationshipModel.About.OfRelationship) sheet.about();
    Reading fromChild = about.readings().get(1);
    Reading.Option many =
        fromChild.options().stream()
            .filter(option -> option.quantity() == Quantity.ANY_NUMBER)
            .findFirst()
            .orElseThrow();
    sheet.read(many);
    assertThat(test.design().find(toKiln.id())).isEmpty();
    Selection now = test.bench.selectionProperty().get();
    Relationship chosen = test.design().relationship(now.relationship().orElseThrow());
    assertThat(chosen).isNotEqualTo(toKiln);
  }

  @Test
  void anotherNumberWordKeepsTheRelationshipChosen() {
    sheet.choose(firingToKiln());
    sheet.read(option(Quantity.ONE_OR_MANY));
    assertThat(test.bench.selectionProperty().get().relationship()).contains(firingToKiln().id());
    sheet.onDelete(firingToKiln(), ReferentialAction.CASCADE);
    assertThat(firingToKiln().onDelete()).isEqualTo(ReferentialAction.CASCADE);
    Relationship gone = firingToKiln();
    sheet.remove(gone);
    assertThat(test.design().find(gone.id())).isEmpty();
    assertThat(test.bench.selectionProperty().get()).isEqualTo(Selection.of(gone.child()));
  }

  @Test
  void rowsSuggestARelationshipThatWasRemovedAndItIsTaken() {
    Relationship toCone =
        test.design().parentsOf(new TableId("firing")).stream()
            .filter(r -> r.parent().equals(new TableId("cone")))
            .findFirst()
            .orElseThrow();
    sheet.remove(toCone);
    sheet.propose(test.table("firing"));
    assertThat(sheet.proposalsProperty().get()).isInstanceOf(Answer.Underway.class);
    test.window.until(() -> sheet.proposalsProperty().get().current().isPresent());
    List<ProposedReference> found = sheet.proposalsProperty().get().current().orElseThrow();
    assertThat(sheet.areOfNow(found)).isTrue();
    ProposedReference proposal =
        found.stream()
            .filter(p -> p.child().equals(toCone.child()) && p.parent().equals(toCone.parent()))
            .findFirst()
            .orElseThrow();
    assertThat(sheet.table(proposal.parent()).label()).isEqualTo("Cone");
    sheet.take(proposal);
    assertThat(test.design().parentsOf(toCone.child()))
        .anyMatch(r -> r.parent().equals(toCone.parent()));
    test.bench.apply(new RemoveTable(toCone.parent(), "Cone"));
    assertThat(sheet.areOfNow(found)).as("they speak of what is gone").isFalse();
  }

  @Test
  void lookingForSuggestionsCanBeStopped() {
    sheet.propose(test.table("firing"));
    sheet.stopProposing();
    assertThat(sheet.proposalsProperty().get()).isInstanceOf(Answer.Stopped.class);
  }
}
