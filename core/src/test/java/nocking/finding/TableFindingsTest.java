package nocking.finding;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.points.RawUnit;
import nocking.table.Arithmetic;
import nocking.table.BenchPairs;
import nocking.table.Cell;
import nocking.table.Demands;
import nocking.table.Outside;
import nocking.table.Placement;
import nocking.table.Strokes;
import nocking.table.TableGoal;
import nocking.table.TableSpec;
import nocking.table.Transfer;
import nocking.table.TypedCell;
import org.junit.jupiter.api.Test;

/** What is said of a receiver's table and of the copy that it holds. */
class TableFindingsTest {
  private static final TableGoal BEST = TableGoal.USUAL.withPlacement(Placement.OPTIMAL);
  private static final TableSpec CODES = new TableSpec(8, RawUnit.COUNTS, false, 0, 2).with(BEST);

  private static Optional<Finding> finding(Channel c, String rule) {
    return Analysis.of(c).findings().stream().filter(f -> f.rule().equals(rule)).findFirst();
  }

  private static String says(Channel c, String rule) {
    return finding(c, rule).map(Finding::text).orElse("");
  }

  /** The channel with pairs from 0 to 14 °C on codes 400 … 3700, bent by {@code bend} degrees. */
  private static Channel bench(double bend, double noise, double lag, int pairs, long seed) {
    var r = new Random(seed);
    var raw = new ArrayList<Double>();
    var truth = new ArrayList<Double>();
    for (int i = 0; i < pairs; i++) {
      boolean down = i >= pairs / 2;
      int k = down ? pairs - 1 - i : i;
      double t = k / (pairs / 2.0 - 1);
      raw.add(Math.rint(400 + 3300 * t));
      double own = 4 + 10 * t + bend * 4 * t * (1 - t);
      truth.add(own + noise * r.nextGaussian() + (down ? lag : -lag));
    }
    return Channels.incubator()
        .receiver(
            q ->
                q.withBench(new BenchPairs("bench", RawUnit.COUNTS, raw, truth))
                    .withTable(CODES.with(BEST.withBench(true))));
  }

  @Test
  void aTableThatMissesSaysWhatWouldHold() {
    Channel c = bench(3, 0, 0, 200, 1);
    assertThat(says(c, "table-misses")).isEmpty();
    Channel two =
        c.receiver(
            r ->
                r.withTable(
                    CODES.withCells(2).with(BEST.withPlacement(Placement.EQUAL).withBench(true))));
    assertThat(says(two, "table-misses"))
        .startsWith("A straight line between the ends misses the tolerance. 2 cells leave 3.00 °C")
        .contains("against 0.1 °C")
        .containsPattern("It takes \\d+ cells\\.");
    Channel equal =
        c.receiver(
            r ->
                r.withTable(
                    CODES.withCells(8).with(BEST.withPlacement(Placement.EQUAL).withBench(true))));
    // Equal pieces are the best for a parabola: nothing is offered that gains nothing.
    finding(equal, "table-misses").ifPresent(f -> assertThat(f.fix()).isEmpty());
    assertThat(says(c.define(d -> d.withTolerance(v(0.0001))), "table-misses"))
        .contains("No table holds it: ");
  }

  /** The fix mends what it says it mends, on a curve that has its bend at one end. */
  @Test
  void theFixPutsCellsWhereTheyHold() {
    Channel c = Channels.incubator();
    var raw = new ArrayList<Double>();
    var truth = new ArrayList<Double>();
    for (int code = 400; code <= 3700; code += 10) {
      raw.add((double) code);
      truth.add(4 + 10 * Math.exp(-(code - 400) / 400.0));
    }
    Channel equal =
        c.receiver(
            r ->
                r.withBench(new BenchPairs("bench", RawUnit.COUNTS, raw, truth))
                    .withTable(
                        CODES
                            .withCells(10)
                            .with(BEST.withPlacement(Placement.EQUAL).withBench(true))));
    Finding f = finding(equal, "table-misses").orElseThrow();
    Channel mended = f.fix().orElseThrow().apply().apply(equal);
    assertThat(Analysis.of(mended).receiver().table().result().orElseThrow().holds()).isTrue();
    assertThat(finding(mended, "table-misses")).isEmpty();
    assertThat(mended.receiver().bench()).as("data are data").isEqualTo(equal.receiver().bench());
  }

  /** Two ways that differ are told from noise: 300 sets with no lag, 300 with some. */
  @Test
  void waysUpAndDownAreToldFromNoise() {
    int wrong = 0;
    int missed = 0;
    for (long seed = 0; seed < 300; seed++) {
      double noise = 0.02;
      int pairs = 200 + (int) (seed % 5) * 100;
      if (differ(bench(2, noise, 0, pairs, seed))) wrong++;
      if (!differ(bench(2, noise, 0.03, pairs, ~seed))) missed++;
    }
    assertThat(wrong).as("of 300 without any lag").isLessThanOrEqualTo(3);
    assertThat(missed).as("of 300 with three times the noise between").isLessThanOrEqualTo(3);
    assertThat(says(bench(2, 0.02, 0.03, 400, 5), "strokes-differ"))
        .startsWith("The way down sits 0.0")
        .contains(" higher. At the same raw value");
  }

