package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.fit.Fit;

/** The line through the ends leaves an error in the middle. */
final class MidSpan implements Rule {

  @Override
  public Stream<Finding> examine(Evidence e) {
    var adopted = e.channel().calibration().adopted();
    if (adopted == null || !adopted.model().equals("ends")) return Stream.empty();
    double tolerance = e.channel().definition().toleranceOrNaN();
    return e.fit("ends").stream()
        .filter(f -> f.errors().length >= 3)
        .filter(
            f ->
                f.worstError() > tolerance
                    || e.fit("line").map(l -> f.worstError() > 1.5 * l.worstError()).orElse(false))
        .map(f -> finding(e, f, f.worstError() > tolerance));
  }

  private static Finding finding(Evidence e, Fit ends, boolean outside) {
    return Finding.of(
            "mid-span",
            outside ? Severity.WARNING : Severity.ADVICE,
            WorkStep.FIT,
            "The two-point line leaves " + e.error(ends.worstError()),
            "It stands at %s. A least-squares line shares the error out."
                .formatted(e.amount(ends.worstAt())))
        .with(new Fix("Adopt the least-squares line", c -> e.adopting("line")));
  }
}
