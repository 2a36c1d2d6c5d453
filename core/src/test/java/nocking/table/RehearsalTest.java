package nocking.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

/** What a table does to readings, beside a straight line, before it is uploaded. */
class RehearsalTest {
  private static final StepTable BENT =
      new StepTable(0, 1, new int[] {0, 50, 100}, new long[] {0, 700, 1000}, true);

  private static Rehearsal rehearse(double... raw) {
    double[] truth = new double[raw.length];
    for (int i = 0; i < raw.length; i++) truth[i] = BENT.line(raw[i]) + 0.25;
    return Rehearsal.of(BENT, truth, raw, v -> v, r -> r > 120 ? Double.NaN : BENT.line(r));
  }

  @Test
  void theLineBetweenTheEndsIsOffWhereTheTableBends() {
    Rehearsal r = rehearse(0, 25, 50, 75, 100);
    assertThat(r.straight()).containsExactly(0, 25, 50, 75, 100);
    assertThat(r.worst(r.straight())).isCloseTo(20.25, within(1e-12));
    assertThat(r.worst(r.table())).isCloseTo(0.25, within(1e-12));
    assertThat(r.off(r.table())).containsOnly(new double[] {-0.25}, within(1e-12));
  }

  /** Within and beyond the ends are two statements; neither is made of nothing. */
  @Test
  void whatLiesBeyondTheEndsIsToldApart() {
    Rehearsal r = rehearse(10, 110, 130);
    assertThat(r.worstWithin(BENT)).isCloseTo(0.25, within(1e-12));
    assertThat(r.worstBeyond(BENT)).as("a fault is no error").isCloseTo(0.25, within(1e-12));
    assertThat(rehearse(10, 100).worstBeyond(BENT)).isNaN();
    assertThat(rehearse(-1, 130).worstWithin(BENT)).isNaN();
    assertThat(Rehearsal.NONE.worst(new double[0])).isNaN();
  }
}
