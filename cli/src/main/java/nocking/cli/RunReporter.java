package nocking.cli;

import java.io.PrintWriter;
import nocking.bench.run.RunEngine;
import nocking.quantity.Numbers;
import nocking.run.RunPoint;
import nocking.run.RunSnapshot;

/** Says on standard error what is new: a point, a trouble, another thing to do. */
final class RunReporter implements RunEngine.Listener {
  private final PrintWriter err;
  private int points = -1;
  private int target = -1;
  private String trouble = "";
  private final DoubtOnLine doubts;

  /**
   * @param asks true where somebody is there to be asked
   */
  RunReporter(PrintWriter err, boolean asks) {
    this.err = err;
    doubts = new DoubtOnLine(err, asks);
  }

  @Override
  public void changed(RunSnapshot now) {
    if (points < 0) points = now.points().size();
    for (; points < now.points().size(); points++) {
      RunPoint p = now.points().get(points);
      say(
          "point %d of %d: %s %s%s",
          p.target() + 1,
          now.targets().size(),
          RunAnswer.applied(p, now.plan()),
          now.plan().unit(),
          p.why().isEmpty() ? "" : ", " + p.why());
      if (p.doubted()) say("  taken all the same: %s", p.doubt());
    }
    if (!now.trouble().equals(trouble)) {
      trouble = now.trouble();
      if (!trouble.isEmpty()) say("%s; trying again", trouble);
    }
    doubts.changed(now);
    if (now.next() != target && now.target().isPresent()) {
      target = now.next();
      say("to %s %s", Numbers.trimmed(now.target().get().setPoint(), 6), now.plan().unit());
    }
  }

  private void say(String format, Object... arguments) {
    err.println(format.formatted(arguments));
    err.flush();
  }
}
