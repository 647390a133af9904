package joiner.desktop.work;

import java.util.Optional;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;

/**
 * What was told to the user: what is shown now, and the list of everything. Belongs to the window's
 * thread.
 */
public final class Notices {
  private static final int KEPT = 200;
  private static final int SHOWN_AT_ONCE = 3;

  private final ObservableList<Notice> shown = FXCollections.observableArrayList();
  private final ObservableList<Notice> all = FXCollections.observableArrayList();
  // These listen weakly to what they show, so they have to be held as long as the notices.
  private final ObservableList<Notice> readShown = FXCollections.unmodifiableObservableList(shown);
  private final ObservableList<Notice> readAll = FXCollections.unmodifiableObservableList(all);

  /** What is shown now, oldest first. */
  public ObservableList<Notice> shown() {
    return readShown;
  }

  /** Everything that was told, newest first. */
  public ObservableList<Notice> all() {
    return readAll;
  }

  /** The newest that is shown. */
  public Optional<Notice> newest() {
    return shown.isEmpty() ? Optional.empty() : Optional.of(shown.getLast());
  }

  /** Tells something; the same text once more takes the place of the first. */
  public void tell(Notice notice) {
    shown.removeIf(there -> there.text().equals(notice.text()));
    shown.add(notice);
    if (shown.size() > SHOWN_AT_ONCE) {
      shown.removeFirst();
    }
    all.addFirst(notice);
    if (all.size() > KEPT) {
      all.removeLast();
    }
  }

  /** Takes a notice away; it stays in the list. */
  public void dismiss(Notice notice) {
    shown.remove(notice);
  }

  /** Takes everything away that is shown; the list stays. */
  public void clear() {
    shown.clear();
  }

  /** Takes away what a later change has answered: refusals. */
  public void dismissRefusals() {
    shown.removeIf(notice -> notice.sort() == Notice.Sort.REFUSED);
  }
}
