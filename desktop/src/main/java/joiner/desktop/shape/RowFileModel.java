package joiner.desktop.shape;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Progress;
import joiner.desktop.work.Request;
import joiner.desktop.work.Workbench;
import joiner.edit.HoldRows;
import joiner.edit.LinkTable;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;
import joiner.source.LinkMatch;
import joiner.source.LinkedFile;
import joiner.source.ReadingOptions;
import joiner.source.SourceFile;

/** What can be done with rows that stay in a file, without a window. */
final class RowFileModel {
  private final Workbench bench;
  private final Texts texts;

  RowFileModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
  }

  /** The file the rows of a table stay in. */
  Optional<LinkedRows> link(TableId table) {
    return bench.draft().rows().link(table);
  }

  /** Lets the rows of a table be those of a file; columns are found by their names. */
  void link(Table table, Path file) {
    Optional<LinkedRows> before = link(table.id());
    bench
        .runner()
        .start(
            Request.of(
                this,
                texts.get("file.looking", file.getFileName()),
                progress -> match(table, file, before, progress),
                match -> linked(table, match),
                bench::tell));
  }

  private static LinkMatch match(
      Table table, Path file, Optional<LinkedRows> before, Progress progress) throws Exception {
    ReadingOptions told =
        ReadingOptions.DETECT.stoppedBy(progress::stopped).telling(progress::share);
    return LinkMatch.of(table, SourceFile.readHead(file, told), before);
  }

  private void linked(Table table, LinkMatch match) {
    String file = match.link().fileName();
    if (match.link().columns().isEmpty()) {
      bench.tell(
          Notice.Sort.REFUSED,
          texts.get("file.none", file, table.label(), some(match.withoutField())));
      return;
    }
    if (bench.apply(() -> new LinkTable(table.id(), table.label(), Optional.of(match.link())))) {
      bench.tellDone(
          texts.get("file.linked", match.link().count(), table.label(), file), texts.get("undo"));
      if (!match.withoutField().isEmpty()) {
        bench.tell(Notice.Sort.HINT, texts.get("file.columns", file, some(match.withoutField())));
      }
      if (!match.withoutColumn().isEmpty()) {
        bench.tell(Notice.Sort.HINT, texts.get("file.fields", file, some(match.withoutColumn())));
      }
    }
  }

  private static String some(List<String> names) {
    int shown = 8;
    String some = String.join(", ", names.subList(0, Math.min(shown, names.size())));
    return names.size() > shown ? some + ", …" : some;
  }

  /** Takes the rows of a table into the design. */
  void hold(Table table) {
    link(table.id())
        .ifPresent(
            link ->
                bench
                    .runner()
                    .start(
                        Request.of(
                            this,
                            texts.get("file.holding", link.fileName()),
                            progress -> LinkedFile.of(table, link, progress::stopped).held(),
                            rows -> held(table, link, rows),
                            bench::tell)));
  }

  private void held(Table table, LinkedRows link, Rows rows) {
    if (bench.apply(() -> new HoldRows(table.id(), table.label(), link, rows))) {
      bench.tellDone(texts.get("file.held", rows.count(), table.label()), texts.get("undo"));
    }
  }

  /** Reads the file no more; the table has no rows then. */
  void unlink(Table table) {
    bench.apply(new LinkTable(table.id(), table.label(), Optional.empty()));
    bench.tellDone(texts.get("file.unlinked", table.label()), texts.get("undo"));
  }
}
