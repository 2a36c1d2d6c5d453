package nocking.view;

import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import nocking.fit.Samples;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import nocking.table.BetweenPairs;
import nocking.table.Cell;
import nocking.table.Comparison;
import nocking.table.MadeTable;
import nocking.table.Outside;
import nocking.table.Placement;
import nocking.table.StepTable;
import nocking.table.TableError;
import nocking.table.TableRequest;
import nocking.table.TableSpec;
import nocking.table.Truth;

/**
 * The table that the receiver would hold, with what it leaves. Outputs and errors are in the unit
 * of its output column.
 *
 * @param made as the rule gives it
 * @param worked with cells at the ends that the receiver demands
 * @param table as the receiver holds it, with cells set by hand
 * @param byHand for each cell, whether it was set by hand
 * @param strays cells set by hand at whose raw value the table has none
 * @param truth what is true at each raw step
 * @param pairs that it was made of; empty for a curve
 * @param error at every raw step, or at every pair of bench data
 * @param untouched the same without what was set by hand
 * @param tolerance NaN for none
 * @param between how far it is off between its pairs, where they tell that it is more than at them
 */
public record TableResult(
    TableSpec spec,
    OutputColumn output,
    TableRequest request,
    MadeTable made,
    StepTable worked,
    StepTable table,
    List<Boolean> byHand,
    List<Cell> strays,
    Truth truth,
    Optional<Samples> pairs,
    TableError error,
    TableError untouched,
    double tolerance,
    Optional<BetweenPairs> between) {

  /** What arithmetic may add to an error without its being one. */
  private static final double HAIR = 1e-9;

  public int count() {
    return table.count();
  }

  /** The cells rising in raw. */
  public List<Cell> cells() {
    return IntStream.range(0, table.count())
        .mapToObj(i -> new Cell(table.rawOf(i), table.outOf(i)))
        .toList();
  }

  /** The cells in the order in which the receiver wants them. */
  public List<Cell> ordered() {
    return spec.descending() ? cells().reversed() : cells();
  }

  /** Number of a cell, rising in raw, for its place in the receiver's order. */
  public int cell(int place) {
    return spec.descending() ? table.count() - 1 - place : place;
  }

  /** What a table leaves at every pair, or at every raw step. */
  public TableError left(StepTable other) {
    return left(other, truth, pairs);
  }

  /** Rows of a datasheet are true between them, too: there a table is judged at every raw step. */
  static TableError left(StepTable t, Truth truth, Optional<Samples> pairs) {
    return pairs.isEmpty() || truth.hasLines() ? t.against(truth) : t.against(pairs.get());
  }

  /** What the table reads at a pair, less what is true there. */
  public double offPair(int pair) {
    Samples p = pairs.orElseThrow();
    double step = Math.rint(p.raw()[pair] * Math.pow(10, table.rawDecimals()));
    return table.read((int) step) - p.quantity()[pair];
  }

  /** True unless a tolerance is stated and not kept at some raw step. */
  public boolean holds() {
    return holds(table);
  }

  /** The same of another table for the same data. */
  public boolean holds(StepTable other) {
    return within(other.against(truth).worst());
  }

  boolean within(double worst) {
    return !(worst > tolerance * (1 + HAIR) + 1e-12);
  }

  /** How far the output of a cell is from what is true there; NaN beyond the range. */
  public double offAt(Cell c) {
    double step = Math.rint(c.raw() * Math.pow(10, table.rawDecimals()));
    return truth.axis().has((int) step) ? Math.abs(c.out() - truth.at((int) step)) : Double.NaN;
  }

  /** What the receiver shows for a raw value, in the quantity; NaN where it shows a fault. */
  public double reading(double raw) {
    double scale = Math.pow(10, table.rawDecimals());
    double at = raw * scale;
    int first = table.raw()[0];
    int last = table.raw()[table.count() - 1];
    if (at < first - HAIR || at > last + HAIR) {
      if (spec.arithmetic().outside() == Outside.FAULT) return Double.NaN;
      if (spec.arithmetic().outside() == Outside.HOLD) at = Math.clamp(at, first, last);
    }
    return output.quantity(table.rounded() ? table.read((int) Math.rint(at)) : table.line(at));
  }

  /**
   * The tables that the usual habits would make, this one first. It takes its time: the best of so
   * many cells is looked for.
   */
  public List<Comparison> beside() {
    int rows = pairs.map(Samples::size).orElse(0);
    return Comparison.beside(made.placement(), table, truth, rows, this::left);
  }

  /** What becomes of raw values beyond the ends, with the slopes there; one sentence. */
  public String beyondSays() {
    int n = table.count();
    return switch (spec.arithmetic().outside()) {
      case EXTEND ->
          "Beyond its ends it goes on by %s and %s %s for each %s of raw."
              .formatted(
                  Numbers.trimmed(slope(0, 1), 4),
                  Numbers.trimmed(slope(n - 2, n - 1), 4),
                  output.unit(),
                  spec.axis() == RawUnit.COUNTS ? "count" : spec.axis().unit().symbol());
      case HOLD ->
          "Beyond its ends it stands still at %s and %s %s."
              .formatted(
                  output.text(table.outOf(0)), output.text(table.outOf(n - 1)), output.unit());
      case FAULT -> "Beyond its ends it shows a fault.";
    };
  }

  private double slope(int from, int to) {
    return (table.outOf(to) - table.outOf(from)) / (table.rawOf(to) - table.rawOf(from));
  }

  /** What is known of how small the table is, and whether it does; one or two sentences. */
  public String says() {
    var text = new StringBuilder();
    if (made.bound() > 0) {
      text.append(
          made.proven()
              ? "%d cells hold %s; no table with fewer does."
                  .formatted(made.table().count(), output.tolerance(tolerance))
              : "%d cells hold %s; at least %d are needed, whether fewer than these do is not known."
                  .formatted(made.table().count(), output.tolerance(tolerance), made.bound()));
      if (made.allowance() > 0) {
        text.append(" %s of it is left for rounding.".formatted(output.error(made.allowance())));
      }
    } else if (!Double.isNaN(tolerance)) {
      text.append(
          holds()
              ? "It holds %s.".formatted(output.tolerance(tolerance))
              : "It misses %s by %s."
                  .formatted(output.tolerance(tolerance), output.error(error.worst() - tolerance)));
    }
    if (!Double.isNaN(made.leastError()) && made.leastError() > 0) {
      text.append(
          " No table of %d cells stays below %s."
              .formatted(made.table().count(), output.error(made.leastError())));
    }
    if (between.isPresent()) {
      BetweenPairs b = between.get();
      text.append(
          " Between the pairs it may be off by about %s, near %s: pairs there would tell."
              .formatted(output.error(b.error()), Numbers.fixed(b.at(), table.rawDecimals())));
    } else if (pairs.isPresent() && BetweenPairs.gaps(truth)) {
      text.append(" ").append(BetweenPairs.assumed(truth));
    }
    int beyond = table.beyond(truth);
    if (beyond > 0) {
      text.append(
          beyond == 1
              ? " One cell lies beyond what is known and goes on with the slope there."
              : " %d cells lie beyond what is known and go on with the slope there."
                  .formatted(beyond));
    }
    if (byHand.contains(true) && error.worst() != untouched.worst()) {
      text.append(
          " Set by hand: worst %s, worked out %s."
              .formatted(output.error(error.worst()), output.error(untouched.worst())));
    }
    if (!strays.isEmpty()) {
      text.append(
          strays.size() == 1
              ? " One cell set by hand has no place in this table."
              : " %d cells set by hand have no place in this table.".formatted(strays.size()));
    }
    return Sentence.capital(text.toString().strip());
  }

  /** Fewer cells do not do: what the best table with one cell less leaves, where that is known. */
  public Optional<TableError> withOneLess() {
    if (made.placement().equals(Placement.OPTIMAL.key()) && made.bound() > 0 && count() > 2) {
      try {
        var less =
            new TableRequest(
                Placement.OPTIMAL,
                0,
                new double[0],
                made.table().count() - 1,
                Double.NaN,
                request.outDecimals(),
                request.rounded());
        return Optional.of(left(less.of(truth).table()));
      } catch (QuantityException e) {
        return Optional.empty();
      }
    }
    return Optional.empty();
  }
}
