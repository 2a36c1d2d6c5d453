package nocking.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nocking.quantity.Numbers;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.RunProgress;

/** The points of a run, for people and for programs. */
final class RunAnswer {
  private RunAnswer() {}

  static List<Object> points(RunProgress p) {
    return p.points().stream().map(q -> object(q, p)).toList();
  }

  /** A row for each point, with a head. */
  static List<List<String>> table(RunProgress p) {
    var rows = new ArrayList<List<String>>();
    var head = new ArrayList<>(List.of("#", "set", "applied " + p.plan().unit()));
    p.plan().channels().forEach(c -> head.add(c.tag() + " " + c.raw().unit().symbol()));
    head.add("");
    rows.add(head);
    for (RunPoint q : p.points()) rows.add(row(q, p));
    return rows;
  }

  private static List<String> row(RunPoint q, RunProgress p) {
    var row = new ArrayList<String>();
    row.add(String.valueOf(q.target() + 1));
    row.add(Numbers.trimmed(p.targets().get(q.target()).setPoint(), 6));
    row.add(applied(q, p.plan()));
    for (int i = 0; i < q.readings().size(); i++) {
      row.add(Numbers.significant(q.mean(i), 6));
    }
    String why = q.how() == RunPoint.How.SETTLED ? "" : q.why();
    row.add(q.doubted() ? "doubtful: " + q.doubt() : why);
    return row;
  }

  /** With the digits that a reference in its band can tell. */
  static String applied(RunPoint q, RunPlan plan) {
    return Numbers.fixed(q.applied(), Numbers.decimalsFor(plan.band() / 100));
  }

  private static Object object(RunPoint q, RunProgress p) {
    return Answer.object(
        "target", q.target() + 1,
        "setPoint", p.targets().get(q.target()).setPoint(),
        "down", p.targets().get(q.target()).down(),
        "applied", q.applied(),
        "readings", q.readings(),
        "how", q.how().name().toLowerCase(Locale.ROOT).replace('_', ' '),
        "why", q.why(),
        "doubt", q.doubted() ? q.doubt() : "",
        "supply", q.supply() == null ? "" : q.supply(),
        "apart", q.apart() == null ? "" : q.apart());
  }
}
