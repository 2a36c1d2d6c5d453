package nocking.view;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.channel.Channel;
import nocking.fit.Samples;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.table.BenchPairs;
import nocking.table.BetweenPairs;
import nocking.table.Cell;
import nocking.table.Demands;
import nocking.table.MadeTable;
import nocking.table.Placement;
import nocking.table.StepTable;
import nocking.table.TableError;
import nocking.table.TableGoal;
import nocking.table.TableRequest;
import nocking.table.TableSearch;
import nocking.table.TableSpec;
import nocking.table.Truth;

/** Makes the table of a channel: of its curve or of bench pairs, as its receiver wants it. */
final class TableWork {
  /**
   * Raw steps that are looked at. A finer axis of a curve gets its cells on every tenth step; pairs
   * over more steps are refused.
   */
  private static final double MOST_STEPS = 400_000;

  private final Channel channel;
  private final RawColumn column;
  private final TableSpec spec;
  private final OutputColumn output;

  TableWork(Channel channel, RawColumn column) {
    this.channel = channel;
    this.column = column;
    spec = channel.receiver().table();
    output = OutputColumn.of(channel, spec);
  }

  /**
   * @param search that others look at and may end
   * @throws QuantityException where there is no such table: one sentence
   */
  TableResult result(TableSearch search) {
    Optional<Samples> pairs = spec.goal().bench() ? Optional.of(pairs()) : Optional.empty();
    Truth truth = pairs.map(p -> BenchPairs.truth(p, spec.rawDecimals())).orElseGet(this::ofCurve);
    double tolerance = tolerance(truth);
    Demands demands = spec.demands();
    boolean low = demands.lowEnd() != null && below(demands.lowEnd().number(), truth);
    boolean high = demands.highEnd() != null && above(demands.highEnd().number(), truth);
    TableRequest request = request(truth, tolerance, (low ? 1 : 0) + (high ? 1 : 0));
    MadeTable made = request.of(truth, search);
    StepTable held = made.table();
    if (low) held = extended(held, demands.lowEnd().number(), true);
    if (high) held = extended(held, demands.highEnd().number(), false);
    fits(held);
    StepTable worked = held;
    List<Cell> strays = spec.byHand().stream().filter(c -> place(worked, c.raw()) < 0).toList();
    StepTable set = byHand(worked);
    TableError untouched = TableResult.left(worked, truth, pairs);
    return new TableResult(
        spec,
        output,
        request,
        made,
        worked,
        set,
        marks(worked),
        strays,
        truth,
        pairs,
        set == worked ? untouched : TableResult.left(set, truth, pairs),
        untouched,
        tolerance,
        pairs.flatMap(p -> BetweenPairs.of(set, truth)));
  }

  private Truth ofCurve() {
    Span raw = column.span();
    int decimals = spec.rawDecimals();
    while (decimals > 0 && raw.width() * Math.pow(10, decimals) > MOST_STEPS) decimals--;
    DoubleUnaryOperator curve = column.curve();
    return Truth.of(x -> output.of(curve.applyAsDouble(x)), raw.low(), raw.high(), decimals);
  }

  /** The bench pairs on the receiver's raw axis, in the unit of its output. */
  private Samples pairs() {
    BenchPairs bench = channel.receiver().bench();
    if (bench == null) {
      throw new QuantityException(
          "there are no bench pairs yet: paste or import raw and true values");
    }
    Samples held = converted(bench).held(spec.rawDecimals());
    double steps = held.rawSpan().width() * Math.pow(10, spec.rawDecimals());
    if (steps > MOST_STEPS) {
      throw new QuantityException(
          "the bench pairs go over %s raw steps from end to end, %s at most%s"
              .formatted(
                  Numbers.significant(steps, 3),
                  Numbers.plain(MOST_STEPS),
                  spec.rawDecimals() > 0 ? "; ask for fewer raw decimals" : ""));
    }
    return output.plain()
        ? held
        : new Samples(held.raw(), Arrays.stream(held.quantity()).map(output::of).toArray());
  }

  private BenchPairs converted(BenchPairs b) {
    if (b.axis() == spec.axis()) return b;
    if (b.axis().ofSensor() || spec.axis().ofSensor()) {
      throw new QuantityException(
          "the bench pairs are in %s, the receiver wants %s"
              .formatted(b.axis().title(), spec.axis().title()));
    }
    var converter = channel.design().converter();
    List<Double> raw =
        b.raw().stream()
            .map(r -> b.axis() == RawUnit.COUNTS ? converter.volts(r) : (double) converter.code(r))
            .toList();
    return new BenchPairs(b.source(), spec.axis(), raw, b.truth());
  }

