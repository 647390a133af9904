package joiner.desktop.connect;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import joiner.Pottery;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Selection;
import joiner.desktop.work.TestBench;
import joiner.edit.ProposedReference;
import joiner.edit.Reading;
import joiner.edit.Relate;
import joiner.edit.RemoveRelationship;
import joiner.edit.RemoveTable;
import joiner.map.MapLayout;
import joiner.map.Scope;
import joiner.model.FieldId;
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

  /** Where the way is taken that tells most, its picture shows that way too. */
  @Test
  void whatIsWrittenIsArrangedAsItIsSeen() {
    model.resize(1000, 600);
    model.layOut();
    test.window.until(() -> model.layoutProperty().get().current().isPresent());
    MapLayout seen = model.layoutProperty().get().current().orElseThrow();
    assertThat(seen.others()).as("tables of elsewhere stand in").isNotEmpty();
    assertThat(model.arranged().areas()).isEqualTo(Scope.Areas.STAND_INS);
    model.areasProperty().set(Optional.of(Scope.Areas.MIXED));
    assertThat(model.arranged().areas()).as("as it was picked").isEqualTo(Scope.Areas.MIXED);
  }

  @Test
  void aRelationshipThatIsMadeIsChosen() {
    Table kiln = test.choose("kiln");
    int before = test.design().relationships().size();
    var relating = new RelateModel(test.bench);
    relating.begin(new TableId("cone"), Optional.empty());
    relating.make();
    assertThat(test.design().relationships()).as("one table is missing").hasSize(before);
    relating.begin(new TableId("cone"), Optional.of(kiln.id()));
    relating.make();
    assertThat(relating.wishProperty().get()).isEmpty();
    assertThat(test.design().relationships()).hasSize(before + 1);
    Selection selection = test.bench.selectionProperty().get();
    Relationship made = test.design().relationship(selection.relationship().orElseThrow());
    assertThat(made.child()).isEqualTo(kiln.id());
    assertThat(made.parent()).isEqualTo(new TableId("cone"));
  }

  @Test
  void whatIsSaidWhileTablesAreTiedIsOfNow() {
    var relating = new RelateModel(test.bench);
    relating.begin(new TableId("kiln"), Optional.of(new TableId("incident")));
    RelateModel.Wish wish = relating.wishProperty().get().orElseThrow();
    Relate edit = relating.edit(wish).orElseThrow();
    assertThat(relating.keys(edit)).hasSize(2).first().isEqualTo(test.table("kiln").primaryKey());
    assertThat(relating.ends(edit))
        .as("what refers to nothing yet")
        .contains(List.of(), List.of(new FieldId("details")))
        .doesNotContain(List.of(new FieldId("firing_id")), List.of(new FieldId("incident_id")));
    relating.change(wish.withEnds(List.of(new FieldId("details")), List.of(new FieldId("name"))));
    Relate typed = relating.edit(relating.wishProperty().get().orElseThrow()).orElseThrow();
    assertThat(relating.differing(typed).orElseThrow())
        .containsExactly("Details", "text of 24", "Name", "long text");
    relating.change(
        wish.withOne(new RelateModel.Words("warms", Quantity.AT_MOST_ONE))
            .withOther(new RelateModel.Words("sits on", Quantity.ANY_NUMBER)));
    Relate turned = relating.edit(relating.wishProperty().get().orElseThrow()).orElseThrow();
    assertThat(turned.child().table()).isEqualTo(new TableId("kiln"));
    test.bench.apply(new RemoveTable(new TableId("incident"), "it"));
    assertThat(relating.wishProperty().get()).as("its table is gone").isEmpty();
  }

  @Test
  void aChangeThatReachesFarIsShownFirst() {
    sheet.choose(firingToKiln());
    var about = (RelationshipModel.About.OfRelationship) sheet.about();
    Reading.Option many =
        about.readings().get(1).options().stream()
            .filter(option -> option.quantity() == Quantity.ANY_NUMBER)
            .findFirst()
            .orElseThrow();
    int tables = test.design().tables().size();
    sheet.read(many);
    test.untilProposed();
    assertThat(test.design().tables()).as("nothing has changed").hasSize(tables);
    assertThat(test.bench.proposalProperty().get()).isPresent();
    test.bench.dismiss();
    test.bench.accept();
    assertThat(test.design().tables()).as("it was left").hasSize(tables);
    sheet.read(many);
    test.untilProposed();
    test.bench.accept();
    assertThat(test.design().tables()).hasSize(tables + 1);
    assertThat(test.bench.proposalProperty().get()).isEmpty();
    assertThat(sheet.about()).isInstanceOf(RelationshipModel.About.OfRelationship.class);
    test.bench.undo();
    sheet.choose(firingToKiln());
    sheet.read(many);
    test.bench.apply(new RemoveTable(new TableId("locker"), "it"));
    test.finish();
    assertThat(test.bench.proposalProperty().get()).as("it was tried on another design").isEmpty();
  }

  @Test
  void whatADeleteWouldDoTodayIsSaid() {
    Texts texts = Texts.beside(ConnectView.class);
    Relationship ofGlaze =
        test.design().parentsOf(new TableId("piece_glaze")).stream()
            .filter(r -> r.parent().equals(new TableId("piece")))
            .findFirst()
            .orElseThrow();
    sheet.lookAtDeletes(ofGlaze);
    test.window.until(() -> sheet.deletesProperty().get().current().isPresent());
    RelationshipModel.Deletes deletes = sheet.deletesProperty().get().current().orElseThrow();
    assertThat(sheet.says(deletes, ReferentialAction.CASCADE, texts))
        .anyMatch(line -> line.matches("Today a delete would take .* rows? along\\."));
    assertThat(sheet.says(deletes, ReferentialAction.NO_ACTION, texts))
        .anyMatch(
            line ->
                line.matches(
                    "Today \\d+ of 120 pieces cannot be deleted, because of piece glazes\\."));
    assertThat(sheet.says(deletes, ReferentialAction.SET_NULL, texts))
        .as("what identifies a pair may not be emptied")
        .isEqualTo(sheet.says(deletes, ReferentialAction.NO_ACTION, texts));
  }

  @Test
  void aVerbIsSaidOtherwise() {
    sheet.choose(firingToKiln());
    var about = (RelationshipModel.About.OfRelationship) sheet.about();
    sheet.reword(about.readings().get(0), "heats");
    sheet.reword(
        ((RelationshipModel.About.OfRelationship) sheet.about()).readings().get(1), "is heated in");
    assertThat(((RelationshipModel.About.OfRelationship) sheet.about()).readings())
        .extracting(Reading::sentence)
        .containsExactly(
            "Each kiln heats any number of firings.", "Each firing is heated in exactly one kiln.");
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
    test.untilProposed();
    test.bench.accept();
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
