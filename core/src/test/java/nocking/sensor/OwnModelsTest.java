package nocking.sensor;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import nocking.Channels;
import nocking.algebra.AlgebraException;
import nocking.algebra.Formula;
import nocking.algebra.Notation;
import nocking.algebra.NumericalInverse;
import nocking.channel.UnitChange;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.path.SensorCurve;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Tables, formulas, loops, potentiometers, bridges and alternating voltages. */
class OwnModelsTest {
  private static final Measurand X = new Measurand("x", Unit.of("kPa"));

  private static SensorCurve curve(Sensor s) {
    return SensorCurve.of(X, s);
  }

  private static TableSensor table(TableSensor.Interpolation how, double... xy) {
    var rows = new ArrayList<TablePoint>();
    for (int i = 0; i < xy.length; i += 2) rows.add(TablePoint.of(xy[i], xy[i + 1]));
    return new TableSensor(rows, how, Signal.VOLTAGE, v(0));
  }

  @Test
  void tableGivesItsRowsInEitherOrder() {
    var how = TableSensor.Interpolation.LINEAR;
    for (var t : List.of(table(how, 0, 1, 10, 2, 30, 5), table(how, 30, 5, 10, 2, 0, 1))) {
      assertThat(curve(t).output(10)).isEqualTo(2);
      assertThat(curve(t).output(20)).isCloseTo(3.5, within(1e-12));
      assertThat(curve(t).quantity(3.5)).isCloseTo(20, within(1e-12));
      assertThat(curve(t).quantity(5)).isCloseTo(30, within(1e-12));
    }
  }

  @Test
  void monotoneCubicNeverTurnsBetweenItsRows() {
    Random r = new Random(11);
    for (int round = 0; round < 50; round++) {
      double[] rows = new double[16];
      for (int i = 1; i < 8; i++) {
        rows[2 * i] = rows[2 * i - 2] + 0.1 + 10 * r.nextDouble();
        rows[2 * i + 1] = rows[2 * i - 1] + 1e-3 + Math.pow(r.nextDouble(), 4);
      }
      SensorCurve c = curve(table(TableSensor.Interpolation.MONOTONE_CUBIC, rows));
      double last = Double.NEGATIVE_INFINITY;
      Span range = c.rated();
      for (int i = 0; i <= 500; i++) {
        double x = range.at(i / 500.0);
        assertThat(c.at(x)).as("round %d at %s", round, x).isGreaterThan(last);
        last = c.at(x);
        assertThat(c.quantity(last)).isCloseTo(x, within(1e-9 * range.width()));
      }
    }
  }

  @Test
  void tableThatTurnsNamesItsRows() {
    var how = TableSensor.Interpolation.LINEAR;
    assertThatThrownBy(() -> curve(table(how, 0, 1, 10, 2, 20, 1.5, 30, 3)))
        .isInstanceOf(QuantityException.class)
        .hasMessageStartingWith("table rows 2 and 3: the outputs 2 and 1.5 turn back");
    assertThatThrownBy(() -> curve(table(how, 0, 1, 10, 2, 10, 3)))
        .hasMessage("table rows 2 and 3: the inputs 10 and 10 are not in order");
    assertThatThrownBy(() -> curve(table(how, 0, 1)))
        .hasMessage("a table needs at least two rows; it has 1");
  }

  @ParameterizedTest
  @CsvSource({
    "0.35 + 0.02*x, 50, 1.35", "sqrt(x + 1), 99, 10", "2*exp(-x/100) + x^2/1e6, 10, 1.80977",
    "-(x - 200)/100, 0, 2", "ln(x + 1)*log(x + 10)/pi, 90, 2.87170",
        "atan(x/50) + 0.1, 50, 0.885398"
  })
  void formulaIsWorkedOutAndTurnedRound(String formula, double x, double volts) {
    var s = new FormulaSensor(formula, Signal.VOLTAGE, v(0), v(100), v(0));
    assertThat(curve(s).output(x)).isCloseTo(volts, within(1e-5));
    for (int i = 0; i <= 20; i++) {
      assertThat(curve(s).quantity(curve(s).output(5 * i))).isCloseTo(5 * i, within(1e-9 * 100));
    }
  }

  @Test
  void formulaThatTurnsSaysWhere() {
    var s = new FormulaSensor("(x - 42.3)^2/1000", Signal.VOLTAGE, v(0), v(100), v(0));
    assertThatThrownBy(() -> curve(s))
        .hasMessage("the formula turns back at 42.3 kPa: two inputs would give the same output");
  }

