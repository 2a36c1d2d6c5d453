package nocking.analysis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import nocking.channel.Channel;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.SteppedSensor;
import nocking.sensor.SteppedSensor.Position;
import org.junit.jupiter.api.Test;

/** The probe stands where the channel has a value: inside its ranges, or on a station. */
class ProbeInputTest {
  private static Value v(double number) {
    return Value.of(number);
  }

  private static final Channel SELECTOR =
      Channel.blank("s", "S-1")
          .define(d -> d.withUnit("").withRange(v(1), v(3)).withTolerance(v(0.3)))
          .design(
              d ->
                  d.withSensor(
                      new SteppedSensor(
                          List.of(
                              new Position("drain", v(1)),
                              new Position("Raceway 1", v(2)),
                              new Position("bypass", v(3))),
                          v(0))));

  @Test
  void aSelectorIsProbedAtItsStations() {
    assertThat(ProbeInput.nearest(SELECTOR, 1.8)).isEqualTo(2);
    assertThat(ProbeInput.nearest(SELECTOR, -1e300)).isEqualTo(1);
    assertThat(ProbeInput.nearest(SELECTOR, 99)).isEqualTo(3);
    assertThat(ProbeInput.typed(SELECTOR, " raceway 1 ")).isEqualTo(2);
    assertThat(ProbeInput.typed(SELECTOR, "3")).isEqualTo(3);
    for (String between : List.of("1.5", "0", "4")) {
      assertThatThrownBy(() -> ProbeInput.typed(SELECTOR, between))
          .isInstanceOf(QuantityException.class)
          .hasMessage("expected drain, Raceway 1, bypass, or 1 to 3");
    }
  }

  @Test
  void aReadingIsAStationOnlyInsideTheTolerance() {
    assertThat(SELECTOR.design().station(2.3)).contains("Raceway 1");
    assertThat(SELECTOR.design().station(2.31)).isEmpty();
    assertThat(SELECTOR.design().station(3.2)).contains("bypass");
    assertThat(SELECTOR.design().station(0.6)).isEmpty();
    assertThat(SELECTOR.design().station(Double.NaN)).isEmpty();
    assertThat(SELECTOR.define(d -> d.withTolerance(null)).design().station(2.5))
        .contains("Raceway 1");
  }

  @Test
  void anEvenQuantityIsProbedInsideWorkingAndRatedRange() {
    Channel c = Channel.blank("p", "P-1").define(d -> d.withUnit("kPa").withRange(v(0), v(60)));
    assertThat(ProbeInput.nearest(c, 80)).as("no sensor yet").isEqualTo(60);
    Channel rated =
        c.design(d -> d.withSensor(new RatiometricSensor(v(0), v(8), v(100), v(92), v(5), v(0))));
    assertThat(ProbeInput.nearest(rated, 80)).isEqualTo(80);
    assertThat(ProbeInput.nearest(rated, 800)).isEqualTo(100);
    assertThat(ProbeInput.typed(rated, "10 psi")).isBetween(68.9, 69.0);
  }
}
