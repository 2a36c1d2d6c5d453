package nocking.diagnosis;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import nocking.fault.Fault;
import nocking.fault.FaultCatalogue;
import nocking.fault.FaultMatrix;
import nocking.fault.Faults;
import nocking.fault.Subject;
import nocking.prior.PriorWeights;
import nocking.quantity.Span;
import nocking.wiring.Meter;
import nocking.wiring.Place;

/**
 * The likelihood of what was seen under each fault, integrated over the fault's degree: coarsely
 * over its whole range, then finer twice about the peak, which a good meter makes far narrower than
 * any step. What leads is solved once more at the very degree.
 */
final class Weigher {
  private static final int COARSE = 80;
  private static final int REFINED = 32;
  private static final int UNKNOWN_STEPS = 16;
  private static final int BETWEEN = 8;
  private static final int SAMPLES = 5;

  /** The tolerance of a sound channel is taken as so many standard deviations of its sensor. */
  private static final double TOLERANCE_SIGMAS = 3;

  /** Logarithm of the weight, below the likeliest, from which a degree is not solved again. */
  private static final double OUT_OF_QUESTION = 12;

  private static final int CLOSER = 24;
  private static final double GOLDEN = (Math.sqrt(5) - 1) / 2;

  /** How often a reading jumps that floats, that hangs on a bad contact, or else. */
  private static final double FLOATING_JUMPS = 0.5;

  private static final double CONTACT_JUMPS = 0.7;
  private static final double UNLISTED_JUMPS = 0.1;
  private static final double STEADY_JUMPS = 0.001;

  private final Subject subject;
  private final Meter meter;
  private final List<Hypothesis> hypotheses;
  private final List<Grid> grids = new ArrayList<>();
  private final ReadingModel reads;
  private final LooseReadings loose;
  private final double nudge;
  private final double rail;
  private List<MeasuredValue> lastSeen;
  private List<Posterior> last;
  private final Map<Double, Column> columns = new HashMap<>();

  Weigher(Subject subject, PriorWeights priorWeights) {
    this.subject = subject;
    this.meter = priorWeights.meter();
    var list = new ArrayList<Hypothesis>();
    for (Fault f : FaultCatalogue.of(subject)) {
      // A wire is as likely to break with a splice in it; where it does is shared out.
      int stretches = f.segment() < 0 ? 1 : subject.channel().wiring().plan().joints().size() + 1;
      double prior = priorWeights.weight(f.kind()) / stretches;
      if (prior > 0) list.add(new Hypothesis(f, prior));
    }
    hypotheses = List.copyOf(list);
    for (Hypothesis h : hypotheses) grids.add(new Grid(h));
    reads =
        new ReadingModel(
            subject,
            meter,
            new Floors(subject, FaultMatrix.places(subject), meter.inputResistance()));
    loose = new LooseReadings(subject, this);
    Span w = subject.channel().definition().working();
    double stated = subject.channel().definition().toleranceOrNaN();
    nudge = (Double.isNaN(stated) ? 0.01 * w.width() : stated) / TOLERANCE_SIGMAS;
    rail =
        subject.supply().isPresent()
            ? subject.channel().wiring().plan().supplied().share() / Math.sqrt(3)
            : 0;
  }

