package joiner.meaning;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Expression.Comparison;
import joiner.expression.Formula;
import joiner.expression.Place;
import joiner.expression.ValueType;
import joiner.meaning.TableInWords.Phrase;
import joiner.meaning.TableInWords.Sentence;
import joiner.meaning.TableInWords.Source;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Generator;
import joiner.model.Multiplicity;
import joiner.model.Origin;
import joiner.model.Quantity;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Stamp;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.WordList;
import joiner.shape.PatternWords;

/** Puts into sentences what a design says of one table. */
final class TableTeller {
  /** Longer lists of choices are counted. */
  private static final int CHOICES_NAMED = 7;

  private final Design design;
  private final Table table;
  private final TableMeaning meaning;
  private final List<Sentence> told = new ArrayList<>();

  TableTeller(Draft draft, Table table) {
    this.design = draft.design();
    this.table = table;
    this.meaning = draft.meaning().of(table);
  }

  TableInWords tell() {
    identity();
    parents();
    groups();
    presence();
    defaults();
    table.fields().forEach(this::computed);
    table.fields().forEach(this::values);
    uniqueness();
    table.rules().forEach(this::rule);
    children();
    deletion(ReferentialAction.CASCADE, " is deleted, so are ");
    deletion(ReferentialAction.NO_ACTION, " cannot be deleted while it has ");
    rowLabel();
    return new TableInWords(told);
  }

  private void say(Phrase... phrases) {
    told.add(new Sentence(List.of(phrases)));
  }

  private void say(List<Phrase> phrases) {
    told.add(new Sentence(phrases));
  }

  private static Phrase plain(String text) {
    return new Phrase.Plain(text);
  }

  private static Phrase said(String text, FieldId by) {
    return new Phrase.Said(text, new Source.OfField(by));
  }

  private static Phrase said(String text, Relationship by) {
    return new Phrase.Said(text, new Source.OfRelationship(by.id()));
  }

  private Phrase field(FieldId id) {
    return said(table.field(id).label(), id);
  }

  /** Things in a row, as {@link WordList#and} puts them. */
  private static <T> List<Phrase> listed(List<T> things, Function<T, Phrase> phrase) {
    var phrases = new ArrayList<Phrase>();
    for (int i = 0; i < things.size(); i++) {
      if (i > 0) {
        phrases.add(plain(i == things.size() - 1 ? " and " : ", "));
      }
      phrases.add(phrase.apply(things.get(i)));
    }
    return phrases;
  }

  private static String capital(String text) {
    return text.isEmpty() ? text : Character.toUpperCase(text.charAt(0)) + text.substring(1);
  }

  private void identity() {
    String subject = capital(table.noun().indefinite());
    List<FieldId> key = table.primaryKey();
    if (key.isEmpty()) {
      say(
          new Phrase.Said(
              "Nothing identifies " + table.noun().indefinite() + " yet",
              new Source.OfTable(table.id())),
          plain("."));
      return;
    }
    var phrases = new ArrayList<Phrase>();
    phrases.add(plain(subject + " is identified by its "));
    phrases.addAll(listed(key, this::field));
    boolean counted = table.field(key.getFirst()).type() instanceof FieldType.Counter;
    phrases.add(plain(key.size() > 1 ? " together." : counted ? ", which is counted up." : "."));
    say(phrases);
  }

  private void parents() {
    List<Relationship> up = design.parentsOf(table.id());
    if (up.isEmpty()) {
      return;
    }
    var phrases = new ArrayList<Phrase>();
    phrases.add(plain("It "));
    phrases.addAll(listed(up, this::parent));
    phrases.add(plain("."));
    say(phrases);
  }

  private Phrase parent(Relationship up) {
    Quantity quantity = Multiplicity.of(design, up).parents();
    String other = up.isSelfReference() ? "other " : "";
    String noun = other + design.table(up.parent()).noun().singular();
    return said(up.childRole() + " " + quantity.words() + " " + noun, up);
  }

  /** Which fields always have a value; of keys and references it is said elsewhere. */
  private void presence() {
    List<FieldId> own =
        table.fieldIds().stream()
            .filter(this::isOwn)
            .filter(id -> !table.field(id).isComputed()) // What they are is said by itself.
            .toList();
    List<FieldId> always = own.stream().filter(table::isRequired).toList();
    List<FieldId> perhaps = own.stream().filter(id -> !table.isRequired(id)).toList();
    var phrases = new ArrayList<Phrase>();
    if (!always.isEmpty()) {
      phrases.add(plain("It always has "));
      phrases.addAll(listed(always, this::field));
    }
    if (!perhaps.isEmpty()) {
      phrases.add(plain(always.isEmpty() ? "It may have " : "; it may have "));
      phrases.addAll(listed(together(perhaps), this::one));
    }
    if (!phrases.isEmpty()) {
      phrases.add(plain("."));
      say(phrases);
    }
  }

