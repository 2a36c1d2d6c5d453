package nocking.points;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.Stream;
import nocking.analysis.Analysis;
import nocking.analysis.LiveReading;
import nocking.channel.Channel;
import nocking.check.CheckPoint;
import nocking.check.CheckRow;
import nocking.check.CheckTable;
import nocking.check.CheckTable.Measured;
import nocking.check.Verdict;
import nocking.converter.Converter;
import nocking.element.Element;
import nocking.element.Field;
import nocking.finding.Finding;
import nocking.misfit.Cause;
import nocking.misfit.PointsMisfit;
import nocking.network.Circuit;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.CurrentLoop;
import nocking.sensor.NtcBeta;
import nocking.sensor.PlatinumRtd;
import nocking.sensor.Sensor;
import nocking.stage.NonInvertingAmp;
import nocking.stage.PullUp;
import nocking.stage.SeriesResistor;
import nocking.stage.Shunt;
import nocking.stage.Stage;
import nocking.wiring.Place;
import org.junit.jupiter.api.Test;

/** Readings in ohms and milliamperes are the sensor's own: all else is taken as designed. */
class SensorReadingsTest {
  private static final double R25 = 10e3;
  private static final double BETA = 3950;
  private static final double PULL_UP = 4700;
  private static final double[] BATH = {0, 5, 10, 15, 20, 25};

  private static final Converter OPEN = Converter.of(12, 3.3);
  private static final Field RIN = OPEN.field("Rin");

  private static double ohms(double celsius, double r25, double beta) {
    return r25 * Math.exp(beta * (1 / (celsius + 273.15) - 1 / 298.15));
  }

  private static Channel thermistor() {
    return Channel.blank("t", "RW-T1")
        .define(d -> d.withRange(v(0), v(25)).withTolerance(v(0.2)))
        .design(
            d ->
                d.withSensor(ntc(R25, BETA))
                    .withStages(List.of(new PullUp(v(3.3), v(PULL_UP))))
                    .withConverter(Converter.of(12, 3.3)));
  }

  private static Sensor ntc(double r25, double beta) {
    return NtcBeta.of(r25, 25, beta);
  }

  private static Channel loop() {
    return Channel.blank("l", "HT-L1")
        .define(d -> d.withUnit("mm").withRange(v(0), v(2000)).withTolerance(v(10)))
        .design(
            d ->
                d.withSensor(new CurrentLoop(v(0), v(2000), v(0.004), v(0.02)))
                    .withStages(List.of(new Shunt(v(150), v(24), v(10), v(20))))
                    .withConverter(Converter.of(12, 3.3)));
  }

  private static Channel read(Channel c, RawUnit unit, double[] applied, DoubleUnaryOperator raw) {
    List<ReferencePoint> points = new ArrayList<>();
    for (double x : applied) points.add(ReferencePoint.of(v(x), v(raw.applyAsDouble(x))));
    return c.calibration(k -> k.withPoints(new PointSet(unit, points)));
  }

  private static Stream<String> rules(Channel c) {
    return Analysis.of(c).findings().stream().map(Finding::rule);
  }

  private static Finding finding(Channel c, String rule) {
    return Analysis.of(c).findings().stream()
        .filter(f -> f.rule().equals(rule))
        .findFirst()
        .orElseThrow(() -> new AssertionError(rules(c).toList().toString()));
  }

