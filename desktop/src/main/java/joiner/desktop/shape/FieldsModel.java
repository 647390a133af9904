package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import joiner.compare.Effect;
import joiner.compare.Impact;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.edit.AddField;
import joiner.edit.CarriedType;
import joiner.edit.ChangeField;
import joiner.edit.CompoundFields;
import joiner.edit.Edit;
import joiner.edit.ReferTo;
import joiner.edit.RemoveField;
import joiner.edit.SetUnique;
import joiner.edit.TypeChoice;
import joiner.edit.UsualType;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Limits;
import joiner.model.MediaType;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.NamingPolicy;
import joiner.naming.WordList;

/** The fields of a table as they are shown and typed, without a window. */
final class FieldsModel {
  private final Workbench bench;
  private final Texts texts;
  private final ReadOnlyObjectWrapper<List<FieldId>> chosen =
      new ReadOnlyObjectWrapper<>(List.of());
  private static final Table NONE = Table.of("none", "none", new Noun("none", "none"));

  private final KeysModel keys;
  private final OriginsModel origins;
  private final KitsModel kits;
  private final FieldClipboard clipboard;
  private final GroupsModel groups;
  private Optional<Table> shown = Optional.empty();
  private List<Relationship> shownLinks = List.of();

  FieldsModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    this.keys = new KeysModel(bench, texts, this::table);
    this.origins = new OriginsModel(bench, texts, this::table, this::apply);
    this.kits = new KitsModel(bench, texts, this::table);
    this.clipboard = new FieldClipboard(bench, texts, this::table);
    this.groups = new GroupsModel(bench, texts);
  }

  /** By what rows of the table are told apart. */
  KeysModel keys() {
    return keys;
  }

  /** Kits of fields. */
  KitsModel kits() {
    return kits;
  }

  /** Where the values of the fields come from. */
  OriginsModel origins() {
    return origins;
  }

  /** Says where the values of fields come from. */
  void give(List<Field> fields, DefaultOffers.Given given) {
    if (given instanceof DefaultOffers.Given.NextNumber) {
      retype(fields, new TypeOffers.Held.OfType(TypeChoice.Counter, ""));
    } else {
      origins.give(fields, given);
    }
  }

  /** The groups of the fields. */
  GroupsModel groups() {
    return groups;
  }

  /** Where fields are copied to and pasted from. */
  FieldClipboard clipboard() {
    return clipboard;
  }

  /** The table whose fields they are: the one that is chosen. */
  Table table() {
    return bench.table().orElse(NONE);
  }

  /**
   * Turns to a table as it is now.
   *
   * @return whether anything about its fields is to be shown otherwise than before
   */
  boolean turnTo(Table now) {
    List<Relationship> links = bench.design().parentsOf(now.id());
    if (shown.equals(Optional.of(now)) && shownLinks.equals(links)) {
      return false;
    }
    shown = Optional.of(now);
    shownLinks = links;
    return true;
  }

  /** Which fields are chosen together in the grid. */
  ReadOnlyObjectProperty<List<FieldId>> chosenProperty() {
    return chosen.getReadOnlyProperty();
  }

  /** Says which fields are chosen together. */
  void choose(List<FieldId> fields) {
    chosen.set(List.copyOf(fields));
  }

  private Optional<Relationship> link(Field field) {
    return bench.design().parentsOf(table().id()).stream()
        .filter(r -> r.childFields().contains(field.id()))
        .findFirst();
  }

  /** What part a field has in keys, in the trade's two letters; empty for none. */
  String tag(Field field) {
    if (table().primaryKey().contains(field.id())) {
      return "PK";
    }
    return link(field).isPresent() ? "FK" : "";
  }

  /** The type in words; of a reference the table it leads to. */
  String type(Field field) {
    return link(field)
        .map(r -> "→ " + bench.design().table(r.parent()).label())
        .orElseGet(() -> texts.get("type." + TypeChoice.of(field).map(Enum::name).orElse("Kept")));
  }

  /** Adds a field at the end, with the type its label suggests, and chooses it. */
  void add(String label) {
    String name = NamingPolicy.free(NamingPolicy.nameFor(label), table().fieldsByName().keySet());
    Optional<UsualType> usual = UsualType.of(label);
    FieldType type = usual.map(UsualType::type).orElseGet(TypeChoice.Text::usual);
    String unit = usual.map(UsualType::unit).orElse("");
    Optional<String> pattern = usual.flatMap(UsualType::pattern);
    Field field =
        table()
            .unused(
                Field.of(name, label, type)
                    .withUnit(unit)
                    .withLimits(Limits.NONE.withPattern(pattern)));
    bench.apply(new AddField(table().id(), field));
    bench.selectionProperty().set(Selection.of(table().id(), field.id()));
  }

  /** Gives a field another label; a name that came from the label follows. */
  void relabel(Field field, String label) {
    if (label.isBlank() || label.equals(field.label())) {
      return;
    }
    boolean derived = field.name().equals(NamingPolicy.nameFor(field.label()));
    String name = derived ? freeName(field, NamingPolicy.nameFor(label)) : field.name();
    bench.apply(ChangeField.rename(table(), field, label.strip(), name));
  }

  private String freeName(Field field, String name) {
    var taken = new ArrayList<>(table().fieldsByName().keySet());
    taken.remove(field.name());
    return NamingPolicy.free(name, taken);
  }

  void rename(Field field, String name) {
    if (!name.isBlank() && !name.equals(field.name())) {
      bench.apply(ChangeField.rename(table(), field, field.label(), name.strip()));
    }
  }

  /** Lets fields hold values of a type, or rows of a table. */
  void retype(List<Field> fields, TypeOffers.Held held) {
    switch (held) {
      case TypeOffers.Held.OfType(TypeChoice choice, String size) -> retype(fields, choice, size);
      case TypeOffers.Held.RowOf(TableId parent) -> refer(fields, parent);
      case TypeOffers.Held.Several(CompoundFields kind) ->
          fields.forEach(field -> groups.compound(table(), field, kind));
    }
  }

  private void refer(List<Field> fields, TableId parent) {
    List<Field> others =
        fields.stream().filter(field -> !refersTo(field).equals(Optional.of(parent))).toList();
    if (!others.isEmpty()) {
      String name =
          "let "
              + WordList.and(others.stream().map(Field::label).toList())
              + " refer to "
              + bench.design().table(parent).label();
      bench.apply(
          () -> new ReferTo(name, table().id(), others.stream().map(Field::id).toList(), parent));
    }
  }

  /** The fields chosen together, as they are now. */
  List<Field> chosen() {
    return chosen.get().stream().filter(table()::hasField).map(table()::field).toList();
  }

  /** The size of a field as it is read, with its unit. */
  String size(Field field) {
    String size =
        field.type() instanceof FieldType.Choice choice
            ? texts.get("size.choices", choice.entries().size())
            : TypeChoice.sizeOf(field);
    boolean own = TypeChoice.of(field).flatMap(choice -> choice.unit("")).isPresent();
    return Stream.of(size, own ? "" : field.unit()) // What the type says is not said twice.
        .distinct()
        .filter(part -> !part.isEmpty())
        .collect(Collectors.joining(" · "));
  }

  /** Says what the numbers of fields are numbers of. */
  void measure(List<Field> fields, String unit) {
    apply(
        fields.stream()
            .filter(field -> !field.unit().equals(unit.strip()))
            .map(field -> ChangeField.unit(table(), field, unit.strip()))
            .toList());
  }

  /** The table whose row a field holds, if it does. */
  Optional<TableId> refersTo(Field field) {
    return link(field).map(Relationship::parent);
  }

  /** What is offered for a field to hold. */
  TypeOffers typeOffers() {
    return new TypeOffers(texts, bench.design());
  }

  /**
   * Gives fields a type.
   *
   * @param size as typed behind it; none: the usual one for those that have another type
   */
  private void retype(List<Field> fields, TypeChoice choice, String size) {
    Optional<FieldType> sized = size.isBlank() ? Optional.of(choice.usual()) : choice.sized(size);
    if (sized.isEmpty()) {
      bench.tell(
          Notice.Sort.REFUSED, texts.get("size.bad", size, texts.get("type." + choice.name())));
      return;
    }
    List<Field> held =
        fields.stream()
            .filter(field -> choice == TypeChoice.Secret)
            .filter(field -> bench.draft().rows().has(table().id(), field.id()))
            .toList();
    apply(
        fields.stream()
            .filter(
                field ->
                    refersTo(field).isPresent()
                        || !size.isBlank()
                        || !Optional.of(choice).equals(TypeChoice.of(field)))
            .flatMap(
                field ->
                    Stream.of(
                            CarriedType.of(bench.design(), table(), field, sized.get()).stream(),
                            unit(field, choice, size).stream(),
                            pattern(field, choice).stream())
                        .flatMap(edits -> edits))
            .distinct()
            .toList());
    if (!held.isEmpty()) {
      bench.tellDone(
          texts.get("secret.gone", String.join(", ", held.stream().map(Field::label).toList())),
          texts.get("undo"));
    }
  }

  /** A unit that is part of what a field is comes and goes with it. */
  private Optional<Edit> unit(Field field, TypeChoice choice, String size) {
    boolean own = TypeChoice.of(field).flatMap(was -> was.unit("")).isPresent();
    return choice
        .unit(size)
        .or(() -> own ? Optional.of("") : Optional.empty())
        .filter(unit -> !unit.equals(field.unit()))
        .map(unit -> ChangeField.unit(table(), field, unit));
  }

  /** So does a pattern. */
  private Optional<Edit> pattern(Field field, TypeChoice choice) {
    boolean own = TypeChoice.of(field).flatMap(TypeChoice::pattern).isPresent();
    Optional<String> now = field.limits().pattern();
    Optional<String> next = choice.pattern().or(() -> own ? Optional.empty() : now);
    return next.equals(now)
        ? Optional.empty()
        : Optional.of(ChangeField.limits(table(), field, field.limits().withPattern(next)));
  }

  /** Makes changes of several fields as one that one undo takes back. */
  private void apply(List<? extends Edit> edits) {
    if (edits.size() == 1) {
      bench.apply(edits.getFirst());
    } else if (!edits.isEmpty()) {
      bench.apply(Edit.all(texts.get("undo.several", edits.size()), List.copyOf(edits)));
    }
  }

  /** Gives a field the type and size of another. */
  void retypeAs(Field field, Field other) {
    var type =
        other.type() instanceof FieldType.Counter ? other.type().asReferenced() : other.type();
    if (!type.equals(field.type())) {
      bench.apply(ChangeField.type(table(), field, type));
    }
  }

  /**
   * Gives fields another size.
   *
   * @return whether that is a size for their types; if not, it is told and nothing is changed
   */
  boolean resize(List<Field> fields, String size) {
    var edits = new ArrayList<Edit>();
    for (Field field : fields) {
      if (!size.equals(TypeChoice.sizeOf(field))) {
        Optional<TypeChoice> choice = TypeChoice.of(field);
        Optional<FieldType> sized = choice.flatMap(c -> c.resized(field.type(), size));
        if (sized.isEmpty()) {
          bench.tell(Notice.Sort.REFUSED, texts.get("size.bad", size, type(field)));
          return false;
        }
        if (choice.get() == TypeChoice.TimeSpan) { // Its size is its unit.
          unit(field, choice.get(), size).ifPresent(edits::add);
        } else {
          edits.addAll(CarriedType.sized(bench.design(), table(), field, sized.get()));
        }
      }
    }
    apply(edits);
    return true;
  }

  /** Lets a field hold files of a kind, or no longer; where no kind is named, all are held. */
  void admit(Field field, FieldType.Content type, MediaType media, boolean admitted) {
    var kinds = new ArrayList<>(type.media());
    if (admitted) {
      kinds.add(media);
    } else {
      kinds.remove(media);
    }
    bench.apply(ChangeField.type(table(), field, new FieldType.Content(kinds, type.mostBytes())));
  }

  void note(Field field, String text) {
    bench.apply(ChangeField.description(table(), field, text.strip()));
  }

  boolean isRequired(Field field) {
    return field.required() || table().primaryKey().contains(field.id());
  }

  boolean isUnique(Field field) {
    return table().isKey(List.of(field.id()));
  }

  /** Makes fields required or optional; those of the primary key stay required. */
  void require(List<Field> fields, boolean required) {
    apply(
        fields.stream()
            .filter(field -> !table().primaryKey().contains(field.id()))
            .filter(field -> field.required() != required)
            .map(field -> ChangeField.required(table(), field, required))
            .toList());
  }

  /** Makes fields unique, each by itself; one that is the primary key stays so. */
  void setUnique(List<Field> fields, boolean unique) {
    apply(
        fields.stream()
            .filter(field -> !table().primaryKey().equals(List.of(field.id())))
            .filter(field -> isUnique(field) != unique)
            .map(field -> SetUnique.of(table(), List.of(field.id()), unique))
            .toList());
  }

  /** Moves a field by so many places; nothing at either end. */
  void move(Field field, int by) {
    groups.move(table(), field, by);
  }

  /** Removes fields as one change, which one undo takes back; tells what went along unseen. */
  void remove(List<Field> gone) {
    if (gone.isEmpty()) {
      return;
    }
    var edits = new ArrayList<Edit>();
    gone.forEach(field -> edits.add(new RemoveField(table().id(), field.id(), field.label())));
    Edit removal = Edit.all(texts.get("undo.remove", gone.size()), edits);
    Impact impact = Impact.of(removal, bench.draft());
    String along = takenAlong(impact);
    boolean holds = gone.stream().anyMatch(f -> bench.draft().rows().has(table().id(), f.id()));
    Runnable told =
        () -> bench.tellDone(texts.get("removed", gone.size()) + along, texts.get("undo"));
    if (holds || !along.isEmpty()) {
      bench.propose(() -> removal, told);
    } else if (bench.apply(() -> removal)) {
      told.run();
    }
  }

  private static String takenAlong(Impact impact) {
    return impact.effects().stream()
        .filter(
            effect ->
                effect.kind() == Effect.Kind.RELATIONSHIP_REMOVED
                    || effect.kind() == Effect.Kind.FORMULA_BROKEN)
        .map(effect -> "\n" + effect.message())
        .collect(Collectors.joining());
  }
}
