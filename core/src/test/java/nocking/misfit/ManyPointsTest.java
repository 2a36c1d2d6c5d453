package nocking.misfit;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.finding.Finding;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import org.junit.jupiter.api.Test;

/**
 * More points than a cause is tried at: what is said is true of all, and mended are those alone.
 */
class ManyPointsTest {
  private static final int N = 400;

  private static Channel blower() {
    return Channels.blower().define(d -> d.withTolerance(v(0.5)));
  }

  /** Points on the design, with a little noise, in a random order. */
  private static List<ReferencePoint> points(Channel c, long seed) {
    var r = new Random(seed);
    var path = Analysis.of(c).design().path().orElseThrow();
    var list = new ArrayList<ReferencePoint>();
    for (int i = 0; i < N; i++) {
      double x = Double.parseDouble(Numbers.fixed(c.definition().working().at(r.nextDouble()), 3));
      double volts = path.output(x) + 0.0004 * r.nextGaussian();
      Value reading = Value.typed(Numbers.fixed(volts, 4), Unit.VOLT);
      list.add(new ReferencePoint(Value.of(x), List.of(reading), false, null));
    }
    return list;
  }

  private static Channel with(Channel c, List<ReferencePoint> points) {
    return c.calibration(k -> k.withPoints(new PointSet(RawUnit.VOLTS, points)));
  }

  private static Finding finding(Channel c, String rule) {
    return Analysis.of(c).findings().stream()
        .filter(f -> f.rule().equals(rule) && f.fix().isPresent())
        .findFirst()
        .orElseThrow(() -> new AssertionError(Analysis.of(c).findings().toString()));
  }

  /** One slip among four hundred is found wherever it stands, and nothing else is touched. */
  @Test
  void oneSlipIsFoundAmongMany() {
    Channel c = blower();
    for (int at : new int[] {0, 61, 217, N - 1}) {
      List<ReferencePoint> sound = points(c, at);
      var slipped = new ArrayList<>(sound);
      ReferencePoint p = sound.get(at);
      double tenfold = p.mean() * 10;
      slipped.set(at, p.withReadings(List.of(Value.of(tenfold))));
      Finding f = finding(with(c, slipped), "point-slip");
      assertThat(f.item()).isEqualTo(at);
      Channel mended = f.fix().orElseThrow().apply().apply(with(c, slipped));
      List<ReferencePoint> now = mended.calibration().points().points();
      for (int i = 0; i < N; i++) {
        if (i == at) assertThat(now.get(i).mean()).isCloseTo(p.mean(), within(1e-9));
        else assertThat(now.get(i)).isEqualTo(sound.get(i));
      }
    }
  }

  /** Pressures in psi written down as kPa: all of them are converted, not those that were tried. */
  @Test
  void aUnitIsMendedInAllPoints() {
    Channel c = blower();
    List<ReferencePoint> sound = points(c, 5);
    Unit psi = Unit.of("psi");
    List<ReferencePoint> wrong =
        sound.stream()
            .map(p -> p.withApplied(Value.of(Unit.of("kPa").convert(p.applied().number(), psi))))
            .toList();
    Channel mended =
        Analysis.of(with(c, wrong)).calibration().misfit().orElseThrow().causes().stream()
            .filter(k -> k.kind() == Cause.Kind.APPLIED_UNIT)
            .findFirst()
            .orElseThrow()
            .remedy()
            .orElseThrow()
            .apply(with(c, wrong));
    assertThat(Analysis.of(mended).calibration().misfit()).isEmpty();
    for (int i = 0; i < N; i++) {
      assertThat(mended.calibration().points().points().get(i).applied().number())
          .isCloseTo(sound.get(i).applied().number(), within(1e-9));
    }
  }

  /** The last come first: their readings go back to where they belong. */
  @Test
  void anOrderIsTurnedRoundAsAWhole() {
    Channel c = blower();
    List<ReferencePoint> sound = points(c, 6);
    var wrong = new ArrayList<ReferencePoint>();
    for (int i = 0; i < N; i++) {
      wrong.add(sound.get(i).withReadings(sound.get(N - 1 - i).readings()));
    }
    var causes = Analysis.of(with(c, wrong)).calibration().misfit().orElseThrow().causes();
    Channel mended = causes.getFirst().remedy().orElseThrow().apply(with(c, wrong));
    assertThat(mended.calibration().points().points()).isEqualTo(sound);
  }

  /** Many points that are off by themselves are explained by nothing, and nothing is offered. */
  @Test
  void whatHoldsOfSomeOnlyIsNotSaid() {
    Channel c = blower();
    List<ReferencePoint> sound = points(c, 7);
    var r = new Random(3);
    var wrong = new ArrayList<ReferencePoint>();
    for (ReferencePoint p : sound) {
      boolean off = r.nextInt(8) == 0;
      double volts = p.mean() + (off ? 0.05 * (r.nextDouble() - 0.5) : 0);
      wrong.add(p.withReadings(List.of(Value.of(volts))));
    }
    assertThat(Analysis.of(with(c, wrong)).calibration().misfit().orElseThrow().causes()).isEmpty();
  }
}