  /**
   * The circuit behind the sensor is that of the nodal solver, whatever resistance stands there.
   */
  @Test
  void ohmsComeToTheConverterAsTheNodesSay() {
    var random = new Random(20261202);
    for (int n = 0; n < 300; n++) {
      double up = 500 * Math.pow(100, random.nextDouble());
      double supply = 1.8 + 3.2 * random.nextDouble();
      double series = 100 + 5000 * random.nextDouble();
      double load = 20e3 * Math.pow(50, random.nextDouble());
      double gain = 9e3 * random.nextDouble();
      boolean amplified = random.nextBoolean();
      List<Stage> stages =
          amplified
              ? List.of(
                  new PullUp(v(supply), v(up)),
                  new NonInvertingAmp(v(gain), v(10e3), v(0), v(-99), v(99)))
              : List.of(new PullUp(v(supply), v(up)), new SeriesResistor(v(series)));
      Channel c =
          thermistor()
              .design(
                  d ->
                      d.withStages(stages)
                          .withConverter(amplified ? OPEN : Element.with(OPEN, RIN, v(load))));
      double ohms = 100 * Math.pow(1000, random.nextDouble());
      var circuit = new Circuit().source("s", Circuit.GROUND, supply).resistor("s", "a", up);
      circuit.resistor("a", Circuit.GROUND, ohms);
      if (!amplified) circuit.resistor("a", "b", series).resistor("b", Circuit.GROUND, load);
      double volts = circuit.solve().get(amplified ? "a" : "b") * (amplified ? 1 + gain / 10e3 : 1);
      RawScale scale =
          RawScale.of(RawUnit.OHMS, c.design().converter(), Analysis.of(c).design().path())
              .orElseThrow();
      assertThat(scale.volts(ohms)).isCloseTo(volts, within(1e-9 * Math.abs(volts)));
      assertThat(scale.raw(12)).isCloseTo(ohms(12, R25, BETA), within(1e-6));
    }
  }

  /** A thermistor that differs from its card, read in a bath with an ohmmeter, is calibrated. */
  @Test
  void pointsInOhmsCalibrateTheSensor() {
    Channel c = read(thermistor(), RawUnit.OHMS, BATH, t -> ohms(t, 10120, 3921));
    Analysis a = Analysis.of(c);
    Channel fitted = a.calibration().adopting("poly:3");
    DoubleUnaryOperator f = Analysis.of(fitted).calibration().curve().orElseThrow().function();
    for (double t = 0; t <= 25; t += 0.5) {
      double r = ohms(t, 10120, 3921);
      double volts = 3.3 * r / (r + PULL_UP);
      assertThat(f.applyAsDouble(volts)).isCloseTo(t, within(0.04));
    }
    assertThat(finding(c, "points-of-sensor").headline())
        .isEqualTo("The points are of the sensor alone, in ohms");
    assertThat(rules(read(thermistor(), RawUnit.VOLTS, BATH, t -> 1)))
        .doesNotContain("points-of-sensor");
  }

  /**
   * What explains readings of the sensor alone is the sensor or the pen: never a part behind it,
   * which they do not know of.
   */
  @Test
  void noPartBehindTheSensorIsBlamed() {
    var random = new Random(27);
    int explained = 0;
    for (int n = 0; n < 60; n++) {
      double r25 = R25 * (0.8 + 0.4 * random.nextDouble());
      double beta = BETA * (0.92 + 0.16 * random.nextDouble());
      double leads = random.nextInt(3) == 0 ? 400 * random.nextDouble() : 0;
      Channel c = read(thermistor(), RawUnit.OHMS, BATH, t -> leads + ohms(t, r25, beta));
      Optional<PointsMisfit> m = Analysis.of(c).calibration().misfit();
      if (m.isEmpty()) continue;
      for (Cause k : m.get().causes()) {
        explained++;
        assertThat(k.kind()).isNotIn(Cause.Kind.LOAD, Cause.Kind.RAW_UNIT);
        assertThat(k.says()).doesNotContain("Rpu", "Vs", "Vadc", "reference");
        // What a remedy does it does to the sensor or to the points.
        k.remedy()
            .ifPresent(
                r -> {
                  Channel mended = r.apply(c);
                  assertThat(mended.design().stages()).isEqualTo(c.design().stages());
                  assertThat(mended.design().converter()).isEqualTo(c.design().converter());
                });
      }
    }
    assertThat(explained).isGreaterThan(30);
  }

