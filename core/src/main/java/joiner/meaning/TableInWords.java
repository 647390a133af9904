package joiner.meaning;

import java.util.List;
import java.util.stream.Collectors;
import joiner.model.FieldId;
import joiner.model.RelationshipId;
import joiner.model.RuleId;
import joiner.model.TableId;

/**
 * A table as one would read it to the people whose data it is to hold: what its rows are identified
 * by, whom they belong to, what they always have, what they may not be. Each phrase knows what says
 * it.
 *
 * @param sentences in the order in which they are read
 */
public record TableInWords(List<Sentence> sentences) {
  public TableInWords {
    sentences = List.copyOf(sentences);
  }

  /** A sentence in its phrases, which together are its text. */
  public record Sentence(List<Phrase> phrases) {
    public Sentence {
      phrases = List.copyOf(phrases);
    }

    /** The whole sentence. */
    public String text() {
      return phrases.stream().map(Phrase::text).collect(Collectors.joining());
    }
  }

  /** A part of a sentence. */
  public sealed interface Phrase {
    String text();

    /** Words that only lead from one phrase to the next. */
    record Plain(String text) implements Phrase {}

    /** Words that are true because something of the design says so. */
    record Said(String text, Source source) implements Phrase {}
  }

  /** What of the design says something. */
  public sealed interface Source {
    /** The table itself: its keys, its row label. */
    record OfTable(TableId table) implements Source {}

    /** A field of the table. */
    record OfField(FieldId field) implements Source {}

    /** A relationship of the table, on either side. */
    record OfRelationship(RelationshipId relationship) implements Source {}

    /** A rule of the table. */
    record OfRule(RuleId rule) implements Source {}
  }

  /** What a table of a draft says; linear in its fields, keys, rules and relationships. */
  public static TableInWords of(Draft draft, TableId table) {
    return new TableTeller(draft, draft.design().table(table)).tell();
  }

  /** All sentences, one after the other. */
  public String text() {
    return sentences.stream().map(Sentence::text).collect(Collectors.joining(" "));
  }
}
