package nocking.finding;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import java.util.function.Function;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.band.AlarmBand;
import nocking.band.BandPlan;
import nocking.band.BandPosition;
import nocking.channel.Channel;
import nocking.converter.Converter;
import nocking.element.Signal;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.sensor.LinearSensor;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.sensor.TwoPointSensor;
import nocking.stage.Divider;
import nocking.stage.PullUp;
import nocking.wiring.WirePlan;
import org.junit.jupiter.api.Test;

/** What used to pass without a word, each with its sound twin. */
class SilenceTest {
  private static final double[] SEVEN = {0, 10, 20, 30, 40, 50, 60};

  private static double blower(double x) {
    return 5 * (8 + 0.84 * x) / 100 * 10e3 / 15.1e3;
  }

  private static Optional<Finding> finding(Channel c, String rule) {
    return Analysis.of(c).findings().stream().filter(f -> f.rule().equals(rule)).findFirst();
  }

  private static Finding found(Channel c, String rule) {
    return finding(c, rule).orElseThrow(() -> new AssertionError("no finding " + rule));
  }

  private static void mended(Channel c, String rule) {
    assertThat(finding(found(c, rule).fix().orElseThrow().apply().apply(c), rule)).isEmpty();
  }

  private static Channel points(DoubleUnaryOperator volts) {
    return Channels.blower().calibration(k -> k.withPoints(Channels.points(SEVEN, volts)));
  }

  @Test
  void readingsThatDoNotFollow() {
    Finding f = found(points(x -> 1.234), "readings-alike");
    assertThat(f.headline()).isEqualTo("All 7 readings are alike");
    assertThat(f.detail()).contains("265 mV").contains("1.93 V");
    assertThat(finding(points(SilenceTest::blower), "readings-alike")).isEmpty();
  }

  @Test
  void aSingleWildPointIsMeasuredAgainstTheTolerance() {
    Channel one =
        Channels.blower()
            .calibration(k -> k.withPoints(Channels.points(new double[] {30}, x -> 1.3)));
    assertThat(Analysis.of(one).calibration().misfit()).isPresent();
    Channel two =
        Channels.blower()
            .calibration(
                k -> k.withPoints(Channels.points(new double[] {10, 50}, x -> blower(x) * 1.2)));
    assertThat(found(two, "gain-error").headline())
        .isEqualTo("The points ask for 20 % more gain than the design has");
  }

  @Test
  void oneRepeatFarFromItsFellows() {
    PointSet set = Channels.points(SEVEN, SilenceTest::blower);
    double m = blower(20);
    PointSet wild =
        set.with(
            2,
            set.points().get(2).withReadings(List.of(v(m), v(m + 1e-3), v(m - 1e-3), v(m + 0.2))));
    Finding f = found(Channels.blower().calibration(k -> k.withPoints(wild)), "repeat-outlier");
    assertThat(f.headline()).isEqualTo("Point 3: reading 4 lies far from its fellows");
    assertThat(f.item()).isEqualTo(2);
    PointSet calm =
        set.with(
            2,
            set.points().get(2).withReadings(List.of(v(m), v(m + 1e-3), v(m - 1e-3), v(m + 2e-3))));
    assertThat(finding(Channels.blower().calibration(k -> k.withPoints(calm)), "repeat-outlier"))
        .isEmpty();
  }

  private static Channel strokes(double apart) {
    var list = new ArrayList<ReferencePoint>();
    for (double x : SEVEN) list.add(ReferencePoint.of(v(x), v(blower(x))));
    for (double x : SEVEN) {
      list.add(ReferencePoint.of(v(x), v(blower(x + apart))).withDown(true));
    }
    return Channels.blower().calibration(k -> k.withPoints(new PointSet(RawUnit.VOLTS, list)));
  }

  @Test
  void upAndDownApart() {
    Finding f = found(strokes(0.8), "hysteresis");
    assertThat(f.headline()).isEqualTo("Up and down are 0.80 kPa apart");
    assertThat(finding(strokes(0.2), "hysteresis")).isEmpty();
  }

  /**
   * Hits of a set point that differ a little are of one set point; what lies between is taken off.
   */
  @Test
  void upAndDownAreComparedWhereTheyWereHit() {
    Function<Double, Channel> strokes =
        apart -> {
          var path = Analysis.of(Channels.blower()).design().path().orElseThrow();
          var points = new ArrayList<ReferencePoint>();
          for (double x = 0; x <= 60; x += 10) {
            points.add(ReferencePoint.of(v(x + 0.2), v(path.output(x + 0.2))));
            double hit = Math.max(0, x - 0.2);
            points.add(ReferencePoint.of(v(hit), v(path.output(hit + apart))).withDown(true));
          }
          return Channels.blower()
              .calibration(k -> k.withPoints(new PointSet(RawUnit.VOLTS, points)));
        };
    assertThat(finding(strokes.apply(0.0), "hysteresis")).isEmpty();
    assertThat(found(strokes.apply(0.8), "hysteresis").headline())
        .isEqualTo("Up and down are 0.80 kPa apart");
  }

