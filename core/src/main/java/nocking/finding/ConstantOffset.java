package nocking.finding;

import java.util.Arrays;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.fit.Fit;
import nocking.quantity.Numbers;
import nocking.view.ChannelView;

/**
 * The design reads off by the same amount everywhere, inside the tolerance: a ground or zero error.
 * What is outside the tolerance is weighed against every other cause by {@link PointsContradict}.
 */
final class ConstantOffset implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    if (e.design().path().isEmpty() || e.calibration().misfit().isPresent()) return Stream.empty();
    return e.calibration().fit("design").stream()
        .filter(f -> f.errors().length >= 3 && constant(e, f.errors()))
        .map(f -> finding(e, f));
  }

  private static boolean constant(ChannelView e, double[] errors) {
    double mean = Arrays.stream(errors).average().orElse(0);
    double spread = Arrays.stream(errors).map(v -> Math.abs(v - mean)).max().orElse(0);
    double count = e.design().path().get().countsWorth(e.channel().definition().working().middle());
    return Math.abs(mean) > 4 * count && Math.abs(mean) > 3 * spread;
  }

  private static Finding finding(ChannelView e, Fit design) {
    double mean = Arrays.stream(design.errors()).average().orElse(0);
    var path = e.design().path().get();
    double middle = e.channel().definition().working().middle();
    double volts = path.output(middle + mean) - path.output(middle);
    return Finding.of(
        "constant-offset",
        Severity.ADVICE,
        WorkStep.FIT,
        "The design reads %s %s at every point"
            .formatted(e.design().error(Math.abs(mean)), mean > 0 ? "high" : "low"),
        "That is %s at the converter everywhere: look for a ground offset or a zero that is not where the design has it."
            .formatted(Numbers.engineering(Math.abs(volts), "V", 2)));
  }
}
