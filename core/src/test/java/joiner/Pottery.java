package joiner;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.expression.Width;
import joiner.format.DesignFolder;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.rows.Rows;

/** Designs and rows from the pottery studio that many tests use. */
public final class Pottery {
  /** A fixed day, so that rules that read the clock give the same verdict every day. */
  public static final Clock CLOCK =
      Clock.fixed(Instant.parse("2026-10-01T12:00:00Z"), ZoneOffset.UTC);

  private Pottery() {}

  /** The demo design with its rows. */
  public static Draft demo() {
    return open("saltmarsh-pottery");
  }

  /** The copy with planted defects. */
  public static Draft broken() {
    return open("saltmarsh-pottery-broken");
  }

  private static Draft open(String name) {
    try {
      return DesignFolder.open(folder(name)).draft();
    } catch (Exception e) {
      throw new IllegalStateException("the demo cannot be read", e);
    }
  }

  /** Where a demo design stands. */
  public static Path folder(String name) {
    return Path.of("..", "demo", name).toAbsolutePath().normalize();
  }

  /** A firing with a kiln name, a peak, a start and an end, and whether it was glazed. */
  public static Table firing() {
    return Table.of("firing", "Firing", new Noun("firing", "firings"))
        .withFields(
            List.of(
                Field.of("firing_id", "Firing number", new FieldType.Counter(Width.BITS_32)),
                Field.of("kiln", "Kiln", new FieldType.Text(12)),
                Field.of("peak_c", "Peak", new FieldType.WholeNumber(Width.BITS_16)),
                Field.of("cost", "Cost", new FieldType.Decimal(8, 2)),
                Field.of("day", "Day", new FieldType.Date()),
                Field.of("started_at", "Started", new FieldType.DateTime(false)),
                Field.of("ended_at", "Ended", new FieldType.DateTime(false)),
                Field.of("glazed", "Glazed", new FieldType.TrueFalse())));
  }

  /** Rows of a table from texts; the empty text is NULL. */
  public static Rows rows(Table table, List<List<String>> cells) {
    var rows = new ArrayList<List<Optional<String>>>();
    for (List<String> row : cells) {
      rows.add(row.stream().map(text -> Optional.of(text).filter(t -> !t.isEmpty())).toList());
    }
    return Rows.of(table.fields().stream().map(Field::id).toList(), rows);
  }
}
