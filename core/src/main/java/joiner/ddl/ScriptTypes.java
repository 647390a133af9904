package joiner.ddl;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.catalog.SpelledType;
import joiner.catalog.SqlType;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.expression.Width;

/** Types as scripts spell them, of one engine or of any. */
final class ScriptTypes {
  private static final int LONGEST = 1_000_000;

  private final List<Dialect> dialects;

  /** Types of that engine, or of all in their order. */
  ScriptTypes(Optional<Dialect> dialect) {
    dialects = Stream.concat(dialect.stream(), Dialects.ALL.stream()).distinct().toList();
  }

  SqlType understand(String spelled) {
    Optional<SpelledType> parts = SpelledType.of(spelled.replaceAll("[\"`\\[\\]]", ""));
    if (parts.isEmpty()) {
      return new SqlType.Other(spelled);
    }
    String name = parts.get().name();
    List<Integer> numbers = parts.get().numbers();
    SqlType elsewhere = elsewhere(name, numbers);
    if (!(elsewhere instanceof SqlType.Other)) {
      return elsewhere;
    }
    for (Dialect dialect : dialects) {
      SqlType type = dialect.understand(name, numbers);
      if (!(type instanceof SqlType.Other)) {
        return type;
      }
    }
    return new SqlType.Other(spelled);
  }

  /** What engines have that no dialect of Joiner spells, and other words for the same. */
  private static SqlType elsewhere(String name, List<Integer> numbers) {
    return switch (name) {
      case "char", "character", "nchar", "nvarchar", "varchar2", "nvarchar2", "bpchar" ->
          numbers.isEmpty() || numbers.getFirst() >= LONGEST
              ? name.endsWith("char") && numbers.isEmpty() && !name.startsWith("nv")
                  ? new SqlType.Varchar(1)
                  : new SqlType.LongText()
              : new SqlType.Varchar(numbers.getFirst());
      case "tinytext", "mediumtext", "ntext", "nclob", "varchar max" -> new SqlType.LongText();
      case "tinyint" ->
          numbers.equals(List.of(1)) ? new SqlType.TrueFalse() : new SqlType.Whole(Width.BITS_16);
      case "mediumint" -> new SqlType.Whole(Width.BITS_32);
      case "smallint", "int", "integer", "bigint" -> whole(name);
      case "number" -> oracle(numbers);
      case "money" -> new SqlType.Decimal(19, 4);
      case "numeric", "decimal" ->
          numbers.size() == 1
              ? new SqlType.Decimal(numbers.getFirst(), 0)
              : new SqlType.Other(name);
      case "real", "double", "double precision", "float", "float4", "float8" ->
          new SqlType.AnyNumber();
      case "smalldatetime" -> new SqlType.Timestamp(false);
      default -> new SqlType.Other(name);
    };
  }

  /** Widths of display, as {@code int(11)}, say nothing of values. */
  private static SqlType whole(String name) {
    return new SqlType.Whole(
        switch (name) {
          case "smallint" -> Width.BITS_16;
          case "bigint" -> Width.BITS_64;
          default -> Width.BITS_32;
        });
  }

  private static SqlType oracle(List<Integer> numbers) {
    if (numbers.isEmpty()) {
      return new SqlType.AnyNumber();
    }
    int scale = numbers.size() > 1 ? numbers.get(1) : 0;
    int precision = numbers.getFirst();
    if (scale == 0 && precision < 19) {
      return new SqlType.Whole(
          precision < 5 ? Width.BITS_16 : precision < 10 ? Width.BITS_32 : Width.BITS_64);
    }
    return new SqlType.Decimal(precision, scale);
  }
}
