package nocking.diagnosis;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import nocking.fault.Fault;
import nocking.fault.FaultCatalogue;
import nocking.fault.Subject;
import nocking.quantity.Span;
import nocking.weighing.FaultKind;
import nocking.weighing.Meter;
import nocking.weighing.Weighing;
import nocking.wiring.Place;

/**
 * The likelihood of what was seen under each fault, integrated over the fault's degree: coarsely
 * over its whole range, then finer twice about the peak, which a good meter makes far narrower than
 * any step.
 */
final class Weigher {
  private static final int COARSE = 80;
  private static final int REFINED = 32;
  private static final int UNKNOWN_STEPS = 16;
  private static final int BETWEEN = 8;
  private static final int SAMPLES = 5;

  /** So many standard deviations off is as wrong as any more, and still a number. */
  private static final double FAR = 1e6;

  /** What a number on the display counts against a fault under which there is none. */
  private static final double NO_DISPLAY = -50;

  /** The tolerance of a sound channel is taken as so many standard deviations of its sensor. */
  private static final double TOLERANCE_SIGMAS = 3;

  private final Subject subject;
  private final Meter meter;
  private final List<Hypothesis> hypotheses;
  private final double nudge;
  private final double count;
  private final Map<Double, Column> columns = new HashMap<>();

  Weigher(Subject subject, Weighing weighing) {
    this.subject = subject;
    this.meter = weighing.meter();
    var list = new ArrayList<Hypothesis>();
    for (Fault f : FaultCatalogue.of(subject)) {
      double prior = weighing.weight(f.kind());
      if (prior > 0) list.add(Hypothesis.of(f, prior));
    }
    hypotheses = List.copyOf(list);
    Span w = subject.channel().definition().working();
    double stated = subject.channel().definition().toleranceOrNaN();
    count = subject.path().countsWorth(w.middle());
    nudge = (Double.isNaN(stated) ? 0.01 * w.width() : stated) / TOLERANCE_SIGMAS;
  }

  List<Hypothesis> hypotheses() {
    return hypotheses;
  }

  /** Number of the hypothesis that a fault is. */
  int indexOf(Fault fault) {
    for (int h = 0; h < hypotheses.size(); h++) {
      if (hypotheses.get(h).fault().same(fault)) return h;
    }
    throw new IllegalArgumentException(fault.name() + " is not among the faults of this channel");
  }

  private Column column(double x) {
    return columns.computeIfAbsent(x, k -> new Column(subject, meter.inputResistance(), k, nudge));
  }

  /** What a fault at its own degree predicts at an input, solved for this once. */
  Column.Cell solved(Fault f, double x) {
    return new Column(subject, meter.inputResistance(), x, nudge).cell(0, 0, f);
  }

  /** Every hypothesis weighed against what was seen. */
  List<Posterior> weigh(List<Observation> seen) {
    var list = new ArrayList<Posterior>();
    for (int h = 0; h < hypotheses.size(); h++) list.add(weigh(h, seen));
    return list;
  }

  /** One hypothesis weighed against what was seen. */
  Posterior weigh(int h, List<Observation> seen) {
    var groups = new LinkedHashMap<Double, List<Observation>>();
    var unknown = new ArrayList<Observation>();
    for (Observation o : seen) {
      if (o.inputKnown()) groups.computeIfAbsent(o.at(), k -> new ArrayList<>()).add(o);
      else unknown.add(o);
    }
    return weigh(h, groups, unknown);
  }

