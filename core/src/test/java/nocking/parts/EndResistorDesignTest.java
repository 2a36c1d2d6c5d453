package nocking.parts;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import nocking.network.Circuit;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import org.junit.jupiter.api.Test;

/** Resistors beside a track, against every pair by another way of counting. */
class EndResistorDesignTest {

  private static EndResistorDesign.Goal any(Random r) {
    double supply = 3 + 9 * r.nextDouble();
    double low = 0.1 * r.nextDouble();
    return new EndResistorDesign.Goal(
        supply,
        1e3 + 20e3 * r.nextDouble(),
        0.25 * r.nextDouble(),
        new Span(low, 0.85 + 0.15 * r.nextDouble()),
        new Span(supply * 0.15 * r.nextDouble(), supply * (1 - 0.15 * r.nextDouble())));
  }

  private static double ohms(Solution s, String name) {
    return s.parts().stream()
        .filter(p -> p.name().equals(name))
        .mapToDouble(p -> p.network().ohms())
        .findFirst()
        .orElse(0);
  }

  /** Volts from the two currents' ratio and not from the closed form. */
  private static double volts(EndResistorDesign.Goal g, double k, double t, double b, double r) {
    double amperes = g.supply() / (t + r + b);
    return g.supply() - amperes * (t + (1 - k) * r);
  }

  @Test
  void noDrawOfThePartsLeavesTheBandAndNoPairKeepsMore() {
    var random = new Random(77);
    Assortment e12 = Assortment.of(PreferredSeries.E12, 10, 1e5, 5);
    int found = 0;
    for (int i = 0; i < 40; i++) {
      EndResistorDesign.Goal g = any(random);
      Candidates c = EndResistorDesign.search(e12, g);
      if (c.solutions().isEmpty()) continue;
      found++;
      Solution best = c.solutions().getFirst();
      for (int draw = 0; draw < 2000; draw++) {
        double t = ohms(best, "Rt") * (1 + 0.05 * (2 * random.nextDouble() - 1));
        double b = ohms(best, "Rb") * (1 + 0.05 * (2 * random.nextDouble() - 1));
        double r = g.track() * (1 + g.trackTolerance() * (2 * random.nextDouble() - 1));
        assertThat(volts(g, g.wiper().low(), t, b, r))
            .isGreaterThanOrEqualTo(g.inside().low() - 1e-9);
        assertThat(volts(g, g.wiper().high(), t, b, r))
            .isLessThanOrEqualTo(g.inside().high() + 1e-9);
      }
      assertThat(best.value()).isCloseTo(mostByHand(g, e12), within(1e-9 * g.supply()));
    }
    assertThat(found).isGreaterThan(25);
  }

  /** For each lower resistor the least upper one that holds, found upwards one by one. */
  private static double mostByHand(EndResistorDesign.Goal g, Assortment a) {
    double most = 0;
    for (int j = -1; j < a.size(); j++) {
      double b = j < 0 ? 0 : a.ohms(j);
      for (int i = -1; i < a.size(); i++) {
        double t = i < 0 ? 0 : a.ohms(i);
        boolean holds = true;
        for (double r : new double[] {1 - g.trackTolerance(), 1 + g.trackTolerance()}) {
          for (double st : new double[] {0.95, 1.05}) {
            for (double sb : new double[] {0.95, 1.05}) {
              double track = r * g.track();
              holds &= volts(g, g.wiper().low(), t * st, b * sb, track) >= g.inside().low() - 1e-12;
              holds &=
                  volts(g, g.wiper().high(), t * st, b * sb, track) <= g.inside().high() + 1e-12;
            }
          }
        }
        if (!holds) continue;
        most =
            Math.max(
                most,
                volts(g, g.wiper().high(), t, b, g.track())
                    - volts(g, g.wiper().low(), t, b, g.track()));
        break;
      }
    }
    return most;
  }

  /** The swing of every pair that is listed, solved node by node. */
  @Test
  void everySolutionSwingsAsTheNodalSolverSays() {
    var random = new Random(79);
    Assortment e12 = Assortment.of(PreferredSeries.E12, 10, 1e5, 5);
    for (int i = 0; i < 40; i++) {
      EndResistorDesign.Goal g = any(random);
      for (Solution s : EndResistorDesign.search(e12, g).solutions()) {
        double low = solved(g, s, g.wiper().low());
        double high = solved(g, s, g.wiper().high());
        assertThat(s.value()).isCloseTo(high - low, within(1e-9));
        assertThat(low).isGreaterThanOrEqualTo(g.inside().low() - 1e-9);
        assertThat(high).isLessThanOrEqualTo(g.inside().high() + 1e-9);
      }
    }
  }

  private static double solved(EndResistorDesign.Goal g, Solution s, double k) {
    var c = new Circuit().source("s", Circuit.GROUND, g.supply());
    join(c, "s", "top", ohms(s, "Rt"));
    join(c, "top", "w", (1 - k) * g.track());
    join(c, "w", "end", k * g.track());
    join(c, "end", Circuit.GROUND, ohms(s, "Rb"));
    return c.solve().get("w");
  }

  private static void join(Circuit c, String a, String b, double ohms) {
    if (ohms > 0) c.resistor(a, b, ohms);
    else c.source(a, b, 0);
  }

  /** With parts without tolerance the ideal pair puts the band on both ends. */
  @Test
  void idealPairReachesBothEnds() {
    var random = new Random(78);
    for (int i = 0; i < 200; i++) {
      EndResistorDesign.Goal g = any(random);
      double[] ideal = g.ideal();
      assertThat(volts(g, g.wiper().low(), ideal[0], ideal[1], g.track()))
          .isCloseTo(g.inside().low(), within(1e-9));
      assertThat(volts(g, g.wiper().high(), ideal[0], ideal[1], g.track()))
          .isCloseTo(g.inside().high(), within(1e-9));
    }
  }

  @Test
  void aTrackThatStaysInsideByItselfNeedsNothing() {
    var g = new EndResistorDesign.Goal(5, 5e3, 0.2, new Span(0.1, 0.9), new Span(0.4, 4.6));
    Solution best =
        EndResistorDesign.search(Assortment.of(PreferredSeries.E24), g).solutions().getFirst();
    assertThat(best.parts()).isEmpty();
    assertThat(best.value()).isCloseTo(4, within(1e-12));
  }

  @Test
  void fewInTheDrawerAreNotUsedTwice() {
    var g = new EndResistorDesign.Goal(5, 5e3, 0, new Span(0, 1), new Span(0.4, 4.6));
    StockPart one = new StockPart("", 560, 1, 0.25, 0, 1);
    assertThat(EndResistorDesign.search(Assortment.of(List.of(one)), g).found()).isFalse();
    assertThat(EndResistorDesign.search(Assortment.of(List.of(one.withQuantity(2))), g).solutions())
        .hasSize(1);
  }

  @Test
  void aBandOutsideTheSupplyIsRefused() {
    assertThatThrownBy(
            () -> new EndResistorDesign.Goal(5, 5e3, 0.2, new Span(0, 1), new Span(0.5, 5.5)))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("between 0 V and the supply of 5 V; read 0.5 V to 5.5 V");
    assertThatThrownBy(
            () -> new EndResistorDesign.Goal(5, 5e3, 0.2, new Span(0, 1.2), new Span(0.5, 4.5)))
        .hasMessageContaining("between 0 and 1 of the track; read 0 to 1.2");
  }
}
