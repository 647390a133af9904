package joiner.source;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;

/** Delimited text as people have it. */
final class RandomText {
  /** Texts of all forms, and some of none. */
  private static final List<String> TEXTS =
      List.of(
          "",
          "",
          " ",
          "007",
          "12",
          "-3",
          "+4",
          "1,5",
          "1.5",
          "1.234,50",
          "1,234.50",
          "12.03.2026",
          "3/14/2026",
          "14/03/2026",
          "2026-03-14",
          "14 Mar 2026",
          "2026-03-14 10:00",
          "9:30",
          "10:00:05",
          "yes",
          "no",
          "wahr",
          "true",
          "6F9619FF-8B86-4011-B42D-00C04FC964FF",
          "mara@example.org",
          " mara@example.org ",
          "Ofen süd",
          "=A1+2",
          "\"raku\"",
          "a;b",
          "a\nb",
          "open \"quote");

  private RandomText() {}

  /** A text of lines as people have them: of any separator, short, long, with open quotes. */
  static String of(Random random) {
    char separator = ",;\t|".charAt(random.nextInt(4));
    int columns = random.nextInt(1, 6);
    List<String> few = new ArrayList<>(TEXTS);
    Collections.shuffle(few, random);
    var text = new StringBuilder();
    for (int column = 0; column < columns; column++) {
      text.append(column == 0 ? "" : separator)
          .append(random.nextInt(8) == 0 ? "" : "Col " + column % 4);
    }
    for (int row = random.nextInt(40); row > 0; row--) {
      text.append('\n');
      int cells = random.nextInt(15) == 0 ? random.nextInt(1, 8) : columns;
      for (int column = 0; column < cells; column++) {
        String cell =
            few.get((column * 3 + random.nextInt(random.nextInt(5) == 0 ? 9 : 2)) % few.size());
        boolean quoted = random.nextInt(12) > 0 && cell.matches("(?s).*[\"\n" + separator + "].*");
        text.append(column == 0 ? "" : separator)
            .append(quoted ? "\"" + cell.replace("\"", "\"\"") + "\"" : cell);
      }
    }
    return text.append('\n').toString();
  }
}