  private Posterior weigh(int h, Map<Double, List<Observation>> groups, List<Observation> unknown) {
    Hypothesis hypothesis = hypotheses.get(h);
    double prior = Math.log(hypothesis.prior());
    if (!hypothesis.graded()) {
      Likelihood l = likelihood(h, hypothesis.severities(), groups, unknown, false);
      return new Posterior(
          h, hypothesis.fault(), prior + l.log()[0], l.misfit()[0], hypothesis.severities());
    }
    double[] coarse = degrees(hypothesis.fault().kind(), 0, 1, COARSE);
    Likelihood rough = likelihood(h, coarse, groups, unknown, true);
    int near = rough.best();
    // A good meter's peak is far narrower than a step: the neighbourhood is looked at anew.
    double from = Math.max(0, (near - 1.0) / COARSE);
    double to = Math.min(1, (near + 1.0) / COARSE);
    double[] middle = degrees(hypothesis.fault().kind(), from, to, REFINED);
    Likelihood around = likelihood(h, middle, groups, unknown, true);
    int nearer = around.best();
    double step = (to - from) / REFINED;
    double low = Math.max(from, from + (nearer - 2) * step);
    double high = Math.min(to, from + (nearer + 2) * step);
    double[] fine = degrees(hypothesis.fault().kind(), low, high, REFINED);
    Likelihood exact = likelihood(h, fine, groups, unknown, false);
    int best = exact.best();
    double share = (high - low) / fine.length;
    double top = exact.log()[best];
    double sum = 0;
    for (double l : exact.log()) sum += share * Math.exp(l - top);
    double peak = Math.max(top, around.log()[around.best()]);
    double evidence = sum * Math.exp(top - peak);
    for (int i = 0; i < middle.length; i++) {
      double at = from + i * step;
      if (at < low || at > high) {
        evidence += (to - from) / middle.length * Math.exp(around.log()[i] - peak);
      }
    }
    for (int i = 0; i < coarse.length; i++) {
      double at = (double) i / COARSE;
      if (at < from || at > to) {
        evidence += Math.exp(Math.min(0, rough.log()[i] - peak)) / coarse.length;
      }
    }
    return new Posterior(
        h,
        hypothesis.fault().withSeverity(fine[best]),
        prior + peak + Math.log(evidence),
        exact.misfit()[best],
        quantiles(coarse, rough, middle, around, fine, exact));
  }

  private Likelihood likelihood(
      int h,
      double[] degrees,
      Map<Double, List<Observation>> groups,
      List<Observation> unknown,
      boolean smooth) {
    var log = new double[degrees.length];
    var misfit = new double[degrees.length];
    for (var group : groups.entrySet()) {
      addKnown(h, column(group.getKey()), group.getValue(), degrees, smooth, log, misfit);
    }
    if (!unknown.isEmpty()) addUnknown(h, unknown, degrees, log, misfit);
    return new Likelihood(log, misfit);
  }

  /** Equally spread degrees of a kind between two fractions of its range. */
  private static double[] degrees(FaultKind kind, double from, double to, int steps) {
    var list = new double[steps + 1];
    for (int i = 0; i <= steps; i++) list[i] = kind.severity(from + (to - from) * i / steps);
    return list;
  }

  /** Degrees that stand for the likely ones: a few of the wide spread, or of the peak. */
  private static double[] quantiles(
      double[] coarse,
      Likelihood rough,
      double[] middle,
      Likelihood around,
      double[] fine,
      Likelihood exact) {
    if (rough.spread() > 2) return rough.quantiles(coarse, SAMPLES);
    if (around.spread() > 2) return around.quantiles(middle, SAMPLES);
    return exact.quantiles(fine, SAMPLES);
  }

  /**
   * Predictions of one hypothesis for a place at every degree, from the solved ones: value, slope
   * with the sensor's departure, and what is open between two solved degrees.
   */
  private double[][] predict(int h, Column column, Place place, double[] degrees) {
    Hypothesis hypothesis = hypotheses.get(h);
    double[] s = hypothesis.severities();
    int grid = s.length;
    var solved = new Column.Prediction[grid];
    for (int g = 0; g < grid; g++) solved[g] = column.cell(h, g, hypothesis.at(g)).at(place);
    var value = new double[degrees.length];
    var slope = new double[degrees.length];
    var open = new double[degrees.length];
    if (grid == 1) {
      value[0] = solved[0].value();
      slope[0] = solved[0].slope();
      return new double[][] {value, slope, open};
    }
    int k = -1;
    Moebius left = null;
    Moebius right = null;
    for (int i = 0; i < degrees.length; i++) {
      while (left == null || k < grid - 2 && degrees[i] > s[k + 1]) {
        k++;
        left = between(s, solved, k, Math.max(0, k - 1));
        right = between(s, solved, k, Math.min(k, grid - 3));
      }
      double t = (degrees[i] - s[k]) / (s[k + 1] - s[k]);
      double a = left.at(degrees[i]);
      double b = right.at(degrees[i]);
      value[i] = (a + b) / 2;
      // The two agree where the circuit is linear; at a rail between them they do not.
      open[i] = Math.abs(a - b) / 2;
      slope[i] = solved[k].slope() + (solved[k + 1].slope() - solved[k].slope()) * t;
    }
    return new double[][] {value, slope, open};
  }

