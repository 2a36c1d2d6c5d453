package nocking.view;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.firmware.TableFirmware;
import nocking.points.RawUnit;
import nocking.sensor.NtcBeta;
import nocking.stage.PullUp;
import nocking.table.Arithmetic;
import nocking.table.BenchPairs;
import nocking.table.Cell;
import nocking.table.Demands;
import nocking.table.DisplayLimits;
import nocking.table.Outside;
import nocking.table.Placement;
import nocking.table.TableGoal;
import nocking.table.TableSearch;
import nocking.table.TableSpec;
import nocking.wiring.Thresholds;
import org.junit.jupiter.api.Test;

/** The table of a channel, as its receiver wants it. */
class ReceiverTableTest {
  private static final TableGoal BEST = TableGoal.USUAL.withPlacement(Placement.OPTIMAL);
  private static final TableSpec CODES = new TableSpec(16, RawUnit.COUNTS, false, 0, 2).with(BEST);

  /** A thermistor behind a pull-up, 0 to 40 °C. */
  private static Channel bent() {
    return Channels.incubator()
        .define(d -> d.withRange(v(0), v(40)).withTolerance(v(0.1)))
        .design(
            d ->
                d.withSensor(NtcBeta.of(10e3, 25, 3950))
                    .withStages(List.of(new PullUp(v(3.3), v(10e3)))));
  }

  private static TableResult table(Channel c, TableSpec spec) {
    TableOutcome o = Analysis.of(c.receiver(r -> r.withTable(spec))).receiver().table();
    assertThat(o.problem()).isEmpty();
    return o.result().orElseThrow();
  }

  private static String problem(Channel c, TableSpec spec) {
    return Analysis.of(c.receiver(r -> r.withTable(spec))).receiver().table().problem();
  }

  /** What is true for a code, from the parts alone. */
  private static double truth(double code) {
    double volts = Channels.incubator().design().converter().volts(code);
    double ohms = 10e3 * volts / (3.3 - volts);
    return 1 / (1 / 298.15 + Math.log(ohms / 10e3) / 3950) - 273.15;
  }

  private static double worst(TableResult t) {
    double worst = 0;
    for (double code = t.cells().getFirst().raw(); code <= t.cells().getLast().raw(); code++) {
      worst = Math.max(worst, Math.abs(t.reading(code) - truth(code)));
    }
    return worst;
  }

  /** Code for code against the sensor's own formula, in integers and in lines. */
  @Test
  void theFewestCellsHoldTheToleranceAndOneLessDoesNot() {
    for (boolean whole : new boolean[] {true, false}) {
      TableSpec spec =
          CODES.with(BEST.withFewest(true)).with(Arithmetic.LINES.withWhole(whole).withRawBits(12));
      TableResult t = table(bent(), spec);
      assertThat(t.holds()).isTrue();
      assertThat(worst(t))
          .isLessThanOrEqualTo(0.1 + 1e-9)
          .isCloseTo(t.error().worst(), within(1e-9));
      assertThat(t.made().proven()).isTrue();
      assertThat(t.withOneLess().orElseThrow().worst()).isGreaterThan(0.1);
      assertThat(t.says()).startsWith(t.count() + " cells hold 0.1 °C; no table with fewer does.");
      assertThat(
              worst(
                  table(
                      bent(), spec.with(BEST.withPlacement(Placement.EQUAL)).withCells(t.count()))))
          .as("equal steps of as many")
          .isGreaterThan(0.1);
    }
  }

  @Test
  void aTableThatMissesSaysByHowMuchAndTheLineBetweenTheEndsIsBesideIt() {
    TableResult t = table(bent(), CODES.withCells(4).with(TableGoal.USUAL));
    assertThat(t.holds()).isFalse();
    assertThat(t.says()).matches("It misses 0\\.1 °C by \\d+\\.\\d+ °C\\.");
    assertThat(t.beside())
        .extracting(c -> c.placement())
        .containsExactly("equal", "optimal", "pow2", "ends");
    assertThat(t.beside().get(1).error().worst()).isLessThan(t.error().worst());
    assertThat(t.beside().getLast().error().worst()).isGreaterThan(t.error().worst());
  }

