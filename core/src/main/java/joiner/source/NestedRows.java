package joiner.source;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import joiner.naming.NamingPolicy;
import joiner.rows.TableSink;

/**
 * Turns nested records into tables: values of a record become its row, a record within it that does
 * not repeat becomes further columns, and a repeating section becomes a table of its own whose rows
 * know the row they belong to.
 */
final class NestedRows {
  /** More sections than any real document has; deeper nesting is a mistake or an attack. */
  private static final int MOST_SECTIONS = 2_000;

  private final TableSinks sinks;
  private int sections;

  NestedRows(TableSinks sinks) {
    this.sinks = sinks;
  }

  /** A table on its own. */
  Section top(String name) {
    return new Section(name, sinks.table(name));
  }

  /** One table being filled. */
  final class Section {
    private final String name;
    private final TableSink sink;
    private final Map<String, Integer> columns = new HashMap<>();
    private final Map<String, Section> details = new LinkedHashMap<>();
    private int rows;

    private Section(String name, TableSink sink) {
      this.name = name;
      this.sink = sink;
    }

    /** What a row that is a plain value holds. */
    String valueHeader() {
      return NamingPolicy.singular(name);
    }

    /** Rows that have ended. */
    int rows() {
      return rows;
    }

    /** A value of the current row. */
    void cell(String header, String text) {
      sink.cell(columns.computeIfAbsent(header, sink::column), text);
    }

    /** Makes sure of a column, whether or not a row ever fills it. */
    void column(String header) {
      columns.computeIfAbsent(header, sink::column);
    }

    /** The section of that name that repeats in each row. */
    Section detail(String part) {
      return details.computeIfAbsent(
          part,
          p -> {
            if (++sections > MOST_SECTIONS) {
              throw new TooDeepException(
                  "there are more than " + MOST_SECTIONS + " sections within sections");
            }
            return new Section(p, sinks.section(NamingPolicy.singular(name) + " " + p, sink));
          });
    }

    /** Begins a row of a section that repeats in the current row of its parent. */
    void belongsTo(Section parent) {
      ((TableSinks.SectionSink) sink).belongsTo(parent.rows);
    }

    void endRow(long line) {
      sink.endRow(line);
      rows++;
    }
  }

  /** A document nested beyond reason. */
  static final class TooDeepException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    TooDeepException(String message) {
      super(message);
    }
  }
}
