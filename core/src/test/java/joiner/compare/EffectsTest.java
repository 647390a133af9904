package joiner.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.UnaryOperator;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.edit.ChangeTitle;
import joiner.edit.MoveToArea;
import joiner.edit.RemoveField;
import joiner.edit.RemoveTable;
import joiner.edit.SetUnique;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Limits;
import joiner.model.Noun;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.model.UniqueKey;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

class EffectsTest {
  private static final Draft DEMO = Pottery.demo();
  private static final TableId KILN = new TableId("kiln");
  private static final FieldId LITRES = new FieldId("litres");

  private static Table kiln() {
    return DEMO.design().table(KILN);
  }

  private static Field litres() {
    return kiln().field(LITRES);
  }

  private static List<String> after(Draft theirs) {
    return said(Effects.between(DEMO, theirs));
  }

  /** Risk and sentence of each. */
  private static List<String> said(List<Effect> effects) {
    return effects.stream().map(e -> e.risk().id() + " " + e.message()).toList();
  }

  private static Draft withKiln(UnaryOperator<Table> change) {
    return DEMO.withDesign(DEMO.design().withTable(KILN, change));
  }

  private static Draft withRows(UnaryOperator<Rows> change) {
    return DEMO.withRows(DEMO.rows().with(KILN, change));
  }

  @Test
  void equalDesignsHaveNoneAndOthersHaveSome() {
    Tries.of(150)
        .forEach(
            seed -> {
              Draft one = RandomDesigns.draft(seed);
              Draft other = RandomDesigns.draft(seed + 1);
              assertThat(Effects.between(one, RandomDesigns.draft(seed))).isEmpty();
              assertThat(Effects.between(one, other).isEmpty())
                  .as("seed " + seed)
                  .isEqualTo(one.equals(other));
            });
  }

  @Test
  void aDesignThatSaysSomethingElseOfItselfIsTold() {
    assertThat(after(new ChangeTitle("Rye").apply(DEMO)))
        .containsExactly(
            "none The design is called Rye, before Saltmarsh Pottery.",
            "none The design is named rye in files and databases, before saltmarsh-pottery.");
    assertThat(
            after(
                DEMO.withDesign(
                    DEMO.design().withAreas(List.copyOf(DEMO.design().areas()).reversed()))))
        .containsExactly("none The design has other areas.");
  }

  @Test
  void tablesThatComeAndGoAreToldWithWhatTheyHold() {
    Draft without = new RemoveTable(new TableId("locker"), "").apply(DEMO);
    assertThat(after(without))
        .anyMatch(
            s -> s.matches("loses The table Locker is removed, with \\d fields and \\d+ rows."))
        .anyMatch(
            s -> s.startsWith("none The relationship fk_locker_member_id is removed: locker"));
    assertThat(said(Effects.between(without, DEMO)))
        .anyMatch(s -> s.matches("adds The table Locker is added, with \\d fields and \\d+ rows."))
        .anyMatch(
            s -> s.startsWith("refuses The relationship fk_locker_member_id is added: locker"));
  }

  @Test
  void whatATableSaysOtherwiseIsTold() {
    assertThat(after(ChangeTable.rename(kiln(), "oven", "Oven", kiln().noun()).apply(DEMO)))
        .containsExactly(
            "rewrites Kiln is named oven in the database, before kiln.",
            "none The table Kiln is called Oven.");
    assertThat(
            after(
                ChangeTable.rename(kiln(), "kiln", "Kiln", new Noun("oven", "ovens")).apply(DEMO)))
        .containsExactly("none A row of Kiln is called oven.");
    assertThat(after(ChangeTable.primaryKey(kiln(), List.of()).apply(DEMO)))
        .containsExactly("none Kiln is identified by nothing, before by Kiln number.");
    assertThat(after(ChangeTable.primaryKey(kiln(), List.of(LITRES)).apply(DEMO)))
        .containsExactly("refuses Kiln is identified by Litres, before by Kiln number.");
    Draft unique = SetUnique.of(kiln(), List.of(LITRES), true).apply(DEMO);
    assertThat(after(unique)).containsExactly("refuses Kiln: Litres may occur once only.");
    assertThat(said(Effects.between(unique, DEMO)))
        .containsExactly("none Kiln: Litres may repeat.");
    Draft indexed = ChangeTable.addIndex(kiln(), new Index("ix_l", List.of(LITRES))).apply(DEMO);
    assertThat(after(indexed)).containsExactly("adds The index ix_l of Kiln is added.");
    assertThat(said(Effects.between(indexed, DEMO)))
        .containsExactly("none The index ix_l of Kiln is removed.");
    assertThat(after(ChangeTable.description(kiln(), "An oven.").apply(DEMO)))
        .containsExactly("none Kiln has another note.");
    assertThat(after(MoveToArea.of(kiln(), "").apply(DEMO)))
        .containsExactly("none Kiln stands in no area.");
    assertThat(after(ChangeTable.rowLabel(kiln(), Optional.empty()).apply(DEMO)))
        .containsExactly("none A row of Kiln is recognised by nothing.");
    assertThat(
            after(
                withKiln(
                    t -> t.withKind(new TableKind.Lookup(Optional.empty(), Optional.empty())))))
        .containsExactly("none Kiln is for another purpose.");
  }

