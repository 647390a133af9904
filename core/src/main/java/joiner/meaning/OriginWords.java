package joiner.meaning;

import joiner.expression.Formula;
import joiner.model.Design;
import joiner.model.Generator;
import joiner.model.Origin;
import joiner.model.Stamp;
import joiner.shape.CodedNumber;

/** Where values come from, in a few words. */
public final class OriginWords {
  private OriginWords() {}

  /** As in "number of its pieces" or "the moment of making"; empty where people enter them. */
  public static String of(Design design, Origin origin) {
    return switch (origin) {
      case Origin.Typed(boolean once) -> once ? ReadyOrigins.ENTERED_ONCE : "";
      case Origin.Generated(Generator by) -> of(by);
      case Origin.Stamped(Stamp stamp) -> of(stamp);
      case Origin.Copied(Formula formula) -> formula.text() + ", as it was";
      case Origin.Computed(Formula formula) -> "= " + formula.text();
      case Origin.SummedUp summed -> SummingWords.of(design, summed);
    };
  }

  /** What makes a value, in words; a coded number looks as it will, with letters for the day. */
  public static String of(Generator by) {
    return switch (by) {
      case Generator.Uuid(boolean timed) -> timed ? "a UUID, in order of time" : "a random UUID";
      case Generator.Coded(CodedNumber number) -> shown(number);
      case Generator.Drawn drawn -> "a random code of " + drawn.code().length();
    };
  }

  /** When or by whom, in words. */
  public static String of(Stamp stamp) {
    return switch (stamp) {
      case MADE_AT -> "when the row is made";
      case MADE_BY -> "who makes the row";
      case CHANGED_AT -> "when the row is changed";
      case CHANGED_BY -> "who changes the row";
    };
  }

  /** How a coded number looks, as in "F-YYYY-0001"; its check digit is an x. */
  public static String shown(CodedNumber number) {
    return number.form() + number.check().map(by -> "x".repeat(by.length())).orElse("");
  }
}
