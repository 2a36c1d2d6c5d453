package nocking.diagnosis;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.converter.Converter;
import nocking.fault.Fault;
import nocking.fault.FaultCatalogue;
import nocking.fault.FaultMatrix;
import nocking.fault.FaultRow;
import nocking.fault.FaultyPath;
import nocking.fault.NormalBand;
import nocking.fault.Subject;
import nocking.prior.FaultKind;
import nocking.prior.PriorWeights;
import nocking.quantity.Unit;
import nocking.sensor.LinearSensor;
import nocking.sensor.StrainBridge;
import nocking.stage.InputPull;
import nocking.stage.InstrumentationAmp;
import nocking.wiring.Observation;
import nocking.wiring.Place;
import nocking.wiring.Supplied;
import org.junit.jupiter.api.Test;

/** What the list of faults must hold, and what must not be excused. */
class OutsideTheListTest {
  private static final Place SENSOR = Place.of(Place.Kind.SIGNAL_AT_SENSOR);
  private static final Place RECEIVER = Place.of(Place.Kind.SIGNAL_AT_RECEIVER);
  private static final Place SUPPLY = Place.of(Place.Kind.SUPPLY_AT_RECEIVER);
  private static final Place GROUND = Place.of(Place.Kind.GROUND_AT_SENSOR);
  private static final Place TP2 = Place.testPoint(2);

  private static Subject subject(Channel c) {
    return Analysis.of(c).wiring().subject().orElseThrow();
  }

  private static Ranking rank(Channel c, MeasuredValue... seen) {
    return Diagnostician.of(subject(c), PriorWeights.USUAL).rank(List.of(seen));
  }

  private static MeasuredValue o(Place place, double at, double value) {
    return MeasuredValue.of(place, at, value);
  }

  private static MeasuredValue display(double at, double value) {
    return new MeasuredValue(Place.DISPLAY, at, value, 0.1);
  }

  private static Channel held() {
    Channel c = Channels.blower();
    return c.design(d -> d.insertStage(0, InputPull.toGround(v(470e3))));
  }

  /** 2 mV instead of nothing are leads and leakage. */
  @Test
  void aFewMillivoltsDoNotDefeatAnOpenWire() {
    Ranking r = rank(held(), o(RECEIVER, 30, 0.002), o(SENSOR, 30, 1.66), o(SUPPLY, 30, 5.0));
    assertThat(r.best().fault().kind()).isEqualTo(FaultKind.SIGNAL_OPEN);
    assertThat(r.best().fits()).isTrue();
  }

  @Test
  void aMisfitIsAMisfit() {
    Ranking r = rank(Channels.blower(), o(SENSOR, 30, 1.66), o(RECEIVER, 30, 1.66 - 0.333));
    for (Explanation e : r.explanations()) {
      if (e.expected().size() != 2 || e.fault().kind().loose()) continue;
      double off = Math.abs(e.expected().get(1) - (1.66 - 0.333));
      if (off > 0.1) assertThat(e.fits()).as(e.fault().says()).isFalse();
    }
    Ranking far =
        rank(Channels.blower(), o(TP2, 50, 0.60), o(RECEIVER, 50, 2.5), o(SENSOR, 50, 2.5));
    assertThat(far.of(Fault.NONE).orElseThrow().fits()).isFalse();
  }

  @Test
  void aSupplyThatIsDeadOrHigh() {
    Channel c = Channels.blower();
    Ranking dead = rank(c, display(30, -9.4), o(SUPPLY, 30, 0.003), o(RECEIVER, 30, 0.001));
    assertThat(dead.best().fault().kind()).isEqualTo(FaultKind.SUPPLY_DEAD);
    Ranking high = rank(c, o(SUPPLY, 30, 6.0), o(RECEIVER, 30, 1.992), display(30, 37.9));
    assertThat(high.best().fault().kind()).isEqualTo(FaultKind.SUPPLY_HIGH);
    assertThat(high.best().fault().severity()).isCloseTo(1.2, within(0.01));
  }

  @Test
  void aPartOfAnotherDecade() {
    // 510 Ω for 5.1 kΩ over 10 kΩ.
    double tp2 = 1.66 * 10e3 / 10.51e3;
    Ranking r = rank(Channels.blower(), o(RECEIVER, 30, 1.66), o(TP2, 30, tp2), o(SUPPLY, 30, 5.0));
    var engine = Diagnostician.of(subject(Channels.blower()), PriorWeights.USUAL);
    Fault decade =
        FaultCatalogue.of(subject(Channels.blower())).stream()
            .filter(f -> f.name().equals("R1 of the divider is ÷10"))
            .findFirst()
            .orElseThrow();
    Explanation own = r.of(decade).orElseThrow();
    assertThat(own.fits()).isTrue();
    assertThat(r.best().fault().same(decade) || engine.indistinguishable(r.best(), r).contains(own))
        .isTrue();
  }

