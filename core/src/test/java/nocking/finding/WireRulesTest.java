package nocking.finding;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.band.AlarmBand;
import nocking.band.BandPlan;
import nocking.band.BandPosition;
import nocking.band.SwitchPoint;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.channel.WorkStep;
import nocking.check.CheckPoint;
import nocking.check.CheckTable;
import nocking.check.Verdict;
import nocking.converter.Converter;
import nocking.element.Element;
import nocking.element.Signal;
import nocking.fault.FaultRow;
import nocking.prior.FaultKind;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.LinearSensor;
import nocking.sensor.Potentiometer;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.stage.NonInvertingAmp;
import nocking.stage.PullUp;
import nocking.stage.SeriesResistor;
import nocking.wiring.PairReading;
import nocking.wiring.Pin;
import nocking.wiring.Thresholds;
import nocking.wiring.WirePlan;
import org.junit.jupiter.api.Test;

/** What is said of wires, thresholds and bands, each with a sound twin. */
class WireRulesTest {

  private static Optional<Finding> finding(Channel c, String rule) {
    return Analysis.of(c).findings().stream().filter(f -> f.rule().equals(rule)).findFirst();
  }

  private static Finding found(Channel c, String rule) {
    return finding(c, rule).orElseThrow();
  }

  private static Channel mended(Channel c, String rule) {
    Channel next = found(c, rule).fix().orElseThrow().apply().apply(c);
    assertThat(finding(next, rule)).isEmpty();
    return next;
  }

  /** A sluice gate's potentiometer of 5 kΩ, 8 % to 92 % of 5 V, on an input that draws nothing. */
  private static Channel sluice(boolean backwards) {
    var p =
        new Potentiometer(
            v(0),
            v(100),
            v(backwards ? 0.92 : 0.08),
            v(backwards ? 0.08 : 0.92),
            v(5),
            v(5e3),
            v(0));
    return Channels.blower()
        .define(d -> d.withUnit("").withRange(v(0), v(100)).withTolerance(v(2)))
        .define(d -> d.withKind(QuantityKind.OTHER))
        .design(
            d ->
                d.withSensor(p)
                    .withStages(List.of(new SeriesResistor(v(1e3))))
                    .withConverter(Converter.of(12, 5)));
  }

  @Test
  void floatingInputIsCalledFloatingAndHeldByItsFix() {
    Channel floats = sluice(false);
    Finding f = found(floats, "floating-signal");
    assertThat(f.severity()).isEqualTo(Severity.WARNING);
    assertThat(f.step()).isEqualTo(WorkStep.WIRE);
    assertThat(f.fix().orElseThrow().label()).startsWith("Fit a pull-down of ");
    FaultRow open = open(floats);
    assertThat(open.floating()).isTrue();
    assertThat(open.volts().low()).isZero();
    assertThat(open.volts().high()).isEqualTo(5);
    Channel held = mended(floats, "floating-signal");
    assertThat(open(held).verdict()).isEqualTo(FaultRow.Verdict.TOLD);
    // The pull-down may not take more than a part of the tolerance.
    double bent =
        Analysis.of(held).design().path().orElseThrow().output(50)
            - Analysis.of(floats).design().path().orElseThrow().output(50);
    assertThat(Math.abs(bent)).isLessThan(0.5 * 0.042);
  }

  private static FaultRow open(Channel c) {
    return Analysis.of(c).wiring().brokenWires().orElseThrow().rows().stream()
        .filter(r -> r.fault().kind() == FaultKind.SIGNAL_OPEN)
        .findFirst()
        .orElseThrow();
  }

  /** The pull-down belongs in front of the amplifier whose input floats. */
  @Test
  void amplifierInputIsHeldInFrontOfTheAmplifier() {
    Channel c =
        Channels.incubator()
            .design(
                d ->
                    d.withSensor(new LinearSensor(v(0), v(0), v(0.02), v(0), v(50), v(0)))
                        .withStages(
                            List.of(new NonInvertingAmp(v(9e3), v(1e3), v(0), v(0), v(3.3)))));
    Channel held = mended(c, "floating-signal");
    assertThat(held.design().stages().getFirst().title()).isEqualTo("Input pull");
    assertThat(finding(Channels.blower(), "floating-signal")).isEmpty();
  }

  @Test
  void thresholdsAreProposedBetweenBrokenWiresAndGoodReadings() {
    Channel c = Channels.blower();
    assertThat(found(c, "fault-limits").headline())
        .isEqualTo("Broken wires are detectable below 0.1 V or above 2.6 V");
    Channel settled = mended(c, "fault-limits");
    assertThat(settled.wiring().plan().thresholds().low().number()).isEqualTo(0.1);
    assertThat(finding(settled, "fault-limits-cut")).isEmpty();
    Channel cuts =
        settled.wiring(w -> w.withPlan(w.plan().withThresholds(new Thresholds(v(0.4), v(2.5)))));
    assertThat(found(cuts, "fault-limits-cut").detail()).contains("below 0.4 V");
    mended(cuts, "fault-limits-cut");
  }

