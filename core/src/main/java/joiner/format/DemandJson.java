package joiner.format;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.expression.Formula;
import joiner.model.Demand;
import joiner.model.FieldId;
import joiner.model.RelationshipId;
import joiner.model.Table;

/**
 * What a rule demands, as the members of a rule. Fields stand by their names; one that is gone
 * stands as it was called, so that the rule is there to be mended.
 */
final class DemandJson {
  private static final String CHILDREN = "children";
  private static final String ALONE = "alone";
  private static final String APART = "apart";
  private static final String TREE = "tree";
  private static final String STAYS = "stays";

  private DemandJson() {}

  static Demand read(Members rule, Map<String, FieldId> ids) throws UnreadableFileException {
    Optional<String> tree = rule.optionalText(TREE);
    if (tree.isPresent()) {
      return new Demand.Tree(new RelationshipId(tree.get()));
    }
    if (rule.any(CHILDREN).isPresent()) {
      return children(rule.object(CHILDREN));
    }
    if (rule.any(ALONE).isPresent()) {
      Members alone = rule.object(ALONE);
      var read = new Demand.Alone(fields(alone, "per", ids), new Formula(alone.text("where")));
      return whole(alone, read, "per and where");
    }
    if (rule.any(STAYS).isPresent()) {
      Members stays = rule.object(STAYS);
      var read = new Demand.Stays(fields(stays, "fields", ids), new Formula(stays.text("when")));
      return whole(stays, read, "fields and when");
    }
    if (rule.any(APART).isPresent()) {
      return apart(rule.object(APART), ids);
    }
    return new Demand.OfRow(new Formula(rule.text("condition")));
  }

  private static Demand children(Members children) throws UnreadableFileException {
    var read =
        new Demand.OfChildren(
            new RelationshipId(required(children, "over", "which relationship it is about")),
            children.optionalText("sum").map(Formula::new),
            children.optionalText("where").map(Formula::new),
            children.scalar("least"),
            children.scalar("most"));
    return whole(children, read, "over, sum, where, least and most");
  }

  private static Demand apart(Members apart, Map<String, FieldId> ids)
      throws UnreadableFileException {
    var read =
        new Demand.Apart(
            fields(apart, "per", ids),
            field(ids, required(apart, "from", "where a period begins")),
            field(ids, required(apart, "until", "where a period ends")),
            apart.flag("closed"),
            apart.flag("gapless"));
    return whole(apart, read, "per, from, until, closed and gapless");
  }

  private static Demand whole(Members of, Demand read, String known)
      throws UnreadableFileException {
    if (!of.rest().byProperty().isEmpty()) {
      throw of.problem(
          "what the rule demands has "
              + known
              + ", not "
              + String.join(", ", of.rest().byProperty().keySet())
              + ".");
    }
    return read;
  }

  private static String required(Members of, String name, String what)
      throws UnreadableFileException {
    Optional<String> text = of.optionalText(name);
    if (text.isEmpty()) {
      throw of.problem("“" + name + "” says " + what + ".");
    }
    return text.get();
  }

  private static List<FieldId> fields(Members of, String name, Map<String, FieldId> ids)
      throws UnreadableFileException {
    return of.texts(name).stream().map(text -> field(ids, text)).toList();
  }

  private static FieldId field(Map<String, FieldId> ids, String name) {
    return ids.getOrDefault(name, new FieldId(name));
  }

  static void write(Demand demand, Json.Obj rule, Table table) {
    switch (demand) {
      case Demand.OfRow(Formula condition) -> rule.put("condition", condition.text());
      case Demand.Tree(RelationshipId over) -> rule.put(TREE, over.value());
      case Demand.OfChildren(var over, var of, var where, var least, var most) -> {
        var json = new Json.Obj().put("over", over.value());
        of.ifPresent(formula -> json.put("sum", formula.text()));
        where.ifPresent(formula -> json.put("where", formula.text()));
        least.ifPresent(number -> json.put("least", number));
        most.ifPresent(number -> json.put("most", number));
        rule.put(CHILDREN, json);
      }
      case Demand.Alone(List<FieldId> per, Formula where) ->
          rule.put(ALONE, new Json.Obj().put("per", names(table, per)).put("where", where.text()));
      case Demand.Stays(List<FieldId> fields, Formula when) ->
          rule.put(
              STAYS, new Json.Obj().put("fields", names(table, fields)).put("when", when.text()));
      case Demand.Apart(var per, var from, var until, var closed, var gapless) -> {
        var json =
            new Json.Obj()
                .put("per", names(table, per))
                .put("from", name(table, from))
                .put("until", name(table, until));
        if (closed) {
          json.put("closed", true);
        }
        if (gapless) {
          json.put("gapless", true);
        }
        rule.put(APART, json);
      }
    }
  }

  private static Json names(Table table, List<FieldId> fields) {
    return Json.Arr.of(fields.stream().map(field -> name(table, field)).toList());
  }

  private static String name(Table table, FieldId field) {
    return table.hasField(field) ? table.field(field).name() : field.value();
  }
}
