package joiner.desktop.frame;

/**
 * Something a user can do, as the finder lists it.
 *
 * @param name as people read it
 * @param shortcut its keys; may be empty
 */
record Action(String name, String shortcut, Runnable run) {}
