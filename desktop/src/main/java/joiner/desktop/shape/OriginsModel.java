package joiner.desktop.shape;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import joiner.ddl.Lowered;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeField;
import joiner.edit.Edit;
import joiner.edit.SetOrigin;
import joiner.engine.Dialects;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.meaning.DefaultReading;
import joiner.meaning.OriginWords;
import joiner.meaning.ReadyOrigins;
import joiner.meaning.ResultType;
import joiner.meaning.SummingWords;
import joiner.meaning.TableMeaning;
import joiner.meaning.TypeWords;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Origin;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.shape.CodedNumber;

/** Where the values of a table's fields come from, without a window. */
final class OriginsModel {
  private final Workbench bench;
  private final Texts texts;
  private final Supplier<Table> shown;
  private final Consumer<List<? extends Edit>> apply;

  /**
   * Fields of a table.
   *
   * @param shown the table, as it is now
   * @param apply applies edits as one
   */
  OriginsModel(
      Workbench bench, Texts texts, Supplier<Table> shown, Consumer<List<? extends Edit>> apply) {
    this.bench = bench;
    this.texts = texts;
    this.shown = shown;
    this.apply = apply;
  }

  /** What a field is worked out by, or else its default, as people say it; empty for neither. */
  static String words(Design design, Field field) {
    return isGiven(field)
        ? OriginWords.of(design, field.origin())
        : DefaultReading.of(field)
            .map(DefaultReading::words)
            .orElseGet(() -> OriginWords.of(design, field.origin()));
  }

  /** Whether something else than people makes the values, so that there is no default to choose. */
  static boolean isGiven(Field field) {
    return !(field.origin() instanceof Origin.Typed);
  }

  String words(Field field) {
    return words(bench.design(), field);
  }

  /** What stands in a field where it is typed: the default as it was typed, or {@link #words}. */
  String typed(Field field) {
    return isGiven(field) ? words(field) : field.defaultValue().map(Formula::text).orElse("");
  }

  /** What may be meant by what is typed where values come from. */
  DefaultOffers offers(Field field) {
    return new DefaultOffers(
        texts,
        field,
        typed -> ReadyOrigins.of(bench.design(), shown.get(), typed),
        origin -> tells(field, origin).words(),
        origin -> OriginWords.of(bench.design(), origin));
  }

  /** What is so now. */
  static Optional<DefaultOffers.Given> given(Field field) {
    return isGiven(field)
        ? Optional.of(new DefaultOffers.Given.From(field.origin()))
        : DefaultReading.of(field).map(DefaultOffers.Given.Default::new);
  }

  /** The relationships over which a field of the table can sum rows up. */
  List<Relationship> children() {
    return bench.design().childrenOf(shown.get().id());
  }

  /** What the rows are called that are summed up. */
  String rows(Relationship over) {
    return SummingWords.rows(bench.design(), over);
  }

  /**
   * What an origin gives.
   *
   * @param words the type, or what is wrong
   * @param isWrong whether it cannot be worked out
   */
  record Tells(String words, boolean isWrong) {}

  /** What an origin would give in a field of the table. */
  Tells tells(Field field, Origin origin) {
    if (!origin.isWorkedOut()) {
      return new Tells(texts.get("origin." + DefaultOffers.kind(origin)), false);
    }
    Table as = shown.get().withField(field.id(), f -> f.withOrigin(origin));
    TableMeaning meaning =
        bench.draft().withDesign(bench.design().withTable(as.id(), t -> as)).meaning().of(as);
    return switch (meaning.computed(field.id()).orElseThrow()) {
      case Checked.Faulty faulty -> new Tells(faulty.problems().getFirst().message(), true);
      case Checked.Sound sound ->
          switch (meaning.resultOf(sound)) {
            case ResultType.Found.None(String why) -> new Tells(why, true);
            case ResultType.Found.Type(FieldType type) ->
                new Tells(texts.get("worked.gives", TypeWords.of(type)), false);
          };
    };
  }

  /**
   * How an engine keeps what nobody types.
   *
   * @param words in a line
   * @param falls whether something is not kept
   */
  record Target(String engine, String words, boolean falls) {}