  private static boolean differ(Channel noisy) {
    TableSpec quick = CODES.withCells(33).with(TableGoal.USUAL.withBench(true));
    Channel c = noisy.receiver(r -> r.withTable(quick));
    var t = Analysis.of(c).receiver().table().result().orElseThrow();
    return Strokes.of(t.pairs().orElseThrow(), t::reading).isPresent();
  }

  @Test
  void oneSlippedPairIsNamedBeforeItIsACell() {
    Channel c = bench(2, 0, 0, 60, 1);
    assertThat(says(c, "bench-slip")).isEmpty();
    var truth = new ArrayList<>(c.receiver().bench().truth());
    double right = truth.get(11);
    truth.set(11, right * 10);
    Channel slipped = c.receiver(r -> r.withBench(r.bench().withTruth(truth)));
    Finding f = finding(slipped, "bench-slip").orElseThrow();
    assertThat(f.headline()).isEqualTo("Pair 12 is out of line");
    Channel mended = f.fix().orElseThrow().apply().apply(slipped);
    assertThat(mended.receiver().bench().truth().get(11)).isCloseTo(right, within(1e-9));
  }

  @Test
  void whatTheBenchDidNotReachIsSaid() {
    Channel c = bench(0.2, 0, 0, 60, 1).define(d -> d.withRange(v(2), v(20)));
    assertThat(says(c, "table-goes-on"))
        .startsWith(
            "No bench readings below 4.00 °C and above 14.00 °C. 8.0 °C of the working range");
    assertThat(says(bench(0.2, 0, 0, 60, 1), "table-goes-on")).isEmpty();
  }

  private static Transfer transfer(Channel c, UnaryOperator<TypedCell> change, int at) {
    var t = Analysis.of(c).receiver().table().result().orElseThrow();
    List<TypedCell> cells =
        IntStream.range(0, t.count())
            .mapToObj(
                i -> {
                  Cell k = t.ordered().get(i);
                  TypedCell own = new TypedCell(k.raw(), k.out(), true, k.raw(), k.out());
                  return i == at ? change.apply(own) : own;
                })
            .toList();
    return new Transfer(
        "2026-03-12T09:40:00Z",
        "M. Brook",
        "typed in",
        "",
        t.spec().axis(),
        t.output().unit(),
        cells);
  }

  private static Channel with(Channel c, Transfer t) {
    return c.receiver(r -> r.withTransfers(List.of(t)));
  }

  @Test
  void theCopyInTheReceiverIsHeldAgainstWhatIsWanted() {
    Channel c = bench(3, 0, 0, 200, 1);
    Channel same = with(c, transfer(c, k -> k, 0));
    assertThat(Analysis.of(same).findings()).noneMatch(f -> f.rule().startsWith("receiver-"));
    Channel slip = with(c, transfer(c, k -> k.withOutBack(k.out() + 1), 3));
    assertThat(says(slip, "receiver-read-back"))
        .startsWith(
            "The receiver holds something else than was typed in. 1 cell differs: cell 4 reads back");
    assertThat(finding(slip, "receiver-behind").orElseThrow().severity())
        .isEqualTo(Severity.WARNING);
    // A pair that was exchanged is named, and not sorted back into a list that would do.
    Transfer sent = transfer(c, k -> k, 0);
    var cells = new ArrayList<>(sent.cells());
    TypedCell earlier = cells.get(2);
    TypedCell later = cells.get(3);
    cells.set(2, earlier.withRawBack(later.raw()).withOutBack(later.out()));
    cells.set(3, later.withRawBack(earlier.raw()).withOutBack(earlier.out()));
    Channel pair =
        with(
            c, new Transfer(sent.at(), sent.by(), sent.how(), "", sent.axis(), sent.unit(), cells));
    assertThat(says(pair, "receiver-read-back"))
        .contains("It looks as if cells 3 and 4 are exchanged.", "what it gives is not known");
    assertThat(says(pair, "receiver-behind")).doesNotContain("It leaves");
    Channel order = with(c, transfer(c, k -> k.withRawBack(5.0), 3));
    assertThat(says(order, "receiver-refuses"))
        .contains("It wants raw values that rise, and cell 4 has 5 after");
    Channel falls = same.receiver(r -> r.withTable(r.table().withDescending(true)));
    assertThat(says(falls, "receiver-refuses")).contains("It wants raw values that fall");
    double second = Analysis.of(c).receiver().table().result().orElseThrow().cells().get(1).raw();
    Channel equal = with(c, transfer(c, k -> k.withRawBack(second), 2));
    assertThat(says(equal, "receiver-refuses")).contains("Cells 2 and 3 both have raw ");
    Channel allowed =
        equal.receiver(r -> r.withTable(r.table().with(Demands.NONE.withRefusesEqual(false))));
    assertThat(says(allowed, "receiver-refuses")).isEmpty();
    // Another choice of cells that is as good is no reason to type them anew.
    Channel finer = same.receiver(r -> r.withTable(r.table().withCells(9)));
    Finding behind = finding(finer, "receiver-behind").orElseThrow();
    assertThat(behind.severity()).isEqualTo(Severity.ADVICE);
    assertThat(behind.headline())
        .isEqualTo("The receiver has the table of 2026-03-12, and it will do");
    Channel volts = same.receiver(r -> r.withTable(r.table().withAxis(RawUnit.VOLTS)));
    assertThat(says(volts, "receiver-behind"))
        .startsWith("The receiver has a table of another kind");
  }

