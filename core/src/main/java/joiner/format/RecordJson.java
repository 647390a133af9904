package joiner.format;

import java.lang.reflect.Constructor;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import joiner.expression.Formula;
import joiner.model.FieldId;
import joiner.rows.Rows;
import org.jspecify.annotations.Nullable;

/**
 * Records as JSON, component by component, and back. It serves what Joiner writes for itself and
 * nobody else reads: a record that gets another shape later is then no longer understood, which is
 * told. Of sealed interfaces the record's name goes along; a record of one text is that text.
 */
final class RecordJson {
  private static final String KIND = "is";

  private RecordJson() {}

  static Json write(Object value) {
    return switch (value) {
      case String text -> new Json.Text(text, 0);
      case Integer number -> new Json.Num(number.toString(), 0);
      case Long number -> new Json.Num(number.toString(), 0);
      case Boolean truth -> new Json.Bool(truth, 0);
      case Enum<?> constant -> new Json.Text(constant.name(), 0);
      case Formula formula -> new Json.Text(formula.text(), 0);
      case Optional<?> optional -> optional.isPresent() ? write(optional.get()) : new Json.Null(0);
      case OptionalInt optional ->
          optional.isPresent() ? write(optional.getAsInt()) : new Json.Null(0);
      case Collection<?> list -> new Json.Arr(list.stream().map(RecordJson::write).toList(), 0);
      case Map<?, ?> map -> {
        var json = new Json.Obj();
        map.forEach((key, item) -> json.put((String) key, write(item)));
        yield json;
      }
      case Rows rows -> write(rows);
      case Record record -> write(record);
      default -> throw new IllegalArgumentException(value.getClass() + " is no record");
    };
  }

  private static Json write(Rows rows) {
    var columns = new Json.Obj();
    for (FieldId field : rows.fields()) {
      var cells = new ArrayList<Json>(rows.count());
      for (int row = 0; row < rows.count(); row++) {
        cells.add(write(rows.cell(row, field)));
      }
      columns.put(field.value(), new Json.Arr(cells, 0));
    }
    return new Json.Obj().put("count", rows.count()).put("columns", columns);
  }

  private static Json write(Record record) {
    RecordComponent[] components = record.getClass().getRecordComponents();
    if (isText(record.getClass())) {
      return write(get(record, components[0]));
    }
    var json = new Json.Obj();
    if (isOneOfSeveral(record.getClass())) {
      json.put(KIND, record.getClass().getSimpleName());
    }
    for (RecordComponent component : components) {
      json.put(component.getName(), write(get(record, component)));
    }
    return json;
  }

  private static boolean isText(Class<?> record) {
    RecordComponent[] components = record.getRecordComponents();
    return components.length == 1
        && components[0].getType() == String.class
        && !isOneOfSeveral(record);
  }

  private static boolean isOneOfSeveral(Class<?> record) {
    for (Class<?> type : record.getInterfaces()) {
      if (type.isSealed()) {
        return true;
      }
    }
    return false;
  }

  private static Object get(Record record, RecordComponent component) {
    try {
      return component.getAccessor().invoke(record);
    } catch (IllegalAccessException | InvocationTargetException e) {
      throw new IllegalStateException(e);
    }
  }

  /**
   * What JSON says of a type.
   *
   * @throws UnreadableFileException if it says something else
   */
  static <T> T read(Json json, Class<T> type, Path file) throws UnreadableFileException {
    return type.cast(value(json, type, file));
  }

  private static @Nullable Object value(Json json, Type type, Path file)
      throws UnreadableFileException {
    if (type instanceof ParameterizedType generic) {
      return generic(json, generic, file);
    }
    var wanted = (Class<?>) type;
    if (wanted == OptionalInt.class) {
      return json instanceof Json.Num number
          ? OptionalInt.of(whole(number, file))
          : OptionalInt.empty();
    }
    if (wanted == Rows.class) {
      return rows(json, file);
    }
    if (wanted.isSealed()) {
      return oneOf(json, wanted, file);
    }
    if (wanted.isRecord() && !isText(wanted)) {
      return record(json, wanted, file);
    }
    return switch (json) {
      case Json.Num number when wanted == int.class -> whole(number, file);
      case Json.Num number when wanted == long.class -> longWhole(number, file);
      case Json.Bool truth when wanted == boolean.class -> truth.value();
      case Json.Text text when wanted == String.class -> text.text();
      case Json.Text text when wanted == Formula.class -> new Formula(text.text());
      case Json.Text text when wanted.isEnum() -> constant(text, wanted, file);
      case Json.Text text when wanted.isRecord() -> make(wanted, List.of(text.text()), json, file);
      default -> throw strange(json, wanted, file);
    };
  }

