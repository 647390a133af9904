package joiner.audit;

import java.io.IOException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.concurrent.CancellationException;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.FiledRows;
import joiner.rows.RowSource;
import joiner.rows.Rows;
import joiner.rows.TableRows;

/** Where the rows of an audit are, and how they go by. */
sealed interface AuditRows {
  /** How many offending rows of a constraint of a table are named. */
  int mostNamed(TableId table);

  /** How many rows of a table go by at once at most. */
  int batchRows(TableId table);

  /** An object that is another when the cells of a field may be others. */
  Object identity(TableId table, FieldId field);

  /** How many rows of a table there are, where that is known. */
  int count(TableId table);

  /** Whether that is known; it is when they went by. */
  boolean isCounted(TableId table);

  /** Whether the rows of a table went by, all of them. */
  boolean wentBy(TableId table);

  /**
   * Lets the rows of a table go by.
   *
   * @throws IOException if they cannot be read
   */
  void go(Table table, TablePass pass) throws IOException;

  /** Told what was found in a table, once, as soon as all of it is known. */
  default void found(TableAudit table) {}

  /** The rows of a draft. */
  final class InMemory implements AuditRows {
    private final Draft draft;
    private final Audit.Watch watch;
    private final Set<TableId> done = new HashSet<>();

    InMemory(Draft draft, Audit.Watch watch) {
      this.draft = draft;
      this.watch = watch;
    }

    @Override
    public int mostNamed(TableId table) {
      return Integer.MAX_VALUE;
    }

    @Override
    public int batchRows(TableId table) {
      return Math.clamp(count(table), 1, CellBatch.ROWS);
    }

    @Override
    public Object identity(TableId table, FieldId field) {
      return draft.rows().of(table).identity(field);
    }

    @Override
    public int count(TableId table) {
      return draft.rows().of(table).count();
    }

    @Override
    public boolean isCounted(TableId table) {
      return true;
    }

    @Override
    public boolean wentBy(TableId table) {
      return done.contains(table);
    }

    @Override
    public void go(Table table, TablePass pass) {
      Rows rows = draft.rows().of(table.id());
      List<FieldId> fields = pass.fields();
      var batch = new CellBatch(fields.size(), batchRows(table.id()));
      var batches =
          new Batches(
              table.namesOf(fields),
              batch,
              full -> {
                take(table, pass, full);
                return full;
              });
      new TableRows(table, fields, rows).scan(batches);
      if (batches.last().rows() > 0) {
        take(table, pass, batches.last());
      }
      done.add(table.id());
    }

    private void take(Table table, TablePass pass, CellBatch batch) {
      if (!watch.goesOn(table.id(), batch.first())) {
        throw new CancellationException();
      }
      pass.take(batch);
    }
  }

  /** Rows that are read as they go by, while those before are looked at. */
  final class Streamed implements AuditRows {
    private static final int MOST_NAMED = 1_000;

    private final Map<TableId, RowSource> sources;
    private final Audit.Watch watch;
    private final Map<TableId, Integer> counts = new HashMap<>();

    Streamed(Map<TableId, ? extends RowSource> sources, Audit.Watch watch) {
      this.sources = Map.copyOf(sources);
      this.watch = watch;
    }

    @Override
    public int mostNamed(TableId table) {
      return MOST_NAMED;
    }

    @Override
    public int batchRows(TableId table) {
      return CellBatch.ROWS;
    }

    /** Nothing is known of before. */
    @Override
    public Object identity(TableId table, FieldId field) {
      return table;
    }

    @Override
    public int count(TableId table) {
      return counts.getOrDefault(table, 0);
    }

    @Override
    public boolean isCounted(TableId table) {
      return wentBy(table);
    }

    @Override
    public boolean wentBy(TableId table) {
      return !sources.containsKey(table) || counts.containsKey(table);
    }

    @Override
    public void go(Table table, TablePass pass) throws IOException {
      RowSource source = sources.get(table.id());
      if (source == null) {
        return;
      }
      try (var conveyor =
          new Conveyor(
              pass.fields().size(),
              batch -> {
                if (!watch.goesOn(table.id(), batch.first())) {
                  throw new CancellationException();
                }
                pass.take(batch);
              })) {
        var batches = new Batches(table.namesOf(pass.fields()), conveyor.empty(), conveyor::swap);
        source.scan(batches);
        conveyor.swap(batches.last());
        conveyor.finish();
      }
      counts.put(table.id(), pass.rows());
    }

    @Override
    public void found(TableAudit table) {
      watch.found(table);
    }
  }

  /** The rows of a draft, some of which stay in files that are read as they go by. */
  final class Mixed implements AuditRows {
    private final InMemory held;
    private final Streamed streamed;
    private final Map<TableId, FiledRows> files;
    private final KnownAudit known;

    Mixed(
        InMemory held,
        Map<TableId, ? extends FiledRows> files,
        KnownAudit known,
        Audit.Watch watch) {
      this.known = known;
      this.held = held;
      this.streamed = new Streamed(files, watch);
      this.files = Map.copyOf(files);
    }

    private AuditRows of(TableId table) {
      return files.containsKey(table) ? streamed : held;
    }

    @Override
    public int mostNamed(TableId table) {
      return of(table).mostNamed(table);
    }

    @Override
    public int batchRows(TableId table) {
      return of(table).batchRows(table);
    }

    @Override
    public Object identity(TableId table, FieldId field) {
      FiledRows file = files.get(table);
      return file == null ? held.identity(table, field) : file.identity(field);
    }

    @Override
    public int count(TableId table) {
      return before(table).orElseGet(() -> of(table).count(table));
    }

    @Override
    public boolean isCounted(TableId table) {
      return before(table).isPresent() || of(table).isCounted(table);
    }

    /** What a file is known to hold. */
    private OptionalInt before(TableId table) {
      FiledRows file = files.get(table);
      return file == null ? OptionalInt.empty() : known.count(table, file.state());
    }

    @Override
    public boolean wentBy(TableId table) {
      return of(table).wentBy(table);
    }

    @Override
    public void go(Table table, TablePass pass) throws IOException {
      of(table.id()).go(table, pass);
      FiledRows file = files.get(table.id());
      if (file != null) {
        known.keepCount(table.id(), file.state(), pass.rows());
      }
    }

    @Override
    public void found(TableAudit table) {
      streamed.found(table);
    }
  }
}
