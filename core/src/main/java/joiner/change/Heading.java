package joiner.change;

import java.util.List;
import joiner.model.Area;
import joiner.model.Design;
import joiner.model.Extras;

/**
 * What a design says of itself, beside its tables and relationships.
 *
 * @param name the name files and databases know it by
 * @param title what people read
 * @param description a note for people
 * @param areas named groups of tables, in order
 * @param extras properties kept from a file
 */
public record Heading(
    String name, String title, String description, List<Area> areas, Extras extras) {
  public Heading {
    areas = List.copyOf(areas);
  }

  static Heading of(Design design) {
    return new Heading(
        design.name(), design.title(), design.description(), design.areas(), design.extras());
  }
}
