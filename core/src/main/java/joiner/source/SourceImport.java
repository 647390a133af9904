package joiner.source;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import joiner.discovery.ColumnProfile;
import joiner.edit.AddRelationship;
import joiner.edit.AddTable;
import joiner.edit.Counters;
import joiner.edit.Edit;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;
import joiner.rows.EncodedColumn;
import joiner.rows.EncodedTable;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;

/**
 * The tables a source becomes: named by the naming policy, typed by what the columns show, each
 * with a key, and a repeating section with a reference to the table it repeats in. Values are
 * written as Joiner writes them where they have the form of their column; others stay as they are.
 */
public final class SourceImport {
  /** Headers that say that a column identifies something. */
  private static final Pattern IDENTIFIES =
      Pattern.compile("(?i)(^|[^a-z])(id|no|nr|number|code|key|uuid)([^a-z]|$)|.*Id$");

  private final ProfiledSource profiled;
  private final ImportOptions options;
  private final Design into;
  private final Set<String> taken = new HashSet<>();
  private final List<Imported> tables = new ArrayList<>();

  /**
   * A table as it will be.
   *
   * @param rows those that are held
   * @param link those that stay in their file
   * @param columns the field each column of the source became; columns left out are not there
   */
  public record Imported(
      Table table, Rows rows, Optional<LinkedRows> link, Map<Integer, FieldId> columns) {
    public Imported {
      columns = Map.copyOf(columns);
    }

    /** How many rows the table has. */
    public int rowCount() {
      return link.map(LinkedRows::count).orElse(rows.count());
    }
  }

  private SourceImport(ProfiledSource profiled, Design into, ImportOptions options) {
    this.profiled = profiled;
    this.options = options;
    this.into = into;
    into.tables().forEach(table -> taken.add(table.name()));
    for (int i = 0; i < profiled.source().tables().size(); i++) {
      tables.add(imported(i));
    }
  }

  /**
   * Prepares an import.
   *
   * @param into the design whose tables are there already
   */
  public static SourceImport of(ProfiledSource profiled, Design into, ImportOptions options) {
    return new SourceImport(profiled, into, options);
  }

  /** The tables, in the order of the source. */
  public List<Imported> tables() {
    return List.copyOf(tables);
  }

  /** The change that adds them. */
  public Edit edit() {
    var edits = new ArrayList<Edit>();
    for (Imported imported : tables) {
      edits.add(new AddTable(imported.table(), imported.rows(), imported.link()));
    }
    for (int i = 0; i < tables.size(); i++) {
      int place = i;
      profiled
          .source()
          .tables()
          .get(i)
          .parent()
          .ifPresent(parent -> edits.add(reference(place, parent.table())));
    }
    return Edit.all("add " + profiled.source().name(), edits);
  }

  private AddRelationship reference(int child, int parent) {
    Table detail = tables.get(child).table();
    Table header = tables.get(parent).table();
    FieldId link = detail.fields().get(1).id();
    return new AddRelationship(
        Relationship.of(
                ConstraintNaming.reference(detail.name(), List.of(header.name())),
                detail.id(),
                List.of(link),
                header.id(),
                header.primaryKey())
            .withRoles("belongs to", "has"));
  }

  private Imported imported(int place) {
    SourceTable source = profiled.source().tables().get(place);
    EncodedTable cells = source.cells();
    String name = NamingPolicy.free(tableName(cells.name()), taken);
    taken.add(name);
    String label = NamingPolicy.labelFor(name);
    Set<String> fieldNames = new HashSet<>();
    Map<Integer, FieldId> columns = new LinkedHashMap<>();
    var fields = new ArrayList<Field>();
    Optional<Integer> key = source.parent().isPresent() ? Optional.empty() : naturalKey(place);
    if (key.isEmpty()) {
      fields.add(counter(name, label, place));
      fieldNames.add(fields.getFirst().name());
    }
    source.parent().ifPresent(parent -> fields.add(link(tables.get(parent.table()).table())));
    fields.forEach(field -> fieldNames.add(field.name()));
    for (int i = 0; i < cells.columns().size(); i++) {
      if (options.keeps(place, i)) {
        Field field = profiled.profiles().get(place).get(i).field(fieldNames);
        fieldNames.add(field.name());
        fields.add(field);
        columns.put(i, field.id());
      }
    }
    Table plain =
        into.unused(Table.of(name, label, Noun.ofLabel(label)))
            .withArea(area())
            .withFields(fields)
            .withPrimaryKey(List.of(key.map(columns::get).orElseGet(() -> fields.getFirst().id())));
    Table table = source.parent().isPresent() ? indexed(plain) : plain;
    Optional<LinkedRows> link =
        profiled
            .source()
            .whole()
            .filter(whole -> options.withRows())
            .map(whole -> link(whole, table, place, columns));
    Rows rows = link.isPresent() ? Rows.NONE : rows(table, source, place, columns);
    return new Imported(table, rows, link, columns);
  }

