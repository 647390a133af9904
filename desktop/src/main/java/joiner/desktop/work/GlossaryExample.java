package joiner.desktop.work;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Predicate;
import joiner.edit.Reading;
import joiner.meaning.DemandWords;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableKind;

/** Examples of the trade's words from a design, beginning with the chosen table. */
final class GlossaryExample {
  private final Design design;
  private final Optional<Table> chosen;
  private final List<Table> tables = new ArrayList<>();

  GlossaryExample(Design design, Optional<Table> chosen) {
    this.design = design;
    this.chosen = chosen;
    chosen.ifPresent(tables::add);
    tables.addAll(design.tables());
  }

  /** A sentence; empty where the design has nothing of the kind. */
  Optional<String> of(String word) {
    return switch (word.toLowerCase(Locale.ROOT)) {
      case "primary key", "candidate key" -> primaryKey();
      case "unique" -> unique();
      case "foreign key", "referential integrity", "parent and child" -> reference();
      case "relationship", "reading", "one-to-many" ->
          relationship().map(r -> Reading.of(design, r).getFirst().sentence());
      case "join table", "many-to-many" ->
          first(t -> t.kind() instanceof TableKind.Join)
              .map(t -> "Each row of " + t.label() + " is one pair.");
      case "lookup" ->
          first(t -> t.kind() instanceof TableKind.Lookup)
              .map(t -> t.label() + " is a list other tables pick from.");
      case "required" -> required();
      case "row label" ->
          first(t -> t.rowLabel().isPresent())
              .map(
                  t -> "A row of " + t.label() + " is shown as " + t.rowLabel().get().text() + ".");
      case "rule" ->
          first(t -> !t.rules().isEmpty())
              .map(
                  t -> t.label() + ": " + DemandWords.of(design, t, t.rules().getFirst().demand()));
      case "default" -> defaultValue();
      case "computed field" -> computed();
      case "label and name" ->
          first(t -> !t.label().equals(t.name()))
              .map(t -> "People read " + t.label() + "; the database gets " + t.name() + ".");
      case "index" -> index();
      case "question", "view" ->
          design.questions().stream()
              .findFirst()
              .map(q -> "“" + q.label() + "” is kept, as the view " + q.name() + ".");
      default -> Optional.empty();
    };
  }

  private Optional<String> primaryKey() {
    return first(t -> !t.primaryKey().isEmpty())
        .map(t -> t.label() + " is identified by " + labels(t, t.primaryKey()) + ".");
  }

  private Optional<String> unique() {
    return first(t -> !t.uniqueKeys().isEmpty())
        .map(
            t ->
                labels(t, t.uniqueKeys().getFirst().fields())
                    + " of "
                    + t.label()
                    + " occurs once.");
  }

  private Optional<String> reference() {
    return relationship()
        .map(
            r ->
                labels(design.table(r.child()), r.childFields())
                    + " of "
                    + design.table(r.child()).label()
                    + " refers to "
                    + design.table(r.parent()).label()
                    + ".");
  }

  private Optional<String> required() {
    return first(t -> t.fields().stream().anyMatch(Field::required))
        .map(t -> field(t, Field::required).label() + " of " + t.label() + " must have a value.");
  }

  private Optional<String> computed() {
    Predicate<Field> has = field -> field.origin().workedOutBy().isPresent();
    return first(t -> t.fields().stream().anyMatch(has))
        .map(
            t -> {
              Field field = field(t, has);
              return field.label()
                  + " of "
                  + t.label()
                  + " is worked out as "
                  + field.origin().workedOutBy().orElseThrow().text()
                  + ".";
            });
  }

  private Optional<String> defaultValue() {
    Predicate<Field> has = field -> field.defaultValue().isPresent();
    return first(t -> t.fields().stream().anyMatch(has))
        .map(
            t ->
                field(t, has).label()
                    + " of "
                    + t.label()
                    + " is "
                    + field(t, has).defaultValue().orElseThrow().text()
                    + " where nothing is given.");
  }

  private Optional<String> index() {
    return first(t -> !t.indexes().isEmpty())
        .map(
            t -> {
              Index index = t.indexes().getFirst();
              return index.name()
                  + " of "
                  + t.label()
                  + " finds rows by "
                  + labels(t, index.fields())
                  + ".";
            });
  }

  private static Field field(Table table, Predicate<Field> fits) {
    return table.fields().stream().filter(fits).findFirst().orElseThrow();
  }

  private Optional<Table> first(Predicate<Table> fits) {
    return tables.stream().filter(fits).findFirst();
  }

  private Optional<Relationship> relationship() {
    return design.relationships().stream()
        .filter(r -> chosen.isEmpty() || r.child().equals(chosen.get().id()))
        .findFirst()
        .or(() -> design.relationships().stream().findFirst());
  }

  private static String labels(Table table, List<FieldId> fields) {
    return String.join(", ", table.labelsOf(fields));
  }
}
