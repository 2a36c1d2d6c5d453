package nocking.diagnosis;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Set;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.element.Signal;
import nocking.fault.Fault;
import nocking.fault.FaultCatalogue;
import nocking.fault.FaultyPath;
import nocking.fault.Subject;
import nocking.prior.FaultKind;
import nocking.prior.PriorWeights;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.sensor.Thermocouple;
import nocking.sensor.ThermocoupleType;
import nocking.stage.NonInvertingAmp;
import nocking.stage.PullUp;
import nocking.wiring.Meter;
import nocking.wiring.PairReading;
import nocking.wiring.Place;
import org.hipparchus.distribution.multivariate.MultivariateNormalDistribution;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The engine against Bayes' rule by brute force, and against what a technician would conclude. */
class DiagnosticianTest {
  private static final Place SENSOR = Place.of(Place.Kind.SIGNAL_AT_SENSOR);
  private static final Place RECEIVER = Place.of(Place.Kind.SIGNAL_AT_RECEIVER);
  private static final Place GROUND = Place.of(Place.Kind.GROUND_AT_SENSOR);
  private static final Place SUPPLY = Place.of(Place.Kind.SUPPLY_AT_SENSOR);

  private static Subject subject(Channel c) {
    return Analysis.of(c).wiring().subject().orElseThrow();
  }

  /** These kinds alone; that nothing is wrong cannot be left out, but it can be next to nothing. */
  private static PriorWeights only(FaultKind... kinds) {
    var map = new EnumMap<FaultKind, Double>(FaultKind.class);
    for (FaultKind k : FaultKind.values()) map.put(k, k == FaultKind.NONE ? 1e-300 : 0.0);
    for (FaultKind k : kinds) map.put(k, k.prior());
    return new PriorWeights(Meter.HAND_HELD, map);
  }

  private static List<Explanation> weighed(Ranking r, FaultKind... kinds) {
    List<FaultKind> asked = List.of(kinds);
    return r.explanations().stream().filter(e -> asked.contains(e.fault().kind())).toList();
  }

