package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.model.FieldType.Choice;

/**
 * The choices a cell may hold; retired ones only for who types them.
 *
 * @param now what the cell holds, which is there whether it is offered or not
 */
record ChoiceOffers(Texts texts, Choice choice, String now) implements Offers<String> {
  @Override
  public List<Offer<String>> of(String typed) {
    String wanted = typed.strip().toLowerCase(Locale.ROOT);
    var all = new ArrayList<Offer<String>>();
    for (Choice.Entry entry : choice.entries()) {
      if (!entry.retired()) {
        all.add(new Offer<>(entry.text(), entry.text(), entry.description(), ""));
      } else if (!wanted.isEmpty() || entry.text().equals(now)) {
        all.add(
            new Offer<>(
                entry.text(), entry.text(), texts.get("choice.retired", entry.description()), ""));
      }
    }
    var offers = new ArrayList<>(Offers.narrowed(all, typed));
    if (wanted.isEmpty()) {
      offers.addFirst(new Offer<>("", texts.get("parent.none"), "", ""));
    } else if (choice.find(typed.strip()).isEmpty()) {
      String detail = texts.get(choice.grows() ? "choice.new" : "choice.unknown");
      offers.add(new Offer<>(typed.strip(), typed.strip(), detail, ""));
    }
    return offers;
  }
}
