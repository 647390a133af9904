package joiner.finding;

import java.util.List;
import java.util.Optional;
import joiner.model.Field;
import joiner.model.Relationship;
import joiner.model.Table;

/** Builds findings about tables, fields and relationships with few words. */
record TableFinding(String id, Severity severity, Topic topic) {

  Finding about(Table table, String message, String why, Remedy... remedies) {
    return new Finding(
        id,
        severity,
        topic,
        table.id(),
        Optional.empty(),
        Optional.empty(),
        message,
        why,
        List.of(remedies));
  }

  Finding about(Table table, Field field, String message, String why, Remedy... remedies) {
    return new Finding(
        id,
        severity,
        topic,
        table.id(),
        Optional.of(field.id()),
        Optional.empty(),
        message,
        why,
        List.of(remedies));
  }

  Finding about(Relationship relationship, String message, String why, Remedy... remedies) {
    return new Finding(
        id,
        severity,
        topic,
        relationship.child(),
        Optional.of(relationship.childFields().getFirst()),
        Optional.of(relationship.id()),
        message,
        why,
        List.of(remedies));
  }
}
