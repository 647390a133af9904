package joiner.desktop.gather;

import java.util.List;
import javafx.beans.property.ReadOnlyObjectProperty;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Settings;

/** Ways to begin, for a window with nothing in it. */
public interface StartChoices {
  /** Whether the design has nothing in it yet. */
  boolean isFresh();

  /** Designs that were open before. */
  List<Settings.Recent> recent();

  /** Designs that were never saved, of windows that are gone. */
  ReadOnlyObjectProperty<List<Recovery.Kept>> keptProperty();

  void open();

  void open(Settings.Recent recent);

  void recover(Recovery.Kept kept);

  void openDemo();
}
