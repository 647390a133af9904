package joiner.finding;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Consumer;
import joiner.meaning.TypeWords;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;

/** Fields of one name in several tables are of one type. */
final class OneMeaningTwoTypes implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("one-meaning-two-types", Severity.WARNING, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    Map<String, Place> first = new LinkedHashMap<>();
    for (Table table : design.design().tables()) {
      for (Field field : table.fields()) {
        var place = new Place(table, field);
        Place before = first.putIfAbsent(field.name(), place);
        if (before != null && !sameSort(before.field.type(), field.type())) {
          found.accept(
              FINDING.about(
                  table,
                  field,
                  field.label()
                      + " is "
                      + TypeWords.of(field.type())
                      + " in "
                      + table.label()
                      + " but "
                      + TypeWords.of(before.field.type())
                      + " in "
                      + before.table.label()
                      + ".",
                  "Fields of one name are taken for one thing; comparing them across tables would need a conversion."));
        }
      }
    }
  }

  private record Place(Table table, Field field) {}

  private static boolean sameSort(FieldType left, FieldType right) {
    FieldType l = left.asReferenced();
    FieldType r = right.asReferenced();
    boolean listed = l instanceof FieldType.Choice && r instanceof FieldType.Choice;
    boolean sized =
        l instanceof FieldType.Sized
            && r instanceof FieldType.Sized
            && l.getClass() == r.getClass();
    return listed || sized || l.equals(r);
  }
}
