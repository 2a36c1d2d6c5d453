package nocking.finding;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.CardRef;
import nocking.channel.Channel;
import nocking.channel.Hazard;
import nocking.channel.QuantityKind;
import nocking.channel.SensorCard;
import nocking.channel.Surroundings;
import nocking.check.CheckPoint;
import nocking.check.CheckTable;
import nocking.converter.Converter;
import nocking.element.Element;
import nocking.element.Signal;
import nocking.points.ReferencePoint;
import nocking.quantity.Spread;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.AcVoltage;
import nocking.sensor.CurrentLoop;
import nocking.sensor.LinearSensor;
import nocking.sensor.NtcBeta;
import nocking.sensor.PlatinumRtd;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.Sensor;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.sensor.TwoPointSensor;
import nocking.stage.BridgeRectifier;
import nocking.stage.DifferenceAmp;
import nocking.stage.Divider;
import nocking.stage.PullUp;
import nocking.stage.Shunt;
import nocking.stage.WheatstoneBridge;
import nocking.wiring.Pin;
import nocking.wiring.WirePlan;
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
    return Channels.incubator().calibration(k -> k.withPoints(Channels.points(ELEVEN, truth)));
  }

  private static double design(double celsius) {
    return Analysis.of(Channels.incubator()).design().path().orElseThrow().output(celsius);
  }

  private static double blower(double kPa) {
    return Analysis.of(Channels.blower()).design().path().orElseThrow().output(kPa);
  }

  private static Channel amp(double feedback, double offset) {
    return Channels.incubator()
        .design(
            d ->
                d.withStages(
                    List.of(
                        new DifferenceAmp(
                            v(feedback), v(10e3), v(offset), v(1.65), v(0), v(3.3)))));
  }

  @Test
  void soundChannelHasNoFindings() {
    Channel c = incubator(RuleTest::design);
    Channel settled = found(c, "fault-limits").fix().orElseThrow().apply().apply(c);
    assertThat(Analysis.of(settled).findings()).isEmpty();
  }

  @Test
  void railClip() {
    Channel faulty = amp(210e3, 0.53);
    Finding f = found(faulty, "rail-clip");
    assertThat(f.severity()).isEqualTo(Severity.STOP);
    assertThat(f.headline()).isEqualTo("Output works only between 5.07 °C and 12.93 °C");
    assertThat(f.item()).isZero();
    mends(faulty, "rail-clip");
    absent(Channels.incubator(), "rail-clip");
  }

  @Test
  void converterOverItsRange() {
    Channel faulty = Channels.blower().design(d -> d.withStages(List.of()));
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
    Channel same = Channels.blower().design(d -> d.withConverter(Converter.of(12, 5)));
    Finding asked = found(same, "fixed-reference");
    assertThat(asked.headline()).isEqualTo("Is the 5.00 V supply the converter's reference?");
    absent(asked.fix().orElseThrow().apply().apply(same), "fixed-reference");
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
        Channels.blower()
            .design(d -> d.withSensor(soft).withStages(List.of(new Divider(v(5.1e3), v(10e3)))));
    assertThat(found(faulty, "loading").headline()).isEqualTo("Loading moves TP1 by 7.6 %");
    absent(Channels.blower(), "loading");
  }

  @Test
  void appliedValuesInAnotherUnit() {
    double psi = Unit.of("psi").factor() / 1000;
    Channel faulty =
        Channels.blower()
            .calibration(
                k ->
                    k.withPoints(
                        Channels.points(new double[] {0, 2, 4, 6, 8}, x -> blower(psi * x))));
    assertThat(found(faulty, "unit-slip").headline()).isEqualTo("Applied values look like psi");
    mends(faulty, "unit-slip");
    Value taken =
        found(faulty, "unit-slip")
            .fix()
            .orElseThrow()
            .apply()
            .apply(faulty)
            .calibration()
            .points()
            .points()
            .get(1)
            .applied();
    assertThat(taken.typed()).isEqualTo("2 psi");
    assertThat(taken.number()).isCloseTo(13.79, within(0.01));
    absent(
        Channels.blower().calibration(k -> k.withPoints(Channels.points(SEVEN, RuleTest::blower))),
        "unit-slip");
  }

  @Test
  void gaugeForAbsolute() {
    Channel faulty =
        Channels.blower()
            .define(d -> d.withRange(v(0), v(60)))
            .design(d -> d.withSensor(new TwoPointSensor(v(0), v(0.4), v(250), v(4.6), v(0))));
    DoubleUnaryOperator absolute = x -> (0.4 + 4.2 / 250 * (x + 100.6)) * 10 / 15.1;
    faulty = faulty.calibration(k -> k.withPoints(Channels.points(SEVEN, absolute)));
    assertThat(found(faulty, "gauge-absolute").headline()).isEqualTo("Gauge or absolute?");
    mends(faulty, "gauge-absolute");
    absent(
        Channels.blower().calibration(k -> k.withPoints(Channels.points(SEVEN, RuleTest::blower))),
        "gauge-absolute");
  }

  @Test
  void decimalSlipOfOneReading() {
    for (double factor : new double[] {10, 0.1, 1000, 0.001}) {
      Channel sound =
          Channels.blower()
              .calibration(k -> k.withPoints(Channels.points(SEVEN, RuleTest::blower)));
      ReferencePoint p = sound.calibration().points().points().get(4);
      Channel faulty =
          sound.calibration(
              k ->
                  k.withPoints(
                      sound
                          .calibration()
                          .points()
                          .with(4, p.withReadings(List.of(v(p.mean() * factor))))));
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
                    c.calibration(
                        k ->
                            k.withPoints(
                                Channels.points(new double[] {4, 6, 9}, RuleTest::design))),
                    "coverage")
                .headline())
        .isEqualTo("No point in the upper third");
    assertThat(
            found(
                    c.calibration(
                        k -> k.withPoints(Channels.points(new double[] {4, 14}, RuleTest::design))),
                    "coverage")
                .headline())
        .isEqualTo("No point in the middle third");
    absent(incubator(RuleTest::design), "coverage");
    // Four equal steps stand on the borders of the middle third.
    double[] four = {4, 7.33, 10.67, 14};
    absent(c.calibration(k -> k.withPoints(Channels.points(four, RuleTest::design))), "coverage");
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
    Channel faulty = Analysis.of(bowed).calibration().adopting("ends");
    assertThat(found(faulty, "mid-span").headline()).isEqualTo("The two-point line leaves 0.37 °C");
    assertThat(found(faulty, "mid-span").severity()).isEqualTo(Severity.WARNING);
    mends(faulty, "mid-span");
    absent(Analysis.of(incubator(RuleTest::design)).calibration().adopting("ends"), "mid-span");
  }

  @Test
  void pointsThatChangedAfterAdoption() {
    Channel adopted = Analysis.of(incubator(RuleTest::design)).calibration().adopting("line");
    absent(adopted, "stale-adoption");
    Channel faulty =
        adopted.calibration(k -> k.withPoints(Channels.points(ELEVEN, x -> design(x) + 0.03)));
    assertThat(found(faulty, "stale-adoption").detail())
        .isEqualTo("Fitted anew it would read up to 0.11 °C different.");
    mends(faulty, "stale-adoption");
  }

  @Test
  void checkThatFails() {
    Channel c =
        Channels.incubator()
            .acceptance(
                a ->
                    a.withCheck(
                        new CheckTable(
                            CheckTable.Measured.READING,
                            List.of(
                                new CheckPoint(v(4), v(4.05)), new CheckPoint(v(14), v(14.13))))));
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
    Channel c =
        Channels.blower()
            .design(d -> d.withSensor(new TwoPointSensor(v(5), v(1), v(5), v(2), v(0))));
    assertThat(found(c, "path-problem").severity()).isEqualTo(Severity.STOP);
    assertThat(Analysis.of(c).findings()).hasSize(1);
    absent(Channels.blower().define(d -> d.withKind(QuantityKind.OTHER)), "path-problem");
  }

  /** A resistance cannot go to the converter; the fix puts a pull-up to the reference in front. */
  @Test
  void resistanceWithoutItsPullUp() {
    Channel c = thermistor().design(d -> d.withStages(List.of()));
    Finding f = found(c, "path-problem");
    assertThat(f.detail()).contains("insert a pull-up, a pull-down or a bridge");
    Channel mended = f.fix().orElseThrow().apply().apply(c);
    absent(mended, "path-problem");
    assertThat(mended.design().stages().getFirst().number("Vs")).isEqualTo(3.3);
    Channel loop = tank(150).design(d -> d.withStages(List.of()));
    mends(loop, "path-problem");
  }

  @Test
  void workingRangeBeyondWhatTheTableKnows() {
    var table =
        new TableSensor(
            List.of(TablePoint.of(0, 1), TablePoint.of(50, 2), TablePoint.of(80, 3)),
            TableSensor.Interpolation.LINEAR,
            Signal.VOLTAGE,
            v(0));
    Channel c =
        Channels.incubator()
            .define(d -> d.withRange(v(0), v(100)).withPivot(null))
            .design(d -> d.withStages(List.of()).withSensor(table));
    assertThat(found(c, "path-problem").fix().orElseThrow().label())
        .isEqualTo("Stay inside 0 … 80");
    mends(c, "path-problem");
  }

  private static Channel thermistor() {
    return Channels.incubator()
        .define(d -> d.withRange(v(0), v(40)).withPivot(null))
        .design(
            d ->
                d.withSensor(new NtcBeta(v(10e3), v(25), v(3950), v(-40), v(125), v(2)))
                    .withStages(List.of(new PullUp(v(3.3), v(10e3)))));
  }

  @Test
  void thermistorThatWarmsItself() {
    Channel hot = thermistor().design(d -> d.withStages(List.of(new PullUp(v(3.3), v(1e3)))));
    Finding f = found(hot, "self-heating");
    assertThat(f.severity()).isEqualTo(Severity.WARNING);
    // At 40 °C 5.3 kΩ take (3.3·5.3/6.3)²/5.3k = 1.45 mW: 0.7 K at 2 mW/K.
    assertThat(f.headline()).startsWith("The sensor warms itself by ");
    absent(
        thermistor().design(d -> d.withStages(List.of(new PullUp(v(3.3), v(220e3))))),
        "self-heating");
  }

  /**
   * A platinum element in a bridge is warmed by half of the excitation, as by any other circuit.
   */
  @Test
  void anElementInABridgeWarmsItself() {
    var element =
        new PlatinumRtd(v(100), PlatinumRtd.ToleranceClass.A, PlatinumRtd.Wires.FOUR, v(0), v(5));
    var bridge = new WheatstoneBridge(WheatstoneBridge.Arms.QUARTER, v(5), v(100), v(100), v(100));
    Channel c =
        Channels.incubator()
            .define(d -> d.withRange(v(0), v(50)).withPivot(null).withTolerance(v(0.5)))
            .design(d -> d.withSensor(element).withStages(List.of(bridge)));
    // At 0 °C 100 Ω beside 100 Ω at 5 V: (2.5 V)²/100 Ω = 62.5 mW, 12.5 K at 5 mW/K.
    Finding f = found(c, "self-heating");
    assertThat(f.headline()).matches("The sensor warms itself by 1[23] K");
    var gentle =
        new WheatstoneBridge(WheatstoneBridge.Arms.QUARTER, v(0.2), v(100), v(100), v(100));
    absent(c.design(d -> d.withStages(List.of(gentle))), "self-heating");
  }

  /** A loop that falls as the quantity rises hides its failure as well as one that rises. */
  @Test
  void aReverseLoopHidesItsFailureToo() {
    for (boolean reverse : new boolean[] {false, true}) {
      Channel c = tank(160);
      var loop = (CurrentLoop) c.design().sensor();
      var turned = new CurrentLoop(loop.low(), loop.high(), loop.highCurrent(), loop.lowCurrent());
      Channel channel = reverse ? c.design(d -> d.withSensor(turned)) : c;
      assertThat(found(channel, "loop-failure").headline())
          .isEqualTo("A failure signal looks like full scale");
      mends(channel, "loop-failure");
    }
  }

  /** The numbers that a form begins with are nobody's rating; those of a card, or typed, are. */
  @Test
  void anExampleIsNoRating() {
    for (Sensor begun : Sensor.models()) {
      if (begun.ratedByStandard()) continue;
      Channel c =
          Channels.blower()
              .define(d -> d.withUnit("L").withKind(QuantityKind.VOLUME))
              .define(d -> d.withRange(v(0), v(5000)))
              .design(d -> d.withSensor(begun).withStages(List.of()));
      absent(c, "outside-rated");
    }
    Channel wide = Channels.blower().define(d -> d.withRange(v(0), v(5000)));
    var typed = new TwoPointSensor(v(0), v(0.5), v(90), v(4.5), v(0));
    found(wide.design(d -> d.withSensor(typed)), "outside-rated");
    var begun = new TwoPointSensor(v(0), v(0.5), v(100), v(4.5), v(0));
    absent(wide.design(d -> d.withSensor(begun)), "outside-rated");
    found(
        wide.design(d -> d.withSensor(begun).withCard(new CardRef("card", "P100", 1))),
        "outside-rated");
  }

  private static Channel tank(double burden) {
    return Channels.blower()
        .define(d -> d.withKind(QuantityKind.LEVEL).withUnit("m").withRange(v(0), v(4)))
        .design(
            d ->
                d.withSensor(new CurrentLoop(v(0), v(4), v(0.004), v(0.02)))
                    .withStages(List.of(new Shunt(v(burden), v(24), v(12), v(40)))));
  }

  @Test
  void loopWithoutVoltsForItsTransmitter() {
    Finding f = found(tank(600).design(d -> d.withConverter(Converter.of(12, 15))), "loop-budget");
    assertThat(f.headline()).isEqualTo("The loop leaves 10.6 V for the transmitter");
    absent(tank(150), "loop-budget");
  }

  @Test
  void failureSignalThatLooksLikeFullScale() {
    assertThat(found(tank(160), "loop-failure").detail()).contains("3.36 V of 3.3 V");
    mends(tank(160), "loop-failure");
    absent(tank(150), "loop-failure");
  }

  private static Channel mains(AcVoltage.Isolation isolation, String upper) {
    var sine = AcVoltage.sine(1, 300);
    return Channels.blower()
        .define(
            d ->
                d.withKind(QuantityKind.VOLTAGE)
                    .withUnit("V")
                    .withRange(v(0), v(260))
                    .withTolerance(null)
                    .withHazards(List.of(Hazard.MAINS)))
        .design(
            d ->
                d.withSensor(Element.choose(sine, "isolation", isolation))
                    .withStages(
                        List.of(
                            new BridgeRectifier(v(0.8), v(1e-6), v(50), null),
                            new Divider(Value.typed(upper, Unit.OHM), v(13e3)))));
  }

  @Test
  void mainsWithoutIsolationOrCaution() {
    Channel sound = mains(AcVoltage.Isolation.ISOLATED, "4*390k");
    Channel bare = mains(AcVoltage.Isolation.NONE, "4*390k");
    assertThat(found(bare, "mains-bare").severity()).isEqualTo(Severity.STOP);
    mends(bare, "mains-bare");
    absent(sound, "mains-bare");
    Channel unmarked = sound.define(d -> d.withHazards(List.of()));
    mends(unmarked, "mains-unmarked");
    absent(sound, "mains-unmarked");
    assertThat(found(sound, "stored-charge").severity()).isEqualTo(Severity.CAUTION);
    absent(Channels.blower(), "stored-charge");
  }

  /** 365 V across one part rated 250 V; as four of 390 kΩ each takes a quarter. */
  @Test
  void voltageAcrossOnePart() {
    Channel one = mains(AcVoltage.Isolation.ISOLATED, "1M56");
    assertThat(found(one, "part-voltage").headline()).isEqualTo("362 V across a part rated 250 V");
    mends(one, "part-voltage");
    absent(mains(AcVoltage.Isolation.ISOLATED, "4*390k"), "part-voltage");
    absent(mains(AcVoltage.Isolation.ISOLATED, "1M + 390k + 170k"), "part-power");
  }

  @Test
  void powerInOnePart() {
    Channel c = Channels.blower().design(d -> d.withStages(List.of(new Divider(v(5.1), v(10)))));
    assertThat(found(c, "part-power").headline()).isEqualTo("R2 dissipates 370 mW of 250 mW");
    absent(Channels.blower(), "part-power");
  }

  @Test
  void brokenGroundOnAnInputWithoutAClamp() {
    Channel direct =
        Channels.blower()
            .define(d -> d.withRange(v(0), v(40)))
            .design(d -> d.withStages(List.of()));
    assertThat(found(direct, "over-supply").headline())
        .isEqualTo("A broken ground puts 5.00 V on the converter");
    mends(direct, "over-supply");
    absent(Channels.blower(), "over-supply");
  }

  @Test
  void toleranceOfThePartsAgainstThatOfTheChannel() {
    var two = Spread.percent(2);
    Channel c =
        Channels.blower()
            .design(
                d ->
                    d.withStages(
                        List.of(new Divider(v(5.1e3).withSpread(two), v(10e3).withSpread(two)))));
    Finding f = found(c, "tolerance");
    assertThat(f.severity()).isEqualTo(Severity.ADVICE);
    assertThat(f.detail()).contains("a two-point calibration leaves ±");
    assertThat(f.item()).isZero();
    var drifting = two.withTemperatureCoefficient(1000);
    Channel hot =
        Channels.blower()
            .design(
                d ->
                    d.withSurroundings(Surroundings.of(v(-10), v(60), null))
                        .withStages(List.of(new Divider(v(5.1e3).withSpread(drifting), v(10e3)))));
    assertThat(found(hot, "tolerance").severity()).isEqualTo(Severity.WARNING);
    absent(Channels.blower(), "tolerance");
  }

  private static Optional<Finding> withCards(Channel c, String rule, SensorCard... cards) {
    return Analysis.of(c, List.of(cards)).findings().stream()
        .filter(f -> f.rule().equals(rule))
        .findFirst();
  }

  @Test
  void cardAndChannelThatSayDifferentThings() {
    var card =
        new SensorCard(
            "k",
            "Manifold",
            "datasheet",
            "2026-03-01",
            QuantityKind.PRESSURE,
            "kPa",
            Channels.blower().design().sensor(),
            1);
    Channel c = card.putInto(Channels.blower());
    for (String rule : List.of("card-changed", "card-departure", "card-gone")) {
      assertThat(withCards(c, rule, card)).isEmpty();
    }
    SensorCard later =
        card.withSensor(new RatiometricSensor(v(0), v(8), v(250), v(92), v(5), v(0)));
    assertThat(later.revision()).isEqualTo(2);
    Finding changed = withCards(c, "card-changed", later).orElseThrow();
    assertThat(changed.detail()).contains("Second point: the card has 250, the channel 100");
    Channel taken = changed.fix().orElseThrow().apply().apply(c);
    assertThat(withCards(taken, "card-changed", later)).isEmpty();
    Channel departed =
        c.design(d -> d.withSensor(new RatiometricSensor(v(0), v(9), v(100), v(92), v(5), v(0))));
    Finding departure = withCards(departed, "card-departure", card).orElseThrow();
    assertThat(departure.fix().orElseThrow().apply().apply(departed)).isEqualTo(c);
    SensorCard another =
        new SensorCard(
            "z",
            "Other",
            "",
            "",
            QuantityKind.PRESSURE,
            "kPa",
            Channels.blower().design().sensor(),
            1);
    assertThat(withCards(c, "card-gone", another)).isPresent();
  }

  @Test
  void restingVoltageOfAnAbsoluteSensor() {
    Channel gauge = Channels.blower().define(d -> d.withRange(v(0), v(100)).withRest(v(0)));
    double atmosphere = 0.4 + 4.2 * 1.01325;
    Channel absolute = measured(gauge, atmosphere);
    Finding f = found(absolute, "gauge-at-rest");
    assertThat(f.detail()).contains("4.66 V").contains("400 mV");
    mends(absolute, "gauge-at-rest");
    absent(measured(gauge, 0.41), "gauge-at-rest");
  }

  private static Channel measured(Channel c, double volts) {
    WirePlan plan = c.wiring().plan();
    for (int i = 0; i < plan.pins().size(); i++) {
      Pin p = plan.pins().get(i);
      if (p.function() == Pin.Function.SIGNAL) {
        plan = plan.with(i, p.withMeasured(v(volts)));
      }
    }
    return c.with(c.wiring().withPlan(plan));
  }

  /** A pull-up fed from another supply than the converter's reference. */
  @Test
  void pullUpOnAnotherSupply() {
    Channel c = thermistor().design(d -> d.withStages(List.of(new PullUp(v(5), v(10e3)))));
    assertThat(found(c, "fixed-reference").detail()).contains("5.00 V supply");
    Channel shared = thermistor();
    absent(shared.wiring(w -> w.withPlan(w.plan().withSharedReference(true))), "fixed-reference");
  }
}
