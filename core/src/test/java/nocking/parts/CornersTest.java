package nocking.parts;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import nocking.quantity.Spread;
import nocking.quantity.Value;
import nocking.stage.Divider;
import nocking.stage.Stage;
import org.junit.jupiter.api.Test;

/** Corners of tolerances, held against every combination and against random ones. */
class CornersTest {
  private static final Random RANDOM = new Random(20261127);

  private static Value part(double most) {
    double ohms = 1e3 * Math.pow(10, 2 * RANDOM.nextDouble());
    return Value.of(ohms).withSpread(Spread.percent(most * RANDOM.nextDouble()));
  }

  private static List<Stage> dividers(int n) {
    var list = new ArrayList<Stage>();
    for (int i = 0; i < n; i++) list.add(new Divider(part(5), part(5)));
    return list;
  }

  /** Output of a chain of dividers on 1 V, each loaded by those behind it, by a ladder's rule. */
  private static double ladder(List<Stage> stages) {
    double load = Double.POSITIVE_INFINITY;
    double gain = 1;
    for (Stage s : stages.reversed()) {
      Divider d = (Divider) s;
      double r2 = d.lower().number();
      double under = Double.isInfinite(load) ? r2 : r2 * load / (r2 + load);
      gain *= under / (under + d.upper().number());
      load = under + d.upper().number();
    }
    return gain;
  }

  @Test
  void climbingComesToTheCornerThatLookingAtEveryOneFinds() {
    for (int n = 0; n < 20; n++) {
      // Twelve values are more than are looked at one by one.
      List<Stage> chain = dividers(6);
      double best = Corners.of(chain).stream().mapToDouble(CornersTest::ladder).max().orElseThrow();
      assertThat(Corners.largest(chain, CornersTest::ladder)).isCloseTo(best, within(1e-12));
    }
  }

  @Test
  void aLongChainIsNoLongWait() {
    List<Stage> chain = dividers(17);
    double most = Corners.largest(chain, s -> Math.log(ladder(s)));
    for (int n = 0; n < 200; n++) {
      var moved = new ArrayList<Stage>();
      for (Stage s : chain) {
        Divider d = (Divider) s;
        moved.add(new Divider(somewhere(d.upper()), somewhere(d.lower())));
      }
      assertThat(Math.log(ladder(moved))).isLessThanOrEqualTo(most);
    }
  }

  private static Value somewhere(Value v) {
    double off = v.spread().limitOf(v.number()) * (2 * RANDOM.nextDouble() - 1);
    return Value.of(v.number() + off);
  }

  @Test
  void withoutTolerancesThereIsOneCorner() {
    List<Stage> exact = List.of(new Divider(Value.of(1e3), Value.of(3e3)));
    assertThat(Corners.of(exact)).containsExactly(exact);
    assertThat(Corners.largest(exact, CornersTest::ladder)).isCloseTo(0.75, within(1e-12));
  }
}
