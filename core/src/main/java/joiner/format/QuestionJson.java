package joiner.format;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.expression.Formula;
import joiner.model.Design;
import joiner.model.Question;
import joiner.model.Question.Counting;
import joiner.model.QuestionId;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * Questions of the design. Tables stand by their names; one that is gone stands as it was called,
 * so that the question is there to be mended.
 */
final class QuestionJson {
  private static final String QUESTIONS = "questions";

  private QuestionJson() {}

  static List<Question> read(Members more, Map<String, Table> tables, Path file)
      throws UnreadableFileException {
    var questions = new ArrayList<Question>();
    for (Json json : more.list(QUESTIONS)) {
      var question = new Members(json, file, "a question");
      try {
        questions.add(read(question, tables));
      } catch (IllegalArgumentException refused) {
        throw question.problem(refused.getMessage() + ".");
      }
    }
    return questions;
  }

  private static Question read(Members question, Map<String, Table> tables)
      throws UnreadableFileException {
    String name = question.text("name");
    var roles = new ArrayList<Question.Role>();
    for (Json json : question.list("roles")) {
      roles.add(role(question.inside(json, "a role"), tables));
    }
    var columns = new ArrayList<Question.Column>();
    for (Json json : question.list("columns")) {
      columns.add(column(question.inside(json, "a column")));
    }
    var order = new ArrayList<Question.Order>();
    for (Json json : question.list("order")) {
      Members by = question.inside(json, "an order");
      int column = by.number("column").orElseThrow(() -> by.problem("An order has a column."));
      order.add(new Question.Order(column - 1, by.flag("descending")));
    }
    var parameters = new ArrayList<Question.Parameter>();
    for (Json json : question.list("parameters")) {
      Members open = question.inside(json, "a parameter");
      parameters.add(
          new Question.Parameter(
              open.text("name"),
              new Formula(open.text("like")),
              open.optionalText("value").orElse("")));
    }
    Optional<Integer> first = question.number("first");
    return new Question(
        new QuestionId(question.optionalText("id").orElse(name)),
        name,
        question.optionalText("label").orElse(name),
        roles,
        columns,
        question.texts("where").stream().map(Formula::new).toList(),
        question.texts("having").stream().map(Formula::new).toList(),
        parameters,
        order,
        first.map(OptionalInt::of).orElse(OptionalInt.empty()));
  }

  private static Question.Role role(Members role, Map<String, Table> tables)
      throws UnreadableFileException {
    String table = role.text("table");
    TableId id = tables.containsKey(table) ? tables.get(table).id() : new TableId(table);
    Optional<String> from = role.optionalText("from");
    Optional<Question.Link> link = Optional.empty();
    if (from.isPresent()) {
      var over = new RelationshipId(role.text("over"));
      link = Optional.of(new Question.Link(from.get(), over, role.flag("down"), role.flag("kept")));
    }
    return new Question.Role(role.optionalText("name").orElse(table), id, link, role.flag("apart"));
  }

  private static Question.Column column(Members column) throws UnreadableFileException {
    String label = column.text("label");
    Optional<Formula> of = column.optionalText("of").map(Formula::new);
    Optional<String> fold = column.optionalText("fold");
    if (fold.isEmpty()) {
      return new Question.Shown(
          label, of.orElseThrow(() -> column.problem("A column shows something, or folds rows.")));
    }
    Optional<String> per = column.optionalText("per");
    Counting counting =
        per.isPresent()
            ? new Counting.Per(per.get())
            : column.flag("once") ? Counting.ONCE : Counting.AS_JOINED;
    return new Question.Folded(label, fold(column, fold.get()), column.text("role"), of, counting);
  }

  private static Question.Fold fold(Members column, String word) throws UnreadableFileException {
    for (Question.Fold fold : Question.Fold.values()) {
      if (word(fold).equals(word)) {
        return fold;
      }
    }
    throw column.problem(
        "Rows are folded by count, different, sum, average, least or greatest, not by "
            + word
            + ".");
  }

  private static String word(Question.Fold fold) {
    return fold.name().toLowerCase(Locale.ROOT);
  }

  static void write(Design design, Json.Obj more) {
    if (!design.questions().isEmpty()) {
      List<Json> all = design.questions().stream().map(q -> write(design, q)).toList();
      more.put(QUESTIONS, new Json.Arr(all, 0));
    }
  }

  private static Json write(Design design, Question question) {
    Json.Obj json = TableJson.named(question.id().value(), question.name());
    json.put("label", question.label());
    json.put("roles", all(question.roles().stream().map(r -> write(design, r)).toList()));
    json.put("columns", all(question.columns().stream().map(QuestionJson::write).toList()));
    if (!question.where().isEmpty()) {
      json.put("where", Json.Arr.of(question.where().stream().map(Formula::text).toList()));
    }
    if (!question.having().isEmpty()) {
      json.put("having", Json.Arr.of(question.having().stream().map(Formula::text).toList()));
    }
    if (!question.parameters().isEmpty()) {
      json.put("parameters", all(question.parameters().stream().map(QuestionJson::write).toList()));
    }
    if (!question.order().isEmpty()) {
      json.put("order", all(question.order().stream().map(QuestionJson::write).toList()));
    }
    question.first().ifPresent(first -> json.put("first", first));
    return json;
  }

  private static Json.Arr all(List<Json> items) {
    return new Json.Arr(items, 0);
  }

  private static Json write(Design design, Question.Role role) {
    String table = design.find(role.table()).map(Table::name).orElse(role.table().value());
    var json = new Json.Obj();
    if (!role.name().equals(table)) {
      json.put("name", role.name());
    }
    json.put("table", table);
    role.link()
        .ifPresent(
            link -> {
              json.put("from", link.from()).put("over", link.over().value());
              flag(json, "down", link.down());
              flag(json, "kept", link.kept());
            });
    flag(json, "apart", role.apart());
    return json;
  }

  private static void flag(Json.Obj json, String name, boolean value) {
    if (value) {
      json.put(name, true);
    }
  }

  private static Json write(Question.Column column) {
    Json.Obj json = new Json.Obj().put("label", column.label());
    switch (column) {
      case Question.Shown shown -> json.put("of", shown.of().text());
      case Question.Folded folded -> {
        json.put("fold", word(folded.fold())).put("role", folded.role());
        folded.of().ifPresent(of -> json.put("of", of.text()));
        switch (folded.counting()) {
          case Counting.AsJoined joined -> {}
          case Counting.Once once -> json.put("once", true);
          case Counting.Per(String role) -> json.put("per", role);
        }
      }
    }
    return json;
  }

  private static Json write(Question.Parameter parameter) {
    Json.Obj json =
        new Json.Obj().put("name", parameter.name()).put("like", parameter.like().text());
    if (!parameter.text().isEmpty()) {
      json.put("value", parameter.text());
    }
    return json;
  }

  private static Json write(Question.Order order) {
    Json.Obj json = new Json.Obj().put("column", order.column() + 1);
    flag(json, "descending", order.descending());
    return json;
  }
}
