package joiner.meaning;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.SqlText;
import joiner.expression.Value;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Origin;
import joiner.model.Table;
import joiner.rows.SampleRows;

/** Row labels put together from pieces: fields of the row, of rows it leads to, and fixed texts. */
public final class LabelPieces {
  private static final String BETWEEN = " · ";
  private static final String IF = " if ";

  private LabelPieces() {}

  /** How a piece stands in a label. */
  public enum Stand {
    /** There is always a value, set apart from what is before it. */
    ALWAYS,
    /** It may have no value, so that the label goes on without it. */
    AT_TIMES,
    /** A text that is always the same, put just behind what is before it. */
    FIXED
  }

  /**
   * A piece.
   *
   * @param words as in "Name" or "Name of its kiln"
   * @param text an SQL expression that gives a text
   */
  public record Piece(String words, Formula text, Stand stand) {}

  /** The pieces there are for a table, its own fields first. */
  public static List<Piece> of(Design design, Table table) {
    var pieces = new ArrayList<Piece>();
    for (Field field : table.fields()) {
      if (isText(field.type())) {
        String name = write(new Expression.Name(List.of(field.name()), Place.NOWHERE));
        Stand stand = table.isRequired(field.id()) ? Stand.ALWAYS : Stand.AT_TIMES;
        pieces.add(new Piece(field.label(), asText(field.type(), name), stand));
      }
    }
    TableMeaning meaning = new Draft(design, SampleRows.NONE).meaning().of(table);
    for (ReadyOrigins.Ready ready : ReadyOrigins.of(design, table, "")) {
      if (ready.origin() instanceof Origin.Computed(Formula formula)) {
        meaning
            .far(formula)
            .map(far -> far.end(design).type())
            .filter(LabelPieces::isText)
            .map(type -> new Piece(ready.words(), asText(type, formula.text()), Stand.AT_TIMES))
            .ifPresent(pieces::add);
      }
    }
    return pieces;
  }

  /** A text that is always the same. */
  public static Piece fixed(String text) {
    String literal = write(new Expression.Literal(new Value.Text(text), Kind.TEXT, Place.NOWHERE));
    return new Piece(text, new Formula(literal), Stand.FIXED);
  }

  /**
   * A text that stands where a condition holds.
   *
   * @param typed as in "retired if retired_on IS NOT NULL"
   * @return empty unless a condition of the table stands behind the word if
   */
  public static Optional<Piece> conditional(Design design, Table table, String typed) {
    int at = typed.toLowerCase(Locale.ROOT).indexOf(IF);
    if (at < 1) {
      return Optional.empty();
    }
    var text = new Value.Text(typed.substring(0, at).strip());
    String literal = write(new Expression.Literal(text, Kind.TEXT, Place.NOWHERE));
    String condition = typed.substring(at + IF.length()).strip();
    var formula = new Formula("CASE WHEN " + condition + " THEN " + literal + " END");
    Table labelled = table.withRowLabel(Optional.of(formula));
    Draft draft = new Draft(design.withTable(table.id(), t -> labelled), SampleRows.NONE);
    return draft
        .meaning()
        .of(labelled)
        .rowLabel()
        .filter(Checked.Sound.class::isInstance)
        .map(sound -> new Piece(typed, formula, Stand.AT_TIMES));
  }

  /** A label with a piece more at its end. */
  public static Formula with(Optional<Formula> label, Piece piece) {
    String text = piece.text().text();
    boolean mayLack = piece.stand() == Stand.AT_TIMES;
    if (label.isEmpty()) {
      return new Formula(mayLack ? "COALESCE(" + text + ", '')" : text);
    }
    String before = piece.stand() == Stand.FIXED ? "" : "'" + BETWEEN + "' || ";
    String more = mayLack ? "COALESCE(" + before + text + ", '')" : before + text;
    return new Formula(label.get().text() + " || " + more);
  }

  /** Whether all engines write values of a type the same way. */
  private static boolean isText(FieldType type) {
    return switch (type.kind()) {
      case TEXT, WHOLE, NUMBER, BOOLEAN, DATE, TIME, DATE_TIME, UUID -> true;
      case ZONED, INTERVAL, BYTES, NULL -> false;
    };
  }

  private static Formula asText(FieldType type, String sql) {
    return new Formula(type.kind() == Kind.TEXT ? sql : "CAST(" + sql + " AS VARCHAR)");
  }

  private static String write(Expression tree) {
    return SqlText.iso().write(tree);
  }
}
