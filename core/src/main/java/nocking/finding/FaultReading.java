package nocking.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.check.CheckRow;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.view.ChannelView;
import nocking.wiring.Thresholds;

/** A check or a reference point lies where only a fault can be. */
final class FaultReading implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Thresholds limits = e.channel().wiring().plan().thresholds();
    if (limits == null) return Stream.empty();
    var list = new ArrayList<Finding>();
    List<CheckRow> rows = e.acceptance().rows();
    for (int i = 0; i < rows.size(); i++) {
      if (rows.get(i).fault()) {
        list.add(
            finding(
                WorkStep.CHECK,
                "The check at %s reads a fault".formatted(e.design().amount(rows.get(i).applied())),
                limits,
                i));
      }
    }
    double reference = e.channel().design().converter().reference().number();
    Span range = new Span(-0.05 * reference, 1.05 * reference);
    var points = e.channel().calibration().points().points();
    for (int i = 0; i < points.size(); i++) {
      if (points.get(i).leftOut() != null || points.get(i).readings().isEmpty()) continue;
      double volts = e.calibration().volts(points.get(i));
      // What no converter can give is a slip of the pen, which has a rule of its own.
      if (!limits.fault(volts) || !range.contains(volts)) continue;
      list.add(
          finding(
              WorkStep.COLLECT,
              "Point %d at %s reads a fault".formatted(i + 1, Numbers.engineering(volts, "V", 3)),
              limits,
              i));
    }
    return list.stream();
  }

  private static Finding finding(WorkStep step, String headline, Thresholds limits, int item) {
    return Finding.of(
            "fault-reading",
            Severity.WARNING,
            step,
            headline,
            "A sound channel never reads %s: look for a broken wire before anything is adjusted."
                .formatted(limits.says()))
        .at(item);
  }
}
