package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.meaning.ParentRows;

/**
 * The rows a cell may refer to, by what people recognise them by; what is picked is their key, or
 * the text of one to be added.
 *
 * @param now the key the cell holds, which is there whether it is offered or not
 */
record ParentOffers(Texts texts, ParentRows parents, String now, boolean addable)
    implements Offers<String> {
  private static final int MOST = 200;

  @Override
  public List<Offer<String>> of(String typed) {
    int most = typed.isBlank() ? parents.picking().atOnce().orElse(MOST) : MOST;
    var offers = new ArrayList<Offer<String>>();
    List<ParentRows.Parent> meant = parents.meantBy(typed, most);
    if (typed.isBlank()) {
      parents.all().stream()
          .filter(
              parent -> parent.key().equals(now) || parents.find(now).equals(Optional.of(parent)))
          .findFirst()
          .filter(held -> !meant.contains(held))
          .ifPresent(held -> offers.add(new Offer<>(held.key(), held.label(), detail(held), "")));
    }
    for (ParentRows.Parent parent : meant) {
      offers.add(new Offer<>(parent.key(), parent.label(), detail(parent), ""));
    }
    if (typed.isBlank()) {
      offers.addFirst(new Offer<>("", texts.get("parent.none"), "", ""));
    } else if (offers.isEmpty() && parents.isOfOneField() || addable && isNew(typed.strip())) {
      String detail =
          texts.get(addable ? "parent.new" : "parent.unknown", parents.noun().singular());
      offers.add(new Offer<>(typed.strip(), typed.strip(), detail, ""));
    }
    return offers;
  }

  private boolean isNew(String text) {
    return parents.all().stream().noneMatch(p -> p.label().equalsIgnoreCase(text));
  }

  private String detail(ParentRows.Parent parent) {
    var details = new ArrayList<>(parent.shown());
    if (details.isEmpty() && !parent.label().equals(parent.key())) {
      details.add(parent.key());
    }
    if (!parent.offered()) {
      details.add(texts.get(parent.retired() ? "parent.retired" : "parent.notOffered"));
    }
    return String.join(" · ", details);
  }
}