  /**
   * The usual slips of the pen: a prefix, the wrong list; and what leads add to a platinum wire.
   */
  @Test
  void whatWasWrittenDownWrongIsNamed() {
    Channel slip =
        read(thermistor(), RawUnit.OHMS, BATH, t -> ohms(t, R25, BETA) / (t == 10 ? 1000 : 1));
    Finding f = finding(slip, "point-slip");
    assertThat(f.headline()).isEqualTo("Point 3 looks like a ÷1000 slip");
    assertThat(f.detail())
        .isEqualTo("At 10.0 °C it reads 20.1746 Ω; the design expects 20.1746 kΩ.");
    Channel mended = f.fix().orElseThrow().apply().apply(slip);
    assertThat(Analysis.of(mended).calibration().misfit()).isEmpty();

    Channel volts = read(thermistor(), RawUnit.VOLTS, BATH, t -> ohms(t, R25, BETA));
    Channel asOhms = finding(volts, "raw-unit").fix().orElseThrow().apply().apply(volts);
    assertThat(asOhms.calibration().points().raw()).isEqualTo(RawUnit.OHMS);
    assertThat(Analysis.of(asOhms).calibration().misfit()).isEmpty();

    double[] levels = {0, 500, 1000, 1500, 2000};
    Channel amperes = read(loop(), RawUnit.VOLTS, levels, x -> 4 + 16 * x / 2000);
    Channel asMilli = finding(amperes, "raw-unit").fix().orElseThrow().apply().apply(amperes);
    assertThat(asMilli.calibration().points().raw()).isEqualTo(RawUnit.MILLIAMPERES);
    assertThat(Analysis.of(asMilli).calibration().misfit()).isEmpty();

    Channel wire =
        thermistor()
            .design(
                d ->
                    d.withSensor(
                            new PlatinumRtd(
                                v(100),
                                PlatinumRtd.ToleranceClass.B,
                                PlatinumRtd.Wires.TWO,
                                v(0),
                                null))
                        .withStages(List.of(new PullUp(v(3.3), v(1000)))));
    Channel leads =
        read(wire, RawUnit.OHMS, BATH, t -> 0.84 + 100 * (1 + 3.9083e-3 * t - 5.775e-7 * t * t));
    Finding offset = finding(leads, "constant-offset");
    assertThat(offset.detail()).contains("0.84 Ω too high at the sensor").contains("leads");
  }

  /** Ohms of a sensor that gives a current are nobody's; nothing is worked out with them. */
  @Test
  void readingsOfAnotherSignalCountForNothing() {
    double[] levels = {0, 1000, 2000};
    Channel c = read(loop(), RawUnit.OHMS, levels, x -> 100 + x);
    assertThat(finding(c, "points-other-signal").headline())
        .isEqualTo("The points are in ohms, and the sensor gives a current");
    Analysis a = Analysis.of(c);
    assertThat(a.calibration().samples().size()).isZero();
    assertThat(a.calibration().misfit()).isEmpty();
    assertThat(rules(c)).doesNotContain("readings-alike", "not-worked-out", "fault-reading");
  }

  private static Channel checked(Channel c, Measured as, double... appliedAndMeasured) {
    var points = new ArrayList<CheckPoint>();
    for (int i = 0; i < appliedAndMeasured.length; i += 2) {
      points.add(new CheckPoint(v(appliedAndMeasured[i]), v(appliedAndMeasured[i + 1])));
    }
    return c.acceptance(a -> a.withCheck(new CheckTable(as, points)));
  }

