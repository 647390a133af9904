package joiner.edit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.expression.Formula;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Generator;
import joiner.model.Kit;
import joiner.model.KitId;
import joiner.model.Limits;
import joiner.model.Origin;
import joiner.model.Stamp;
import joiner.naming.NamingPolicy;

/** Kits that every design begins with (common practice, no source). */
public final class StandardKits {
  private StandardKits() {}

  /** Those of a design first, then the standard ones it has not. */
  public static List<Kit> of(Design design) {
    return Stream.concat(
            design.kits().stream(), all().stream().filter(kit -> design.find(kit.id()).isEmpty()))
        .toList();
  }

  /** The standard ones. */
  static List<Kit> all() {
    var kits = new ArrayList<Kit>();
    kits.add(stamps());
    kits.add(
        kit(
            "Retired",
            field("Retired", new FieldType.TrueFalse())
                .withRequired(true)
                .withDefault(Optional.of(new Formula("FALSE")))
                .withDescription("kept for what refers to it, and offered no more"),
            field("Retired on", new FieldType.Date())));
    kits.add(
        kit(
            "Public number",
            field("Public id", new FieldType.Uuid())
                .withOrigin(new Origin.Generated(new Generator.Uuid(true)))
                .withDescription("what others may know; the key stays inside")));
    CompoundFields.all().stream()
        .filter(compound -> compound.rules().isEmpty())
        .map(StandardKits::kit)
        .forEach(kits::add);
    return kits;
  }

  private static Kit stamps() {
    Map<Stamp, String> labels =
        Map.of(
            Stamp.MADE_AT, "Made at",
            Stamp.MADE_BY, "Made by",
            Stamp.CHANGED_AT, "Changed at",
            Stamp.CHANGED_BY, "Changed by");
    return kit(
        "Stamps",
        Arrays.stream(Stamp.values())
            .map(
                stamp ->
                    SetOrigin.stamped(field(labels.get(stamp), new FieldType.TrueFalse()), stamp)
                        .withOrigin(new Origin.Stamped(stamp)))
            .toArray(Field[]::new));
  }

  private static Kit kit(CompoundFields compound) {
    Map<String, String> names = new HashMap<>();
    var fields = new ArrayList<Field>();
    for (CompoundFields.Part part : compound.parts()) {
      Field field =
          field(part.label(), part.type())
              .withUnit(part.unit())
              .withRequired(part.required())
              .withDescription(part.note())
              .withLimits(Limits.NONE.withPattern(part.pattern()));
      names.put(part.label(), field.name());
      fields.add(field);
    }
    for (CompoundFields.Worked by : compound.worked()) {
      String formula = by.formula();
      for (var name : names.entrySet()) {
        formula = formula.replace("{" + name.getKey() + "}", name.getValue());
      }
      fields.add(
          field(by.label(), new FieldType.LongText())
              .withDescription(by.note())
              .withOrigin(new Origin.Computed(new Formula(formula))));
    }
    return kit(compound.label(), fields.toArray(Field[]::new));
  }

  private static Kit kit(String label, Field... fields) {
    return new Kit(new KitId(NamingPolicy.nameFor(label)), label, List.of(fields));
  }

  private static Field field(String label, FieldType type) {
    return Field.of(NamingPolicy.nameFor(label), label, type);
  }
}
