package joiner.engine;

import java.util.List;
import joiner.catalog.SqlType;

/**
 * How much room an engine needs for rows, on the whole: what a row takes with all that belongs to
 * it, pages and all, where there are many of them and none was changed since. An estimate; each
 * engine names its source.
 */
public interface Storage {
  /**
   * A column and what its values are like.
   *
   * @param filled which part of the rows has a value, 0 to 1
   * @param bytes of an average value as a text in UTF-8, where there is one
   */
  record Stored(SqlType type, double filled, double bytes) {}

  /**
   * Bytes of a row.
   *
   * @param key places of the primary key's columns, from 0; none: it has no key
   */
  double row(List<Stored> columns, List<Integer> key);

  /**
   * Bytes of a row in an index.
   *
   * @param indexed places of the columns of the index
   * @param key places of the primary key's columns
   */
  double entry(List<Stored> columns, List<Integer> indexed, List<Integer> key);
}
