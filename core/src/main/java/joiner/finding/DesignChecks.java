package joiner.finding;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import joiner.rows.Draft;

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
          new LengthNotConsidered(),
          new OneMeaningTwoTypes(),
          new RepeatedNumberedFields(),
          new NameCollides(),
          new ReservedWord(),
          new TiedToNothing(),
          new LookupWithoutUniqueLabel(),
          new RequiredCycle(),
          new RedundantRelationship(),
          new NullableKeyReferred(),
          new LongChoiceList(),
          new DuplicateIndex(),
          new CascadeReachesTwice(),
          new MissingRowLabel(),
          new FaultyExpression());

  private DesignChecks() {}

  /** Ids of all checks, in the order they run. */
  public static List<String> ids() {
    return ALL.stream().map(DesignCheck::id).toList();
  }

  /** Everything the checks find, errors first, then in the order of the checks. */
  public static List<Finding> run(Draft draft) {
    var design = new CheckedDesign(draft);
    var found = new ArrayList<Finding>();
    ALL.forEach(check -> check.run(design, found::add));
    found.sort(Comparator.comparing(Finding::severity));
    return found;
  }
}
