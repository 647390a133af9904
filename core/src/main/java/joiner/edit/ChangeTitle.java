package joiner.edit;

import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.naming.NamingPolicy;

/** Gives the design another title; its name follows as long as nobody chose another. */
public record ChangeTitle(String title) implements Edit {
  @Override
  public String name() {
    return "call the design " + title;
  }

  @Override
  public Draft apply(Draft draft) {
    if (title.isBlank()) {
      throw new EditRefusedException("A design needs a title; type one.");
    }
    Design design = draft.design();
    boolean derived =
        design.name().equals("untitled")
            || design.name().equals(NamingPolicy.nameFor(design.title()))
            || design.name().equals(NamingPolicy.nameFor(design.title()).replace('_', '-'));
    Design titled = design.withTitle(title.strip());
    return draft.withDesign(
        derived ? titled.withName(NamingPolicy.nameFor(title.strip()).replace('_', '-')) : titled);
  }
}