  /** How each engine keeps a field of the table. */
  List<Target> targets(Field field) {
    return Dialects.ALL.stream()
        .map(
            dialect ->
                Lowered.shortfalls(bench.draft(), shown.get().id(), dialect).stream()
                    .filter(s -> s.valuesOf().equals(Optional.of(field.id())))
                    .findFirst()
                    .map(
                        s ->
                            new Target(
                                dialect.engine(),
                                texts.get(s.elsewhere() ? "target.view" : "target.not", s.reason()),
                                !s.elsewhere()))
                    .orElseGet(
                        () ->
                            new Target(
                                dialect.engine(),
                                texts.get("target." + DefaultOffers.kind(field.origin())),
                                false)))
        .toList();
  }

  /** The next number that a coded field would get; empty where no room is left. */
  Optional<String> next(Field field, CodedNumber number) {
    Rows rows = bench.draft().rows().of(shown.get().id());
    return number.next(
        IntStream.range(0, rows.count())
            .mapToObj(row -> rows.cell(row, field.id()))
            .flatMap(Optional::stream),
        LocalDate.now(bench.clock()));
  }

  /** Tells why something is not done. */
  void refuse(String why) {
    bench.tell(Notice.Sort.REFUSED, why);
  }

  /** Says where the values of fields come from. */
  void give(List<Field> fields, DefaultOffers.Given given) {
    switch (given) {
      case DefaultOffers.Given.Default(DefaultReading reading) ->
          changeDefault(fields, reading.value());
      case DefaultOffers.Given.From(Origin origin) -> workOut(fields, origin);
      case DefaultOffers.Given.NextNumber next ->
          throw new IllegalArgumentException("a counter is a type");
      case DefaultOffers.Given.Entered entered ->
          apply.accept(
              fields.stream()
                  .filter(OriginsModel::isGiven)
                  .map(field -> SetOrigin.entered(shown.get(), field))
                  .toList());
    }
  }

  /** Takes what is typed: behind “=” a formula, the words of an origin, else a default. */
  void give(List<Field> fields, String text) {
    String typed = text.strip();
    Optional<Origin> meant =
        typed.startsWith(DefaultOffers.WORKED_OUT) && typed.length() > 1
            ? Optional.of(new Origin.Computed(new Formula(typed.substring(1).strip())))
            : said(fields, typed);
    if (meant.isPresent()) {
      workOut(fields, meant.get());
    } else if (typed.isEmpty() && fields.stream().allMatch(OriginsModel::isGiven)) {
      give(fields, new DefaultOffers.Given.Entered());
    } else {
      changeDefault(fields, Formula.unlessBlank(text));
    }
  }

  /** The origin that is called so: one of a field as it is, or one that is ready to be taken. */
  private Optional<Origin> said(List<Field> fields, String words) {
    return fields.stream()
        .filter(field -> isGiven(field) && words(field).equals(words))
        .map(Field::origin)
        .findFirst()
        .or(
            () ->
                ReadyOrigins.of(bench.design(), shown.get(), words).stream()
                    .filter(ready -> ready.words().equalsIgnoreCase(words))
                    .map(ReadyOrigins.Ready::origin)
                    .findFirst());
  }

  private void workOut(List<Field> fields, Origin origin) {
    List<Field> changed = fields.stream().filter(f -> !f.origin().equals(origin)).toList();
    List<String> held =
        changed.stream()
            .filter(field -> origin.isWorkedOut() && !field.isComputed())
            .filter(field -> bench.draft().rows().has(shown.get().id(), field.id()))
            .map(Field::label)
            .toList();
    apply.accept(changed.stream().map(field -> SetOrigin.by(shown.get(), field, origin)).toList());
    if (!held.isEmpty()) {
      bench.tellDone(texts.get("worked.gone", String.join(", ", held)), texts.get("undo"));
    }
  }

  void changeDefault(List<Field> fields, Optional<Formula> value) {
    apply.accept(
        fields.stream()
            .filter(field -> !isGiven(field) && !field.defaultValue().equals(value))
            .map(field -> ChangeField.defaultValue(shown.get(), field, value))
            .toList());
  }
}