  @Test
  void rulesAreToldByWhatTheyDemand() {
    var rule = new Rule("roomy", "Roomy", "litres > 50", "Too small.");
    Draft ruled = ChangeTable.addRule(kiln(), rule).apply(DEMO);
    assertThat(after(ruled))
        .containsExactly("refuses The rule Roomy of Kiln is added: litres > 50");
    Table with = ruled.design().table(KILN);
    assertThat(said(Effects.between(ruled, DEMO)))
        .containsExactly("none The rule Roomy of Kiln is removed.");
    Draft stricter =
        ChangeTable.changeRule(with, rule.withCondition(new Formula("litres > 60"))).apply(ruled);
    assertThat(said(Effects.between(ruled, stricter)))
        .containsExactly("refuses The rule Roomy of Kiln becomes: litres > 60");
    Draft turned =
        ChangeTable.changeRule(with, rule.withCondition(new Formula("NOT 50.0 >= litres")))
            .apply(ruled);
    assertThat(said(Effects.between(ruled, turned)))
        .containsExactly(
            "none The rule Roomy of Kiln is written anew and means the same: NOT 50.0 >= litres");
    Draft worded = ChangeTable.changeRule(with, rule.withMessage("Small!")).apply(ruled);
    assertThat(said(Effects.between(ruled, worded)))
        .containsExactly("none The rule Roomy of Kiln has other words.");
    Draft renamed = ChangeField.rename(with, with.field(LITRES), "Volume", "volume").apply(ruled);
    assertThat(said(Effects.between(ruled, renamed)))
        .contains("none The rule Roomy of Kiln is written anew and means the same: volume > 50");
  }

  @Test
  void whatIsOnlyNamedOtherwiseIsNotToldAsGone() {
    var rule = new Rule("roomy", "Roomy", "litres > 50", "Too small.");
    var key = new UniqueKey("uq_kiln_litres", List.of(LITRES));
    var index = new Index("ix_kiln_litres", List.of(LITRES));
    Draft one = withKiln(t -> t.withRuleAdded(rule).withUniqueKeyAdded(key).withIndexAdded(index));
    Table kiln = one.design().table(KILN);
    var otherKey = new UniqueKey(key.id(), "kiln_litres_once", key.fields());
    var otherIndex = new Index(index.id(), "kiln_by_litres", index.fields());
    Draft other =
        withKiln(
            t ->
                kiln.withRules(List.of(kiln.rules().getFirst(), rule.withName("large")))
                    .withUniqueKeys(replaced(kiln.uniqueKeys(), key, otherKey))
                    .withIndexes(replaced(kiln.indexes(), index, otherIndex)));
    assertThat(said(Effects.between(one, other)))
        .containsExactly(
            "none Kiln: Litres are kept unique by kiln_litres_once, before by uq_kiln_litres.",
            "none The index kiln_by_litres of Kiln was named ix_kiln_litres before.",
            "none The rule Roomy of Kiln is named large in the database, before roomy.");
  }

  private static <T> List<T> replaced(List<T> all, T one, T other) {
    return all.stream().map(thing -> thing.equals(one) ? other : thing).toList();
  }

  /** A rule that took a name another had when it was made is still another rule. */
  @Test
  void aNewRuleUnderAnOldNameIsAnotherRule() {
    var rule = new Rule("roomy", "Roomy", "litres > 50", "");
    Table renamed = kiln().withRuleAdded(rule).withRules(List.of(rule.withName("large")));
    Table both = renamed.withRuleAdded(new Rule("roomy", "New", "litres > 9", ""));
    assertThat(both.rules()).extracting(r -> r.id().value()).containsExactly("roomy", "roomy_2");
    assertThat(both.rules()).extracting(Rule::name).containsExactly("large", "roomy");
  }

