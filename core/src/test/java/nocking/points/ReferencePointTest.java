package nocking.points;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import org.junit.jupiter.api.Test;

/** Repeated readings, their statistics, and points that are left out. */
class ReferencePointTest {

  private static List<Double> numbers(String cell) {
    return ReferencePoint.parseReadings(cell, Unit.VOLT).stream().map(Value::number).toList();
  }

  @Test
  void oneCellTakesSeveralReadings() {
    assertThat(numbers("1.651; 1.652;1.653")).containsExactly(1.651, 1.652, 1.653);
    assertThat(numbers("1.651 1.652")).containsExactly(1.651, 1.652);
    assertThat(numbers("530 mV; 0.531")).containsExactly(0.53, 0.531);
    assertThat(numbers("3.3/2 V")).containsExactly(1.65);
    assertThat(numbers(" ")).isEmpty();
    assertThatThrownBy(() -> numbers("1.651; many"))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("many");
  }

  /** Mean 1.652, squared deviations 1e-6 twice: s = √(2e-6/2) = 1 mV. */
  @Test
  void meanAndStandardDeviation() {
    ReferencePoint p = ReferencePoint.of(v(9), v(1.651), v(1.652), v(1.653));
    assertThat(p.mean()).isCloseTo(1.652, within(1e-12));
    assertThat(p.standardDeviation()).isCloseTo(0.001, within(1e-12));
    assertThat(ReferencePoint.of(v(9), v(1)).standardDeviation()).isNaN();
    assertThat(ReferencePoint.of(v(9)).mean()).isNaN();
  }

  @Test
  void pointIsLeftOutWithAReasonAndComesBack() {
    ReferencePoint p = ReferencePoint.of(v(9), v(1.65));
    assertThat(p.counts()).isTrue();
    assertThat(p.withLeftOut("bath not settled").counts()).isFalse();
    assertThat(p.withLeftOut("bath not settled").withLeftOut(null)).isEqualTo(p);
    assertThatThrownBy(() -> p.withLeftOut(" "))
        .hasMessage("a point is left out with a reason; the reason is empty");
    assertThat(ReferencePoint.of(v(9)).counts()).as("a planned point does not count yet").isFalse();
  }

  @Test
  void setsChangeWithoutTouchingTheOld() {
    PointSet set =
        new PointSet(
            RawUnit.VOLTS, List.of(ReferencePoint.of(v(1), v(1)), ReferencePoint.of(v(2), v(2))));
    PointSet changed =
        set.with(0, set.points().get(0).withLeftOut("x")).plus(List.of(ReferencePoint.of(v(3))));
    assertThat(changed.points()).hasSize(3);
    assertThat(changed.counting()).extracting(p -> p.applied().number()).containsExactly(2.0);
    assertThat(set.points()).hasSize(2);
    assertThat(set.without(0).points()).hasSize(1);
  }
}