  /** A probe that hangs 20 kPa high, against one that answers and a design that is flat there. */
  @Test
  void anEndWithoutAnAnswer() {
    Function<DoubleUnaryOperator, Channel> reads =
        truth -> {
          var path = Analysis.of(Channels.blower()).design().path().orElseThrow();
          var points = new ArrayList<ReferencePoint>();
          for (double x = 0; x <= 60; x += 5) {
            double volts = path.output(truth.applyAsDouble(x));
            double off = 1e-4 * Math.sin(7 * x);
            points.add(ReferencePoint.of(v(x), v(volts - off), v(volts), v(volts + off + 2e-4)));
          }
          return Channels.blower()
              .calibration(k -> k.withPoints(new PointSet(RawUnit.VOLTS, points)));
        };
    assertThat(found(reads.apply(x -> Math.max(20, x)), "dead-below").headline())
        .isEqualTo("It does not answer below 20.0 kPa");
    assertThat(found(reads.apply(x -> Math.min(40, x)), "dead-above").headline())
        .isEqualTo("It does not answer above 40.0 kPa");
    for (String rule : List.of("dead-below", "dead-above")) {
      assertThat(finding(reads.apply(x -> x), rule)).isEmpty();
      assertThat(finding(reads.apply(x -> 30), rule)).isEmpty();
    }
  }

  @Test
  void aToleranceBelowOneCount() {
    Channel coarse = Channels.blower().design(d -> d.withConverter(Converter.of(8, 3.3)));
    Finding f = found(coarse.define(d -> d.withTolerance(v(0.1))), "tolerance-below-count");
    assertThat(f.detail()).contains("0.46 kPa").contains("it takes 3 bits more");
    assertThat(finding(Channels.blower(), "tolerance-below-count")).isEmpty();
  }

  @Test
  void supplyOfTheWiresAgainstTheSensors() {
    Channel c = Channels.blower();
    Channel other = c.wiring(w -> w.withPlan(w.plan().withSupply(v(12))));
    assertThat(found(other, "supply-contradicts").headline())
        .isEqualTo("The wires bring 12 V, the sensor is defined for 5 V");
    mended(other, "supply-contradicts");
    assertThat(finding(c.wiring(w -> w.withPlan(w.plan().withSupply(v(5)))), "supply-contradicts"))
        .isEmpty();
  }

  @Test
  void aShareOfTheSupplyTypedAsVolts() {
    Channel c =
        Channels.blower()
            .design(
                d ->
                    d.withSensor(new TwoPointSensor(v(0), v(0.5), v(100), v(4.5), v(0)))
                        .withStages(List.of())
                        .withConverter(Converter.of(12, 5)));
    Channel wired = c.wiring(w -> w.withPlan(w.plan().withSupply(v(5))));
    Finding f = found(wired, "absolute-ratio");
    assertThat(f.detail()).contains("10 % and 90 % of the supply");
    Channel mended = f.fix().orElseThrow().apply().apply(wired);
    assertThat(mended.design().sensor()).isInstanceOf(RatiometricSensor.class);
    assertThat(Analysis.of(mended).design().path().orElseThrow().output(30))
        .isEqualTo(Analysis.of(wired).design().path().orElseThrow().output(30));
    assertThat(finding(c, "absolute-ratio")).isEmpty();
  }

  private static Channel table(double fourth) {
    return Channels.incubator()
        .define(d -> d.withRange(v(0), v(25)).withTolerance(v(0.4)))
        .design(
            d ->
                d.withSensor(
                        new TableSensor(
                            List.of(
                                TablePoint.of(0, 32650),
                                TablePoint.of(5, 25390),
                                TablePoint.of(10, 19900),
                                TablePoint.of(15, fourth),
                                TablePoint.of(20, 12490),
                                TablePoint.of(25, 10000)),
                            TableSensor.Interpolation.LINEAR,
                            Signal.RESISTANCE,
                            v(0)))
                    .withStages(List.of(new PullUp(v(3.3), v(18e3)))));
  }

  @Test
  void aRowOfADatasheetTableThatSlipped() {
    for (double factor : new double[] {10, 0.1, 1000, 0.001}) {
      Channel slipped = table(15710 * factor);
      Finding f = found(slipped, "datasheet-slip");
      assertThat(f.headline()).isEqualTo("Row 4 of the table is out of line");
      assertThat(f.fix().orElseThrow().apply().apply(slipped).design().sensor())
          .isEqualTo(table(15710).design().sensor());
    }
    assertThat(finding(table(15710), "datasheet-slip")).isEmpty();
    // A curve may bend sharply: a knee is no slip.
    assertThat(finding(table(13000), "datasheet-slip")).isEmpty();
  }

