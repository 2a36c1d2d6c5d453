package nocking.diagnosis;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.stream.DoubleStream;
import nocking.fault.Fault;
import nocking.fault.Faults;
import nocking.fault.FaultyPath;
import nocking.prior.FaultKind;
import nocking.quantity.Span;
import nocking.wiring.Place;
import org.hipparchus.exception.MathIllegalStateException;
import org.hipparchus.optim.InitialGuess;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.SimpleValueChecker;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.nonlinear.scalar.ObjectiveFunction;
import org.hipparchus.optim.nonlinear.scalar.noderiv.NelderMeadSimplex;
import org.hipparchus.optim.nonlinear.scalar.noderiv.SimplexOptimizer;

/**
 * Weighs every two faults at once against what was seen, where no single one explains it. Each pair
 * is looked at over a coarse grid of its degrees; the best are brought to their likeliest degrees,
 * and a degree counts against its pair the more, the narrower it must be set (Laplace's
 * approximation of the evidence; MacKay, Information Theory, Inference, and Learning Algorithms,
 * 2003, chapter 28).
 */
final class PairSearch {
  /** How much rarer two faults at once are than one. */
  private static final double TWO_AT_ONCE = 0.1;

  /** So many readings more than free degrees, before two faults are spoken of. */
  private static final int MORE_THAN_DEGREES = 3;

  private static final int GRADES = 6;
  private static final int CLOSER = 24;
  private static final int MOST_EVALUATIONS = 160;
  private static final double CLOSE_ENOUGH = 1e-4;

  /** Standard deviation of a fraction that is as likely anywhere from 0 to 1. */
  private static final double ANY_FRACTION = 1 / Math.sqrt(12);

  private static final double BESIDE = 1e-4;

  private final Weigher weigher;
  private final List<Hypothesis> hypotheses;
  private final double logAll;
  private final List<MeasuredValue> seen;
  private final List<Double> inputs;
  private final boolean walked;

  private PairSearch(Weigher weigher, List<MeasuredValue> seen) {
    this.weigher = weigher;
    this.seen = seen;
    inputs = List.copyOf(new LinkedHashSet<>(seen.stream().map(MeasuredValue::at).toList()));
    List<Hypothesis> possible =
        weigher.hypotheses().stream()
            .filter(h -> h.fault().kind() != FaultKind.NONE && !h.fault().kind().loose())
            .toList();
    walked = seen.stream().anyMatch(o -> o.place().kind().between());
    hypotheses = walked ? possible : wholeWires(possible);
    logAll = Math.log(weigher.hypotheses().stream().mapToDouble(Hypothesis::prior).sum());
  }

  /**
   * The pairs that fit. They are weighed against steady readings at known inputs; where there are
   * others nothing is said.
   *
   * @param logSingles logarithm of the summed weights of all that is not a pair
   */
  static TwoFaults of(Weigher weigher, List<MeasuredValue> seen, double logSingles) {
    boolean plain = seen.stream().allMatch(o -> o.inputKnown() && !o.jumps());
    return plain && !seen.isEmpty()
        ? new PairSearch(weigher, seen).pairs(logSingles)
        : new TwoFaults(List.of());
  }

  /** Nothing that was read tells the stretches of a wire apart: each wire is one hypothesis. */
  private static List<Hypothesis> wholeWires(List<Hypothesis> list) {
    var whole = new ArrayList<Hypothesis>();
    for (Hypothesis h : list) {
      if (h.fault().segment() < 0) whole.add(h);
      if (h.fault().segment() != 0) continue;
      double prior =
          list.stream()
              .filter(o -> o.fault().kind() == h.fault().kind())
              .mapToDouble(Hypothesis::prior)
              .sum();
      whole.add(new Hypothesis(h.fault(), prior));
    }
    return whole;
  }

  /** Two hypotheses at fractions of their degrees. */
  private record Trial(Hypothesis first, Hypothesis second, double at, double other, double log) {
    Fault one() {
      return first.at(at);
    }

    Fault two() {
      return second.at(other);
    }
  }

  /** A fault of a wire says its stretch only where something was read between the ends. */
  private Fault said(Fault f) {
    return walked ? f : f.anywhere();
  }

