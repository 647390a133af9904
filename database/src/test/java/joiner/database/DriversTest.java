package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.SQLException;
import java.util.Properties;
import java.util.jar.JarEntry;
import java.util.jar.JarOutputStream;
import javax.tools.ToolProvider;
import joiner.engine.Dialects;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Drivers that a user puts into a folder. */
class DriversTest {
  @TempDir private Path folder;

  private Connection connect(String url) throws TargetRefusedException, SQLException {
    return new Drivers(folder.resolve("drivers")).connect(url, new Properties(), Dialects.DUCKDB);
  }

  @Test
  void withoutADriverItIsSaidWhichOneIsNeededAndWhere() throws IOException {
    assertThatThrownBy(() -> connect("jdbc:oven:hot"))
        .isInstanceOf(TargetRefusedException.class)
        .hasMessageContaining("no driver for DuckDB")
        .hasMessageContaining("duckdb_jdbc")
        .hasMessageContaining(folder.resolve("drivers").toString());
    Files.createDirectories(folder.resolve("drivers"));
    assertThatThrownBy(() -> connect("jdbc:oven:hot"))
        .isInstanceOf(TargetRefusedException.class)
        .hasMessageContaining("no driver");
  }

  @Test
  void whatCannotBeReadIsNamed() throws IOException {
    driver("oven.Missing", "");
    assertThatThrownBy(() -> connect("jdbc:oven:hot"))
        .isInstanceOf(TargetRefusedException.class)
        .hasMessageContaining("cannot be read")
        .hasMessageContaining("oven.Missing");
  }

  @Test
  void aDriverInTheFolderIsTaken() throws Exception {
    driver(
        "oven.Oven",
        """
        package oven;
        import java.sql.*;
        public class Oven implements Driver {
          public boolean acceptsURL(String url) { return url.startsWith("jdbc:oven:"); }
          public Connection connect(String url, java.util.Properties p) throws SQLException {
            return url.endsWith("cold") ? null : (Connection) java.lang.reflect.Proxy.newProxyInstance(
                Oven.class.getClassLoader(),
                new Class<?>[] {Connection.class},
                (proxy, method, arguments) -> method.getName().equals("isValid") ? true : null);
          }
          public DriverPropertyInfo[] getPropertyInfo(String url, java.util.Properties p) { return null; }
          public int getMajorVersion() { return 1; }
          public int getMinorVersion() { return 0; }
          public boolean jdbcCompliant() { return false; }
          public java.util.logging.Logger getParentLogger() { return null; }
        }
        """);
    try (Connection connection = connect("jdbc:oven:hot")) {
      assertThat(connection.isValid(1)).isTrue();
    }
    Files.delete(folder.resolve("drivers/oven.jar"));
    try (Connection again = connect("jdbc:oven:hot")) {
      assertThat(again.isValid(1)).as("a driver is loaded once").isTrue();
    }
    assertThatThrownBy(() -> connect("jdbc:oven:cold")).isInstanceOf(SQLException.class);
    assertThatThrownBy(() -> connect("jdbc:stove:hot")).isInstanceOf(TargetRefusedException.class);
  }

  /** A jar with one driver class, compiled from its source; no source: no class. */
  private void driver(String name, String source) throws IOException {
    Path drivers = Files.createDirectories(folder.resolve("drivers"));
    try (var jar = new JarOutputStream(Files.newOutputStream(drivers.resolve("oven.jar")))) {
      jar.putNextEntry(new JarEntry("META-INF/services/" + Driver.class.getName()));
      jar.write(name.getBytes(java.nio.charset.StandardCharsets.UTF_8));
      if (!source.isEmpty()) {
        Path file = folder.resolve("Oven.java");
        Files.writeString(file, source);
        ToolProvider.getSystemJavaCompiler()
            .run(null, null, null, "-d", folder.toString(), file.toString());
        jar.putNextEntry(new JarEntry("oven/Oven.class"));
        jar.write(Files.readAllBytes(folder.resolve("oven/Oven.class")));
      }
    }
  }
}
