package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeChoices;
import joiner.edit.ChangeField;
import joiner.edit.ChoicesToLookup;
import joiner.edit.RenameChoice;
import joiner.edit.SeveralValues;
import joiner.model.FieldType.Choice;
import joiner.model.Hue;

/** What is done with the fixed choices of a field, without a window. */
final class ChoicesModel {
  private final Workbench bench;
  private final Texts texts;

  ChoicesModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
  }

  /** Calls a choice otherwise; the rows that hold it go along. */
  void rename(SheetModel.About.OfField of, Choice.Entry choice, String text) {
    bench.apply(
        new RenameChoice(
            of.table().id(), of.field().id(), choice.id(), choice.text(), text.strip()));
  }

  /** Adds a choice at the end. */
  void add(SheetModel.About.OfField of, String text) {
    if (entries(of).stream().anyMatch(entry -> entry.text().equals(text.strip()))) {
      bench.tell(Notice.Sort.REFUSED, texts.get("side.choice.there", text.strip()));
    } else if (!text.isBlank()) {
      bench.apply(ChangeChoices.added(of.table(), of.field(), text.strip()));
    }
  }

  /** Moves a choice by so many places; nothing at either end. */
  void move(SheetModel.About.OfField of, Choice.Entry choice, int by) {
    List<String> listed = texts(entries(of));
    int to = listed.indexOf(choice.text()) + by;
    if (to >= 0 && to < listed.size()) {
      listed.remove(choice.text());
      listed.add(to, choice.text());
      relist(of, listed);
    }
  }

  /** Takes a choice out of the list; rows that hold it no longer fit. */
  void remove(SheetModel.About.OfField of, Choice.Entry choice) {
    List<String> listed = texts(entries(of));
    listed.remove(choice.text());
    relist(of, listed);
  }

  private static List<Choice.Entry> entries(SheetModel.About.OfField of) {
    return of.field().type() instanceof Choice choice ? choice.entries() : List.of();
  }

  private static List<String> texts(List<Choice.Entry> entries) {
    return new ArrayList<>(entries.stream().map(Choice.Entry::text).toList());
  }

  private void relist(SheetModel.About.OfField of, List<String> listed) {
    bench.apply(ChangeField.type(of.table(), of.field(), Choice.of(listed)));
  }

  /** Offers a choice no more, or again. */
  void retire(SheetModel.About.OfField of, Choice.Entry choice) {
    bench.apply(ChangeChoices.retired(of.table(), of.field(), choice, !choice.retired()));
  }

  void describe(SheetModel.About.OfField of, Choice.Entry choice, String text) {
    bench.apply(ChangeChoices.described(of.table(), of.field(), choice, text.strip()));
  }

  void mark(SheetModel.About.OfField of, Choice.Entry choice, Optional<Hue> hue) {
    bench.apply(ChangeChoices.marked(of.table(), of.field(), choice, hue));
  }

  void grow(SheetModel.About.OfField of, boolean grows) {
    bench.apply(ChangeChoices.growing(of.table(), of.field(), grows));
  }

  /** Turns fixed choices into a table that others can pick from too. */
  void toLookup(SheetModel.About.OfField of) {
    if (bench.apply(
        () -> new ChoicesToLookup(of.table().id(), of.field().id(), of.field().label()))) {
      bench.tellDone(texts.get("side.toLookup.done", of.field().label()), texts.get("undo"));
    }
  }

  /** Lets a row have several of the choices, each a row of a table of its own. */
  void allowSeveral(SheetModel.About.OfField of) {
    String label = of.table().label() + " " + of.field().label().toLowerCase(java.util.Locale.ROOT);
    if (bench.apply(() -> new SeveralValues(of.table().id(), of.field().id(), label))) {
      bench.tellDone(
          texts.get("side.several.done", label, of.table().noun().indefinite()), texts.get("undo"));
    }
  }
}
