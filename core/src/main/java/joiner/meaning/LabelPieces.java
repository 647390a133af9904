package joiner.meaning;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
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

  private LabelPieces() {}

  /**
   * A piece.
   *
   * @param words as in "Name" or "Name of its kiln"
   * @param text an SQL expression that gives a text
   * @param mayLack whether it may have no value, so that the label goes on without it
   */
  public record Piece(String words, Formula text, boolean mayLack) {}

  /** The pieces there are for a table, its own fields first. */
  public static List<Piece> of(Design design, Table table) {
    var pieces = new ArrayList<Piece>();
    for (Field field : table.fields()) {
      if (isText(field.type())) {
        String name = write(new Expression.Name(List.of(field.name()), Place.NOWHERE));
        boolean mayLack = !table.isRequired(field.id());
        pieces.add(new Piece(field.label(), asText(field.type(), name), mayLack));
      }
    }
    TableMeaning meaning = new Draft(design, SampleRows.NONE).meaning().of(table);
    for (ReadyOrigins.Ready ready : ReadyOrigins.of(design, table, "")) {
      if (ready.origin() instanceof Origin.Computed(Formula formula)) {
        meaning
            .far(formula)
            .map(far -> far.end(design).type())
            .filter(LabelPieces::isText)
            .map(type -> new Piece(ready.words(), asText(type, formula.text()), true))
            .ifPresent(pieces::add);
      }
    }
    return pieces;
  }

  /** A text that is always the same. */
  public static Piece fixed(String text) {
    String literal = write(new Expression.Literal(new Value.Text(text), Kind.TEXT, Place.NOWHERE));
    return new Piece(text, new Formula(literal), false);
  }

  /** A label with a piece more at its end. */
  public static Formula with(Optional<Formula> label, Piece piece, boolean isFixed) {
    String text = piece.text().text();
    if (label.isEmpty()) {
      return new Formula(piece.mayLack() ? "COALESCE(" + text + ", '')" : text);
    }
    String before = isFixed ? "" : "'" + BETWEEN + "' || ";
    String more = piece.mayLack() ? "COALESCE(" + before + text + ", '')" : before + text;
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
