package joiner.desktop.work;

/** Whether the last change is on disk. */
public enum SaveState {
  SAVED,
  SAVING,
  NOWHERE,
  FAILED
}
