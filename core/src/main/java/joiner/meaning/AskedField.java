package joiner.meaning;

import java.util.ArrayList;
import java.util.List;
import joiner.expression.Reference;
import joiner.expression.ValueType;

/**
 * Something a formula of a question reads: of which role, and what of its row.
 *
 * @param role the place of the role among those of the question
 * @param of what is read, as formulas of the role's table read it
 */
public record AskedField(int role, String roleName, Reference of) implements Reference {
  @Override
  public List<String> path() {
    var path = new ArrayList<String>();
    path.add(roleName);
    path.addAll(of.path());
    return path;
  }

  @Override
  public ValueType type() {
    return of.type();
  }
}
