package joiner.desktop.prove;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyObjectProperty;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeTable;
import joiner.expression.Checked;
import joiner.expression.Kind;
import joiner.meaning.Completions;
import joiner.meaning.Draft;
import joiner.meaning.ParentRows;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Listing;
import joiner.model.Listing.By;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.RowId;
import joiner.rows.Rows;

/**
 * The rows of a table as they are listed for whoever enters them: in the order and with the columns
 * the design keeps, those that hold some words, some values, and meet a condition.
 */
final class EnterFound {
  private final Workbench bench;
  private final Texts texts;
  private final Computed<EnterListing.Of, Listed> listed;
  private Optional<TableId> table = Optional.empty();

  /** What is looked for in each table. */
  private final Map<TableId, Wanted> wanted = new HashMap<>();

  /** The rows that were found last. */
  private Optional<Found> found = Optional.empty();

  private record Found(Listed of, Wanted wanted, List<Row> rows) {}

  /**
   * What is looked for.
   *
   * @param words stand in some text of the row
   * @param values what fields hold, an empty text for none
   * @param condition of SQL over the row; may be blank
   * @param order instead of the one the design keeps
   * @param firstOnly whether the first row that is found is enough
   */
  private record Wanted(
      String words,
      Map<FieldId, String> values,
      String condition,
      Optional<List<By>> order,
      boolean firstOnly) {
    static final Wanted ALL = new Wanted("", Map.of(), "", Optional.empty(), false);

    Wanted {
      values = Map.copyOf(values);
    }

    Wanted withWords(String other) {
      return new Wanted(other, values, condition, order, firstOnly);
    }

    Wanted withValues(Map<FieldId, String> other) {
      return new Wanted(words, other, condition, order, firstOnly);
    }

    Wanted withCondition(String other) {
      return new Wanted(words, values, other, order, firstOnly);
    }

    Wanted withOrder(Optional<List<By>> other) {
      return new Wanted(words, values, condition, other, firstOnly);
    }

    Wanted withFirstOnly(boolean is) {
      return new Wanted(words, values, condition, order, is);
    }
  }

  /**
   * A row that can be opened, by what people call it.
   *
   * @param place its place in the table, from 0
   * @param search all its texts, in small letters
   */
  record Row(RowId id, int place, String label, String search) {}

  /** A value that rows hold in a field, with how many do; the text is empty for none. */
  record Held(String text, String label, int rows) {}

  /**
   * The rows of a table of a draft that meet a condition, in order.
   *
   * @param shown the rows with what is worked out in them, as far as it is listed
   * @param held what the fields hold by which people look for rows
   * @param fault why the condition cannot be read; all rows are there then
   */
  record Listed(
      Draft draft,
      TableId table,
      Rows shown,
      List<Row> rows,
      Map<RelationshipId, ParentRows> parents,
      Map<FieldId, List<Held>> held,
      Optional<String> fault) {
    /** What stands in a column of a row. */
    String text(int place, FieldId field) {
      return EnterListing.text(parents, draft, table, shown, place, field);
    }
  }

  EnterFound(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    Clock clock = bench.clock();
    this.listed =
        new Computed<>(
            bench.runner(),
            texts.get("enter.listing"),
            Lane.WORKING,
            EnterListing.Of::isAs,
            (of, progress) -> new EnterListing(of, clock, progress).listed());
  }

  ReadOnlyObjectProperty<Answer<Listed>> listedProperty() {
    return listed.answerProperty();
  }

  void look(boolean now) {
    listed.look(now);
  }

  /** Lists the rows of that table as they are now. */
  void refresh(TableId of) {
    table = Optional.of(of);
    Wanted now = wanted();
    listed.ask(new EnterListing.Of(bench.draft(), of, now.condition.strip(), order()));
  }

  private Wanted wanted() {
    return table.map(t -> wanted.getOrDefault(t, Wanted.ALL)).orElse(Wanted.ALL);
  }

  private void want(Wanted other) {
    table.ifPresent(
        t -> {
          wanted.put(t, other);
          refresh(t);
        });
  }

  /** What is known of the table, though it may be about to change. */
  Optional<Listed> listed() {
    return listed.answer().latest().filter(l -> Optional.of(l.table).equals(table));
  }

