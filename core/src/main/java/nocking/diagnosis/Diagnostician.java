package nocking.diagnosis;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import nocking.fault.Fault;
import nocking.fault.FaultCatalogue;
import nocking.fault.FaultKind;
import nocking.fault.FaultMatrix;
import nocking.fault.FaultyPath;
import nocking.fault.Subject;
import nocking.quantity.Span;
import nocking.wiring.Place;

/**
 * Ranks the faults of a channel by how well each reproduces all that was seen, and says what to
 * measure next.
 *
 * <p>Each fault is a hypothesis with a prior weight; one with a degree is integrated over its
 * degree. A reading is taken as normal about what the circuit with the fault predicts: the meter's
 * own error for each reading, and for all readings at one input the same departure of the sensor
 * inside the channel's tolerance (Bayes; Gelman and others, Bayesian Data Analysis, 3rd ed., 14.2).
 * At an input that is not known all inputs of the working range are taken as equally likely.
 *
 * <p>Solved circuits are kept, so that one diagnostician serves a channel as it is measured. It is
 * used by one thread at a time.
 */
public final class Diagnostician {
  private static final int COARSE = 80;
  private static final int REFINED = 32;
  private static final int UNKNOWN_STEPS = 16;

  /** So many standard deviations off is as wrong as any more, and still a number. */
  private static final double FAR = 1e6;

  private static final double IN_QUESTION = 1e-6;
  private static final double MOST_ALIKE = 9;
  private static final double NO_DISPLAY = -50;
  private static final int SAMPLES = 5;
  private static final int LEADING = 24;
  private static final double TOLERANCE_SIGMAS = 3;
  private static final double OTHER_INPUT_COSTS = 1.5;
  private static final double UNPLUGGING_COSTS = 1.3;

  private final Subject subject;
  private final Meter meter;
  private final List<Hypothesis> hypotheses;
  private final List<Place> places;
  private final double nudge;
  private final double count;
  private final Map<Double, Column> columns = new HashMap<>();

  private Diagnostician(Subject subject, Meter meter, Map<FaultKind, Double> priors) {
    this.subject = subject;
    this.meter = meter;
    this.places = FaultMatrix.places(subject);
    var list = new ArrayList<Hypothesis>();
    for (Fault f : FaultCatalogue.of(subject)) {
      double prior = priors.getOrDefault(f.kind(), f.kind().prior());
      if (prior > 0) list.add(Hypothesis.of(f, prior));
    }
    hypotheses = List.copyOf(list);
    Span w = subject.channel().definition().working();
    double stated = subject.channel().definition().toleranceOrNaN();
    count = subject.path().countsWorth(w.middle());
    nudge = (Double.isNaN(stated) ? 0.01 * w.width() : stated) / TOLERANCE_SIGMAS;
  }

  /**
   * @param priors weights that differ from the usual ones; 0 leaves a kind out
   */
  public static Diagnostician of(Subject subject, Meter meter, Map<FaultKind, Double> priors) {
    return new Diagnostician(subject, meter, priors);
  }

  public static Diagnostician of(Subject subject, Meter meter) {
    return of(subject, meter, Map.of());
  }

  /** Where this channel can be measured. */
  public List<Place> places() {
    return places;
  }

  /** Number of faults that are weighed. */
  public int faults() {
    return hypotheses.size();
  }

  private Column column(double x) {
    return columns.computeIfAbsent(x, k -> new Column(subject, meter.inputResistance(), k, nudge));
  }

  /** Every fault weighed against what was seen. */
  public Ranking rank(List<Observation> seen) {
    var posteriors = weigh(seen);
    double total = 0;
    double top = Double.NEGATIVE_INFINITY;
    for (Posterior p : posteriors) top = Math.max(top, p.logWeight());
    for (Posterior p : posteriors) total += Math.exp(p.logWeight() - top);
    var list = new ArrayList<Explanation>();
    for (Posterior p : posteriors) {
      double probability = Math.exp(p.logWeight() - top) / total;
      List<Double> expected = probability > IN_QUESTION ? expected(p.fault(), seen) : List.of();
      list.add(new Explanation(p.fault(), probability, p.misfit(), seen.size(), expected));
    }
    list.sort(Comparator.comparingDouble(Explanation::probability).reversed());
    return new Ranking(List.copyOf(seen), List.copyOf(list));
  }

  /** A hypothesis after what was seen. */
  private record Posterior(
      int hypothesis, Fault fault, double logWeight, double misfit, double[] degrees) {}

