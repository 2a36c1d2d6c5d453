package nocking.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** A list of cells reads as the receiver's own integers do, wherever it came from. */
class HeldCopyTest {

  static LongStream seeds() {
    return LongStream.range(0, 200);
  }

  private static List<Cell> cells(StepTable t) {
    return IntStream.range(0, t.count()).mapToObj(i -> new Cell(t.rawOf(i), t.outOf(i))).toList();
  }

  /** Cells on a bent curve at any places; ends included. */
  private static StepTable table(Random r, Truth truth, int decimals, boolean rounded) {
    int first = truth.axis().first();
    int last = truth.axis().last();
    int[] raw =
        IntStream.concat(IntStream.of(first, last), r.ints(r.nextInt(12), first, last))
            .distinct()
            .sorted()
            .toArray();
    long[] out =
        IntStream.of(raw)
            .mapToLong(i -> Math.round(truth.at(i) * Math.pow(10, decimals)) + r.nextInt(5) - 2)
            .toArray();
    return new StepTable(truth.axis().decimals(), decimals, raw, out, rounded);
  }

  /** The worst error of a copy is the worst of the table that it is a copy of. */
  @ParameterizedTest
  @MethodSource("seeds")
  void aCopyLeavesWhatItsTableLeaves(long seed) {
    var r = new Random(seed);
    double bend = 40 * r.nextDouble();
    double slope = (r.nextBoolean() ? 1 : -1) * (0.1 + r.nextDouble());
    int rawDecimals = r.nextInt(3);
    double high = (300 + r.nextInt(2000)) / Math.pow(10, rawDecimals);
    Truth truth =
        Truth.of(x -> slope * 80 * x / high + bend * Math.sin(3 * x / high), 0, high, rawDecimals);
    boolean rounded = r.nextBoolean();
    StepTable t = table(r, truth, r.nextInt(3), rounded);
    List<Cell> held = new ArrayList<>(cells(t));
    if (r.nextBoolean()) Collections.reverse(held);
    assertThat(HeldCopy.worst(held, truth, Outside.FAULT, t.rounding()))
        .isCloseTo(t.against(truth).worst(), within(1e-9));
    assertThat(HeldCopy.differing(held, held)).isZero();
  }

  /** A copy that ends early goes on as its arithmetic says, or has no reading there. */
  @Test
  void beyondItsEndsACopyDoesWhatTheReceiverDoes() {
    Truth truth = Truth.of(x -> x, 0, 100, 0);
    List<Cell> half = List.of(new Cell(0, 0), new Cell(50, 50));
    assertThat(HeldCopy.worst(half, truth, Outside.EXTEND, 0)).isZero();
    assertThat(HeldCopy.worst(half, truth, Outside.HOLD, 0)).isEqualTo(50);
    assertThat(HeldCopy.worst(half, truth, Outside.FAULT, 0)).isInfinite();
    assertThat(HeldCopy.at(half, 50, 0)).isEqualTo(50);
    assertThat(HeldCopy.at(half, 50.001, 0)).isNaN();
    assertThat(HeldCopy.at(half, Double.NaN, 0)).isNaN();
    // Half a step goes up, below zero too.
    List<Cell> steep = List.of(new Cell(0, -10), new Cell(20, 10));
    assertThat(HeldCopy.at(steep, 0.5, 1)).isEqualTo(-9);
    assertThat(HeldCopy.at(steep, 19.5, 1)).isEqualTo(10);
  }

  /** Cells with one raw value are refused or not, as the receiver has it; never read across. */
  @Test
  void equalRawValuesAreSaidAndGiveNoReading() {
    List<Cell> equal = List.of(new Cell(0, 0), new Cell(10, 1), new Cell(10, 2));
    assertThat(HeldCopy.refused(equal, false, true)).hasValue("Cells 2 and 3 both have raw 10");
    assertThat(HeldCopy.refused(equal, false, false)).isEmpty();
    assertThat(HeldCopy.refused(equal.reversed(), false, false))
        .hasValue("It wants raw values that rise, and cell 3 has 0 after 10");
    assertThat(HeldCopy.refused(equal.reversed(), true, false)).isEmpty();
    assertThat(HeldCopy.at(equal, 10, 0)).isNaN();
    assertThat(HeldCopy.differing(equal, equal.subList(0, 2))).isEqualTo(1);
  }
}