  @Test
  void aMeterPrefixThatSlippedIsThoughtOf() {
    // 1.66 V written down as 1.66 mV; all else is sound.
    Ranking r =
        rank(
            Channels.blower(),
            display(30, 30.0),
            o(SENSOR, 30, 1.66),
            o(RECEIVER, 30, 0.00166),
            o(TP2, 30, 1.099));
    assertThat(r.best().fault().kind()).isEqualTo(FaultKind.METER_PREFIX);
  }

  @Test
  void aJumpingReadingSpeaksForABadContact() {
    Observation typed = Observation.typed(RECEIVER, v(30), "0.2 … 1.6 V, jumping", Unit.VOLT);
    assertThat(typed.jumping()).isTrue();
    assertThat(typed.value().number()).isEqualTo(0.2);
    assertThat(typed.until().number()).isEqualTo(1.6);
    Channel c = held();
    Ranking r =
        Diagnostician.of(subject(c), PriorWeights.USUAL)
            .rank(List.of(Diagnosis.observed(typed), o(SENSOR, 30, 1.66), o(SUPPLY, 30, 5)));
    assertThat(r.best().fault().kind()).isEqualTo(FaultKind.INTERMITTENT);
    assertThat(Observation.typed(RECEIVER, null, "4.36 V", Unit.VOLT).jumping()).isFalse();
    assertThat(Observation.typed(RECEIVER, null, "200 mV to 1.6 V", Unit.VOLT).value().number())
        .isEqualTo(0.2);
  }

  @Test
  void whatFitsNothingIsSomethingElse() {
    // The supply sags, yet the signal stands above it and the display says a third thing.
    Ranking r =
        rank(
            Channels.blower(),
            o(SUPPLY, 30, 3.1),
            o(SENSOR, 30, 2.9),
            o(RECEIVER, 30, 0.8),
            o(TP2, 30, 1.7),
            display(30, 12));
    assertThat(r.somethingElse() || r.noneFits()).isTrue();
    assertThat(r.best().listed() && r.best().probability() > 0.9).isFalse();
  }

  @Test
  void aSoundReadingEndsInNothingWrong() {
    Ranking r = rank(Channels.blower(), display(30, 30.1));
    assertThat(r.nothingWrong(0.5)).isTrue();
    assertThat(rank(Channels.blower(), display(30, 34)).nothingWrong(0.5)).isFalse();
  }

  /** A sound sensor on a supply that is 5 % high is no fault. */
  @Test
  void theSuppliesToleranceBelongsToTheNormalBand() {
    Subject s = subject(Channels.blower());
    NormalBand band = FaultMatrix.of(s).band();
    double high = FaultyPath.onRail(s, Fault.NONE, 60, 1.05).converter().value();
    assertThat(band.volts().contains(high)).isTrue();
    Channel narrow =
        Channels.blower()
            .wiring(
                w ->
                    w.withPlan(
                        Channels.blower()
                            .wiring()
                            .plan()
                            .withSupplied(new Supplied(null, null, v(0.5)))));
    assertThat(FaultMatrix.of(subject(narrow)).band().volts().contains(high)).isFalse();
    Ranking r = rank(Channels.blower(), o(SUPPLY, 30, 5.24), o(RECEIVER, 30, 1.74));
    assertThat(r.of(Fault.NONE).orElseThrow().fits()).isTrue();
  }

  /** Two sources of the same number are two sources until the wiring says otherwise. */
  @Test
  void equalNumbersAreNotOneRail() {
    Channel c = Channels.blower().design(d -> d.withConverter(Converter.of(12, 5)));
    Fault low =
        FaultCatalogue.of(subject(c)).stream()
            .filter(f -> f.kind() == FaultKind.SUPPLY_LOW)
            .findFirst()
            .orElseThrow()
            .withSeverity(0.8);
    double sound = FaultyPath.of(subject(c), Fault.NONE, 30).converter().value();
    assertThat(FaultyPath.of(subject(c), low, 30).converter().value())
        .isCloseTo(0.8 * sound, within(1e-9));
    Channel shared = c.wiring(w -> w.withPlan(w.plan().withSharedReference(true)));
    assertThat(FaultyPath.of(subject(shared), low, 30).converter().value())
        .isCloseTo(sound, within(1e-9));
  }

