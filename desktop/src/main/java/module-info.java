/** The window. */
module joiner.desktop {
  requires joiner.core;
  requires joiner.database;
  requires joiner.map;
  requires atlantafx.base;
  requires javafx.controls;
  requires org.fxmisc.flowless;
  requires org.fxmisc.richtext;
  requires org.kordamp.ikonli.core;
  requires org.kordamp.ikonli.feather;
  requires org.kordamp.ikonli.javafx;
  requires org.slf4j;

  exports joiner.desktop;
}
