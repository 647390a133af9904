package joiner.desktop.frame;

import java.util.List;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import joiner.desktop.gather.StartChoices;
import joiner.desktop.work.DemoHome;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Settings;
import joiner.desktop.work.Workbench;
import joiner.format.DesignFolder;

/** Ways to begin, as an empty Gather offers them. */
final class Starts implements StartChoices {
  private final Workbench bench;
  private final DesignFiles files;

  Starts(Workbench bench, DesignFiles files) {
    this.bench = bench;
    this.files = files;
  }

  @Override
  public boolean isFresh() {
    return bench.design().tables().isEmpty();
  }

  @Override
  public List<Settings.Recent> recent() {
    return files.recent().stream()
        .filter(r -> !Optional.of(r.folder()).equals(bench.keeper().folder()))
        .toList();
  }

  @Override
  public ReadOnlyObjectProperty<List<Recovery.Kept>> keptProperty() {
    return files.keptProperty();
  }

  @Override
  public void open() {
    files.open();
  }

  @Override
  public void open(Settings.Recent recent) {
    files.open(recent.folder());
  }

  @Override
  public void recover(Recovery.Kept kept) {
    files.recover(kept);
  }

  @Override
  public void openDemo() {
    files.start(
        progress ->
            OpenDesign.of(DesignFolder.open(DemoHome.find().resolve("saltmarsh-pottery")).draft()));
  }
}