  /** A copy of a part of the range is good for that part, and not for the rest. */
  @Test
  void aCopyOfAPartOfTheRangeWillNotDo() {
    Channel c = bench(3, 0, 0, 200, 1);
    Transfer whole = transfer(c, k -> k, 0);
    Transfer middle =
        new Transfer(
            whole.at(),
            "K",
            "flashed",
            "",
            whole.axis(),
            whole.unit(),
            whole.cells().subList(2, 5));
    Finding held = finding(with(c, middle), "receiver-behind").orElseThrow();
    assertThat(held.severity()).isEqualTo(Severity.WARNING);
    assertThat(held.detail()).startsWith("It has 3 cells, this one 8. It leaves ");
    Channel fault =
        with(c, middle)
            .receiver(
                r -> r.withTable(r.table().with(Arithmetic.LINES.withOutside(Outside.FAULT))));
    assertThat(says(fault, "receiver-behind"))
        .endsWith("Over a part of the range it has no reading.");
    // A list in the wrong order is good for nothing, whatever its cells are.
    Channel falls = with(c, whole).receiver(r -> r.withTable(r.table().withDescending(true)));
    assertThat(finding(falls, "receiver-behind").orElseThrow().severity())
        .isEqualTo(Severity.WARNING);
  }

  /** Rows of a datasheet: a table that holds at the rows and not between them says so. */
  @Test
  void betweenTheRowsATableIsJudgedToo() {
    List<Double> raw = List.of(400.0, 1000.0, 1600.0, 2200.0, 2800.0, 3700.0);
    List<Double> truth = List.of(4.0, 9.0, 11.5, 12.8, 13.5, 14.0);
    Channel c =
        Channels.incubator()
            .receiver(
                r ->
                    r.withBench(new BenchPairs("sheet", RawUnit.COUNTS, raw, truth))
                        .withTable(
                            CODES
                                .withCells(3)
                                .with(BEST.withPlacement(Placement.EQUAL).withBench(true))));
    var t = Analysis.of(c).receiver().table().result().orElseThrow();
    double worst = 0;
    for (double code = 400; code <= 3700; code++) {
      int k = 0;
      while (k < 4 && raw.get(k + 1) < code) k++;
      double share = (code - raw.get(k)) / (raw.get(k + 1) - raw.get(k));
      double line = truth.get(k) + share * (truth.get(k + 1) - truth.get(k));
      worst = Math.max(worst, Math.abs(t.reading(code) - line));
    }
    assertThat(t.error().worst()).isCloseTo(worst, within(1e-6));
    assertThat(t.holds()).isFalse();
    Channel wide = tolerating(c, worst * 0.999);
    assertThat(says(wide, "table-misses")).contains("3 cells leave ");
    assertThat(says(tolerating(c, worst * 1.001), "table-misses")).isEmpty();
  }

  /** The best of all cells that the receiver holds is offered, not of those that a habit took. */
  @Test
  void theFixUsesTheCellsThatItSays() {
    Channel c = bench(3, 0, 0, 200, 1);
    Channel every =
        c.receiver(
            r ->
                r.withTable(
                    CODES
                        .withCells(12)
                        .with(BEST.withPlacement(Placement.EVERY).withEvery(50).withBench(true))));
    Finding f = finding(every, "table-misses").orElseThrow();
    assertThat(f.fix().orElseThrow().label()).matches("Put \\d+ cells in the best places");
    Channel mended = f.fix().orElseThrow().apply().apply(every);
    var now = Analysis.of(mended).receiver().table().result().orElseThrow();
    assertThat(f.fix().orElseThrow().label()).contains("Put " + now.count() + " cells");
    assertThat(f.detail())
        .contains(
            "In the best places %d leave %s"
                .formatted(now.count(), now.output().error(now.error().worst())));
  }

  /** Volts for a receiver of counts are looked at as they were read. */
  @Test
  void pairsInVoltsAreNoSlips() {
    var raw = new ArrayList<Double>();
    var truth = new ArrayList<Double>();
    for (int i = 0; i < 60; i++) {
      raw.add(0.3 + i * 0.045);
      truth.add(4 + 10 * Math.pow(i / 59.0, 2));
    }
    Channel c =
        Channels.incubator()
            .receiver(
                r ->
                    r.withBench(new BenchPairs("bench", RawUnit.VOLTS, raw, truth))
                        .withTable(CODES.with(BEST.withBench(true))));
    assertThat(says(c, "bench-slip")).isEmpty();
    assertThat(Analysis.of(c).receiver().table().problem()).isEmpty();
  }

  private static Channel tolerating(Channel c, double tolerance) {
    return c.define(d -> d.withTolerance(v(tolerance)));
  }
}
