package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.sensor.AcVoltage;
import nocking.view.ChannelView;

/** The working range leaves the sensor's rated range, or uses little of it. */
final class RatedRange implements Rule {

  private static final double LAVISH = 3;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    if (e.design().rated().isEmpty() || e.design().path().isEmpty()) return Stream.empty();
    Span working = e.channel().definition().working();
    Span rated = e.design().rated().get();
    if (!rated.contains(working.low()) || !rated.contains(working.high())) {
      return Stream.of(
          Finding.of(
              "outside-rated",
              Severity.WARNING,
              WorkStep.DEFINE,
              "The working range exceeds the sensor's rating",
              "It is rated for %s … %s; the working range is %s … %s. Outside, the sensor is not specified."
                  .formatted(
                      e.design().amount(rated.low()),
                      e.design().amount(rated.high()),
                      e.design().amount(working.low()),
                      e.design().amount(working.high()))));
    }
    double times = rated.width() / working.width();
    // Nobody can buy a mains voltage with a smaller range.
    if (times < LAVISH || e.channel().design().sensor() instanceof AcVoltage) return Stream.empty();
    return Stream.of(
        Finding.of(
            "sensor-large",
            Severity.ADVICE,
            WorkStep.DEFINE,
            "Sensor range is %s× the job".formatted(Numbers.fixed(times, 1)),
            "The resolution is %s, one count. A sensor with a smaller range would resolve more."
                .formatted(
                    e.design().error(e.design().path().get().countsWorth(working.middle())))));
  }
}
