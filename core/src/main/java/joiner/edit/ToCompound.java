package joiner.edit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.meaning.Renaming;
import joiner.meaning.ResultType;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.GroupId;
import joiner.model.Limits;
import joiner.model.Origin;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;
import joiner.naming.WordList;

/**
 * Lets several fields stand for one thing that a field was meant for: the field becomes the first
 * of them and keeps its values, the others come behind it, and all are a group under its label.
 * Refused for fields that refer to other tables or are referred to.
 */
public record ToCompound(TableId table, FieldId field, CompoundFields compound) implements Edit {
  @Override
  public String name() {
    return "enter it as "
        + WordList.and(compound.parts().stream().map(CompoundFields.Part::label).toList());
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    Table before = design.table(table);
    Field whole = before.field(field);
    requireFree(design, before, whole);
    boolean held = draft.rows().link(table).isPresent() || draft.rows().of(table).has(field);
    Map<String, Field> parts = parts(before, whole, held);
    Table parted = instead(before, List.copyOf(parts.values()));
    List<Field> own = new ArrayList<>(parts.values());
    compound
        .worked()
        .forEach(by -> own.add(worked(parted.unused(named(parted, whole, by)), by, parts)));
    List<Field> fields = instead(before, typed(before, own)).fields();
    List<FieldId> ids = own.stream().map(Field::id).toList();
    Table grouped =
        before
            .withFields(fields)
            .withGroupAdded(
                new FieldGroup(new GroupId(whole.label()), whole.label(), compound.kind(), ids));
    Design renamed = Renaming.carry(design, design.withTable(table, t -> grouped));
    Table ruled = renamed.table(table);
    for (CompoundFields.Together rule : compound.rules()) {
      ruled = ruled.withRuleAdded(rule(ruled, rule, parts));
    }
    Table now = ruled;
    return draft.withDesign(renamed.withTable(table, t -> now));
  }

  /** A table with other fields instead of the one. */
  private Table instead(Table table, List<Field> others) {
    return table.withFields(
        table.fields().stream()
            .flatMap(f -> f.id().equals(field) ? others.stream() : Stream.of(f))
            .toList());
  }

  /** A field that is worked out, with hardly any room until its size is known. */
  private Field named(Table table, Field whole, CompoundFields.Worked by) {
    String label = label(whole, by.label());
    String name = NamingPolicy.free(NamingPolicy.nameFor(label), table.fieldsByName().keySet());
    return Field.of(name, label, new FieldType.Text(1)).withDescription(by.note());
  }

  private static Field worked(Field fresh, CompoundFields.Worked by, Map<String, Field> parts) {
    return fresh.withOrigin(new Origin.Computed(new Formula(filled(by.formula(), parts))));
  }

  /** Fields that are worked out get the types of what they are worked out as. */
  private List<Field> typed(Table table, List<Field> fields) {
    TableMeaning meaning = TableMeaning.of(instead(table, fields));
    return fields.stream()
        .map(
            f ->
                meaning.computed(f.id()).orElse(null) instanceof Checked.Sound sound
                        && meaning.resultOf(sound)
                            instanceof ResultType.Found.Type(FieldType result)
                    ? f.withType(ResultType.fitted(f.type(), result))
                    : f)
        .toList();
  }

  private static void requireFree(Design design, Table table, Field whole) {
    boolean tied =
        design.relationships().stream().anyMatch(r -> r.standsOn(table.id(), whole.id()));
    if (tied || table.primaryKey().contains(whole.id())) {
      throw new EditRefusedException(
          whole.label()
              + " is part of a key or refers to another table, and has to stay one field.");
    }
    if (table.groupOf(whole.id()).isPresent()) {
      throw new EditRefusedException(whole.label() + " stands in a group already.");
    }
  }

  /** The fields by the labels of their parts; the first is the field that was there. */
  private Map<String, Field> parts(Table table, Field whole, boolean held) {
    Map<String, Field> fields = new LinkedHashMap<>();
    // The name of the field that was there is free for the parts.
    Table grown = table.withField(whole.id(), f -> f.withName(f.name() + " "));
    for (CompoundFields.Part part : compound.parts()) {
      String label = label(whole, part.label());
      String name = NamingPolicy.free(NamingPolicy.nameFor(label), grown.fieldsByName().keySet());
      boolean first = fields.isEmpty();
      Field fresh =
          Field.of(name, label, part.type())
              .withUnit(part.unit())
              .withRequired(part.required())
              .withDescription(part.note())
              .withLimits(Limits.NONE.withPattern(part.pattern()));
      Field field =
          first
              ? continued(whole, fresh, held ? wide(whole, part) : part.type())
              : grown.unused(fresh);
      fields.put(part.label(), field);
      grown = first ? grown.withField(field.id(), f -> field) : grown.withFieldAdded(field);
    }
    return fields;
  }

  /** The field that was there as the first part: what was said of it and still fits stays. */
  private static Field continued(Field whole, Field part, FieldType type) {
    boolean alike = whole.type().kind() == type.kind();
    Field named = whole.withName(part.name()).withLabel(part.label()).withType(type);
    return named
        .withUnit(part.unit())
        .withRequired(whole.required() || part.required())
        .withDescription(whole.description().isBlank() ? part.description() : whole.description())
        .withDefault(alike ? whole.defaultValue() : Optional.empty())
        .withLimits(alike && part.limits().equals(Limits.NONE) ? whole.limits() : part.limits());
  }

  /** Values that are there keep the room they had. */
  private static FieldType wide(Field whole, CompoundFields.Part first) {
    return whole.type() instanceof FieldType.Text was
            && first.type() instanceof FieldType.Text is
            && was.maxLength() > is.maxLength()
        ? was
        : first.type();
  }

  /** "Delivery" of a delivery address, "Contact" of a contact name; nothing of an address. */
  private String prefix(String label) {
    String kind = compound.kind();
    String plain = label.strip();
    return Stream.of(kind, kind.substring(kind.lastIndexOf(' ') + 1))
        .filter(words -> lower(plain).endsWith(words))
        .findFirst()
        .map(words -> plain.substring(0, plain.length() - words.length()).strip())
        .orElse(plain);
  }

  private String label(Field whole, String part) {
    String before = prefix(whole.label());
    return before.isEmpty() ? part : before + " " + lower(part);
  }

  private static String lower(String text) {
    return text.toLowerCase(Locale.ROOT);
  }

  /** A formula with the names of the parts instead of their labels in braces. */
  private static String filled(String formula, Map<String, Field> parts) {
    String filled = formula;
    for (Map.Entry<String, Field> part : parts.entrySet()) {
      String name = Formula.naming(part.getValue().name()).text();
      filled = filled.replace("{" + part.getKey() + "}", name);
    }
    return filled;
  }

  private Rule rule(Table table, CompoundFields.Together rule, Map<String, Field> parts) {
    String condition = filled(rule.condition(), parts);
    String name =
        NamingPolicy.free(
            ConstraintNaming.check(
                table.name(), parts.values().iterator().next().name(), rule.name()),
            table.rules().stream().map(Rule::name).toList());
    return new Rule(name, NamingPolicy.labelFor(rule.name()), condition, rule.message());
  }
}
