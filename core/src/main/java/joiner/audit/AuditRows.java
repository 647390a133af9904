package joiner.audit;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.RowSource;
import joiner.rows.Rows;
import joiner.rows.TableRows;

/** Where the rows of an audit are, and how they go by. */
sealed interface AuditRows {
  /** How many offending rows of a constraint are named. */
  int mostNamed();

  /** How many rows of a table go by at once at most. */
  int batchRows(TableId table);

  /** An object that is another when the cells of a field may be others. */
  Object identity(TableId table, FieldId field);

  /** How many rows of a table there are, at least when they went by. */
  int count(TableId table);

  /** Whether the rows of a table went by, all of them. */
  boolean wentBy(TableId table);

  /** Lets the rows of a table go by. */
  void go(Table table, TablePass pass);

  /** Told what was found in a table, once, as soon as all of it is known. */
  default void found(TableAudit table) {}

  /** The rows of a draft. */
  final class InMemory implements AuditRows {
    private final Draft draft;
    private final BooleanSupplier cancelled;
    private final Set<TableId> done = new HashSet<>();

    InMemory(Draft draft, BooleanSupplier cancelled) {
      this.draft = draft;
      this.cancelled = cancelled;
    }

    @Override
    public int mostNamed() {
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
                take(pass, full);
                return full;
              });
      new TableRows(table, fields, rows).scan(batches);
      if (batches.last().rows() > 0) {
        take(pass, batches.last());
      }
      done.add(table.id());
    }

    private void take(TablePass pass, CellBatch batch) {
      if (cancelled.getAsBoolean()) {
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

    Streamed(Map<TableId, RowSource> sources, Audit.Watch watch) {
      this.sources = Map.copyOf(sources);
      this.watch = watch;
    }

    @Override
    public int mostNamed() {
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
    public boolean wentBy(TableId table) {
      return !sources.containsKey(table) || counts.containsKey(table);
    }

    @Override
    public void go(Table table, TablePass pass) {
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
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
      counts.put(table.id(), pass.rows());
    }

    @Override
    public void found(TableAudit table) {
      watch.found(table);
    }
  }
}
