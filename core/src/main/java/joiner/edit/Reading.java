package joiner.edit;

import java.util.List;
import java.util.Optional;
import joiner.model.Design;
import joiner.model.Multiplicity;
import joiner.model.Noun;
import joiner.model.Quantity;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableKind;

/**
 * One direction of a relationship as a sentence: "Each member makes any number of pieces." Every
 * other number word comes with the change that makes it true.
 *
 * @param subject noun the sentence begins with
 * @param verb verb phrase
 * @param quantity the number word that is true now
 * @param object noun the sentence ends with
 * @param options number words the sentence may have instead
 * @param of the relationship whose verb it has, and from which end
 */
public record Reading(
    String subject, String verb, Quantity quantity, Noun object, List<Option> options, Worded of) {
  public Reading {
    options = List.copyOf(options);
  }

  /** A number word with the change that makes it true. */
  public record Option(Quantity quantity, Edit edit) {}

  /** A relationship, read from its parent or from its child. */
  public record Worded(Relationship relationship, boolean fromParent) {}

  /** The change that gives the sentence another verb phrase. */
  public Edit reworded(String otherVerb) {
    Relationship r = of.relationship;
    return of.fromParent
        ? ChangeRelationship.roles(r, r.childRole(), otherVerb)
        : ChangeRelationship.roles(r, otherVerb, r.parentRole());
  }

  /** The whole sentence. */
  public String sentence() {
    String noun = quantity.isPlural() ? object.plural() : object.singular();
    return "Each " + subject + " " + verb + " " + quantity.words() + " " + noun + ".";
  }

  /** The two readings of a relationship: from the parent, then from the child. */
  public static List<Reading> of(Design design, Relationship r) {
    Optional<TableKind.Join> join = joinOf(design, r);
    return join.isPresent() ? ofJoin(design, r, join.get()) : ofPlain(design, r);
  }

  private static Optional<TableKind.Join> joinOf(Design design, Relationship r) {
    return design.table(r.child()).kind() instanceof TableKind.Join join
            && (join.first().equals(r.id()) || join.second().equals(r.id()))
            && design.find(join.first()).isPresent()
            && design.find(join.second()).isPresent()
        ? Optional.of(join)
        : Optional.empty();
  }

  private static List<Reading> ofPlain(Design design, Relationship r) {
    Table parent = design.table(r.parent());
    Table child = design.table(r.child());
    Multiplicity now = Multiplicity.of(design, r);
    String change = "change the reading of " + r.name();
    var fromParent =
        new Reading(
            parent.noun().singular(),
            r.parentRole(),
            now.children(),
            child.noun(),
            List.of(
                new Option(Quantity.EXACTLY_ONE, children(r, change, true, true, now)),
                new Option(Quantity.AT_MOST_ONE, children(r, change, true, false, now)),
                new Option(Quantity.ONE_OR_MANY, children(r, change, false, true, now)),
                new Option(Quantity.ANY_NUMBER, children(r, change, false, false, now))),
            new Worded(r, true));
    var fromChild =
        new Reading(
            child.noun().singular(),
            r.childRole(),
            now.parents(),
            parent.noun(),
            List.of(
                new Option(Quantity.EXACTLY_ONE, new SetParentRequired(r.id(), change, true)),
                new Option(Quantity.AT_MOST_ONE, new SetParentRequired(r.id(), change, false)),
                new Option(
                    Quantity.ANY_NUMBER,
                    new ToManyToMany(
                        r.id(),
                        "let each "
                            + child.noun().singular()
                            + " have many "
                            + parent.noun().plural()))),
            new Worded(r, false));
    return List.of(fromParent, fromChild);
  }

  private static Edit children(
      Relationship r, String name, boolean unique, boolean required, Multiplicity now) {
    Edit needs = ChangeRelationship.parentNeedsChild(r, required);
    return unique == now.childUnique()
        ? needs
        : Edit.all(name, List.of(new SetChildUnique(r.id(), name, unique), needs));
  }

  private static List<Reading> ofJoin(Design design, Relationship r, TableKind.Join join) {
    Relationship first = design.relationship(join.first());
    Relationship second = design.relationship(join.second());
    Relationship other = r.id().equals(first.id()) ? second : first;
    return List.of(acrossJoin(design, r, other), acrossJoin(design, other, r));
  }

  private static Reading acrossJoin(Design design, Relationship from, Relationship to) {
    Table subject = design.table(from.parent());
    Table object = design.table(to.parent());
    Quantity now = from.parentNeedsChild() ? Quantity.ONE_OR_MANY : Quantity.ANY_NUMBER;
    return new Reading(
        subject.noun().singular(),
        from.parentRole(),
        now,
        object.noun(),
        List.of(
            new Option(
                Quantity.AT_MOST_ONE,
                new FromManyToMany(
                    from.child(),
                    from.id(),
                    "let each "
                        + subject.noun().singular()
                        + " have at most one "
                        + object.noun().singular())),
            new Option(Quantity.ONE_OR_MANY, ChangeRelationship.parentNeedsChild(from, true)),
            new Option(Quantity.ANY_NUMBER, ChangeRelationship.parentNeedsChild(from, false))),
        new Worded(from, true));
  }
}
