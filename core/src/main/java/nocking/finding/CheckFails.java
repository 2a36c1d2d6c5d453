package nocking.finding;

import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.check.CheckRow;
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
                        "%s %s against ±%s, %s of the tolerance."
                            .formatted(
                                Numbers.signed(r.error(), e.design().decimals() + 1),
                                e.channel().definition().unit(),
                                Numbers.trimmed(tolerance, 3),
                                Numbers.significant(Math.abs(r.error()) / tolerance, 2)))
                    .at(rows.indexOf(r)));
  }
}