  private List<Posterior> weigh(List<Observation> seen) {
    var groups = new LinkedHashMap<Double, List<Observation>>();
    var unknown = new ArrayList<Observation>();
    for (Observation o : seen) {
      if (o.inputKnown()) groups.computeIfAbsent(o.at(), k -> new ArrayList<>()).add(o);
      else unknown.add(o);
    }
    var list = new ArrayList<Posterior>();
    for (int h = 0; h < hypotheses.size(); h++) list.add(weigh(h, groups, unknown));
    return list;
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

  /** Log likelihood and misfit at each degree. */
  private record Likelihood(double[] log, double[] misfit) {
    int best() {
      int b = 0;
      for (int i = 1; i < log.length; i++) if (log[i] > log[b]) b = i;
      return b;
    }
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
    if (spread(rough) > 2) return spreadOver(coarse, rough);
    if (spread(around) > 2) return spreadOver(middle, around);
    return spreadOver(fine, exact);
  }

  /** How many degrees share the likelihood: one over the sum of the squared shares. */
  private static double spread(Likelihood l) {
    double top = l.log()[l.best()];
    double sum = 0;
    double squares = 0;
    for (double v : l.log()) {
      double w = Math.exp(v - top);
      sum += w;
      squares += w * w;
    }
    return sum * sum / squares;
  }

  private static double[] spreadOver(double[] degrees, Likelihood l) {
    double top = l.log()[l.best()];
    double sum = 0;
    for (double v : l.log()) sum += Math.exp(v - top);
    var list = new double[SAMPLES];
    double below = 0;
    int next = 0;
    for (int i = 0; i < degrees.length && next < SAMPLES; i++) {
      below += Math.exp(l.log()[i] - top) / sum;
      while (next < SAMPLES && below >= (next + 0.5) / SAMPLES - 1e-12) list[next++] = degrees[i];
    }
    while (next < SAMPLES) list[next++] = degrees[degrees.length - 1];
    return list;
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
    int xs = UNKNOWN_STEPS * 8 + 1;
    var joint = new double[n][xs];
    for (Observation o : seen) {
      double[][] before = null;
      for (int k = 0; k <= UNKNOWN_STEPS; k++) {
        double[][] at = shown(h, column(w.at((double) k / UNKNOWN_STEPS)), o.place(), degrees);
        int steps = before == null ? 1 : 8;
        for (int j = 1; j <= steps; j++) {
          int x = before == null ? 0 : (k - 1) * 8 + j;
          double t = before == null ? 1 : j / 8.0;
          for (int i = 0; i < n; i++) {
            double value = before == null ? at[0][i] : before[0][i] + (at[0][i] - before[0][i]) * t;
            if (Double.isNaN(value)) {
              joint[i][x] += NO_DISPLAY;
              continue;
            }
            double sigma = sigma(o, value);
            double step = before == null ? 0 : Math.abs(at[0][i] - before[0][i]) / 16;
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
  private double sigma(Observation o, double value) {
    return Math.hypot(sigma(o.place(), value), o.step() / Math.sqrt(12));
  }

  /** Standard uncertainty of one reading by itself. */
  private double sigma(Place place, double value) {
    if (!place.equals(Place.DISPLAY)) return meter.uncertainty(value, place);
    Span w = subject.channel().definition().working();
    double least = Math.max(count, 1e-4 * w.width());
    // A number far outside the range comes of a slip and is off by its share, not by a count.
    return Math.hypot(least / 2, 1e-3 * Math.max(0, Math.abs(value) - w.width()));
  }

  private List<Double> expected(Fault fault, List<Observation> seen) {
    var list = new ArrayList<Double>();
    for (Observation o : seen) {
      list.add(o.inputKnown() ? reading(fault, o.place(), o.at()) : Double.NaN);
    }
    return list;
  }

  /** What a place would show under a fault; NaN where nothing holds it. */
  public double reading(Fault fault, Place place, double x) {
    var r = FaultyPath.of(subject, fault, x).read(place, meter.inputResistance());
    return r.floats() ? Double.NaN : r.value();
  }

  /** What the leading explanations show at one place, with what is still open there. */
  private record Sample(int hypothesis, double weight, Fault fault, double mean, double sigma) {}

  /**
   * The measurement that says most about which of the explanations holds; empty when none helps.
   */
  public Optional<NextMeasurement> next(Ranking ranking) {
    List<Posterior> posteriors = leading(ranking.observations());
    NextMeasurement best = null;
    double bestScore = 0.02;
    for (double x : inputs(ranking.observations())) {
      for (Place place : places) {
        if (made(ranking.observations(), place, x)) continue;
        List<Sample> samples = samples(posteriors, ranking.observations(), place, x);
        double bits = information(samples);
        double score = bits / cost(ranking.observations(), place, x);
        if (score > bestScore) {
          bestScore = score;
          best = new NextMeasurement(place, x, bits, predictions(samples));
        }
      }
    }
    return Optional.ofNullable(best);
  }

  private static boolean made(List<Observation> seen, Place place, double x) {
    return seen.stream().anyMatch(o -> o.place().equals(place) && o.at() == x);
  }

  private double cost(List<Observation> seen, Place place, double x) {
    boolean elsewhere = seen.stream().filter(Observation::inputKnown).noneMatch(o -> o.at() == x);
    double cost = elsewhere && !seen.isEmpty() ? OTHER_INPUT_COSTS : 1;
    return place.live() || place.equals(Place.DISPLAY) ? cost : cost * UNPLUGGING_COSTS;
  }

  /** Inputs at which it is worth measuring: those in use, then both ends and the middle. */
  private List<Double> inputs(List<Observation> seen) {
    var list = new ArrayList<Double>();
    for (Observation o : seen) {
      if (o.inputKnown() && !list.contains(o.at())) list.add(o.at());
    }
    Span w = subject.channel().definition().working();
    for (double x : new double[] {w.at(0.1), w.middle(), w.at(0.9)}) {
      boolean near = list.stream().anyMatch(l -> Math.abs(l - x) < 0.15 * w.width());
      if (!near) list.add(x);
    }
    return list;
  }

  private List<Posterior> leading(List<Observation> seen) {
    List<Posterior> all = new ArrayList<>(weigh(seen));
    all.sort(Comparator.comparingDouble(Posterior::logWeight).reversed());
    double top = all.getFirst().logWeight();
    var list = new ArrayList<Posterior>();
    for (Posterior p : all) {
      if (list.size() < LEADING && p.logWeight() > top - 9) list.add(p);
    }
    return list;
  }

  private List<Sample> samples(
      List<Posterior> posteriors, List<Observation> seen, Place place, double x) {
    double top = posteriors.getFirst().logWeight();
    var list = new ArrayList<Sample>();
    for (Posterior p : posteriors) {
      double weight = Math.exp(p.logWeight() - top);
      var own = new ArrayList<Sample>();
      double last = Double.NaN;
      for (double degree : p.degrees()) {
        if (degree == last && !own.isEmpty()) {
          own.add(own.getLast());
          continue;
        }
        last = degree;
        Hypothesis h = hypotheses.get(p.hypothesis());
        Fault f = h.graded() ? h.fault().withSeverity(degree) : h.fault();
        own.add(sample(p, f, weight / p.degrees().length, seen, place, x));
      }
      // Between two degrees lies every value between theirs.
      for (int i = 0; i < own.size(); i++) {
        double gap = 0;
        if (i > 0) gap = Math.max(gap, Math.abs(own.get(i).mean() - own.get(i - 1).mean()));
        if (i + 1 < own.size()) {
          gap = Math.max(gap, Math.abs(own.get(i).mean() - own.get(i + 1).mean()));
        }
        Sample s = own.get(i);
        list.add(
            new Sample(
                s.hypothesis(), s.weight(), s.fault(), s.mean(), Math.hypot(s.sigma(), gap / 2)));
      }
    }
    return list;
  }

  private Sample sample(
      Posterior p, Fault f, double weight, List<Observation> seen, Place place, double x) {
    var column = column(x);
    var cell = new Column(subject, meter.inputResistance(), x, nudge).cell(0, 0, f);
    Column.Prediction here = cell.at(place);
    if (here.floats() || Double.isNaN(here.value())) {
      boolean display = place.equals(Place.DISPLAY);
      Span w = subject.channel().definition().working();
      double middle = display ? w.middle() : here.span().middle();
      double wide = display ? w.width() : Math.max(here.span().width(), 1);
      return new Sample(p.hypothesis(), weight, f, middle, wide);
    }
    double departure = 0;
    double open = 1;
    for (Observation o : seen) {
      if (o.at() != column.x()) continue;
      double[] at = shown(cell.at(o.place()), o.place(), f);
      double sigma = sigma(o, at[0]);
      if (Double.isNaN(at[0])) continue;
      departure += at[1] * (o.value() - at[0]) / (sigma * sigma);
      open += at[1] * at[1] / (sigma * sigma);
    }
    double[] at = shown(here, place, f);
    if (Double.isNaN(at[0])) {
      Span w = subject.channel().definition().working();
      return new Sample(p.hypothesis(), weight, f, w.high() + 10 * w.width(), w.width());
    }
    double mean = at[0] + at[1] * departure / open;
    double sigma = Math.hypot(sigma(place, at[0]), Math.abs(at[1]) / Math.sqrt(open));
    return new Sample(p.hypothesis(), weight, f, mean, sigma);
  }

  private double[] shown(Column.Prediction p, Place place, Fault f) {
    if (!place.equals(Place.DISPLAY)) return new double[] {p.value(), p.slope()};
    double shown = display(f, p.value());
    double beside = display(f, p.value() + p.slope());
    return new double[] {shown, Double.isNaN(beside) ? 0 : beside - shown};
  }

  /** Expected information about which fault it is, in bits, by three points of each normal. */
  private static double information(List<Sample> samples) {
    var byHypothesis = new HashMap<Integer, Double>();
    double total = 0;
    for (Sample s : samples) {
      byHypothesis.merge(s.hypothesis(), s.weight(), Double::sum);
      total += s.weight();
    }
    double[] nodes = {-Math.sqrt(3), 0, Math.sqrt(3)};
    double[] weights = {1.0 / 6, 2.0 / 3, 1.0 / 6};
    double bits = 0;
    for (Sample s : samples) {
      double share = s.weight() / total;
      if (share < 1e-4) continue;
      double own = byHypothesis.get(s.hypothesis());
      for (int q = 0; q < 3; q++) {
        double y = s.mean() + nodes[q] * s.sigma();
        double all = 0;
        double mine = 0;
        for (Sample t : samples) {
          double z = (y - t.mean()) / t.sigma();
          if (Math.abs(z) > 7) continue;
          double density = t.weight() * Math.exp(-0.5 * z * z) / t.sigma();
          all += density;
          if (t.hypothesis() == s.hypothesis()) mine += density;
        }
        bits += share * weights[q] * Math.log((mine / own) / (all / total));
      }
    }
    return bits / Math.log(2);
  }

  private static List<NextMeasurement.Prediction> predictions(List<Sample> samples) {
    var byHypothesis = new LinkedHashMap<Integer, List<Sample>>();
    for (Sample s : samples) {
      byHypothesis.computeIfAbsent(s.hypothesis(), k -> new ArrayList<>()).add(s);
    }
    var list = new ArrayList<NextMeasurement.Prediction>();
    for (List<Sample> own : byHypothesis.values()) {
      Sample middle = own.get(own.size() / 2);
      list.add(new NextMeasurement.Prediction(middle.fault(), middle.mean(), middle.sigma()));
    }
    return list;
  }

  /**
   * Explanations that no measurement tells from this one, with this meter and inside these
   * tolerances: another fault, at some degree of its own, that gives the same readings everywhere.
   */
  public List<Explanation> indistinguishable(Explanation e, Ranking ranking) {
    List<Observation> everywhere = everywhere(e.fault(), ranking.observations());
    var list = new ArrayList<Explanation>();
    for (Explanation other : ranking.explanations()) {
      if (other.fault().same(e.fault()) || other.misfit() > 4 * MOST_ALIKE) continue;
      int h = indexOf(other.fault());
      var groups = new LinkedHashMap<Double, List<Observation>>();
      for (Observation o : everywhere) {
        groups.computeIfAbsent(o.at(), k -> new ArrayList<>()).add(o);
      }
      Posterior p = weigh(h, groups, List.of());
      if (p.misfit() <= MOST_ALIKE && floatsAlike(e.fault(), p.fault())) list.add(other);
    }
    return list;
  }

  private int indexOf(Fault fault) {
    for (int h = 0; h < hypotheses.size(); h++) {
      if (hypotheses.get(h).fault().same(fault)) return h;
    }
    throw new IllegalArgumentException(fault.name() + " is not among the faults of this channel");
  }

  private boolean floatsAlike(Fault a, Fault b) {
    double x = subject.channel().definition().working().middle();
    return FaultyPath.of(subject, a, x).converter().floats()
        == FaultyPath.of(subject, b, x).converter().floats();
  }

  /** What a fault shows at every place and input that can be looked at. */
  private List<Observation> everywhere(Fault f, List<Observation> seen) {
    var list = new ArrayList<Observation>();
    for (double x : inputs(seen)) {
      var cell = new Column(subject, meter.inputResistance(), x, nudge).cell(0, 0, f);
      for (Place place : places) {
        Column.Prediction p = cell.at(place);
        if (p.floats() || Double.isNaN(p.value())) continue;
        double v = shown(p, place, f)[0];
        if (!Double.isNaN(v)) list.add(Observation.of(place, x, v));
      }
    }
    return list;
  }
}
