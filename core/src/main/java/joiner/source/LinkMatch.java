package joiner.source;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import joiner.discovery.ColumnProfile;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.naming.NamingPolicy;
import joiner.rows.LinkedRows;

/**
 * Which columns of a file fill which fields of a table that is there: those of the same name, as
 * they were linked before, or as field or label is called.
 *
 * @param link the rows of the file as those of the table
 * @param withoutField headers of columns that no field has the name of
 * @param withoutColumn labels of fields that no column has the name of; they have no values
 */
public record LinkMatch(LinkedRows link, List<String> withoutField, List<String> withoutColumn) {
  public LinkMatch {
    withoutField = List.copyOf(withoutField);
    withoutColumn = List.copyOf(withoutColumn);
  }

  /**
   * Matches a file with a table.
   *
   * @param head the file as it was read ({@link SourceFile#readHead})
   * @param before how the table was linked before
   * @throws IllegalArgumentException if all rows of the file are held
   */
  public static LinkMatch of(Table table, ProfiledSource head, Optional<LinkedRows> before) {
    Source.Whole whole =
        head.source()
            .whole()
            .orElseThrow(() -> new IllegalArgumentException("the rows do not stay in a file"));
    Map<String, Field> names = names(table, before);
    var columns = new ArrayList<LinkedRows.Column>();
    var withoutField = new ArrayList<String>();
    List<Field> left = new ArrayList<>(table.fields());
    List<ColumnProfile> profiles = head.profiles().getFirst();
    for (int i = 0; i < profiles.size(); i++) {
      ColumnProfile profile = profiles.get(i);
      Optional<Field> field =
          keys(profile.header()).stream().map(names::get).filter(left::contains).findFirst();
      if (field.isPresent()) {
        left.remove(field.get());
        columns.add(column(field.get().id(), i, profile, before));
      } else {
        withoutField.add(profile.header());
      }
    }
    Optional<LinkedRows.Numbered> numbered =
        before
            .flatMap(LinkedRows::numbered)
            .filter(counter -> left.stream().anyMatch(f -> f.id().equals(counter.field())));
    numbered.ifPresent(counter -> left.removeIf(f -> f.id().equals(counter.field())));
    return new LinkMatch(
        whole.link(columns, numbered), withoutField, left.stream().map(Field::label).toList());
  }

  private static LinkedRows.Column column(
      FieldId field, int place, ColumnProfile profile, Optional<LinkedRows> before) {
    Map<String, String> replaced =
        before
            .flatMap(link -> link.column(field))
            .map(LinkedRows.Column::replaced)
            .orElse(Map.of());
    return new LinkedRows.Column(field, place, profile.header(), profile.form(), replaced);
  }

  /** By what a column may be called the field it fills; what was linked before goes first. */
  private static Map<String, Field> names(Table table, Optional<LinkedRows> before) {
    Map<String, Field> names = new HashMap<>();
    for (LinkedRows.Column column : before.map(LinkedRows::columns).orElse(List.of())) {
      names.putIfAbsent(exact(column.header()), table.field(column.field()));
    }
    for (Field field : table.fields()) {
      names.putIfAbsent(loose(field.name()), field);
    }
    for (Field field : table.fields()) {
      names.putIfAbsent(loose(field.label()), field);
    }
    return names;
  }

  private static List<String> keys(String header) {
    return List.of(exact(header), loose(header));
  }

  private static String exact(String header) {
    return "=" + header;
  }

  private static String loose(String header) {
    return NamingPolicy.nameFor(header).toLowerCase(Locale.ROOT);
  }
}