  /** The fields, of groups that are among them as a whole the first only. */
  private List<FieldId> together(List<FieldId> fields) {
    return fields.stream()
        .filter(id -> whole(id, fields).map(g -> g.fields().getFirst().equals(id)).orElse(true))
        .toList();
  }

  private Optional<FieldGroup> whole(FieldId id, List<FieldId> fields) {
    return table.groupOf(id).filter(group -> fields.containsAll(group.fields()));
  }

  /** An optional field, or the group of such that it is the first of. */
  private Phrase one(FieldId id) {
    return table
        .groupOf(id)
        .filter(group -> group.fields().getFirst().equals(id))
        .filter(group -> group.fields().stream().noneMatch(table::isRequired))
        .map(group -> said(group.label(), id))
        .orElseGet(() -> field(id));
  }

  private void groups() {
    for (FieldGroup group : table.groups()) {
      var phrases = new ArrayList<Phrase>();
      phrases.addAll(listed(group.fields(), this::field));
      phrases.add(plain(group.fields().size() > 1 ? " are its " : " is its "));
      phrases.add(plain(group.label() + "."));
      say(phrases);
    }
  }

  private boolean isOwn(FieldId id) {
    return !table.primaryKey().contains(id)
        && design.parentsOf(table.id()).stream().noneMatch(r -> r.childFields().contains(id));
  }

  private void defaults() {
    List<Phrase> given = new ArrayList<>();
    for (Field field : table.fields()) {
      if (field.origin() instanceof Origin.Stamped) {
        continue; // Its own sentence says so.
      }
      DefaultReading.of(field)
          .map(reading -> said(field.label() + " is " + reading.words(), field.id()))
          .ifPresent(given::add);
    }
    if (!given.isEmpty()) {
      var phrases = new ArrayList<Phrase>();
      phrases.add(plain("Unless said otherwise, "));
      phrases.addAll(listed(given, phrase -> phrase));
      phrases.add(plain("."));
      say(phrases);
    }
  }

  private void computed(Field field) {
    switch (field.origin()) {
      case Origin.Typed(boolean once) -> {
        if (once) {
          say(plain("Once "), field(field.id()), plain(" is entered, it stays."));
        }
      }
      case Origin.Generated(Generator by) ->
          say(field(field.id()), plain(" is made for each row: " + OriginWords.of(by) + "."));
      case Origin.Copied(Formula formula) ->
          say(
              field(field.id()),
              plain(
                  " is "
                      + meaning.far(formula).map(this::carried).orElse(formula.text())
                      + ", as it was when the row was made."));
      case Origin.Stamped(Stamp stamp) ->
          say(field(field.id()), plain(" says " + OriginWords.of(stamp) + "."));
      case Origin.Computed(Formula formula) ->
          say(field(field.id()), plain(" is " + workedOut(formula) + "."));
      case Origin.SummedUp summed ->
          say(field(field.id()), plain(" is the " + SummingWords.of(design, summed) + "."));
    }
  }

  /** What a formula gives: of one that only reads a parent's field, whose that is. */
  private String workedOut(Formula formula) {
    return formula.value(meaning.scope())
            instanceof Checked.Sound(Expression.FieldRef(FarField far, Place place), ValueType type)
        ? carried(far)
        : "worked out as " + formula.text();
  }

  private String carried(FarField far) {
    Table end = far.table(design);
    return "the " + end.field(far.field()).label() + " of its " + end.noun().singular();
  }

  private void values(Field field) {
    List<String> must = new ArrayList<>();
    Optional<String> least = field.limits().minimum();
    Optional<String> most = field.limits().maximum();
    boolean between = least.isPresent() && most.isPresent();
    if (between) {
      must.add("lie between " + least.get() + " and " + most.get() + in(field));
    }
    for (Constraint.OfField demanded : meaning.constraintsOf(field.id())) {
      switch (demanded) {
        case Constraint.Listed listed -> must.add(choices(field, listed));
        case Constraint.Bounded bound -> {
          boolean told = bound.side() == Comparison.AT_LEAST || bound.side() == Comparison.AT_MOST;
          if (!between || !told) {
            must.add(bound.demand() + in(field));
          }
        }
        case Constraint.Matching matching -> must.add(form(field, matching));
        case Constraint.Shortest shortest -> must.add(shortest.demand());
        case Constraint.MostBytes size -> must.add(size.demand());
        case Constraint.OfMedia media -> must.add(media.demand());
        case Constraint.Longest room -> {} // How much room a text has is nobody's rule.
        case Constraint.Required required -> {} // Said where it is said which are always there.
        case Constraint.OfType type -> {}
      }
    }
    if (!must.isEmpty()) {
      say(field(field.id()), plain(" must " + WordList.and(must) + "."));
    }
  }