  private static Moebius between(double[] s, Column.Prediction[] solved, int k, int from) {
    int first = Math.min(from, s.length - 3);
    return Moebius.through(
        s[first],
        solved[first].value(),
        s[first + 1],
        solved[first + 1].value(),
        s[first + 2],
        solved[first + 2].value(),
        s[k],
        s[k + 1]);
  }

  private void addKnown(
      int h,
      Column column,
      List<Observation> seen,
      double[] degrees,
      boolean smooth,
      double[] log,
      double[] misfit) {
    int n = degrees.length;
    // Rank-one covariance D + s·sᵀ by the matrix determinant and Sherman–Morrison identities.
    var squares = new double[n];
    var cross = new double[n];
    var gain = new double[n];
    var logs = new double[n];
    for (Observation o : seen) {
      Hypothesis hypothesis = hypotheses.get(h);
      Column.Prediction first = column.cell(h, 0, hypothesis.at(0)).at(o.place());
      if (first.floats() && !hypothesis.graded()) {
        floating(o, first.span(), log, hypothesis.fault());
        continue;
      }
      double[][] p = predict(h, column, o.place(), degrees);
      boolean display = o.place().equals(Place.DISPLAY);
      if (display) turnIntoDisplay(hypothesis, degrees, p);
      for (int i = 0; i < n; i++) {
        double value = p[0][i];
        double slope = p[1][i];
        if (Double.isNaN(value)) {
          logs[i] += NO_DISPLAY;
          squares[i] += -2 * NO_DISPLAY;
          continue;
        }
        if (Double.isNaN(slope)) slope = 0;
        double sigma = Math.hypot(sigma(o, value), p[2][i]);
        if (smooth) {
          // Half a step of the degree to either side, so that no peak falls between two steps.
          double wide = p[0][Math.min(n - 1, i + 1)] - p[0][Math.max(0, i - 1)];
          if (!Double.isNaN(wide)) sigma = Math.hypot(sigma, wide / 4);
        }
        double r = Math.clamp((o.value() - value) / sigma, -FAR, FAR);
        double z = slope / sigma;
        squares[i] += r * r;
        cross[i] += r * z;
        gain[i] += z * z;
        logs[i] -= Math.log(sigma);
      }
    }
    for (int i = 0; i < n; i++) {
      double chi = squares[i] - cross[i] * cross[i] / (1 + gain[i]);
      log[i] += logs[i] - 0.5 * Math.log1p(gain[i]) - 0.5 * chi;
      misfit[i] += chi;
    }
  }

  /** A floating input: anything between its ends is equally likely. */
  private void floating(Observation o, Span volts, double[] log, Fault fault) {
    double width = volts.width();
    if (o.place().equals(Place.DISPLAY)) {
      double a = display(fault, volts.low());
      double b = display(fault, volts.high());
      width =
          Double.isNaN(a - b) ? subject.channel().definition().working().width() : Math.abs(a - b);
    }
    double density = -Math.log(Math.max(width, 1e-9)) + 0.5 * Math.log(2 * Math.PI);
    for (int i = 0; i < log.length; i++) log[i] += density;
  }