  /** A signal that begins at 0 V cannot be told from a shorted one; how much it needs is said. */
  @Test
  void liveZeroThatIsMissingIsSaid() {
    Channel c =
        Channels.blower()
            .design(d -> d.withSensor(new LinearSensor(v(0), v(0), v(0.04), v(0), v(100), v(0))));
    FaultRow shorted =
        Analysis.of(c).wiring().brokenWires().orElseThrow().rows().stream()
            .filter(r -> r.fault().kind() == FaultKind.SIGNAL_TO_GROUND)
            .findFirst()
            .orElseThrow();
    assertThat(shorted.verdict()).isNotEqualTo(FaultRow.Verdict.TOLD);
    assertThat(shorted.note()).startsWith("would be detectable if the signal stayed above");
  }

  @Test
  void checkBeyondTheThresholdsIsAFaultAndFails() {
    Channel c = mended(Channels.blower(), "fault-limits");
    Channel broken =
        c.acceptance(
            a ->
                a.withCheck(
                    new CheckTable(
                        CheckTable.Measured.VOLTS, List.of(new CheckPoint(v(0), v(0.002))))));
    assertThat(found(broken, "fault-reading").headline())
        .isEqualTo("The check at 0.0 kPa reads a fault");
    assertThat(Analysis.of(broken).acceptance().rows().getFirst().verdict())
        .isEqualTo(Verdict.FAIL);
    Channel sound =
        c.acceptance(
            a ->
                a.withCheck(
                    new CheckTable(
                        CheckTable.Measured.VOLTS, List.of(new CheckPoint(v(0), v(0.265))))));
    assertThat(finding(sound, "fault-reading")).isEmpty();
  }

  @Test
  void groundThatIsOffIsSaidInVoltsForEveryPoint() {
    Channel c = measured(Channels.blower(), Pin.Function.GROUND, 0.035);
    assertThat(found(c, "ground-offset").headline())
        .isEqualTo("Ground is 35 mV high at the receiver");
    assertThat(finding(measured(Channels.blower(), Pin.Function.GROUND, 0.002), "ground-offset"))
        .isEmpty();
    Channel low = measured(Channels.blower(), Pin.Function.SIGNAL, 0.28);
    assertThat(found(low, "pin-reading").headline())
        .isEqualTo("Signal is 120 mV low at the receiver");
    assertThat(finding(measured(Channels.blower(), Pin.Function.SIGNAL, 0.404), "pin-reading"))
        .isEmpty();
  }

  private static Channel measured(Channel c, Pin.Function f, double volts) {
    WirePlan plan = c.wiring().plan();
    int i = plan.indexOf(f);
    return c.wiring(w -> w.withPlan(plan.with(i, plan.pins().get(i).withMeasured(v(volts)))));
  }

  @Test
  void reversedSupplyStopsTheWork() {
    Channel c = measured(Channels.blower(), Pin.Function.SUPPLY, -4.98);
    assertThat(found(c, "polarity").severity()).isEqualTo(Severity.STOP);
    assertThat(finding(measured(Channels.blower(), Pin.Function.SUPPLY, 4.98), "polarity"))
        .isEmpty();
  }

  /** 25 m of 0.14 mm² copper have 3.07 Ω; half an ohm is left for contacts and leads. */
  @Test
  void wireThatIsNotThroughIsNamed() {
    Channel c = Channels.blower();
    assertThat(finding(through(c, 3.5), "continuity")).isEmpty();
    assertThat(found(through(c, 3.7), "continuity").headline())
        .isEqualTo("The signal wire has 3.7 Ω");
    assertThat(found(through(c, PairReading.OPEN), "continuity").headline())
        .isEqualTo("The signal wire has no continuity");
  }

  private static Channel through(Channel c, double ohms) {
    int i = c.wiring().plan().indexOf(Pin.Function.SIGNAL);
    Pin p = c.wiring().plan().pins().get(i).withLength(v(25)).withContinuity(v(ohms));
    return c.wiring(w -> w.withPlan(w.plan().with(i, p)));
  }

  @Test
  void shortBeforePowerStopsTheWork() {
    Channel c = sluice(false);
    WirePlan plan = c.wiring().plan();
    Finding f = found(c.wiring(w -> w.withPlan(plan.withPair(0, 1, v(2)))), "pins-before-power");
    assertThat(f.severity()).isEqualTo(Severity.STOP);
    assertThat(f.headline()).isEqualTo("Supply to ground reads 2.00 Ω before power");
    // The wiper at rest stands at 8 %: 400 Ω of 5 kΩ to ground.
    assertThat(
            finding(c.wiring(w -> w.withPlan(plan.withPair(0, 1, v(5.1e3)))), "pins-before-power"))
        .isEmpty();
    assertThat(finding(c.wiring(w -> w.withPlan(plan.withPair(1, 2, v(410)))), "pins-before-power"))
        .isEmpty();
    assertThat(
            finding(c.wiring(w -> w.withPlan(plan.withPair(1, 2, v(4.6e3)))), "pins-before-power"))
        .isPresent();
  }