  @Test
  void aToleranceIsTypedInTheQuantityInItsSpanOrInSteps() {
    TableSpec spec = CODES.with(BEST.withFewest(true));
    double span = table(bent(), spec).truth().span();
    assertThat(tolerance(spec, "0.2")).isEqualTo(0.2);
    assertThat(tolerance(spec, "200 mK")).isCloseTo(0.2, within(1e-12));
    assertThat(tolerance(spec, "0.5 %")).isCloseTo(0.005 * span, within(1e-12));
    assertThat(tolerance(spec, "12 LSB")).isCloseTo(0.12, within(1e-12));
    assertThat(tolerance(spec, null)).as("the channel's own").isEqualTo(0.1);
    assertThat(problem(bent(), spec.with(spec.goal().withTolerance("0 LSB"))))
        .isEqualTo("read 0 LSB, expected more than 0");
    Channel none = bent().define(d -> d.withTolerance(null));
    assertThat(problem(none, spec))
        .isEqualTo("the fewest cells need a tolerance: say how far off the table may be");
  }

  private static double tolerance(TableSpec spec, String typed) {
    return table(bent(), spec.with(spec.goal().withTolerance(typed))).tolerance();
  }

  /** Outputs that count to a full scale mean the quantity that the formula gives. */
  @Test
  void outputsCanCountToAFullScale() {
    TableSpec spec =
        CODES
            .with(BEST.withFewest(true).withTolerance("1.5 LSB"))
            .with(new Arithmetic(true, 4096, 12, 16, Outside.HOLD));
    TableResult t = table(bent(), spec);
    assertThat(t.output().unit()).isEqualTo("counts");
    assertThat(t.tolerance()).isEqualTo(1.5);
    assertThat(worst(t)).isLessThanOrEqualTo(1.5 * 40 / 4096 + 1e-9);
    assertThat(t.output().quantity(4096)).isEqualTo(40);
    double beyond = t.cells().getLast().raw() + 40;
    assertThat(t.reading(beyond)).as("held").isEqualTo(t.reading(beyond - 40));
    TableSpec fault = spec.with(spec.arithmetic().withOutside(Outside.FAULT));
    assertThat(table(bent(), fault).reading(beyond)).isNaN();
    assertThat(t.beyondSays()).startsWith("Beyond its ends it stands still at 4");
    assertThat(table(bent(), fault).beyondSays()).isEqualTo("Beyond its ends it shows a fault.");
    TableSpec extend = spec.with(spec.arithmetic().withOutside(Outside.EXTEND));
    TableResult on = table(bent(), extend);
    double step = on.reading(beyond) - on.reading(beyond - 1);
    assertThat(on.beyondSays())
        .startsWith("Beyond its ends it goes on by -")
        .endsWith(" counts for each count of raw.");
    assertThat(step).isNegative();
  }

  /** One cell set by hand: it is marked, its cost is said, and it goes with a click. */
  @Test
  void aCellSetByHandHoldsAndSaysWhatItCosts() {
    TableResult worked = table(bent(), CODES);
    Cell third = worked.cells().get(2);
    TableResult set = table(bent(), CODES.withHand(new Cell(third.raw(), third.out() + 1)));
    assertThat(set.byHand().indexOf(true)).isEqualTo(2);
    assertThat(set.cells().get(2).out()).isCloseTo(third.out() + 1, within(1e-9));
    assertThat(set.error().worst()).isGreaterThan(0.9);
    assertThat(set.untouched().worst()).isEqualTo(worked.error().worst());
    assertThat(set.says()).contains("Set by hand: worst ");
    assertThat(table(bent(), set.spec().withoutHand(third.raw())).cells())
        .isEqualTo(worked.cells());
    TableResult stray = table(bent(), CODES.withHand(new Cell(third.raw() + 1, 5)));
    assertThat(stray.cells()).isEqualTo(worked.cells());
    assertThat(stray.says()).contains("One cell set by hand has no place in this table.");
  }