  private static Channel thermistor() {
    var rows =
        List.of(
            new TablePoint(v(0), v(32650)),
            new TablePoint(v(12), v(18050)),
            new TablePoint(v(25), v(10000)),
            new TablePoint(v(40), v(5330)));
    return Channels.incubator()
        .define(d -> d.withRange(v(0), v(25)).withTolerance(v(0.4)))
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

  /**
   * Posterior odds of four kinds by adding up the likelihood at 4 000 degrees, each solved as a
   * circuit, with the covariance written out and Hipparchus' density.
   */
  @Test
  void ranksAsBayesRuleDoesByBruteForce() {
    Subject s = subject(Channels.blower());
    FaultKind[] kinds = {
      FaultKind.GROUND_OFFSET, FaultKind.SENSOR_OFFSET, FaultKind.SENSOR_DRIFT, FaultKind.SUPPLY_LOW
    };
    List<MeasuredValue> seen =
        List.of(
            MeasuredValue.of(SENSOR, 30, 1.71),
            MeasuredValue.of(RECEIVER, 30, 1.712),
            MeasuredValue.of(GROUND, 30, 0.0018));
    Ranking r = Diagnostician.of(s, only(kinds)).rank(seen);
    var weights = new EnumMap<FaultKind, Double>(FaultKind.class);
    double total = 0;
    for (FaultKind k : kinds) {
      double w = k.prior() * evidence(s, k, seen);
      weights.put(k, w);
      total += w;
    }
    for (Explanation e : weighed(r, kinds)) {
      assertThat(e.probability())
          .as(e.fault().says())
          .isCloseTo(weights.get(e.fault().kind()) / total, within(0.02));
    }
  }

  private static double evidence(Subject s, FaultKind kind, List<MeasuredValue> seen) {
    Fault prototype =
        FaultCatalogue.of(s).stream().filter(f -> f.kind() == kind).findFirst().orElseThrow();
    double nudge = s.channel().definition().tolerance().number() / 3;
    int steps = 4000;
    double sum = 0;
    for (int i = 0; i <= steps; i++) {
      Fault f = prototype.withSeverity(kind.severity((double) i / steps));
      int n = seen.size();
      var mean = new double[n];
      var slope = new double[n];
      var fedMore = new double[n];
      var covariance = new double[n][n];
      var values = new double[n];
      for (int k = 0; k < n; k++) {
        MeasuredValue o = seen.get(k);
        mean[k] = read(s, f, o.place(), o.at());
        slope[k] = read(s, f, o.place(), o.at() + nudge) - mean[k];
        // A sound supply is anywhere within 5 %; a low one says itself how low it is.
        fedMore[k] =
            kind == FaultKind.SUPPLY_LOW
                ? 0
                : FaultyPath.onRail(s, f, o.at(), 1 + 0.05 / Math.sqrt(3))
                        .read(o.place(), Meter.HAND_HELD.inputResistance())
                        .value()
                    - mean[k];
        values[k] = o.value();
      }
      for (int a = 0; a < n; a++) {
        double floor = seen.get(a).place().equals(GROUND) ? 1e-3 : 2e-3;
        double sigma = Math.hypot(floor, Meter.HAND_HELD.uncertainty(mean[a], seen.get(a).place()));
        for (int b = 0; b < n; b++) {
          covariance[a][b] =
              slope[a] * slope[b] + fedMore[a] * fedMore[b] + (a == b ? sigma * sigma : 0);
        }
      }
      sum += new MultivariateNormalDistribution(mean, covariance).density(values);
    }
    return sum / steps;
  }

  private static double read(Subject s, Fault f, Place place, double x) {
    return FaultyPath.of(s, f, x).read(place, Meter.HAND_HELD.inputResistance()).value();
  }

  /** 60 mV are less than the sensor may be off, but not between the two ends of one wire. */
  @Test
  void bothEndsTellWhatOneEndCannot() {
    Channel loose = Channels.blower().define(d -> d.withTolerance(v(3)));
    var engine = Diagnostician.of(subject(loose), PriorWeights.USUAL);
    double at = 30;
    Ranking one = engine.rank(List.of(MeasuredValue.of(RECEIVER, at, 1.72)));
    assertThat(one.of(Fault.NONE).orElseThrow().probability()).isGreaterThan(0.05);
    Ranking both =
        engine.rank(
            List.of(MeasuredValue.of(RECEIVER, at, 1.72), MeasuredValue.of(SENSOR, at, 1.66)));
    assertThat(both.of(Fault.NONE).orElseThrow().probability()).isLessThan(1e-6);
    assertThat(both.best().fault().kind())
        .as(both.leading(5).toString())
        .isIn(FaultKind.GROUND_OFFSET, FaultKind.GROUND_LEAD);
  }

  /** 18.05 kΩ ∥ 18 kΩ is what a meter of 20 kΩ is loaded with: its reading is the divider's. */
  @Test
  void meterLoadsWhatItMeasures() {
    Subject s = subject(thermistor());
    var poor = Diagnostician.of(s, PriorWeights.USUAL.withMeter(new Meter(0.5, 2, 6000, 20e3)));
    double sensor = 18050.0 * 20e3 / (18050 + 20e3);
    assertThat(poor.reading(Fault.NONE, RECEIVER, 12))
        .isCloseTo(3.3 * sensor / (sensor + 18e3), within(1e-6));
    var good = Diagnostician.of(s, PriorWeights.USUAL);
    assertThat(good.reading(Fault.NONE, RECEIVER, 12)).isCloseTo(3.3 * 18050 / 36050, within(2e-3));
  }

  /** With the wire off the display may say anything, but a meter pulls the input to ground. */
  @Test
  void floatingInputIsAnythingOnTheDisplayAndNothingOnTheMeter() {
    Channel c =
        Channels.incubator()
            .define(d -> d.withRange(v(0), v(40)).withTolerance(v(0.5)))
            .design(
                d ->
                    d.withStages(
                        List.of(new NonInvertingAmp(v(20e3), v(10e3), v(0), v(0), v(3.3)))))
            .wiring(w -> w.withPlan(Channels.incubator().wiring().plan().withSupply(v(5))));
    Subject s = subject(c);
    Fault open =
        FaultCatalogue.of(s).stream()
            .filter(f -> f.kind() == FaultKind.SIGNAL_OPEN)
            .findFirst()
            .orElseThrow();
    var engine = Diagnostician.of(s, PriorWeights.USUAL);
    assertThat(engine.reading(open, Place.DISPLAY, 20)).isNaN();
    assertThat(engine.reading(open, RECEIVER, 20)).isCloseTo(0, within(1e-9));
    Ranking r =
        engine.rank(
            List.of(
                MeasuredValue.of(Place.DISPLAY, 20, 31.7),
                MeasuredValue.of(RECEIVER, 20, 0),
                MeasuredValue.of(SENSOR, 20, 0.75)));
    assertThat(r.best().fault().same(open)).isTrue();
  }

  @Test
  void openSensorIsFoundWithoutKnowingTheInput() {
    var engine = Diagnostician.of(subject(thermistor()), PriorWeights.USUAL);
    Ranking r =
        engine.rank(
            List.of(
                MeasuredValue.of(Place.of(Place.Kind.OHMS_AT_SENSOR), Double.NaN, PairReading.OPEN),
                MeasuredValue.of(RECEIVER, Double.NaN, 3.3)));
    assertThat(r.best().fault().name()).isEqualTo("sensor element open");
    // 18.05 kΩ may stand anywhere in the range: nothing is wrong with that.
    Ranking sound =
        engine.rank(
            List.of(
                MeasuredValue.of(Place.of(Place.Kind.OHMS_AT_SENSOR), Double.NaN, 18050),
                MeasuredValue.of(RECEIVER, Double.NaN, 1.652)));
    assertThat(sound.best().fault()).isEqualTo(Fault.NONE);
  }

  @Test
  void soundChannelIsCalledSound() {
    var engine = Diagnostician.of(subject(Channels.blower()), PriorWeights.USUAL);
    Ranking r =
        engine.rank(
            List.of(
                new MeasuredValue(Place.DISPLAY, 30, 30.0, 0.1),
                MeasuredValue.of(RECEIVER, 30, 1.659),
                MeasuredValue.of(SUPPLY, 30, 5.0)));
    assertThat(r.best().fault()).isEqualTo(Fault.NONE);
    assertThat(r.noneFits()).isFalse();
  }

  /** A thermocouple without its cold junction reads low by about the room's temperature. */
  @Test
  void coldJunctionLeftOutIsRecognised() {
    Channel c =
        Channel.blank("t", "T-1")
            .define(
                d ->
                    d.withKind(QuantityKind.TEMPERATURE)
                        .withRange(v(0), v(400))
                        .withTolerance(v(2)))
            .design(
                d ->
                    d.withSensor(new Thermocouple(ThermocoupleType.K, v(23), v(0)))
                        .withStages(
                            List.of(new NonInvertingAmp(v(100e3), v(1e3), v(0), v(0), v(3.3)))));
    Subject s = subject(c);
    var engine = Diagnostician.of(s, PriorWeights.USUAL);
    double reads = engine.reading(cold(s), Place.DISPLAY, 200);
    assertThat(reads).isBetween(174.0, 180.0);
    Ranking r =
        engine.rank(
            List.of(
                new MeasuredValue(Place.DISPLAY, 200, Math.rint(reads), 1),
                MeasuredValue.of(RECEIVER, 200, engine.reading(Fault.NONE, RECEIVER, 200))));
    assertThat(r.best().fault().kind()).isEqualTo(FaultKind.COLD_JUNCTION);
  }

  private static Fault cold(Subject s) {
    return FaultCatalogue.of(s).stream()
        .filter(f -> f.kind() == FaultKind.COLD_JUNCTION)
        .findFirst()
        .orElseThrow();
  }

  @Test
  void kindThatIsRuledOutIsNotWeighed() {
    var engine =
        Diagnostician.of(
            subject(Channels.blower()), PriorWeights.USUAL.withWeight(FaultKind.GROUND_OFFSET, 0));
    assertThat(engine.rank(List.of()).explanations())
        .noneMatch(e -> e.fault().kind() == FaultKind.GROUND_OFFSET);
  }

  /** Before anything is seen each kind has its prior share. */
  @Test
  void nothingSeenLeavesThePriors() {
    FaultKind[] kinds = {FaultKind.SIGNAL_OPEN, FaultKind.SWAPPED, FaultKind.GROUND_OFFSET};
    var engine = Diagnostician.of(subject(Channels.blower()), only(kinds));
    Ranking r = engine.rank(List.of());
    double all = 3 + 1 + 3;
    for (Explanation e : weighed(r, kinds)) {
      assertThat(e.probability()).isCloseTo(e.fault().kind().prior() / all, within(0.03));
    }
  }

  /**
   * What is measured by advice leaves less doubt, on the mean over many hidden faults; twins that
   * nothing tells apart keep theirs.
   */
  @Test
  void adviceLessensTheDoubt() {
    Subject s = subject(Channels.blower());
    double before = 0;
    double after = 0;
    for (long seed = 0; seed < 30; seed++) {
      Exercise e =
          Exercise.hide(s, Meter.HAND_HELD, 1, Exercise.Difficulty.HARD, seed).orElseThrow();
      var engine = Diagnostician.of(s, PriorWeights.USUAL);
      Ranking r = engine.rank(e.seen());
      NextMeasurement next = engine.next(r).orElse(null);
      if (next == null) continue;
      before += entropy(r);
      e.measure(next.place(), next.at());
      after += entropy(engine.rank(e.seen()));
    }
    assertThat(after).isLessThan(0.9 * before);
  }

  private static double entropy(Ranking r) {
    return r.explanations().stream()
        .mapToDouble(Explanation::probability)
        .filter(p -> p > 0)
        .map(p -> -p * Math.log(p))
        .sum();
  }

  /** Every node is a ratio of straight lines in one resistor, so three solved degrees give all. */
  @ParameterizedTest
  @ValueSource(doubles = {0.25, 0.6, 0.95, 1.7, 4})
  void degreesBetweenAreReadFromThree(double factor) {
    Subject s = subject(Channels.blower());
    Fault drift =
        FaultCatalogue.of(s).stream()
            .filter(f -> f.kind() == FaultKind.PART_DRIFT && f.part().equals("R2"))
            .findFirst()
            .orElseThrow();
    double[] at = {0.2, 1, 5};
    double[] volts = new double[3];
    for (int i = 0; i < 3; i++) volts[i] = out(s, drift.withSeverity(at[i]));
    Moebius m = Moebius.through(at[0], volts[0], at[1], volts[1], at[2], volts[2], at[0], at[2]);
    assertThat(m.at(factor)).isCloseTo(out(s, drift.withSeverity(factor)), within(1e-9));
  }

  private static double out(Subject s, Fault f) {
    return FaultyPath.of(s, f, 30).converter().value();
  }

  @Test
  void handHeldMeterIsAsGoodAsItsLeaflet() {
    Meter m = Meter.HAND_HELD;
    assertThat(m.resolution(0.4, RECEIVER)).isCloseTo(1e-4, within(1e-12));
    assertThat(m.resolution(4.48, RECEIVER)).isCloseTo(1e-3, within(1e-12));
    // A third of 0.5 % of 4.48 V and two digits of 1 mV, and the last digit's own rounding.
    double limit = 0.005 * 4.48 + 0.002;
    assertThat(m.uncertainty(4.48, RECEIVER))
        .isCloseTo(Math.hypot(limit / 3, 1e-3 / Math.sqrt(12)), within(1e-9));
    assertThat(m.shown(4.48037, RECEIVER)).isCloseTo(4.48, within(1e-9));
  }

  @Test
  void exerciseIsTheSameForTheSameSeedAndCountsWhatIsMeasured() {
    Subject s = subject(Channels.blower());
    var shown = new ArrayList<List<MeasuredValue>>();
    for (int i = 0; i < 2; i++) {
      Exercise e =
          Exercise.hide(s, Meter.HAND_HELD, 1, Exercise.Difficulty.MEDIUM, 11).orElseThrow();
      e.measure(RECEIVER, 30);
      e.measure(RECEIVER, 30);
      assertThat(e.measurements()).isEqualTo(2);
      shown.add(e.seen());
    }
    assertThat(shown.get(0)).isEqualTo(shown.get(1));
  }

  @Test
  void levelsHideWhatTheySay() {
    Subject s = subject(Channels.blower());
    for (long seed = 0; seed < 40; seed++) {
      Fault easy =
          Exercise.hide(s, Meter.HAND_HELD, 1, Exercise.Difficulty.EASY, seed)
              .orElseThrow()
              .hidden();
      assertThat(easy.kind().graded()).isFalse();
      assertThat(easy.kind().family()).isIn(Set.of(FaultKind.Family.WIRE, FaultKind.Family.PART));
    }
  }

  /** A short to ground and an open supply wire of a stiff sensor: naming the twin is right. */
  @Test
  void twinThatNoMeasurementTellsCounts() {
    Subject s = subject(Channels.blower());
    Fault hidden = named(s, "R1 of the divider open");
    Exercise e = Exercise.of(s, Meter.HAND_HELD, 1, hidden, 30, 5);
    var engine = Diagnostician.of(s, PriorWeights.USUAL);
    assertThat(e.right(hidden, engine)).isTrue();
    assertThat(e.right(named(s, "R2 of the divider short"), engine)).isTrue();
    assertThat(e.right(named(s, "supply wire open"), engine)).isFalse();
    assertThat(e.plan(engine)).hasSizeBetween(1, 4);
  }

  private static Fault named(Subject s, String name) {
    return FaultCatalogue.of(s).stream()
        .filter(f -> f.name().equals(name))
        .findFirst()
        .orElseThrow(() -> new AssertionError(name));
  }
}
