package joiner.source;

import javax.xml.stream.XMLInputFactory;

/** XML parsers that follow nothing: no document type, no entity from outside. */
final class ClosedXml {
  private ClosedXml() {}

  static XMLInputFactory factory() {
    XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
    factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    return factory;
  }
}
