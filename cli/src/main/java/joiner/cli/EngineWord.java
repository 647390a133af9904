package joiner.cli;

import java.util.Iterator;
import java.util.stream.Collectors;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** An engine, as the command line spells it. */
final class EngineWord implements ITypeConverter<Dialect>, Iterable<String> {
  @Override
  public Dialect convert(String word) {
    return Dialects.named(word)
        .orElseThrow(
            () ->
                new TypeConversionException(
                    "expected one of "
                        + Dialects.ALL.stream().map(Dialect::id).collect(Collectors.joining(", "))
                        + " but was '"
                        + word
                        + "'"));
  }

  @Override
  public Iterator<String> iterator() {
    return Dialects.ALL.stream().map(Dialect::id).iterator();
  }
}
