package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.converter.Converter;
import nocking.fault.Fault;
import nocking.fault.FaultMatrix;
import nocking.fault.FaultRow;
import nocking.fault.FaultyPath;
import nocking.fault.PinExpectation;
import nocking.fault.Subject;
import nocking.prior.FaultKind;
import nocking.quantity.Value;
import nocking.sensor.Potentiometer;
import nocking.sensor.Potentiometer.EndSide;
import nocking.stage.InputPull;
import nocking.wiring.Place;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/**
 * A potentiometer with resistors above and below its track, held against netlists that are written
 * down by hand.
 */
class EndResistorsTest {
  private static final double NO_METER = Double.POSITIVE_INFINITY;
  private static final double CONTACT = 0.1;

  private static final Set<FaultKind> DRAWN =
      EnumSet.of(
          FaultKind.NONE,
          FaultKind.SUPPLY_OPEN,
          FaultKind.GROUND_OPEN,
          FaultKind.SIGNAL_OPEN,
          FaultKind.SIGNAL_TO_SUPPLY,
          FaultKind.SIGNAL_TO_GROUND,
          FaultKind.SWAPPED,
          FaultKind.PART_OPEN,
          FaultKind.PART_DRIFT,
          FaultKind.PART_DECADE);

  private static Value v(double x) {
    return Value.of(x);
  }

  /** Numbers of one lever on the wall of the raceway. */
  private record Lever(
      double supply, double track, double top, double bottom, double from, double to, double load) {
    static Lever any(Random r) {
      return new Lever(
          3 + 9 * r.nextDouble(),
          1e3 + 9e3 * r.nextDouble(),
          r.nextInt(4) == 0 ? 0 : 50 + 900 * r.nextDouble(),
          r.nextInt(4) == 0 ? 0 : 50 + 900 * r.nextDouble(),
          0.1 * r.nextDouble(),
          0.9 + 0.1 * r.nextDouble(),
          20e3 + 1e6 * r.nextDouble());
    }

    double wiper(double x) {
      return from + (to - from) * x / 60;
    }

    Channel channel(EndSide side) {
      return Channel.blank("1", "RW-P2")
          .define(d -> d.withRange(v(0), v(60)))
          .design(
              d ->
                  d.withSensor(
                          new Potentiometer(v(0), v(60), v(from), v(to), v(supply), v(track), v(0))
                              .between(
                                  top == 0 ? null : v(top), bottom == 0 ? null : v(bottom), side))
                      .withStages(List.of(InputPull.toGround(v(load))))
                      .withConverter(Converter.of(12, supply)));
    }

    /** The same drawn part by part, with what is wrong in it. */
    Map<String, Double> drawn(EndSide side, Fault fault, double x) {
      var n = new Netlist();
      boolean own = side == EndSide.SENSOR;
      double t = part(fault, "Rt", top);
      double b = part(fault, "Rb", bottom);
      n.v("S", "0", supply);
      join(n, "S", "ts", own ? 0 : t);
      join(n, "tg", "0", own ? 0 : b);
      boolean swapped = fault.kind() == FaultKind.SWAPPED;
      wire(n, fault, FaultKind.SUPPLY_OPEN, "ts", swapped ? "g" : "s");
      wire(n, fault, FaultKind.GROUND_OPEN, "tg", swapped ? "s" : "g");
      wire(n, fault, FaultKind.SIGNAL_OPEN, "r", "w");
      join(n, "s", "a", own ? t : 0);
      join(n, "e", "g", own ? b : 0);
      n.r("a", "w", part(fault, "Rp above", track * (1 - wiper(x))));
      n.r("w", "e", part(fault, "Rp below", track * wiper(x)));
      n.r("r", "0", load);
      if (fault.kind() == FaultKind.SIGNAL_TO_SUPPLY) n.r("r", "ts", CONTACT);
      if (fault.kind() == FaultKind.SIGNAL_TO_GROUND) n.r("r", "tg", CONTACT);
      Map<String, Double> at = n.solve();
      var places = new HashMap<String, Double>();
      places.put("receiver", at.get("r"));
      places.put("supply-receiver", at.get("ts"));
      places.put("supply-sensor", at.get("s") - at.get("g"));
      places.put("ground", at.get("g"));
      places.put("sensor", at.get("w") - at.get("g"));
      return places;
    }

    private static double part(Fault fault, String name, double ohms) {
      if (fault.element() != 0 || !fault.part().equals(name)) return ohms;
      return switch (fault.kind()) {
        case PART_OPEN -> Double.POSITIVE_INFINITY;
        case PART_SHORT -> CONTACT;
        case PART_DRIFT, PART_DECADE -> ohms * fault.severity();
        default -> ohms;
      };
    }

    private static void wire(Netlist n, Fault fault, FaultKind open, String a, String b) {
      join(n, a, b, fault.kind() == open ? Double.POSITIVE_INFINITY : 0);
    }

    private static void join(Netlist n, String a, String b, double ohms) {
      if (ohms == 0) n.v(a, b, 0);
      else n.r(a, b, ohms);
    }
  }