  /** A repeating section has the link to its table second. */
  private static Table indexed(Table section) {
    Field link = section.fields().get(1);
    return section.withIndexAdded(
        new Index(
            ConstraintNaming.index(section.name(), List.of(link.name())), List.of(link.id())));
  }

  private LinkedRows link(
      Source.Whole whole, Table table, int place, Map<Integer, FieldId> columns) {
    var filled = new ArrayList<LinkedRows.Column>();
    for (int i = 0; i < profiled.profiles().get(place).size(); i++) {
      ColumnProfile profile = profiled.profiles().get(place).get(i);
      FieldId field = columns.get(i);
      if (field != null) {
        filled.add(LinkedRows.Column.of(field, i, profile.header(), profile.form()));
      }
    }
    boolean counted = table.fields().size() > columns.size();
    return whole.link(
        filled,
        counted
            ? Optional.of(
                new LinkedRows.Numbered(table.fields().getFirst().id(), options.firstNumber()))
            : Optional.empty());
  }

  /** The area that is there, or the one that comes with the first table. */
  private Optional<AreaId> area() {
    return Optional.of(options.area())
        .filter(name -> !name.isEmpty())
        .map(name -> Area.named(into.areas(), name).id());
  }

  /** Names of tables are in the singular. */
  private static String tableName(String name) {
    return NamingPolicy.singular(NamingPolicy.nameFor(name));
  }

  private Field counter(String table, String label, int place) {
    var headers = new HashSet<String>();
    profiled.profiles().get(place).forEach(p -> headers.add(NamingPolicy.nameFor(p.header())));
    return Counters.field(table, label, headers);
  }

  private static Field link(Table parent) {
    Field key = parent.field(parent.primaryKey().getFirst());
    String name = NamingPolicy.referenceTo(parent.name(), key.name());
    return Field.of(name, parent.label(), key.type().asReferenced()).withRequired(true);
  }

  /** A column that identifies the rows by itself: the first that says so, or the very first. */
  private Optional<Integer> naturalKey(int place) {
    List<ColumnProfile> profiles = profiled.profiles().get(place);
    for (int i = 0; i < profiles.size(); i++) {
      ColumnProfile profile = profiles.get(i);
      boolean says = IDENTIFIES.matcher(profile.header()).find();
      if (options.keeps(place, i) && profile.unique() && says && identifying(profile.type())) {
        return Optional.of(i);
      }
    }
    return Optional.empty();
  }

  private static boolean identifying(FieldType type) {
    return switch (type) {
      case FieldType.WholeNumber t -> true;
      case FieldType.Uuid t -> true;
      case FieldType.Text t -> t.maxLength() <= 50;
      default -> false;
    };
  }

  private Rows rows(Table table, SourceTable source, int place, Map<Integer, FieldId> columns) {
    List<FieldId> ids = table.fields().stream().map(Field::id).toList();
    var builder = new Rows.Builder(ids);
    if (!options.withRows()) {
      return builder.build();
    }
    EncodedTable cells = source.cells();
    int own = ids.size() - columns.size();
    List<Integer> kept = columns.keySet().stream().sorted().toList();
    var texts = kept.stream().map(column -> canonical(place, column)).toList();
    boolean counted = own > 0;
    for (int row = 0; row < cells.rows(); row++) {
      if (counted) {
        builder.cell(0, String.valueOf(options.firstNumber() + row));
      }
      if (source.parent().isPresent()) {
        builder.cell(1, parentKey(source.parent().get(), row));
      }
      for (int i = 0; i < kept.size(); i++) {
        builder.cell(own + i, texts.get(i)[cells.columns().get(kept.get(i)).code(row)]);
      }
      builder.endRow();
    }
    return builder.build();
  }

  private String parentKey(SourceTable.Parent parent, int row) {
    Imported header = tables.get(parent.table());
    return header
        .rows()
        .cell(parent.rowOf(row), header.table().primaryKey().getFirst())
        .orElseThrow();
  }

  /** For each code of a column its text as Joiner writes it. */
  private String[] canonical(int place, int column) {
    EncodedColumn cells = profiled.source().tables().get(place).cells().columns().get(column);
    ColumnProfile profile = profiled.profiles().get(place).get(column);
    String[] texts = new String[cells.codes()];
    for (int code = 0; code < texts.length; code++) {
      texts[code] = code == EncodedColumn.EMPTY ? "" : profile.canonical(cells.textOf(code));
    }
    return texts;
  }
}
