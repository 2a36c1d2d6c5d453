package nocking.prior;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import nocking.quantity.QuantityException;
import nocking.wiring.Meter;
import nocking.wiring.Place;
import org.junit.jupiter.api.Test;

class PriorWeightsTest {
  @Test
  void onlyWhatDepartsFromTheUsualIsKept() {
    PriorWeights w = PriorWeights.USUAL.withWeight(FaultKind.LEAK_TO_GROUND, 9);
    assertThat(w.weights()).containsExactly(Map.entry(FaultKind.LEAK_TO_GROUND, 9.0));
    assertThat(w.weight(FaultKind.LEAK_TO_GROUND)).isEqualTo(9);
    assertThat(w.weight(FaultKind.SWAPPED)).isEqualTo(FaultKind.SWAPPED.prior());
    double usual = FaultKind.LEAK_TO_GROUND.prior();
    assertThat(w.withWeight(FaultKind.LEAK_TO_GROUND, usual)).isEqualTo(PriorWeights.USUAL);
    assertThat(w.withUsualWeights()).isEqualTo(PriorWeights.USUAL);
  }

  /** Were that nothing is wrong ruled out too, a channel could be left without an explanation. */
  @Test
  void weightsThatCannotBeAreRefused() {
    PriorWeights usual = PriorWeights.USUAL;
    for (double v : new double[] {-1, 1001, Double.NaN, Double.POSITIVE_INFINITY}) {
      assertThatThrownBy(() -> usual.withWeight(FaultKind.SWAPPED, v))
          .isInstanceOf(QuantityException.class)
          .hasMessageContaining("'supply and ground swapped' must be 0 to 1000; read ");
    }
    assertThatThrownBy(() -> usual.withWeight(FaultKind.NONE, 0))
        .hasMessage("'nothing is wrong' cannot be left out");
    assertThat(usual.withWeight(FaultKind.SWAPPED, 0).weight(FaultKind.SWAPPED)).isZero();
  }

  /** A meter's line is typed as its datasheet prints it. */
  @Test
  void aMeterIsReadFromItsDatasheet() {
    Meter m = Meter.HAND_HELD.withAccuracy("0.8 % + 3 digits").withCounts("20 000");
    assertThat(m).isEqualTo(new Meter(0.8, 3, 20000, 10e6));
    assertThat(m.withInputResistance("1M").inputResistance()).isEqualTo(1e6);
    assertThat(Meter.HAND_HELD.withAccuracy(m.accuracy()).percent()).isEqualTo(0.8);
    for (String odd : new String[] {"0.5 %", "0.5 + 2", "2", "", "0.5 % + 2 + 1"}) {
      assertThatThrownBy(() -> m.withAccuracy(odd))
          .isInstanceOf(QuantityException.class)
          .hasMessage("read '" + odd + "', expected for example 0.5 % + 2");
    }
    for (String odd : new String[] {"6000.5", "1e9"}) {
      assertThatThrownBy(() -> m.withCounts(odd)).hasMessageContaining("whole number of counts");
    }
    assertThatThrownBy(() -> m.withCounts("50"))
        .hasMessage("a meter has at least 100 counts; read 50");
    assertThatThrownBy(() -> m.withAccuracy("-1 % + 2")).isInstanceOf(QuantityException.class);
    assertThatThrownBy(() -> m.withInputResistance("0")).isInstanceOf(QuantityException.class);
  }

  /** A 6 000 count meter shows 1.720 V in steps of 1 mV and 280 mV in steps of 0.1 mV. */
  @Test
  void meterErrsByItsReadingAndItsLastDigit() {
    Meter m = Meter.HAND_HELD;
    assertThat(m.resolution(1.72, Place.of(Place.Kind.SIGNAL_AT_RECEIVER)))
        .isCloseTo(1e-3, within(1e-15));
    assertThat(m.resolution(0.28, Place.of(Place.Kind.SIGNAL_AT_RECEIVER)))
        .isCloseTo(1e-4, within(1e-15));
    // (0.5 % of 1.72 V + 2 mV)/3 with a rectangular digit of 1 mV: JCGM 100, 4.3.7.
    double limit = 0.0086 + 0.002;
    assertThat(m.uncertainty(1.72, Place.of(Place.Kind.SIGNAL_AT_RECEIVER)))
        .isCloseTo(Math.sqrt(limit * limit / 9 + 1e-6 / 12), within(1e-12));
    assertThatThrownBy(() -> new Meter(-1, 2, 6000, 10e6)).isInstanceOf(QuantityException.class);
    assertThatThrownBy(() -> new Meter(0.5, 2, 99, 10e6)).hasMessageContaining("read 99");
    assertThatThrownBy(() -> new Meter(0.5, 2, 6000, 0)).isInstanceOf(QuantityException.class);
  }
}
