package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.fit.Fit;
import nocking.view.ChannelView;

/** The line through the ends leaves an error in the middle. */
final class MidSpan implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    var adopted = e.channel().calibration().adopted();
    if (adopted == null || !adopted.model().equals("ends")) return Stream.empty();
    double tolerance = e.channel().definition().toleranceOrNaN();
    return e.calibration().fit("ends").stream()
        .filter(f -> f.errors().length >= 3)
        .filter(
            f ->
                f.worstError() > tolerance
                    || e.calibration()
                        .fit("line")
                        .map(l -> f.worstError() > 1.5 * l.worstError())
                        .orElse(false))
        .map(f -> finding(e, f, f.worstError() > tolerance));
  }

  private static Finding finding(ChannelView e, Fit ends, boolean outside) {
    return Finding.of(
            "mid-span",
            outside ? Severity.WARNING : Severity.ADVICE,
            WorkStep.FIT,
            "The two-point line leaves " + e.design().error(ends.worstError()),
            "It stands at %s. A least-squares line shares the error out."
                .formatted(e.design().amount(ends.worstAt())))
        .with(new Fix("Adopt the least-squares line", c -> e.calibration().adopting("line")));
  }
}