  @ParameterizedTest
  @ValueSource(strings = {"0.35 + ", "0.35 + y*x", "sine(x)", "(x", "3,5*x", "", "2"})
  void formulaThatCannotBeReadIsRefusedInOneSentence(String formula) {
    var s = new FormulaSensor(formula, Signal.VOLTAGE, v(0), v(100), v(0));
    assertThatThrownBy(() -> curve(s))
        .isInstanceOf(QuantityException.class)
        .message()
        .doesNotContain("\n")
        .isNotBlank();
  }

  @Test
  void formulaKeepsItsMeaningInAnotherUnit() {
    var s = new FormulaSensor("0.3 + 0.01*p", Signal.VOLTAGE, v(0), v(100), v(0));
    var kPa = new Measurand("p", Unit.of("kPa"));
    var channel = Channels.blower().design(d -> d.withSensor(s).withStages(List.of()));
    var psi = UnitChange.apply(channel, Unit.of("psi"));
    double inKpa = SensorCurve.of(kPa, s).output(68.9475729);
    double inPsi =
        SensorCurve.of(new Measurand("p", Unit.of("psi")), psi.design().sensor()).output(10);
    assertThat(inPsi).isCloseTo(inKpa, within(1e-8));
  }

  /** One waveform, three readings: 230 V RMS is 325 V peak and 207 V rectified average. */
  @ParameterizedTest
  @CsvSource({
    "SINE, RMS, PEAK, 230, 325.269",
    "SINE, PEAK, RMS, 325.269, 230",
    "SINE, RMS, AVERAGE, 230, 207.073",
    "SINE, AVERAGE, PEAK, 1, 1.570796",
    "TRIANGLE, RMS, PEAK, 1, 1.732051",
    "SQUARE, RMS, AVERAGE, 5, 5",
    "OTHER, RMS, PEAK, 10, 25"
  })
  void alternatingVoltages(
      AcVoltage.Waveform shape,
      AcVoltage.Measure from,
      AcVoltage.Measure to,
      double in,
      double out) {
    var s =
        new AcVoltage(shape, from, to, AcVoltage.Isolation.ISOLATED, v(1), v(2.5), v(1.2), v(400));
    var volts = new Measurand("U", Unit.VOLT);
    assertThat(SensorCurve.of(volts, s).output(in)).isCloseTo(out, within(1e-3));
  }

  @Test
  void loopPotentiometerAndBridgeGiveTheirEnds() {
    var loop = new CurrentLoop(v(0), v(4), v(0.004), v(0.020));
    assertThat(curve(loop).output(1)).isCloseTo(0.008, within(1e-15));
    var backwards = new Potentiometer(v(0), v(100), v(0.95), v(0.05), v(5), v(5e3), v(0));
    assertThat(curve(backwards).output(0)).isCloseTo(4.75, within(1e-12));
    assertThat(curve(backwards).output(100)).isCloseTo(0.25, within(1e-12));
    var ends = new Potentiometer(v(0), v(100), v(0), v(1), v(5), v(5e3), v(50));
    assertThat(curve(ends).output(0)).isCloseTo(5 * 50 / 5100.0, within(1e-12));
    var bridge = new StrainBridge(v(60), v(2), v(0.05), v(5), v(350));
    assertThat(curve(bridge).output(60)).isCloseTo(0.01025, within(1e-12));
    var bipolar = new BipolarSensor(v(2.5), v(0.025), v(40), v(0));
    assertThat(curve(bipolar).quantity(1.5)).isCloseTo(-40, within(1e-9));
  }

  @Test
  void positionsStandAtTheirOwnVoltages() {
    var s =
        new SteppedSensor(
            List.of(
                new SteppedSensor.Position("low", v(0.5)),
                new SteppedSensor.Position("mid", v(2.1)),
                new SteppedSensor.Position("high", v(4.4))),
            v(0));
    assertThat(curve(s).output(2)).isEqualTo(2.1);
    var wrong =
        new SteppedSensor(
            List.of(
                new SteppedSensor.Position("a", v(0.5)),
                new SteppedSensor.Position("b", v(2)),
                new SteppedSensor.Position("c", v(1))),
            v(0));
    assertThatThrownBy(() -> curve(wrong)).hasMessageContaining("positions b and c");
  }

  /** A wiper into a load has its quantity twice in the equation: turned round numerically. */
  @Test
  void ownEquationIsWrittenInSymbols() {
    var s = new NtcSteinhart(v(1e-3), v(2.4e-4), v(1e-7), v(0), v(100), null);
    assertThat(Notation.TEXT.write(SensorCurve.of(new Measurand("T", Unit.CELSIUS), s).forward()))
        .startsWith("exp(")
        .contains("sqrt(");
    assertThatThrownBy(
            () ->
                new NumericalInverse(
                    Formula.parse("x*(10 - x)", Set.of("x")), "x", Map.of(), new Span(0, 8)))
        .isInstanceOf(AlgebraException.class)
        .hasMessage("the output turns back at x = 5: two inputs would give the same output");
  }
}
