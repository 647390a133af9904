/** Everything Joiner knows and computes: no window, no database, no printing. */
module joiner.core {
  requires static transitive org.jspecify;
  requires com.fasterxml.jackson.core;
  requires re2j;
  requires com.ibm.icu;
  requires de.siegmar.fastcsv;
  requires evo.inflector;
  requires java.xml;
  requires org.apache.commons.csv;
  requires org.dhatim.fastexcel;
  requires org.dhatim.fastexcel.reader;
  requires org.jgrapht.core;
  requires tools.aqua.turnkey.z3;

  exports joiner.audit;
  exports joiner.catalog;
  exports joiner.change;
  exports joiner.compare;
  exports joiner.ddl;
  exports joiner.deletion;
  exports joiner.dependency;
  exports joiner.discovery;
  exports joiner.edit;
  exports joiner.engine;
  exports joiner.entry;
  exports joiner.expression;
  exports joiner.finding;
  exports joiner.format;
  exports joiner.joining;
  exports joiner.meaning;
  exports joiner.model;
  exports joiner.naming;
  exports joiner.outline;
  exports joiner.reasoning;
  exports joiner.rows;
  exports joiner.shape;
  exports joiner.source;
  exports joiner.split;
}