  private static Object generic(Json json, ParameterizedType type, Path file)
      throws UnreadableFileException {
    Type[] of = type.getActualTypeArguments();
    if (type.getRawType() == Optional.class) {
      return json instanceof Json.Null
          ? Optional.empty()
          : Optional.ofNullable(value(json, of[0], file));
    }
    boolean set = type.getRawType() == Set.class;
    if ((set || type.getRawType() == List.class) && json instanceof Json.Arr array) {
      var list = new ArrayList<@Nullable Object>();
      for (Json item : array.items()) {
        list.add(value(item, of[0], file));
      }
      return set ? new LinkedHashSet<>(list) : list;
    }
    if (type.getRawType() == Map.class && json instanceof Json.Obj object) {
      Map<String, @Nullable Object> map = new LinkedHashMap<>();
      for (Map.Entry<String, Json> entry : object.members().entrySet()) {
        map.put(entry.getKey(), value(entry.getValue(), of[1], file));
      }
      return map;
    }
    throw strange(json, (Class<?>) type.getRawType(), file);
  }

  private static Object oneOf(Json json, Class<?> sealed, Path file)
      throws UnreadableFileException {
    if (json instanceof Json.Obj object
        && object.get(KIND).orElse(json) instanceof Json.Text kind) {
      for (Class<?> leaf : leaves(sealed)) {
        if (leaf.getSimpleName().equals(kind.text())) {
          return record(json, leaf, file);
        }
      }
    }
    throw strange(json, sealed, file);
  }

  private static Set<Class<?>> leaves(Class<?> sealed) {
    var leaves = new LinkedHashSet<Class<?>>();
    for (Class<?> permitted : sealed.getPermittedSubclasses()) {
      if (permitted.isSealed()) {
        leaves.addAll(leaves(permitted));
      } else {
        leaves.add(permitted);
      }
    }
    return leaves;
  }

  private static Object record(Json json, Class<?> type, Path file) throws UnreadableFileException {
    if (!(json instanceof Json.Obj object)) {
      throw strange(json, type, file);
    }
    var values = new ArrayList<@Nullable Object>();
    for (RecordComponent component : type.getRecordComponents()) {
      Optional<Json> member = object.get(component.getName());
      if (member.isEmpty() && component.getType() == Optional.class) {
        values.add(Optional.empty()); // Written before there was such a thing.
        continue;
      }
      if (member.isEmpty()) {
        throw strange(json, type, file);
      }
      values.add(value(member.get(), component.getGenericType(), file));
    }
    return make(type, values, json, file);
  }

  private static Object make(Class<?> type, List<@Nullable Object> values, Json json, Path file)
      throws UnreadableFileException {
    var types = new ArrayList<Class<?>>();
    for (RecordComponent component : type.getRecordComponents()) {
      types.add(component.getType());
    }
    try {
      Constructor<?> constructor = type.getDeclaredConstructor(types.toArray(new Class<?>[0]));
      return constructor.newInstance(values.toArray());
    } catch (ReflectiveOperationException e) {
      throw strange(json, type, file);
    }
  }

  private static Rows rows(Json json, Path file) throws UnreadableFileException {
    if (json instanceof Json.Obj object
        && object.get("count").orElse(json) instanceof Json.Num count
        && object.get("columns").orElse(json) instanceof Json.Obj columns) {
      int rows = whole(count, file);
      var fields = columns.members().keySet().stream().map(FieldId::new).toList();
      var builder = new Rows.Builder(fields);
      List<Json> lists = List.copyOf(columns.members().values());
      for (int row = 0; row < rows; row++) {
        for (int i = 0; i < lists.size(); i++) {
          int field = i;
          cell(lists.get(i), row, rows, file).ifPresent(text -> builder.cell(field, text));
        }
        builder.endRow();
      }
      return builder.build();
    }
    throw strange(json, Rows.class, file);
  }

  private static Optional<String> cell(Json column, int row, int rows, Path file)
      throws UnreadableFileException {
    if (column instanceof Json.Arr cells && cells.items().size() == rows) {
      return switch (cells.items().get(row)) {
        case Json.Text text -> Optional.of(text.text());
        case Json.Null none -> Optional.empty();
        case Json other -> throw strange(other, String.class, file);
      };
    }
    throw strange(column, Rows.class, file);
  }

  private static long longWhole(Json.Num number, Path file) throws UnreadableFileException {
    try {
      return Long.parseLong(number.text());
    } catch (NumberFormatException e) {
      throw strange(number, long.class, file);
    }
  }

  private static int whole(Json.Num number, Path file) throws UnreadableFileException {
    try {
      return Integer.parseInt(number.text());
    } catch (NumberFormatException e) {
      throw strange(number, int.class, file);
    }
  }

  private static Object constant(Json.Text text, Class<?> type, Path file)
      throws UnreadableFileException {
    for (Object constant : type.getEnumConstants()) {
      if (((Enum<?>) constant).name().equals(text.text())) {
        return constant;
      }
    }
    throw strange(text, type, file);
  }

  private static UnreadableFileException strange(Json json, Class<?> wanted, Path file) {
    return new UnreadableFileException(
        file, json.line(), json.kind() + " stands where a " + wanted.getSimpleName() + " should.");
  }
}
