package nocking.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import nocking.table.TypingSlip.Kind;
import org.junit.jupiter.api.Test;

/** Lists as hands type them. */
class TypingSlipTest {
  /** A table whose cells are all different from each other. */
  private static List<Cell> table(Random r, int n) {
    var list = new ArrayList<Cell>();
    for (int i = 0; i < n; i++)
      list.add(new Cell(10 * i + r.nextInt(9), 100 + 37 * i + r.nextInt(30)));
    return list;
  }

  /** Each slip is found again by its cell, whatever else could have been. */
  @Test
  void aSlipIsNamedByItsCell() {
    var r = new Random(17);
    for (int round = 0; round < 400; round++) {
      int n = 5 + r.nextInt(28);
      List<Cell> meant = table(r, n);
      int i = r.nextInt(n - 3);
      int k = i + 1 + r.nextInt(n - 1 - i);
      var swapped = new ArrayList<>(meant);
      Collections.swap(swapped, i, k);
      assertThat(TypingSlip.of(meant, swapped)).hasValue(new TypingSlip(Kind.EXCHANGED, i, k, ""));
      var outs = new ArrayList<>(meant);
      outs.set(i, new Cell(meant.get(i).raw(), meant.get(k).out()));
      outs.set(k, new Cell(meant.get(k).raw(), meant.get(i).out()));
      assertThat(TypingSlip.of(meant, outs))
          .hasValue(new TypingSlip(Kind.OUTPUTS_EXCHANGED, i, k, ""));
      var forgotten = new ArrayList<>(meant);
      forgotten.remove(i);
      forgotten.add(new Cell(0, 0));
      assertThat(TypingSlip.of(meant, forgotten))
          .hasValue(new TypingSlip(Kind.FORGOTTEN, i, i, ""));
      var twice = new ArrayList<>(meant);
      twice.add(i, meant.get(i));
      twice.removeLast();
      assertThat(TypingSlip.of(meant, twice)).hasValue(new TypingSlip(Kind.TWICE, i, i, ""));
      var wrong = new ArrayList<>(meant);
      wrong.set(k, new Cell(meant.get(k).raw(), 10 * meant.get(k).out()));
      assertThat(TypingSlip.of(meant, wrong))
          .hasValue(new TypingSlip(Kind.WRONG, k, k, "its decimal point slipped"));
      assertThat(TypingSlip.of(meant, meant)).isEmpty();
    }
  }

  @Test
  void whatHappenedToANumberIsSaid() {
    assertThat(of(23.14, 23.41)).isEqualTo("cell 2 is wrong: two of its digits are exchanged");
    assertThat(of(23.14, -23.14)).isEqualTo("cell 2 is wrong: its sign is lost");
    assertThat(of(23.14, 0.02314)).isEqualTo("cell 2 is wrong: its decimal point slipped");
    assertThat(of(23.14, 23.7)).isEqualTo("cell 2 is wrong");
  }

  private static String of(double meant, double held) {
    List<Cell> a = List.of(new Cell(0, 1), new Cell(1, meant), new Cell(2, 60));
    List<Cell> b = List.of(new Cell(0, 1), new Cell(1, held), new Cell(2, 60));
    return TypingSlip.of(a, b).orElseThrow().says();
  }

  /** Two slips at once are not talked into one. */
  @Test
  void moreThanOneSlipIsNone() {
    List<Cell> meant = table(new Random(3), 12);
    var held = new ArrayList<>(meant);
    Collections.swap(held, 1, 4);
    held.set(9, new Cell(1, 1));
    assertThat(TypingSlip.of(meant, held)).isEmpty();
    assertThat(TypingSlip.of(meant, meant.subList(0, 11))).isEmpty();
  }

  /** A list without an order gives nothing that could be counted. */
  @Test
  void anExchangedPairIsNotSortedBack() {
    List<Cell> meant = table(new Random(5), 9);
    assertThat(HeldCopy.ordered(meant)).isTrue();
    assertThat(HeldCopy.ordered(meant.reversed())).isTrue();
    var swapped = new ArrayList<>(meant);
    Collections.swap(swapped, 3, 4);
    assertThat(HeldCopy.ordered(swapped)).isFalse();
  }
}
