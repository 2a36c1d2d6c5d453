package nocking.path;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.Channels;
import nocking.algebra.Notation;
import nocking.algebra.Piecewise;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.converter.Converter;
import nocking.element.Signal;
import nocking.fault.Fault;
import nocking.fault.FaultyPath;
import nocking.network.Circuit;
import nocking.parts.Assortment;
import nocking.parts.GainShift;
import nocking.parts.PreferredSeries;
import nocking.points.RawUnit;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.AcVoltage;
import nocking.sensor.Potentiometer;
import nocking.sensor.Sensor;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.sensor.TwoPointSensor;
import nocking.stage.BridgeRectifier;
import nocking.stage.Clamp;
import nocking.stage.Divider;
import nocking.stage.InputPull;
import nocking.stage.InvertingAmp;
import nocking.stage.PullUp;
import nocking.stage.Stage;
import nocking.table.TableSpec;
import nocking.tolerance.BudgetPoint;
import nocking.tolerance.ErrorModel;
import nocking.tolerance.MonteCarlo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Where a sensor ends, and where an output stands at its rail. */
class EndsAndRailsTest {

  /** 0–100 mm of a 5 kΩ track on 5 V ±1 %, loaded by 100 kΩ: its travel is the working range. */
  private static Channel slider() {
    Value supply = Value.typed("5 ±1%", Unit.VOLT);
    return Channels.blower()
        .define(
            d ->
                d.withKind(QuantityKind.POSITION)
                    .withUnit("mm")
                    .withRange(v(0), v(100))
                    .withTolerance(v(1)))
        .design(
            d ->
                d.withSensor(new Potentiometer(v(0), v(100), v(0), v(1), supply, v(5e3), v(0)))
                    .withStages(List.of(InputPull.toGround(v(100e3))))
                    .withConverter(Converter.of(12, 5)));
  }

  private static Channel thermistor(double low, double high) {
    var rows =
        List.of(
            TablePoint.of(-10, 55310),
            TablePoint.of(0, 32650),
            TablePoint.of(10, 19900),
            TablePoint.of(25, 10000),
            TablePoint.of(40, 5326));
    return Channels.incubator()
        .define(d -> d.withRange(v(low), v(high)).withTolerance(v(0.5)))
        .design(
            d ->
                d.withSensor(
                        new TableSensor(
                            rows,
                            TableSensor.Interpolation.MONOTONE_CUBIC,
                            Signal.RESISTANCE,
                            v(0)))
                    .withStages(List.of(new PullUp(v(3.3), v(18e3)))));
  }

  @Test
  void theLastCodeOfATravelHasAReading() {
    for (Channel c : List.of(slider(), thermistor(-10, 40))) {
      Analysis a = Analysis.of(c);
      Span w = c.definition().working();
      for (double x : new double[] {w.low(), w.high()}) {
        double worth = a.design().path().orElseThrow().countsWorth(x);
        assertThat(a.at(x).orElseThrow().reading()).isCloseTo(x, within(2 * worth));
        boolean outside = !w.contains(a.at(x).orElseThrow().reading());
        boolean ends = a.design().path().orElseThrow().known().isPresent();
        assertThat(a.at(x).orElseThrow().extrapolated()).isEqualTo(outside && ends);
      }
    }
  }

  @Test
  void aBudgetHasNumbersAtBothEnds() {
    Analysis a = Analysis.of(slider());
    for (BudgetPoint p : a.design().budget()) {
      assertThat(p.before().worstCase()).isFinite();
      assertThat(p.after().worstCase()).isFinite();
    }
    // 1 % of the supply is 1 mm at the end of the travel, where the load makes it a little less.
    assertThat(a.design().budget().getLast().before().worstCase()).isBetween(0.93, 1.0);
    ErrorModel model = a.design().errorModel().orElseThrow();
    var drawn = MonteCarlo.run(model, new double[] {0, 50, 100}, 4000, 7, p -> {}, () -> false);
    for (MonteCarlo.Result r : drawn) {
      assertThat(r.before().sd()).isFinite();
      assertThat(r.after().sd()).isFinite();
    }
    assertThat(drawn.getLast().before().sd()).isCloseTo(0.95 / Math.sqrt(3), within(0.03));
  }