  private void addUnknown(
      int h, List<Observation> seen, double[] degrees, double[] log, double[] misfit) {
    Span w = subject.channel().definition().working();
    int n = degrees.length;
    int xs = UNKNOWN_STEPS * BETWEEN + 1;
    var joint = new double[n][xs];
    for (Observation o : seen) {
      double[][] before = null;
      for (int k = 0; k <= UNKNOWN_STEPS; k++) {
        double[][] at = shown(h, column(w.at((double) k / UNKNOWN_STEPS)), o.place(), degrees);
        int steps = before == null ? 1 : BETWEEN;
        for (int j = 1; j <= steps; j++) {
          int x = before == null ? 0 : (k - 1) * BETWEEN + j;
          double t = before == null ? 1 : (double) j / BETWEEN;
          for (int i = 0; i < n; i++) {
            double value = before == null ? at[0][i] : before[0][i] + (at[0][i] - before[0][i]) * t;
            if (Double.isNaN(value)) {
              joint[i][x] += NO_DISPLAY;
              continue;
            }
            double sigma = sigma(o, value);
            double step = before == null ? 0 : Math.abs(at[0][i] - before[0][i]) / (2.0 * BETWEEN);
            double wide = Math.hypot(sigma, step);
            double r = Math.clamp((o.value() - value) / wide, -FAR, FAR);
            joint[i][x] -= Math.log(wide) + 0.5 * r * r;
          }
        }
        before = at;
      }
    }
    for (int i = 0; i < n; i++) {
      double top = Arrays.stream(joint[i]).max().orElseThrow();
      double sum = 0;
      for (double l : joint[i]) sum += Math.exp(l - top);
      log[i] += top + Math.log(sum / xs);
      double logs = 0;
      for (Observation o : seen) logs -= Math.log(sigma(o, o.value()));
      misfit[i] += Math.max(0, -2 * (top - logs));
    }
  }

  private double[][] shown(int h, Column column, Place place, double[] degrees) {
    double[][] p = predict(h, column, place, degrees);
    if (place.equals(Place.DISPLAY)) turnIntoDisplay(hypotheses.get(h), degrees, p);
    return p;
  }

  /** Volts at the converter become what the display says of them. */
  private void turnIntoDisplay(Hypothesis h, double[] degrees, double[][] p) {
    for (int i = 0; i < degrees.length; i++) {
      Fault f = h.graded() ? h.fault().withSeverity(degrees[i]) : h.fault();
      double volts = p[0][i];
      p[0][i] = display(f, volts);
      p[1][i] = display(f, volts + p[1][i]) - p[0][i];
      if (p[2][i] > 0) p[2][i] = Math.abs(display(f, volts + p[2][i]) - p[0][i]);
    }
  }

  /** What the display says for volts, which the converter holds between its ends. */
  private double display(Fault f, double volts) {
    var converter = subject.channel().converter();
    double half = converter.step() / 2;
    return subject.shown(
        f, Math.clamp(volts, half, Math.max(half, converter.reference().number() - half)));
  }

  /** Standard uncertainty of what was seen, its rounding counted in. */
  double sigma(Observation o, double value) {
    return Math.hypot(sigma(o.place(), value), o.step() / Math.sqrt(12));
  }

  /** Standard uncertainty of one reading by itself. */
  double sigma(Place place, double value) {
    if (!place.equals(Place.DISPLAY)) return meter.uncertainty(value, place);
    Span w = subject.channel().definition().working();
    double least = Math.max(count, 1e-4 * w.width());
    // A number far outside the range comes of a slip and is off by its share, not by a count.
    return Math.hypot(least / 2, 1e-3 * Math.max(0, Math.abs(value) - w.width()));
  }

  /** A prediction and what one standard deviation of the sensor makes of it, as it is read. */
  double[] shown(Column.Prediction p, Place place, Fault f) {
    if (!place.equals(Place.DISPLAY)) return new double[] {p.value(), p.slope()};
    double shown = display(f, p.value());
    double beside = display(f, p.value() + p.slope());
    return new double[] {shown, Double.isNaN(beside) ? 0 : beside - shown};
  }
}
