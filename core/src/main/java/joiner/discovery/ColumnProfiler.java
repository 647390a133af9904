package joiner.discovery;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import joiner.discovery.ColumnProfile.Disagreeing;
import joiner.discovery.ColumnProfile.Note;
import joiner.expression.Width;
import joiner.model.FieldType;
import joiner.rows.ValueForm;

/**
 * Looks at the values of a column one by one. Each different value is examined once and only
 * counted afterwards; memory is bounded, whatever the number of rows.
 */
public final class ColumnProfiler {
  /** Different values kept exactly. */
  private static final int DISTINCT = 4_000_000;

  /** Values kept that do not have a form. */
  private static final int TOLD = 20;

  /** Share of values that must have a form for it to be proposed. */
  private static final double ENOUGH = 0.95;

  /** Forms of a whole number as it is usually written. */
  private static final int PLAIN =
      ValueForm.WHOLE.bit() | ValueForm.NUMBER_POINT.bit() | ValueForm.NUMBER_COMMA.bit();

  private final String header;
  private final DistinctTexts distinct = new DistinctTexts(DISTINCT);

  /** Sets of forms met so far, and how many values have each. */
  private final List<Integer> combinations = new ArrayList<>();

  private final long[] combinationCounts = new long[256];
  private final boolean[] toldOf = new boolean[256];
  private final Map<ValueForm, List<Disagreeing>> misfits = new EnumMap<>(ValueForm.class);
  private final Map<ValueForm, ValueRange> ranges = new EnumMap<>(ValueForm.class);
  private final FrequentTexts frequent = new FrequentTexts();
  private long seen;

  /** Plain whole numbers, the most frequent numbers by far, are compared as such. */
  private long leastPlain = Long.MAX_VALUE;

  private long greatestPlain = Long.MIN_VALUE;
  private int shortest = Integer.MAX_VALUE;
  private int longest;
  private boolean outerBlanks;
  private boolean formulas;

  /** A profiler for a column of that header. */
  public ColumnProfiler(String header) {
    this.header = header;
  }

  /**
   * Sees the next value.
   *
   * @param text empty for an empty cell
   * @param row from 0
   */
  public void see(String text, long row) {
    if (text.isEmpty()) {
      return;
    }
    see(text.toCharArray(), 0, text.length(), row);
  }

  /**
   * Sees the next value, given as characters.
   *
   * @param row from 0
   */
  public void see(char[] chars, int offset, int length, long row) {
    seen++;
    long hash = DistinctTexts.hash(chars, offset, length);
    int combination = distinct.markOf(hash);
    if (combination < 0) {
      String text = new String(chars, offset, length);
      combination = examine(text);
      distinct.add(hash, combination);
      frequent.add(hash, text);
    } else {
      frequent.count(hash);
    }
    combinationCounts[combination]++;
    if (!toldOf[combination]) {
      String text = new String(chars, offset, length);
      toldOf[combination] = keepMisfit(text, row, combinations.get(combination));
    }
  }

  /** Looks at a value closely; gives the number of its set of forms. */
  private int examine(String text) {
    int length = text.codePointCount(0, text.length());
    shortest = Math.min(shortest, length);
    longest = Math.max(longest, length);
    outerBlanks |= text.charAt(0) <= ' ' || text.charAt(text.length() - 1) <= ' ';
    formulas |= text.charAt(0) == '=' && length > 1;
    int forms = FormReader.forms(text);
    ranges.computeIfAbsent(ValueForm.TEXT, ValueRange::new).see(text);
    if (forms == PLAIN && length <= 18) {
      long number = Long.parseLong(text.strip());
      leastPlain = Math.min(leastPlain, number);
      greatestPlain = Math.max(greatestPlain, number);
    } else {
      for (ValueForm form : ValueForm.all()) {
        if ((forms & form.bit()) != 0) {
          ranges.computeIfAbsent(form, ValueRange::new).see(text);
        }
      }
    }
    int known = combinations.indexOf(forms);
    if (known < 0) {
      known = combinations.size();
      combinations.add(forms);
    }
    return known;
  }

  /** Keeps a value for the forms it has not; true once enough are kept for each of them. */
  private boolean keepMisfit(String text, long row, int forms) {
    boolean enough = true;
    for (ValueForm form : ValueForm.all()) {
      if ((forms & form.bit()) == 0) {
        List<Disagreeing> told = misfits.computeIfAbsent(form, f -> new ArrayList<>());
        if (told.size() < TOLD) {
          told.add(new Disagreeing(text, row + 1));
        }
        enough &= told.size() == TOLD;
      }
    }
    return enough;
  }