  private TwoFaults pairs(double logSingles) {
    var trials = new ArrayList<Trial>();
    for (int i = 0; i < hypotheses.size(); i++) {
      for (int j = i + 1; j < hypotheses.size(); j++) {
        trials.add(coarse(hypotheses.get(i), hypotheses.get(j)));
      }
    }
    trials.sort(Comparator.comparingDouble(Trial::log).reversed());
    List<Trial> closer =
        trials.subList(0, Math.min(CLOSER, trials.size())).stream().map(this::closer).toList();
    double top = logSingles;
    for (Trial t : closer) top = Math.max(top, t.log);
    double total = Math.exp(logSingles - top);
    for (Trial t : closer) total += Math.exp(t.log - top);
    var fitting = new ArrayList<FaultPair>();
    for (Trial t : closer) {
      double share = Math.exp(t.log - top) / total;
      double misfit = residual(t, 0).settled().misfit();
      if (held(t) >= degrees(t) + MORE_THAN_DEGREES && Explanation.fits(misfit, seen.size())) {
        fitting.add(new FaultPair(said(t.one()), said(t.two()), share));
      }
    }
    fitting.sort(Comparator.comparingDouble(FaultPair::probability).reversed());
    return new TwoFaults(List.copyOf(fitting));
  }

  private static int degrees(Trial t) {
    return (t.first.graded() ? 1 : 0) + (t.second.graded() ? 1 : 0);
  }

  /** Readings that two faults predict at all: one that floats may be anything and shows nothing. */
  private long held(Trial t) {
    return Arrays.stream(read(t.one(), t.two())).filter(r -> Double.isNaN(r.density)).count();
  }

  private double prior(Hypothesis a, Hypothesis b) {
    return Math.log(a.prior()) + Math.log(b.prior()) - logAll + Math.log(TWO_AT_ONCE);
  }

  /** The likeliest point of a grid over both degrees, half a step to every side left open. */
  private Trial coarse(Hypothesis a, Hypothesis b) {
    int n = a.graded() ? GRADES : 0;
    int m = b.graded() ? GRADES : 0;
    var read = new Read[n + 1][m + 1][];
    for (int i = 0; i <= n; i++) {
      for (int j = 0; j <= m; j++) read[i][j] = read(a.at(grade(i, n)), b.at(grade(j, m)));
    }
    Trial best = null;
    for (int i = 0; i <= n; i++) {
      for (int j = 0; j <= m; j++) {
        var joint = new JointResidual(departures());
        for (int o = 0; o < seen.size(); o++) {
          double along =
              read[Math.min(n, i + 1)][j][o].value - read[Math.max(0, i - 1)][j][o].value;
          double across =
              read[i][Math.min(m, j + 1)][o].value - read[i][Math.max(0, j - 1)][o].value;
          add(joint, o, read[i][j][o], sound(seen.get(o)), along / 4, across / 4);
        }
        double log = prior(a, b) + joint.settled().log();
        if (best == null || log > best.log) best = new Trial(a, b, grade(i, n), grade(j, m), log);
      }
    }
    return best;
  }

  private static double grade(int i, int n) {
    return n == 0 ? 0 : (double) i / n;
  }

  /** Departures of sensor and supply at each input, and of both degrees. */
  private int departures() {
    return 2 * inputs.size() + 2;
  }

  /**
   * What a place reads.
   *
   * @param density logarithm of the density of the reading where nothing holds the place; else NaN
   */
  private record Read(double value, double sigma, double density) {}

  private Read[] read(Fault a, Fault b) {
    Faults both = Faults.of(a, b);
    Column.Cell[] cells = cells(both);
    var read = new Read[seen.size()];
    for (int o = 0; o < read.length; o++) {
      MeasuredValue at = seen.get(o);
      FaultyPath.Reading r = cells[inputs.indexOf(at.at())].reading(at.place());
      read[o] = read(both, at, r.value(), r.floats() ? r.span() : null);
    }
    return read;
  }

  private Read read(Faults both, MeasuredValue o, double predicted, Span floating) {
    ReadingModel reads = weigher.reads();
    if (floating != null) {
      return new Read(Double.NaN, Double.NaN, reads.floatingLog(o, floating, both));
    }
    if (!o.place().equals(Place.DISPLAY)) {
      return new Read(predicted, reads.sigma(o, predicted), Double.NaN);
    }
    double shown = reads.display(both, predicted);
    boolean slips = both.list().stream().anyMatch(f -> ReadingModel.slips(f.kind()));
    double sound = slips ? reads.display(Fault.NONE, predicted) : shown;
    return new Read(shown, Math.hypot(reads.sigma(o, shown), reads.beyond(o, sound)), Double.NaN);
  }

  /** The circuits at each input; what is wrong with the receiver's numbers is not in them. */
  private Column.Cell[] cells(Faults both) {
    List<Fault> circuit =
        both.list().stream().filter(f -> f.kind().family() != FaultKind.Family.NUMBERS).toList();
    boolean kept = circuit.isEmpty() || circuit.size() == 1 && !circuit.getFirst().graded();
    return inputs.stream()
        .map(
            x ->
                kept
                    ? weigher.solved(circuit.isEmpty() ? Fault.NONE : circuit.getFirst(), x)
                    : weigher.column(x).pair(new Faults(circuit)))
        .toArray(Column.Cell[]::new);
  }

