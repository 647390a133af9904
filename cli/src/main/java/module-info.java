/** The command line. */
module joiner.cli {
  requires joiner.core;
  requires joiner.database;
  requires joiner.map;
  requires com.fasterxml.jackson.core;
  requires info.picocli;

  exports joiner.cli;

  opens joiner.cli to
      info.picocli;
}