  /** Whether what is listed is how it is now. */
  boolean isCurrent() {
    return listed.answer().current().filter(l -> l.draft == bench.draft()).isPresent();
  }

  /** The rows that are found, as far as they are known; the same list while it is. */
  List<Row> rows() {
    Optional<Listed> now = listed();
    if (now.isEmpty()) {
      return List.of();
    }
    Wanted want = wanted();
    if (found.filter(f -> f.of == now.get() && f.wanted.equals(want)).isEmpty()) {
      String words = want.words.strip().toLowerCase(Locale.ROOT);
      List<Row> rows =
          now.get().rows.stream()
              .filter(row -> row.search.contains(words) && holds(now.get(), row, want.values))
              .limit(want.firstOnly ? 1 : Long.MAX_VALUE)
              .toList();
      found = Optional.of(new Found(now.get(), want, rows));
    }
    return found.get().rows;
  }

  private static boolean holds(Listed of, Row row, Map<FieldId, String> values) {
    return values.entrySet().stream()
        .allMatch(v -> of.shown.cell(row.place, v.getKey()).orElse("").equals(v.getValue()));
  }

  /** The row a text means: whose key it is, else the first that was found. */
  Optional<Row> meant(String words) {
    String key = words.strip();
    List<Row> rows = rows();
    Optional<Table> of = table.flatMap(bench.design()::find);
    return listed()
        .flatMap(
            l ->
                rows.stream()
                    .filter(row -> of.stream().anyMatch(t -> isKey(l, t, row, key)))
                    .findFirst())
        .or(() -> rows.stream().findFirst());
  }

  private static boolean isKey(Listed of, Table table, Row row, String text) {
    return table.keys().stream()
        .filter(key -> key.size() == 1)
        .anyMatch(
            key ->
                of.shown
                    .cell(row.place, key.getFirst())
                    .filter(text::equalsIgnoreCase)
                    .isPresent());
  }

  String words() {
    return wanted().words;
  }

  void words(String other) {
    want(wanted().withWords(other));
  }

  String condition() {
    return wanted().condition;
  }

  /** Lists only rows that meet a condition; a blank one is met by all. */
  void condition(String other) {
    want(wanted().withCondition(other));
  }

  List<Completions.Completion> completions(String text, int caret) {
    return table
        .map(t -> Completions.of(bench.draft().meaning().of(t).scope(), text, caret))
        .orElse(List.of());
  }

  /** How the design lists the rows. */
  Listing listing() {
    return table.flatMap(bench.design()::find).map(Table::listing).orElse(Listing.USUAL);
  }

  /** By what rows are sorted now. */
  List<By> order() {
    return wanted().order.orElseGet(() -> listing().order());
  }

  /** Sorts otherwise, until it is kept only here. */
  void order(List<By> other) {
    want(
        wanted()
            .withOrder(Optional.of(List.copyOf(other)).filter(o -> !o.equals(listing().order()))));
  }

  /** By which fields rows are sorted where they are sorted by what they are recognised by. */
  List<FieldId> recognisedBy() {
    return table
        .flatMap(bench.design()::find)
        .map(
            t ->
                bench.draft().meaning().of(t).rowLabel().orElse(null) instanceof Checked.Sound label
                    ? TableMeaning.fieldsOf(label)
                    : t.primaryKey())
        .orElse(List.of());
  }

  /** Whether only the first row that is found is listed. */
  boolean isFirstOnly() {
    return wanted().firstOnly;
  }

  /** The row that comes so many places after another among those found; none beyond their ends. */
  Optional<Row> beside(RowId row, int by) {
    List<Row> rows = rows();
    int place = place(row);
    int next = place + by;
    return place >= 0 && next >= 0 && next < rows.size()
        ? Optional.of(rows.get(next))
        : Optional.empty();
  }

  /** Its place among those found, from 0; -1 for none of them. */
  int place(RowId row) {
    List<Row> rows = rows();
    for (int i = 0; i < rows.size(); i++) {
      if (rows.get(i).id.equals(row)) {
        return i;
      }
    }
    return -1;
  }

  /** What a field holds that rows are looked for by; empty: whatever it is. */
  Optional<String> chosen(FieldId field) {
    return Optional.ofNullable(wanted().values.get(field));
  }