  @Test
  void backwardsSignalIsRewiredOrKept() {
    Channel c = sluice(true);
    Finding f = found(c, "backwards");
    assertThat(f.detail()).contains("0.40 V to 4.60 V instead of 4.60 V to 0.40 V");
    Channel turned = mended(c, "backwards");
    assertThat(Analysis.of(turned).design().path().orElseThrow().output(0)).isLessThan(0.5);
    assertThat(
            Element.with(
                (Potentiometer) turned.design().sensor(),
                turned.design().sensor().field("ka"),
                v(0.08)))
        .isNotNull();
    assertThat(finding(sluice(false), "backwards")).isEmpty();
  }

  private static Channel thermistor(double unit) {
    var rows =
        List.of(
            new TablePoint(v(0), v(32.65 * unit)),
            new TablePoint(v(25), v(10 * unit)),
            new TablePoint(v(40), v(5.33 * unit)));
    return Channels.incubator()
        .define(d -> d.withRange(v(0), v(25)))
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
  void ohmsTypedForKiloOhmsAreNoticedByThePullUp() {
    Channel slipped = thermistor(1);
    assertThat(found(slipped, "prefix-slip").headline())
        .isEqualTo("Ohms where kilo-ohms were meant?");
    assertThat(mended(slipped, "prefix-slip").design().sensor())
        .isEqualTo(withTyped(thermistor(1000)));
    assertThat(found(thermistor(1e6), "prefix-slip").fix().orElseThrow().label())
        .isEqualTo("Take the table ÷1000");
    assertThat(finding(thermistor(1000), "prefix-slip")).isEmpty();
  }

  /** The same sensor with its resistances as the fix writes them. */
  private static TableSensor withTyped(Channel c) {
    var t = (TableSensor) c.design().sensor();
    var rows =
        t.points().stream()
            .map(p -> new TablePoint(p.at(), Value.typed(kilo(p.output().number()), Unit.OHM)))
            .toList();
    return new TableSensor(rows, t.interpolation(), t.signal(), t.sourceResistance());
  }

  private static String kilo(double ohms) {
    return Numbers.trimmed(ohms / 1000, 6) + "k";
  }

  private static BandPosition at(String name, double centre, Double half) {
    return new BandPosition(name, v(centre), half == null ? null : v(half), List.of(), List.of());
  }

  @Test
  void overlappingWindowsAreMendedByTheSuggestedOnes() {
    BandPlan plan =
        BandPlan.EMPTY.withPositions(
            List.of(at("drain", 0.5, 0.6), at("raceway", 1.5, 0.6), at("bypass", 2.5, 0.3)));
    Channel c = Channels.blower().wiring(w -> w.withBands(plan));
    assertThat(found(c, "bands").detail())
        .isEqualTo("The windows of drain and raceway overlap by 200 mV.");
    mended(c, "bands");
  }

  @Test
  void alarmBandsMustBeOrderedWithoutGapOrOverlap() {
    Channel c = Channels.blower();
    assertThat(finding(c.wiring(w -> w.withBands(alarms(20, 20, 40, 40))), "alarm-bands"))
        .isEmpty();
    assertThat(found(c.wiring(w -> w.withBands(alarms(20, 25, 40, 40))), "alarm-bands").detail())
        .isEqualTo("Between low and normal nothing is said from 20 kPa to 25 kPa.");
    assertThat(found(c.wiring(w -> w.withBands(alarms(20, 15, 40, 40))), "alarm-bands").detail())
        .isEqualTo("Low and normal overlap from 15 kPa to 20 kPa.");
    assertThat(found(c.wiring(w -> w.withBands(alarms(20, 20, 10, 10))), "alarm-bands").detail())
        .isEqualTo("Normal begins at 20 kPa and ends at 10 kPa.");
    Channel wide = c.wiring(w -> w.withBands(alarms(20, 20, 40, 40).withHysteresis(v(25))));
    assertThat(found(wide, "alarm-bands").detail())
        .startsWith("The hysteresis of 25 kPa is not smaller than normal");
  }

  private static BandPlan alarms(double underTo, double from, double to, double overFrom) {
    return BandPlan.EMPTY.withAlarms(
        List.of(
            new AlarmBand("low", null, v(underTo)),
            new AlarmBand("normal", v(from), v(to)),
            new AlarmBand("high", v(overFrom), null)));
  }

  @Test
  void switchIsHeldAgainstItsPlaceOnTheTravel() {
    Channel c = Channels.blower();
    assertThat(finding(c.wiring(w -> w.withBands(contact(30.5, 29.2))), "switch-place")).isEmpty();
    assertThat(found(c.wiring(w -> w.withBands(contact(30.5, 26.0))), "switch-place").detail())
        .isEqualTo(
            "On the way down contact changed at 26 kPa, 4 kPa from where it must; its window is ±1 kPa.");
  }

  private static BandPlan contact(double up, double down) {
    Value at = v(30);
    return BandPlan.EMPTY.withSwitches(
        List.of(new SwitchPoint("contact", at, v(1), v(up), v(down), false)));
  }
}
