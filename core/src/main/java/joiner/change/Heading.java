package joiner.change;

import java.util.List;
import joiner.model.Area;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Kit;
import joiner.model.Pin;
import joiner.model.Question;

/**
 * What a design says of itself, beside its tables and relationships.
 *
 * @param name the name files and databases know it by
 * @param title what people read
 * @param description a note for people
 * @param areas named groups of tables, in order
 * @param kits fields that are dropped into tables and kept in step
 * @param pins where boards of the map are wanted
 * @param questions those that are kept
 * @param extras properties kept from a file
 */
public record Heading(
    String name,
    String title,
    String description,
    List<Area> areas,
    List<Kit> kits,
    List<Pin> pins,
    List<Question> questions,
    Extras extras) {
  public Heading {
    areas = List.copyOf(areas);
    kits = List.copyOf(kits);
    pins = List.copyOf(pins);
    questions = List.copyOf(questions);
  }

  static Heading of(Design design) {
    return new Heading(
        design.name(),
        design.title(),
        design.description(),
        design.areas(),
        design.kits(),
        design.pins(),
        design.questions(),
        design.extras());
  }
}