  @ParameterizedTest
  @EnumSource(EndSide.class)
  void everyPlaceReadsWhatTheDrawingGivesSoundOrFaulty(EndSide side) {
    var random = new Random(20261126);
    int compared = 0;
    for (int i = 0; i < 60; i++) {
      Lever lever = Lever.any(random);
      Channel c = lever.channel(side);
      Subject subject = Analysis.of(c).wiring().subject().orElseThrow();
      for (double x : new double[] {0, 21.7, 60}) {
        double sound = lever.drawn(side, Fault.NONE, x).get("receiver");
        assertThat(subject.path().output(x)).isCloseTo(sound, within(1e-9 * lever.supply()));
        assertThat(subject.path().quantity(sound)).isCloseTo(x, within(1e-7));
        for (Fault fault : faults(subject)) {
          FaultyPath path = FaultyPath.of(subject, fault, x);
          Map<String, Double> expected = lever.drawn(side, fault, x);
          for (Map.Entry<String, Double> e : expected.entrySet()) {
            FaultyPath.Reading r = path.read(Place.ofKey(e.getKey()), NO_METER);
            if (r.floats()) continue;
            assertThat(r.value())
                .as("%s, %s, %s at %s", lever, fault.says(), e.getKey(), x)
                .isCloseTo(e.getValue(), within(1e-9 * lever.supply()));
            compared++;
          }
        }
      }
    }
    assertThat(compared).isGreaterThan(60 * 3 * 5 * 8);
  }

  /** The sound lever and every fault of its list that is drawn here. */
  private static List<Fault> faults(Subject subject) {
    return FaultMatrix.of(subject).rows().stream()
        .map(FaultRow::fault)
        .filter(f -> DRAWN.contains(f.kind()) && f.element() <= 0)
        .toList();
  }

  /** A short to the wire behind the resistor reads as a true end; one before it does not. */
  @Test
  void theSideDecidesWhatAShortShows() {
    var lever = new Lever(5, 5e3, 500, 500, 0, 1, 1e6);
    Fault shorted = rows(lever.channel(EndSide.SENSOR)).get(FaultKind.SIGNAL_TO_SUPPLY).fault();
    double end = lever.drawn(EndSide.SENSOR, Fault.NONE, 60).get("receiver");
    assertThat(lever.drawn(EndSide.SENSOR, shorted, 60).get("receiver")).isGreaterThan(4.9);
    assertThat(lever.drawn(EndSide.RECEIVER, shorted, 60).get("receiver"))
        .isCloseTo(end, within(0.01));
    assertThat(rows(lever.channel(EndSide.SENSOR)).get(FaultKind.SIGNAL_TO_SUPPLY).verdict())
        .isEqualTo(FaultRow.Verdict.TOLD);
    assertThat(rows(lever.channel(EndSide.RECEIVER)).get(FaultKind.SIGNAL_TO_SUPPLY).verdict())
        .isNotEqualTo(FaultRow.Verdict.TOLD);
  }

  private static Map<FaultKind, FaultRow> rows(Channel c) {
    var rows = new HashMap<FaultKind, FaultRow>();
    for (FaultRow r : Analysis.of(c).wiring().faults().orElseThrow().rows()) {
      rows.putIfAbsent(r.fault().kind(), r);
    }
    return rows;
  }

  /**
   * Behind resistors of the receiver's own both wires stand off their rails, and the plan says so.
   */
  @Test
  void pinsBehindTheReceiversResistorsAreExpectedOffTheRails() {
    var lever = new Lever(5, 4e3, 500, 500, 0, 1, 1e12);
    Map<String, PinExpectation> at = pins(lever.channel(EndSide.RECEIVER));
    assertThat(at.get("supply").atRest()).isCloseTo(4.5, within(1e-6));
    assertThat(at.get("ground").atRest()).isCloseTo(0.5, within(1e-6));
    Map<String, PinExpectation> own = pins(lever.channel(EndSide.SENSOR));
    assertThat(own.get("supply").atRest()).isCloseTo(5, within(1e-6));
    assertThat(own.get("ground").atRest()).isCloseTo(0, within(1e-6));
  }

  private static Map<String, PinExpectation> pins(Channel c) {
    var map = new HashMap<String, PinExpectation>();
    Subject subject = Analysis.of(c).wiring().subject().orElseThrow();
    for (PinExpectation e : PinExpectation.of(subject)) map.put(e.name(), e);
    return map;
  }
}