  /** How a prediction is read. */
  ReadingModel reads() {
    return reads;
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

  /** What the hypotheses predict at an input. */
  Column column(double x) {
    return columns.computeIfAbsent(
        x, k -> new Column(subject, meter.inputResistance(), k, nudge, rail));
  }

  /** What a fault at its own degree predicts at an input. */
  Column.Cell solved(Fault f, double x) {
    return column(x).cell(indexOf(f), f);
  }

  /** Every hypothesis weighed against what was seen. */
  List<Posterior> weigh(List<MeasuredValue> seen) {
    if (seen.equals(lastSeen)) return last;
    var list = new ArrayList<Posterior>();
    for (int h = 0; h < hypotheses.size(); h++) list.add(roughly(h, seen));
    double top = Double.NEGATIVE_INFINITY;
    for (Posterior p : list) top = Math.max(top, p.logWeight());
    for (int h = 0; h < list.size(); h++) {
      if (list.get(h).logWeight() > top - OUT_OF_QUESTION) list.set(h, exactly(list.get(h), seen));
    }
    last = List.copyOf(list);
    lastSeen = List.copyOf(seen);
    return last;
  }

  /** One hypothesis weighed against what was seen, its likeliest degree solved. */
  Posterior weigh(int h, List<MeasuredValue> seen) {
    return exactly(roughly(h, seen), seen);
  }

  private Posterior roughly(int h, List<MeasuredValue> seen) {
    Hypothesis hypothesis = hypotheses.get(h);
    double jumps = jumpLog(hypothesis, seen);
    if (hypothesis.fault().kind().loose()) {
      double[] l = loose.weigh(hypothesis.fault().kind(), seen);
      double log = Math.log(hypothesis.prior()) + l[0] + jumps;
      return new Posterior(h, hypothesis.fault(), log, l[1], new double[] {Double.NaN});
    }
    var evidence = Evidence.of(seen);
    return weigh(h, evidence).plus(jumps);
  }

  /** What was seen, by input. */
  private record Evidence(Map<Double, List<MeasuredValue>> groups, List<MeasuredValue> unknown) {
    static Evidence of(List<MeasuredValue> seen) {
      var groups = new LinkedHashMap<Double, List<MeasuredValue>>();
      var unknown = new ArrayList<MeasuredValue>();
      for (MeasuredValue o : seen) {
        if (o.inputKnown()) groups.computeIfAbsent(o.at(), k -> new ArrayList<>()).add(o);
        else unknown.add(o);
      }
      return new Evidence(groups, unknown);
    }
  }

  /**
   * Floating inputs and bad contacts jump; what drifted or is open for good does not. A reading
   * that is entered as a steady one may not have been looked at for long and says nothing.
   */
  private double jumpLog(Hypothesis h, List<MeasuredValue> seen) {
    double log = 0;
    for (MeasuredValue o : seen) {
      if (!o.jumps()) continue;
      double p =
          switch (h.fault().kind()) {
            case UNLISTED -> UNLISTED_JUMPS;
            case INTERMITTENT -> LooseReadings.touched(o.place()) ? CONTACT_JUMPS : STEADY_JUMPS;
            default -> floats(h, o) ? FLOATING_JUMPS : STEADY_JUMPS;
          };
      log += Math.log(p);
    }
    return log;
  }

  private boolean floats(Hypothesis h, MeasuredValue o) {
    if (h.fault().kind().loose()) return false;
    double x = o.inputKnown() ? o.at() : subject.channel().definition().working().middle();
    return column(x).cell(indexOf(h.fault()), h.fault()).at(o.place()).floats();
  }

  private Posterior weigh(int h, Evidence e) {
    Hypothesis hypothesis = hypotheses.get(h);
    double prior = Math.log(hypothesis.prior());
    if (!hypothesis.graded()) {
      Likelihood l = likelihood(h, new double[] {0}, e, false, false);
      return new Posterior(
          h, hypothesis.fault(), prior + l.log()[0], l.misfit()[0], new double[] {Double.NaN});
    }
    prepare(h, e);
    double[] coarse = fractions(0, 1, COARSE);
    Likelihood rough = likelihood(h, coarse, e, true, false);
    int near = rough.best();
    // A good meter's peak is far narrower than a step: the neighbourhood is looked at anew.
    double from = Math.max(0, (near - 1.0) / COARSE);
    double to = Math.min(1, (near + 1.0) / COARSE);
    double[] middle = fractions(from, to, REFINED);
    Likelihood around = likelihood(h, middle, e, true, false);
    int nearer = around.best();
    double step = (to - from) / REFINED;
    double low = Math.max(from, from + (nearer - 2) * step);
    double high = Math.min(to, from + (nearer + 2) * step);
    double[] fine = fractions(low, high, REFINED);
    Likelihood exact = likelihood(h, fine, e, false, false);
    int best = exact.best();
    double peak = Math.max(exact.log()[best], around.log()[nearer]);
    double evidence =
        area(fine, exact, peak, Double.NaN, Double.NaN)
            + area(middle, around, peak, low, high)
            + area(coarse, rough, peak, from, to);
    return new Posterior(
        h,
        hypothesis.at(fine[best]),
        prior + peak + Math.log(evidence),
        exact.misfit()[best],
        severities(hypothesis, quantiles(coarse, rough, middle, around, fine, exact)));
  }

  /** Trapezoids under the likelihood relative to a peak, without those inside an interval. */
  private static double area(double[] at, Likelihood l, double peak, double from, double to) {
    double sum = 0;
    for (int i = 1; i < at.length; i++) {
      double middle = (at[i - 1] + at[i]) / 2;
      if (middle > from && middle < to) continue;
      double a = Math.exp(Math.min(0, l.log()[i - 1] - peak));
      double b = Math.exp(Math.min(0, l.log()[i] - peak));
      sum += (a + b) / 2 * (at[i] - at[i - 1]);
    }
    return sum;
  }

  /**
   * The likeliest degree solved for itself: between solved degrees stands an estimate, and what it
   * leaves open must not pass for agreement. Where it does not agree the neighbourhood is searched.
   */
  private Posterior exactly(Posterior p, List<MeasuredValue> seen) {
    Hypothesis h = hypotheses.get(p.hypothesis());
    if (!h.graded() || seen.isEmpty()) return p;
    var e = Evidence.of(seen);
    double at = fraction(h, p.fault().severity());
    Likelihood guess = likelihood(p.hypothesis(), new double[] {at}, e, false, false);
    Likelihood here = likelihood(p.hypothesis(), new double[] {at}, e, false, true);
    double best = at;
    Likelihood found = here;
    if (!Explanation.fits(here.misfit()[0], seen.size())) {
      double low = Math.max(0, at - 1.0 / COARSE);
      double high = Math.min(1, at + 1.0 / COARSE);
      for (int i = 0; i < CLOSER; i++) {
        double a = high - GOLDEN * (high - low);
        double b = low + GOLDEN * (high - low);
        Likelihood atA = likelihood(p.hypothesis(), new double[] {a}, e, false, true);
        Likelihood atB = likelihood(p.hypothesis(), new double[] {b}, e, false, true);
        if (atA.log()[0] > found.log()[0]) {
          found = atA;
          best = a;
        }
        if (atB.log()[0] > found.log()[0]) {
          found = atB;
          best = b;
        }
        if (atA.log()[0] > atB.log()[0]) high = b;
        else low = a;
      }
    }
    double gained = found.log()[0] - guess.log()[0];
    return p.with(h.at(best), p.logWeight() + gained, found.misfit()[0]);
  }

  /** Fraction of the range at which a degree lies, by halving: degrees rise with it. */
  private static double fraction(Hypothesis h, double severity) {
    double low = 0;
    double high = 1;
    for (int i = 0; i < 60; i++) {
      double middle = (low + high) / 2;
      if (h.at(middle).severity() < severity) low = middle;
      else high = middle;
    }
    return high;
  }

  private Likelihood likelihood(
      int h, double[] fractions, Evidence e, boolean smooth, boolean solved) {
    var log = new double[fractions.length];
    var misfit = new double[fractions.length];
    for (var group : e.groups.entrySet()) {
      var known = new Known(h, column(group.getKey()), fractions, smooth, solved);
      for (MeasuredValue o : group.getValue()) known.add(o);
      known.into(log, misfit);
    }
    if (!e.unknown.isEmpty()) addUnknown(h, e.unknown, fractions, log, misfit);
    return new Likelihood(log, misfit);
  }

  private static double[] fractions(double from, double to, int steps) {
    var list = new double[steps + 1];
    for (int i = 0; i <= steps; i++) list[i] = from + (to - from) * i / steps;
    return list;
  }

  private static double[] severities(Hypothesis h, double[] fractions) {
    double[] s = new double[fractions.length];
    for (int i = 0; i < s.length; i++) s[i] = h.fault().kind().severity(fractions[i]);
    return s;
  }

  /** Fractions that stand for the likely ones: a few of the wide spread, or of the peak. */
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

  /** Solves more degrees where those at hand do not say what lies between them. */
  private void prepare(int h, Evidence e) {
    for (var group : e.groups.entrySet()) {
      Column column = column(group.getKey());
      for (MeasuredValue o : group.getValue()) {
        grids
            .get(h)
            .refine(
                List.of(group.getKey(), o.place()),
                f -> column.cell(h, f).at(o.place()).value(),
                v -> o.place().equals(Place.DISPLAY) ? countVolts() : reads.sigma(o, v));
      }
    }
  }

  private double countVolts() {
    return subject.channel().design().converter().step();
  }

  /**
   * Predictions of one hypothesis for a place at every fraction: value, slope with the sensor's
   * departure, slope with the supply's, and what is open between two solved degrees.
   */
  private double[][] predict(
      int h, Column column, Place place, double[] fractions, boolean solved) {
    Hypothesis hypothesis = hypotheses.get(h);
    int n = fractions.length;
    if (solved || !hypothesis.graded()) {
      var p = new double[4][n];
      for (int i = 0; i < n; i++) {
        Column.Prediction at = column.cell(h, hypothesis.at(fractions[i])).at(place);
        p[0][i] = at.value();
        p[1][i] = at.slope();
        p[2][i] = at.railSlope();
      }
      return p;
    }
    return column.curve(h, grids.get(h), place).at(fractions, severities(hypothesis, fractions));
  }

  /**
   * Readings at one known input: independent but for what they have in common, the departures of
   * sensor and supply, and on a coarse grid half a step of the degree to either side.
   */
  private final class Known {
    /** Departures that readings have in common. */
    private static final int COMMON = 3;

    private final int h;
    private final Column column;
    private final double[] fractions;
    private final boolean smooth;
    private final boolean solved;
    private final JointResidual[] joint;

    private Known(int h, Column column, double[] fractions, boolean smooth, boolean solved) {
      this.h = h;
      this.column = column;
      this.fractions = fractions;
      this.smooth = smooth;
      this.solved = solved;
      joint = new JointResidual[fractions.length];
      for (int i = 0; i < joint.length; i++) joint[i] = new JointResidual(COMMON);
    }

    private void add(MeasuredValue o) {
      Hypothesis hypothesis = hypotheses.get(h);
      int n = fractions.length;
      Column.Prediction first = column.cell(h, hypothesis.at(0)).at(o.place());
      if (first.floats() && !hypothesis.graded()) {
        double log = reads.floatingLog(o, first.span(), Faults.of(hypothesis.fault()));
        for (JointResidual r : joint) r.addDensity(log);
        return;
      }
      double[][] p = predict(h, column, o.place(), fractions, solved);
      boolean display = o.place().equals(Place.DISPLAY);
      double[] sound = display ? soundDisplays(hypothesis.fault(), p[0]) : p[0];
      if (display) turnIntoDisplay(hypothesis, fractions, p);
      for (int i = 0; i < n; i++) {
        double value = p[0][i];
        if (Double.isNaN(value)) {
          joint[i].addImpossible(ReadingModel.NO_DISPLAY);
          continue;
        }
        double sigma = Math.hypot(reads.sigma(o, value), p[3][i]);
        if (display) sigma = Math.hypot(sigma, reads.beyond(o, slips(h) ? sound[i] : value));
        double step = smooth ? p[0][Math.min(n - 1, i + 1)] - p[0][Math.max(0, i - 1)] : 0;
        joint[i].add(o.value() - value, sigma, p[1][i], p[2][i], step / 4);
      }
    }

    private void into(double[] log, double[] misfit) {
      for (int i = 0; i < joint.length; i++) {
        JointResidual.Settled s = joint[i].settled();
        log[i] += s.log();
        misfit[i] += s.misfit();
      }
    }
  }

  /** A slip makes any number of one inside the range, and an exact one. */
  private boolean slips(int h) {
    return ReadingModel.slips(hypotheses.get(h).fault().kind());
  }

  /** What a receiver with sound numbers shows for volts, where a slip hides that. */
  private double[] soundDisplays(Fault fault, double[] volts) {
    if (!ReadingModel.slips(fault.kind())) return volts;
    double[] shown = new double[volts.length];
    for (int i = 0; i < shown.length; i++) shown[i] = reads.display(Fault.NONE, volts[i]);
    return shown;
  }

  /**
   * What each reading should have been under a fault, with the departures of sensor and supply that
   * the readings at the same input themselves speak for; NaN where nothing holds the place or the
   * input is not known.
   */
  double[] expected(Fault f, List<MeasuredValue> seen) {
    double[] expected = new double[seen.size()];
    for (int i = 0; i < expected.length; i++) {
      MeasuredValue o = seen.get(i);
      expected[i] = Double.NaN;
      if (!o.inputKnown() || solved(f, o.at()).at(o.place()).floats()) continue;
      double[] at = reads.shown(solved(f, o.at()).at(o.place()), o.place(), f);
      double[] common = departures(f, o.at(), seen);
      expected[i] = at[0] + at[1] * common[0] + at[2] * common[1];
    }
    return expected;
  }

  /** The likeliest departures of sensor and supply at an input, in standard deviations. */
  private double[] departures(Fault f, double x, List<MeasuredValue> seen) {
    var joint = new JointResidual(2);
    for (MeasuredValue o : seen) {
      if (o.at() != x || solved(f, x).at(o.place()).floats()) continue;
      double[] at = reads.shown(solved(f, x).at(o.place()), o.place(), f);
      if (!Double.isNaN(at[0])) joint.add(o.value() - at[0], reads.wide(o, at[0]), at[1], at[2]);
    }
    return joint.settled().departures();
  }

  /** Logarithm of the likelihood of readings on a sound channel, and the misfit. */
  double[] sound(List<MeasuredValue> seen) {
    if (seen.isEmpty()) return new double[] {0, 0};
    int none = indexOf(Fault.NONE);
    Likelihood l = likelihood(none, new double[] {0}, Evidence.of(seen), false, false);
    return new double[] {l.log()[0], l.misfit()[0]};
  }

  /** What a sound channel reads and its standard uncertainty by sensor and supply. */
  double[] soundReading(MeasuredValue o) {
    Column.Prediction p = solved(Fault.NONE, o.at()).at(o.place());
    double[] at = reads.shown(p, o.place(), Fault.NONE);
    return new double[] {at[0], Math.hypot(at[1], at[2])};
  }

  private void addUnknown(
      int h, List<MeasuredValue> seen, double[] fractions, double[] log, double[] misfit) {
    Span w = subject.channel().definition().working();
    int n = fractions.length;
    int xs = UNKNOWN_STEPS * BETWEEN + 1;
    var joint = new double[n][xs];
    for (MeasuredValue o : seen) {
      Hypothesis hypothesis = hypotheses.get(h);
      Column.Prediction first = column(w.middle()).cell(h, hypothesis.at(0)).at(o.place());
      if (first.floats() && !hypothesis.graded()) {
        double any = reads.floatingLog(o, first.span(), Faults.of(hypothesis.fault()));
        for (double[] row : joint) for (int x = 0; x < xs; x++) row[x] += any;
        continue;
      }
      double[][] before = null;
      for (int k = 0; k <= UNKNOWN_STEPS; k++) {
        double[][] at = shown(h, column(w.at((double) k / UNKNOWN_STEPS)), o.place(), fractions);
        int steps = before == null ? 1 : BETWEEN;
        for (int j = 1; j <= steps; j++) {
          int x = before == null ? 0 : (k - 1) * BETWEEN + j;
          double t = before == null ? 1 : (double) j / BETWEEN;
          for (int i = 0; i < n; i++) {
            double value = before == null ? at[0][i] : before[0][i] + (at[0][i] - before[0][i]) * t;
            if (Double.isNaN(value)) {
              joint[i][x] += ReadingModel.NO_DISPLAY;
              continue;
            }
            double sigma = reads.sigma(o, value);
            double step = before == null ? 0 : Math.abs(at[0][i] - before[0][i]) / (2.0 * BETWEEN);
            double wide = Math.hypot(sigma, step);
            double r = Math.clamp((o.value() - value) / wide, -ReadingModel.FAR, ReadingModel.FAR);
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
      for (MeasuredValue o : seen) logs -= Math.log(reads.sigma(o, o.value()));
      misfit[i] += Math.max(0, -2 * (top - logs));
    }
  }

  private double[][] shown(int h, Column column, Place place, double[] fractions) {
    double[][] p = predict(h, column, place, fractions, false);
    if (place.equals(Place.DISPLAY)) turnIntoDisplay(hypotheses.get(h), fractions, p);
    return p;
  }

  /** Volts at the converter become what the display says of them. */
  private void turnIntoDisplay(Hypothesis h, double[] fractions, double[][] p) {
    for (int i = 0; i < fractions.length; i++) {
      Fault f = h.at(fractions[i]);
      double volts = p[0][i];
      p[0][i] = reads.display(f, volts);
      for (int k = 1; k <= 2; k++) p[k][i] = reads.display(f, volts + p[k][i]) - p[0][i];
      if (p[3][i] > 0) p[3][i] = Math.abs(reads.display(f, volts + p[3][i]) - p[0][i]);
    }
  }
}
