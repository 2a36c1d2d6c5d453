package nocking.network;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import java.util.Random;
import java.util.stream.LongStream;
import nocking.quantity.Span;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * The referee itself, held against circuits that can be done by hand and against Kirchhoff's law.
 */
class CircuitTest {

  @Test
  void dividerByHand() {
    Map<String, Double> v =
        new Circuit()
            .source("in", Circuit.GROUND, 10)
            .resistor("in", "out", 3e3)
            .resistor("out", Circuit.GROUND, 7e3)
            .solve();
    assertThat(v.get("out")).isCloseTo(7, within(1e-12));
    assertThat(v.get(Circuit.GROUND)).isZero();
  }

  /** A balanced bridge has no voltage across it, whatever hangs there. */
  @Test
  void balancedBridge() {
    for (double across : new double[] {1, 1e3, 1e9}) {
      Map<String, Double> v =
          new Circuit()
              .source("top", Circuit.GROUND, 5)
              .resistor("top", "a", 350)
              .resistor("a", Circuit.GROUND, 700)
              .resistor("top", "b", 1e3)
              .resistor("b", Circuit.GROUND, 2e3)
              .resistor("a", "b", across)
              .solve();
      assertThat(v.get("a") - v.get("b")).isCloseTo(0, within(1e-9));
    }
  }

  @Test
  void invertingAmplifierByHand() {
    Map<String, Double> v =
        new Circuit()
            .source("in", Circuit.GROUND, 0.25)
            .resistor("in", "minus", 1e3)
            .resistor("minus", "out", 10e3)
            .amplifier(Circuit.GROUND, "minus", "out")
            .resistor("out", Circuit.GROUND, 2e3)
            .solve();
    assertThat(v.get("out")).isCloseTo(-2.5, within(1e-12));
    assertThat(v.get("minus")).isCloseTo(0, within(1e-12));
  }

  @Test
  void twoSourcesSuperpose() {
    double both = summed(3, 5);
    assertThat(both).isCloseTo(summed(3, 0) + summed(0, 5), within(1e-12));
  }

  private static double summed(double a, double b) {
    return new Circuit()
        .source("a", Circuit.GROUND, a)
        .source("b", Circuit.GROUND, b)
        .resistor("a", "sum", 1e3)
        .resistor("b", "sum", 2e3)
        .resistor("sum", Circuit.GROUND, 5e3)
        .solve()
        .get("sum");
  }

  static LongStream seeds() {
    return LongStream.range(0, 50);
  }

  /** In a random mesh the currents into every free node sum to zero. */
  @ParameterizedTest
  @MethodSource("seeds")
  void currentsSumToZero(long seed) {
    Random r = new Random(seed);
    int n = 3 + r.nextInt(5);
    double[][] ohms = new double[n][n];
    var c = new Circuit().source("n0", Circuit.GROUND, 5).source("n1", Circuit.GROUND, 1);
    for (int i = 0; i < n; i++) {
      for (int j = i + 1; j < n; j++) {
        ohms[i][j] = ohms[j][i] = 100 + 1e5 * r.nextDouble();
        c.resistor("n" + i, "n" + j, ohms[i][j]);
      }
    }
    Map<String, Double> v = c.solve();
    for (int i = 2; i < n; i++) {
      double sum = 0;
      for (int j = 0; j < n; j++) {
        if (j != i) sum += (v.get("n" + j) - v.get("n" + i)) / ohms[i][j];
      }
      assertThat(sum).as("seed %d, node %d", seed, i).isCloseTo(0, within(1e-12));
    }
  }

  @Test
  void floatingNodeIsNotGivenANumber() {
    var c = new Circuit().source("a", Circuit.GROUND, 5).resistor("x", "y", 1e3);
    assertThatThrownBy(c::solve)
        .isInstanceOf(IllegalStateException.class)
        .hasMessageContaining("floats");
  }

  /** Nothing holds the input of the follower: it may be anything, and so may its output. */
  @Test
  void floatingInputTakesItsOutputAlong() {
    var c =
        new Circuit()
            .resistor("pin", "in", 1e3)
            .amplifier("in", "out", "out")
            .limit("out", new Span(0.1, 3.2))
            .resistor("out", Circuit.GROUND, 10e3)
            .source("S", Circuit.GROUND, 5);
    Circuit.OperatingPoint s = c.operatingPoint(new Span(0, 5));
    assertThat(s.floats("in", Circuit.GROUND)).isTrue();
    assertThat(s.span("out", Circuit.GROUND)).isEqualTo(new Span(0.1, 3.2));
    assertThat(s.floats("S", Circuit.GROUND)).isFalse();
    // A meter of 10 MΩ holds what nothing else does.
    Circuit.OperatingPoint metered =
        c.copy().resistor("in", Circuit.GROUND, 10e6).operatingPoint(new Span(0, 5));
    assertThat(metered.floats("in", Circuit.GROUND)).isFalse();
    assertThat(metered.volts("in", Circuit.GROUND)).isCloseTo(0, within(1e-12));
  }

  /** Without its feedback an amplifier runs against the rail that its inputs point to. */
  @Test
  void amplifierWithoutFeedbackRunsAgainstItsRail() {
    for (double in : new double[] {0.4, 0.6}) {
      var c =
          new Circuit()
              .source("in", Circuit.GROUND, in)
              .source("ref", Circuit.GROUND, 0.5)
              .resistor("ref", "minus", 1e3)
              .amplifier("in", "minus", "out")
              .limit("out", new Span(0, 3.3));
      assertThat(c.operatingPoint(new Span(0, 5)).volts("out", Circuit.GROUND))
          .isEqualTo(in > 0.5 ? 3.3 : 0);
    }
  }

  /** 20 mA into 1 kΩ would need 20 V; of 24 V the transmitter keeps 10. */
  @Test
  void transmitterStarvesWhenTooLittleIsLeftToIt() {
    var c = new Circuit().source("S", Circuit.GROUND, 24).loop("S", "b", 0.02, 10);
    assertThat(
            c.copy()
                .resistor("b", Circuit.GROUND, 500)
                .operatingPoint(new Span(0, 5))
                .volts("b", "0"))
        .isCloseTo(10, within(1e-9));
    assertThat(
            c.copy()
                .resistor("b", Circuit.GROUND, 1000)
                .operatingPoint(new Span(0, 5))
                .volts("b", "0"))
        .isCloseTo(14, within(1e-9));
    assertThat(c.operatingPoint(new Span(0, 5)).volts("b", "0")).isCloseTo(14, within(1e-9));
  }

  @Test
  void contradictingSourcesAreRefused() {
    var c = new Circuit().source("a", Circuit.GROUND, 5).source("a", Circuit.GROUND, 3);
    assertThatThrownBy(c::solve).isInstanceOf(IllegalStateException.class);
    assertThatThrownBy(() -> new Circuit().resistor("a", "b", 0))
        .isInstanceOf(IllegalArgumentException.class);
  }
}
