package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.meaning.ParentRows;

/** The rows a cell may refer to, by what people recognise them by; what is picked is their key. */
record ParentOffers(Texts texts, ParentRows parents) implements Offers<String> {
  private static final int MOST = 200;

  @Override
  public List<Offer<String>> of(String typed) {
    var offers = new ArrayList<Offer<String>>();
    for (ParentRows.Parent parent : parents.meantBy(typed, MOST)) {
      String detail = parent.label().equals(parent.key()) ? "" : parent.key();
      offers.add(
          new Offer<>(
              parent.key(),
              parent.label(),
              parent.retired() ? texts.get("parent.retired", detail) : detail,
              ""));
    }
    if (typed.isBlank()) {
      offers.addFirst(new Offer<>("", texts.get("parent.none"), "", ""));
    } else if (offers.isEmpty()) {
      offers.add(new Offer<>(typed.strip(), typed.strip(), texts.get("parent.unknown"), ""));
    }
    return offers;
  }
}
