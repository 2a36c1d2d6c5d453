package nocking.band;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The windows of a selector against what a technician works out by hand. */
class PositionsTest {
  private static final Span RANGE = new Span(0, 5);

  private static List<Value> list(double... volts) {
    return Arrays.stream(volts).mapToObj(Value::of).toList();
  }

  private static BandPosition station(
      String name, double centre, List<Value> up, List<Value> down) {
    return new BandPosition(name, v(centre), null, up, down);
  }

  /** Stations 0.4 V apart, settles up to 20 mV from their means: 200 − 20 = 180 mV. */
  @Test
  void suggestedWindowIsHalfTheSpacingLessTheScatter() {
    Positions p =
        Positions.of(
            BandPlan.EMPTY.withPositions(
                List.of(
                    station("drain", 1.2, list(1.21), list(1.19)),
                    station("raceway", 1.6, list(1.62), list(1.58)),
                    station("bypass", 2.0, list(2.01), list(1.99)))),
            RANGE);
    assertThat(p.suggested()).isCloseTo(0.18, within(1e-12));
    assertThat(p.windows().get(1).slack()).isCloseTo(0.04, within(1e-12));
    assertThat(p.windows().get(1).low()).isCloseTo(1.42, within(1e-12));
    assertThat(p.used()).isCloseTo(0.16, within(1e-12));
    assertThat(p.problems()).extracting(BandProblem::kind).containsExactly(BandProblem.Kind.TRAVEL);
  }

  /**
   * A rod of fixed stroke on a lever: the stroke that 100° × 16 % makes on 60 mm must make 100° ×
   * 80 % on the lever that is advised.
   */
  @Test
  void advisedLeverTurnsFurtherByTheSameStroke() {
    Positions p =
        Positions.of(
            BandPlan.EMPTY
                .withPositions(
                    List.of(
                        station("a", 1.2, List.of(), List.of()),
                        station("b", 2, List.of(), List.of())))
                .withLever(v(60), v(100)),
            RANGE);
    double lever = p.lever().orElseThrow();
    double stroke = 2 * 60 * Math.sin(Math.toRadians(16) / 2);
    assertThat(2 * lever * Math.sin(Math.toRadians(80) / 2)).isCloseTo(stroke, within(1e-9));
  }

  /** Whatever was seen: suggested windows hold every settle and never overlap. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
  void suggestedWindowsHoldEverySettleAndNeverOverlap(long seed) {
    var r = new Random(seed);
    int n = 2 + r.nextInt(7);
    double spacing = 4.0 / n;
    double scatter = spacing * 0.15 * r.nextDouble();
    var stations =
        IntStream.range(0, n)
            .mapToObj(
                i -> {
                  double at = 0.3 + spacing * i;
                  List<Value> settles =
                      DoubleStream.generate(() -> at + scatter * (2 * r.nextDouble() - 1))
                          .limit(6)
                          .mapToObj(Value::of)
                          .toList();
                  double mean = settles.stream().mapToDouble(Value::number).average().orElseThrow();
                  return new BandPosition(
                      "p" + i, v(mean), null, settles.subList(0, 3), settles.subList(3, 6));
                })
            .toList();
    Positions p = Positions.of(BandPlan.EMPTY.withPositions(stations), RANGE);
    for (int i = 0; i < n; i++) {
      for (double s : stations.get(i).observed()) {
        assertThat(p.windows().get(i).holds(s)).isTrue();
        for (int j = 0; j < n; j++) {
          if (j != i) assertThat(p.windows().get(j).holds(s)).isFalse();
        }
      }
    }
    assertThat(p.problems())
        .noneMatch(b -> b.kind() == BandProblem.Kind.OVERLAP || b.kind() == BandProblem.Kind.GAP);
  }

  /** Seen once or never, a station's slack is not known, and windows that touch are not unsaid. */
  @Test
  void slackThatNobodySawIsSaid() {
    BandPosition twice = station("b", 2, list(2.01), list(1.99));
    Positions p =
        Positions.of(
            BandPlan.EMPTY.withPositions(
                List.of(
                    station("a", 1, list(1.0), List.of()),
                    twice,
                    station("c", 3, list(3.0), List.of()))),
            new Span(0, 4));
    assertThat(p.problems())
        .singleElement()
        .matches(b -> b.kind() == BandProblem.Kind.SLACK && b.kind().advice())
        .matches(b -> b.text().startsWith("how far a, c settle beside their place is not known"));
    Positions seen =
        Positions.of(
            BandPlan.EMPTY.withPositions(
                List.of(station("a", 1, list(1.0, 1.02), List.of()), twice)),
            new Span(0, 2));
    assertThat(seen.problems()).noneMatch(b -> b.kind() == BandProblem.Kind.SLACK);
  }

  @Test
  void stationsTooCloseForTheirSlackAreSaid() {
    Positions p =
        Positions.of(
            BandPlan.EMPTY.withPositions(
                List.of(
                    station("a", 1, list(1.1), list(0.9)),
                    station("b", 1.3, list(1.4), list(1.2)))),
            new Span(0, 0.5));
    assertThat(p.problems()).extracting(BandProblem::kind).contains(BandProblem.Kind.TOO_CLOSE);
  }

  @Test
  void impossibleEntriesAreRefusedByName() {
    assertThatThrownBy(() -> new BandPosition("drain", v(1), v(0), null, null))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("position drain");
    assertThatThrownBy(() -> BandPlan.EMPTY.withDwell(v(-1)))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("dwell");
    assertThatThrownBy(() -> BandPlan.EMPTY.withLever(v(60), v(400)))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("turn");
  }
}
