package joiner.discovery;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import joiner.dependency.AttributeSet;
import joiner.naming.NamingPolicy;

/** The columns of a table as the ids of facts name them. */
final class FactNames {
  private final List<String> names = new ArrayList<>();
  private final List<String> headers;

  FactNames(List<String> headers) {
    this.headers = List.copyOf(headers);
    headers.forEach(header -> names.add(NamingPolicy.free(NamingPolicy.nameFor(header), names)));
  }

  String of(int column) {
    return names.get(column);
  }

  String of(AttributeSet columns) {
    return columns.places().mapToObj(names::get).collect(Collectors.joining("+"));
  }

  /** As people read it. */
  String header(int column) {
    return headers.get(column);
  }

  String headers(AttributeSet columns) {
    return columns.places().mapToObj(headers::get).collect(Collectors.joining(" and "));
  }
}
