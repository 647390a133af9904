package joiner.desktop.shape;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Request;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeRows;
import joiner.model.ByteSize;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.MediaType;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.StoredFile;

/** What can be done with cells that hold whole files, without a window; rows from 0. */
record FileCells(Workbench bench, SampleModel seen, Texts texts) {
  /** What can be done with one. */
  enum Deed {
    TAKE_IN,
    SAVE,
    TAKE_OUT
  }

  /** What was read of a file, or why it is not taken. */
  private sealed interface Taken {
    record In(String cell) implements Taken {}

    record Refused(String why) implements Taken {}
  }

  /** What can be done with a cell, the likeliest first. */
  List<Deed> deeds(int row, Field field) {
    var deeds = new ArrayList<>(List.of(Deed.TAKE_IN));
    if (!seen.cell(row, field.id()).isEmpty()) {
      deeds.addAll(List.of(Deed.SAVE, Deed.TAKE_OUT));
    }
    return deeds;
  }

  /** How names of files end that a field may hold, each with the point before it; none: any. */
  static List<String> endings(FieldType.Content type) {
    return type.media().stream().map(media -> "." + media.ending()).toList();
  }

  /** Puts the content of a file into a cell, unless the field may not hold it. */
  void takeIn(int row, Field field, FieldType.Content type, Path file) {
    Rows rows = seen.rows();
    Optional<Table> table = seen.shown();
    bench
        .runner()
        .start(
            Request.of(
                this,
                texts.get("content.reading", file.getFileName()),
                progress -> read(field, type, file),
                taken -> table.ifPresent(of -> put(of, rows, row, field, taken)),
                bench::tell));
  }

  private Taken read(Field field, FieldType.Content type, Path file) throws IOException {
    long size = Files.size(file);
    if (size > type.mostBytes()) {
      return new Taken.Refused(
          texts.get(
              "content.tooGreat",
              file.getFileName(),
              ByteSize.about(size),
              field.label(),
              ByteSize.of(type.mostBytes())));
    }
    byte[] content = Files.readAllBytes(file);
    boolean fits =
        type.media().isEmpty() || type.media().stream().anyMatch(media -> media.fits(content));
    String kinds = type.media().stream().map(MediaType::name).collect(Collectors.joining(", "));
    return fits
        ? new Taken.In(StoredFile.cell(content))
        : new Taken.Refused(
            texts.get("content.otherKind", file.getFileName(), field.label(), kinds));
  }

  private void put(Table table, Rows rows, int row, Field field, Taken taken) {
    switch (taken) {
      case Taken.In(String cell) ->
          bench.apply(ChangeRows.cell(table, rows, row, field, Optional.of(cell)));
      case Taken.Refused(String why) -> bench.tell(Notice.Sort.REFUSED, why);
    }
  }

  /** Writes the file that a cell holds to a place outside. */
  void save(int row, Field field, FieldType.Content type, Path to) {
    Optional<byte[]> content = StoredFile.content(seen.cell(row, field.id()), type);
    if (content.isEmpty()) {
      bench.tell(Notice.Sort.REFUSED, texts.get("content.none", field.label()));
      return;
    }
    bench
        .runner()
        .start(
            Request.of(
                this,
                texts.get("content.saving", to.getFileName()),
                progress -> Files.write(to, content.get()),
                saved ->
                    bench.tell(Notice.Sort.DONE, texts.get("content.saved", saved.getFileName())),
                bench::tell));
  }

  /** Leaves a cell without its file. */
  void takeOut(int row, Field field) {
    seen.edits().type(row, field, "");
  }

  /** A name under which the file of a cell may be kept. */
  String name(int row, Field field, FieldType.Content type) {
    String ending =
        StoredFile.content(seen.cell(row, field.id()), type)
            .flatMap(MediaType::of)
            .map(media -> "." + media.ending())
            .orElse("");
    return field.name() + "-" + seen.number(row) + ending;
  }
}
