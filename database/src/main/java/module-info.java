/** Live databases: shipping, reading back, verifying. */
module joiner.database {
  requires transitive joiner.core;
  requires transitive java.sql;
  requires org.postgresql.jdbc;

  exports joiner.database;
}