  /** Beyond its end a curve goes on straight for a draw or half a code, and no further. */
  @Test
  void aCurveGoesOnWithItsEndSlopeAndNoFurther() {
    Piecewise bent = Piecewise.lines("t", new double[] {0, 1, 3}, new double[] {0, 1, 7});
    assertThat(bent.value(3.1)).isCloseTo(7.3, within(1e-12));
    assertThat(bent.inverse(-0.05)).isCloseTo(-0.05, within(1e-12));
    assertThat(bent.value(3.2)).isNaN();
    assertThat(bent.inverse(7.6)).isNaN();
    assertThat(bent.continued(10)).isCloseTo(28, within(1e-12));
  }

  /** Three raw decimals round the end cells past the table: they are rounded inward. */
  @Test
  void cellsAreRoundedInward() {
    for (boolean descending : new boolean[] {false, true}) {
      Channel c =
          thermistor(-10, 40)
              .receiver(r -> r.withTable(new TableSpec(16, RawUnit.VOLTS, descending, 3, 2)));
      var table = Analysis.of(c).receiver().table().result().orElseThrow();
      SignalPath path = Analysis.of(c).design().path().orElseThrow();
      assertThat(table.cells().getFirst().raw()).isGreaterThanOrEqualTo(path.output(40));
      assertThat(table.cells().getLast().raw()).isLessThanOrEqualTo(path.output(-10));
      assertThat(table.cells()).allMatch(cell -> Double.isFinite(cell.out()));
    }
  }

  @Test
  void generatedCodeSaysWhereItExtrapolates() {
    SignalPath path = Analysis.of(thermistor(-10, 40)).design().path().orElseThrow();
    String c =
        GeneratedEquation.write(
            Notation.C, "t", "Vout", "T", path.inverse(), path.constantsOf(path.inverse()));
    assertThat(c).contains("beyond that extrapolated with the end slope");
  }

  private static Channel volts(Sensor s, Stage... stages) {
    return Channels.blower()
        .define(d -> d.withRange(v(0), v(100)))
        .design(d -> d.withSensor(s).withStages(List.of(stages)));
  }

  /** ×10 about 1 V behind 10 kΩ: at its upper rail it holds its summing point no more. */
  @Test
  void aSaturatedInvertingAmplifierLetsGoOfItsSummingPoint() {
    Channel c =
        volts(
            new TwoPointSensor(v(0), v(0), v(100), v(5), v(10e3)),
            new InvertingAmp(v(100e3), v(10e3), v(1), v(0), v(3.3)));
    PathState at = Analysis.of(c).design().path().orElseThrow().at(50);
    // 2.5 V through 10 kΩ + 110 kΩ to the output at 0 V.
    assertThat(at.nodes().getFirst().value()).isCloseTo(2.5 - 2.5 / 12, within(1e-9));
    assertThat(at.output()).isZero();
    assertThat(at.nodes().getFirst().clipped()).isFalse();
    assertThat(at.nodes().getLast().clipped()).isTrue();
  }

  @Test
  void aClampThatConductsPullsOnTheDividerBeforeIt() {
    Channel c =
        volts(
            new TwoPointSensor(v(0), v(0), v(100), v(5), v(0)),
            new Divider(v(10e3), v(10e3)),
            new Clamp(v(1e3), v(0), v(1)));
    PathState at = Analysis.of(c).design().path().orElseThrow().at(50);
    assertThat(at.nodes().get(1).value()).isCloseTo(1.0416667, within(1e-6));
    assertThat(at.output()).isEqualTo(1);
  }

  private static Channel mains(double upper, double lower, double bleeder, double farads) {
    return Channels.blower()
        .define(
            d ->
                d.withKind(QuantityKind.VOLTAGE)
                    .withUnit("V")
                    .withRange(v(10), v(30))
                    .withTolerance(v(0.5)))
        .design(
            d ->
                d.withSensor(
                        new AcVoltage(
                            AcVoltage.Waveform.SINE,
                            AcVoltage.Measure.RMS,
                            AcVoltage.Measure.PEAK,
                            AcVoltage.Isolation.ISOLATED,
                            v(1),
                            v(1.5),
                            v(1.2),
                            v(1000)))
                    .withStages(
                        List.of(
                            new Divider(v(upper), v(lower)),
                            new BridgeRectifier(v(0.7), v(farads), v(50), v(bleeder)),
                            new Divider(v(90e3), v(10e3))))
                    .withConverter(Converter.of(12, 3.3)));
  }

