package nocking.points;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;
import org.junit.jupiter.api.Test;

class PointSumTest {
  private static ReferencePoint at(double applied, double... reads) {
    var values = new Value[reads.length];
    for (int i = 0; i < reads.length; i++) values[i] = Value.of(reads[i]);
    return ReferencePoint.of(Value.of(applied), values);
  }

  private static PointSum sum(List<ReferencePoint> one, List<ReferencePoint> other) {
    var sets = new LinkedHashMap<String, PointSet>();
    sets.put("A", new PointSet(RawUnit.VOLTS, one));
    sets.put("B", new PointSet(RawUnit.VOLTS, other));
    return PointSum.of(sets);
  }

  /** A tank that leans another way at each pour: each probe moves with it, their sum does not. */
  @Test
  void aTiltedTankIsLevelInItsSum() {
    for (long seed = 0; seed < 50; seed++) {
      var r = new Random(seed);
      var left = new ArrayList<ReferencePoint>();
      var right = new ArrayList<ReferencePoint>();
      for (int i = 0; i < 12; i++) {
        double level = 0.5 + 0.3 * i;
        double tilt = 0.2 * r.nextGaussian();
        var taken = new ReferencePoint.Taken("r", i + 1, 1000L * i);
        left.add(at(50 * i, level + tilt).withTaken(taken));
        right.add(at(50 * i, level - tilt).withTaken(taken));
      }
      Collections.shuffle(right, r);
      PointSum sum = sum(left, right);
      assertThat(sum.without()).isEmpty();
      assertThat(sum.points().points()).hasSize(12);
      for (ReferencePoint p : sum.points().points()) {
        assertThat(p.mean()).isCloseTo(2 * (0.5 + 0.3 * p.applied().number() / 50), within(1e-9));
        assertThat(p.taken().run()).isEqualTo("r");
      }
    }
  }

  @Test
  void readingsOfTheSameMomentsAreAddedOneByOne() {
    ReferencePoint p =
        sum(List.of(at(1, 1.1, 1.3)), List.of(at(1, 2.2, 2.0))).points().points().getFirst();
    assertThat(p.readings()).extracting(Value::typed).containsExactly("3.3", "3.3");
    ReferencePoint odd =
        sum(List.of(at(1, 1, 3)), List.of(at(1, 2, 2, 5))).points().points().getFirst();
    assertThat(odd.readings()).extracting(Value::number).containsExactly(5.0);
  }

  @Test
  void whatHasNoPartnerIsNamedAndNotAdded() {
    var down = at(2, 4).withDown(true);
    PointSum sum = sum(List.of(at(1, 1), at(2, 2), at(3, 3)), List.of(at(1, 1), down, at(9, 9)));
    assertThat(sum.points().points()).extracting(ReferencePoint::mean).containsExactly(2.0);
    assertThat(sum.without())
        .containsExactly("A has no partner at 2, 3", "B has no partner at 2, 9");
    // One of a run is no partner of one that was typed, nor of another step of it.
    var taken = at(1, 1).withTaken(new ReferencePoint.Taken("r", 1, 7));
    var later = at(1, 1).withTaken(new ReferencePoint.Taken("r", 2, 9));
    assertThat(sum(List.of(at(1, 1)), List.of(taken)).points().points()).isEmpty();
    assertThat(sum(List.of(later), List.of(taken)).points().points()).isEmpty();
    // A repeat has one partner each.
    assertThat(sum(List.of(at(1, 1), at(1, 2)), List.of(at(1, 5), at(1, 6))).points().points())
        .extracting(ReferencePoint::mean)
        .containsExactly(6.0, 8.0);
    assertThat(sum(List.of(at(1)), List.of(at(1))).points().points()).isEmpty();
  }

  /** What is left out of one, or doubted in one, is so in the sum. */
  @Test
  void whatCountsInOneOnlyDoesNotCount() {
    var a = at(1, 1).withLeftOut("bubble").withTaken(new ReferencePoint.Taken("r", 1, 7, "swings"));
    var b = at(1, 1).withLeftOut("bubble").withTaken(new ReferencePoint.Taken("r", 1, 7));
    ReferencePoint p = sum(List.of(a), List.of(b)).points().points().getFirst();
    assertThat(p.leftOut()).isEqualTo("bubble");
    assertThat(p.counts()).isFalse();
    assertThat(p.doubt()).contains("swings");
  }

  @Test
  void voltsAndCountsDoNotAddUp() {
    var sets = new LinkedHashMap<String, PointSet>();
    sets.put("A", PointSet.EMPTY);
    assertThatThrownBy(() -> PointSum.of(sets)).isInstanceOf(QuantityException.class);
    sets.put("B", new PointSet(RawUnit.COUNTS, List.of()));
    assertThatThrownBy(() -> PointSum.of(Map.copyOf(sets)))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("do not add up");
  }
}