  /** The end cells that a receiver demands lie on the lines that go on there. */
  @Test
  void demandedEndsStandOnTheEndSlopes() {
    TableSpec volts = new TableSpec(10, RawUnit.VOLTS, false, 3, 2).with(BEST);
    TableResult free = table(bent(), volts.withCells(8));
    TableResult ends = table(bent(), volts.with(Demands.NONE.withEnds(v(0), v(3.3))));
    assertThat(ends.count()).isEqualTo(10);
    assertThat(ends.cells().getFirst().raw()).isZero();
    assertThat(ends.cells().getLast().raw()).isEqualTo(3.3);
    assertThat(ends.cells().subList(1, 9)).isEqualTo(free.cells());
    assertThat(ends.error().worst()).isCloseTo(free.error().worst(), within(1e-12));
    assertThat(ends.cells().getFirst().out()).isCloseTo(free.reading(0), within(0.006));
    assertThat(problem(bent(), volts.with(Demands.NONE.withEnds(v(1.5), null))))
        .startsWith("the receiver wants its first cell at 1.5, inside the range");
  }

  @Test
  void aFixedAxisIsKeptOrRefusedWithItsValue() {
    TableSpec fixed =
        CODES
            .with(BEST.withPlacement(Placement.FIXED))
            .with(Demands.NONE.withRawAxis(List.of(1000.0, 2000.0, 2900.0, 4095.0)));
    TableResult t = table(bent(), fixed);
    assertThat(t.cells()).extracting(Cell::raw).containsExactly(1000.0, 2000.0, 2900.0, 4095.0);
    assertThat(t.cells().get(1).out()).isCloseTo(truth(2000), within(0.0051));
    assertThat(t.says()).contains("2 cells lie beyond what is known");
    assertThat(problem(bent(), fixed.with(Demands.NONE.withRawAxis(List.of(10.0, 20.0)))))
        .isEqualTo("the fixed axis goes from raw 10 to 20, the data from 1419 to 3156");
    assertThat(problem(bent(), fixed.with(Demands.NONE)))
        .isEqualTo("the receiver's fixed axis is not said yet");
  }

  /** Bench pairs with noise and several true values a code, on 200 seeded sets. */
  @Test
  void benchPairsAreHeldAtEveryPair() {
    var r = new Random(905);
    for (int k = 0; k < 200; k++) {
      var raw = new ArrayList<Double>();
      var truth = new ArrayList<Double>();
      double bend = 0.5 + 2 * r.nextDouble();
      for (int i = 0; i < 400; i++) {
        double code = r.nextInt(4096);
        raw.add(code);
        truth.add(40 * Math.pow(code / 4095, bend) + 0.05 * (r.nextDouble() - 0.5));
      }
      Channel c =
          bent().receiver(q -> q.withBench(new BenchPairs("bench", RawUnit.COUNTS, raw, truth)));
      TableSpec spec = CODES.with(BEST.withFewest(true).withTolerance("0.3").withBench(true));
      TableResult t = table(c, spec);
      double worst = 0;
      for (int i = 0; i < raw.size(); i++) {
        worst = Math.max(worst, Math.abs(t.reading(raw.get(i)) - truth.get(i)));
      }
      assertThat(worst).isLessThanOrEqualTo(0.3 + 1e-9).isCloseTo(t.error().worst(), within(1e-9));
    }
  }