  /**
   * The mean model of a rectifier behind a source that gives way, against a simulation in steps of
   * a 40 000th of a period.
   */
  @ParameterizedTest
  @CsvSource({"10e3, 10e3, 100e3, 30", "100e3, 10e3, 100e3, 300", "4.7e3, 2.2e3, 47e3, 12"})
  void aRectifierBehindADividerGivesWhatASimulationGives(
      double upper, double lower, double bleeder, double rms) {
    double farads = 47e-6;
    Channel c = mains(upper, lower, bleeder, farads).define(d -> d.withRange(v(rms / 3), v(rms)));
    PathState at = Analysis.of(c).design().path().orElseThrow().at(rms);
    double source = upper * lower / (upper + lower);
    double peak = Math.sqrt(2) * rms * lower / (upper + lower);
    double load = 1 / (1 / bleeder + 1 / 100e3);
    double simulated = simulated(peak, source, 1.4, farads, load);
    assertThat(at.nodes().get(2).value()).isCloseTo(simulated, within(0.02 * simulated));
    FaultyPath faults =
        FaultyPath.of(Analysis.of(c).wiring().subject().orElseThrow(), Fault.NONE, rms);
    assertThat(faults.converter().value()).isCloseTo(at.output(), within(1e-9));
  }

  /** Mean output over the last period after the capacitor has settled. */
  private static double simulated(
      double peak, double source, double drops, double farads, double load) {
    int steps = 40_000;
    double dt = 0.02 / steps;
    double v = 0.8 * (peak - drops);
    double mean = 0;
    int periods = (int) Math.ceil(8 * farads * Math.min(load, 20 * source) / 0.02) + 20;
    for (int p = 0; p < periods; p++) {
      double sum = 0;
      for (int k = 0; k < steps; k++) {
        double in = Math.abs(peak * Math.sin(2 * Math.PI * k / steps));
        double charge = Math.max(0, (in - drops - v) / source);
        v += dt * (charge - v / load) / farads;
        sum += v;
      }
      mean = sum / steps;
    }
    return mean;
  }

  @Test
  void belowItsDropsARectifierGivesNothing() {
    Channel c = mains(10e3, 10e3, 100e3, 10e-6).define(d -> d.withRange(v(0), v(30)));
    PathState at = Analysis.of(c).design().path().orElseThrow().at(0.5);
    assertThat(at.nodes()).allMatch(n -> n.value() >= 0);
    assertThat(at.output()).isZero();
  }

  /** A transmitter with nothing left across it lets nothing through, least of all backwards. */
  @Test
  void aShortedLoopDoesNotConductBackwards() {
    var c =
        new Circuit()
            .source("S", Circuit.GROUND, 24)
            .loop("S", "t", 0.012, 10)
            .resistor("t", "b", 8)
            .resistor("b", Circuit.GROUND, 150)
            .resistor("b", "S", 0.1);
    double amperes = c.operatingPoint(new Span(0, 0)).volts("t", "b") / 8;
    assertThat(amperes).isBetween(-1e-6, 0.012);
    var starved =
        new Circuit()
            .source("S", Circuit.GROUND, 11)
            .loop("S", "t", 0.02, 10)
            .resistor("t", Circuit.GROUND, 150);
    assertThat(starved.operatingPoint(new Span(0, 0)).volts("t", Circuit.GROUND))
        .isCloseTo(1, within(1e-9));
  }

  @Test
  void noCircuitIsOfferedThatItsRailsCannotGive() {
    Assortment e96 = Assortment.of(PreferredSeries.E96);
    var wish = new GainShift.Goal(0, 1, 0, 5, 3.3, new Span(0, 3.3));
    assertThatThrownBy(() -> GainShift.search(e96, wish))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("leaves the rails 0 … 3.3 V");
    var inside = new GainShift.Goal(0.2, 0.6, 0.3, 3, 3.3, new Span(0, 3.3));
    assertThat(GainShift.search(e96, inside).found()).isTrue();
  }
}
