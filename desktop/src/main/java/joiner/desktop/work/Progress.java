package joiner.desktop.work;

/** How work in the background tells how far it is, and is told to stop. Usable on any thread. */
public interface Progress {
  /** Whether the work is no longer wanted. Long work asks often and ends soon. */
  boolean stopped();

  /** How much of the work is done, 0 to 1. */
  void share(double done);

  /** What is being done, in words. */
  void doing(String words);
}
