package nocking.parts;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import java.util.Random;
import nocking.network.Circuit;
import nocking.parts.BlendDesign.Blend;
import nocking.parts.BlendDesign.Goal;
import nocking.quantity.QuantityException;
import org.junit.jupiter.api.Test;

/** A blend about a reference, every number of it by the nodal solver. */
class BlendDesignTest {

  /** The two potentiometers as four resistors between sensor, reference and receiver. */
  private static Map<String, Double> solved(Goal g, Blend b, double signal, double receiver) {
    var c = new Circuit();
    double ka = b.referenceWiper();
    double kb = b.blendWiper();
    c.source("supply", Circuit.GROUND, g.supply());
    c.resistor("supply", "ref", (1 - ka) * b.referenceTrack());
    c.resistor("ref", Circuit.GROUND, ka * b.referenceTrack());
    c.source("emf", Circuit.GROUND, signal);
    if (g.source() > 0) c.resistor("emf", "in", g.source());
    else c.source("in", "emf", 0);
    c.resistor("in", "out", (1 - kb) * b.blendTrack());
    c.resistor("out", "ref", kb * b.blendTrack());
    if (Double.isFinite(receiver)) c.resistor("out", Circuit.GROUND, receiver);
    return c.solve();
  }

  /** Tracks with their wipers, of which nothing else is known. */
  private static Blend at(double ra, double rb, double ka, double kb) {
    return new Blend(ra, rb, ka, kb, 0, 0, 0, 0, 0, 0, 0, 0);
  }

  private static Blend at(Blend b, double ka, double kb) {
    return at(b.referenceTrack(), b.blendTrack(), ka, kb);
  }

  private static Goal any(Random r) {
    double rest = 1.5 + 2 * r.nextDouble();
    return new Goal(
        0.1 + 0.8 * r.nextDouble(),
        rest,
        r.nextBoolean() ? rest : rest + r.nextDouble() - 0.5,
        5,
        r.nextBoolean() ? 0 : 2e3 * r.nextDouble(),
        r.nextInt(3) == 0 ? Double.POSITIVE_INFINITY : 10e3 + 1e6 * r.nextDouble());
  }

  @Test
  void swingRestAndWhatTheMeterShowsAreWhatTheCircuitGives() {
    var random = new Random(4711);
    int checked = 0;
    for (int i = 0; i < 100; i++) {
      Goal g = any(random);
      for (Blend b : BlendDesign.search(g, BlendDesign.USUAL)) {
        Map<String, Double> at = solved(g, b, g.signal(), g.receiver());
        Map<String, Double> moved = solved(g, b, g.signal() + 1, g.receiver());
        assertThat(at.get("out")).isCloseTo(g.rest(), within(1e-9));
        assertThat(moved.get("out") - at.get("out")).isCloseTo(g.swing(), within(1e-9));
        assertThat(b.referenceLoaded()).isCloseTo(at.get("ref"), within(1e-9));
        assertThat(b.referenceFree()).isCloseTo(b.referenceWiper() * g.supply(), within(1e-9));
        assertThat(b.unplugged())
            .isCloseTo(
                solved(g, b, g.signal(), Double.POSITIVE_INFINITY).get("out") - at.get("out"),
                within(1e-9));
        assertThat(b.drawn())
            .isCloseTo(
                (g.signal() - at.get("out")) / (g.source() + (1 - b.blendWiper()) * b.blendTrack()),
                within(1e-9));
        double more = (moved.get("in") - moved.get("out")) - (at.get("in") - at.get("out"));
        double amperes = more / ((1 - b.blendWiper()) * b.blendTrack());
        assertThat((moved.get("in") - at.get("in")) / amperes)
            .isCloseTo(b.seen(), within(1e-4 * b.seen()));
        checked++;
      }
    }
    assertThat(checked).isGreaterThan(1000);
  }

  /** Where a coarse search over both wipers comes near, the design finds the place. */
  @Test
  void nothingThatABruteSearchReachesIsMissed() {
    var random = new Random(4712);
    for (int i = 0; i < 60; i++) {
      double track = 10e3;
      double ka = 0.05 + 0.9 * random.nextDouble();
      double kb = 0.05 + 0.9 * random.nextDouble();
      Goal wanted = any(random);
      Blend settings = at(track, track, ka, kb);
      double at = solved(wanted, settings, 2.5, wanted.receiver()).get("out");
      double swing = solved(wanted, settings, 3.5, wanted.receiver()).get("out") - at;
      var g = new Goal(swing, 2.5, at, 5, wanted.source(), wanted.receiver());
      List<Blend> found = BlendDesign.search(g, List.of(track));
      assertThat(found).hasSize(1);
      assertThat(solved(g, found.getFirst(), 2.5, g.receiver()).get("out"))
          .isCloseTo(at, within(1e-9));
    }
  }

  /** A hundredth of a turn, turned in the circuit. */
  @Test
  void sensitivitiesAreThoseOfTheCircuit() {
    var g = new Goal(0.4, 2.5, 2.5, 5, 1e3, 1e6);
    Blend b = BlendDesign.search(g, List.of(10e3)).getFirst();
    double at = solved(g, b, 2.5, 1e6).get("out");
    Blend turned = at(b, b.referenceWiper() + 0.01, b.blendWiper());
    assertThat(b.restPerReference())
        .isCloseTo(solved(g, turned, 2.5, 1e6).get("out") - at, within(1e-9));
    Blend further = at(b, b.referenceWiper(), b.blendWiper() + 0.01);
    double swing =
        solved(g, further, 3.5, 1e6).get("out") - solved(g, further, 2.5, 1e6).get("out");
    assertThat(b.swingPerBlend()).isCloseTo(swing - 0.4, within(1e-9));
  }

  @Test
  void aSwingThatGrowsIsNoBlend() {
    assertThatThrownBy(() -> new Goal(1.2, 2.5, 2.5, 5, 0, 1e6))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("less than 100 % of a swing; read 120 %");
  }
}