  @Test
  void everyPropertyOfAFieldIsTold() {
    var limits =
        new Limits(
            Optional.of("5"),
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            OptionalInt.empty(),
            List.of());
    Map<String, UnaryOperator<Field>> changes =
        Map.of(
            "rewrites Kiln · Litres is named volume in the database, before litres.",
            f -> f.withName("volume"),
            "none Kiln · Litres is called Volume.",
            f -> f.withLabel("Volume"),
            (litres().required() ? "none" : "refuses")
                + " Kiln · Litres is "
                + (litres().required() ? "optional." : "required."),
            f -> f.withRequired(!f.required()),
            "none Kiln · Litres has the default 5.",
            f -> f.withDefault(Optional.of(new Formula("5"))),
            "refuses Kiln · Litres has other limits.",
            f -> f.withLimits(limits),
            "none Kiln · Litres has another note.",
            f -> f.withDescription("In litres."),
            "rewrites Kiln · Litres holds long text, before a whole number of 16 bits.",
            f -> f.withType(new FieldType.LongText()),
            "refuses Kiln · Litres holds a date, before a whole number of 16 bits.",
            f -> f.withType(new FieldType.Date()));
    changes.forEach(
        (says, change) ->
            assertThat(after(withKiln(t -> t.withField(LITRES, change)))).containsExactly(says));
  }

  @Test
  void fieldsThatComeAndGoAreToldWithTheirValues() {
    Draft less = new RemoveField(KILN, LITRES, "").apply(DEMO);
    assertThat(after(less)).contains("loses Kiln loses the field Litres with 4 values.");
    Field optional = litres().withRequired(false).withDefault(Optional.empty());
    Field required = optional.withRequired(true);
    Draft bare = withKiln(t -> t.withoutField(LITRES));
    assertThat(
            said(
                Effects.between(
                    bare,
                    bare.withDesign(
                        bare.design().withTable(KILN, t -> t.withFieldAdded(optional))))))
        .containsExactly("adds Kiln gets the field Litres.");
    assertThat(
            said(
                Effects.between(
                    bare,
                    bare.withDesign(
                        bare.design().withTable(KILN, t -> t.withFieldAdded(required))))))
        .containsExactly(
            "refuses Kiln gets the field Litres, which is required and has no default for rows that are there.");
    assertThat(after(ChangeTable.move(kiln(), litres(), 0).apply(DEMO)))
        .containsExactly("none The fields of Kiln stand in another order.");
  }

  @Test
  void rowsAreCounted() {
    assertThat(after(withRows(r -> r.withCell(0, LITRES, Optional.of("1")))))
        .containsExactly("rewrites Kiln: 1 cell holds another value.");
    assertThat(after(withRows(r -> r.withRow(Map.of())))).containsExactly("adds Kiln gets 1 row.");
    assertThat(after(withRows(r -> r.slice(0, 3)))).containsExactly("loses Kiln loses 1 row.");
    Draft all = DEMO;
    for (int row = 0; row < 4; row++) {
      int at = row;
      all = all.withRows(all.rows().with(KILN, r -> r.withCell(at, LITRES, Optional.of("7"))));
    }
    assertThat(after(all)).containsExactly("rewrites Kiln: 4 cells hold other values.");
  }

  @Test
  void everyPropertyOfARelationshipIsTold() {
    Relationship r = DEMO.design().relationships().iterator().next();
    String name = "The relationship " + r.name();
    Map<UnaryOperator<Relationship>, String> changes =
        Map.of(
            x -> x.withRoles("is of", "owns"), " reads: ",
            x -> x.withParentNeedsChild(!x.parentNeedsChild()), " row",
            x -> x.withActions(ReferentialAction.SET_DEFAULT, x.onUpdate()),
                " does SET DEFAULT on a delete.",
            x -> x.withActions(x.onDelete(), ReferentialAction.SET_DEFAULT),
                " does SET DEFAULT on a change of the key.");
    changes.forEach(
        (change, says) ->
            assertThat(after(DEMO.withDesign(DEMO.design().withRelationship(r.id(), change))))
                .singleElement()
                .asString()
                .startsWith("none " + name)
                .contains(says));
  }
}
