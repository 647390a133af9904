package joiner.desktop.widget;

/** Does something after a change, but only while somebody looks; otherwise once they look again. */
public final class WhenSeen {
  private final Runnable show;
  private boolean visible;
  private boolean changed = true;

  /** Something to do; nobody looks yet. */
  public WhenSeen(Runnable show) {
    this.show = show;
  }

  /** Something has changed. */
  public void changed() {
    changed = true;
    act();
  }

  /** Says whether somebody looks. */
  public void look(boolean now) {
    visible = now;
    act();
  }

  private void act() {
    if (visible && changed) {
      changed = false;
      show.run();
    }
  }
}
