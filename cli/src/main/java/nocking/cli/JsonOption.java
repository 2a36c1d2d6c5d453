package nocking.cli;

import java.io.PrintWriter;
import java.util.concurrent.Callable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** A command that answers as text or, with {@code --json}, as one JSON object. */
abstract class JsonOption implements Callable<Integer> {
  @Spec CommandSpec spec;

  @Option(names = "--json", description = "Print one JSON object with full precision.")
  boolean json;

  @Override
  public final Integer call() {
    PrintWriter out = spec.commandLine().getOut();
    var answer = new Answer();
    int code = run(answer);
    answer.print(out, json);
    return code;
  }

  /**
   * @return 0, or 1 when the answer is a fail
   */
  abstract int run(Answer answer);
}