  /**
   * Adds a reading to what is left.
   *
   * @param slopes what a standard deviation of sensor and of supply make of it
   */
  private void add(JointResidual joint, int o, Read r, double[] slopes, double one, double two) {
    if (!Double.isNaN(r.density)) {
      joint.addDensity(r.density);
    } else if (Double.isNaN(r.value)) {
      joint.addImpossible(ReadingModel.NO_DISPLAY);
    } else {
      int input = inputs.indexOf(seen.get(o).at());
      var departures = new double[departures()];
      departures[2 * input] = slopes[0];
      departures[2 * input + 1] = slopes[1];
      departures[2 * inputs.size()] = one;
      departures[2 * inputs.size() + 1] = two;
      joint.add(seen.get(o).value() - r.value, r.sigma, departures);
    }
  }

  /** What sensor and supply make of a reading of the sound channel. */
  private double[] sound(MeasuredValue o) {
    return slopes(weigher.solved(Fault.NONE, o.at()).at(o.place()), o, Faults.of(Fault.NONE));
  }

  private double[] slopes(Column.Prediction p, MeasuredValue o, Faults faults) {
    double[] shown = weigher.reads().shown(p, o.place(), faults);
    return new double[] {shown[1], shown[2]};
  }

  /** Both degrees where they are likeliest, near a point of the grid, and the evidence there. */
  private Trial closer(Trial t) {
    Trial there = peak(t);
    JointResidual.Settled shut = residual(there, 0).settled();
    // Only the width of the peak counts: beyond the end of a degree's range there is nothing.
    double narrow = residual(there, ANY_FRACTION).settled().halfLog() - shut.halfLog();
    double log = prior(t.first, t.second) + shut.log() - narrow;
    return new Trial(t.first, t.second, there.at, there.other, log);
  }

  private Trial peak(Trial t) {
    double[] start =
        DoubleStream.concat(
                t.first.graded() ? DoubleStream.of(t.at) : DoubleStream.empty(),
                t.second.graded() ? DoubleStream.of(t.other) : DoubleStream.empty())
            .toArray();
    if (start.length == 0) return t;
    Trial[] best = {t};
    var objective =
        new ObjectiveFunction(
            p -> {
              Trial there = moved(t, p);
              if (best[0] == t || there.log > best[0].log) best[0] = there;
              return there.log;
            });
    try {
      new SimplexOptimizer(new SimpleValueChecker(1e-9, CLOSE_ENOUGH))
          .optimize(
              new MaxEval(MOST_EVALUATIONS),
              objective,
              GoalType.MAXIMIZE,
              new InitialGuess(start),
              new NelderMeadSimplex(start.length, 0.5 / GRADES));
    } catch (MathIllegalStateException e) {
      // Where outputs come to their rails there are kinks that a simplex may never settle at: the
      // best that was seen stands.
      return best[0];
    }
    return best[0];
  }

  private Trial moved(Trial t, double[] degrees) {
    double at = t.first.graded() ? degrees[0] : t.at;
    double other = t.second.graded() ? degrees[degrees.length - 1] : t.other;
    var there =
        new Trial(t.first, t.second, Math.clamp(at, 0, 1), Math.clamp(other, 0, 1), Double.NaN);
    double log = residual(there, 0).settled().log();
    return new Trial(there.first, there.second, there.at, there.other, log);
  }

  /**
   * What two faults leave of the readings.
   *
   * @param open by how much the degrees are left open, as a fraction of their range; 0 for not
   */
  private JointResidual residual(Trial t, double open) {
    Faults both = Faults.of(t.one(), t.two());
    Column.Cell[] cells = cells(both);
    Read[] one = open > 0 ? read(t.first.at(inward(t.at)), t.two()) : null;
    Read[] two = open > 0 ? read(t.one(), t.second.at(inward(t.other))) : null;
    var joint = new JointResidual(departures());
    for (int o = 0; o < seen.size(); o++) {
      MeasuredValue at = seen.get(o);
      Column.Prediction p = cells[inputs.indexOf(at.at())].at(at.place());
      Read r = read(both, at, p.value(), p.floats() ? p.span() : null);
      add(
          joint,
          o,
          r,
          slopes(p, at, both),
          open > 0 ? open * (one[o].value - r.value) / BESIDE : 0,
          open > 0 ? open * (two[o].value - r.value) / BESIDE : 0);
    }
    return joint;
  }

  private static double inward(double fraction) {
    return fraction > 0.5 ? fraction - BESIDE : fraction + BESIDE;
  }
}