  private static String in(Field field) {
    return field.unit().isEmpty() ? "" : " " + field.unit();
  }

  private static String form(Field field, Constraint.Matching matching) {
    Optional<String> shown = field.limits().shown();
    return PatternWords.of(shown.orElse(matching.text()))
        .map(words -> "be " + words + (shown.isPresent() ? " (kept without those marks)" : ""))
        .orElseGet(matching::demand);
  }

  private static String choices(Field field, Constraint.Listed listed) {
    List<String> offered = listed.texts();
    List<String> retired = List.of();
    if (field.type() instanceof FieldType.Choice choice) {
      offered = choice.offered();
      retired = choice.retired();
    }
    String now =
        offered.size() > CHOICES_NAMED
            ? "be one of " + offered.size() + " choices"
            : "be " + WordList.or(offered);
    return retired.isEmpty()
        ? now
        : (offered.isEmpty() ? "be" : now + ", or in old rows") + " " + WordList.or(retired);
  }

  private void uniqueness() {
    for (Constraint.Unique key : meaning.keys()) {
      if (!key.primary()) {
        var phrases = new ArrayList<Phrase>();
        phrases.add(plain("No two " + table.noun().plural() + " have the same "));
        phrases.addAll(listed(key.fields(), this::field));
        phrases.add(plain(key.fields().size() > 1 ? " together." : "."));
        say(phrases);
      }
    }
  }

  private void rule(Rule rule) {
    String says = rule.message().isBlank() ? rule.label() : rule.message();
    String text = Messages.labelled(says, table).strip();
    boolean ended = text.matches("(?s).*[.!?]");
    say(new Phrase.Said(ended ? text : text + ".", new Source.OfRule(rule.id())));
  }

  private void children() {
    List<Relationship> down = design.childrenOf(table.id());
    if (!down.isEmpty()) {
      var phrases = new ArrayList<Phrase>();
      phrases.add(plain(capital(table.noun().indefinite()) + " "));
      phrases.addAll(listed(down, this::child));
      phrases.add(plain("."));
      say(phrases);
    }
  }

  /** Through a join table one has what stands on its other side. */
  private Phrase child(Relationship down) {
    Quantity quantity = Multiplicity.of(design, down).children();
    Table child = design.table(down.child());
    Table seen = across(child, down).map(r -> design.table(r.parent())).orElse(child);
    String noun = quantity.isPlural() ? seen.noun().plural() : seen.noun().singular();
    String other = seen.id().equals(table.id()) ? "other " : "";
    return said(down.parentRole() + " " + quantity.words() + " " + other + noun, down);
  }

  private Optional<Relationship> across(Table join, Relationship from) {
    return join.kind() instanceof TableKind.Join(var first, var second)
        ? Optional.of(first.equals(from.id()) ? second : first).flatMap(design::find)
        : Optional.empty();
  }

  private void deletion(ReferentialAction action, String words) {
    List<Relationship> bound = onePerChild(action);
    if (!bound.isEmpty()) {
      boolean cascades = action == ReferentialAction.CASCADE;
      var phrases = new ArrayList<Phrase>();
      phrases.add(plain((cascades ? "When " + table.noun().indefinite() : "It") + words));
      phrases.addAll(
          listed(
              bound,
              down ->
                  said(
                      (cascades ? "its " : "") + design.table(down.child()).noun().plural(),
                      down)));
      phrases.add(plain("."));
      say(phrases);
    }
  }

  /** What other tables say of a deletion, once for each. */
  private List<Relationship> onePerChild(ReferentialAction action) {
    Map<TableId, Relationship> bound = new LinkedHashMap<>();
    for (Relationship down : design.childrenOf(table.id())) {
      if (normal(down.onDelete()) == action && !down.isSelfReference()) {
        bound.putIfAbsent(down.child(), down);
      }
    }
    return List.copyOf(bound.values());
  }

  /** Both refuse; when they look differs. */
  private static ReferentialAction normal(ReferentialAction action) {
    return action == ReferentialAction.RESTRICT ? ReferentialAction.NO_ACTION : action;
  }

  private void rowLabel() {
    if (meaning.rowLabel().orElse(null) instanceof Checked.Sound label) {
      List<FieldId> shown = TableMeaning.fieldsOf(label);
      if (!shown.isEmpty()) {
        var phrases = new ArrayList<Phrase>();
        phrases.add(plain("People recognise it by "));
        phrases.addAll(listed(shown, this::field));
        phrases.add(plain("."));
        say(phrases);
      }
    }
  }
}
