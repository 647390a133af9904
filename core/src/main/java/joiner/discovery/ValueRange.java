package joiner.discovery;

import java.math.BigDecimal;
import joiner.model.FieldType;
import joiner.rows.ValueForm;

/** Least and greatest value of a column read in one form, and how many digits its numbers have. */
final class ValueRange {
  private final ValueForm form;
  private String min = "";
  private String max = "";
  private boolean any;

  /** Numbers between these, as nearly as a double tells, change nothing. */
  private double least = Double.POSITIVE_INFINITY;

  private double greatest = Double.NEGATIVE_INFINITY;
  private int wholeDigits = 1;
  private int decimals;

  ValueRange(ValueForm form) {
    this.form = form;
  }

  void see(String text) {
    if (form.isNumber()) {
      seeNumber(FormReader.canonical(text, form));
    } else {
      order(form == ValueForm.TEXT ? text : FormReader.canonical(text, form));
    }
  }

  private void seeNumber(String value) {
    measure(value);
    double number = Double.parseDouble(value);
    if (number <= least || number >= greatest) {
      compare(value);
      least = Math.min(least, number);
      greatest = Math.max(greatest, number);
    }
  }

  /** Takes in whole numbers between two. */
  void join(long from, long to) {
    seeNumber(String.valueOf(from));
    seeNumber(String.valueOf(to));
  }

  private void order(String value) {
    min = !any || value.compareTo(min) < 0 ? value : min;
    max = !any || value.compareTo(max) > 0 ? value : max;
    any = true;
  }

  private void compare(String value) {
    var number = new BigDecimal(value);
    min = !any || number.compareTo(new BigDecimal(min)) < 0 ? value : min;
    max = !any || number.compareTo(new BigDecimal(max)) > 0 ? value : max;
    any = true;
  }

  private void measure(String value) {
    int sign = value.charAt(0) == '-' ? 1 : 0;
    int point = value.indexOf('.');
    wholeDigits = Math.max(wholeDigits, (point < 0 ? value.length() : point) - sign);
    decimals = Math.max(decimals, point < 0 ? 0 : value.length() - point - 1);
  }

  String min() {
    return min;
  }

  String max() {
    return max;
  }

  /** A decimal that holds all numbers, with two digits of head-room. */
  FieldType decimal() {
    int precision = wholeDigits + 2 + decimals;
    return precision <= 38 && decimals <= 12
        ? new FieldType.Decimal(precision, decimals)
        : new FieldType.AnyNumber();
  }
}
