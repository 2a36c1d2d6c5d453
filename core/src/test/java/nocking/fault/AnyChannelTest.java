package nocking.fault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.diagnosis.Diagnostician;
import nocking.diagnosis.MeasuredValue;
import nocking.diagnosis.Ranking;
import nocking.path.SignalPath;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.prior.PriorWeights;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.sensor.Sensor;
import nocking.sensor.StrainBridge;
import nocking.stage.Stage;
import nocking.wiring.Place;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Whatever sensor stands before whatever stages: where the path makes sense, the circuit with its
 * wires agrees with it, every fault of it has a row, and what was seen is weighed without a number
 * that is none.
 */
@Tag("campaign")
class AnyChannelTest {

  static Stream<Sensor> sensors() {
    return Sensor.models().stream();
  }

  private static List<Channel> channels(Sensor s) {
    var list = new ArrayList<Channel>();
    QuantityKind[] kinds = {QuantityKind.TEMPERATURE, QuantityKind.VOLTAGE, QuantityKind.OTHER};
    List<Stage> stages = Stage.kinds();
    for (QuantityKind kind : kinds) {
      for (int i = 0; i < stages.size(); i++) {
        // Every third pair: each stage stands in both places with several others.
        for (int j = i % 3; j < stages.size(); j += 3) {
          channel(s, kind, stages.get(i), stages.get(j)).ifPresent(list::add);
        }
      }
      // The first kind that the sensor can measure is enough.
      if (list.stream().anyMatch(c -> Analysis.of(c).design().path().isPresent())) return list;
      list.clear();
    }
    return list;
  }

  private static Optional<Channel> channel(Sensor s, QuantityKind kind, Stage first, Stage second) {
    try {
      Channel c =
          Channel.blank("x", "X-1")
              .define(d -> d.withKind(kind).withUnit(kind.usualUnit()))
              .design(d -> d.withSensor(s).withStages(List.of(first, second)));
      Span rated = s.rated(c.unit());
      return Optional.of(
          c.define(d -> d.withRange(Value.of(rated.at(0.1)), Value.of(rated.at(0.9)))));
    } catch (QuantityException e) {
      // A thermistor measures no volts.
      return Optional.empty();
    }
  }

  @ParameterizedTest
  @MethodSource("sensors")
  void everyPathThatMakesSenseHasItsFaults(Sensor s) {
    int seen = 0;
    for (Channel c : channels(s)) {
      Analysis a = Analysis.of(c);
      if (a.design().path().isEmpty()) continue;
      String what = s.title() + ", " + c.design().stages();
      FaultMatrix matrix = a.wiring().faults().orElseThrow(() -> new AssertionError(what));
      assertThat(matrix.rows()).as(what).hasSizeGreaterThan(4);
      Subject subject = a.wiring().subject().orElseThrow();
      agreesWithThePath(subject, a.design().path().get(), what);
      if (seen % 12 == 0) assertThat(findings(c, seen)).as(what).isNotNull();
      if (seen++ % 5 != 0) continue;
      var engine = Diagnostician.of(subject, PriorWeights.USUAL);
      double middle = c.definition().working().middle();
      Ranking r =
          engine.rank(
              List.of(MeasuredValue.of(Place.DISPLAY, middle, c.definition().high().number())));
      assertThat(r.best().probability()).as(what).isBetween(0.0, 1.0);
      double sum = r.explanations().stream().mapToDouble(e -> e.probability()).sum();
      assertThat(sum).as(what).isCloseTo(1, within(1e-9));
    }
    assertThat(seen).as(s.title()).isPositive();
  }

  /** Points of any size, also such that no sensor gives, end in findings and in nothing else. */
  private static List<String> findings(Channel c, long seed) {
    var random = new java.util.Random(seed);
    var points = new ArrayList<ReferencePoint>();
    for (int i = 0; i < 5; i++) {
      double x = c.definition().working().at(random.nextDouble() * 3 - 1);
      double v = Math.exp(random.nextDouble() * 20 - 12) * (random.nextBoolean() ? 1 : -1);
      points.add(ReferencePoint.of(Value.of(x), Value.of(i == 0 ? 0 : v)));
    }
    return Analysis.of(c.calibration(k -> k.withPoints(new PointSet(RawUnit.VOLTS, points))))
        .findings()
        .stream()
        .map(f -> f.text())
        .toList();
  }

  /** The sound circuit with its wires gives what the closed form gives. */
  private static void agreesWithThePath(Subject subject, SignalPath path, String what) {
    // A strain bridge has four arms here, whose loaded output the closed form takes as linear.
    if (subject.sensor() instanceof StrainBridge) return;
    Span w = subject.channel().definition().working();
    for (double at : new double[] {0, 0.5, 1}) {
      double x = w.at(at);
      double closed = path.at(x).output();
      double limit = subject.supply().orElse(Double.POSITIVE_INFINITY);
      if (path.at(x).nodes().getFirst().value() > limit) continue;
      assertThat(FaultyPath.of(subject, Fault.NONE, x).converter().value())
          .as("%s at %s", what, x)
          .isCloseTo(closed, within(1e-6 * Math.max(1, Math.abs(closed))));
    }
  }
}
