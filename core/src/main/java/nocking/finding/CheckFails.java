package nocking.finding;

import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.check.CheckRow;
import nocking.check.CheckTable;
import nocking.check.Verdict;
import nocking.quantity.Numbers;
import nocking.view.ChannelView;

/** A measured check input is outside the tolerance. */
final class CheckFails implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    List<CheckRow> rows = e.acceptance().rows();
    double tolerance = e.channel().definition().toleranceOrNaN();
    return rows.stream()
        .filter(r -> r.verdict() == Verdict.FAIL)
        .max(Comparator.comparingDouble(r -> Math.abs(r.error())))
        .stream()
        .map(
            r ->
                Finding.of(
                        "check-fails",
                        Severity.STOP,
                        WorkStep.CHECK,
                        "Fails at " + e.design().amount(r.applied()),
                        "%s %s against ±%s, %s of the tolerance.%s"
                            .formatted(
                                Numbers.signed(r.error(), e.design().decimals() + 1),
                                e.channel().definition().unit(),
                                Numbers.trimmed(tolerance, 3),
                                Numbers.significant(Math.abs(r.error()) / tolerance, 2),
                                believed(e, r)))
                    .at(rows.indexOf(r)));
  }

  /** What a display that goes by a curve of its own would show there. */
  private static String believed(ChannelView e, CheckRow r) {
    boolean display = e.channel().acceptance().check().measured() == CheckTable.Measured.READING;
    if (!display || e.receiver().believed().isEmpty()) return "";
    return " By its own curve the receiver would show %s there."
        .formatted(e.design().amount(e.receiver().shownAt(r.applied())));
  }
}