  /** What was seen, in a table of so many rows. */
  public ColumnProfile profile(long rows) {
    if (leastPlain <= greatestPlain) {
      for (ValueForm number : ValueForm.all()) {
        if (number.isNumber()) {
          ranges.computeIfAbsent(number, ValueRange::new).join(leastPlain, greatestPlain);
        }
      }
    }
    Set<Note> notes = EnumSet.noneOf(Note.class);
    ValueForm form = form(notes);
    note(outerBlanks, Note.OUTER_BLANKS, notes);
    note(formulas, Note.FORMULAS, notes);
    ValueRange range = ranges.get(form);
    return new ColumnProfile(
        header,
        type(form),
        form,
        rows,
        rows - seen,
        form == ValueForm.TEXT ? seen : having(form.bit()),
        form == ValueForm.TEXT ? List.of() : misfits.getOrDefault(form, List.of()),
        Math.min(distinct.count(), seen), // An estimate may be beyond.
        distinct.exact(),
        seen == 0 ? 0 : shortest,
        longest,
        range == null ? "" : range.min(),
        range == null ? "" : range.max(),
        notes,
        frequent.all());
  }

  /** How many values have all forms and marks of a set. */
  private long having(int bits) {
    long count = 0;
    for (int i = 0; i < combinations.size(); i++) {
      count += (combinations.get(i) & bits) == bits ? combinationCounts[i] : 0;
    }
    return count;
  }

  /** The form most values have, of those that nearly all have; notes what speaks for it. */
  private ValueForm form(Set<Note> notes) {
    ValueForm best = ValueForm.TEXT;
    long most = 0;
    for (ValueForm form : ValueForm.all()) {
      long count = having(form.bit());
      if (count > most && enough(count) && possible(form)) {
        best = form;
        most = count;
      }
    }
    if (best.isNumber() && having(best.bit() | FormReader.LEADING_ZEROS) > 0) {
      notes.add(Note.LEADING_ZEROS);
      return ValueForm.TEXT;
    }
    note(having(best.bit() | FormReader.GROUPED) > 0, Note.GROUPED, notes);
    note(having(best.bit() | FormReader.SHORT_YEAR) > 0, Note.SHORT_YEARS, notes);
    explain(best, most, notes);
    return best;
  }

  private void explain(ValueForm form, long count, Set<Note> notes) {
    switch (form) {
      case DATE_DAY_FIRST, DATE_TIME_DAY_FIRST -> {
        ValueForm other =
            form == ValueForm.DATE_DAY_FIRST
                ? ValueForm.DATE_MONTH_FIRST
                : ValueForm.DATE_TIME_MONTH_FIRST;
        notes.add(having(other.bit()) == count ? Note.DAY_FIRST_UNDECIDED : Note.DAY_ORDER_PROVED);
      }
      case DATE_MONTH_FIRST, DATE_TIME_MONTH_FIRST -> notes.add(Note.DAY_ORDER_PROVED);
      case NUMBER_POINT ->
          note(having(ValueForm.NUMBER_COMMA.bit()) == count, Note.DECIMAL_UNDECIDED, notes);
      default -> {}
    }
  }

  private static void note(boolean holds, Note note, Set<Note> notes) {
    if (holds) {
      notes.add(note);
    }
  }

  /** Few exceptions in many values are mistakes; in few values they are what there is. */
  private boolean enough(long count) {
    return count == seen || seen >= 20 && count >= ENOUGH * seen;
  }

  private boolean possible(ValueForm form) {
    if (form != ValueForm.TRUTH) {
      return form != ValueForm.TEXT;
    }
    ValueRange range = ranges.get(form);
    return range != null && range.min().equals("false") && range.max().equals("true");
  }

  private FieldType type(ValueForm form) {
    ValueRange range = ranges.get(form);
    return switch (form) {
      case WHOLE -> whole(new BigInteger(range.min()), new BigInteger(range.max()));
      case NUMBER_POINT, NUMBER_COMMA -> range.decimal();
      case DATE_ISO, DATE_DAY_FIRST, DATE_MONTH_FIRST, DATE_NAMED -> new FieldType.Date();
      case DATE_TIME, DATE_TIME_DAY_FIRST, DATE_TIME_MONTH_FIRST -> new FieldType.DateTime(false);
      case DATE_TIME_ZONED -> new FieldType.DateTime(true);
      case TIME -> new FieldType.Time();
      case TRUTH -> new FieldType.TrueFalse();
      case UUID -> new FieldType.Uuid();
      case EMAIL -> new FieldType.Email(roomy());
      case TEXT -> longest > 1000 ? new FieldType.LongText() : new FieldType.Text(roomy());
    };
  }

  private static FieldType whole(BigInteger min, BigInteger max) {
    int bits = Math.max(min.bitLength(), max.bitLength());
    if (bits < 32) {
      return new FieldType.WholeNumber(Width.BITS_32);
    }
    return bits < 64 ? new FieldType.WholeNumber(Width.BITS_64) : new FieldType.AnyNumber();
  }

  private int roomy() {
    return longest == 0 ? 40 : FieldType.roomyLength(longest);
  }
}