  /**
   * A check in ohms judges the sensor by the curve, as far as the curve does not know the parts.
   */
  @Test
  void aCheckInOhmsIsOfTheSensorAlone() {
    double off = ohms(10.1, R25, BETA);
    Channel c = checked(thermistor(), Measured.OHMS, 10, off, 20, ohms(20.5, R25, BETA));
    List<CheckRow> rows = Analysis.of(c).acceptance().rows();
    assertThat(rows.get(0).error()).isCloseTo(0.1, within(1e-6));
    assertThat(rows.get(0).verdict()).isEqualTo(Verdict.PASS);
    assertThat(rows.get(1).error()).isCloseTo(0.5, within(1e-6));
    assertThat(rows.get(1).verdict()).isEqualTo(Verdict.FAIL);
    assertThat(rows.get(0).millivolts()).isNaN();
    assertThat(rows.get(0).expected(Measured.OHMS)).isCloseTo(ohms(10, R25, BETA), within(1e-6));
    assertThat(finding(c, "check-of-sensor").headline()).contains("of the sensor alone");

    // A pull-up that is 2 % off is in a curve that was measured in volts, and not in these ohms.
    Channel measured =
        read(
            thermistor(),
            RawUnit.VOLTS,
            BATH,
            t -> 3.3 * ohms(t, R25, BETA) / (ohms(t, R25, BETA) + 1.02 * PULL_UP));
    Channel adopted = Analysis.of(measured).calibration().adopting("poly:3");
    Channel blind = checked(adopted, Measured.OHMS, 10, ohms(10, R25, BETA));
    CheckRow row = Analysis.of(blind).acceptance().rows().getFirst();
    assertThat(row.verdict()).isEqualTo(Verdict.OPEN);
    assertThat(row.error()).isNaN();
    assertThat(finding(blind, "check-tells-nothing").headline())
        .isEqualTo("A check in ohms tells nothing here");
  }

  /** A live reading of a loop: what it stands for, and that a dead one is a fault. */
  @Test
  void aLoopIsReadAlive() {
    Analysis a = Analysis.of(loop());
    Place place = Place.of(Place.Kind.LOOP_CURRENT);
    LiveReading half = LiveReading.of(a, place, RawUnit.MILLIAMPERES, 12.08, 1000);
    assertThat(half.quantity()).isCloseTo(1010, within(1e-6));
    assertThat(half.expected()).isCloseTo(12, within(1e-9));
    assertThat(half.says(a)).isEqualTo("12.0800 mA at loop current = 1010 mm, +80.0 µA off");
    assertThat(half.fault()).isFalse();
    LiveReading dead = LiveReading.of(a, place, RawUnit.MILLIAMPERES, 0.002, Double.NaN);
    assertThat(dead.fault()).isTrue();
    assertThat(dead.quantity()).isNaN();
    assertThat(half.value(RawUnit.MILLIAMPERES).number()).isEqualTo(12.08);
    assertThat(half.value(0.001).number()).isCloseTo(0.01208, within(1e-12));
  }

  /** A prefix by itself is one of the ohm or the ampere, in whatever the list is kept. */
  @Test
  void prefixesAreTakenAsTyped() {
    assertThat(ReferencePoint.parseReadings("14.8k; 14k7; 14.82 kΩ", Unit.OHM))
        .extracting(Value::number)
        .containsExactly(14800.0, 14700.0, 14820.0);
    Unit milli = RawUnit.MILLIAMPERES.unit();
    assertThat(ReferencePoint.parseReadings("12.3; 12.3m; 0.0123 A; 12300u", milli))
        .extracting(Value::number)
        .allSatisfy(x -> assertThat(x).isCloseTo(12.3, within(1e-9)));
    assertThat(Value.typed("2m", Unit.of("mV")).number()).isEqualTo(2);
    assertThat(Value.typed("4k7", Unit.of("kΩ")).number()).isEqualTo(4.7);
  }

  /**
   * Where the curve of a sensor would come to less than no resistance there is no circuit of it.
   */
  @Test
  void aSensorOfLessThanNothingBreaksNothing() {
    Channel c =
        thermistor()
            .design(
                d ->
                    d.withSensor(
                            new PlatinumRtd(
                                v(100),
                                PlatinumRtd.ToleranceClass.B,
                                PlatinumRtd.Wires.TWO,
                                v(0.5),
                                null))
                        .withStages(
                            List.of(
                                new PullUp(v(3.3), v(18e3)),
                                new NonInvertingAmp(v(1e3), v(10e3), v(0), v(0), v(3.3)))));
    Channel read = read(c, RawUnit.OHMS, new double[] {4, 26}, t -> t == 4 ? -1 : 18000);
    Analysis a = Analysis.of(read);
    assertThat(a.findings()).extracting(Finding::rule).doesNotContain("not-worked-out");
    assertThat(a.troubles()).isEmpty();
    assertThat(a.design().path().orElseThrow().at(-246).output()).isNotNaN();
  }
}
