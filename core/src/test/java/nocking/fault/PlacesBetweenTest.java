package nocking.fault;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.diagnosis.Diagnostician;
import nocking.diagnosis.Explanation;
import nocking.diagnosis.MeasuredValue;
import nocking.diagnosis.NextMeasurement;
import nocking.diagnosis.Ranking;
import nocking.network.Circuit;
import nocking.prior.FaultKind;
import nocking.prior.PriorWeights;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.Potentiometer;
import nocking.stage.ReferenceBlend;
import nocking.wiring.Place;
import nocking.wiring.Place.Kind;
import org.junit.jupiter.api.Test;

/** A path that is walked place by place: volts at a splice and a strip between the ends. */
class PlacesBetweenTest {
  private static final double METER = 1e7;
  private static final List<String> JOINTS = List.of("splice", "terminal strip");

  private static Channel gate() {
    return Channel.blank("g", "SG-P1")
        .define(d -> d.withUnit("mm").withRange(v(0), v(220)).withTolerance(v(2)))
        .design(
            d ->
                d.withSensor(
                    new Potentiometer(
                        v(0), v(220), v(0), v(1), v(5), Value.typed("5k", Unit.OHM), v(0))))
        .wiring(w -> w.withPlan(w.plan().withJoints(JOINTS)))
        .design(d -> d.withConverter(nocking.converter.Converter.of(12, 5)));
  }

  private static Subject subject(Channel c) {
    return Analysis.of(c).wiring().subject().orElseThrow();
  }

  private static Fault fault(Subject s, FaultKind kind, int segment) {
    return FaultCatalogue.of(s).stream()
        .filter(f -> f.kind() == kind && f.segment() == segment)
        .findFirst()
        .orElseThrow();
  }

  private static double read(Subject s, Fault f, double x, Kind kind, int place) {
    return FaultyPath.of(s, f, x).read(Place.of(kind, place), METER).value();
  }

  /** Each wire as three resistors by hand; one of them has the fault. */
  @Test
  void resistanceInAnyStretchIsSeenAtEveryPlaceAsTheNetlistSays() {
    var random = new Random(4711);
    Subject s = subject(gate());
    for (int n = 0; n < 60; n++) {
      double x = 220 * random.nextDouble();
      int segment = random.nextInt(3);
      double ohms = 10 + 2000 * random.nextDouble();
      FaultKind kind =
          List.of(FaultKind.SUPPLY_LEAD, FaultKind.GROUND_LEAD, FaultKind.SIGNAL_LEAD)
              .get(random.nextInt(3));
      Fault f = fault(s, kind, segment).withSeverity(ohms);
      for (int place = 1; place <= 2; place++) {
        assertThat(read(s, f, x, Kind.SIGNAL_AT_JOINT, place))
            .as("%s in %d at %d", kind, segment, place)
            .isCloseTo(byHand(x, kind, segment, ohms, "signal" + place), within(1e-5));
        assertThat(read(s, f, x, Kind.SUPPLY_AT_JOINT, place))
            .isCloseTo(byHand(x, kind, segment, ohms, "supply" + place), within(1e-5));
        assertThat(read(s, f, x, Kind.GROUND_AT_JOINT, place))
            .isCloseTo(byHand(x, kind, segment, ohms, "ground" + place), within(1e-5));
      }
    }
  }

  private static double byHand(double x, FaultKind kind, int segment, double ohms, String node) {
    var c = new Circuit();
    double contact = 1e-6;
    for (String wire : List.of("supply", "ground", "signal")) {
      for (int i = 0; i < 3; i++) {
        String from = wire + i;
        String to = i == 2 ? wire + "R" : wire + (i + 1);
        boolean here =
            i == segment
                && (kind == FaultKind.SUPPLY_LEAD && wire.equals("supply")
                    || kind == FaultKind.GROUND_LEAD && wire.equals("ground")
                    || kind == FaultKind.SIGNAL_LEAD && wire.equals("signal"));
        c.resistor(from, to, here ? ohms : contact);
      }
    }
    c.source("supplyR", Circuit.GROUND, 5);
    c.source("groundR", Circuit.GROUND, 0);
    c.resistor("supply0", "signal0", Math.max(1e-3, 5000 * (1 - x / 220)));
    c.resistor("signal0", "ground0", Math.max(1e-3, 5000 * x / 220));
    c.resistor(node, Circuit.GROUND, METER);
    return c.operatingPoint(new Span(0, 5)).volts(node, Circuit.GROUND);
  }

