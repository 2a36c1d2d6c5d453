package nocking.finding;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.Hazard;
import nocking.channel.QuantityKind;
import nocking.check.CheckPoint;
import nocking.check.CheckSheet;
import nocking.converter.Converter;
import nocking.points.ReferencePoint;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.LinearSensor;
import nocking.sensor.TwoPointSensor;
import nocking.stage.DifferenceAmp;
import nocking.stage.Divider;
import org.junit.jupiter.api.Test;

/** Every rule on a channel that has the fault and on its sound twin; every fix mends it. */
class RuleTest {
  private static final double[] ELEVEN = {4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14};
  private static final double[] SEVEN = {0, 10, 20, 30, 40, 50, 60};

  private static Optional<Finding> find(Channel c, String rule) {
    return Analysis.of(c).findings().stream().filter(f -> f.rule().equals(rule)).findFirst();
  }

  private static Finding found(Channel c, String rule) {
    return find(c, rule).orElseThrow(() -> new AssertionError("no finding " + rule));
  }

  private static void absent(Channel c, String rule) {
    assertThat(find(c, rule)).as(rule).isEmpty();
  }

  private static void mends(Channel c, String rule) {
    Finding f = found(c, rule);
    absent(f.fix().orElseThrow().apply().apply(c), rule);
  }

  private static Channel incubator(DoubleUnaryOperator truth) {
    return Channels.incubator().withPoints(Channels.points(ELEVEN, truth));
  }

  private static double design(double celsius) {
    return Analysis.of(Channels.incubator()).path().orElseThrow().output(celsius);
  }

  private static double blower(double kPa) {
    return Analysis.of(Channels.blower()).path().orElseThrow().output(kPa);
  }

  private static Channel amp(double feedback, double offset) {
    return Channels.incubator()
        .withStages(
            List.of(new DifferenceAmp(v(feedback), v(10e3), v(offset), v(1.65), v(0), v(3.3))));
  }

  @Test
  void soundChannelHasNoFindings() {
    assertThat(Analysis.of(incubator(RuleTest::design)).findings()).isEmpty();
  }

  @Test
  void railClip() {
    Channel faulty = amp(210e3, 0.53);
    Finding f = found(faulty, "rail-clip");
    assertThat(f.severity()).isEqualTo(Severity.STOP);
    assertThat(f.headline()).isEqualTo("Output clips below 5.07 °C");
    assertThat(f.item()).isZero();
    mends(faulty, "rail-clip");
    absent(Channels.incubator(), "rail-clip");
  }

  @Test
  void converterOverItsRange() {
    Channel faulty = Channels.blower().withStages(List.of());
    absent(faulty, "converter-over");
    assertThat(found(faulty.define(d -> d.withRange(v(0), v(100))), "converter-over").headline())
        .isEqualTo("Converter input reaches 4.60 V");
    absent(Channels.blower(), "converter-over");
  }

  @Test
  void converterPoorlyUsed() {
    Channel faulty = amp(40e3, 0.53);
    assertThat(found(faulty, "converter-use").headline())
        .isEqualTo("Only 24 % of the converter is used");
    absent(Channels.incubator(), "converter-use");
  }

  @Test
  void ratedRange() {
    Channel c = Channels.blower();
    assertThat(found(c.define(d -> d.withRange(v(0), v(120))), "outside-rated").severity())
        .isEqualTo(Severity.WARNING);
    assertThat(found(c.define(d -> d.withRange(v(0), v(20))), "sensor-large").headline())
        .isEqualTo("Sensor range is 5.0× the job");
    absent(c, "outside-rated");
    absent(c, "sensor-large");
  }

  @Test
  void ratiometricSensorOnAFixedReference() {
    assertThat(found(Channels.blower(), "fixed-reference").detail())
        .startsWith("1 % of the 5.00 V supply moves the reading by 0.70 kPa at 60.0 kPa");
    Channel twin = Channels.blower().withConverter(Converter.of(12, 5));
    absent(twin, "fixed-reference");
  }

  @Test
  void pivotThatIsNotWhereItWasAsked() {
    Channel faulty = amp(135e3, 0.528);
    assertThat(found(faulty, "pivot").headline()).isEqualTo("Pivot sits at 8.9, not 9 °C");
    mends(faulty, "pivot");
    absent(Channels.incubator(), "pivot");
  }

  @Test
  void loadingThatMatters() {
    var soft = new LinearSensor(v(0), v(0), v(0.05), v(0), v(100), v(1250));
    Channel faulty =
        Channels.blower().withSensor(soft).withStages(List.of(new Divider(v(5.1e3), v(10e3))));
    assertThat(found(faulty, "loading").headline()).isEqualTo("Loading moves TP1 by 7.6 %");
    absent(Channels.blower(), "loading");
  }

  @Test
  void appliedValuesInAnotherUnit() {
    double psi = Unit.of("psi").factor() / 1000;
    Channel faulty =
        Channels.blower()
            .withPoints(Channels.points(new double[] {0, 2, 4, 6, 8}, x -> blower(psi * x)));
    assertThat(found(faulty, "unit-slip").headline()).isEqualTo("Applied values look like psi");
    mends(faulty, "unit-slip");
    Value taken =
        found(faulty, "unit-slip")
            .fix()
            .orElseThrow()
            .apply()
            .apply(faulty)
            .points()
            .points()
            .get(1)
            .applied();
    assertThat(taken.typed()).isEqualTo("2 psi");
    assertThat(taken.number()).isCloseTo(13.79, within(0.01));
    absent(Channels.blower().withPoints(Channels.points(SEVEN, RuleTest::blower)), "unit-slip");
  }

