package nocking.analysis;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import nocking.Channels;
import nocking.channel.Channel;
import nocking.parts.Assortment;
import nocking.parts.PreferredSeries;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Spread;
import nocking.sensor.Potentiometer;
import org.junit.jupiter.api.Test;

/** End resistors that are chosen for the potentiometer of a channel. */
class EndResistorsTest {
  private static Channel lever(double from, double to) {
    return Channel.blank("l", "SG-P1")
        .define(d -> d.withUnit("mm").withRange(v(from), v(to)))
        .design(
            d ->
                d.withSensor(
                    new Potentiometer(
                        v(0),
                        v(100),
                        v(0),
                        v(1),
                        v(5),
                        v(5000).withSpread(Spread.percent(20)),
                        v(0))));
  }

  private static final Assortment E24 = Assortment.of(PreferredSeries.E24);

  /** Inside in every corner of the parts, and no pair keeps more of the swing. */
  @Test
  void thePairKeepsTheBandInsideAndTheMostOfTheSwing() {
    EndResistors found = EndResistors.choose(lever(0, 100), new Span(0.5, 4.5), E24);
    Potentiometer p = (Potentiometer) found.channel().design().sensor();
    double rt = p.top().number();
    double rb = p.bottom().number();
    assertThat(lowest(rt, rb)).isGreaterThanOrEqualTo(0.5);
    assertThat(highest(rt, rb)).isLessThanOrEqualTo(4.5);
    double kept = 5000 / (rt + 5000 + rb);
    for (int i = 0; i < E24.size(); i++) {
      for (int j = 0; j < E24.size(); j++) {
        double a = E24.ohms(i);
        double b = E24.ohms(j);
        if (lowest(a, b) < 0.5 || highest(a, b) > 4.5) continue;
        assertThat(5000 / (a + 5000 + b)).as("%s %s", a, b).isLessThanOrEqualTo(kept + 1e-12);
      }
    }
    assertThat(p.top().spread()).isNotNull();
  }

  private static double lowest(double rt, double rb) {
    double low = Double.POSITIVE_INFINITY;
    for (double r : new double[] {4000, 6000}) {
      for (double t : new double[] {rt * 0.95, rt * 1.05}) {
        for (double b : new double[] {rb * 0.95, rb * 1.05}) {
          low = Math.min(low, 5 * b / (t + r + b));
        }
      }
    }
    return low;
  }

  private static double highest(double rt, double rb) {
    double high = 0;
    for (double r : new double[] {4000, 6000}) {
      for (double t : new double[] {rt * 0.95, rt * 1.05}) {
        for (double b : new double[] {rb * 0.95, rb * 1.05}) {
          high = Math.max(high, 5 * (b + r) / (t + r + b));
        }
      }
    }
    return high;
  }

  /** Travel that stays off both ends needs no resistor there. */
  @Test
  void noResistorIsNeededWhereTheTravelEndsEarly() {
    EndResistors found = EndResistors.choose(lever(30, 70), new Span(0.5, 4.5), E24);
    Potentiometer p = (Potentiometer) found.channel().design().sensor();
    assertThat(p.top()).isNull();
    assertThat(p.bottom()).isNull();
  }

  @Test
  void whatCannotBeIsSaid() {
    assertThatThrownBy(() -> EndResistors.choose(Channels.blower(), new Span(0.5, 4.5), E24))
        .isInstanceOf(QuantityException.class)
        .hasMessage("end resistors belong to a potentiometer");
    assertThatThrownBy(() -> EndResistors.choose(lever(0, 100), new Span(0.5, 6), E24))
        .hasMessageContaining("between 0 V and the supply");
  }
}