  /** Broken wires and the ends of the display are part of the look-up that is written. */
  @Test
  void limitsAreBuiltIntoTheLookUp() {
    Channel c =
        bent()
            .wiring(w -> w.withPlan(w.plan().withThresholds(new Thresholds(v(0.5), v(3.0)))))
            .receiver(
                r ->
                    r.withTable(CODES.with(Arithmetic.LINES.withWhole(true).withRawBits(12)))
                        .withLimits(new DisplayLimits(v(2), v(35))));
    TableFirmware f = Analysis.of(c).receiver().firmware();
    var converter = c.design().converter();
    int low = converter.code(0.5);
    int high = converter.code(3.0);
    assertThat(f.look(low - 1)).isEqualTo(TableFirmware.FAULT);
    assertThat(f.look(low)).isNotEqualTo(TableFirmware.FAULT);
    assertThat(f.look(high)).isNotEqualTo(TableFirmware.FAULT);
    assertThat(f.look(high + 1)).isEqualTo(TableFirmware.FAULT);
    for (int code = low; code <= high; code++) {
      double whole = f.table().whole(code) / 100.0;
      assertThat(f.look(code) / 100.0).isEqualTo(Math.clamp(whole, 2, 35));
    }
  }

  @Test
  void tooManyRowsForTheReceiverAreNamed() {
    Channel c =
        bent()
            .receiver(
                q ->
                    q.withBench(
                        new BenchPairs(
                            "sheet",
                            RawUnit.COUNTS,
                            List.of(0.0, 1000.0, 2000.0, 3000.0, 4000.0),
                            List.of(0.0, 10.0, 22.0, 36.0, 50.0))));
    TableSpec spec =
        CODES.withCells(4).with(BEST.withPlacement(Placement.AT_POINTS).withBench(true));
    assertThat(problem(c, spec)).isEqualTo("at the points makes 5 cells, the receiver holds 4");
    TableResult every =
        table(c, spec.with(spec.goal().withPlacement(Placement.EVERY).withEvery(2)));
    assertThat(every.cells()).extracting(Cell::raw).containsExactly(0.0, 2000.0, 4000.0);
    assertThat(problem(bent(), spec)).startsWith("there are no bench pairs yet");
    assertThat(problem(c, spec.withAxis(RawUnit.OHMS)))
        .isEqualTo("the bench pairs are in counts, the receiver wants ohms");
  }

  /**
   * Whoever asks for a table that is being searched for sees the same search, and gets what it
   * found; an end by one is an end for all.
   */
  @Test
  void aTableIsSearchedForOnceAndEndedForAll() throws Exception {
    var pairs =
        new BenchPairs(
            "bench",
            RawUnit.COUNTS,
            List.of(
                0.0, 1023.0, 347.0, 326.0, 441.0, 974.0, 629.0, 933.0, 652.0, 1021.0, 61.0, 61.0),
            List.of(0.8, 60.3, 17.9, 21.6, 20.3, 63.6, 30.4, 66.2, 32.1, 63.2, 7.9, 7.95));
    TableSpec spec =
        CODES
            .withOutDecimals(0)
            .with(Arithmetic.LINES.withWhole(false))
            .with(BEST.withFewest(true).withBench(true).withTolerance("0.7122"));
    Channel c = bent().receiver(r -> r.withTable(spec).withBench(pairs));
    ReceiverView one = Analysis.of(c).receiver();
    ReceiverView two = Analysis.of(c).receiver();
    assertThat(one.tableSearch()).isEmpty();
    var first = CompletableFuture.supplyAsync(one::table);
    var second = CompletableFuture.supplyAsync(two::table);
    Optional<TableSearch> search = two.tableSearch();
    while (!first.isDone() && (search.isEmpty() || search.get().share() < 0.02)) {
      Thread.onSpinWait();
      search = two.tableSearch();
    }
    assertThat(one.tableSearch()).isEqualTo(search);
    search.get().end();
    TableOutcome found = first.get(1, TimeUnit.MINUTES);
    assertThat(second.get(1, TimeUnit.MINUTES)).isSameAs(found);
    assertThat(found.result().orElseThrow().made().proven()).isFalse();
    assertThat(found.result().orElseThrow().says())
        .contains("whether fewer than these do is not known");
    assertThat(one.tableSearch()).isEmpty();
    assertThat(Analysis.of(c).receiver().tableIfKnown()).contains(found);
  }
}
