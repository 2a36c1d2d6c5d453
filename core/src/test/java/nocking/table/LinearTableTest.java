package nocking.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import nocking.firmware.TableSource;
import nocking.points.RawUnit;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import org.junit.jupiter.api.Test;

/** Tables in equal steps, as the receiver holds them. */
class LinearTableTest {
  private static final Span RANGE = new Span(0, 2);

  /** A chord over an interval h of x² lies at most h²/4 above it. */
  @Test
  void errorBetweenTheCellsOfAParabolaIsKnown() {
    for (int cells : new int[] {2, 3, 5, 9, 17}) {
      LinearTable t = LinearTable.equalSteps(x -> x * x, RANGE, cells, 9, 9);
      double h = 2.0 / (cells - 1);
      assertThat(t.against(x -> x * x, false).worst()).isCloseTo(h * h / 4, within(1e-6));
    }
  }

  @Test
  void everyCodeIsLookedAt() {
    Random r = new Random(7);
    double[] truth = r.doubles(4096, 0, 1).toArray();
    LinearTable t = LinearTable.equalSteps(c -> truth[(int) c], new Span(0, 4095), 16, 0, 4);
    double worst = 0;
    for (int code = 0; code < 4096; code++) {
      worst = Math.max(worst, Math.abs(t.look(code) - truth[code]));
    }
    assertThat(t.against(c -> truth[(int) c], true).worst()).isEqualTo(worst);
  }

  @Test
  void outputBelongsToTheRoundedRawValue() {
    LinearTable t = LinearTable.equalSteps(x -> 1000 * x, RANGE, 4, 1, 3);
    assertThat(t.cells().get(1)).isEqualTo(new Cell(0.7, 700));
    assertThat(t.against(x -> 1000 * x, false).worst()).isLessThan(1e-9);
  }

  @Test
  void tooManyCellsForTheDecimalsAreRefused() {
    assertThatThrownBy(() -> LinearTable.equalSteps(x -> x, RANGE, 9, 0, 2))
        .isInstanceOf(QuantityException.class)
        .hasMessage(
            "cells 1 and 2 both have the raw value 0; ask for fewer cells or more raw decimals");
    assertThatThrownBy(() -> TableSpec.DEFAULT.withCells(1))
        .hasMessage("cells must be 2 to 1024; read 1");
  }

  @Test
  void endSlopesGoOnOutside() {
    LinearTable t = LinearTable.equalSteps(x -> x * x, RANGE, 3, 3, 3);
    assertThat(t.look(3)).isCloseTo(7, within(1e-9));
    assertThat(t.look(-1)).isCloseTo(-1, within(1e-9));
  }

  @Test
  void receiverGetsItsOrderAndDecimals() {
    LinearTable t = LinearTable.equalSteps(x -> -x, new Span(0, 100), 3, 0, 1);
    var source =
        new TableSource("in_t2", "IN-T2 */ evil", "°C", RawUnit.COUNTS, true, 0, 1, null, null);
    assertThat(source.csv(t)).isEqualTo("raw,out\ncounts,°C\n100,-100.0\n50,-50.0\n0,0.0\n");
    assertThat(source.header(t, t.against(x -> -x, true)))
        .contains("static const int32_t in_t2_raw[IN_T2_CELLS] = {100, 50, 0};")
        .contains("static const double in_t2_out[IN_T2_CELLS] = {-100.0, -50.0, 0.0};")
        .startsWith("/* IN-T2 * / evil");
  }
}
