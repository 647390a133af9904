package joiner.naming;

import java.util.List;

/**
 * What constraints and indexes are called: two letters for the sort, then the table, then what they
 * are about.
 */
public final class ConstraintNaming {
  private ConstraintNaming() {}

  /** The primary key of a table. */
  public static String primaryKey(String table) {
    return "pk_" + table;
  }

  /** A further key of those fields. */
  public static String unique(String table, List<String> fields) {
    return joined("uq", table, fields);
  }

  /** A foreign key of those fields, or to the tables named in their stead. */
  public static String reference(String child, List<String> about) {
    return joined("fk", child, about);
  }

  /** An index on those fields, or for the tables named in their stead. */
  public static String index(String table, List<String> about) {
    return joined("ix", table, about);
  }

  /** A condition on one field; {@code what} it is about, as in {@code minimum}. */
  public static String check(String table, String field, String what) {
    return joined("ck", table, List.of(field, what));
  }

  /** The sequence by which a field counts up. */
  public static String sequence(String table, String field) {
    return joined("seq", table, List.of(field));
  }

  /** The view of a table in which all its fields are, whatever they are worked out from. */
  public static String view(String table) {
    return table + "_view";
  }

  /** The trigger that keeps what changes must not, or must, touch. */
  public static String keeping(String table) {
    return "keep_" + table;
  }

  /** The trigger that fills in what other rows say. */
  public static String copying(String table) {
    return "copy_" + table;
  }

  /** The trigger that numbers new rows. */
  public static String numbering(String table, String column) {
    return "number_" + table + "_" + column;
  }

  /** The trigger by which a new row must have another that refers to it. */
  public static String needing(String parent, String child) {
    return "need_" + parent + "_" + child;
  }

  /** The trigger by which the last row that refers to another stays. */
  public static String leaving(String parent, String child) {
    return "last_" + parent + "_" + child;
  }

  /** The table of the last numbers that were given. */
  public static String numbers(String table, String column) {
    return table + "_" + column + "_numbers";
  }

  private static String joined(String sort, String table, List<String> parts) {
    String name = sort + "_" + table;
    return parts.isEmpty() ? name : name + "_" + String.join("_", parts);
  }
}
