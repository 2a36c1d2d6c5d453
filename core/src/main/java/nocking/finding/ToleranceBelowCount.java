package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.view.ChannelView;

/** What is asked for is finer than one count of the converter. */
final class ToleranceBelowCount implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    double tolerance = e.channel().definition().toleranceOrNaN();
    return e.design().path().stream().flatMap(p -> look(e, p, tolerance));
  }

  private static Stream<Finding> look(ChannelView e, SignalPath path, double tolerance) {
    Span w = e.channel().definition().working();
    double worst = 0;
    double at = w.low();
    for (int i = 0; i <= 8; i++) {
      double x = w.at(i / 8.0);
      double count = path.countsWorth(x);
      if (Double.isFinite(count) && count > worst) {
        worst = count;
        at = x;
      }
    }
    if (Double.isNaN(tolerance) || worst <= tolerance) return Stream.empty();
    int bits = (int) Math.ceil(Math.log(worst / tolerance) / Math.log(2));
    return Stream.of(
        Finding.of(
            "tolerance-below-count",
            Severity.WARNING,
            WorkStep.CONDITION,
            "The tolerance is less than one count",
            "At %s the resolution is %s, one count, and %s is asked for: it takes %d bit%s more, or a signal that uses more of the %s."
                .formatted(
                    e.design().amount(at),
                    e.design().error(worst),
                    e.design().error(tolerance),
                    bits,
                    bits == 1 ? "" : "s",
                    Numbers.engineering(path.converter().reference().number(), "V", 3))));
  }
}
