package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.UnsupportedCharsetException;
import java.nio.file.Path;
import java.util.List;
import joiner.format.UnreadableFileException;
import joiner.source.ProfiledSource;
import joiner.source.ReadingOptions;
import joiner.source.Source;
import joiner.source.SourceFile;
import joiner.source.SourceProblem;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** How source files are read, where the person knows better than the reader. */
final class SourceArgument {
  @Option(
      names = "--separator",
      paramLabel = "C",
      description =
          "Separator of delimited text, one character or “tab”; found by looking if absent.")
  private String separator;

  @Option(
      names = "--encoding",
      paramLabel = "NAME",
      description = "Encoding of text, like UTF-8 or windows-1252; found by looking if absent.")
  private String encoding;

  @Option(
      names = "--header-line",
      paramLabel = "N",
      description = "The line with the column names, from 1; 0 if there is none.")
  private Integer headerLine;

  @Spec(Spec.Target.MIXEE)
  private CommandSpec spec;

  ReadingOptions options() {
    ReadingOptions options = ReadingOptions.DETECT;
    if (separator != null) {
      String text = separator.equals("tab") || separator.equals("\\t") ? "\t" : separator;
      if (text.length() != 1) {
        throw new ParameterException(
            spec.commandLine(), "--separator is one character or “tab”, not “" + separator + "”");
      }
      options = options.withSeparator(text.charAt(0));
    }
    if (encoding != null) {
      options = options.withCharset(charset());
    }
    if (headerLine != null && headerLine < 0) {
      throw new ParameterException(
          spec.commandLine(), "--header-line is 0 or more, not " + headerLine);
    }
    return headerLine == null ? options : options.withHeaderLine(headerLine);
  }

  private Charset charset() {
    try {
      return Charset.forName(encoding);
    } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
      throw new ParameterException(
          spec.commandLine(), "there is no encoding “" + encoding + "”; try UTF-8", e);
    }
  }

  /** Reads a file; its problems are told on {@code err}. */
  Source read(Path file, PrintWriter err) throws IOException, UnreadableFileException {
    Source source = SourceFile.read(file, options());
    tell(source.problems(), err);
    return source;
  }

  /** Reads a file whose rows stay in it; its problems are told on {@code err}. */
  ProfiledSource readHead(Path file, PrintWriter err) throws IOException, UnreadableFileException {
    ProfiledSource head = SourceFile.readHead(file, options());
    tell(head.source().problems(), err);
    return head;
  }

  static void tell(List<SourceProblem> problems, PrintWriter err) {
    problems.forEach(problem -> err.println("joiner: " + problem));
  }
}