  /** Behind the break the wire still carries what the sensor gives; before it nothing holds it. */
  @Test
  void aBreakLiesBetweenTheLastPlaceThatReadsAndTheFirstThatDoesNot() {
    Subject s = subject(gate());
    for (int segment = 0; segment < 3; segment++) {
      Fault f = fault(s, FaultKind.SIGNAL_OPEN, segment);
      assertThat(f.name())
          .isEqualTo(
              List.of(
                      "signal wire open between the sensor and splice",
                      "signal wire open between splice and terminal strip",
                      "signal wire open between terminal strip and the receiver")
                  .get(segment));
      for (int place = 1; place <= 2; place++) {
        boolean onSensorsSide = place <= segment;
        double v = read(s, f, 110, Kind.SIGNAL_AT_JOINT, place);
        assertThat(v).as(f.name() + place).isCloseTo(onSensorsSide ? 2.5 : 0, within(2e-3));
      }
    }
    assertThat(
            FaultMatrix.of(s).rows().stream()
                .filter(r -> r.fault().kind() == FaultKind.SIGNAL_OPEN))
        .as("the receiver cannot tell the stretches apart")
        .hasSize(1);
  }

  /** Every stretch is found by the readings that its own circuit gives, walked as proposed. */
  @Test
  void walkingThePathFindsTheStretch() {
    Subject s = subject(gate());
    Diagnostician engine = Diagnostician.of(s, PriorWeights.USUAL);
    for (FaultKind kind :
        List.of(FaultKind.SIGNAL_OPEN, FaultKind.GROUND_OPEN, FaultKind.SUPPLY_OPEN)) {
      for (int segment = 0; segment < 3; segment++) {
        Fault hidden = fault(s, kind, segment);
        var seen = new ArrayList<MeasuredValue>();
        seen.add(shown(s, hidden, Place.of(Kind.SIGNAL_AT_RECEIVER), 110));
        for (int step = 0; step < 8; step++) {
          Ranking r = engine.rank(seen);
          NextMeasurement next = engine.next(r).orElse(null);
          boolean told = !r.best().somewhere() && r.best().probability() > 0.9;
          if (next == null || told) break;
          seen.add(shown(s, hidden, next.place(), next.at()));
        }
        Explanation first = engine.rank(seen).leading(1).getFirst();
        assertThat(first.fault().same(hidden))
            .as("%s: %s", hidden.name(), first.fault().name())
            .isTrue();
        assertThat(first.probability()).as(hidden.name()).isGreaterThan(0.8);
        assertThat(seen.size()).as(hidden.name()).isLessThanOrEqualTo(7);
      }
    }
  }

  private static MeasuredValue shown(Subject s, Fault f, Place place, double x) {
    double v = FaultyPath.of(s, f, x).read(place, METER).value();
    return MeasuredValue.of(place, x, v);
  }

  /** A wire with a splice breaks no more often: its weight is shared out. */
  @Test
  void placesDoNotMakeAWireLikelierToBreak() {
    double with = mass(gate());
    double without = mass(gate().wiring(w -> w.withPlan(w.plan().withJoints(List.of()))));
    assertThat(with).isCloseTo(without, within(1e-9));
  }

  /** Until a place between tells which stretch it is, a wire is one explanation, not three. */
  @Test
  void theStretchesOfAWireAreRankedTogetherUntilOneIsTold() {
    Subject s = subject(gate());
    Diagnostician engine = Diagnostician.of(s, PriorWeights.USUAL);
    Subject plain = subject(gate().wiring(w -> w.withPlan(w.plan().withJoints(List.of()))));
    Diagnostician whole = Diagnostician.of(plain, PriorWeights.USUAL);
    List<MeasuredValue> atReceiver =
        List.of(
            MeasuredValue.of(Place.of(Kind.SIGNAL_AT_RECEIVER), 110, 0),
            MeasuredValue.of(Place.of(Kind.SIGNAL_AT_SENSOR), 110, 2.5));
    Ranking r = engine.rank(atReceiver);
    Ranking same = whole.rank(atReceiver);
    assertThat(r.best().says()).isEqualTo("signal wire open");
    assertThat(r.best().somewhere()).isTrue();
    for (int i = 0; i < same.leading(9).size(); i++) {
      assertThat(r.leading(9).get(i).says()).isEqualTo(same.leading(9).get(i).says());
      assertThat(r.leading(9).get(i).probability())
          .isCloseTo(same.leading(9).get(i).probability(), within(1e-3));
    }
    var further = new ArrayList<>(atReceiver);
    further.add(MeasuredValue.of(Place.of(Kind.SIGNAL_AT_JOINT, 1), 110, 2.5));
    further.add(MeasuredValue.of(Place.of(Kind.SIGNAL_AT_JOINT, 2), 110, 0));
    Explanation told = engine.rank(further).best();
    assertThat(told.somewhere()).isFalse();
    assertThat(told.says()).isEqualTo("signal wire open between splice and terminal strip");
  }