  @Test
  void theVerdictOnAnOpenGroundHangsOnTheSupplyCurrent() {
    Channel c = held();
    FaultRow usual = row(c, FaultKind.GROUND_OPEN);
    assertThat(usual.note())
        .contains("5.0 mA of supply current")
        .contains("between 1.0 mA and 20 mA");
    Channel said =
        c.wiring(w -> w.withPlan(w.plan().withSupplied(new Supplied(v(0.012), null, null))));
    assertThat(row(said, FaultKind.GROUND_OPEN).note()).doesNotContain("supply current");
    assertThat(row(said, FaultKind.GROUND_OPEN).volts().high()).isGreaterThan(usual.volts().high());
  }

  private static FaultRow row(Channel c, FaultKind kind) {
    return FaultMatrix.of(subject(c)).rows().stream()
        .filter(r -> r.fault().kind() == kind)
        .findFirst()
        .orElseThrow();
  }

  /** Nothing between sensor and converter, and an input that draws nothing. */
  @Test
  void aBareInputFloatsWithItsWireOff() {
    Channel c =
        Channels.blower()
            .design(
                d ->
                    d.withSensor(new LinearSensor(v(0.3), v(0), v(0.02), v(0), v(100), v(0)))
                        .withStages(List.of()));
    FaultRow open = row(c, FaultKind.SIGNAL_OPEN);
    assertThat(open.floating()).isTrue();
    assertThat(open.verdict()).isEqualTo(FaultRow.Verdict.FLOATS);
  }

  /** 470 kΩ at one leg of a bridge would shift its zero by kilograms. */
  @Test
  void noPullDownIsAdvisedForOneLegOfABridge() {
    Channel bridge =
        Channels.blower()
            .define(d -> d.withRange(v(0), v(60)).withTolerance(v(0.2)))
            .design(
                d ->
                    d.withSensor(new StrainBridge(v(60), v(2), v(0), v(5), v(350)))
                        .withStages(
                            List.of(
                                new InstrumentationAmp(
                                    v(1), v(50e3), v(127), v(0), v(0.25), v(0.05), v(4.95))))
                        .withConverter(Converter.of(16, 5)));
    assertThat(FaultMatrix.of(subject(bridge)).pull()).isEmpty();
  }

  /** What a verdict calls told is told by the threshold, and the other way round. */
  @Test
  void thresholdsAndVerdictsAgree() {
    for (Channel c : List.of(Channels.blower(), held(), Channels.incubator())) {
      FaultMatrix m = FaultMatrix.ofWires(subject(c));
      var proposal = m.thresholds();
      for (FaultRow r : m.rows()) {
        if (r.fault().kind() == FaultKind.NONE) continue;
        boolean hidden = proposal.hidden().stream().anyMatch(h -> h.fault().same(r.fault()));
        assertThat(hidden).as(r.fault().says()).isEqualTo(r.verdict() != FaultRow.Verdict.TOLD);
        if (!hidden) {
          var t = proposal.thresholds().orElseThrow();
          assertThat(t.fault(r.volts().low())).as(r.fault().says()).isTrue();
          assertThat(t.fault(r.volts().high())).as(r.fault().says()).isTrue();
        }
      }
      proposal
          .thresholds()
          .ifPresent(
              t -> {
                double top = c.design().converter().reference().number();
                if (t.low() != null) assertThat(t.low().number()).isBetween(0.0, top);
                if (t.high() != null) assertThat(t.high().number()).isBetween(0.0, top);
              });
    }
  }

  @Test
  void aGroundOffsetNearARailIsFoundAgain() {
    Channel c =
        Channels.incubator()
            .wiring(w -> w.withPlan(Channels.incubator().wiring().plan().withSupply(v(5))));
    Subject s = subject(c);
    var engine = Diagnostician.of(s, PriorWeights.USUAL);
    Fault offset =
        FaultCatalogue.of(s).stream()
            .filter(f -> f.kind() == FaultKind.GROUND_OFFSET)
            .findFirst()
            .orElseThrow();
    for (double volts : new double[] {0.045, 0.0475, 0.05, 0.0525, 0.055}) {
      Fault at = offset.withSeverity(volts);
      var seen = new ArrayList<MeasuredValue>();
      for (double x : new double[] {5, 9, 13}) {
        for (Place p : List.of(Place.DISPLAY, RECEIVER, GROUND, TP2)) {
          seen.add(MeasuredValue.of(p, x, engine.reading(at, p, x)));
        }
      }
      Ranking r = engine.rank(seen);
      assertThat(r.noneFits()).isFalse();
      assertThat(r.best().fault().kind()).isEqualTo(FaultKind.GROUND_OFFSET);
      assertThat(r.best().fault().severity()).isCloseTo(volts, within(2e-3));
    }
  }
}