  @Test
  void gaugeForAbsolute() {
    Channel faulty =
        Channels.blower()
            .define(d -> d.withRange(v(0), v(60)))
            .withSensor(new TwoPointSensor(v(0), v(0.4), v(250), v(4.6), v(0)));
    DoubleUnaryOperator absolute = x -> (0.4 + 4.2 / 250 * (x + 100.6)) * 10 / 15.1;
    faulty = faulty.withPoints(Channels.points(SEVEN, absolute));
    assertThat(found(faulty, "gauge-absolute").headline()).isEqualTo("Gauge or absolute?");
    mends(faulty, "gauge-absolute");
    absent(
        Channels.blower().withPoints(Channels.points(SEVEN, RuleTest::blower)), "gauge-absolute");
  }

  @Test
  void decimalSlipOfOneReading() {
    for (double factor : new double[] {10, 0.1, 1000, 0.001}) {
      Channel sound = Channels.blower().withPoints(Channels.points(SEVEN, RuleTest::blower));
      ReferencePoint p = sound.points().points().get(4);
      Channel faulty =
          sound.withPoints(sound.points().with(4, p.withReadings(List.of(v(p.mean() * factor)))));
      assertThat(found(faulty, "point-slip").headline()).startsWith("Point 5 looks like a ");
      mends(faulty, "point-slip");
      absent(sound, "point-slip");
    }
  }

  @Test
  void pointThatGoesTheWrongWay() {
    Channel faulty = incubator(x -> x == 8 ? design(6.5) : design(x));
    assertThat(found(faulty, "not-monotone").headline())
        .isEqualTo("Points are not monotone at row 5");
    Channel high = incubator(x -> x == 8 ? 3.1 : design(x));
    assertThat(found(high, "not-monotone").headline())
        .as("the point that is out of line is named, not its neighbour")
        .isEqualTo("Points are not monotone at row 5");
    absent(incubator(RuleTest::design), "not-monotone");
  }

  @Test
  void thirdOfTheRangeWithoutAPoint() {
    Channel c = Channels.incubator();
    assertThat(
            found(
                    c.withPoints(Channels.points(new double[] {4, 6, 9}, RuleTest::design)),
                    "coverage")
                .headline())
        .isEqualTo("No point in the upper third");
    assertThat(
            found(c.withPoints(Channels.points(new double[] {4, 14}, RuleTest::design)), "coverage")
                .headline())
        .isEqualTo("No point in the middle third");
    absent(incubator(RuleTest::design), "coverage");
  }

  @Test
  void sameOffsetEverywhere() {
    Channel faulty = incubator(x -> design(x) + 0.027);
    assertThat(found(faulty, "constant-offset").text())
        .contains("reads 0.10 °C high at every point")
        .contains("27 mV");
    absent(incubator(x -> 1.65 + 1.05 * (design(x) - 1.65)), "constant-offset");
  }

  @Test
  void bowUnderATwoPointLine() {
    Channel bowed = incubator(x -> design(x) + 0.004 * (x - 4) * (14 - x));
    Channel faulty = Analysis.of(bowed).adopting("ends");
    assertThat(found(faulty, "mid-span").headline()).isEqualTo("The two-point line leaves 0.37 °C");
    assertThat(found(faulty, "mid-span").severity()).isEqualTo(Severity.WARNING);
    mends(faulty, "mid-span");
    absent(Analysis.of(incubator(RuleTest::design)).adopting("ends"), "mid-span");
  }

  @Test
  void pointsThatChangedAfterAdoption() {
    Channel adopted = Analysis.of(incubator(RuleTest::design)).adopting("line");
    absent(adopted, "stale-adoption");
    Channel faulty = adopted.withPoints(Channels.points(ELEVEN, x -> design(x) + 0.03));
    assertThat(found(faulty, "stale-adoption").detail())
        .isEqualTo("Fitted anew it would read up to 0.11 °C different.");
    mends(faulty, "stale-adoption");
  }

  @Test
  void checkThatFails() {
    Channel c =
        Channels.incubator()
            .withCheck(
                new CheckSheet(
                    CheckSheet.Measured.READING,
                    List.of(new CheckPoint(v(4), v(4.05)), new CheckPoint(v(14), v(14.13)))));
    Finding f = found(c, "check-fails");
    assertThat(f.text())
        .isEqualTo("Fails at 14.00 °C. +0.130 °C against ±0.1, 1.3 of the tolerance.");
    assertThat(f.item()).isEqualTo(1);
    absent(c.define(d -> d.withTolerance(v(0.2))), "check-fails");
  }

  @Test
  void cautionsStandWhereTheyBelong() {
    Channel c = Channels.blower().define(d -> d.withHazards(List.of(Hazard.MAINS)));
    assertThat(found(c, "caution").detail()).contains("no isolation");
    absent(Channels.blower(), "caution");
  }

  @Test
  void pathThatMakesNoSense() {
    Channel c = Channels.blower().withSensor(new TwoPointSensor(v(5), v(1), v(5), v(2), v(0)));
    assertThat(found(c, "path-problem").severity()).isEqualTo(Severity.STOP);
    assertThat(Analysis.of(c).findings()).hasSize(1);
    absent(Channels.blower().define(d -> d.withKind(QuantityKind.OTHER)), "path-problem");
  }
}
