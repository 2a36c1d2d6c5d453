package nocking.finding;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.channel.SensorCard;
import nocking.points.ReferencePoint;
import nocking.sensor.RatiometricSensor;
import org.junit.jupiter.api.Test;

/** A similar sensor is fitted, and the curve of the former one was left selected. */
class SimilarCardTest {
  private static final double[] SEVEN = {0, 10, 20, 30, 40, 50, 60};

  private static SensorCard card(String name, QuantityKind kind, String unit, double full) {
    var sensor = new RatiometricSensor(v(0), v(8), v(full), v(92), v(5), v(0));
    return new SensorCard(name, name, "datasheet", "2026-03-01", kind, unit, sensor, 1);
  }

  private static final SensorCard WIDE = card("Manifold 250", QuantityKind.PRESSURE, "kPa", 250);
  private static final SensorCard NARROW = card("Manifold 100", QuantityKind.PRESSURE, "kPa", 100);

  /** Volts behind the blower's divider from a sensor of 0.4 … 4.6 V over so many kPa. */
  private static DoubleUnaryOperator fitted(double full) {
    return kPa -> (0.4 + 4.2 * kPa / full) * 10 / 15.1;
  }

  private static Optional<Finding> find(Channel c, SensorCard... cards) {
    return Analysis.of(c, List.of(cards)).findings().stream()
        .filter(f -> f.rule().equals("similar-card"))
        .findFirst();
  }

  private static Channel blower(DoubleUnaryOperator volts) {
    return Channels.blower().calibration(k -> k.withPoints(Channels.points(SEVEN, volts)));
  }

  /** At rest both sensors read the same; at 60 kPa the wide one gives what 24 kPa would. */
  @Test
  void cardThatFitsThePointsIsNamedAndCanBeTaken() {
    Channel c = blower(fitted(250));
    Finding f = find(c, NARROW, WIDE).orElseThrow();
    assertThat(f.headline()).isEqualTo("The points look like the card Manifold 250");
    assertThat(f.detail()).contains("misses them by up to 36 kPa");
    Channel taken = f.fix().orElseThrow().apply().apply(c);
    assertThat(taken.design().sensor()).isEqualTo(WIDE.sensor());
    assertThat(taken.calibration().points()).isEqualTo(c.calibration().points());
    assertThat(find(taken, NARROW, WIDE)).isEmpty();
  }

  @Test
  void cardInAnotherUnitOfTheSameQuantityCounts() {
    SensorCard psi = card("Manifold 36 psi", QuantityKind.PRESSURE, "psi", 250 / 6.894757293168361);
    assertThat(find(blower(fitted(250)), NARROW, psi)).isPresent();
  }

  @Test
  void soundPointsAndOtherErrorsAreNoOtherSensor() {
    assertThat(find(blower(fitted(100)), NARROW, WIDE)).isEmpty();
    // A ground 40 mV off, and one slipped point.
    assertThat(find(blower(x -> fitted(100).applyAsDouble(x) + 0.04), NARROW, WIDE)).isEmpty();
    Channel c = blower(fitted(100));
    ReferencePoint p = c.calibration().points().points().get(4);
    Channel slipped =
        c.calibration(
            k ->
                k.withPoints(
                    c.calibration().points().with(4, p.withReadings(List.of(v(10 * p.mean()))))));
    assertThat(find(slipped, NARROW, WIDE)).isEmpty();
  }

  @Test
  void whatMeasuresSomethingElseOrTooFewPointsProveNothing() {
    SensorCard level = card("Level", QuantityKind.LEVEL, "m", 250);
    assertThat(find(blower(fitted(250)), level)).isEmpty();
    Channel two =
        Channels.blower()
            .calibration(k -> k.withPoints(Channels.points(new double[] {0, 60}, fitted(250))));
    assertThat(find(two, NARROW, WIDE)).isEmpty();
    assertThat(find(blower(fitted(250)))).as("no book at hand").isEmpty();
  }
}
