package joiner.source;

import java.util.ArrayList;
import java.util.List;

/** Collects the problems of a file; of many alike, the first are told and the rest counted. */
final class ProblemLog {
  private static final int TOLD = 50;

  private final List<SourceProblem> problems = new ArrayList<>();
  private long more;

  void add(SourceProblem problem) {
    if (problems.size() < TOLD) {
      problems.add(problem);
    } else {
      more++;
    }
  }

  List<SourceProblem> all() {
    var all = new ArrayList<>(problems);
    if (more > 0) {
      all.add(
          new SourceProblem(
              problems.getLast().place(), "and " + more + " more problems after this one."));
    }
    return all;
  }
}
