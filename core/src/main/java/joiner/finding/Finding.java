package joiner.finding;

import java.util.List;
import java.util.Optional;
import joiner.model.FieldId;
import joiner.model.RelationshipId;
import joiner.model.TableId;

/**
 * Something a design check says.
 *
 * @param id the check's id, such as {@code no-primary-key}
 * @param table the table it is about
 * @param field the field, where it is about one
 * @param relationship the relationship, where it is about one
 * @param message what is so, as a sentence
 * @param why why it matters, as a sentence
 * @param remedies changes that put it right; may be empty
 */
public record Finding(
    String id,
    Severity severity,
    Topic topic,
    TableId table,
    Optional<FieldId> field,
    Optional<RelationshipId> relationship,
    String message,
    String why,
    List<Remedy> remedies) {
  public Finding {
    remedies = List.copyOf(remedies);
  }
}
