import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.FileSystem;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;

/** Takes the signatures out of the libraries in a folder; what they hold stays as it is. */
final class Unsign {
  public static void main(String[] arguments) throws IOException {
    try (DirectoryStream<Path> libraries =
        Files.newDirectoryStream(Path.of(arguments[0]), "*.jar")) {
      for (Path library : libraries) {
        try (FileSystem inside = FileSystems.newFileSystem(library)) {
          Path signatures = inside.getPath("META-INF");
          if (Files.isDirectory(signatures)) {
            unsign(signatures);
          }
        }
      }
    }
  }

  private static void unsign(Path folder) throws IOException {
    try (DirectoryStream<Path> signatures =
        Files.newDirectoryStream(folder, "*.{SF,RSA,DSA,EC}")) {
      for (Path signature : signatures) {
        Files.delete(signature);
      }
    }
  }
}