  /** Looks for rows by what a field holds, or whatever it holds. */
  void choose(FieldId field, Optional<String> text) {
    Map<FieldId, String> values = new LinkedHashMap<>(wanted().values);
    values.remove(field);
    text.ifPresent(t -> values.put(field, t));
    want(wanted().withValues(values));
  }

  /** Finds all rows. */
  void all() {
    want(Wanted.ALL.withOrder(wanted().order));
  }

  /** Forgets what was looked for in all tables, for they are of another design now. */
  void clear() {
    wanted.clear();
  }

  /** What rows hold in a field, the most frequent first. */
  List<Held> held(FieldId field) {
    return listed().map(l -> l.held.getOrDefault(field, List.of())).orElse(List.of());
  }

  /** What stands in a column of a row. */
  String text(Row row, FieldId field) {
    return listed().map(l -> l.text(row.place, field)).orElse("");
  }

  /** How the list can be changed, kept in the design. */
  sealed interface Deed {
    /** Shows a field beside each row, or no longer. */
    record Column(Field field, boolean shown) implements Deed {}

    /** Offers a field to look for rows by, or no longer. */
    record Filter(Field field, boolean offered) implements Deed {}

    /** Keeps the order that is seen. */
    record KeepOrder() implements Deed {}

    /** Sorts by a field before all others, until it is kept only here. */
    record Sort(Field field, boolean descending) implements Deed {}

    /** In the order in which rows were entered. */
    record Unsort() implements Deed {}

    /** Lists the first row that is found, or all. */
    record First(boolean only) implements Deed {}
  }

  /** How the list can be changed now. */
  List<Deed> deeds() {
    Optional<Table> of = table.flatMap(bench.design()::find);
    var deeds = new ArrayList<Deed>();
    List<Field> fields =
        of.stream()
            .flatMap(t -> t.fields().stream())
            .filter(field -> field.type().kind() != Kind.BYTES)
            .toList();
    Listing kept = listing();
    deeds.add(new Deed.First(!isFirstOnly()));
    fields.forEach(f -> deeds.add(new Deed.Column(f, !kept.columns().contains(f.id()))));
    fields.forEach(f -> deeds.add(new Deed.Filter(f, !kept.filters().contains(f.id()))));
    fields.forEach(
        f -> {
          deeds.add(new Deed.Sort(f, false));
          deeds.add(new Deed.Sort(f, true));
        });
    if (!order().isEmpty()) {
      deeds.add(new Deed.Unsort());
    }
    if (!order().equals(kept.order())) {
      deeds.add(new Deed.KeepOrder());
    }
    return deeds;
  }

  /** Changes the list. */
  void make(Deed deed) {
    Listing kept = listing();
    switch (deed) {
      case Deed.Column(Field field, boolean shown) ->
          keep(
              texts.get(shown ? "list.column" : "list.column.not", field.label()),
              kept.withColumns(with(kept.columns(), field.id(), shown)));
      case Deed.Filter(Field field, boolean offered) -> {
        choose(field.id(), Optional.empty());
        keep(
            texts.get(offered ? "list.filter" : "list.filter.not", field.label()),
            kept.withFilters(with(kept.filters(), field.id(), offered)));
      }
      case Deed.KeepOrder keep -> keep(texts.get("list.order"), kept.withOrder(order()));
      case Deed.Sort(Field field, boolean descending) ->
          order(
              Stream.concat(
                      Stream.of(new By(field.id(), descending)),
                      order().stream().filter(by -> !by.field().equals(field.id())))
                  .toList());
      case Deed.Unsort unsort -> order(List.of());
      case Deed.First(boolean only) -> want(wanted().withFirstOnly(only));
    }
  }

  private static List<FieldId> with(List<FieldId> fields, FieldId field, boolean is) {
    var all = new ArrayList<>(fields);
    all.remove(field);
    if (is) {
      all.add(field);
    }
    return all;
  }

  private void keep(String what, Listing listing) {
    table
        .flatMap(bench.design()::find)
        .ifPresent(t -> bench.apply(ChangeTable.list(t, what + " · " + t.label(), listing)));
    table.ifPresent(this::refresh);
  }
}
