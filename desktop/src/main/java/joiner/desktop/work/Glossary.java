package joiner.desktop.work;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import joiner.edit.Reading;
import joiner.model.Design;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableKind;

/** The trade's words and Joiner's own, explained in two sentences each. */
public final class Glossary {
  private static final Glossary SHIPPED = read();

  private final List<Entry> entries;

  /** A word with what it means. */
  public record Entry(String word, String meaning) {}

  private Glossary(List<Entry> entries) {
    this.entries = List.copyOf(entries);
  }

  /** The glossary that comes with Joiner. */
  public static Glossary shipped() {
    return SHIPPED;
  }

  private static Glossary read() {
    try (InputStream in = Glossary.class.getResourceAsStream("/joiner/glossary.md")) {
      if (in == null) {
        throw new IllegalStateException("glossary.md is missing from the application");
      }
      return of(new String(in.readAllBytes(), StandardCharsets.UTF_8));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Reads a text whose second-level headings are words. */
  static Glossary of(String text) {
    var entries = new ArrayList<Entry>();
    for (String part : text.split("(?m)^## ")) {
      int end = part.indexOf('\n');
      if (end > 0 && !part.startsWith("# ")) {
        String meaning = part.substring(end).replaceAll("\\s+", " ").strip();
        entries.add(new Entry(part.substring(0, end).strip(), meaning));
      }
    }
    return new Glossary(entries);
  }

  /** All words, in the order of the alphabet. */
  public List<Entry> entries() {
    return entries;
  }

  /** The entry of a word, whatever its capitals. */
  public Optional<Entry> find(String word) {
    return entries.stream().filter(entry -> entry.word().equalsIgnoreCase(word)).findFirst();
  }

  /** What a word means; asking for one that is not explained is a caller's mistake. */
  public static String meaning(String word) {
    return SHIPPED
        .find(word)
        .map(Entry::meaning)
        .orElseThrow(() -> new IllegalArgumentException("no word " + word));
  }

  /** An example of a word from a design, beginning with the chosen table; empty: there is none. */
  public static Optional<String> example(String word, Design design, Optional<Table> chosen) {
    var tables = new ArrayList<Table>();
    chosen.ifPresent(tables::add);
    tables.addAll(design.tables());
    return switch (word.toLowerCase(Locale.ROOT)) {
      case "primary key", "candidate key" ->
          first(tables, t -> !t.primaryKey().isEmpty())
              .map(t -> t.label() + " is identified by " + labels(t, t.primaryKey()) + ".");
      case "unique" ->
          first(tables, t -> !t.uniqueKeys().isEmpty())
              .map(
                  t ->
                      labels(t, t.uniqueKeys().getFirst().fields())
                          + " of "
                          + t.label()
                          + " occurs once.");
      case "foreign key", "referential integrity", "parent and child" ->
          relationship(design, chosen)
              .map(
                  r ->
                      labels(design.table(r.child()), r.childFields())
                          + " of "
                          + design.table(r.child()).label()
                          + " refers to "
                          + design.table(r.parent()).label()
                          + ".");
      case "relationship", "reading", "one-to-many" ->
          relationship(design, chosen).map(r -> Reading.of(design, r).getFirst().sentence());
      case "join table", "many-to-many" ->
          first(tables, t -> t.kind() instanceof TableKind.Join)
              .map(t -> "Each row of " + t.label() + " is one pair.");
      case "lookup" ->
          first(tables, t -> t.kind() instanceof TableKind.Lookup)
              .map(t -> t.label() + " is a list other tables pick from.");
      case "required" ->
          first(tables, t -> t.fields().stream().anyMatch(f -> f.required()))
              .map(
                  t ->
                      t.fields().stream()
                              .filter(f -> f.required())
                              .findFirst()
                              .orElseThrow()
                              .label()
                          + " of "
                          + t.label()
                          + " must have a value.");
      case "row label" ->
          first(tables, t -> t.rowLabel().isPresent())
              .map(t -> "A row of " + t.label() + " is shown as " + t.rowLabel().get() + ".");
      case "rule" ->
          first(tables, t -> !t.rules().isEmpty())
              .map(t -> t.label() + ": " + t.rules().getFirst().condition());
      case "default" ->
          first(tables, t -> t.fields().stream().anyMatch(f -> f.defaultValue().isPresent()))
              .map(
                  t -> {
                    var field =
                        t.fields().stream()
                            .filter(f -> f.defaultValue().isPresent())
                            .findFirst()
                            .orElseThrow();
                    return field.label()
                        + " of "
                        + t.label()
                        + " is "
                        + field.defaultValue().get()
                        + " where nothing is given.";
                  });
      case "label and name" ->
          first(tables, t -> !t.label().equals(t.name()))
              .map(t -> "People read " + t.label() + "; the database gets " + t.name() + ".");
      case "index" ->
          first(tables, t -> !t.indexes().isEmpty())
              .map(
                  t ->
                      t.indexes().getFirst().name()
                          + " of "
                          + t.label()
                          + " finds rows by "
                          + labels(t, t.indexes().getFirst().fields())
                          + ".");
      default -> Optional.empty();
    };
  }

  private static Optional<Table> first(
      List<Table> tables, java.util.function.Predicate<Table> fits) {
    return tables.stream().filter(fits).findFirst();
  }

  private static Optional<Relationship> relationship(Design design, Optional<Table> chosen) {
    return design.relationships().stream()
        .filter(r -> chosen.isEmpty() || r.child().equals(chosen.get().id()))
        .findFirst()
        .or(() -> design.relationships().stream().findFirst());
  }

  private static String labels(Table table, List<joiner.model.FieldId> fields) {
    return String.join(", ", table.labelsOf(fields));
  }
}
