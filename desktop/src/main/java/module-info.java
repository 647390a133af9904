/** The window. */
module joiner.desktop {
  requires joiner.core;
  requires joiner.database;
  requires atlantafx.base;
  requires javafx.controls;
  requires org.eclipse.elk.alg.layered;
  requires org.eclipse.emf.common;
  requires org.eclipse.elk.core;
  requires org.eclipse.elk.graph;
  requires org.fxmisc.flowless;
  requires org.fxmisc.richtext;
  requires org.kordamp.ikonli.core;
  requires org.kordamp.ikonli.feather;
  requires org.kordamp.ikonli.javafx;
  requires org.slf4j;

  exports joiner.desktop;
}
