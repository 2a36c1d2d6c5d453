package nocking.cli;

import java.nio.file.Path;
import java.time.Clock;
import nocking.bench.run.Rig;
import nocking.bench.run.RunEngine;
import nocking.bench.simulated.SteppedClock;
import nocking.book.BookFile;
import nocking.channel.RunJson;
import nocking.run.RunProgress;
import nocking.run.StoredRun;

/**
 * A process that carries the newest unfinished run of a book out, and says every sweep and point
 * once it is acknowledged; the test kills it.
 */
final class RunningProcess {
  private RunningProcess() {}

  public static void main(String[] arguments) throws Exception {
    try (BookFile book = BookFile.open(Path.of(arguments[0]), Clock.systemUTC());
        var clock = new SteppedClock(arguments[1], Long.parseLong(arguments[2]))) {
      StoredRun run = book.runs().getFirst();
      RunProgress progress = run.progress();
      int[] points = {progress.points().size()};
      new RunEngine(
              progress,
              book.journal(run.id(), run.plan()),
              new Rig(run.plan()),
              clock,
              s -> {
                s.last().ifPresent(l -> System.out.println("sweep " + l.at()));
                for (; points[0] < s.points().size(); points[0]++) {
                  System.out.println("point " + RunJson.compact(s.points().get(points[0])));
                }
                System.out.flush();
              })
          .run();
      System.out.println("end");
    }
  }
}
