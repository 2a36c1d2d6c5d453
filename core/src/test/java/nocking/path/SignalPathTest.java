package nocking.path;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.LongStream;
import nocking.Channels;
import nocking.algebra.Notation;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.converter.Converter;
import nocking.element.Measurand;
import nocking.network.Circuit;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.sensor.AcVoltage;
import nocking.sensor.CurrentLoop;
import nocking.sensor.LinearSensor;
import nocking.sensor.PlatinumRtd;
import nocking.sensor.Potentiometer;
import nocking.sensor.TwoPointSensor;
import nocking.stage.BridgeRectifier;
import nocking.stage.DifferenceAmp;
import nocking.stage.Divider;
import nocking.stage.FourResistorAmp;
import nocking.stage.RcFilter;
import nocking.stage.ReferenceBlend;
import nocking.stage.WheatstoneBridge;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Closed forms against the nodal solver, and the numbers that the job knows by heart. */
class SignalPathTest {

  static LongStream seeds() {
    return RandomPaths.seeds();
  }

  private static SignalPath path(Channel c) {
    return Analysis.of(c).design().path().orElseThrow();
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void everyNodeAgreesWithTheNodalSolver(long seed) {
    RandomPaths random = RandomPaths.of(seed);
    Random r = new Random(seed + 1);
    double x = random.range().at(r.nextDouble());
    Map<String, Double> solved = random.circuit(x).solve();
    for (PathState.Node node : random.path().at(x).nodes()) {
      // A resistance or a current is no node of the circuit.
      if (!node.point().unit().equals(Unit.VOLT)) continue;
      double referee = solved.get(node.point().name());
      assertThat(node.value())
          .as("seed %d, %s", seed, node.point().name())
          .isCloseTo(referee, within(1e-9 * Math.max(1, Math.abs(referee))));
    }
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void solvedEquationUndoesTheForwardOne(long seed) {
    RandomPaths random = RandomPaths.of(seed);
    SignalPath p = random.path();
    for (double f : new double[] {0, 0.3, 1}) {
      double x = random.range().at(f);
      double volts = p.output(x);
      double scale = Math.abs(x) + random.range().width();
      // The inverse may cancel volts against an offset; the forward error is what it can lose.
      // A table or a reference function is turned round to a billionth of its range.
      double own = p.inverse().graphs().isEmpty() ? 1e-12 : 1e-9;
      double lost = Math.abs(volts) / Math.abs(p.at(x).sensitivity()) * 1e-15;
      assertThat(p.quantity(volts))
          .as("seed %d", seed)
          .isCloseTo(x, within(own * scale + 16 * lost));
      assertThat(p.forward().evaluate(values(p, x)))
          .as("seed %d", seed)
          .isCloseTo(volts, within(1e-12 * (Math.abs(volts) + 1)));
    }
  }

  private static Map<String, Double> values(SignalPath p, double x) {
    var values = new HashMap<>(p.constants());
    values.put("x", x);
    return values;
  }

  @ParameterizedTest
  @CsvSource({
    "0, 0.4, 0.26490, 328",
    "30, 1.66, 1.09934, 1364",
    "60, 2.92, 1.93377, 2400",
    "100, 4.6, 3.04636, 3781"
  })
  void blowerManifoldVoltsAndCodes(double kPa, double tp1, double tp2, int code) {
    PathState read = path(Channels.blower()).at(kPa);
    assertThat(read.nodes().get(0).value()).isCloseTo(tp1, within(1e-12));
    assertThat(read.nodes().get(1).value()).isCloseTo(tp2, within(5e-6));
    assertThat(read.code()).isEqualTo(code);
  }

  @Test
  void oneCountOfTheBlowerManifold() {
    assertThat(path(Channels.blower()).countsWorth(30)).isCloseTo(0.02897, within(5e-6));
  }

  @ParameterizedTest
  @CsvSource({"4, 0.300", "9, 1.650", "14, 3.000"})
  void incubatorSpansItsRange(double celsius, double volts) {
    assertThat(path(Channels.incubator()).output(celsius)).isCloseTo(volts, within(1e-12));
  }

  @Test
  void incubatorEquationIsAStraightLineAboutNineDegrees() {
    SignalPath p = path(Channels.incubator());
    LinearForm f = p.linear().orElseThrow();
    assertThat(f.slope()).isCloseTo(3.7037, within(5e-5));
    assertThat(f.intercept()).isCloseTo(2.8889, within(5e-5));
    assertThat(f.pivot()).isCloseTo(9, within(1e-12));
    assertThat(f.pivotName()).isEqualTo("Vr");
    assertThat(Notation.TEXT.write(p.forward())).isEqualTo("Rf/Rg·(V0 + S·T − Vc) + Vr");
    assertThat(Notation.TEXT.write(p.inverse())).isEqualTo("((Vout − Vr)·Rg/Rf + Vc − V0)/S");
  }

  @Test
  void pivotStaysWhenGainChanges() {
    for (double feedback : new double[] {50e3, 100e3, 135e3}) {
      var amp = new DifferenceAmp(v(feedback), v(10e3), v(0.53), v(1.65), v(0), v(3.3));
      SignalPath p = path(Channels.incubator().design(d -> d.withStages(List.of(amp))));
      assertThat(p.linear().orElseThrow().pivot()).isCloseTo(9, within(1e-12));
    }
  }

  /** A 5 kΩ potentiometer at mid-travel on 5 V is 2.5 V behind 1.25 kΩ; 15.1 kΩ loads it. */
  @Test
  void loadedPotentiometerSags() {
    var wiper = new LinearSensor(v(0), v(0), v(0.05), v(0), v(100), v(1250));
    var divider = new Divider(v(5.1e3), v(10e3));
    SignalPath p =
        SignalPath.of(
            new Measurand("k", Unit.PERCENT), wiper, List.of(divider), Converter.of(12, 3.3));
    assertThat(p.at(50).nodes().getFirst().value()).isCloseTo(2.30887, within(5e-6));
    double referee =
        new Circuit()
            .source("supply", Circuit.GROUND, 5)
            .resistor("supply", "wiper", 2500)
            .resistor("wiper", Circuit.GROUND, 2500)
            .resistor("wiper", "adc", 5.1e3)
            .resistor("adc", Circuit.GROUND, 10e3)
            .solve()
            .get("wiper");
    assertThat(p.at(50).nodes().getFirst().value()).isCloseTo(referee, within(1e-12));
  }

  @Test
  void outputStandsAtTheRail() {
    var amp = new DifferenceAmp(v(210e3), v(10e3), v(0.53), v(1.65), v(0), v(3.3));
    SignalPath p = path(Channels.incubator().design(d -> d.withStages(List.of(amp))));
    PathState at = p.at(14);
    assertThat(at.output()).isEqualTo(3.3);
    assertThat(at.nodes().getLast().wanted()).isCloseTo(3.75, within(1e-12));
    assertThat(at.clipped()).isTrue();
    assertThat(at.code()).isEqualTo(4095);
  }

  @Test
  void secondDividerGetsTheNextNumbers() {
    var divider = new Divider(v(1e3), v(1e3));
    SignalPath p =
        path(Channels.blower().design(d -> d.withStages(List.of(divider, divider, divider))));
    assertThat(p.constants()).containsKeys("R1", "R2", "R3", "R4", "R5", "R6");
    assertThat(p.derivation()).hasSize(6);
    assertThat(p.derivation().getLast().caption()).isEqualTo("solved for p");
  }

  @Test
  void sensorThatDoesNotRespondIsRefused() {
    var flat = new TwoPointSensor(v(0), v(1), v(10), v(1), v(0));
    var vertical = new TwoPointSensor(v(5), v(1), v(5), v(2), v(0));
    for (var sensor : List.of(flat, vertical)) {
      assertThatThrownBy(() -> SignalPath.of(RandomPaths.X, sensor, List.of(), Converter.of(12, 5)))
          .isInstanceOf(QuantityException.class)
          .hasMessageContaining("does not respond");
    }
  }

  @Test
  void converterHoldsItsEndsAndReadsTheMiddleOfAStep() {
    var c = Converter.of(12, 3.3);
    assertThat(c.code(-1)).isZero();
    assertThat(c.code(5)).isEqualTo(4095);
    for (int code : new int[] {0, 1, 2048, 4095}) {
      assertThat(c.code(c.volts(code))).isEqualTo(code);
    }
  }

  /** i = (V_s − V_ref)/(R_src + R_B + R_ref), V = V_ref + i·(R_ref + k·R_B). */
  @Test
  void twoPotentiometersAttenuateAboutTheirReference() {
    Random r = new Random(3);
    for (int round = 0; round < 100; round++) {
      double kA = r.nextDouble();
      double kB = 0.05 + 0.9 * r.nextDouble();
      double rA = 500 + 5e3 * r.nextDouble();
      double rB = 2e3 + 2e4 * r.nextDouble();
      double source = 500 * r.nextDouble();
      var blend = new ReferenceBlend(v(5), v(rA), v(kA), v(rB), v(kB));
      var sensor = new LinearSensor(v(1), v(0), v(0.03), v(0), v(100), v(source));
      SignalPath p = SignalPath.of(RandomPaths.X, sensor, List.of(blend), Converter.of(12, 5));
      double reference = 5 * kA;
      double ownResistance = kA * (1 - kA) * rA;
      double amperes = (1 + 0.03 * 40 - reference) / (source + rB + ownResistance);
      double expected = reference + amperes * (ownResistance + kB * rB);
      assertThat(p.output(40)).as("round %d", round).isCloseTo(expected, within(1e-12));
      double gain = (p.output(80) - p.output(40)) / (0.03 * 40);
      assertThat(blend.residualGain(source)).isCloseTo(gain, within(1e-9));
    }
  }

  /**
   * Matched, the amplifier takes the difference; with 1 % off, half a percent of what is common.
   */
  @Test
  void commonModeShowsWhereTheRatiosDiffer() {
    var matched =
        new FourResistorAmp(v(10e3), v(100e3), v(10e3), v(100e3), v(1), v(0), v(-9), v(9));
    assertThat(matched.commonModeGain()).isCloseTo(0, within(1e-12));
    var off = new FourResistorAmp(v(10.1e3), v(100e3), v(10e3), v(100e3), v(1), v(0), v(-9), v(9));
    double common = 100 / 110.1 * 11 - 10;
    assertThat(off.commonModeGain()).isCloseTo(common, within(1e-12));
    assertThat(off.gain()).contains("dB down");
  }

  @Test
  void filterSettlesToHalfACount() {
    var f = new RcFilter(v(10e3), v(1e-6));
    assertThat(f.cutOff()).isCloseTo(15.915, within(1e-3));
    double left = Math.exp(-f.settling(10e3, 12) / 10e-3);
    assertThat(left).isCloseTo(Math.pow(2, -13), within(1e-12));
  }

  /** A loaded wiper has its quantity under and over the line: turned round numerically. */
  @Test
  void loadedWiperIsTurnedRoundNumerically() {
    var wiper = new Potentiometer(v(0), v(100), v(0.05), v(0.95), v(5), v(5e3), v(0));
    SignalPath p =
        SignalPath.of(
            RandomPaths.X, wiper, List.of(new Divider(v(5.1e3), v(10e3))), Converter.of(12, 3.3));
    assertThat(p.solvedInSymbols()).isFalse();
    assertThat(p.derivation().getLast().caption()).isEqualTo("turned round for x");
    for (int x = 0; x <= 100; x += 5) {
      assertThat(p.quantity(p.output(x))).isCloseTo(x, within(1e-9 * 100));
    }
  }

  @Test
  void elementsThatDoNotFitAreNamed() {
    var loop = new CurrentLoop(v(0), v(4), v(0.004), v(0.02));
    assertThatThrownBy(() -> SignalPath.of(RandomPaths.X, loop, List.of(), Converter.of(12, 3.3)))
        .hasMessage("TP1 carries a current, which a converter cannot read: insert a burden");
    assertThatThrownBy(
            () ->
                SignalPath.of(
                    RandomPaths.X, loop, List.of(new Divider(v(1), v(1))), Converter.of(12, 3.3)))
        .hasMessage(
            "TP1 carries a current, and the divider takes a voltage or an alternating voltage");
  }

  /** Every kind of Wheatstone bridge, loaded, over a wide swing of its sensor. */
  @ParameterizedTest
  @EnumSource(WheatstoneBridge.Arms.class)
  void bridgesAreExact(WheatstoneBridge.Arms arms) {
    for (double celsius : new double[] {-150, -20, 0, 60, 250}) {
      var bridge = new WheatstoneBridge(arms, v(3.3), v(100), v(110), v(95));
      var paths =
          new RandomPaths(
              PlatinumRtd.of(100),
              List.of(bridge, new Divider(v(1e3), v(2e3))),
              Converter.of(12, 3.3));
      Map<String, Double> solved = paths.circuit(celsius).solve();
      var nodes = paths.path().at(celsius).nodes();
      for (int i = 1; i < nodes.size(); i++) {
        assertThat(nodes.get(i).value())
            .as("%s at %s", arms, celsius)
            .isCloseTo(solved.get("TP" + (i + 1)), within(1e-12));
      }
    }
  }

  /** 230 V RMS: 325.3 V peak, less two drops, less half the ripple of what the string draws. */
  @Test
  void rectifierGivesPeakLessDropsAndHalfTheRipple() {
    var rectifier = new BridgeRectifier(v(0.8), v(1e-6), v(50), null);
    var string = new Divider(v(1.56e6), v(13e3));
    SignalPath p =
        SignalPath.of(
            new Measurand("U", Unit.VOLT),
            AcVoltage.sine(1, 300),
            List.of(rectifier, string),
            Converter.of(12, 3.3));
    double direct = p.at(230).nodes().get(1).value();
    double amperes = direct / 1.573e6;
    assertThat(direct)
        .isCloseTo(230 * Math.sqrt(2) - 1.6 - rectifier.ripple(amperes) / 2, within(1e-9));
    assertThat(p.quantity(p.output(230))).isCloseTo(230, within(1e-9));
    // A capacitor falls to 60 V as e^(−t/RC) says.
    double seconds = rectifier.dischargeTime(direct, 60, 1.573e6);
    assertThat(direct * Math.exp(-seconds / 1.573)).isCloseTo(60, within(1e-9));
  }
}
