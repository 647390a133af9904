package joiner.source;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import joiner.format.UnreadableFileException;

/**
 * XML documents, read twice as a stream: first to see which elements repeat within one parent and
 * which hold values, then for the rows. Document types and external entities are never followed.
 */
final class XmlDocument implements SourceReader {
  private static final int DEEPEST = 200;

  @Override
  public Understood read(Path file, ReadingOptions options, TableSinks sinks, ProblemLog problems)
      throws IOException, UnreadableFileException {
    Shape root;
    try (InputStream in = Files.newInputStream(file)) {
      root = shape(open(in), options);
    } catch (XMLStreamException e) {
      throw unreadable(file, e);
    }
    try (InputStream in = Files.newInputStream(file)) {
      rows(open(in), root, options, new NestedRows(sinks));
    } catch (XMLStreamException e) {
      throw unreadable(file, e);
    } catch (NestedRows.TooDeepException e) {
      throw new UnreadableFileException(file, 0, e.getMessage() + "; take the part you need.");
    }
    return new Understood("XML", -1);
  }

  private static UnreadableFileException unreadable(Path file, XMLStreamException e) {
    int line = e.getLocation() == null ? 0 : Math.max(0, e.getLocation().getLineNumber());
    String said = String.valueOf(e.getMessage()).replaceAll("(?s).*Message: ", "").strip();
    return new UnreadableFileException(
        file, line, "this is not XML that can be read (" + said + "); mend this place.");
  }

  /** A parser that resolves nothing from outside and expands no entities of its own. */
  private static XMLStreamReader open(InputStream in) throws XMLStreamException {
    XMLInputFactory factory = ClosedXml.factory();
    factory.setProperty(XMLInputFactory.IS_REPLACING_ENTITY_REFERENCES, false);
    factory.setProperty(XMLInputFactory.IS_COALESCING, true);
    return factory.createXMLStreamReader(in);
  }

  /** What an element of one place holds. */
  private static final class Shape {
    final String name;
    final Map<String, Shape> children = new LinkedHashMap<>();
    boolean repeats;
    boolean attributes;

    Shape(String name) {
      this.name = name;
    }

    /** Whether it has a value or attributes of its own, or a child that is neither repeated. */
    boolean plain() {
      return children.isEmpty() && !attributes;
    }

    /** A container of nothing but repeating elements. */
    boolean onlyRepeats() {
      return !attributes
          && !children.isEmpty()
          && children.values().stream().allMatch(child -> child.repeats);
    }
  }

  private static Shape shape(XMLStreamReader xml, ReadingOptions options)
      throws XMLStreamException {
    Deque<Shape> path = new ArrayDeque<>();
    Deque<Map<String, Integer>> counts = new ArrayDeque<>();
    Shape root = new Shape("");
    path.push(root);
    counts.push(new HashMap<>());
    while (xml.hasNext()) {
      int event = xml.next();
      if (event == XMLStreamConstants.START_ELEMENT) {
        options.checkStopped();
        if (path.size() > DEEPEST) {
          throw new XMLStreamException(
              "elements are nested more than " + DEEPEST + " deep", xml.getLocation());
        }
        Shape child = path.element().children.computeIfAbsent(xml.getLocalName(), Shape::new);
        child.attributes |= xml.getAttributeCount() > 0;
        child.repeats |= counts.element().merge(child.name, 1, Integer::sum) > 1;
        path.push(child);
        counts.push(new HashMap<>());
      } else if (event == XMLStreamConstants.END_ELEMENT) {
        path.pop();
        counts.pop();
      } else if (event == XMLStreamConstants.ENTITY_REFERENCE) {
        throw new XMLStreamException(
            "an entity “" + xml.getLocalName() + "” is used; entities are not followed",
            xml.getLocation());
      }
    }
    return root.children.values().iterator().next();
  }

  private static void rows(XMLStreamReader xml, Shape root, ReadingOptions options, NestedRows rows)
      throws XMLStreamException {
    while (xml.next() != XMLStreamConstants.START_ELEMENT) {
      options.checkStopped();
    }
    if (!root.onlyRepeats()) {
      NestedRows.Section section = rows.top(root.name);
      element(xml, root, section, "", options);
      section.endRow(1);
      return;
    }
    Map<String, NestedRows.Section> tops = new HashMap<>();
    while (xml.next() != XMLStreamConstants.END_ELEMENT) {
      if (xml.getEventType() == XMLStreamConstants.START_ELEMENT) {
        Shape child = root.children.get(xml.getLocalName());
        NestedRows.Section section = tops.computeIfAbsent(child.name, rows::top);
        long line = xml.getLocation().getLineNumber();
        element(xml, child, section, "", options);
        section.endRow(line);
      }
    }
  }

  /** Puts the element at hand into the current row of the section; ends at its end tag. */
  private static void element(
      XMLStreamReader xml,
      Shape shape,
      NestedRows.Section section,
      String path,
      ReadingOptions options)
      throws XMLStreamException {
    options.checkStopped();
    for (int i = 0; i < xml.getAttributeCount(); i++) {
      section.cell(path + xml.getAttributeLocalName(i), xml.getAttributeValue(i));
    }
    var text = new StringBuilder();
    while (xml.next() != XMLStreamConstants.END_ELEMENT) {
      switch (xml.getEventType()) {
        case XMLStreamConstants.START_ELEMENT ->
            child(xml, shape.children.get(xml.getLocalName()), section, path, options);
        case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA -> text.append(xml.getText());
        default -> {}
      }
    }
    String value = text.toString().strip();
    boolean own = path.isEmpty() || !shape.plain();
    if (!value.isEmpty() || shape.plain()) {
      String header = path.isEmpty() ? section.valueHeader() : path.substring(0, path.length() - 1);
      section.cell(own && !path.isEmpty() ? header + ".value" : header, value);
    }
  }

  private static void child(
      XMLStreamReader xml,
      Shape child,
      NestedRows.Section section,
      String path,
      ReadingOptions options)
      throws XMLStreamException {
    if (child.repeats) {
      long line = xml.getLocation().getLineNumber();
      NestedRows.Section detail = section.detail(path + child.name);
      detail.belongsTo(section);
      element(xml, child, detail, "", options);
      detail.endRow(line);
    } else if (!child.plain() && child.onlyRepeats()) {
      container(xml, child, section, path, options);
    } else {
      element(xml, child, section, path + child.name + ".", options);
    }
  }

  /** An element around repeating ones adds nothing of its own. */
  private static void container(
      XMLStreamReader xml,
      Shape container,
      NestedRows.Section section,
      String path,
      ReadingOptions options)
      throws XMLStreamException {
    while (xml.next() != XMLStreamConstants.END_ELEMENT) {
      if (xml.getEventType() == XMLStreamConstants.START_ELEMENT) {
        child(xml, container.children.get(xml.getLocalName()), section, path, options);
      }
    }
  }
}
