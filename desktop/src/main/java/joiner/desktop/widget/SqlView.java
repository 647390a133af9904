package joiner.desktop.widget;

import java.util.Collection;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.scene.Node;
import javafx.scene.TraversalDirection;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import org.fxmisc.flowless.VirtualizedScrollPane;
import org.fxmisc.richtext.CodeArea;
import org.fxmisc.richtext.model.StyleSpans;
import org.fxmisc.richtext.model.StyleSpansBuilder;

/** SQL to read: words of the language, texts and comments are told apart. */
public final class SqlView {
  private static final Pattern PIECES =
      Pattern.compile(
          "(?<note>--[^\\n]*)|(?<text>'(?:[^']|'')*')|(?<name>\"[^\"]*\")|(?<word>\\b[A-Z][A-Z_]+\\b)");

  private final CodeArea area = new CodeArea();
  private final Node node = new VirtualizedScrollPane<>(area);

  /**
   * An empty view.
   *
   * @param id by which it is found
   * @param name what it shows, for people
   */
  public SqlView(String id, String name) {
    area.setAccessibleText(name);
    area.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.TAB) {
            area.requestFocusTraversal(
                event.isShiftDown() ? TraversalDirection.PREVIOUS : TraversalDirection.NEXT);
            event.consume();
          }
        });
    area.setEditable(false);
    area.getStyleClass().add("sql-view");
    area.setId(id);
  }

  /** What is shown. */
  public Node node() {
    return node;
  }

  /** Lets long lines go on below, where there is little room. */
  public void wrap() {
    area.setWrapText(true);
  }

  /** Shows a text of SQL from its beginning. */
  public void show(String sql) {
    if (!sql.equals(area.getText())) {
      area.replaceText(sql);
      if (!sql.isEmpty()) {
        area.setStyleSpans(0, styles(sql));
      }
      area.moveTo(0);
      area.requestFollowCaret();
    }
  }

  private static StyleSpans<Collection<String>> styles(String sql) {
    var spans = new StyleSpansBuilder<Collection<String>>();
    Matcher found = PIECES.matcher(sql);
    int end = 0;
    while (found.find()) {
      spans.add(List.of(), found.start() - end);
      spans.add(style(found), found.end() - found.start());
      end = found.end();
    }
    spans.add(List.of(), sql.length() - end);
    return spans.create();
  }

  private static Collection<String> style(Matcher found) {
    if (found.group("note") != null) {
      return List.of("sql-note");
    }
    if (found.group("text") != null) {
      return List.of("sql-text");
    }
    return found.group("word") != null ? List.of("sql-word") : List.of();
  }
}
