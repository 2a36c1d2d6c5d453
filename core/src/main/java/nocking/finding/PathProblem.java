package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.WorkStep;

/** The path cannot be worked out, for example because both sensor points have the same input. */
final class PathProblem implements Rule {

  @Override
  public Stream<Finding> examine(Evidence e) {
    return e.pathProblem().stream()
        .map(
            problem ->
                Finding.of(
                    "path-problem",
                    Severity.STOP,
                    WorkStep.DEFINE,
                    "The path cannot be worked out",
                    Character.toUpperCase(problem.charAt(0)) + problem.substring(1) + "."));
  }
}
