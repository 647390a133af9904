package joiner.desktop.work;

/** Whether the design as it stands is on disk. */
public enum SaveState {
  /** In its folder. */
  SAVED,
  /** On the way there. */
  SAVING,
  /** It has no folder and nothing was changed yet. */
  UNTOUCHED,
  /** It has no folder; it is kept for the next start all the same. */
  KEPT,
  /** It could not be written. */
  FAILED,
  /** Somebody else changed the files; nothing is written until that is settled. */
  CONFLICT
}
