package joiner.engine;

import joiner.catalog.TableChange;

/** An engine that changes next to nothing of a table that is there: it is made anew. */
class AnewAlter extends Alter {
  AnewAlter(Dialect dialect) {
    super(dialect);
  }

  @Override
  public boolean inPlace(TableChange change) {
    return !change.isOfSubstance();
  }
}
