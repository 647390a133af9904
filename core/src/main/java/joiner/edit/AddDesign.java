package joiner.edit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import joiner.meaning.Draft;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Kit;
import joiner.model.Question;
import joiner.model.QuestionId;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.NamingPolicy;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;
import joiner.rows.SampleRows;

/**
 * Adds all tables, rows and relationships of another design. Names of tables must be free; ids that
 * are taken are refused too, for they would be other things.
 */
public record AddDesign(Draft other) implements Edit {
  @Override
  public String name() {
    return "add the tables of " + other.design().title();
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    for (Table table : other.design().tables()) {
      boolean taken =
          design.find(table.id()).isPresent() || design.tableNamed(table.name()).isPresent();
      if (taken) {
        throw new EditRefusedException(
            "There is a table "
                + table.name()
                + " already; rename it, or bring the other one into a design of its own.");
      }
    }
    for (Relationship r : other.design().relationships()) {
      if (design.find(r.id()).isPresent()) {
        throw new EditRefusedException(
            "There is a relationship " + r.name() + " already; bring it into a design of its own.");
      }
    }
    var areas = new Areas(design);
    var tables = new ArrayList<>(design.tables());
    for (Table table : other.design().tables()) {
      tables.add(table.withArea(table.area().map(areas::of)));
    }
    var relationships = new ArrayList<>(design.relationships());
    relationships.addAll(other.design().relationships());
    Map<TableId, Rows> rows = new LinkedHashMap<>(draft.rows().byTable());
    rows.putAll(other.rows().byTable());
    Map<TableId, LinkedRows> linked = new LinkedHashMap<>(draft.rows().linked());
    linked.putAll(other.rows().linked());
    return draft.with(
        Design.of(
                design.name(),
                design.title(),
                design.description(),
                areas.all,
                tables,
                relationships,
                design.extras())
            .withKits(kits(design))
            .withPins(
                Stream.concat(design.pins().stream(), other.design().pins().stream()).toList())
            .withQuestions(questions(design)),
        new SampleRows(rows, linked));
  }

  /** Kits of one id are one. */
  private List<Kit> kits(Design design) {
    return Stream.concat(
            design.kits().stream(),
            other.design().kits().stream().filter(kit -> design.find(kit.id()).isEmpty()))
        .toList();
  }

  /** Questions that are there already stay; others of one id or name get another. */
  private List<Question> questions(Design design) {
    var all = new ArrayList<>(design.questions());
    for (Question question : other.design().questions()) {
      if (!all.contains(question)) {
        List<String> ids = all.stream().map(q -> q.id().value()).toList();
        List<String> names = all.stream().map(Question::name).toList();
        all.add(
            question.withNames(
                new QuestionId(NamingPolicy.free(question.id().value(), ids)),
                NamingPolicy.free(question.name(), names),
                question.label()));
      }
    }
    return all;
  }

  /** Areas of one name become one. */
  private final class Areas {
    private final Map<AreaId, AreaId> ids = new HashMap<>();
    private final List<Area> all;

    Areas(Design design) {
      all = new ArrayList<>(design.areas());
      for (Area area : other.design().areas()) {
        Area there = Area.named(all, area.name());
        ids.put(area.id(), there.id());
        if (!all.contains(there)) {
          all.add(there.withHue(area.hue()));
        }
      }
    }

    AreaId of(AreaId area) {
      return ids.get(area);
    }
  }
}
