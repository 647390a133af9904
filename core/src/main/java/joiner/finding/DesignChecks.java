package joiner.finding;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import joiner.meaning.Draft;
import joiner.meaning.TableMeaning;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.rows.Rows;

/** All design checks. A new check is a class of its own and a line in this list. */
public final class DesignChecks {
  private static final List<DesignCheck> ALL =
      List.of(
          new NoPrimaryKey(),
          new ForeignKeyTypeDiffers(),
          new ReferenceToNoKey(),
          new ForeignKeyWithoutIndex(),
          new JoinPairNotUnique(),
          new DefaultDoesNotFit(),
          new ComputedDoesNotFit(),
          new ComputedKey(),
          new ComputedReference(),
          new LimitDoesNotFit(),
          new LengthNotConsidered(),
          new OneMeaningTwoTypes(),
          new RepeatedNumberedFields(),
          new BelowBoyceCodd(),
          new NameCollides(),
          new NameNotKept(),
          new ReservedWord(),
          new TiedToNothing(),
          new LookupWithoutUniqueLabel(),
          new RequiredCycle(),
          new RedundantRelationship(),
          new NullableKeyReferred(),
          new ActionEmptiesRequired(),
          new LongChoiceList(),
          new NoChoices(),
          new SecretTooShort(),
          new GrowingChoices(),
          new RetiredDefault(),
          new ChoicesTwice(),
          new LookupCouldBeChoices(),
          new LookupCondition(),
          new LookupHidesRows(),
          new DuplicateIndex(),
          new CascadeReachesTwice(),
          new CascadeMeetsRefusal(),
          new CascadeCircle(),
          new OneOrMoreNotKept(),
          new TiedTwice(),
          new NoPath(),
          new Fan(),
          new Chasm(),
          new MissingRowLabel(),
          new PatternWithoutMatch(),
          new UnitMissing(),
          new KitFieldChanged(),
          new CodedNumberShort(),
          new RowLabelShared(),
          new OriginNotKept(),
          new OneMessageTwoRules(),
          new RuleMessages(),
          new OwnerByRule(),
          new QuestionFaulty(),
          new FaultyExpression());

  private DesignChecks() {}

  /** Ids of all checks, in the order they run. */
  public static List<String> ids() {
    return ALL.stream().map(DesignCheck::id).toList();
  }

  /** Everything the checks find, errors first, then in the order of the checks. */
  public static List<Finding> run(Draft draft) {
    return run(draft, new KnownFindings());
  }

  /**
   * The same, taking over what is known of tables and relationships that have not changed since; so
   * the time after a change of one table hardly depends on how many others there are.
   */
  public static List<Finding> run(Draft draft, KnownFindings known) {
    var design = new CheckedDesign(draft, known);
    List<List<Finding>> byCheck = new ArrayList<>();
    ALL.forEach(check -> byCheck.add(new ArrayList<>()));
    for (int i = 0; i < ALL.size(); i++) {
      if (ALL.get(i) instanceof WholeCheck check) {
        check.run(design, byCheck.get(i)::add);
      }
    }
    known.update(design, DesignChecks::runOnTable, DesignChecks::runOnRelationship, byCheck);
    return byCheck.stream()
        .flatMap(List::stream)
        .sorted(Comparator.comparing(Finding::severity))
        .toList();
  }

  private static List<KnownFindings.Numbered> runOnTable(TableMeaning meaning, Rows rows) {
    var found = new ArrayList<KnownFindings.Numbered>();
    for (int i = 0; i < ALL.size(); i++) {
      int number = i;
      if (ALL.get(i) instanceof TableCheck check) {
        check.run(meaning, rows, finding -> found.add(new KnownFindings.Numbered(number, finding)));
      }
    }
    return found;
  }

  private static List<KnownFindings.Numbered> runOnRelationship(
      Relationship r, Table child, Table parent) {
    var found = new ArrayList<KnownFindings.Numbered>();
    for (int i = 0; i < ALL.size(); i++) {
      int number = i;
      if (ALL.get(i) instanceof RelationshipCheck check) {
        check.run(
            r, child, parent, finding -> found.add(new KnownFindings.Numbered(number, finding)));
      }
    }
    return found;
  }
}