  @Test
  void millivoltsTypedAsVolts() {
    Channel c =
        Channels.blower()
            .design(d -> d.withSensor(new TwoPointSensor(v(0), v(500), v(100), v(4500), v(0))));
    assertThat(found(c, "datasheet-slip").headline()).isEqualTo("Millivolts typed as volts?");
    mended(c, "datasheet-slip");
  }

  @Test
  void aDividerThatLoadsTheOneBeforeIt() {
    Channel c =
        Channels.blower()
            .design(
                d ->
                    d.withSensor(new LinearSensor(v(0), v(0), v(0.04), v(0), v(100), v(0)))
                        .withStages(
                            List.of(new Divider(v(10e3), v(10e3)), new Divider(v(10e3), v(10e3)))));
    Finding f = found(c, "loading");
    // 10 kΩ ∥ 20 kΩ below 10 kΩ: 0.4 instead of 0.5.
    assertThat(f.headline()).isEqualTo("Loading moves TP2 by 20 %");
    assertThat(f.item()).isZero();
    Channel light = c.design(d -> d.withStage(1, new Divider(v(50e6), v(50e6))));
    assertThat(finding(light, "loading")).isEmpty();
  }

  @Test
  void noBrokenWireCanBeTold() {
    Channel c =
        Channels.blower()
            .design(d -> d.withSensor(new TwoPointSensor(v(0), v(0), v(100), v(5), v(100))))
            .define(d -> d.withRange(v(0), v(100)))
            .design(d -> d.withStages(List.of(new Divider(v(5e3), v(10e3)))))
            .wiring(w -> w.withPlan(WirePlan.DEFAULT.withSupply(v(5))));
    assertThat(found(c, "faults-untold").headline()).isEqualTo("No broken wire is detectable");
    assertThat(finding(Channels.blower(), "faults-untold")).isEmpty();
  }

  private static Channel bands(BandPlan plan) {
    return Channels.blower().wiring(w -> w.withBands(plan));
  }

  @Test
  void anAlarmThatIsNeverReached() {
    var over = new AlarmBand("over", v(130), null);
    Channel c = bands(BandPlan.EMPTY.withAlarms(List.of(over)));
    assertThat(found(c, "alarm-never").detail()).contains("above 130.0 kPa");
    var high = new AlarmBand("high", v(55), null);
    assertThat(finding(bands(BandPlan.EMPTY.withAlarms(List.of(high))), "alarm-never")).isEmpty();
  }

  @Test
  void aBandNarrowerThanTwoCountsAndAHysteresisBelowTheNoise() {
    var low = new AlarmBand("low", null, v(30));
    var thin = new AlarmBand("thin", v(30), v(30.02));
    var high = new AlarmBand("high", v(30.02), null);
    Channel c = bands(BandPlan.EMPTY.withAlarms(List.of(low, thin, high)).withHysteresis(v(0.005)));
    assertThat(found(c, "band-below-count").headline())
        .isEqualTo("thin is narrower than two counts");
    assertThat(found(c, "hysteresis-below-noise").detail()).contains("The resolution is 0.029 kPa");
    var wide = new AlarmBand("ok", v(30), v(50));
    var over = new AlarmBand("over", v(50), null);
    Channel sound =
        bands(BandPlan.EMPTY.withAlarms(List.of(low, wide, over)).withHysteresis(v(0.5)));
    assertThat(finding(sound, "band-below-count")).isEmpty();
    assertThat(finding(sound, "hysteresis-below-noise")).isEmpty();
  }

  @Test
  void aStationThatTheConverterDoesNotSee() {
    var seen = BandPosition.of("A", v(1));
    var beyond = BandPosition.of("B", v(4.2));
    Channel c = bands(BandPlan.EMPTY.withPositions(List.of(seen, beyond)));
    Finding f = found(c, "station-outside");
    assertThat(f.headline()).isEqualTo("B lies outside the converter's range");
    assertThat(f.item()).isEqualTo(1);
    assertThat(finding(bands(BandPlan.EMPTY.withPositions(List.of(seen))), "station-outside"))
        .isEmpty();
  }

  @Test
  void everyEmptyThirdIsNamed() {
    Channel low =
        Channels.blower()
            .calibration(
                k -> k.withPoints(Channels.points(new double[] {0, 5, 10}, SilenceTest::blower)));
    assertThat(found(low, "coverage").headline())
        .isEqualTo("No point in the middle and upper thirds");
  }

  /** A value that does not exist agrees with nothing. */
  @Test
  void oneReadingOffTheTableIsNoOtherUnit() {
    Channel sound = table(15710);
    PointSet set =
        Channels.points(
            new double[] {0, 5, 10, 15, 20, 25},
            x -> Analysis.of(sound).design().path().orElseThrow().output(x));
    ReferencePoint p = set.points().get(2);
    Channel slipped =
        sound.calibration(
            k -> k.withPoints(set.with(2, p.withReadings(List.of(v(p.mean() * 10))))));
    assertThat(finding(slipped, "unit-slip")).isEmpty();
    assertThat(found(slipped, "point-slip").headline()).startsWith("Point 3 looks like a ×10 slip");
  }
}