  /**
   * Two faults at once are found as without the places, and say no stretch that nobody measured.
   */
  @Test
  void twoFaultsAtOnceAreTheSameWithPlacesBetween() {
    Subject s = subject(gate());
    Subject plain = subject(gate().wiring(w -> w.withPlan(w.plan().withJoints(List.of()))));
    Faults both =
        Faults.of(
            fault(plain, FaultKind.SIGNAL_LEAD, -1).withSeverity(2e5),
            fault(plain, FaultKind.GROUND_LEAD, -1).withSeverity(800));
    var seen = new ArrayList<MeasuredValue>();
    for (double x : new double[] {20, 110, 200}) {
      for (Place p :
          List.of(
              Place.of(Kind.SIGNAL_AT_RECEIVER),
              Place.of(Kind.SIGNAL_AT_SENSOR),
              Place.of(Kind.GROUND_AT_SENSOR),
              Place.of(Kind.SUPPLY_AT_SENSOR))) {
        seen.add(MeasuredValue.of(p, x, FaultyPath.of(plain, both, x).read(p, METER).value()));
      }
    }
    Diagnostician with = Diagnostician.of(s, PriorWeights.USUAL);
    Diagnostician without = Diagnostician.of(plain, PriorWeights.USUAL);
    var one = with.twoAtOnce(with.rank(seen));
    var other = without.twoAtOnce(without.rank(seen));
    assertThat(one.pairs()).isNotEmpty().hasSameSizeAs(other.pairs());
    assertThat(one.says()).isEqualTo(other.says());
    assertThat(one.pairs().getFirst().probability())
        .isCloseTo(other.pairs().getFirst().probability(), within(1e-3));
    assertThat(one.pairs()).noneMatch(p -> p.first().segment() >= 0 || p.second().segment() >= 0);
  }

  private static double mass(Channel c) {
    Subject s = subject(c);
    Diagnostician engine = Diagnostician.of(s, PriorWeights.USUAL);
    Ranking r = engine.rank(List.of());
    return r.leading(500).stream()
        .filter(e -> e.fault().kind() == FaultKind.SIGNAL_OPEN)
        .mapToDouble(Explanation::probability)
        .sum();
  }

  @Test
  void namesOfPlacesAreTakenOrRefused() {
    var plan = gate().wiring().plan();
    assertThat(plan.title(Place.of(Kind.SIGNAL_AT_JOINT, 2))).isEqualTo("signal at terminal strip");
    assertThat(plan.title(Place.of(Kind.GROUND_AT_JOINT, 5))).isEqualTo("ground at place 5");
    assertThat(Place.ofKey("supply-2")).isEqualTo(Place.of(Kind.SUPPLY_AT_JOINT, 2));
    assertThat(Place.ofKey("ground").kind()).isEqualTo(Kind.GROUND_AT_SENSOR);
    assertThatThrownBy(() -> Place.ofKey("signal-0"))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("is no place");
    assertThatThrownBy(() -> plan.withJoints(List.of("a", " ")))
        .hasMessageContaining("needs a name");
    assertThatThrownBy(() -> plan.withJoints(List.of("1", "2", "3", "4", "5", "6", "7")))
        .hasMessage("at most 6 places between the ends; read 7");
  }

  /** The wiper of a blend's reference has volts of its own to be set with the meter. */
  @Test
  void theReferenceWiperOfABlendIsAPlace() {
    Channel c =
        Channels.blower()
            .design(
                d ->
                    d.withStages(
                        List.of(
                            new ReferenceBlend(
                                v(5),
                                Value.typed("1k", Unit.OHM),
                                v(0.3),
                                Value.typed("10k", Unit.OHM),
                                v(0.4)))));
    Subject s = subject(c);
    Place wiper = Place.of(Kind.REFERENCE_WIPER, 1);
    assertThat(FaultMatrix.places(s)).contains(wiper);
    double in = 0.4 + 0.042 * 30;
    // Node equation of the wiper: through 700 Ω to 5 V, 300 Ω to ground, 10 kΩ to the signal.
    double expected = (5 / 700.0 + in / 10e3) / (1 / 700.0 + 1 / 300.0 + 1 / 10e3);
    assertThat(FaultyPath.of(s, Fault.NONE, 30).read(wiper, Double.POSITIVE_INFINITY).value())
        .isCloseTo(expected, within(1e-9));
  }
}