  /** As typed for the table, else that of the channel; NaN for none. In the unit of the output. */
  private double tolerance(Truth truth) {
    String typed = spec.goal().tolerance();
    if (typed == null) return channel.definition().toleranceOrNaN() / output.worth();
    double t =
        TableGoal.tolerance(
            typed, channel.unit(), truth.span() * output.worth(), spec.step() * output.worth());
    return t / output.worth();
  }

  private TableRequest request(Truth truth, double tolerance, int ends) {
    TableGoal goal = spec.goal();
    boolean fewest = goal.fewest() && goal.placement() == Placement.OPTIMAL;
    if (fewest && Double.isNaN(tolerance)) {
      throw new QuantityException(
          "the fewest cells need a tolerance: say how far off the table may be");
    }
    if (goal.placement() == Placement.FIXED && spec.demands().rawAxis().isEmpty()) {
      throw new QuantityException("the receiver's fixed axis is not said yet");
    }
    return new TableRequest(
        goal.placement(),
        goal.placement() == Placement.EVERY ? goal.every() : 0,
        goal.placement() == Placement.FIXED
            ? spec.demands().rawAxis().stream().mapToDouble(r -> r).toArray()
            : new double[0],
        fewest ? 0 : Math.max(2, spec.cells() - ends),
        tolerance,
        output.decimals(),
        spec.arithmetic().whole());
  }

  private boolean below(double end, Truth truth) {
    return outside(end, truth, truth.axis().at(truth.axis().first()), true);
  }

  private boolean above(double end, Truth truth) {
    return outside(end, truth, truth.axis().at(truth.axis().last()), false);
  }

  /**
   * True where the receiver wants a cell beyond the range; false where it stands at its very end.
   */
  private boolean outside(double end, Truth truth, double edge, boolean low) {
    if (spec.alike(end, edge)) return false;
    if (low ? end < edge : end > edge) return true;
    throw new QuantityException(
        "the receiver wants its %s cell at %s, inside the range that the table has to cover, %s to %s"
            .formatted(
                low ? "first" : "last",
                Numbers.plain(end),
                Numbers.plain(truth.axis().at(truth.axis().first())),
                Numbers.plain(truth.axis().at(truth.axis().last()))));
  }

  /** One more cell beyond an end, on the line that goes on there. */
  private StepTable extended(StepTable t, double end, boolean low) {
    int at = (int) Math.rint(end * Math.pow(10, t.rawDecimals()));
    int n = t.count();
    int[] raw = new int[n + 1];
    long[] out = new long[n + 1];
    System.arraycopy(t.raw(), 0, raw, low ? 1 : 0, n);
    System.arraycopy(t.out(), 0, out, low ? 1 : 0, n);
    raw[low ? 0 : n] = at;
    out[low ? 0 : n] = t.whole(at);
    return new StepTable(t.rawDecimals(), t.outDecimals(), raw, out, t.rounded());
  }

  private void fits(StepTable t) {
    boolean dictated = !spec.goal().placement().counts();
    if (dictated && t.count() > spec.cells()) {
      throw new QuantityException(
          "%s makes %d cells, the receiver holds %d"
              .formatted(spec.goal().placement().title(), t.count(), spec.cells()));
    }
  }

  private static int place(StepTable t, double raw) {
    for (int i = 0; i < t.count(); i++) {
      if (Math.abs(t.rawOf(i) - raw) < 0.5 * Math.pow(10, -t.rawDecimals())) return i;
    }
    return -1;
  }

  private List<Boolean> marks(StepTable t) {
    var marks = new ArrayList<Boolean>();
    for (int i = 0; i < t.count(); i++) marks.add(false);
    for (Cell c : spec.byHand()) {
      int i = place(t, c.raw());
      if (i >= 0) marks.set(i, true);
    }
    return List.copyOf(marks);
  }

  private StepTable byHand(StepTable t) {
    if (!marks(t).contains(true)) return t;
    long[] out = t.out().clone();
    for (Cell c : spec.byHand()) {
      int i = place(t, c.raw());
      if (i >= 0) out[i] = Math.round(c.out() * Math.pow(10, t.outDecimals()));
    }
    return new StepTable(t.rawDecimals(), t.outDecimals(), t.raw(), out, t.rounded());
  }
}
