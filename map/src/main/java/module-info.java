/** Pictures of designs, for the window and for files. */
module joiner.map {
  requires joiner.core;
  requires java.desktop;
  requires org.eclipse.elk.alg.layered;
  requires org.eclipse.emf.common;
  requires org.eclipse.elk.core;
  requires org.eclipse.elk.graph;
  requires org.jfree.svg;
  requires org.jgrapht.core;
  requires com.github.librepdf.openpdf;

  exports joiner.map;
}
