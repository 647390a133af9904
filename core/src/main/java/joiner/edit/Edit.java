package joiner.edit;

import java.util.List;
import joiner.meaning.Draft;

/** A change of a design and its rows. Undo is going back to the value before. */
public sealed interface Edit
    permits AddDesign,
        AddTable,
        RemoveTable,
        ChangeTable,
        ChangeTitle,
        AddField,
        ChangeField,
        RemoveField,
        SetUnique,
        AddRelationship,
        ChangeRelationship,
        RemoveRelationship,
        SetParentRequired,
        SetChildUnique,
        ToManyToMany,
        FromManyToMany,
        ChoicesToLookup,
        ChangeRows,
        SplitTable,
        Prepared,
        Several {

  /** What it does, as "make Email unique"; shown after "Undo:". */
  String name();

  /**
   * The design and rows after the change.
   *
   * @throws EditRefusedException if the change would lose something or makes no sense here
   */
  Draft apply(Draft draft);

  /** Several changes as one. */
  static Edit all(String name, List<Edit> edits) {
    return new Several(name, edits);
  }
}
