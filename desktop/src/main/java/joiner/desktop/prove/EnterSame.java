package joiner.desktop.prove;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import joiner.audit.Violation;
import joiner.desktop.work.Workbench;
import joiner.entry.Entered;
import joiner.entry.Refusal;
import joiner.expression.Checked;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.OwnField;
import joiner.model.Table;
import joiner.naming.SameName;
import joiner.rows.EnteredText;
import joiner.rows.RowId;
import joiner.rows.Rows;

/** Rows that are there already and that people would call the same as the one being entered. */
final class EnterSame {
  private final EnterModel model;
  private final Workbench bench;

  EnterSame(EnterModel model, Workbench bench) {
    this.model = model;
    this.bench = bench;
  }

  /** A row that is there already under the key that is typed. */
  Optional<RowId> existing() {
    Optional<Refusal> twice =
        model.refusals().stream()
            .filter(r -> r.kind() == Violation.Kind.DUPLICATE_KEY && model.isOfOpenRow(r))
            .findFirst();
    return twice.flatMap(
        refusal -> {
          Map<FieldId, String> shown = model.tried().orElseThrow().shown();
          Rows rows = bench.draft().rows().of(refusal.table());
          return IntStream.range(0, rows.count())
              .filter(
                  row ->
                      refusal.fields().stream()
                          .allMatch(
                              f -> rows.cell(row, f).equals(Optional.ofNullable(shown.get(f)))))
              .mapToObj(rows::id)
              .findFirst();
        });
  }

  /**
   * A row that is there and that people would call the same as the new one: what they recognise
   * rows by says the same of both, though no key forbids it.
   */
  Optional<RowId> alike() {
    Optional<Table> of =
        model.table().filter(t -> model.opened().isEmpty() && model.isUnsaved(Optional.empty()));
    Optional<EnterFound.Listed> listed = model.found().listed();
    if (of.isEmpty() || listed.isEmpty()) {
      return Optional.empty();
    }
    List<FieldId> fields = recognisedBy(of.get());
    List<String> typed = fields.stream().map(field -> SameName.folded(model.text(field))).toList();
    if (typed.isEmpty() || typed.stream().anyMatch(String::isEmpty)) {
      return Optional.empty();
    }
    Rows rows = listed.get().shown();
    return IntStream.range(0, rows.count())
        .filter(
            row ->
                IntStream.range(0, typed.size())
                    .allMatch(
                        i ->
                            SameName.folded(rows.cell(row, fields.get(i)).orElse(""))
                                .equals(typed.get(i))))
        .mapToObj(rows::id)
        .findFirst();
  }

  /** Texts that people type and read in the row label; no keys, which are no names. */
  private List<FieldId> recognisedBy(Table of) {
    return bench.draft().meaning().of(of).rowLabel().stream()
        .filter(Checked.Sound.class::isInstance)
        .flatMap(label -> ((Checked.Sound) label).reads().stream())
        .filter(OwnField.class::isInstance)
        .map(read -> of.field(((OwnField) read).field()))
        .filter(field -> field.type() instanceof FieldType.Text && EnterPart.isTyped(field))
        .map(Field::id)
        .filter(field -> !of.isKey(List.of(field)))
        .distinct()
        .toList();
  }

  /** What a row that is there holds otherwise than what was typed. */
  record Difference(Field field, String there, String typed) {}

  /** What a row that is there holds otherwise in the fields that were typed, in their order. */
  List<Difference> differences(RowId existing) {
    Entered typed = model.entered();
    Entered there = Entered.changed(typed.table(), existing);
    return model.table().stream()
        .flatMap(of -> of.fields().stream())
        .filter(field -> typed.cells().containsKey(field.id()))
        .map(
            f ->
                new Difference(f, model.kept(there, f.id()), EnteredText.of(f, model.text(f.id()))))
        .filter(difference -> !difference.there.equals(difference.typed))
        .toList();
  }

  /** What a row is called. */
  String label(RowId row) {
    return model.found().listed().stream()
        .flatMap(l -> l.rows().stream())
        .filter(r -> r.id().equals(row))
        .map(EnterFound.Row::label)
        .findFirst()
        .orElse("");
  }
}
