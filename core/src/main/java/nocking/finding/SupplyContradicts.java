package nocking.finding;

import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.quantity.Numbers;
import nocking.quantity.Value;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.TwoPointSensor;
import nocking.view.ChannelView;

/**
 * The wire plan and the sensor state different supplies, or a signal that is a fraction of a shared
 * supply was typed as two absolute voltages.
 */
final class SupplyContradicts implements Rule {
  private static final double SAME = 1e-3;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Channel c = e.channel();
    if (c.design().sensor() == null) return Stream.empty();
    return Stream.concat(two(c).stream(), absolute(c).stream());
  }

  private static Optional<Finding> two(Channel c) {
    Value wired = c.wiring().plan().supply();
    Optional<Double> own = c.design().sensor().ratiometricSupply();
    if (wired == null || own.isEmpty()) return Optional.empty();
    if (Math.abs(wired.number() / own.get() - 1) <= SAME) return Optional.empty();
    return Optional.of(
        Finding.of(
                "supply-contradicts",
                Severity.WARNING,
                WorkStep.WIRE,
                "The wires bring %s, the sensor is defined for %s"
                    .formatted(volts(wired.number()), volts(own.get())),
                "The equation counts with the sensor's own number. With the other one every reading is off by the factor %s."
                    .formatted(Numbers.significant(wired.number() / own.get(), 4)))
            .with(
                new Fix(
                    "Take %s out of the wire plan".formatted(volts(wired.number())),
                    k -> k.wiring(w -> w.withPlan(w.plan().withSupply(null))))));
  }

  /** Volts of a shared rail that are usual shares of it. */
  private static Optional<Finding> absolute(Channel c) {
    if (!(c.design().sensor() instanceof TwoPointSensor s)) return Optional.empty();
    Value wired = c.wiring().plan().supply();
    double reference = c.design().converter().reference().number();
    double supply = wired == null ? reference : wired.number();
    boolean shared = c.wiring().plan().sharedReference();
    boolean same = wired != null && Math.abs(supply / reference - 1) <= SAME;
    if (!shared && !same) return Optional.empty();
    double a = 100 * s.lowOutput().number() / supply;
    double b = 100 * s.highOutput().number() / supply;
    if (a < 0 || b < 0 || a > 100 || b > 100 || !round(a) || !round(b)) return Optional.empty();
    var ratio =
        new RatiometricSensor(
            s.lowAt(),
            Value.of(Math.rint(a * 1e6) / 1e6),
            s.highAt(),
            Value.of(Math.rint(b * 1e6) / 1e6),
            Value.of(supply),
            s.sourceResistance());
    return Optional.of(
        Finding.of(
                "absolute-ratio",
                Severity.ADVICE,
                WorkStep.DEFINE,
                "Is the output a share of its %s supply?".formatted(volts(supply)),
                "%s and %s are %s %% and %s %% of the supply, which is %s converter's reference. A sensor that follows its supply, read against the same rail, is not moved by it; as two absolute voltages it seems to be."
                    .formatted(
                        volts(s.lowOutput().number()),
                        volts(s.highOutput().number()),
                        Numbers.trimmed(a, 4),
                        Numbers.trimmed(b, 4),
                        shared ? "the" : "as much as the"))
            .with(
                new Fix(
                    "Take it as a share of the supply", k -> k.design(d -> d.withSensor(ratio)))));
  }

  /** Shares that datasheets give are whole or half percents. */
  private static boolean round(double percent) {
    return Math.abs(2 * percent - Math.rint(2 * percent)) < 1e-6;
  }

  private static String volts(double v) {
    return Numbers.compact(v, "V", 4);
  }
}
