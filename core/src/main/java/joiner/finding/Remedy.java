package joiner.finding;

import joiner.edit.Edit;

/**
 * A change that puts a finding right.
 *
 * @param label what the button says
 * @param edit the change; undoable like any other
 */
public record Remedy(String label, Edit edit) {}
